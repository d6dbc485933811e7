"""What a brief with its build comes to, and how it is changed."""

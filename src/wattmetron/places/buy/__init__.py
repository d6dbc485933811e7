"""What is bought where, and what stands in for a part that is sold out."""

"""What views of a brief are made from."""

"""The pages of one brief with all its views."""

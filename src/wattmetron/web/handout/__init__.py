"""The handout as pages and files, and links for those who get it."""

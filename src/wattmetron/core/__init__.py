"""Rules and computation, free of files, pages and databases."""

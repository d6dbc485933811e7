"""One brief with its build: what is said of it and every change that can be made."""

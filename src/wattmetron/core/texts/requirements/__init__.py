"""Reading published requirements from pasted text."""

"""The open database with its catalogue, and what reaches beyond it."""

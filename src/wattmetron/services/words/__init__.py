"""How money, figures, wishes and trade words are written."""

"""Parts, their prices and the charts that place them: lists, edits, imports."""

"""The place Briefs: the list and one brief with its views."""

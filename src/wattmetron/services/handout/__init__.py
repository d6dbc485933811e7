"""The result for the person who gets it: one content, many forms."""

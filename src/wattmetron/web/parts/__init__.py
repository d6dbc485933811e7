"""The place Parts: lists, one part, the scale of speeds, edits."""

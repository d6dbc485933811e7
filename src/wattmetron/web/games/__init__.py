"""The place Games: the list, one game, texts to read."""

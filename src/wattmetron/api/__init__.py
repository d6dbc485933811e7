"""The same answers as data, and the application as a whole."""

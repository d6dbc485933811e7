"""The same use cases for programs."""

"""What is weak in a build, and what improves it."""

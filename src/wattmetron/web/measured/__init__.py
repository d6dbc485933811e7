"""The place Measured: runs, what they say, and whether promises were kept."""

"""Builds side by side, and a build as it was."""

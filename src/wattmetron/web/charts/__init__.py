"""Server-made SVG, without inline styles."""

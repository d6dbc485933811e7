"""Pictures as SVG."""

"""Charts and drawings as SVG, made on the server."""

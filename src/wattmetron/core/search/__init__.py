"""The exact search for the best build: candidates, tables, bounds, hunt, frontier."""

"""The collection of parts: figures, offers, charts, tables brought in."""

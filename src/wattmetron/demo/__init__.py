"""The made-up world of Vellmouth: a catalogue folder and briefs that ship with the application."""

from pathlib import Path

CATALOGUE = Path(__file__).with_name("catalogue")
BRIEFS = Path(__file__).with_name("briefs")

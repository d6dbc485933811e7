"""The made-up world of Vellmouth: a catalogue folder and briefs that ship with the application."""

from datetime import date
from pathlib import Path

CATALOGUE = Path(__file__).with_name("catalogue")
BRIEFS = Path(__file__).with_name("briefs")
TODAY = date(2026, 11, 20)
"""The day whose prices the demo ships with."""

"""The made-up world of Vellmouth: a catalogue folder and briefs that ship with the application."""

from datetime import date
from functools import cache
from pathlib import Path

from wattmetron.core.values.shops import ShopRules
from wattmetron.formats.shops_file import read_shops

CATALOGUE = Path(__file__).with_name("catalogue")
BRIEFS = Path(__file__).with_name("briefs")
TODAY = date(2026, 11, 20)
"""The day whose prices the demo ships with."""
RATES = "2026-10-20 EUR NOK 11.62\n2026-11-20 EUR NOK 11.70\n"


@cache
def shop_rules() -> tuple[ShopRules, ...]:
    """How the shops of the made-up world sell."""
    file = CATALOGUE / "shops.json"
    return tuple(read_shops(file.name, file.read_bytes(), (), []).values())

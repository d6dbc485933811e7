"""The readers of what people paste or bring in: each is held to time in proportion to the text.

A reader that is missing here is found by the tests.
"""

from collections.abc import Callable, Mapping
from typing import Any

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.texts.messages.message_reader import read_letter
from wattmetron.core.texts.part_lists.part_list_reader import read_list
from wattmetron.core.texts.requirements.requirements_reader import reader_of
from wattmetron.core.values.exchange_rates import read_rates
from wattmetron.core.values.part_types import PART_TYPES
from wattmetron.formats.csv_table import read_table
from wattmetron.formats.frames_table import read_frames
from wattmetron.formats.prices_table import read_prices
from wattmetron.places.games.result_table import lines_of
from wattmetron.places.parts.charting import ChartSource, pasted_chart

Reader = Callable[[Catalogue, str], Any]


def _chart(catalogue: Catalogue, text: str) -> Any:
    return pasted_chart(catalogue, ChartSource(name="Pasted", measure="one core"), text)


def _part_table(catalogue: Catalogue, text: str) -> Any:
    return list(read_table(PART_TYPES["case"], "cases.csv", text, [], set()))


READERS: Mapping[str, Reader] = {
    "message": read_letter,
    "part list": read_list,
    "requirements": lambda catalogue, text: reader_of(catalogue).read(text),
    "results": lambda catalogue, text: lines_of(text, (), {}),
    "chart": _chart,
    "prices": lambda catalogue, text: read_prices(text),
    "part table": _part_table,
    "exchange rates": lambda catalogue, text: read_rates(text),
    "frame times": lambda catalogue, text: read_frames(text.encode()),
}
BEHIND = {
    read_table,
    read_letter,
    read_list,
    reader_of,
    lines_of,
    pasted_chart,
    read_prices,
    read_rates,
    read_frames,
}
"""The functions that they call."""

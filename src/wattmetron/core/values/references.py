"""Machines that are bought as they are, to compare with: what they cost and are known to reach."""

import re
from dataclasses import dataclass
from datetime import date

from wattmetron.core.errors import BriefError

MOST_REFERENCES, LONGEST = 50, 120
RATE = re.compile(r"\d{1,4}(?:[.,]\d+)?")


@dataclass(frozen=True, slots=True, kw_only=True)
class ReachedRate:
    """What a machine reaches in a game: settings and rate as they were read or heard, the rates in
    fps that these words name (None: none), and whether it looked locked at one.
    """

    game: str
    settings: str = ""
    words: str = ""
    low_fps: float | None = None
    high_fps: float | None = None
    locked: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Reference:
    """A console or a prebuilt: its price in minor units, what it reaches, what is in the box and
    what is not, and where this is from.
    """

    id: str
    name: str
    price_minor: int
    currency: str
    reached: tuple[ReachedRate, ...] = ()
    includes: str = ""
    lacks: str = ""
    source: str = ""
    seen_on: date | None = None

    def in_game(self, game: str) -> ReachedRate | None:
        return next((rate for rate in self.reached if rate.game == game), None)


def read_reached(game: str, settings: str, words: str) -> ReachedRate:
    """What was typed of a game: ``60``, ``59-65``, ``locked at 60``; raises BriefError for a rate
    that names none.
    """
    text = words.strip()
    rates = [float(text_rate.replace(",", ".")) for text_rate in RATE.findall(text)][:2]
    if not rates:
        raise BriefError(
            f"“{text[:40]}” names no rate: enter one such as 60, 59-65 or locked at 30."
        )
    return ReachedRate(
        game=game,
        settings=settings.strip()[:LONGEST],
        words=text[:LONGEST],
        low_fps=min(rates),
        high_fps=max(rates),
        locked=bool(re.search(r"lock|cap|steady", text, re.I)),
    )

"""What of a brief the fit rules look at."""

from dataclasses import dataclass

from wattmetron.core.briefs import Brief, Display


@dataclass(frozen=True, slots=True)
class Wishes:
    """Supply headroom in %, the most that the machine may draw in W, the display to drive, wireless wanted."""

    headroom_percent: int = 140
    watt_limit_w: int | None = None
    display: Display | None = None
    wireless: bool = False


USUAL = Wishes()


def wishes_of(brief: Brief) -> Wishes:
    return Wishes(brief.headroom_percent, brief.watt_limit_w, brief.display, brief.wireless)

"""The scale of speeds: processors, graphics chips by amount of video memory, and named parts placed
on it.
"""

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import date
from statistics import median_low
from typing import NamedTuple

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.parts import Graphics, Part, Processor
from wattmetron.core.values.published import NamedPart, Side

LONGEST_CHAIN = 5


def key_of(*words: str) -> str:
    """Small letters, digits and hyphens: ``Nacre Reef`` gives ``nacre-reef``."""
    return re.sub(r"[^a-z0-9]+", "-", " ".join(words).lower()).strip("-")


def variant_key(chip: str, memory_gb: float) -> str:
    """A chip with an amount of video memory: ``nacre-reef@8``."""
    return f"{key_of(chip)}@{memory_gb:g}"


@dataclass(frozen=True, slots=True, kw_only=True)
class Standing:
    """A place on the scale.

    ``speeds``: for a processor (S, T) in points; for graphics (R at 1920x1080, 2560x1440,
    3840x2160) in points. ``ray_speed`` is Q, None where it is not known to trace rays. ``part_ids``
    are the parts that stand here; games take to parts of one ``design`` alike; ``threads`` are a
    processor's, where they are known.
    """

    key: str
    side: Side
    name: str
    speeds: tuple[float, ...]
    sd: float
    ray_speed: float | None
    ray_sd: float
    memory_gb: float | None
    released: date | None
    withdrawn: date | None
    part_ids: tuple[str, ...]
    placed: NamedPart | None = None
    design: str = ""
    threads: int | None = None

    def on_sale(self, day: date) -> bool:
        """Whether it was sold on that day; an unknown date does not exclude it."""
        return (self.released is None or self.released <= day) and (
            self.withdrawn is None or day < self.withdrawn
        )


class AnchorSpeeds(NamedTuple):
    """R at the three anchor resolutions."""

    at_1080p: float
    at_1440p: float
    at_2160p: float


def anchors_of(card: Graphics) -> AnchorSpeeds:
    """R at the three anchor resolutions; a figure not given equals its lower neighbour."""
    middle = card.speed_1440p if card.speed_1440p is not None else card.speed_1080p
    large = card.speed_2160p if card.speed_2160p is not None else middle
    return AnchorSpeeds(card.speed_1080p, middle, large)


class Scale:
    """All standings by key; a chip's key stands for its variants by video memory, smallest
    first.
    """

    def __init__(self, parts: Iterable[Part], named: Mapping[str, NamedPart]) -> None:
        self.standings: dict[str, Standing] = {}
        self.variants: dict[str, tuple[Standing, ...]] = {}
        self.of_part: dict[str, str] = {}
        self._by_side: dict[Side, list[Standing]] = {"processor": [], "graphics": []}
        cards: dict[str, list[Graphics]] = {}
        for part in parts:
            if isinstance(part, Processor):
                self._add(_processor(part))
            elif isinstance(part, Graphics):
                cards.setdefault(variant_key(part.chip, part.memory_gb), []).append(part)
        for key in sorted(cards, key=lambda card: (cards[card][0].chip, cards[card][0].memory_gb)):
            self._add(_variant(key, cards[key]))
        self._place(named)

    @classmethod
    def of_standings(cls, standings: Iterable[Standing]) -> "Scale":
        """A scale of standings that are there already."""
        scale = cls((), {})
        for standing in standings:
            scale._add(standing)
        return scale

    def _add(self, standing: Standing) -> None:
        self.standings[standing.key] = standing
        self._by_side[standing.side].append(standing)
        for part_id in standing.part_ids:
            self.of_part[part_id] = standing.key
        if standing.side == "graphics":
            chip = standing.key.partition("@")[0]
            self.variants[chip] = (*self.variants.get(chip, ()), standing)

    def _place(self, named: Mapping[str, NamedPart]) -> None:
        """Named parts, those placed against other named parts after them; what cannot be chained is
        left out.
        """
        waiting = dict(named)
        for _ in range(LONGEST_CHAIN):
            for part_id, part in list(waiting.items()):
                base = self.standing(part.than)
                if base is not None and base.side == part.side:
                    self._add(_named(part, base))
                    del waiting[part_id]

    def standing(self, key: str) -> Standing | None:
        """The standing of a key; of a chip's key its smallest variant."""
        if key in self.standings:
            return self.standings[key]
        key = self.of_part.get(key, key)
        return self.standings.get(key) or next(iter(self.variants.get(key, ())), None)

    def meant(
        self, key: str, side: Side, memory_gb: float | None, wanted_gb: float | None = None
    ) -> tuple[Standing, ...]:
        """The standings of a side that a name can mean: the stated amount of video memory picks the
        variant, else the smallest variant with the amount wanted; where both are open, all
        variants.
        """
        key = self.of_part.get(key, key)
        if key in self.standings:
            standing = self.standings[key]
            return (standing,) if standing.side == side else ()
        open_ones = self.variants.get(key, ()) if side == "graphics" else ()
        if memory_gb is not None:
            return (
                tuple(open_one for open_one in open_ones if open_one.memory_gb == memory_gb)
                or open_ones
            )
        if wanted_gb is not None and len(open_ones) > 1:
            enough = [
                open_one
                for open_one in open_ones
                if open_one.memory_gb is not None and open_one.memory_gb >= wanted_gb
            ]
            return (enough[0],) if enough else (open_ones[-1],)
        return open_ones

    def of(self, side: Side) -> tuple[Standing, ...]:
        """All standings of a side."""
        return tuple(self._by_side[side])


def _processor(part: Processor) -> Standing:
    return Standing(
        key=part.id,
        side="processor",
        name=part.name,
        speeds=(part.single_speed, part.all_core_speed),
        sd=part.speed_sd,
        ray_speed=None,
        ray_sd=0.0,
        memory_gb=None,
        released=part.released,
        withdrawn=part.withdrawn,
        part_ids=(part.id,),
        design=part.design,
        threads=part.threads,
    )


def _variant(key: str, cards: list[Graphics]) -> Standing:
    """The middle card of a chip with this much memory stands for all of them."""
    middle = median_low([card.speed_1080p for card in cards])
    card = next(graphics for graphics in cards if graphics.speed_1080p == middle)
    released = min((graphics.released for graphics in cards if graphics.released), default=None)
    withdrawn = (
        None
        if any(graphics.withdrawn is None for graphics in cards)
        else max(graphics.withdrawn for graphics in cards if graphics.withdrawn)
    )
    return Standing(
        key=key,
        side="graphics",
        name=f"{card.chip} {card.memory_gb:g}\u00a0GB",
        speeds=anchors_of(card),
        sd=card.speed_sd,
        ray_speed=card.ray_speed or None,
        ray_sd=card.ray_speed_sd,
        memory_gb=card.memory_gb,
        released=released,
        withdrawn=withdrawn,
        part_ids=tuple(graphics.id for graphics in cards),
        design=card.design,
    )


def _named(part: NamedPart, base: Standing) -> Standing:
    factor = 1 + part.percent / 100
    sd = (base.sd**2 + part.speed_sd**2) ** 0.5
    return replace(
        base,
        key=part.id,
        name=part.name,
        speeds=tuple(speed * factor for speed in base.speeds),
        sd=sd,
        ray_speed=None if base.ray_speed is None else base.ray_speed * factor,
        ray_sd=(base.ray_sd**2 + part.speed_sd**2) ** 0.5,
        memory_gb=part.memory_gb if part.memory_gb is not None else base.memory_gb,
        released=None,
        withdrawn=None,
        part_ids=(),
        placed=part,
        design="",
    )


def scale_of(catalogue: Catalogue) -> Scale:
    """The scale of a catalogue, with its named parts placed on it."""
    return catalogue.keep.once(("scale",), lambda: Scale(catalogue.parts.values(), catalogue.named))

"""What if: the answer to the same brief when prices, stock or the region change, beside the present answer."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from wattmetron.core.balance import propose
from wattmetron.core.briefs import Brief, Build
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.parts import KINDS, Kind, kind_of
from wattmetron.core.prices.offers import Offer
from wattmetron.services.assess import Assessment, assess, known_brief, known_build, remembered
from wattmetron.services.proposals import kept_parts

SHARED = ("scale", "tiers", "asked", "by_kind", "_informed", "_doubts", "games_by_name")
RISE_PERCENT = 10


@dataclass(frozen=True, slots=True)
class Supposed:
    """A supposition in words, its answer (None where nothing fits) and the kinds that differ from the answer today."""

    words: str
    assessment: Assessment | None
    changed: tuple[Kind, ...]


def what_if(catalogue: Catalogue, brief: Brief, build: Build) -> tuple[Assessment | None, tuple[Supposed, ...]]:
    """The answer today, and under each supposition: dearer cards and processors, each side's part sold out, other regions."""
    return remembered(catalogue, ("what if", brief, build), lambda: _what_if(catalogue, known_brief(catalogue, brief), build))


def _what_if(catalogue: Catalogue, brief: Brief, build: Build) -> tuple[Assessment | None, tuple[Supposed, ...]]:
    kept = kept_parts(known_build(catalogue, build))
    today = _answer(catalogue, brief, kept)
    found = []
    for words, changed, asked in _suppositions(catalogue, brief, kept, today):
        then = _answer(changed, asked, kept)
        kinds = tuple(kind for kind in KINDS if today and then and today.build.of(kind) != then.build.of(kind))
        found.append(Supposed(words, then, kinds))
    return today, tuple(found)


def _answer(catalogue: Catalogue, brief: Brief, kept: Build) -> Assessment | None:
    build = propose(catalogue, brief, "most frames", kept).build
    return None if build is None else assess(catalogue, brief, build)


def _suppositions(catalogue: Catalogue, brief: Brief, kept: Build, today: Assessment | None) -> list[tuple[str, Catalogue, Brief]]:
    found: list[tuple[str, Catalogue, Brief]] = []
    for kind, word in (("graphics", "Graphics cards"), ("processor", "Processors"), ("memory", "Memory")):
        found.append((f"{word} cost {RISE_PERCENT} % more", repriced(catalogue, _dearer(catalogue, kind)), brief))
    for kind in ("graphics", "processor"):
        part = next(iter(today.machine.of(kind)), None) if today else None  # type: ignore[arg-type]
        if part is not None and part.id not in brief.owned and part.id not in kept.of(kind_of(part)):
            found.append((f"{part.name} sells out", catalogue, replace(brief, banned=(*brief.banned, part.id))))
    if not brief.allow_used:
        found.append(("Used parts are welcome", catalogue, replace(brief, allow_used=True)))
    return found


def _dearer(catalogue: Catalogue, kind: str) -> Callable[[Offer], Offer]:
    def changed(offer: Offer) -> Offer:
        part = catalogue.parts.get(offer.part_id)
        if part is None or kind_of(part) != kind:
            return offer
        return replace(offer, price_minor=round(offer.price_minor * (100 + RISE_PERCENT) / 100))

    return changed


def repriced(catalogue: Catalogue, change: Callable[[Offer], Offer]) -> Catalogue:
    """The catalogue with other offers; what does not hang on prices is shared."""
    other = replace(catalogue, offers=tuple(change(offer) for offer in catalogue.offers))
    for name in SHARED:
        if name in catalogue.__dict__:
            other.__dict__[name] = catalogue.__dict__[name]
    return other

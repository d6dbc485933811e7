"""How many lines of a set of lists are read as they are meant."""

from collections.abc import Iterable
from dataclasses import dataclass, field

from tests.core.part_lists import Sent
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.texts.part_lists.list_lines import SentPart
from wattmetron.core.texts.part_lists.part_list_reader import read_list
from wattmetron.core.values.parts import Graphics

SURE = 0.9


@dataclass
class Score:
    """Lines in all, those matched rightly, figures in all and right, and what went wrong."""

    lines: int = 0
    right: int = 0
    figures: int = 0
    figures_right: int = 0
    invented: int = 0
    wrong_though_sure: list[str] = field(default_factory=list)
    slips: list[str] = field(default_factory=list)


def parsed(meant: str) -> tuple[str, int, int | None]:
    """Name, quantity and price in minor units of what a line means."""
    name, _, price = meant.partition(" @ ")
    head, _, rest = name.partition(" ")
    quantity = int(head) if head.isdecimal() else 1
    return (
        rest if head.isdecimal() else name,
        quantity,
        round(float(price) * 100) if price else None,
    )


def is_meant(catalogue: Catalogue, own: SentPart, name: str) -> bool:
    if name.startswith("? "):
        return not own.sure and all(word in own.text for word in name[2:].split()[:2])
    if own.best is None:
        return False
    if name.startswith("chip "):
        part = catalogue.parts[own.best.part_id]
        return isinstance(part, Graphics) and name[5:] in part.name
    return own.best.part_id == name


def scored(catalogue: Catalogue, lists: Iterable[Sent]) -> Score:
    """Reads every list and holds each line that it means against what was read, in order."""
    score = Score()
    for sent in lists:
        read = list(read_list(catalogue, sent.text).parts)
        for meant in sent.means:
            name, quantity, price = parsed(meant)
            score.lines += 1
            hit = next((own for own in read if is_meant(catalogue, own, name)), None)
            if hit is None:
                score.slips.append(f"{sent.style}: {meant} not found")
                continue
            read.remove(hit)
            score.right += 1
            score.figures += 1
            fits = hit.quantity == quantity and (price is None or hit.price_minor == price)
            score.figures_right += fits
            if not fits:
                score.slips.append(
                    f"{sent.style}: {meant} read as {hit.quantity} @ {hit.price_minor}"
                )
        for own in read:
            score.invented += 1
            best = f"{own.best.part_id} {own.best.confidence:.2f}" if own.best else "unknown"
            score.slips.append(f"{sent.style}: “{own.text}” read as {best}")
            if own.best and own.best.confidence > SURE:
                score.wrong_though_sure.append(f"{sent.style}: {own.text} {best}")
    return score

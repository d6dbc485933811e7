"""How the money of a build is split between its sides, as rows."""

from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.balance.balance import (
    split_of,
)
from wattmetron.words.figures import money, percent


@dataclass(frozen=True, slots=True, kw_only=True)
class SplitRow:
    """One side's money with its share of the whole, and what it consists of."""

    name: str
    fill: str
    amount: str
    share: str
    start: float
    wide: float
    words: str


def split_rows(catalogue: Catalogue, subject: Assessment) -> tuple[SplitRow, ...]:
    split = split_of(catalogue, subject)
    if split is None or not split.total_minor:
        return ()
    rows: list[tuple[str, str, int, str]] = []
    for name, side, fill, words in (
        ("Processor side", split.processor, "hatch", "processor and cooler"),
        ("Graphics side", split.graphics, "dots", "card"),
    ):
        if side is None:
            continue
        forced = money(abs(side.forced_minor), subject.currency)
        sentences = (
            f"{words} {money(side.own_minor, subject.currency)}, and it"
            f" {'forces' if side.forced_minor >= 0 else 'spares'} {forced} elsewhere"
        )
        rows.append((name, fill, side.total_minor, sentences))
    rows.append(("Rest", "", split.rest_minor, "what any such machine needs"))
    wide = [max(0.0, round(100 * minor / split.total_minor, 2)) for _, _, minor, _ in rows]
    return tuple(
        SplitRow(
            name=name,
            fill=fill,
            amount=money(minor, subject.currency),
            share=percent(minor / split.total_minor),
            start=round(sum(wide[:n]), 2),
            wide=wide[n],
            words=sentence,
        )
        for n, (name, fill, minor, sentence) in enumerate(rows)
    )

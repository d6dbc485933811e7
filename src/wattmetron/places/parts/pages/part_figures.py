"""Every known attribute of a part in words, and a few parts side by side."""

import re
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.candidates import reasons_against
from wattmetron.core.compatibility.rule_wishes import wishes_of
from wattmetron.core.values.offers import ANY_PARTS
from wattmetron.core.values.part_types import PART_TYPES, kind_of
from wattmetron.core.values.parts import Part
from wattmetron.core.values.trust import judge
from wattmetron.formats.columns import columns_of
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.parts.pages.parts_list_state import ShelfState, part_url
from wattmetron.words.figures import THIN, money

HIDDEN = {
    "id",
    "maker",
    "model",
    "notes",
    "reviews",
    "review_percent",
    "reviews_from",
    "reviews_on",
    "warranty_years",
    "source",
    "claimed",
    "disputed",
}
NONE_TEXT = re.compile(r"; 0: ([^;]+)")
"""How a column says what its zero means."""


@dataclass(frozen=True, slots=True)
class PartComparison:
    """A few parts side by side: names with addresses, and lines of a title with a cell for each."""

    parts: tuple[tuple[str, str, str], ...]
    lines: tuple[tuple[str, tuple[str, ...], bool], ...]


def beside(
    catalogue: Catalogue, state: ShelfState, now: Assessment | None, currency: str
) -> PartComparison | None:
    """The shortlist side by side, where its parts are of one kind; what is the same for all is
    dimmed.
    """
    parts = [
        catalogue.parts[part_id]
        for part_id in state.beside
        if kind_of(catalogue.parts[part_id]) == state.query.kind
    ]
    if not parts:
        return None
    region = now.brief.region if now else state.query.region or next(iter(catalogue.regions), "")
    may_buy = ANY_PARTS if now is None else now.brief.may_buy
    book = catalogue.prices(region, may_buy) if region else None
    prices = [book.cost(part.id) if book else None for part in parts]
    lines = [
        (
            "delivered",
            tuple("no offer" if price is None else money(price, currency) for price in prices),
        )
    ]
    lines.append(
        (
            "trust",
            tuple(
                f"{(judgement := judge(part)).trust}: {'; '.join(judgement.reasons)}"
                for part in parts
            ),
        )
    )
    if now is not None:
        against = list(reasons_against(now.machine, state.query.kind, parts, wishes_of(now.brief)))
        lines.append(
            (
                f"in {now.brief.name}",
                tuple(
                    "; ".join(finding.sentence for finding in findings) or "fits"
                    for findings in against
                ),
            )
        )
    known = [figures_of(part) for part in parts]
    titles = list(dict.fromkeys(title for item in known for title, _ in item))
    lines += [(title, tuple(dict(item).get(title, "–") for item in known)) for title in titles]
    return PartComparison(
        tuple(
            (
                part.name,
                part_url(part.id, state.brief),
                state.url(
                    beside=" ".join(part_id for part_id in state.beside if part_id != part.id)
                ),
            )
            for part in parts
        ),
        tuple((title, cells, len(parts) > 1 and len(set(cells)) == 1) for title, cells in lines),
    )


def figures_of(part: Part) -> list[tuple[str, str]]:
    """Every attribute that is known, in words with its unit."""
    figures = []
    for column in columns_of(PART_TYPES[kind_of(part)]):
        value = getattr(part, column.name)
        if column.name in HIDDEN or value in (None, "", ()):
            continue
        if column.unit == "ln":
            figures.append((column.text.split(":")[0], f"within {100 * value:.1f}{THIN}%"))
            continue
        title = column.text.split(";")[0].split(", separated")[0].removesuffix(", ISO 8601")
        none = NONE_TEXT.search(column.text) if value == 0 else None
        figures.append((title, none[1] if none else _value(value, column.unit)))
    return figures


def _value(value: object, unit: str) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, tuple):
        return ", ".join(str(item) for item in value)
    if isinstance(value, float):
        return f"{round(value, 1 if unit == 'points' else 3):g}{THIN}{unit}".strip()
    if isinstance(value, int):
        return f"{value:,}{THIN}{unit}".strip()
    if hasattr(value, "strftime"):
        return f"{value:%-d %b %Y}"
    return f"{value}{THIN}{unit}".strip() if unit else str(value)

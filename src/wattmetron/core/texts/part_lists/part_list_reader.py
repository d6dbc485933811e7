"""Reads a list of parts: which ones, how many, at what price, what is there already."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.texts.messages.clauses import folded
from wattmetron.core.texts.messages.owned import OWNS
from wattmetron.core.texts.part_lists.kind_words import kind_named, leading_kind
from wattmetron.core.texts.part_lists.list_figures import (
    ANYWHERE,
    MOST_QUANTITY,
    Price,
    prices_of,
    quantity_of,
    unit_price,
    whole_quantity,
)
from wattmetron.core.texts.part_lists.list_lines import Guess, ListError, SentList, SentPart
from wattmetron.core.texts.part_lists.part_names import NameMatch, names_of
from wattmetron.core.texts.part_lists.rows import ParsedRow, rows_of
from wattmetron.core.values.offers import ANY_PARTS
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.text import clean

MOST_CHARACTERS, MOST_PARTS, MOST_GUESSES = 40_000, 200, 5
LEAST_ALIKE, LEAST_SHARE, LEAST_OF_TWO, LEAST_ALONE, LEAST_SCORE = 0.35, 0.5, 0.7, 0.75, 2.2
NEAR = 0.12
MOST_BESIDE_ONE = 3
NO_PART = re.compile(
    r"^\W*(?:sub|grand )?(?:total|sum)\b|\bshipping\b|\bpostage\b|\bvat\b|\bto pay\b|\bbudget\b|"
    r"\bnone\b|^\W*(?:order|invoice|sku|your basket|in stock|only \d+ left|remove|quantity)\b|"
    r"\bprices with tax\b|^\W*price\b",
    re.I,
)
LONG_WORD = re.compile(r"[^\W\d_]{3,}")
GENERIC = re.compile(
    r"ssd|hdd|nvme|gen|core|cores|gpu|cpu|ram|ddr|white|black|small|large|quiet|cheap|eur|nok|usd|any|"
    r"new|used|not|none|yes|the|and|with",
    re.I,
)
LEAST_OF_A_LIST, MOST_WORDS = 2, 7
HEADING = re.compile(r"^[^\d]*:\s*$")
BOUGHT = re.compile(r"\balready (?:have|bought|own)\b|\bhave\b[^.;]*\balready\b", re.I)


def read_list(catalogue: Catalogue, text: str) -> SentList:
    """The parts that a text names; raises ListError for one that is empty or binary."""
    if not text.strip():
        raise ListError("The list is empty: paste or choose one.")
    if "\0" in text[:2000]:
        raise ListError("This is no text: paste the list as text, or choose a CSV or JSON file.")
    cut = len(text) > MOST_CHARACTERS
    reading = _Reading(catalogue)
    for row in rows_of(clean(text[:MOST_CHARACTERS])):
        reading.take(row)
    parts = reading.read()
    return SentList(tuple(parts[:MOST_PARTS]), cut or len(parts) > MOST_PARTS)


@dataclass(frozen=True, slots=True)
class _Spot:
    """Where a part is named, with everything that it may mean there."""

    start: int
    end: int
    guesses: tuple[Guess, ...]


class _Reading:
    """The rows of a list taken one after the other."""

    def __init__(self, catalogue: Catalogue) -> None:
        self._catalogue, self._names = catalogue, names_of(catalogue)
        self.parts: list[SentPart] = []
        self._owned_below = False
        self.priced_alone: set[int] = set()
        """Places of what only a price makes a part."""

    def read(self) -> list[SentPart]:
        """What was read; what only a price makes a part counts in a list of parts alone."""
        if sum(bool(sent_part.guesses) for sent_part in self.parts) >= LEAST_OF_A_LIST:
            return self.parts
        return [sent_part for n, sent_part in enumerate(self.parts) if n not in self.priced_alone]

    def take(self, row: ParsedRow) -> None:
        text = row.text
        if HEADING.match(text):
            self._owned_below = bool(BOUGHT.search(text) or OWNS.search(folded(text)))
            return
        named = kind_named(text)
        spots = self._spots(text, named)
        if not spots:
            self._without(row)
            return
        ends = [*(spot.start for spot in spots[1:]), len(text)]
        for n, (spot, until) in enumerate(zip(spots, ends, strict=True)):
            since = spots[n - 1].end if n else 0
            self._add(row, spot, text[since : spot.start], text[spot.end : until], len(spots) == 1)

    def _add(self, row: ParsedRow, spot: _Spot, before: str, after: str, alone: bool) -> None:
        quantity = whole_quantity(row.under("quantity")) if alone else None
        if quantity is None:
            quantity = quantity_of(before, after)
        if quantity is None and alone and row.cells and not row.heads:
            quantity = next(filter(None, map(whole_quantity, row.cells[:1])), None)
        price = self._price(row, before, after, alone, quantity or 1)
        best = self._catalogue.parts[spot.guesses[0].part_id]
        around = f"{before} {after}"
        self.parts.append(
            SentPart(
                text=row.text[spot.start : spot.end],
                guesses=spot.guesses,
                kind=kind_of(best),
                quantity=min(MOST_QUANTITY, quantity if quantity is not None else 1),
                price_minor=price.minor if price else None,
                currency=price.currency if price else "",
                owned=self._owned_below or bool(OWNS.search(folded(around))),
            )
        )

    def _price(
        self, row: ParsedRow, before: str, after: str, alone: bool, quantity: int
    ) -> Price | None:
        if alone:
            for head in ("each", "price", "sum"):
                prices = prices_of(row.under(head), True)
                if prices:
                    return prices[0]
        listed = bool(row.cells) or bool(
            re.match(r"^\s*(?:[-–~:;=…|]|\.{3}|for\b|\(\d+ at\b)", after)
        )
        prices = prices_of(after, listed)
        if not prices and alone:
            prices = prices_of(before, False)
        return unit_price(prices, quantity)

    def _without(self, row: ParsedRow) -> None:
        """A row that names no known part: more of the part before, or a part that is not known."""
        text = row.text
        if self.parts and self._continues(row):
            return
        kind, rest = leading_kind(text)
        if row.cells:
            kind, rest = self._of_cells(row)
        prices = prices_of(text, bool(re.search(r"\s[-–~]\s*\d", text)))
        if NO_PART.search(text) or not (kind or prices):
            return
        name = _bare(rest)
        telling = [word for word in LONG_WORD.findall(name) if not GENERIC.fullmatch(word)]
        if not telling or len(name.split()) > MOST_WORDS:
            return
        price = unit_price(prices, 1)
        self.parts.append(
            SentPart(
                text=name,
                guesses=(),
                kind=kind or kind_named(text),
                price_minor=price.minor if price else None,
                currency=price.currency if price else "",
                owned=self._owned_below,
                alike=self._alike(name, kind),
            )
        )
        if kind is None:
            self.priced_alone.add(len(self.parts) - 1)

    def _alike(self, name: str, kind: Kind | None) -> tuple[str, ...]:
        """Parts with some of a name that none has."""
        matches = [match for match in self._names.find(name, kind) if match.share >= LEAST_ALIKE]
        matches.sort(key=lambda match: (-match.score, match.part_id))
        return tuple(match.part_id for match in matches[:MOST_GUESSES])

    def _continues(self, row: ParsedRow) -> bool:
        """Whether a row says more of the part before, as a basket does."""
        last = self.parts[-1]
        quantity = ANYWHERE.search(row.text)
        if quantity:
            self.parts[-1] = replace(last, quantity=int(quantity[1]))
            return True
        prices = prices_of(row.text, False)
        letters = re.sub(r"\b(?:eur|nok|price|each)\b|[^a-z]", "", row.text, flags=re.I)
        if prices and not letters and last.price_minor is None:
            price = prices[0]
            self.parts[-1] = replace(last, price_minor=price.minor, currency=price.currency)
            return True
        return False

    def _of_cells(self, row: ParsedRow) -> tuple[Kind | None, str]:
        kind, _ = leading_kind(row.cells[0])
        name = row.under("name") if row.heads else ""
        worded = [cell for cell in row.cells if re.search(r"[^\W\d_]{3,}", cell)]
        others = [cell for cell in worded if leading_kind(cell)[0] is None]
        return kind, name if name and leading_kind(name)[0] is None else next(iter(others), "")

    def _spots(self, text: str, kind: Kind | None) -> list[_Spot]:
        """The places of a text where parts are named, none over another, those that say most."""
        matches = [match for match in self._names.find(text, kind) if match.score >= LEAST_SCORE]
        matches = [match for match in matches if match.share >= LEAST_SHARE and _stands(match)]
        chosen: list[NameMatch] = []
        for match in sorted(matches, key=lambda match: (-match.score, match.part_id)):
            if all(
                match.places.isdisjoint(other.places) and _apart(match, other) for other in chosen
            ):
                chosen.append(match)
        chosen.sort(key=lambda match: match.start)
        taken = {position for match in chosen for position in match.places}
        return [
            _Spot(
                match.start,
                match.end,
                self._guesses(
                    match, [o for o in matches if o.places.isdisjoint(taken - match.places)]
                ),
            )
            for match in chosen
        ]

    def _guesses(self, best: NameMatch, matches: Sequence[NameMatch]) -> tuple[Guess, ...]:
        """The best and what else may be meant at its place; parts that are as good share."""
        rivals = [match for match in matches if not match.places.isdisjoint(best.places)]
        rivals.sort(key=lambda match: (-match.score, self._cost(match.part_id), match.part_id))
        level = [rival for rival in rivals if best.score - rival.score < NEAR]
        second = next((rival for rival in rivals if best.score - rival.score >= NEAR), None)
        margin = 1.0 if second is None else min(1.0, (best.score - second.score) / 1.5)
        sure = min(0.98, best.share) * (0.6 + 0.4 * margin)
        guesses = [Guess(match.part_id, sure / len(level)) for match in level]
        rest = [
            Guess(rival.part_id, min(sure, rival.share) * 0.5)
            for rival in rivals
            if rival not in level
        ]
        return tuple((*guesses, *rest)[:MOST_GUESSES])

    def _cost(self, part_id: str) -> int:
        """The cheapest offer in the first region, in minor units; parts without one come last."""
        region = next(iter(self._catalogue.regions), "")
        offers = self._catalogue.prices(region, ANY_PARTS).all_of(part_id) if region else ()
        return min((offer.cost_minor for offer in offers), default=10**9)


def _stands(match: NameMatch) -> bool:
    """Whether enough of a name is there: one word alone only where it is nearly all of it and of
    what stands around it; slips alone only where they are many.
    """
    if match.words == 1:
        return match.share >= LEAST_ALONE and match.exact == 1 and match.crowd <= MOST_BESIDE_ONE
    return match.words > 2 or (match.exact > 0 and match.share >= LEAST_OF_TWO)


def _apart(match: NameMatch, other: NameMatch) -> bool:
    return match.end <= other.start or other.end <= match.start


def _bare(text: str) -> str:
    """A name without what stands around it."""
    text = re.split(r"\s[-–~=…|]\s|\t|\s{2,}|,\s*\d|\.{3,}", text.strip(" \t:=-–~*|.#>"))[0]
    return text.strip(" \t:=-–~*|.,#>")[:120]

"""The list inside a letter: each line with what it is taken for, to be corrected."""

from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.texts.part_lists.list_figures import MOST_QUANTITY
from wattmetron.core.texts.part_lists.list_lines import SentList, SentPart
from wattmetron.core.values.part_kinds import KIND_NAMES
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.sent_list import Sent
from wattmetron.places.brief.sent_lists import ImportedLine
from wattmetron.shell.forms import Typed
from wattmetron.shell.pages import amount
from wattmetron.words.figures import THIN, money

UNKNOWN = "-"


@dataclass(frozen=True, slots=True, kw_only=True)
class ListRow:
    """A line of the list: its text, the parts that it may mean with how sure each is, the one that
    it is taken for (``-``: none), how many, their price.
    """

    number: int
    text: str
    kind: str
    choices: tuple[tuple[str, str], ...]
    chosen: str
    sure: bool
    quantity: int
    price: str
    owned: bool


def list_rows(catalogue: Catalogue, read: SentList) -> tuple[ListRow, ...]:
    return tuple(_row(catalogue, index, sent_part) for index, sent_part in enumerate(read.parts))


def _row(catalogue: Catalogue, index: int, sent_part: SentPart) -> ListRow:
    choices = [
        (
            guess.part_id,
            f"{catalogue.part(guess.part_id).name} ({guess.confidence * 100:.0f}{THIN}%)",
        )
        for guess in sent_part.guesses
    ]
    choices += [(part_id, catalogue.part(part_id).name) for part_id in sent_part.alike]
    return ListRow(
        number=index,
        text=sent_part.text,
        kind=KIND_NAMES[sent_part.kind] if sent_part.kind else "",
        choices=tuple(choices),
        chosen=sent_part.best.part_id if sent_part.best else UNKNOWN,
        sure=sent_part.sure,
        quantity=sent_part.quantity,
        price="" if sent_part.price_minor is None else _price(sent_part),
        owned=sent_part.owned,
    )


def _price(sent_part: SentPart) -> str:
    assert sent_part.price_minor is not None
    return (
        money(sent_part.price_minor, sent_part.currency)
        if sent_part.currency
        else amount(sent_part.price_minor)
    )


def list_said(read: SentList) -> tuple[str, ...]:
    """What is to be looked at, in sentences."""
    sentences = []
    unknown = sum(sent_part.best is None for sent_part in read.parts)
    unsure = sum(sent_part.best is not None and not sent_part.sure for sent_part in read.parts)
    if unsure:
        sentences.append(f"{_lines(unsure)} may mean several parts: please check.")
    if unknown:
        names = "names" if unknown == 1 else "name"
        sentences.append(
            f"{_lines(unknown)} {names} no part of the catalogue: kept with the build, to be"
            " entered."
        )
    if len(read.currencies) > 1:
        sentences.append(f"Prices are in several currencies: {', '.join(read.currencies)}.")
    if read.cut:
        sentences.append(
            "The text is longer than what is read at once: paste the rest into another."
        )
    return tuple(sentences)


def _lines(count: int) -> str:
    return f"{count} line{'' if count == 1 else 's'}"


def typed_lines(catalogue: Catalogue, read: SentList, entries: Typed) -> list[ImportedLine]:
    """The lines as they were corrected; raises BriefError for a quantity that is none."""
    lines = []
    for position, sent_part in enumerate(read.parts):
        if f"line.{position}.use" not in entries:
            continue
        chosen = entries.get(f"line.{position}.part", "")
        part_id = chosen if chosen in catalogue.parts else None
        part = catalogue.parts.get(part_id) if part_id else None
        lines.append(
            ImportedLine(
                Sent(
                    text=sent_part.text,
                    kind=sent_part.kind if part is None else kind_of(part),
                    part=part_id,
                    quantity=_quantity(
                        entries.get(f"line.{position}.quantity", ""), sent_part.text
                    ),
                    price_minor=sent_part.price_minor,
                    currency=sent_part.currency,
                ),
                f"line.{position}.owned" in entries,
            )
        )
    return lines


def _quantity(text: str, what: str) -> int:
    typed = text.strip() or "1"
    if not (typed.isascii() and typed.isdigit() and int(typed[:6]) <= MOST_QUANTITY):
        raise BriefError(
            f"How many of “{what[:60]}” is “{typed[:20]}”: enter a whole number up to"
            f" {MOST_QUANTITY:,}."
        )
    return int(typed)

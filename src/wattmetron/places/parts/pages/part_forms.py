"""Forms about parts: their figures cell by cell, an offer, a table to bring in."""

from typing import Annotated, Any, Literal

from pydantic import BeforeValidator

from wattmetron.core.compatibility.sources import unreadable
from wattmetron.core.values.money import to_minor
from wattmetron.core.values.offers import LINKS, Condition, SoldBy, Stock, Terms
from wattmetron.core.values.own_record import OwnRecord
from wattmetron.core.values.part_kinds import ALL_KINDS, Kind
from wattmetron.core.values.part_types import PART_TYPES
from wattmetron.core.values.parts import Part
from wattmetron.formats.catalogue_folder import OF_SOURCES
from wattmetron.formats.columns import ColumnSpec, cell_of, column_title, columns_of, reader_of
from wattmetron.places.parts.part_edits import PartError, TypedOffer
from wattmetron.shell.forms import (
    Form,
    Number,
    Short20,
    Short80,
    Short120,
    Short200,
    Short400,
    Tick,
    Typed,
    read_whole,
)

MOST_TEXT, MOST_TIMES, MOST_MONTHS = 2000, 100_000, 600


def known_kind(text: object) -> Kind:
    """A kind by its key; an unknown one is refused."""
    for kind in ALL_KINDS:
        if kind == text:
            return kind
    raise PartError(
        f"There is no kind of part called “{text}”: choose one of {', '.join(ALL_KINDS)}."
    )


KindEntry = Annotated[Kind, BeforeValidator(known_kind)]


class NewPartForm(Form):
    """A part to add."""

    kind: KindEntry
    maker: str = ""
    model: str = ""
    colour: str = ""


class VersionForm(Form):
    """A change that names the version it is based on."""

    version: Number = 0


class OfferForm(Form):
    """What a shop asks."""

    shop: Short120 = ""
    region: Short80 = ""
    price: str = ""
    shipping: str = ""
    stock: Stock = "in"
    condition: Condition = "new"
    sold_by: SoldBy = "order"
    rebate: str = ""
    remarks: Short200 = ""
    warranty: Short20 = ""
    returns: Tick = False
    link: Short400 = ""

    @property
    def offer(self) -> TypedOffer:
        return TypedOffer(
            shop=self.shop,
            region=self.region,
            price_minor=to_minor(self.price, "The price"),
            shipping_minor=to_minor(self.shipping.strip() or "0", "Shipping"),
            stock=self.stock,
            condition=self.condition,
            terms=self._terms,
        )

    @property
    def _terms(self) -> Terms:
        link = self.link.strip()
        if link and not link.startswith(LINKS):
            raise PartError(f"The page is “{link[:60]}”: enter an address such as https://….")
        months = read_whole(self.warranty, "The warranty") if self.warranty.strip() else None
        if months is not None and not 0 <= months <= MOST_MONTHS:
            raise PartError(f"The warranty is {months} months: enter 0 to {MOST_MONTHS}.")
        return Terms(
            sold_by=self.sold_by,
            rebate_minor=to_minor(self.rebate.strip() or "0", "The rebate"),
            remarks=tuple(remark.strip() for remark in self.remarks.split(";") if remark.strip()),
            warranty_months=months,
            returns=True if self.returns else None,
            link=link,
        )


class OwnForm(VersionForm):
    """What one has seen oneself of a part or of its maker."""

    of: Annotated[
        Literal["part", "maker"],
        BeforeValidator(lambda text: "maker" if text == "maker" else "part"),
    ] = "part"
    used: str = ""
    failed: str = ""
    again: Tick = False
    remarks: Short400 = ""

    def record(self, part: Part) -> OwnRecord:
        """The record; raises PartError for a number that cannot be read."""
        return OwnRecord(
            of=self.of,
            name=part.id if self.of == "part" else part.maker,
            used=_times(self.used, "How many you used"),
            failed=_times(self.failed, "How many came back"),
            again=self.again,
            remarks=self.remarks.strip(),
        )


def _times(text: str, what: str) -> int:
    typed = text.strip()
    if not typed:
        return 0
    if not (typed.isascii() and typed.isdigit() and int(typed[:9]) <= MOST_TIMES):
        raise PartError(f"{what} is “{typed[:40]}”: enter a whole number up to {MOST_TIMES:,}.")
    return int(typed)


class PictureForm(VersionForm):
    """A picture to keep, or the present one to let go."""

    away: Tick = False


class UndoForm(Form):
    """An edit to take back, from the list of a kind."""

    edit: Number = 0
    kind: KindEntry


class TableForm(Form):
    """A table that was looked at and is to be brought in."""

    kind: KindEntry
    name: Short120 = "table.csv"
    text: str = ""


def typed_part(kind: Kind, cells: Typed, part_id: str) -> Part:
    """A part from typed cells, one for each column; raises PartError with every field that cannot
    be read.
    """
    values: dict[str, Any] = {"id": part_id}
    wrong = []
    for spec in columns_of(PART_TYPES[kind]):
        if spec.name == "id":
            continue
        text = cells.get(spec.name, "").strip()[:MOST_TEXT]
        try:
            values[spec.name] = _value(spec, text)
        except (ValueError, OverflowError):
            shown = f"“{text}”" if text else "empty"
            wrong.append(f"{column_title(spec)} is {shown}: enter {spec.expected}.")
    if not cells.get("maker", "").strip() or not cells.get("model", "").strip():
        wrong.insert(0, "Maker and model are the part's name: enter both.")
    if wrong:
        raise PartError("\n".join(dict.fromkeys(wrong)))
    part = PART_TYPES[kind](**values)
    if (entry := unreadable(part)) is not None:
        raise PartError(f"“{entry[1]}” is not understood: enter {OF_SOURCES[entry[0]]}.")
    return part


def _value(spec: ColumnSpec, text: str) -> Any:
    if text:
        return reader_of(spec)(text)
    if spec.optional:
        return None
    if spec.many:
        return ()
    if spec.required:
        raise ValueError
    return spec.default


def cells_of(part: Part) -> dict[str, str]:
    """The cells of a part as a form shows them."""
    return {spec.name: cell_of(getattr(part, spec.name)) for spec in columns_of(type(part))}

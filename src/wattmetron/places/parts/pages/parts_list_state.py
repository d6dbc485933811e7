"""What the address of the place Parts says: kind, sieve, order, brief, shortlist."""

from dataclasses import dataclass, field
from typing import Annotated, Any
from urllib.parse import urlencode

from pydantic import BeforeValidator

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import WattmetronError
from wattmetron.core.values.money import to_minor
from wattmetron.core.values.part_kinds import Kind
from wattmetron.places.parts.pages.part_forms import known_kind
from wattmetron.places.parts.parts_list import Range, ShelfQuery
from wattmetron.places.parts.parts_list_figures import FACETS, FIGURES
from wattmetron.shell.address import Flag, trial_of
from wattmetron.shell.forms import (
    Form,
    Number,
    Short20,
    Short40,
    Short80,
    Short400,
    read,
    whole_or_none,
)
from wattmetron.workshop.listed_briefs import Opened
from wattmetron.workshop.workshop import Workshop

MOST_BESIDE = 4


@dataclass(frozen=True, kw_only=True)
class ShelfState:
    """What the address says: the question, the brief that parts are held against, and the
    shortlist.
    """

    query: ShelfQuery
    brief: Opened | None = None
    beside: tuple[str, ...] = ()
    typed: dict[str, str] = field(default_factory=dict)
    error: str = ""

    def url(self, **changes: Any) -> str:
        """The address with some of it changed; ``beside`` and ``page`` among others."""
        params = {name: value for name, value in self.typed.items() if name != "page"}
        params |= {name: "" if value is None else str(value) for name, value in changes.items()}
        return "/parts" + (
            f"?{urlencode({name: value for name, value in params.items() if value})}"
            if any(params.values())
            else ""
        )


class ShelfAddress(Form):
    """What an address of the list may say; unknown values are taken for nothing, an unknown kind
    is refused.
    """

    kind: Annotated[Kind, BeforeValidator(lambda value: known_kind(value or "processor"))] = (
        "processor"
    )
    q: Short80 = ""
    region: Short80 = ""
    sort: Short40 = "price"
    dir: Short20 = ""
    all: Flag = False
    fits: Flag = False
    trusted: Flag = False
    again: Flag = False
    page: Number = 1
    brief: Short20 = ""
    beside: Short400 = ""

    @property
    def brief_id(self) -> int | None:
        return whole_or_none(self.brief)


def read_state(workshop: Workshop, catalogue: Catalogue, params: dict[str, str]) -> ShelfState:
    """The state of an address; what cannot be read is said and left out."""
    shelf_address = read(ShelfAddress, params)
    figures = FIGURES[shelf_address.kind]
    errors: list[str] = []
    titles = [
        ("price", "price"),
        *((figure.key, figure.title) for figure in figures if figure.ranged),
    ]
    ranges = {key: _range(params, key, title, errors) for key, title in titles}
    sorts = {"price", "name", "trust", "frames", "worth", *(figure.key for figure in figures)}
    query = ShelfQuery(
        kind=shelf_address.kind,
        words=shelf_address.q,
        region=shelf_address.region if shelf_address.region in catalogue.regions else "",
        facets={
            facet.key: params[f"f.{facet.key}"][:80]
            for facet in FACETS[shelf_address.kind]
            if params.get(f"f.{facet.key}")
        },
        ranges={key: ends for key, ends in ranges.items() if ends != (None, None)},
        sort=shelf_address.sort if shelf_address.sort in sorts else "price",
        falling=shelf_address.dir == "down",
        on_sale=not shelf_address.all,
        fitting=shelf_address.fits,
        trusted=shelf_address.trusted,
        again_first=shelf_address.again,
        page=shelf_address.page or 1,
    )
    known = tuple(part_id for part_id in shelf_address.beside.split() if part_id in catalogue.parts)
    return ShelfState(
        query=query,
        brief=None if shelf_address.brief_id is None else workshop.open(shelf_address.brief_id),
        beside=known[:MOST_BESIDE],
        typed={name: value[:200] for name, value in params.items() if value},
        error=" ".join(errors),
    )


def decimal_comma(text: str) -> float:
    """A number typed with a point or a comma; raises ValueError."""
    return float(text.replace(",", "."))


def _range(params: dict[str, str], key: str, title: str, errors: list[str]) -> Range:
    ends: list[float | None] = []
    for end, word in (("min", "least"), ("max", "most")):
        text = params.get(f"{end}.{key}", "").strip()
        try:
            read = to_minor if key == "price" else decimal_comma
            ends.append(read(text) if text else None)
        except (WattmetronError, ValueError):
            ends.append(None)
            errors.append(
                f"The {word} {title} is “{text}”, which is not a number: enter one, or leave it"
                " empty."
            )
    return ends[0], ends[1]


def kind_url(state: ShelfState, kind: Kind) -> str:
    """Another kind keeps the brief, the region and the switches; sieve and order belong to the old
    one.
    """
    parameters = {
        name: state.typed.get(name, "")
        for name in ("brief", "region", "all", "fits", "trusted", "again")
    }
    return "/parts?" + urlencode(
        {"kind": kind} | {name: value for name, value in parameters.items() if value}
    )


def try_in_brief(opened: Opened, kind: Kind, part_id: str) -> str:
    """The address that tries a part in a brief's build, in place of the one that stands there."""
    return (
        f"/briefs/{opened.id}/fit?{urlencode({'try': trial_of(opened.plan.build, kind, part_id)})}"
    )


def part_url(part_id: str, brief: Opened | None) -> str:
    return f"/parts/{part_id}" + (f"?brief={brief.id}" if brief else "")

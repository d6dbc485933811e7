"""What the address of the place Parts says: kind, sieve, order, brief, shortlist."""

from dataclasses import dataclass, field
from typing import Any
from urllib.parse import urlencode

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import WattmetronError
from wattmetron.core.values.money import to_minor
from wattmetron.core.values.parts import Kind
from wattmetron.services.parts.shelf import Range, ShelfQuery
from wattmetron.services.parts.shelf_figures import FACETS, FIGURES
from wattmetron.services.workshop import Opened, Workshop
from wattmetron.web.parts.part_forms import known_kind
from wattmetron.web.shell.address import trial_of

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


def read_state(workshop: Workshop, catalogue: Catalogue, params: dict[str, str]) -> ShelfState:
    """The state of an address; what cannot be read is said and left out."""
    kind: Kind = known_kind(params.get("kind") or "processor")
    errors: list[str] = []
    ranges = {
        key: found
        for key, title in [
            ("price", "price"),
            *((figure.key, figure.title) for figure in FIGURES[kind] if figure.ranged),
        ]
        if (found := _range(params, key, title, errors)) != (None, None)
    }
    sorts = {"price", "name", "trust", "frames", "worth", *(figure.key for figure in FIGURES[kind])}
    sort = params.get("sort", "price")
    brief = params.get("brief", "")
    region = params.get("region", "")
    query = ShelfQuery(
        kind=kind,
        words=params.get("q", "")[:80],
        region=region if region in catalogue.regions else "",
        facets={
            facet.key: params[f"f.{facet.key}"][:80]
            for facet in FACETS[kind]
            if params.get(f"f.{facet.key}")
        },
        ranges=ranges,
        sort=sort if sort in sorts else "price",
        falling=params.get("dir") == "down",
        on_sale=params.get("all") != "1",
        fitting=params.get("fits") == "1",
        trusted=params.get("trusted") == "1",
        page=int(params["page"]) if params.get("page", "").isdecimal() else 1,
    )
    beside = tuple(piece for piece in params.get("beside", "").split() if piece in catalogue.parts)[
        :MOST_BESIDE
    ]
    kept = {name: value[:200] for name, value in params.items() if value}
    return ShelfState(
        query=query,
        brief=workshop.open(int(brief)) if brief.isdecimal() else None,
        beside=beside,
        typed=kept,
        error=" ".join(errors),
    )


def _range(params: dict[str, str], key: str, title: str, errors: list[str]) -> Range:
    ends: list[float | None] = []
    for end, word in (("min", "least"), ("max", "most")):
        text = params.get(f"{end}.{key}", "").strip()
        try:
            ends.append(
                (to_minor(text) if key == "price" else float(text.replace(",", ".")))
                if text
                else None
            )
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
    kept = {
        name: state.typed.get(name, "") for name in ("brief", "region", "all", "fits", "trusted")
    }
    return "/parts?" + urlencode(
        {"kind": kind} | {name: value for name, value in kept.items() if value}
    )


def try_in_brief(opened: Opened, kind: Kind, part_id: str) -> str:
    """The address that tries a part in a brief's build, in place of the one that stands there."""
    return (
        f"/briefs/{opened.id}/fit?{urlencode({'try': trial_of(opened.plan.build, kind, part_id)})}"
    )


def part_url(part_id: str, brief: Opened | None) -> str:
    return f"/parts/{part_id}" + (f"?brief={brief.id}" if brief else "")

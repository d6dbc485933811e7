"""What the address of a brief's page says: view, tried build, swap, proposal, working, game beside
it.
"""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal
from urllib.parse import urlencode

from wattmetron.core.search.answer import Aim
from wattmetron.core.values.build import MAX_ADDED, MAX_DRIVES, Build
from wattmetron.core.values.parts import ALL_KINDS, FURTHER_KINDS, KINDS, Kind

ViewName = Literal["brief", "frames", "balance", "fit"]
VIEWS: tuple[ViewName, ...] = ("brief", "frames", "balance", "fit")
Link = Callable[..., str]
"""Makes an address of the page with some of it changed."""
AIM_WORDS: dict[str, Aim] = {"most": "most frames", "least": "least money"}


def encode_build(build: Build, against: Build) -> str:
    """Kinds in which a build differs: ``graphics:id,storage:id+id,cooler:``."""
    return ",".join(
        f"{kind}:{' '.join(build.of(kind))}"
        for kind in ALL_KINDS
        if build.of(kind) != against.of(kind)
    )


def trial_of(build: Build, kind: Kind, part_id: str) -> str:
    """The code that tries a part: in place of the one that stands there; a drive beside the others
    while there is room.
    """
    standing = build.of(kind)
    several = len(standing) < MAX_DRIVES if kind == "storage" else kind in FURTHER_KINDS
    instead = standing[0] if standing and not several else None
    return encode_build(build.with_part(kind, part_id, instead), build)


def decode_build(text: str, against: Build) -> Build:
    """The build that ``encode_build`` described; what cannot be read is left as it is."""
    build = against
    for piece in text.split(",")[: len(ALL_KINDS)]:
        word, _, ids = piece.partition(":")
        if word not in ALL_KINDS:
            continue
        kind: Kind = word
        for part_id in build.of(kind):
            build = build.without(kind, part_id)
        for part_id in ids.split()[:MAX_ADDED]:
            build = _put(build, kind, part_id)
    still = {part_id for _, part_id in build.ids()}
    return replace(build, kept=against.kept & still)


def _put(build: Build, kind: Kind, part_id: str) -> Build:
    """A part beside others of its kind, where the kind allows several."""
    if kind == "memory":
        return build.with_kit(part_id)
    return build.beside(part_id) if kind == "graphics" else build.with_part(kind, part_id)


@dataclass(frozen=True, slots=True, kw_only=True)
class DeskQuery:
    """The state of a brief's page that lives in its address."""

    view: ViewName = "brief"
    tried: str | None = None
    swap: Kind | None = None
    place: str | None = None
    everything: bool = False
    unfit: bool = False
    search: str = ""
    propose: str | None = None
    working: str | None = None
    game: str | None = None
    equal: str | None = None
    settings: str | None = None
    money: bool = False
    by: str | None = None
    trust: bool = False
    pair: str | None = None
    step: str | None = None
    limits: bool = False
    wishes: bool = False
    suppose: bool = False
    every: bool = False
    like: str | None = None
    faster: str | None = None
    price: str | None = None
    where: str | None = None
    purse: str | None = None

    def url(self, brief_id: int, **changes: object) -> str:
        """The address with some of it changed."""
        merged = {name: getattr(self, name) for name in self.__dataclass_fields__} | changes
        view = merged.pop("view")
        names = {"tried": "try", "everything": "all", "search": "q"}
        query = {
            names.get(name, name): "1" if value is True else str(value)
            for name, value in merged.items()
            if value not in (None, False, "") or (name == "tried" and value == "")
        }
        return f"/briefs/{brief_id}/{view}" + (f"?{urlencode(query)}" if query else "")


def read_query(view: str, params: dict[str, str]) -> DeskQuery:
    """The query of an address; unknown values are taken for nothing."""
    swap = params.get("swap")
    propose = params.get("propose")
    return DeskQuery(
        view=view if view in VIEWS else "brief",
        tried=params.get("try"),
        swap=swap if swap in KINDS else None,
        place=params.get("place") or None,
        everything=params.get("all") == "1",
        unfit=params.get("unfit") == "1",
        search=params.get("q", "")[:80],
        propose=propose if propose in AIM_WORDS else None,
        working=(params.get("working") or "")[:20] or None,
        game=(params.get("game") or "")[:80] or None,
        equal=(params.get("equal") or "")[:80] or None,
        settings=(params.get("settings") or "")[:20] or None,
        money=params.get("money") == "1",
        by="part" if params.get("by") == "part" else None,
        trust=params.get("trust") == "1",
        pair=(params.get("pair") or "")[:170] or None,
        step=(params.get("step") or "")[:14] or None,
        limits=params.get("limits") == "1",
        wishes=params.get("wishes") == "1",
        every=params.get("every") == "1",
        suppose=params.get("suppose") == "1",
        where=(params.get("where") or "")[:80] or None,
        purse=(params.get("purse") or "")[:20] or None,
        like=(params.get("like") or "")[:80] or None,
        faster=(params.get("faster") or "")[:12] or None,
        price=(params.get("price") or "")[:20] or None,
    )

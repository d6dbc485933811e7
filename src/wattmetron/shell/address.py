"""What the address of a brief's page says: view, tried build, swap, proposal, working, game beside
it.
"""

from collections.abc import Callable
from dataclasses import replace
from typing import Annotated, Literal
from urllib.parse import urlencode

from pydantic import BeforeValidator, ConfigDict, Field

from wattmetron.core.search.answer import Aim
from wattmetron.core.values.build import MAX_ADDED, MAX_DRIVES, Build
from wattmetron.core.values.part_kinds import ALL_KINDS, FURTHER_KINDS, Kind
from wattmetron.shell.forms import Form, one_of
from wattmetron.words.improvements import WAYS, Way

ViewName = Literal[
    "brief", "frames", "balance", "fit", "review", "compare", "handout", "buy", "measured"
]
VIEWS: tuple[ViewName, ...] = (
    "brief",
    "frames",
    "balance",
    "fit",
    "review",
    "compare",
    "handout",
    "buy",
    "measured",
)
Link = Callable[..., str]
"""Makes an address of the page with some of it changed."""
AIM_WORDS: dict[str, Aim] = {
    "most": "most frames",
    "least": "least money",
    "same": "same frames",
}


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
    return replace(build, kept=against.kept & still, later=against.later & still)


def _put(build: Build, kind: Kind, part_id: str) -> Build:
    """A part beside others of its kind, where the kind allows several."""
    if kind == "memory":
        return build.with_kit(part_id)
    return build.beside(part_id) if kind == "graphics" else build.with_part(kind, part_id)


Flag = Annotated[bool, BeforeValidator(lambda value: value in (True, "1"))]


def _cut(most: int) -> BeforeValidator:
    """To this length; nothing for empty text."""
    return BeforeValidator(lambda value: None if value is None else str(value)[:most] or None)


Cut80 = Annotated[str, BeforeValidator(lambda value: str(value)[:80])]
Text12 = Annotated[str | None, _cut(12)]
Text14 = Annotated[str | None, _cut(14)]
Text20 = Annotated[str | None, _cut(20)]
Text80 = Annotated[str | None, _cut(80)]
Text120 = Annotated[str | None, _cut(120)]
Text170 = Annotated[str | None, _cut(170)]


class DeskQuery(Form):
    """The state of a brief's page that lives in its address; unknown values are taken for
    nothing.
    """

    model_config = ConfigDict(populate_by_name=True)

    view: Annotated[ViewName, one_of(VIEWS, "brief")] = "brief"
    tried: str | None = Field(default=None, validation_alias="try")
    swap: Annotated[Kind | None, one_of(ALL_KINDS, None)] = None
    place: Text120 = None
    everything: Flag = Field(default=False, validation_alias="all")
    unfit: Flag = False
    again: Flag = False
    cards: Flag = False
    search: Cut80 = Field(default="", validation_alias="q")
    propose: Annotated[str | None, one_of(tuple(AIM_WORDS), None)] = None
    working: Text20 = None
    game: Text80 = None
    equal: Text80 = None
    settings: Text20 = None
    money: Flag = False
    by: Annotated[str | None, one_of(("part",), None)] = None
    trust: Flag = False
    pair: Text170 = None
    step: Text14 = None
    limits: Flag = False
    wishes: Flag = False
    suppose: Flag = False
    every: Flag = False
    like: Text80 = None
    faster: Text12 = None
    price: Text20 = None
    where: Text80 = None
    purse: Text20 = None
    cover: Text12 = None
    shelf: Text80 = None
    cell: Text20 = None
    path: Flag = False
    way: Annotated[Way | None, one_of(tuple(WAYS), None)] = None
    leave: Text80 = None
    beside: Text80 = None
    since: Text20 = None
    parcels: Text12 = None

    def url(self, brief_id: int, **changes: object) -> str:
        """The address with some of it changed."""
        merged = {name: getattr(self, name) for name in DeskQuery.model_fields} | changes
        view = merged.pop("view")
        query = {
            _IN_ADDRESS[name]: "1" if value is True else str(value)
            for name, value in merged.items()
            if value not in (None, False, "") or (name == "tried" and value == "")
        }
        return f"/briefs/{brief_id}/{view}" + (f"?{urlencode(query)}" if query else "")


_IN_ADDRESS = {
    name: str(field.validation_alias or name) for name, field in DeskQuery.model_fields.items()
}

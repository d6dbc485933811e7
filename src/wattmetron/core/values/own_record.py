"""What one has seen oneself of a part, or of all parts of a maker."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Annotated, Literal

from annotated_types import Ge, Le

from wattmetron.core.values.fields import Column
from wattmetron.core.values.parts import Part

Subject = Literal["part", "maker"]
Times = Annotated[int, Ge(0), Le(100_000)]


@dataclass(frozen=True, slots=True, kw_only=True)
class OwnRecord:
    """How often something was used and how often it came back; ``again``: one would buy it
    again.
    """

    of: Annotated[Subject, Column("What it is about: one part or a maker")]
    name: Annotated[str, Column("Part id, or the maker's name")]
    used: Annotated[Times, Column("How many were used")] = 0
    failed: Annotated[Times, Column("How many of them came back")] = 0
    again: Annotated[bool, Column("Whether one would buy it again")] = False
    remarks: Annotated[str, Column("Free text")] = ""

    @property
    def key(self) -> str:
        return record_key(self.of, self.name)

    @property
    def empty(self) -> bool:
        return not (self.used or self.failed or self.again or self.remarks)


def record_key(of: Subject, name: str) -> str:
    """Under what a record stands: a maker's name whatever its capitals."""
    return f"{of} {name.casefold()}"


def with_records(parts: Mapping[str, Part], records: Mapping[str, OwnRecord]) -> dict[str, Part]:
    """The parts with what was seen of each and of its maker, the part's own record first."""
    if not records:
        return dict(parts)
    return {part_id: replace(part, own=_of(part, records)) for part_id, part in parts.items()}


def _of(part: Part, records: Mapping[str, OwnRecord]) -> tuple[OwnRecord, ...]:
    keys: Iterable[str] = (record_key("part", part.id), record_key("maker", part.maker))
    return tuple(records[key] for key in keys if key in records)

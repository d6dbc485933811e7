"""A drawing of a machine to scale, as boxes, clearances and spots in mm."""

from dataclasses import dataclass
from typing import Literal, NamedTuple

from wattmetron.core.values.part_kinds import Kind

View = Literal["side", "above"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Box:
    """A rectangle in mm from the rear and from the top (side) or from the tray (above); an assumed
    one is drawn dashed.
    """

    view: View
    kind: Kind
    name: str
    x: float
    y: float
    width: float
    height: float
    assumed: bool = False
    clash: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Clearance:
    """A size against its room in mm, along an axis from (x, y); ``room_mm`` None: the case does not
    say.
    """

    rule: str
    what: str
    view: View
    along: Literal["x", "y"]
    x: float
    y: float
    size_mm: int
    room_mm: int | None
    kinds: tuple[Kind, ...]

    @property
    def free_mm(self) -> int | None:
        return None if self.room_mm is None else self.room_mm - self.size_mm

    @property
    def clash(self) -> bool:
        return self.free_mm is not None and self.free_mm < 0


class Spot(NamedTuple):
    """A point of a view of the drawing, in mm."""

    view: View
    x_mm: float
    y_mm: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Drawing:
    """Outer sizes in mm, what stands inside, and the clearances."""

    depth_mm: float
    height_mm: float
    width_mm: float
    outline_assumed: bool
    boxes: tuple[Box, ...]
    clearances: tuple[Clearance, ...]

    def of(self, view: View) -> tuple[Box, ...]:
        return tuple(box for box in self.boxes if box.view == view)

    def place_of(self, kind: Kind) -> Spot | None:
        """The middle of the first box of a kind, a corner for the case: where a finding about it is
        pinned.
        """
        for box in self.boxes:
            if box.kind == kind:
                return Spot(box.view, box.x + box.width / 2, box.y + box.height / 2)
        if kind != "case" or self.outline_assumed:
            return None
        return Spot("side", self.depth_mm - 20, 18)

"""A plan: a brief with its build, perhaps a pinned build, and the list that it came from."""

from dataclasses import dataclass

from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.sent import Sent

EMPTY = Build()


@dataclass(frozen=True, slots=True)
class Plan:
    """What one brief's page works on."""

    brief: Brief
    build: Build = EMPTY
    pinned: Build | None = None
    sent: tuple[Sent, ...] = ()

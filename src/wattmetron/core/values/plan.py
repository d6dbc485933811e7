"""A plan: a brief with its build and, perhaps, a pinned build."""

from dataclasses import dataclass

from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build

EMPTY = Build()


@dataclass(frozen=True, slots=True)
class Plan:
    """What one brief's page works on."""

    brief: Brief
    build: Build = EMPTY
    pinned: Build | None = None

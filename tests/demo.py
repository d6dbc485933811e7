"""The demo world as it is committed: read once, shared by all tests of a worker."""

from functools import cache
from pathlib import Path

from wattmetron.cache.cache import Keeper
from wattmetron.cache.catalogue_cache import studied
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.formats.brief_file import read_brief, read_build
from wattmetron.formats.catalogue_folder import read_catalogue


@cache
def described() -> Catalogue:
    """The catalogue as its folder describes it."""
    return read_catalogue(CATALOGUE)


@cache
def world() -> Catalogue:
    """The same with a memory of what was computed from it."""
    return described().kept_by(Keeper())


@cache
def settled() -> Catalogue:
    """The catalogue with its parts where its charts put them, as the application asks it."""
    return studied(described())


def names() -> list[str]:
    """The names of the briefs, in alphabetical order; nothing is read for them."""
    return sorted(path.name.removesuffix(".brief.json") for path in BRIEFS.glob("*.brief.json"))


@cache
def plan(name: str) -> tuple[Brief, Build]:
    """A brief with its build."""
    return read_brief(name, _bytes(name, "brief")), read_build(name, _bytes(name, "build"))


def plans() -> dict[str, tuple[Brief, Build]]:
    return {name: plan(name) for name in names()}


def loft() -> Brief:
    """The typical brief: a display of 2560x1440 at 144 Hz, six games."""
    return plan("net-loft")[0]


def loft_build() -> Build:
    return plan("net-loft")[1]


def hall() -> Brief:
    """Competitive games at 240 Hz for tight money."""
    return plan("harbour-hall")[0]


def hall_build() -> Build:
    return plan("harbour-hall")[1]


def tower() -> Brief:
    """A list that somebody sent, with much that is wrong in it."""
    return plan("signal-tower")[0]


def tower_build() -> Build:
    return plan("signal-tower")[1]


def bench() -> Brief:
    """A machine that is there already, to be upgraded."""
    return plan("old-bench-machine")[0]


def bench_build() -> Build:
    return plan("old-bench-machine")[1]


def _bytes(name: str, what: str) -> bytes:
    return Path(BRIEFS / f"{name}.{what}.json").read_bytes()

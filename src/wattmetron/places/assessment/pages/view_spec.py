"""A view of a brief's page: declared by the place that it belongs to, listed by the desk."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any

from wattmetron.cache.glimpse import WHOLE, Glimpse
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.finding import Finding
from wattmetron.core.values.build import Build
from wattmetron.places.assessment.assess import Assessment
from wattmetron.shell.address import DeskQuery, ViewName, encode_build
from wattmetron.workshop.listed_briefs import Opened
from wattmetron.workshop.workshop import Workshop


@dataclass(frozen=True, slots=True)
class FindingView:
    """A finding with the names and addresses of actions that clear it."""

    finding: Finding
    remedies: tuple[tuple[str, str], ...]


@dataclass(frozen=True, kw_only=True)
class ViewContext:
    """What a view or a panel of a brief's page is made from: the brief as it is opened, its adopted
    build, what is shown (the build being tried, else the adopted one), and what a form could not
    take.
    """

    workshop: Workshop
    catalogue: Catalogue
    opened: Opened
    query: DeskQuery
    present: Assessment
    shown: Assessment
    findings: tuple[FindingView, ...] = ()
    drafts: Mapping[str, str] = field(default_factory=dict)
    fresh_link: str = ""
    glimpse: Glimpse = WHOLE
    """What may be left out until it is there."""

    @property
    def tried(self) -> Assessment | None:
        """What is being tried."""
        return None if self.shown is self.present else self.shown

    @property
    def game_names(self) -> dict[str, str]:
        return {game.id: game.name for game in self.catalogue.games.values()}

    def link(self, **changes: object) -> str:
        """The address with some of it changed; what is proposed or tried is left."""
        left: dict[str, object] = {"propose": None, "swap": None, "tried": None}
        return self.query.url(self.opened.id, **(left | changes))

    def trial(self, build: Build) -> str:
        """The address that tries a build."""
        return self.link(tried=encode_build(build, self.opened.plan.build))


@dataclass(frozen=True, kw_only=True)
class ViewSpec:
    """A view: its name in the address, what it is called, the key that opens it, the template whose
    macro ``view`` shows what ``make`` returns (as ``desk.content``).

    ``folded``: it takes the width, and the build stands beside it as a narrow list alone;
    ``lists_targets``: it goes through the targets, so that findings stand below and the marks of
    targets are not repeated above.
    """

    name: ViewName
    title: str
    key: str
    template: str
    make: Callable[[ViewContext], Any]
    folded: bool = False
    lists_targets: bool = False

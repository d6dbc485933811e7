"""Which machine the games are measured against: a brief's build or loose parts, from the
address.
"""

from dataclasses import dataclass
from urllib.parse import urlencode

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import WattmetronError
from wattmetron.core.requirements.verdicts import Contender
from wattmetron.core.values.brief import SURENESS
from wattmetron.places.assessment.assess import Assessment, assess, known_build
from wattmetron.places.games.contenders import machine_contender, typed_contender
from wattmetron.places.games.pages.queries import MachineQuery
from wattmetron.workshop.listed_briefs import Opened
from wattmetron.workshop.workshop import Workshop


@dataclass(frozen=True, kw_only=True)
class MeasuredMachine:
    """A contender with its words and its part of the address; ``error`` says why typed parts were
    not read.
    """

    contender: Contender | None
    words: str
    brief: Opened | None
    typed: str
    sureness: float
    now: Assessment | None = None
    error: str = ""

    @property
    def query(self) -> dict[str, str]:
        if self.brief is not None:
            return {"brief": str(self.brief.id)}
        return {"parts": self.typed} if self.typed else {}

    def url(self, path: str, **more: object) -> str:
        """An address that keeps the machine."""
        query = {
            **self.query,
            **{name: str(value) for name, value in more.items() if value not in (None, "", 0)},
        }
        return path + (f"?{urlencode(query)}" if query else "")

    @property
    def region(self) -> str:
        return "" if self.brief is None else self.brief.plan.brief.region


NOBODY = MeasuredMachine(
    contender=None, words="", brief=None, typed="", sureness=SURENESS["likely"]
)


def read_machine(workshop: Workshop, catalogue: Catalogue, query: MachineQuery) -> MeasuredMachine:
    """The machine that an address names; nobody where it names none."""
    if query.brief_id is not None:
        return brief_machine(catalogue, workshop.open(query.brief_id))
    if not query.parts:
        return NOBODY
    typed, sureness = query.parts, SURENESS["likely"]
    try:
        contender = typed_contender(catalogue, typed)
    except WattmetronError as error:
        return MeasuredMachine(
            contender=None,
            words="",
            brief=None,
            typed=typed,
            sureness=sureness,
            now=None,
            error=str(error),
        )
    names = [contender.processor_name, contender.graphics_name]
    words = " with ".join(filter(None, names)) or "what was typed"
    return MeasuredMachine(
        contender=contender, words=words, brief=None, typed=typed, sureness=sureness
    )


def brief_machine(catalogue: Catalogue, opened: Opened) -> MeasuredMachine:
    """The build of a brief."""
    brief = opened.plan.brief
    machine = catalogue.machine(known_build(catalogue, opened.plan.build))
    now = assess(catalogue, brief, opened.plan.build)
    return MeasuredMachine(
        contender=machine_contender(machine, brief.system),
        words=brief.name,
        brief=opened,
        typed="",
        sureness=brief.chance,
        now=now,
    )

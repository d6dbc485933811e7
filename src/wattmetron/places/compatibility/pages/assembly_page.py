"""The assembly list as a page: stages with steps to tick off, cables counted, what is still
open.
"""

from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.assembly_steps import Stage, assembly
from wattmetron.core.compatibility.cables import Cable, cables
from wattmetron.core.compatibility.finding import Finding
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import assess
from wattmetron.words.figures import KIND_WORDS
from wattmetron.workshop.listed_briefs import Opened


@dataclass(frozen=True, slots=True, kw_only=True)
class AssemblyPage:
    """``key`` names the build on the device that ticks are kept on; ``open`` are findings that
    stand before it.
    """

    brief_id: int
    name: str
    key: str
    stages: tuple[Stage, ...]
    cables: tuple[Cable, ...]
    open: tuple[Finding, ...]
    missing: str


def assembly_page(catalogue: Catalogue, opened: Opened) -> AssemblyPage:
    now = assess(catalogue, opened.plan.brief, opened.plan.build)
    parts = " ".join(part_id for _, part_id in now.build.ids())
    return AssemblyPage(
        brief_id=opened.id,
        name=now.brief.name,
        key=f"wattmetron-ticks {opened.id} {parts}",
        stages=assembly(now.machine, now.brief),
        cables=cables(now.machine),
        open=tuple(finding for finding in now.findings if finding.level in ("blocks", "do first")),
        missing=listed([KIND_WORDS[kind] for kind in now.missing]),
    )

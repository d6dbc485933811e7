"""The operating system as a line with choices, in the view Buy."""

from dataclasses import dataclass, replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.buy.systems import SystemChoice, system_choices
from wattmetron.shell.address import DeskQuery, encode_build
from wattmetron.words.figures import money

MOST_NAMED = 4


@dataclass(frozen=True, slots=True, kw_only=True)
class SystemRow:
    """One way to an operating system, and where it is tried (empty: here, or not by trying)."""

    how: str
    name: str
    price: str
    runs: str
    note: str
    url: str
    present: bool


def system_rows(
    catalogue: Catalogue, now: Assessment, query: DeskQuery, brief_id: int
) -> tuple[SystemRow, ...]:
    return tuple(_row(now, choice, query, brief_id) for choice in system_choices(catalogue, now))


def _row(now: Assessment, choice: SystemChoice, query: DeskQuery, brief_id: int) -> SystemRow:
    url = ""
    if choice.part and not choice.present and (now.brief.allow_used or choice.how != "resold key"):
        others = tuple(entry for entry in now.build.added if entry[0] != "system")
        build = replace(now.build, added=(*others, ("system", choice.part.id)))
        url = query.url(brief_id, tried=encode_build(build, now.build))
    return SystemRow(
        how=choice.how,
        name=choice.name,
        price=money(choice.cost_minor, now.currency),
        runs=_runs(choice),
        note=_note(now, choice),
        url=url,
        present=choice.present,
    )


def _runs(choice: SystemChoice) -> str:
    if not choice.supports:
        return "has no support for the processor"
    if not choice.not_run:
        return "all games of the brief run"
    names = list(choice.not_run[:MOST_NAMED])
    more = len(choice.not_run) - len(names)
    return f"does not run {listed([*names, f'{more} more'] if more else names)}"


def _note(now: Assessment, choice: SystemChoice) -> str:
    if choice.how != "resold key" or choice.offer is None:
        return ""
    risk = money(choice.offer.risk_minor, now.currency)
    sentence = f"of it {risk} for the risk that it is locked"
    return sentence if now.brief.allow_used else f"{sentence}; counts where used parts are allowed"

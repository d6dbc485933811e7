"""A copy that came back changed, or a snapshot: what differs from the brief as it is now."""

from dataclasses import dataclass
from urllib.parse import urlencode

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.plan import Plan
from wattmetron.places.assessment.assess import Assessment, assess
from wattmetron.places.brief.merged_copy import Proposed, proposed, taking
from wattmetron.words.figures import money, money_change
from wattmetron.workshop.listed_briefs import Opened
from wattmetron.workshop.workshop import Snapshot


@dataclass(frozen=True, slots=True)
class ProposalRow:
    """A difference, whether it is to be taken, and the address that turns that round."""

    number: int
    about: str
    here: str
    theirs: str
    taken: bool
    url: str


@dataclass(frozen=True, slots=True, kw_only=True)
class ReturnedPage:
    """The differences and what taking them makes of the machine."""

    opened: Opened
    snapshot_id: int
    title: str
    rows: tuple[ProposalRow, ...]
    left: str
    sums: str
    findings: tuple[str, ...]
    error: str = ""


def left_places(text: str) -> frozenset[int]:
    """The places of what is left, as the address names them."""
    return frozenset(int(number) for number in text.split(",")[:200] if number.isdecimal())


def returned_page(
    catalogue: Catalogue, opened: Opened, snapshot: Snapshot, theirs: Plan, left: frozenset[int]
) -> ReturnedPage:
    plan = opened.plan
    proposals = proposed(catalogue, plan, theirs)
    left = frozenset(index for index in left if index < len(proposals))
    taken = [proposal for n, proposal in enumerate(proposals) if n not in left]
    now = assess(catalogue, plan.brief, plan.build)
    changed = taking(plan, taken)
    then = assess(catalogue, changed.brief, changed.build)
    base = f"/briefs/{opened.id}/returned/{snapshot.id}"
    return ReturnedPage(
        opened=opened,
        snapshot_id=snapshot.id,
        title=snapshot.name or f"the snapshot of {snapshot.made_at:%-d %B %Y}",
        rows=tuple(_row(n, proposal, left, base) for n, proposal in enumerate(proposals)),
        left=",".join(str(index) for index in sorted(left)),
        sums=_sums(len(taken), len(proposals), now, then),
        findings=_findings(then),
    )


def _row(n: int, proposal: Proposed, left: frozenset[int], base: str) -> ProposalRow:
    turned = left - {n} if n in left else left | {n}
    query = {"leave": ",".join(str(index) for index in sorted(turned))} if turned else {}
    url = f"{base}?{urlencode(query)}" if query else base
    return ProposalRow(n + 1, proposal.about, proposal.here, proposal.theirs, n not in left, url)


def _sums(taken: int, count: int, now: Assessment, then: Assessment) -> str:
    change = ""
    if then.currency == now.currency:
        change = f", {money_change(then.spent_minor - now.spent_minor, now.currency)}"
    met = f"; {then.met} of {len(then.counted)} targets met" if then.counted else ""
    before = f" ({now.met} of {len(now.counted)} now)" if then.counted and now.counted else ""
    return (
        f"{taken} of {count} taken: {money(then.spent_minor, then.currency)}{change}{met}{before}."
    )


def _findings(then: Assessment) -> tuple[str, ...]:
    """What would not fit, or is below the brief, with what is taken."""
    grave = [
        f"{finding.level[:1].upper()}{finding.level[1:]}: {finding.sentence}"
        for finding in then.findings
        if finding.level in ("blocks", "do first")
    ]
    return (*grave, *(f"Below the brief: {floor}" for floor in then.floors))

"""What each trust floor costs, as a table."""

from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.words import listed
from wattmetron.places.proposal.trust_costs import trust_costs
from wattmetron.words.figures import money, money_change


@dataclass(frozen=True, slots=True, kw_only=True)
class TrustRow:
    """A trust floor with the cost of its proposal, how that differs, what it meets, and its parts
    below plain.
    """

    floor: str
    is_current: bool
    cost: str
    change: str
    met: str
    below: str


def trust_rows(catalogue: Catalogue, brief: Brief, build: Build) -> tuple[TrustRow, ...]:
    """What each floor costs, against the brief's own."""
    floor_costs = trust_costs(catalogue, brief, build, "most frames")
    base = next((cost.assessment for cost in floor_costs if cost.is_current), None)
    rows = []
    for cost in floor_costs:
        if cost.assessment is None:
            rows.append(
                TrustRow(
                    floor=cost.floor,
                    is_current=cost.is_current,
                    cost="nothing fits within the budget",
                    change="",
                    met="",
                    below="",
                )
            )
            continue
        now = cost.assessment
        delta = (
            ""
            if base is None or cost.is_current
            else money_change(now.spent_minor - base.spent_minor, now.currency)
        )
        worst = (
            ""
            if now.worst is None
            else f"{100 * now.worst.judged_fps / now.worst.target.fps:.0f}\u202f%"
        )
        below = listed(list(cost.below)) or "none"
        rows.append(
            TrustRow(
                floor=cost.floor,
                is_current=cost.is_current,
                cost=money(now.spent_minor, now.currency),
                change=delta,
                met=f"{now.met} of {len(now.counted)} met, worst at {worst}",
                below=below,
            )
        )
    return tuple(rows)

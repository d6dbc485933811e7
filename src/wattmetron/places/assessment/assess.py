"""What is to be said about a build for a brief: frames, fit, money, power, what is missing."""

from dataclasses import dataclass, replace
from typing import TypeVar

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.allowed import barring
from wattmetron.core.compatibility.finding import Finding
from wattmetron.core.compatibility.floor_violations import missed
from wattmetron.core.compatibility.floors_of_brief import floors_of, storage_floor
from wattmetron.core.compatibility.personal_rule import PartCandidate
from wattmetron.core.compatibility.roles import Role, roles_of
from wattmetron.core.compatibility.rule_wishes import Wishes, wishes_of
from wattmetron.core.compatibility.rules import check
from wattmetron.core.compatibility.wasted_money import weighed
from wattmetron.core.errors import UnknownGameError
from wattmetron.core.frames.chance import curves_of
from wattmetron.core.frames.estimate import Estimate, estimate
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.power.draw import Draw, draw, needed_supply_w
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.search.resale import back_minor
from wattmetron.core.values.brief import Brief, Target, searched
from wattmetron.core.values.build import Build, StandIn
from wattmetron.core.values.drives import Storage
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.offers import Offer, PriceBook
from wattmetron.core.values.part_kinds import KINDS, Kind
from wattmetron.core.values.parts import Part
from wattmetron.words.figures import money

T = TypeVar("T")


@dataclass(frozen=True, slots=True, kw_only=True)
class CostLine:
    """A part of the build with what it costs; ``part`` is None where the catalogue lost it."""

    kind: Kind
    part_id: str
    part: Part | None
    owned: bool
    is_kept: bool
    offer: Offer | None
    stale: bool
    outside: bool = False
    stand_in: StandIn | None = None
    roles: tuple[Role, ...] = ()
    later: bool = False

    @property
    def cost_minor(self) -> int:
        return 0 if self.later else self.price_minor

    @property
    def price_minor(self) -> int:
        """What the budget pays for it, now or later."""
        return 0 if self.owned or self.outside or self.offer is None else self.offer.cost_minor


@dataclass(frozen=True, slots=True)
class Remaining:
    """What is missing and the least that it costs so that everything fits; None where nothing
    fits.
    """

    kinds: tuple[Kind, ...]
    least_minor: int | None
    build: Build | None


@dataclass(frozen=True, kw_only=True)
class Assessment:
    """Everything computed about one build under one brief; ``sold_minor`` is what the owned parts
    bring that a whole build leaves over, where the budget counts on it.
    """

    brief: Brief
    build: Build
    machine: Machine
    currency: str
    lines: tuple[CostLine, ...]
    estimates: tuple[Estimate | None, ...]
    findings: tuple[Finding, ...]
    draw: Draw
    needed_w: int
    missing: tuple[Kind, ...]
    floors: tuple[str, ...]
    aside: tuple[tuple[Finding, str], ...] = ()
    sold_minor: int = 0

    @property
    def parts_minor(self) -> int:
        return sum(line.cost_minor for line in self.lines)

    @property
    def risk_minor(self) -> int:
        """What of the total is not paid, but counted for the risk of parts that are not new."""
        return sum(line.offer.risk_minor for line in self.lines if line.offer and line.cost_minor)

    @property
    def back_minor(self) -> int:
        """What stand-ins may sell for later, by guess."""
        return sum(line.stand_in.resale_minor for line in self.lines if line.stand_in)

    @property
    def machine_minor(self) -> int:
        """The eight kinds alone, those bought later with them."""
        return sum(line.price_minor for line in self.lines if line.kind in KINDS)

    @property
    def later_minor(self) -> int:
        """What is bought later, outside the total."""
        return sum(line.price_minor for line in self.lines if line.later)

    @property
    def spent_minor(self) -> int:
        return self.parts_minor + self.brief.extras_minor - self.sold_minor

    @property
    def left_minor(self) -> int:
        return self.brief.budget_high_minor - self.spent_minor

    @property
    def whole(self) -> bool:
        """Whether every part is there, known and priced, and nothing blocks."""
        known = all(line.part is not None for line in self.lines)
        return known and not (self.missing or self.blocking or self.unpriced)

    @property
    def unpriced(self) -> tuple[CostLine, ...]:
        return tuple(line for line in self.lines if line.offer is None and not line.owned)

    @property
    def stale(self) -> int:
        return sum(line.stale and not line.owned for line in self.lines)

    @property
    def counted(self) -> tuple[Estimate, ...]:
        return tuple(
            estimate
            for estimate in self.estimates
            if estimate is not None and estimate.target.weight > 0
        )

    @property
    def stays(self) -> tuple[Part, ...]:
        """Parts that no proposal would touch."""
        return staying(self.lines)

    @property
    def met(self) -> int:
        return sum(estimate.state == "meets" for estimate in self.counted)

    @property
    def worst(self) -> Estimate | None:
        """The counted target that is furthest from its frame rate, capped ones first."""
        return min(
            self.counted,
            key=lambda estimate: (not estimate.cannot, estimate.share_of_target),
            default=None,
        )

    @property
    def blocking(self) -> int:
        return sum(finding.level == "blocks" for finding in self.findings)


def assess(catalogue: Catalogue, brief: Brief, build: Build) -> Assessment:
    """Compute everything about a build; parts and games that the catalogue lost are left out and
    said so.
    """
    assessment = catalogue.keep.once(
        ("assess", brief, build), lambda: _assess(catalogue, brief, build)
    )
    if (assessment.brief.name, assessment.brief.notes) == (brief.name, brief.notes):
        return assessment
    return replace(assessment, brief=brief)


def _assess(catalogue: Catalogue, brief: Brief, build: Build) -> Assessment:
    book = catalogue.prices(brief.region, brief.may_buy)
    lines = tuple(_lines(catalogue, brief, build))
    known = known_build(catalogue, build)
    machine = machine_of(catalogue, known, brief.clocks)
    estimates = tuple(
        _estimate(catalogue, machine, known, brief, target) for target in brief.targets
    )
    drawn = draw(machine, tuple(estimate for estimate in estimates if estimate is not None))
    findings = _findings(catalogue, machine, known, brief)
    aside = tuple(
        (finding, reason)
        for finding in findings
        if (reason := reason_aside(machine, build, finding))
    )
    return Assessment(
        brief=brief,
        build=build,
        machine=machine,
        currency=book.currency,
        lines=lines,
        estimates=estimates,
        findings=tuple(
            finding for finding in findings if not reason_aside(machine, build, finding)
        ),
        draw=drawn,
        needed_w=needed_supply_w(
            drawn.full_w, brief.headroom_percent, supply_reserve_percent(brief, machine)
        ),
        missing=machine.missing(),
        floors=(
            *(words for _, words in floors_missed(catalogue, brief, machine)),
            *_rules_missed(catalogue, brief, build, lines),
        ),
        aside=aside,
        sold_minor=0 if machine.missing() else back_minor(catalogue, brief, known),
    )


def supply_reserve_percent(brief: Brief, machine: Machine) -> int:
    """Reserve that is asked of the power supply above the headroom; none of an owned one."""
    owned = machine.supply is not None and machine.supply.id in brief.owned
    return 0 if owned else brief.reserve_percent


def whole_wishes(catalogue: Catalogue, brief: Brief) -> Wishes:
    """The brief's wishes with what its games ask for."""
    return wishes_of(brief, catalogue.games, catalogue.published)


def concerned(machine: Machine, finding: Finding) -> tuple[str, ...]:
    """Ids of the parts that a finding concerns, sorted: it is the same finding while they are the
    same.
    """
    return tuple(sorted({part.id for kind in finding.kinds for part in machine.of(kind)}))


def reason_aside(machine: Machine, build: Build, finding: Finding) -> str:
    """Why a finding is set aside in a build; empty where it counts."""
    parts = concerned(machine, finding)
    return next(
        (
            aside.reason
            for aside in build.aside
            if aside.rule == finding.rule and aside.parts == parts
        ),
        "",
    )


def known_brief(catalogue: Catalogue, brief: Brief) -> Brief:
    """The brief without games and owned parts that the catalogue lost."""
    targets = tuple(target for target in brief.targets if target.game_id in catalogue.games)
    return replace(
        brief,
        targets=targets,
        owned=tuple(part_id for part_id in brief.owned if part_id in catalogue.parts),
        stays=tuple(part_id for part_id in brief.stays if part_id in catalogue.parts),
        resale=tuple(
            each_resale for each_resale in brief.resale if each_resale.part in catalogue.parts
        ),
        later_card=brief.later_card if brief.later_card in catalogue.parts else "",
        later_processor=(brief.later_processor if brief.later_processor in catalogue.parts else ""),
    )


def known_build(catalogue: Catalogue, build: Build) -> Build:
    """The build without parts that the catalogue lost."""
    known = build
    for kind, part_id in build.ids():
        if part_id not in catalogue.parts:
            known = known.without(kind, part_id)
    return known


def _lines(catalogue: Catalogue, brief: Brief, build: Build) -> list[CostLine]:
    book = catalogue.prices(brief.region, brief.may_buy)
    owned = list(brief.owned)
    stand_ins = {stand_in.part: stand_in for stand_in in build.stand_ins}
    drives = [part for part in map(catalogue.parts.get, build.storage) if isinstance(part, Storage)]
    roles = iter(roles_of(drives, storage_floor(catalogue, known_brief(catalogue, brief))) or ())
    lines = []
    for kind, part_id in build.ids():
        is_owned = part_id in owned
        if is_owned:
            owned.remove(part_id)
        offer = book.best(part_id)
        stale = offer is not None and book.is_stale(offer, brief.old_after)
        part = catalogue.parts.get(part_id)
        lines.append(
            CostLine(
                kind=kind,
                part_id=part_id,
                part=part,
                owned=is_owned,
                is_kept=part_id in build.kept,
                offer=offer,
                stale=stale,
                outside=kind in brief.outside,
                stand_in=stand_ins.get(part_id),
                roles=next(roles, ()) if isinstance(part, Storage) else (),
                later=part_id in build.later and not is_owned,
            )
        )
    return lines


def _findings(
    catalogue: Catalogue, machine: Machine, build: Build, brief: Brief
) -> tuple[Finding, ...]:
    """All findings about a build: the same whatever frame rates are wanted."""
    wishes = whole_wishes(catalogue, brief)
    return catalogue.keep.once(
        ("findings", build, wishes, brief.region, brief.may_buy),
        lambda: weighed(
            check(machine, wishes),
            machine,
            catalogue,
            catalogue.prices(brief.region, brief.may_buy),
        ),
    )


def _estimate(
    catalogue: Catalogue, machine: Machine, build: Build, brief: Brief, target: Target
) -> Estimate | None:
    game_id, curves = target.game_id, curves_of(catalogue.keep)
    try:
        return catalogue.keep.once(
            ("estimate", build, brief.clocks, target, brief.chance, brief.display.refresh_hz),
            lambda: estimate(machine, fitted_game(catalogue, game_id), target, brief, curves),
        )
    except UnknownGameError:
        return None


def floors_missed(
    catalogue: Catalogue, brief: Brief, machine: Machine
) -> tuple[tuple[str, str], ...]:
    """The brief's fields whose floors the build does not reach, each with a sentence; of an owned
    part it is not asked what it decides by itself.
    """
    known = known_brief(catalogue, brief)
    return tuple(missed(machine, floors_of(catalogue, known).with_owned(known.owned)))


def _rules_missed(
    catalogue: Catalogue, brief: Brief, build: Build, lines: tuple[CostLine, ...]
) -> tuple[str, ...]:
    """Sentences about parts of the build that the brief does not allow, whatever its targets."""
    rules = replace(searched(brief), targets=())
    book = catalogue.prices(brief.region, brief.may_buy)
    return catalogue.keep.once(
        ("rules missed", rules, build),
        lambda: tuple(
            sentence
            for line in lines
            if line.part and not line.owned and line.kind in KINDS
            for sentence in not_allowed(rules, line.part, line.cost_minor, book, staying(lines))
        ),
    )


def staying(lines: tuple[CostLine, ...]) -> tuple[Part, ...]:
    """Parts that stay whatever is proposed: owned, kept and further ones."""
    return tuple(
        line.part
        for line in lines
        if line.part and (line.owned or line.is_kept or line.kind not in KINDS)
    )


def not_allowed(
    brief: Brief, part: Part, cost_minor: int, book: PriceBook, stays: tuple[Part, ...] = ()
) -> list[str]:
    """Sentences about a part to be bought that the brief does not allow."""
    purchase = PartCandidate(brief, part, cost_minor, stays, book.supply)
    return [
        rule.says(purchase, lambda minor: money(minor, book.currency))
        for rule in barring(brief, part, cost_minor, stays, book.supply)
    ]

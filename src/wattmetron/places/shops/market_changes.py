"""What changed between two days: parts that rose, fell, sold out, came back, are new; by kind, and
for each brief.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from statistics import median

from wattmetron.core.balance.upgrade_order import PartChange
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.offers import Buys
from wattmetron.core.values.part_kinds import ALL_KINDS, KIND_PLURALS, Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import Assessment, assess, known_build
from wattmetron.places.proposal.step_words import changed_names
from wattmetron.places.review.improve import Improved, improved
from wattmetron.words.figures import THIN, money_change

LEAST_MOVE = 0.005
"""A price that moved by less counts as the same."""
LEAST_KIND = 3
"""A kind is spoken of from so many parts with a price on both days on."""


@dataclass(frozen=True, slots=True)
class Moved:
    """A part with its delivered price then and now, in minor units (None: not to be had)."""

    part_id: str
    kind: Kind
    then_minor: int | None
    now_minor: int | None

    @property
    def share(self) -> float:
        """The change as a share of the price then; 0 where one of them is missing."""
        if not self.then_minor or self.now_minor is None:
            return 0.0
        return self.now_minor / self.then_minor - 1


@dataclass(frozen=True, slots=True)
class KindMove:
    """How the prices of a kind moved: the median share, and how many rose, fell, stayed."""

    kind: Kind
    median_share: float
    rose: int
    fell: int
    same: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Changes:
    """What changed in a region; each list the largest change first."""

    rose: tuple[Moved, ...]
    fell: tuple[Moved, ...]
    sold_out: tuple[Moved, ...]
    back: tuple[Moved, ...]
    new: tuple[Moved, ...]
    gone: tuple[Moved, ...]
    kinds: tuple[KindMove, ...]


def changes(then: Catalogue, now: Catalogue, region: str, used: bool = False) -> Changes:
    """Compares the cheapest delivered offers that can be had; raises BriefError for a region that
    one of the catalogues lacks.
    """
    before, after = then.prices(region, Buys(used)), now.prices(region, Buys(used))
    moved = [
        Moved(
            part.id,
            kind_of(part),
            before.cost(part.id) if part.id in then.parts else None,
            after.cost(part.id) if part.id in now.parts else None,
        )
        for part in {**then.parts, **now.parts}.values()
    ]
    priced = [move for move in moved if move.then_minor is not None and move.now_minor is not None]
    came = [move for move in moved if move.then_minor is None and move.now_minor is not None]
    went = [move for move in moved if move.then_minor is not None and move.now_minor is None]
    return Changes(
        rose=_by_share(move for move in priced if move.share >= LEAST_MOVE),
        fell=_by_share(move for move in priced if move.share <= -LEAST_MOVE),
        sold_out=_by_name(move for move in went if after.all_of(move.part_id)),
        gone=_by_name(move for move in went if not after.all_of(move.part_id)),
        back=_by_name(move for move in came if before.all_of(move.part_id)),
        new=_by_name(move for move in came if not before.all_of(move.part_id)),
        kinds=tuple(_kinds(priced)),
    )


def _by_share(moves: Iterable[Moved]) -> tuple[Moved, ...]:
    return tuple(sorted(moves, key=lambda move: (-abs(move.share), move.part_id)))


def _by_name(moves: Iterable[Moved]) -> tuple[Moved, ...]:
    return tuple(sorted(moves, key=lambda move: move.part_id))


def _kinds(priced: list[Moved]) -> list[KindMove]:
    kind_moves = []
    for kind in ALL_KINDS:
        shares = [move.share for move in priced if move.kind == kind]
        if len(shares) >= LEAST_KIND:
            rose = sum(share >= LEAST_MOVE for share in shares)
            fell = sum(share <= -LEAST_MOVE for share in shares)
            same = len(shares) - rose - fell
            kind_moves.append(KindMove(kind, median(shares), rose, fell, same))
    return sorted(kind_moves, key=lambda kind_move: (kind_move.median_share, kind_move.kind))


def kinds_words(kind_moves: tuple[KindMove, ...]) -> str:
    """``Memory kits fell by 12 %; power supplies rose by 2 %; the other kinds cost what they
    cost.``
    """
    moved = [kind_move for kind_move in kind_moves if abs(kind_move.median_share) >= LEAST_MOVE]
    sentences = [
        f"{KIND_PLURALS[kind_move.kind]} {'rose' if kind_move.median_share > 0 else 'fell'} by"
        f" {abs(kind_move.median_share) * 100:.0f}{THIN}%"
        for kind_move in moved
    ]
    if len(moved) < len(kind_moves):
        sentences.append(
            "the other kinds cost what they cost" if moved else "every kind costs the same"
        )
    words = "; ".join(sentences)
    return f"{words[:1].upper()}{words[1:]}." if words else ""


@dataclass(frozen=True, slots=True, kw_only=True)
class BriefNow:
    """A brief at today's prices: what its build costs then and now, whether it is still the right
    one, and if not what it would be instead, and why, in sentences.
    """

    brief_id: int
    name: str
    then_minor: int | None
    now_minor: int
    currency: str
    right: bool
    says: tuple[str, ...]


def brief_now(
    then: Catalogue, now: Catalogue, brief_id: int, plan: Plan, market: Changes
) -> BriefNow:
    """Looks at the build with the catalogue of today, and for the least changes that bring most."""
    present = assess(now, plan.brief, plan.build)
    before = _spent_then(then, plan)
    better = improved(now, present, "few")
    says = []
    if before is not None and before != present.spent_minor:
        change = money_change(present.spent_minor - before, present.currency)
        moved = _moved_most(now, present, market)
        says.append(f"The same list costs {change}{f': {moved}' if moved else ''}.")
    if present.unpriced:
        names = listed([line.part.name for line in present.unpriced if line.part])
        says.append(f"Not to be had today: {names}.")
    if present.blocking:
        says.append("It does not fit together as it stands.")
    right = better is None and not present.unpriced and not present.blocking
    if better is not None:
        says += _instead(now, present, better, market)
    return BriefNow(
        brief_id=brief_id,
        name=plan.brief.name,
        then_minor=before,
        now_minor=present.spent_minor,
        currency=present.currency,
        right=right,
        says=tuple(says),
    )


def _spent_then(then: Catalogue, plan: Plan) -> int | None:
    """What the list cost then; None where it could not be bought whole."""
    if plan.brief.region not in then.regions:
        return None
    brief = plan.brief
    lost = [target for target in brief.targets if target.game_id not in then.games]
    if lost or any(part_id not in then.parts for _, part_id in plan.build.ids()):
        return None
    before = assess(then, brief, known_build(then, plan.build))
    return None if before.unpriced else before.spent_minor


def _moved_most(now: Catalogue, present: Assessment, market: Changes) -> str:
    """The parts of a build whose prices moved most."""
    mine = {line.part_id for line in present.lines if line.part and not line.owned}
    moves = [
        (move.now_minor - move.then_minor, move.part_id)
        for move in (*market.rose, *market.fell)
        if move.part_id in mine and move.now_minor is not None and move.then_minor is not None
    ]
    most = sorted(moves, key=lambda move: (-abs(move[0]), move[1]))[:2]
    return listed(
        [
            f"{now.part(part_id).name} {money_change(change, present.currency)}"
            for change, part_id in most
        ]
    )


def _instead(now: Catalogue, present: Assessment, better: Improved, market: Changes) -> list[str]:
    """What the build would be today, why, and what that brings."""
    steps = [change for step in better.steps for change in step.changes]
    come = listed(changed_names(now, steps, "bought")) or "nothing"
    go = listed(changed_names(now, steps, "left")) or "nothing"
    taken = better.taken
    change = money_change(taken.spent_minor - present.spent_minor, present.currency)
    met = f", {taken.met} of {len(taken.counted)} targets met instead of {present.met}"
    return [
        f"{come} instead of {go}.",
        _why(now, steps, market),
        f"That is {change}{met if taken.counted else ''}.",
    ]


def _why(now: Catalogue, steps: Iterable[PartChange], market: Changes) -> str:
    """Price, stock or a new part, where one of them moved; else the list was not the best before
    either.
    """
    bought = [part_id for step in steps for part_id in step.bought]
    left = [part_id for step in steps for part_id in step.left]
    reasons = []
    for words, group, ids in (
        ("new on sale", market.new, bought),
        ("to be had again", market.back, bought),
        ("cheaper than then", market.fell, bought),
        ("sold out", market.sold_out, left),
        ("dearer than then", market.rose, left),
    ):
        names = [now.part(move.part_id).name for move in group if move.part_id in ids]
        if names:
            reasons.append(f"{listed(names)} {'is' if len(names) == 1 else 'are'} {words}")
    if not reasons:
        return "No price of it moved: the list was not the best one before either."
    return f"{'; '.join(reasons)}."

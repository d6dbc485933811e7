"""The account of a balance in words, and what limits, in figures that mean something."""

from dataclasses import dataclass, replace
from math import exp

from wattmetron.core.balance.pairs import PairCell, PairsMap
from wattmetron.core.balance.reductions import Cut, free_money
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.frames.chance import curves_of
from wattmetron.core.frames.estimate import Estimate, estimate
from wattmetron.core.values.brief import Target
from wattmetron.core.values.other_work import WORKS, left_of
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.balance.balance import More, Tables, cuts_of, split_of
from wattmetron.places.balance.price_limits import SIDES
from wattmetron.words.figures import THIN, money, percent

SIZES = ((1920, 1080), (2560, 1440), (3840, 2160))
SIDE_WORDS = {"processor": "the processor", "graphics": "graphics", "evenly matched": "both sides"}


def account(
    tables: Tables,
    subject: Assessment,
    answer: Assessment | None,
    pairs: PairsMap,
    more: tuple[More, ...],
    free: dict[Kind, Cut],
) -> tuple[str, ...]:
    """A short paragraph that a builder could say to a customer, a sentence for each matter."""
    sentences = [
        _where_it_goes(tables.catalogue, subject),
        what_limits(subject),
        *_neighbours(tables, subject, pairs),
        next_step(answer or subject, more),
        savings_words(subject, free),
        while_working(tables.catalogue, subject),
    ]
    return tuple(word for word in sentences if word)


def _where_it_goes(catalogue: Catalogue, subject: Assessment) -> str:
    total = f"The machine costs {money(subject.spent_minor, subject.currency)}"
    if subject.brief.seats > 1:
        total += (
            f", {subject.brief.seats} alike"
            f" {money(subject.spent_minor * subject.brief.seats, subject.currency)}"
        )
    split = split_of(catalogue, subject)
    if split is None or not split.total_minor:
        return f"{total}."
    sides = [
        f"{percent(side.total_minor / split.total_minor)} to the {name} side"
        for name, side in (("processor", split.processor), ("graphics", split.graphics))
        if side is not None
    ]
    rest = f"{percent(split.rest_minor / split.total_minor)} to the rest"
    return f"{total}; of its parts' money {listed([*sides, rest])}."


def what_limits(subject: Assessment) -> str:
    """Which side limits in which games, in one sentence."""
    if not subject.counted:
        return ""
    by: dict[str, list[str]] = {}
    for run in subject.counted:
        by.setdefault(run.limit_words, []).append(run.game.name)
    clauses = [
        f"{SIDE_WORDS[word]} {'limits' if word == 'processor' else 'limit'} in"
        f" {listed(list(dict.fromkeys(names)))}"
        for word, names in by.items()
    ]
    sentence = "; ".join(clauses)
    return f"{sentence[:1].upper()}{sentence[1:]}."


def _neighbours(tables: Tables, subject: Assessment, pairs: PairsMap) -> list[str]:
    """Why this pairing: what the next card and the next processor on the map would change."""
    sides = tables.sides
    chip, card = subject.machine.processor, subject.machine.graphics
    ids = [part.id for part in sides.chips]
    card_ids = [part.id for part in sides.cards]
    if card is not None and card.id in card_ids and not sides.allowed[card_ids.index(card.id)]:
        return [
            f"{card.name} has too little video memory for these settings, so it is not on the map"
            " and no proposal takes it."
        ]
    if chip is None or chip.id not in ids:
        return []
    c, g = (
        ids.index(chip.id),
        card_ids.index(card.id) if card is not None and card.id in card_ids else None,
    )
    here = pairs.cells.get((c, g))
    if here is None:
        return []
    row, column = pairs.processors.index(c), pairs.cards.index(g)
    sentences = []
    for name, key in (
        ("the next dearer card", _at(pairs, row, column + 1)),
        ("the next cheaper card", _at(pairs, row, column - 1)),
        ("the next dearer processor", _at(pairs, row + 1, column)),
        ("the next cheaper processor", _at(pairs, row - 1, column)),
    ):
        cell = pairs.cells.get(key) if key else None
        if cell is None or key is None:
            continue
        if not _tells(name, here, cell):
            continue
        part = (
            sides.cards[key[1]].model
            if "card" in name and key[1] is not None
            else sides.chips[key[0]].model
        )
        sentences.append(f"{name}, {part}, {_against(here, cell, subject.currency)}")
    return [f"Beside this pairing, {'; '.join(sentences)}."] if sentences else []


def _tells(name: str, here: PairCell, there: PairCell) -> bool:
    """Whether a neighbour says something: a dearer part that makes the machine dearer and no
    slower, a cheaper one cheaper.
    """
    if "dearer" in name:
        return there.winner.cost > here.winner.cost and there.winner.gain >= here.winner.gain
    return there.winner.cost < here.winner.cost


def _at(pairs: PairsMap, row: int, column: int) -> tuple[int, int | None] | None:
    if not (0 <= row < len(pairs.processors) and 0 <= column < len(pairs.cards)):
        return None
    return pairs.processors[row], pairs.cards[column]


def _against(here: PairCell, there: PairCell, currency: str) -> str:
    change, delta = (
        exp((there.winner.gain - here.winner.gain) / 1e6) - 1,
        there.winner.cost - here.winner.cost,
    )
    more = "more" if change > 0 else "less"
    speed = "the same frames" if abs(change) < 0.005 else f"{percent(abs(change))} {more} speed"
    if not delta:
        return f"brings {speed} for the same money"
    dearer = "dearer" if delta > 0 else "cheaper"
    return f"makes the machine {money(abs(delta), currency)} {dearer} for {speed}"


def next_step(subject: Assessment, more: tuple[More, ...]) -> str:
    """The least further money that meets more than this budget, or brings 2 %."""
    for extra in more:
        if extra.change_minor <= 0 or extra.assessment is None:
            continue
        gain = mean_change(subject, extra.assessment)
        if extra.assessment.met > subject.met or gain >= 0.02:
            met = (
                f"meets {extra.assessment.met} targets instead of {subject.met}"
                if extra.assessment.met != subject.met
                else f"brings {gain:.0%} on average".replace("%", f"{THIN}%")
            )
            return (
                f"With {money(extra.change_minor, subject.currency)} on top of the budget the best"
                f" build {met}, for {money(extra.assessment.spent_minor, subject.currency)}."
            )
    return (
        f"The next hundred on top of the budget would bring under 2{THIN}%."
        if subject.counted
        else ""
    )


def mean_change(before: Assessment, after: Assessment) -> float:
    """The weighted mean change of the judged rates."""
    weight = sum(estimate.target.weight for estimate in before.counted)
    pairs = zip(before.counted, after.counted, strict=True)
    return (
        sum(
            estimate.target.weight * (two.judged_fps / estimate.judged_fps - 1)
            for estimate, two in pairs
            if estimate.judged_fps
        )
        / weight
        if weight
        else 0.0
    )


def savings_words(subject: Assessment, free: dict[Kind, Cut]) -> str:
    """The largest saving at the same frames; empty where there is none."""
    if not free:
        return ""
    best = max(free.values(), key=lambda cut: cut.saves_minor)
    return (
        f"{money(best.saves_minor, subject.currency)} could be saved with {best.part.name} in the"
        f" place of the {_kind(best.kind)} for the same frames."
    )


def side_money(catalogue: Catalogue, subject: Assessment) -> str:
    """How much of the processor's and the card's price buys under 2 % on every target."""
    if not subject.counted or subject.missing:
        return ""
    sentences, free = [], free_money(list(cuts_of(catalogue, subject)))
    for kind in SIDES:
        line = next(
            (
                each_line
                for each_line in subject.lines
                if each_line.kind == kind and not each_line.owned
            ),
            None,
        )
        if line is not None and line.cost_minor:
            idle = free[kind].saves_minor if kind in free else 0
            sentences.append(
                f"{money(idle, subject.currency)} of the {_kind(kind)}'s"
                f" {money(line.cost_minor, subject.currency)}"
            )
    if not sentences:
        return ""
    buys = "buys" if len(sentences) == 1 else "buy"
    return f"{listed(sentences)} {buys} under 2{THIN}% on every target."


def _kind(kind: Kind) -> str:
    return {
        "supply": "power supply",
        "graphics": "card",
        "memory": "memory",
        "storage": "drive",
    }.get(kind, kind)


def while_working(catalogue: Catalogue, subject: Assessment) -> str:
    """What the work beside a game takes from each target, in one sentence; empty without such
    work.
    """
    single, every = left_of(subject.brief.work)
    chip = subject.machine.processor
    if chip is None or (single, every) == (1.0, 1.0):
        return ""
    busy = replace(
        chip, single_speed=chip.single_speed * single, all_core_speed=chip.all_core_speed * every
    )
    machine = replace(subject.machine, processor=busy)
    sentences = []
    for each_estimate in subject.counted:
        then = estimate(
            machine,
            each_estimate.game,
            each_estimate.target,
            subject.brief,
            curves_of(catalogue.keep),
        )
        if then is not None and then.judged_fps:
            sentences.append(
                f"{each_estimate.game.name} {then.judged_fps:.0f} instead of"
                f" {each_estimate.judged_fps:.0f} fps"
                f" ({then.state})"
            )
    names = listed([name for name in subject.brief.work if WORKS[name].all_core_share])
    return f"With {names} beside the game: {'; '.join(sentences)}." if sentences else ""


@dataclass(frozen=True, slots=True)
class LimitRows:
    """What limits by target, and where the limit changes sides over the resolutions."""

    rows: tuple[tuple[str, ...], ...]
    by_resolution: tuple[tuple[str, tuple[tuple[str, str], ...]], ...]
    resolutions: tuple[str, ...]


def limit_rows(catalogue: Catalogue, subject: Assessment) -> LimitRows:
    """Per target: share of frames by side, both sides alone, what 10 % brings on each, who waits
    how long.
    """
    return catalogue.keep.once(
        ("limit rows", subject.brief, subject.build), lambda: _limit_rows(catalogue, subject)
    )


def _limit_rows(catalogue: Catalogue, subject: Assessment) -> LimitRows:
    rows = tuple(_limit_row(estimate) for estimate in subject.counted if estimate.average_fps > 0)
    if subject.counted:
        weight = sum(estimate.target.weight for estimate in subject.counted)
        share = (
            sum(estimate.target.weight * estimate.processor_share for estimate in subject.counted)
            / weight
        )
        rows += (("over the brief", percent(share), percent(1 - share), "", "", "", "", ""),)
    sizes = list(
        dict.fromkeys(
            [
                *SIZES,
                *(
                    (estimate.target.width_px, estimate.target.height_px)
                    for estimate in subject.counted
                ),
            ]
        )
    )
    sizes.sort(key=lambda size: size[0] * size[1])
    return LimitRows(
        rows,
        tuple(_over_sizes(catalogue, subject, estimate, sizes) for estimate in subject.counted),
        tuple(f"{w}x{h}" for w, h in sizes),
    )


def _limit_row(estimate: Estimate) -> tuple[str, ...]:
    waits = (
        ("processor", estimate.processor_waits_ms)
        if estimate.processor_waits_ms > estimate.graphics_waits_ms
        else ("graphics", estimate.graphics_waits_ms)
    )
    return (
        estimate.game.name,
        percent(estimate.processor_share),
        percent(1 - estimate.processor_share),
        f"{estimate.processor_alone_fps:.0f}",
        f"{estimate.graphics_alone_fps:.0f}",
        f"{10 * estimate.processor_elasticity:.1f}{THIN}%",
        f"{10 * (1 - estimate.processor_elasticity):.1f}{THIN}%",
        f"{waits[0]} {max(0.0, waits[1]):.1f}{THIN}ms",
    )


def _over_sizes(
    catalogue: Catalogue, subject: Assessment, each_estimate: Estimate, sizes: list[tuple[int, int]]
) -> tuple[str, tuple[tuple[str, str], ...]]:
    cells = []
    for width, height in sizes:
        target: Target = replace(each_estimate.target, width_px=width, height_px=height)
        curves = curves_of(catalogue.keep)
        then = estimate(subject.machine, each_estimate.game, target, subject.brief, curves)
        if then is None or not then.average_fps:
            cells.append(("", "none"))
            continue
        side = then.limit_words
        cells.append(
            ({"processor": "c", "graphics": "g"}.get(side, "cg"), f"{then.judged_fps:.0f}")
        )
    return each_estimate.game.name, tuple(cells)

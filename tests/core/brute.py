"""The best build by trying every one: an independent formulation for small catalogues."""

from dataclasses import dataclass, replace
from itertools import combinations_with_replacement

import numpy as np

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.fit.rules import blocks, judged
from wattmetron.core.fit.wishes import wishes_of
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.frames.table import reliable_table
from wattmetron.core.power.tuning import run_at
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.kinds import kind_of
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import KINDS
from wattmetron.core.values.trust import TRUST_FLOORS, trust_of
from wattmetron.core.workloads.fit import fitted_game


@dataclass(frozen=True)
class Tried:
    cost: int
    met: int
    gain: int
    ids: tuple


def every_build(catalogue: Catalogue, brief: Brief, kept: Build = Build()) -> list[Tried]:  # noqa: B008
    """All complete fitting builds with cost, weight met and U."""
    book = catalogue.prices(brief.region, brief.allow_used)
    fixed = {}
    for _, part_id in kept.ids():
        cost = 0 if part_id in brief.owned else book.delivered(part_id) or 0
        fixed.setdefault(kind_of(catalogue.part(part_id)), []).append(
            (catalogue.part(part_id), cost)
        )
    for part_id in brief.owned:
        kind = kind_of(catalogue.part(part_id))
        if part_id not in kept.of(kind) and (kind == "storage" or kind not in fixed):
            fixed.setdefault(kind, []).append((catalogue.part(part_id), 0))

    def shelf(kind):
        if kind in fixed and kind != "storage":
            return fixed[kind]
        priced = [(part, book.delivered(part.id)) for part in catalogue.by_kind[kind]]
        stays = tuple(part for own in fixed.values() for part, _ in own)
        return [
            (part, cost)
            for part, cost in priced
            if cost is not None and may_be_bought(brief, part, cost, stays)
        ]

    def at(*parts):
        return run_at(Machine(**dict(zip(KINDS, parts, strict=False))), brief.clocks)

    nothing = [(None, 0)]
    counted = [target for target in brief.targets if target.weight]
    beside = sum({"streaming": 4, "voice and browser": 4}.get(item, 0) for item in brief.work)
    memory_gb = max(
        [brief.memory_gb, beside, *(catalogue.game(t.game_id).memory_gb + beside for t in counted)]
    )
    memory_gb = max(
        [memory_gb, *(32 for item in brief.work if item in ("video editing", "many things open"))]
    )
    if "memory" in fixed:
        memory_gb = min(memory_gb, fixed["memory"][0][0].total_gb)
    games = {target.game_id for target in brief.targets}
    together_gb = sum(catalogue.game(game).storage_gb for game in games)
    storage_gb = max(brief.storage_gb, together_gb / 0.8)
    storage_gb += sum({"streaming": 100, "video editing": 500}.get(item, 0) for item in brief.work)
    own = fixed.get("storage", [])
    new = [()] + [
        combination
        for n in (1, 2)
        for combination in combinations_with_replacement(shelf("storage"), n)
    ]
    drive_sets = [[*own, *extra] for extra in new]
    drive_sets = [
        s for s in drive_sets if s and sum(drive.capacity_gb for drive, _ in s) >= storage_gb
    ]
    if own and sum(drive.capacity_gb for drive, _ in own) >= storage_gb:
        drive_sets = [own]
    cards = shelf("graphics") if "graphics" in fixed else shelf("graphics") + nothing
    coolers = shelf("cooler") if "cooler" in fixed else shelf("cooler") + nothing
    found = []
    for chip, chip_cost in shelf("processor"):
        for card, card_cost in cards:
            for board, board_cost in shelf("mainboard"):
                if _clash(at(chip, card, board)):
                    continue
                for kit, kit_cost in shelf("memory"):
                    half = at(chip, card, board, kit)
                    if kit.total_gb < memory_gb or _clash(half):
                        continue
                    judged = _judged(catalogue, brief, half)
                    if judged is None:
                        continue
                    so_far = chip_cost + card_cost + board_cost + kit_cost
                    shells = _shells(
                        brief, half, drive_sets, coolers, shelf("supply"), shelf("case")
                    )
                    for drives, cooler, supply, case, cost in shells:
                        ids = (
                            chip.id,
                            card.id if card else "",
                            board.id,
                            kit.id,
                            tuple(d.id for d, _ in drives),
                            cooler.id if cooler else "",
                            supply.id,
                            case.id,
                        )
                        found.append(Tried(so_far + cost, *judged, ids))
    return found


def may_be_bought(brief, part, cost, stays):
    """The brief's rules about single parts, written out."""
    kind = kind_of(part)
    fixed_clocks = [
        item
        for item in (part, *stays)
        if not getattr(
            item, {"processor": "tunable", "mainboard": "tuning"}.get(kind_of(item), "id")
        )
    ]
    return (
        (brief.part_cap_minor is None or cost <= brief.part_cap_minor)
        and trust_of(part) in TRUST_FLOORS[brief.trust_floor]
        and part.id not in brief.banned
        and part.maker not in brief.no_makers
        and part.maker in ([maker for own, maker in brief.only_of if own == kind] or [part.maker])
        and part.colour in ("", brief.colour or part.colour)
        and not (kind == "cooler" and (part.noise_dba or 0) > (brief.noise_limit_dba or 999))
        and not (kind == "case" and part.volume_l > (brief.volume_limit_l or 999))
        and not (
            kind == "mainboard"
            and brief.room_to_grow
            and not (part.memory_slots > 3 and part.m2_slots > 1)
        )
        and not (kind == "mainboard" and brief.wireless and not part.wireless)
        and not (kind in ("memory", "case") and brief.no_lights and part.lights)
        and not (
            kind == "processor"
            and part.all_core_speed
            < max(
                [0, *({"streaming": 60, "video editing": 90}.get(item, 0) for item in brief.work)]
            )
        )
        and not (brief.clocks == "tuned" and fixed_clocks == [part])
    )


def _clash(machine):
    """Whether parts that are there clash; a cooler may still come."""
    return any(f.level == "blocks" and f.rule != "boxed cooler" for f in judged(machine))


def _shells(brief, half, drive_sets, coolers, supplies, cases):
    """Whole machines; what clashes with a part of the rest clashes with all of it, so each is tried
    by itself first.
    """
    wishes = wishes_of(brief)
    for drives in drive_sets:
        stored = replace(half, storage=tuple(drive for drive, _ in drives))
        for cooler, cooler_cost in coolers:
            part = replace(stored, cooler=cooler)
            if blocks(part):
                continue
            fitting = [
                each_case for each_case in cases if not blocks(replace(part, case=each_case[0]))
            ]
            strong = [
                each_supply
                for each_supply in supplies
                if fitting and not blocks(replace(part, supply=each_supply[0]), wishes)
            ]
            for supply, supply_cost in strong:
                for case, case_cost in fitting:
                    whole = replace(part, supply=supply, case=case)
                    if not whole.missing() and not blocks(whole, wishes):
                        cost = (
                            sum(price for _, price in drives)
                            + cooler_cost
                            + supply_cost
                            + case_cost
                        )
                        yield drives, cooler, supply, case, cost


def _judged(catalogue, brief, machine):
    """(weight met, U), or None where video memory is short and spill is not accepted."""
    met = total = weight = 0
    for target in brief.targets:
        if not target.weight:
            continue
        game = fitted_game(catalogue, target.game_id)
        item = estimate(machine, game, target, brief)
        if item is None or (item.short_of_video_memory_gb > 0 and not brief.accept_spill):
            return None
        gain = round(np.log(0.01) * 1e6)
        if np.isfinite(item.graphics_ms):
            table = reliable_table(
                catalogue.keep,
                game.processor_variation,
                game.graphics_variation,
                target.measure,
                brief.chance,
                brief.accept_spill
                or (target.ray_tracing and game.ray_tracing_ms_per_mpx is not None),
            )
            columns = (
                np.log(item.processor_ms),
                item.processor_sd,
                np.log(item.graphics_ms),
                item.graphics_sd,
                item.workload.side_cov,
            )
            ln_f = float(table.ln_quantile(*(np.array([value]) for value in columns))[0])
            gain = max(gain, round((np.log(1000 / target.fps) - ln_f) * 1e6))
        gain = min(
            gain, round(np.log(max(1.0, min(1.5, brief.display.refresh_hz / target.fps))) * 1e6)
        )
        capped = item.cap_fps is not None and target.fps > item.cap_fps
        met += target.weight if gain >= 0 and not capped else 0
        total += target.weight * gain
        weight += target.weight
    return met, (2 * total + weight) // (2 * weight) if weight else total


def answer(found: list[Tried], aim: str, weight: int, budget: int, band: int) -> Tried | None:
    """The best of all builds by one of the two aims."""
    if aim == "least money":
        able = [item for item in found if item.met == weight]
    else:
        able = [item for item in found if item.cost <= budget]
        if able:
            met = max(item.met for item in able)
            gain = max(item.gain for item in able if item.met == met)
            able = [item for item in able if item.met == met and item.gain >= gain - band]
    return min(able, key=lambda item: (item.cost, -item.gain, item.ids)) if able else None

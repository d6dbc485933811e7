"""Whether a builder would hand over what is proposed: ``make defend``.

Random briefs at the defaults over the demo catalogue; every fault of a proposal is counted. What
counts as a fault is written out here and shares nothing with the search.
"""

import sys
from collections import Counter
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

import numpy as np

from tests.demo import world
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.rules import check
from wattmetron.core.compatibility.wasted_money import weighed
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.brief import Brief, Display, Target
from wattmetron.core.values.offers import NEW_PARTS
from wattmetron.places.assessment.assess import whole_wishes

BRIEFS = 250
SEED = 20261129
MODEL = Path(__file__).parents[2] / "docs" / "model.md"
BEGIN, END = "<!-- generated: defended -->\n", "<!-- end -->\n"
SIZES = ((1920, 1080), (2560, 1440), (3440, 1440), (3840, 2160))
STRONG_MINOR = 40_000
FAULTS = {
    "hard disk": "a hard disk as the only drive",
    "slow storage": "a game on slower storage than its lowest tier asks for",
    "API": "what draws does not know the API that a game needs to start, or is not known to",
    "first start": "a firmware step that needs another processor",
    "heat": "more heat than case and fans carry off",
    "far too hot": "of these, more than one and a half times as much",
    "cooler reserve": "a cooler with under 10 % in reserve",
    "supply reserve": "a power supply with under 10 % over what sizing asks for",
    "boxed cooler": "a boxed cooler that is too tall for the case, or of unknown height",
    "noise not known": "a wish for quiet, and a part that is heard whose noise is not known",
    "four cores": "four cores or fewer beside a card of EUR 400 or more",
    "channels": "memory that leaves channels empty",
    "blocks": "a finding that blocks",
    "do first": "a finding to be dealt with first",
    "wastes": "a finding that wastes money or frames",
    "over budget": "more than the budget",
}
LET_GO = {
    "solid_state": False,
    "games_start": False,
    "starts_as_bought": False,
    "heat_carried": False,
    "boxed_judged": False,
    "all_channels": False,
    "enough_threads": False,
    "display_driven": False,
    "reserve_percent": 0,
}
API_LEVELS = {"Fairlead 11": 11.0, "Fairlead 12": 12.0}


def random_brief(rng: np.random.Generator, catalogue: Catalogue) -> Brief:
    """A brief as somebody might enter it; everything that it does not say is left at its
    default.
    """
    width, height = SIZES[rng.choice(4, p=(0.45, 0.3, 0.1, 0.15))]
    games = rng.choice(sorted(catalogue.games), int(rng.integers(1, 6)), replace=False)
    refresh = float(rng.choice((60, 75, 120, 144, 165, 240)))
    targets = tuple(
        Target(
            id=f"t{n}",
            game_id=str(game),
            width_px=width,
            height_px=height,
            preset=str(rng.choice(("medium", "high", "high", "ultra"))),
            fps=float(rng.choice((60, 60, 90, 120, 144))),
            measure=str(rng.choice(("average", "average", "low"))),
            ray_tracing=bool(rng.random() < 0.1)
            and catalogue.games[game].ray_tracing_ms_per_mpx is not None,
        )
        for n, game in enumerate(games)
    )
    brief = Brief(
        name="Random",
        region="vellmouth",
        budget_low_minor=0,
        budget_high_minor=round(float(np.exp(rng.uniform(np.log(450), np.log(4000))))) * 100,
        display=Display(width_px=width, height_px=height, refresh_hz=refresh),
        targets=targets,
    )
    if rng.random() < 0.6:
        brief = replace(brief, storage_gb=float(rng.choice((1000, 1500, 2000, 4000))))
    if rng.random() < 0.15:
        brief = replace(brief, noise_limit_dba=float(rng.choice((28, 32, 36, 40))))
    if rng.random() < 0.12:
        brief = replace(brief, volume_limit_l=float(rng.choice((12, 20, 35))))
    return brief if rng.random() < 0.8 else replace(brief, wireless=True)


def faults(catalogue: Catalogue, brief: Brief, build, cost_minor: int) -> Iterator[str]:
    """What a builder would not hand over in a proposal."""
    machine = catalogue.machine(build)
    book = catalogue.prices(brief.region, NEW_PARTS)
    chip, card, board, case = machine.processor, machine.graphics, machine.mainboard, machine.case
    spins = [
        drive for drive in machine.storage if drive.interface == "SATA" and drive.read_mbs < 300
    ]
    if len(spins) == len(machine.storage):
        yield "hard disk"
    nvme = any(drive.interface == "M.2 NVMe" for drive in machine.storage)
    tiers = [
        catalogue.published[target.game_id].tiers
        for target in brief.targets
        if target.game_id in catalogue.published
    ]
    asked = [next((tier.storage_kind for tier in own if tier.storage_kind), "") for own in tiers]
    solid_gb = sum(drive.capacity_gb for drive in machine.storage if drive not in spins)
    wanted_gb = sum(
        catalogue.games[target.game_id].storage_gb
        for target, kind in zip(brief.targets, asked, strict=False)
        if kind in ("SSD", "NVMe SSD")
    )
    if ("NVMe SSD" in asked and not nvme) or solid_gb < wanted_gb:
        yield "slow storage"
    known = [API_LEVELS[api] for api in (card.apis if card else chip.igpu_apis)]
    needed = [API_LEVELS[own[0].api] for own in tiers if own and own[0].api in API_LEVELS]
    if needed and max(needed) > max(known, default=0):
        yield "API"
    for entry in board.firmware_needed:
        family, version = entry.split("=")
        alone = family == chip.firmware_family and not board.firmware_recovery
        if alone and _numbers(board.firmware_shipped) < _numbers(version):
            yield "first start"
    watts = chip.sustained_w + 38 + 3 * machine.memory.sticks + (card.board_power_w if card else 0)
    watts += sum(7 if drive.interface == "M.2 NVMe" else 5 for drive in machine.storage)
    fans = case.fans_included + sum(fan.pack for fan in machine.of("fan"))
    carried = {"mesh": 340, "side vents": 250, "closed": 160}[case.airflow]
    carried += 90 * min(fans, case.fan_places if case.fan_places is not None else fans)
    if watts > carried:
        yield "heat"
    if watts > 1.5 * carried:
        yield "far too hot"
    capacity = machine.cooler.capacity_w if machine.cooler else chip.boxed_cooler_w
    if capacity < 1.1 * chip.sustained_w:
        yield "cooler reserve"
    if machine.supply.watts < 1.1 * 1.4 * watts:
        yield "supply reserve"
    if not machine.cooler and (chip.boxed_height_mm or 999) > case.cooler_height_mm:
        yield "boxed cooler"
    heard = [machine.cooler.noise_dba if machine.cooler else chip.boxed_noise_dba]
    heard += [fan.noise_dba for fan in machine.of("fan")]
    if brief.noise_limit_dba is not None and None in heard:
        yield "noise not known"
    if card and book.cost(card.id) >= STRONG_MINOR and chip.cores <= 4:
        yield "four cores"
    if machine.memory.sticks < chip.memory_channels:
        yield "channels"
    yield from _findings(catalogue, brief, machine, book)
    if cost_minor > brief.budget_high_minor:
        yield "over budget"


def _numbers(version: str) -> list[int]:
    return [int(number) for number in version.split(".")]


def _findings(catalogue, brief, machine, book):
    found = weighed(check(machine, whole_wishes(catalogue, brief)), machine, catalogue, book)
    levels = Counter(finding.level for finding in found)
    for finding in found:
        if finding.level != "good to know":
            RULES[finding.level, finding.rule] += 1
    yield from (level for level in ("blocks", "do first", "wastes") if levels[level])


RULES: Counter = Counter()


def defended(briefs: int = BRIEFS, seed: int = SEED, **let_go) -> tuple[int, Counter]:
    """How many proposals there were, and in how many each fault was found; with some of the brief's
    fields changed.
    """
    catalogue = world()
    rng = np.random.default_rng(seed)
    proposals, found = 0, Counter()
    for _ in range(briefs):
        brief = replace(random_brief(rng, catalogue), **let_go)
        answer = propose(catalogue, brief)
        if answer.build is None:
            continue
        proposals += 1
        seen = [*faults(catalogue, brief, answer.build, answer.cost_minor)]
        found.update(dict.fromkeys(seen, 1))
    return proposals, found


def table(with_floors: tuple[int, Counter], without: tuple[int, Counter]) -> str:
    (count, found), (other_count, other) = with_floors, without
    rows = [f"| {words} | {found[name]} | {other[name]} |" for name, words in FAULTS.items()]
    head = (
        f"| of {BRIEFS} random briefs (seed {SEED}) | at the defaults | every floor let go |\n"
        "| --- | --- | --- |\n"
        f"| proposals | {count} | {other_count} |\n"
    )
    return head + "\n".join(rows) + "\n"


def main() -> None:
    without = defended(**LET_GO)
    RULES.clear()
    text = table(defended(), without)
    print(text)
    for (level, rule), count in RULES.most_common():
        print(f"{count:4} {level}: {rule}")
    if "--write" in sys.argv:
        head, _, rest = MODEL.read_text().partition(BEGIN)
        MODEL.write_text(head + BEGIN + "\n" + text + "\n" + END + rest.partition(END)[2])


if __name__ == "__main__":
    main()

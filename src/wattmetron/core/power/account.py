"""The account of a machine's power: at the desk, in each game, full, in spikes; on the supply's
curve; per year.
"""

from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

import numpy as np

from wattmetron.core.frames.estimate import Estimate
from wattmetron.core.power import efficiency as eff
from wattmetron.core.power.draw import IDLE_CARD_SHARE, busy_shares, draw, needed_supply_w
from wattmetron.core.power.heat import case_heat_w
from wattmetron.core.power.noise import in_play_dba
from wattmetron.core.values.housing import PowerSupply
from wattmetron.core.values.machine import Machine

DESK_SHARE = {"processor": 0.15, "graphics": 0.08}
SUPPLY_STEPS_W = (300, 400, 450, 500, 550, 600, 650, 700, 750, 850, 1000, 1200, 1600)
State = Literal["desk", "game", "full", "spike"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Span:
    """Draw in one state, in W: processor, card and the rest; ``wall_w`` is None for spikes and
    without a supply.
    """

    state: State
    name: str
    processor_w: float
    graphics_w: float
    rest_w: float
    load_share: float | None = None
    efficiency: float | None = None

    @property
    def total_w(self) -> float:
        return self.processor_w + self.graphics_w + self.rest_w

    @property
    def wall_w(self) -> float | None:
        return None if self.efficiency is None else self.total_w / self.efficiency


@dataclass(frozen=True, slots=True)
class YearUse:
    """Energy and cost of a year, with what the next better level would save; costs in minor
    units.
    """

    kwh: float
    cost_minor: int
    better: str | None
    saves_minor: int


@dataclass(frozen=True, slots=True)
class Heat:
    """Heat in W against what carries it away; None where there is nothing to compare with."""

    processor_w: int
    cooler_w: int | None
    machine_w: int
    case_w: int | None


@dataclass(frozen=True, slots=True, kw_only=True)
class PowerAccount:
    """Everything about a machine's power; ``fitting_w`` is the least usual supply size that carries
    it.
    """

    spans: tuple[Span, ...]
    needed_w: int
    fitting_w: int | None
    later_card_w: int | None
    year: YearUse | None
    heat: Heat
    noise_dba: float | None

    def of(self, state: State) -> tuple[Span, ...]:
        return tuple(span for span in self.spans if span.state == state)


@dataclass(frozen=True, slots=True, kw_only=True)
class PowerUse:
    """Headroom and reserve above it in %, hours a day of play and at the desk, price of a kWh,
    mains voltage.
    """

    headroom_percent: int
    reserve_percent: int = 0
    play_hours: float
    desk_hours: float
    tariff_per_kwh: Decimal
    mains_v: int


def account(machine: Machine, estimates: tuple[Estimate, ...], use: PowerUse) -> PowerAccount:
    """The account of a machine that has a processor or a card."""
    power = draw(machine)
    bare = [
        _desk(machine, power.rest_w),
        *(
            _game(machine, estimate, power.rest_w)
            for estimate in estimates
            if estimate.average_fps > 0
        ),
    ]
    bare.append(
        Span(
            state="full",
            name="Everything busy",
            processor_w=power.processor_w,
            graphics_w=power.graphics_w,
            rest_w=power.rest_w,
        )
    )
    spans = [_on_curve(span, machine.supply, use.mains_v) for span in bare]
    spans.append(
        Span(
            state="spike",
            name="Short spikes",
            processor_w=power.processor_w,
            graphics_w=power.spike_w - power.processor_w - power.rest_w,
            rest_w=power.rest_w,
        )
    )
    needed = needed_supply_w(power.full_w, use.headroom_percent, use.reserve_percent)
    return PowerAccount(
        spans=tuple(spans),
        needed_w=needed,
        fitting_w=next((step for step in SUPPLY_STEPS_W if step >= needed), None),
        later_card_w=_later_card_w(machine, use),
        year=_year(spans, estimates, machine.supply, use),
        heat=_heat(machine),
        noise_dba=in_play_dba(
            machine,
            max(
                (span.graphics_w for span in spans if span.state == "game"),
                default=power.graphics_w,
            ),
        ),
    )


def _desk(machine: Machine, rest: int) -> Span:
    """At the desk: an assumed share of what each side draws when busy."""
    chip = machine.processor
    cards = [card for card in (machine.graphics, machine.second_card) if card is not None]
    return Span(
        state="desk",
        name="At the desk",
        processor_w=DESK_SHARE["processor"] * chip.sustained_w if chip else 0.0,
        graphics_w=DESK_SHARE["graphics"] * sum(card.board_power_w for card in cards),
        rest_w=rest,
    )


def _game(machine: Machine, estimate: Estimate, rest: int) -> Span:
    busy_c, busy_g = busy_shares(estimate)
    chip, card, second = machine.processor, machine.graphics, machine.second_card
    idle_w = IDLE_CARD_SHARE * second.board_power_w if second else 0.0
    return Span(
        state="game",
        name=estimate.game.name,
        processor_w=chip.gaming_w * busy_c if chip else 0.0,
        graphics_w=(card.board_power_w * busy_g if card else 0.0) + idle_w,
        rest_w=rest,
    )


def _on_curve(span: Span, supply: PowerSupply | None, mains_v: int) -> Span:
    if supply is None:
        return span
    share = span.total_w / supply.watts
    share_out = eff.efficiency(supply.efficiency, mains_v, share)
    return Span(
        state=span.state,
        name=span.name,
        processor_w=span.processor_w,
        graphics_w=span.graphics_w,
        rest_w=span.rest_w,
        load_share=share,
        efficiency=share_out,
    )


def _later_card_w(machine: Machine, use: PowerUse) -> int | None:
    """Board power of the strongest card that the supply would carry with headroom and reserve
    kept; None without a supply.
    """
    supply, chip = machine.supply, machine.processor
    if supply is None or chip is None:
        return None
    power = draw(machine)
    share = use.headroom_percent * (100 + use.reserve_percent)
    return max(0, supply.watts * 10_000 // share - power.processor_w - power.rest_w)


def _year(
    spans: list[Span], estimates: tuple[Estimate, ...], supply: PowerSupply | None, use: PowerUse
) -> YearUse | None:
    """Play at the mean of the games by their weights; without games the desk alone is counted."""
    if supply is None:
        return None
    desk = next(span for span in spans if span.state == "desk")
    games = [span for span in spans if span.state == "game"]
    weights = [max(estimate.target.weight, 0) for estimate in estimates if estimate.average_fps > 0]
    weighing = weights if sum(weights) else None
    play_w = float(np.average([span.total_w for span in games], weights=weighing)) if games else 0.0

    def kwh(level: str) -> float:
        play = eff.wall_w(level, use.mains_v, supply.watts, play_w)
        return eff.yearly_kwh(
            (play, use.play_hours),
            (eff.wall_w(level, use.mains_v, supply.watts, desk.total_w), use.desk_hours),
        )

    now, better = kwh(supply.efficiency), eff.better_level(supply.efficiency)
    cost = eff.cost_minor(now, use.tariff_per_kwh)
    saves = cost - eff.cost_minor(kwh(better), use.tariff_per_kwh) if better else 0
    return YearUse(now, cost, better, saves)


def _heat(machine: Machine) -> Heat:
    chip, case = machine.processor, machine.case
    cooler_w = chip.boxed_cooler_w or None if chip else None
    if machine.cooler:
        cooler_w = machine.cooler.capacity_w
    case_w = case_heat_w(case.airflow, machine.fans) if case else None
    return Heat(chip.sustained_w if chip else 0, cooler_w, draw(machine).full_w, case_w)

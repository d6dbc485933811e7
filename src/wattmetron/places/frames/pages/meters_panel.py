"""The four panel meters: money, frames, fit, power."""

from dataclasses import dataclass

from markupsafe import Markup

from wattmetron.core.compatibility.finding import LEVELS
from wattmetron.drawing.meter_drawing import meter
from wattmetron.places.assessment.assess import Assessment
from wattmetron.words.figures import THIN, money_range, round_money


@dataclass(frozen=True, slots=True, kw_only=True)
class MeterView:
    """One meter: name, value, ghost difference, chart or words, the line below."""

    key: str
    name: str
    value: str
    change: str
    chart: Markup | None
    left: str
    right: str
    alarm: bool
    words: tuple[tuple[str, bool], ...] = ()

    @property
    def label(self) -> str:
        """What it is called by those who listen: all that is read there, as it stands."""
        below = [word for word, _ in self.words] or [self.left, self.right]
        shown = filter(None, (self.name, self.change, self.value, *below))
        return f"{' '.join(shown)}; show the working"


def meters(now: Assessment, ghost: Assessment | None, at_once: str) -> tuple[MeterView, ...]:
    """All four, with ghosts where another build or brief is compared with; ``at_once`` says how
    likely all targets are met together.
    """
    return _money(now, ghost), _frames(now, ghost, at_once), _fit(now, ghost), _power(now, ghost)


def _signed(value: float, unit: str, digits: int = 0) -> str:
    if abs(value) < 0.5 * 10**-digits:
        return ""
    return f"{'+' if value > 0 else '−'}{abs(value):,.{digits}f}{THIN}{unit}"


def _money(now: Assessment, ghost: Assessment | None) -> MeterView:
    brief, spent, left = now.brief, now.spent_minor, now.left_minor
    same_money = ghost is not None and ghost.currency == now.currency
    before = ghost.spent_minor if ghost is not None and same_money else None
    most = max(brief.budget_high_minor * 1.25, spent * 1.05, (before or 0) * 1.05, 1)
    budget = f"budget {money_range(brief.budget_low_minor, brief.budget_high_minor, now.currency)}"
    over = left < 0
    words = (
        f"{round_money(-left, now.currency)} over"
        if over
        else f"{round_money(left, now.currency)} left"
    )
    change = ""
    if before is not None and before != spent:
        change = f"{'+' if spent > before else '−'}{round_money(abs(spent - before), now.currency)}"
    chart = meter(
        spent,
        most,
        f"Money: {round_money(spent, now.currency)} of {budget}, {words}",
        before,
        band=(brief.budget_low_minor, brief.budget_high_minor),
        limit=brief.budget_high_minor,
    )
    return MeterView(
        key="money",
        name="Money",
        value=round_money(spent, now.currency),
        change=change,
        chart=chart,
        left=budget,
        right=words,
        alarm=over,
    )


def _share(now: Assessment) -> float | None:
    worst = now.worst
    return None if worst is None else 100 * worst.judged_fps / worst.target.fps


def _frames(now: Assessment, ghost: Assessment | None, at_once: str) -> MeterView:
    worst, share = now.worst, _share(now)
    before = _share(ghost) if ghost is not None else None
    if worst is None or share is None:
        say = (
            "no targets yet" if not now.brief.counted_targets else "needs a processor and graphics"
        )
        return MeterView(
            key="frames",
            name="Frames",
            value="–",
            change="",
            chart=meter(None, 150, f"Frames: {say}", before),
            left=say,
            right="",
            alarm=False,
        )
    interval = (
        100 * worst.judged_low_fps / worst.target.fps,
        100 * worst.judged_high_fps / worst.target.fps,
    )
    met = f"{now.met} of {len(now.counted)} met"
    change = _signed(share - before, "%") if before is not None else ""
    chart = meter(
        share,
        150,
        f"Frames: worst target {worst.game.name} at {share:.0f} % of its frame rate; {met}",
        before,
        limit=100,
        interval=interval if worst.average_fps else None,
    )
    value = f"{share:.0f}{THIN}%"
    return MeterView(
        key="frames",
        name=f"Frames, {at_once}" if at_once else "Frames",
        value=value,
        change=change,
        chart=chart,
        left=f"worst: {worst.game.name}",
        right=met,
        alarm=worst.state == "short",
    )


def _fit(now: Assessment, ghost: Assessment | None) -> MeterView:
    counts = [(level, sum(finding.level == level for finding in now.findings)) for level in LEVELS]
    words = [(f"{count} {level}", level == "blocks") for level, count in counts if count]
    words += [(f"{len(now.floors)} below the brief", True)] if now.floors else []
    words += [(f"{len(now.aside)} set aside", False)] if now.aside else []
    if now.missing:
        value = f"{len(now.missing)} missing"
    elif now.blocking:
        value = "does not fit"
    else:
        value = "fits"
    if not words:
        words = [("no findings", False)]
    change = ""
    if ghost is not None and ghost.blocking != now.blocking:
        change = _signed(now.blocking - ghost.blocking, "blocks")
    return MeterView(
        key="fit",
        name="Fit",
        value=value,
        change=change,
        chart=None,
        left="",
        right="",
        alarm=bool(now.blocking),
        words=tuple(words),
    )


def _power(now: Assessment, ghost: Assessment | None) -> MeterView:
    drawn, supply = now.draw, now.machine.supply
    begun = now.machine.processor is not None
    most = max(
        drawn.spike_w * 1.15, (supply.watts if supply else 0) * 1.1, now.needed_w * 1.1, 100.0
    )
    main = drawn.gaming_w if drawn.gaming_w is not None else float(drawn.full_w)
    value = f"{main:,.0f}{THIN}W" if begun else "–"
    before = None
    if ghost is not None and ghost.draw.gaming_w is not None and drawn.gaming_w is not None:
        before = ghost.draw.gaming_w
    right = f"supply {supply.watts:,}{THIN}W" if supply else ""
    if begun and not supply:
        right = f"needs {now.needed_w:,}{THIN}W"
    chart = meter(
        main if begun else None,
        most,
        f"Power: gaming {main:.0f} W, full {drawn.full_w} W, spike {drawn.spike_w} W; {right}",
        before,
        marks=(drawn.full_w, drawn.spike_w) if begun else (),
        limit=supply.watts if supply else None,
    )
    left = f"full {drawn.full_w:,}, spike {drawn.spike_w:,}{THIN}W" if begun else "nothing yet"
    alarm = bool(supply and (supply.watts < now.needed_w or supply.spike_w < drawn.spike_w))
    change = _signed(main - before, "W") if before is not None else ""
    return MeterView(
        key="power",
        name="Power",
        value=value,
        change=change,
        chart=chart,
        left=left,
        right=right,
        alarm=alarm,
    )

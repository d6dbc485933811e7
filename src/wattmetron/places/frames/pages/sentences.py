"""Figures as sentences that can be copied: with their date and their uncertainty."""

from wattmetron.core.frames.estimate import Estimate
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.words import counted, listed
from wattmetron.places.assessment.assess import Assessment
from wattmetron.words.figures import THIN, money, percent, settings, shown_words


def frames_sentence(now: Assessment, estimate: Estimate, dated: str) -> str:
    """One target: rate, interval, chance, limit, and on which parts."""
    who = f"{estimate.game.name} at {settings(estimate.target)} on {_sides(now.machine)}"
    measure = "1 % low" if estimate.target.measure == "low" else "average"
    if not estimate.average_fps:
        return f"{who} cannot be estimated: {estimate.cannot}."
    return (
        f"{who}: {estimate.judged_fps:.0f}{THIN}fps{shown_words(estimate)} on"
        f" {'the ' if measure == '1 % low' else ''}{measure}, 80 % interval"
        f" {estimate.judged_low_fps:.0f}–{estimate.judged_high_fps:.0f}{THIN}fps; chance of"
        f" {estimate.target.fps:g}{THIN}fps {percent(estimate.chance)}; limited by the processor in"
        f" {percent(estimate.processor_share)} of frames. Estimated, not measured; {dated}."
    )


def _sides(machine: Machine) -> str:
    drawing = machine.graphics.name if machine.graphics else "its integrated graphics"
    return f"{machine.processor.name} with {drawing}" if machine.processor else drawing


def money_sentence(now: Assessment, dated: str) -> str:
    """What the build costs against the budget."""
    left, currency = now.left_minor, now.currency
    against = (
        f"{money(abs(left), currency)} {'left of' if left >= 0 else 'over'}"
        f" {money(now.brief.budget_high_minor, currency)}"
    )
    unpriced = len(now.unpriced)
    gap = f", without {counted(unpriced, 'part')} not on sale today" if unpriced else ""
    return (
        f"{now.brief.name}: {money(now.spent_minor, currency)} delivered{gap}, {against}; {dated}."
    )


def power_sentence(now: Assessment, dated: str) -> str:
    """What the build draws, and which supply it needs."""
    drawn = now.draw
    gaming = (
        "" if drawn.gaming_w is None else f"{drawn.gaming_w:.0f}{THIN}W in the heaviest target, "
    )
    return (
        f"{now.brief.name}: {gaming}{drawn.full_w}{THIN}W in full, spikes to"
        f" {drawn.spike_w}{THIN}W; a supply of {now.needed_w}{THIN}W is needed. Estimated from the"
        f" parts' figures; {dated}."
    )


def fit_sentence(now: Assessment, dated: str) -> str:
    """Whether the parts go together."""
    grave = [finding.sentence for finding in now.findings if finding.level == "blocks"]
    if grave:
        return f"{now.brief.name} does not fit: {' '.join(grave)} Checked with the {dated}."
    missing = (
        f"{listed([str(kind) for kind in now.missing])} missing so far; " if now.missing else ""
    )
    return f"{now.brief.name}: {missing}nothing blocks; {dated}."

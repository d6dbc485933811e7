"""What a handout says, section by section, without any form."""

from dataclasses import dataclass, replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.assembly_steps import assembly
from wattmetron.core.compatibility.cables import cables
from wattmetron.core.compatibility.first_start import first_start
from wattmetron.core.frames.estimate import Estimate
from wattmetron.core.values.handout import SECTIONS
from wattmetron.core.values.house import House
from wattmetron.core.values.part_kinds import KIND_NAMES, Kind
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.all_targets import together_words
from wattmetron.places.assessment.assess import Assessment, CostLine, assess
from wattmetron.places.compatibility.growth import Stronger, growth
from wattmetron.places.handout.alternatives import alternatives, upgrades
from wattmetron.places.handout.house_rules import Priced, priced
from wattmetron.places.handout.notes import computed_reasons, doubt
from wattmetron.words.figures import (
    THIN,
    money,
    money_range,
    percent,
    settings,
    shown_words,
)
from wattmetron.words.glossary import GLOSSARY
from wattmetron.words.offer_words import offer_marks

WORDS = ("tier", "target", "low", "preset", "upscaling", "headroom")
PLAIN_WORDS = (
    ("fps", "Frames per second: how many pictures a game shows each second."),
    ("limited by", "The side, processor or graphics, that the other one waits for."),
    ("80 % interval", "Four of five times the real figure lies within it."),
    ("video memory", "Memory of the graphics card; a game that lacks it stutters."),
    ("headroom", "What a supply has to spare beyond the highest draw."),
    ("delivered", "With tax and shipping, to the door."),
)


@dataclass(frozen=True, slots=True)
class Table:
    """Rows under heads; ``parts`` are the ids of the parts that the rows are about, or empty."""

    heads: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    parts: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Section:
    """A section: sentences, then a table, then items; ``stages`` are titled lists."""

    key: str
    title: str
    sentences: tuple[str, ...] = ()
    table: Table | None = None
    items: tuple[str, ...] = ()
    ordered: bool = False
    stages: tuple[tuple[str, tuple[str, ...]], ...] = ()

    @property
    def empty(self) -> bool:
        return not (self.sentences or self.table or self.items or self.stages)


@dataclass(frozen=True, slots=True, kw_only=True)
class Handout:
    """A whole handout: title, the builder's opening, date and region in words, the sum, sections
    that say something.
    """

    title: str
    opening: str
    dated: str
    region: str
    total: str
    met: str
    sections: tuple[Section, ...]

    def section(self, key: str) -> Section | None:
        return next((section for section in self.sections if section.key == key), None)


def handout(catalogue: Catalogue, plan: Plan, region: str = "") -> Handout:
    """The handout of a plan; another region prices it anew. Raises BriefError for one that the
    catalogue lacks.
    """
    return catalogue.ask(_handout, plan, region)


def _handout(catalogue: Catalogue, plan: Plan, region: str) -> Handout:
    brief = replace(plan.brief, region=region) if region else plan.brief
    now = assess(catalogue, brief, plan.build)
    choice = plan.handout
    writer = _Writer(catalogue, now, plan)
    sections = (writer.section(key) for key in choice.shown if key in SECTIONS)
    newest = catalogue.prices(brief.region, brief.may_buy).newest
    counted = len(now.counted)
    return Handout(
        title=brief.name,
        opening=choice.opening,
        dated=f"Prices seen up to {newest:%-d %B %Y}" if newest else "Prices unknown",
        region=catalogue.region(brief.region).name,
        total=money(now.spent_minor, now.currency),
        met=f"{now.met} of {counted} targets met" if counted else "",
        sections=tuple(section for section in sections if not section.empty),
    )


class _Writer:
    """Writes the sections of one machine."""

    def __init__(self, catalogue: Catalogue, now: Assessment, plan: Plan) -> None:
        self._catalogue, self._now = catalogue, now
        self._choice, self._house = plan.handout, plan.house or House()

    def section(self, key: str) -> Section:
        made: Section = getattr(self, f"_{'house_rules' if key == 'house' else key}")()
        return made

    def _brief(self) -> Section:
        now, brief = self._now, self._now.brief
        display = brief.display
        games = self._catalogue.games
        wants = [
            f"{games[target.game_id].name} at {settings(target)}: {target.fps:g}{THIN}fps"
            for target in brief.targets
            if target.game_id in games
        ]
        return Section(
            key="brief",
            title=SECTIONS["brief"],
            sentences=(
                f"Budget {budget_words(now)};"
                f" a display of {display.width_px}x{display.height_px} at"
                f" {display.refresh_hz:g}{THIN}Hz.",
            ),
            items=tuple(wants),
        )

    def _parts(self) -> Section:
        now = self._now
        why = computed_reasons(self._catalogue, now)
        rows, ids = [], []
        for line in now.lines:
            name = line.part.name if line.part else line.part_id
            reason = why.get((line.kind, name), "")
            note = self._noted(line, reason)
            rows.append(
                (
                    KIND_NAMES[line.kind],
                    name,
                    line.offer.shop if line.offer and not line.owned else "",
                    price_words(line, now.currency),
                    f"{line.offer.seen_on:%-d %b %Y}" if line.offer and not line.owned else "",
                    " ".join(filter(None, [note, reason])),
                )
            )
            ids.append(line.part_id)
        missing = [KIND_NAMES[kind] for kind in now.missing]
        sentences = [f"Delivered in all: {money(now.spent_minor, now.currency)}.", *_at_risk(now)]
        if not rows:
            sentences = ["No part is chosen yet."]
        if missing:
            sentences.append(f"Still missing: {listed(missing)}.")
        heads = ("", "part", "shop", "price", "seen", "why")
        table = Table(heads, tuple(rows), tuple(ids)) if rows else None
        return Section(
            key="parts", title=SECTIONS["parts"], sentences=tuple(sentences), table=table
        )

    def _noted(self, line: CostLine, reason: str) -> str:
        """The builder's own reason, with what no longer holds of it."""
        note = self._choice.note_on(line.part_id)
        if note is None:
            return ""
        open_question = doubt(note, line, reason, self._now.currency)
        return f"{note.text} ({open_question})" if open_question else note.text

    def _frames(self) -> Section:
        rows = tuple(
            frames_row(estimate)
            for estimate in self._now.estimates
            if estimate is not None and estimate.average_fps
        )
        heads = ("game", "settings", "wanted", "expected", "chance", "limited by")
        sentences = tuple(filter(None, [together_words(self._catalogue, self._now)]))
        return Section(
            key="frames",
            title=SECTIONS["frames"],
            sentences=sentences if rows else (),
            table=Table(heads, rows) if rows else None,
        )

    def _findings(self) -> Section:
        now = self._now
        order = ("blocks", "do first", "wastes", "good to know")
        grave = sorted(now.findings, key=lambda finding: order.index(finding.level))
        items = tuple(
            f"{finding.level[:1].upper()}{finding.level[1:]}: {finding.sentence}"
            f" {finding.advice}".strip()
            for finding in grave
        )
        aside = tuple(f"Set aside: {finding.sentence} ({reason})" for finding, reason in now.aside)
        below = tuple(f"Below the brief: {floor}" for floor in now.floors)
        fits = () if grave or below else ("Everything fits, and there is nothing to do first.",)
        return Section(
            key="findings",
            title=SECTIONS["findings"],
            sentences=fits if now.build.processor else (),
            items=(*items, *below, *aside),
        )

    def _outside(self) -> Section:
        now = self._now
        items = [
            f"{line.part.name}: bought later, {money(line.price_minor, now.currency)} today."
            for line in now.lines
            if line.later and line.part
        ]
        items += [
            f"{line.part.name}: not in the budget."
            for line in now.lines
            if line.outside and line.part and not line.owned
        ]
        items += [
            f"{extra.name}: {money(extra.minor, now.currency)}, not in the budget."
            for extra in now.brief.extras
            if not extra.in_budget
        ]
        wanted: tuple[tuple[Kind, str], ...] = (
            ("system", "an operating system"),
            ("display", "a display"),
            ("input", "keyboard and mouse"),
        )
        lacking = [words for kind, words in wanted if not now.build.of(kind)]
        if lacking and now.build.processor:
            items.append(f"Not on this list: {listed(lacking)}.")
        return Section(key="outside", title=SECTIONS["outside"], items=tuple(items))

    def _beside(self) -> Section:
        now, house = self._now, self._house
        rows, items = [], []
        for peripherals in house.filled:
            if peripherals.name not in self._choice.grades:
                continue
            lines = priced(self._catalogue, now.brief, peripherals)
            for line in lines:
                price = "" if line.minor is None else money(line.minor, now.currency)
                rows.append((peripherals.name, line.words, price))
            items.append(_grade_sum(peripherals.name, lines, now.currency))
        table = Table(("set", "thing", "price"), tuple(rows)) if rows else None
        return Section(
            key="beside", title=SECTIONS["beside"], table=table, items=tuple(filter(None, items))
        )

    def _house_rules(self) -> Section:
        return Section(key="house", title=SECTIONS["house"], items=self._house.rules)

    def _alternatives(self) -> Section:
        items = alternatives(self._catalogue, self._now)
        return Section(key="alternatives", title=SECTIONS["alternatives"], items=items)

    def _later(self) -> Section:
        now = self._now
        if now.missing or now.machine.processor is None:
            return Section(key="later", title=SECTIONS["later"])
        growing = growth(self._catalogue, now)
        room = [
            _stronger(better, now.currency)
            for better in (growing.graphics, growing.processor)
            if better is not None
        ]
        way = upgrades(self._catalogue, now)
        return Section(
            key="later",
            title=SECTIONS["later"],
            sentences=tuple(filter(None, [" ".join(room), way.says])),
            items=way.steps,
            ordered=True,
        )

    def _assembly(self) -> Section:
        now = self._now
        if now.machine.mainboard is None:
            return Section(key="assembly", title=SECTIONS["assembly"])
        rows = tuple(
            (
                cable.name,
                str(cable.needed),
                "?" if cable.has is None else str(cable.has),
                cable.goes_to,
            )
            for cable in cables(now.machine)
        )
        return Section(
            key="assembly",
            title=SECTIONS["assembly"],
            stages=tuple(
                (stage.title, tuple(" ".join(filter(None, [s.words, s.why])) for s in stage.steps))
                for stage in assembly(now.machine, now.brief)
            ),
            table=Table(("cable", "needed", "at the supply", "goes to"), rows) if rows else None,
        )

    def _start(self) -> Section:
        steps = first_start(self._now.machine) if self._now.machine.mainboard else ()
        return Section(key="start", title=SECTIONS["start"], items=steps, ordered=True)

    def _sure(self) -> Section:
        now = self._now
        sentences = [
            "Frame rates are estimates from the speeds of the parts and the work of each game, not"
            " measurements; the interval says how well they are known.",
            "Prices change from day to day: look again before you buy.",
        ]
        stale = now.stale
        if stale:
            sentences.append(f"{stale} price{' is' if stale == 1 else 's are'} older than usual.")
        if now.unpriced:
            names = listed([line.part.name for line in now.unpriced if line.part])
            sentences.append(f"Not on sale today, so not in the sum: {names}.")
        return Section(key="sure", title=SECTIONS["sure"], sentences=tuple(sentences))

    def _words(self) -> Section:
        shown = (
            ("generated",) if any(target.generated for target in self._now.brief.targets) else ()
        )
        known = [GLOSSARY[key] for key in (*WORDS, *shown) if key in GLOSSARY]
        pairs = dict((*known, *PLAIN_WORDS))
        return Section(
            key="words",
            title=SECTIONS["words"],
            items=tuple(f"{word}: {meaning}" for word, meaning in sorted(pairs.items())),
        )


def _grade_sum(name: str, lines: tuple[Priced, ...], currency: str) -> str:
    """What a set of peripherals costs in all; empty where nothing of it has a price."""
    known = [line.minor for line in lines if line.minor is not None]
    if not known:
        return ""
    rest = len(lines) - len(known)
    without = f", {rest} without a price" if rest else ""
    return f"{name}: {money(sum(known), currency)} in all{without}."


def budget_words(now: Assessment) -> str:
    """The budget of a brief, or its range."""
    return money_range(now.brief.budget_low_minor, now.brief.budget_high_minor, now.currency)


def price_words(line: CostLine, currency: str) -> str:
    """What a part costs, or why nothing."""
    if line.owned:
        return "owned"
    if line.offer is None:
        return "not on sale"
    price = ", ".join((money(line.offer.cost_minor, currency), *offer_marks(line.offer)))
    return f"{price}, later" if line.later else price


def _at_risk(now: Assessment) -> tuple[str, ...]:
    if not now.risk_minor:
        return ()
    risk = money(now.risk_minor, now.currency)
    paid = money(now.spent_minor - now.risk_minor, now.currency)
    return (f"Of it {risk} are set aside for the risk of used parts: {paid} are paid.",)


def frames_row(estimate: Estimate) -> tuple[str, ...]:
    """Game, settings, rate wanted, rate expected, chance, the side that limits."""
    side = estimate.limit_words
    return (
        estimate.game.name,
        settings(estimate.target),
        f"{estimate.target.fps:g}{THIN}fps{' low' if estimate.target.measure == 'low' else ''}",
        f"{estimate.judged_fps:.0f}{THIN}fps{shown_words(estimate)}"
        f" ({estimate.judged_low_fps:.0f}–{estimate.judged_high_fps:.0f})",
        f"{estimate.state}, {percent(estimate.chance)}",
        "both alike" if side == "evenly matched" else side,
    )


def _stronger(stronger: Stronger, currency: str) -> str:
    name = KIND_NAMES[stronger.kind]
    faster = "" if stronger.faster is None else f", {stronger.faster * 100:.0f}{THIN}% faster"
    price = (
        ""
        if stronger.delivered_minor is None
        else f", today {money(stronger.delivered_minor, currency)}"
    )
    return (
        f"{name[:1].upper()}{name[1:]}: up to {stronger.part.name}{faster}{price}, with nothing"
        " else"
        f" replaced.{f' {stronger.first}' if stronger.first else ''}"
    )

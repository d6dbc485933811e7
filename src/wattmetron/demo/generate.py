"""Spell out the families into the catalogue folder and write the briefs: ``python -m
wattmetron.demo.generate``.
"""

import random
import re
from collections.abc import Callable
from datetime import date, timedelta
from decimal import Decimal
from types import ModuleType
from typing import Any

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.proposal import propose
from wattmetron.core.speeds.scaled_catalogue import speed_of
from wattmetron.core.speeds.speed_scale import Scale
from wattmetron.core.texts.requirements.requirements_reader import Reader
from wattmetron.core.values.brief import Brief, Display, Extra, Target
from wattmetron.core.values.build import Build
from wattmetron.core.values.charts import MEASURES, Chart, ChartRow
from wattmetron.core.values.offers import Offer, Region
from wattmetron.core.values.own_record import OwnRecord, with_records
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import (
    Case,
    Cooler,
    Graphics,
    Mainboard,
    Memory,
    Part,
    PowerSupply,
    Processor,
    Storage,
)
from wattmetron.core.values.published import Published
from wattmetron.core.values.references import Reference, read_reached
from wattmetron.demo import BRIEFS, CATALOGUE, TODAY, families, more_parts
from wattmetron.demo.demo_shops import SHOPS
from wattmetron.demo.details import detailed
from wattmetron.demo.families import (
    CHIP_DESIGNS,
    CHIPS,
    EARLIER_CHIPS,
    EARLIER_PROCESSORS,
    PARTNERS,
    PROCESSORS,
    SOCKETS,
    WITHDRAWN,
)
from wattmetron.demo.further_demo_parts import FURTHER
from wattmetron.demo.hidden import published_parts, results, true_games, world_of
from wattmetron.demo.lists import LISTS
from wattmetron.demo.simulated_charts import CHARTS, LOOSE_CHARTS
from wattmetron.demo.terms import KEYS, free, with_terms
from wattmetron.demo.truth import TrueGame, World
from wattmetron.demo.worklist import games, true_works
from wattmetron.formats.brief_file import brief_file, build_file
from wattmetron.formats.catalogue_folder import write_catalogue

REGIONS = {
    "vellmouth": Region(
        id="vellmouth",
        name="Vellmouth",
        currency="EUR",
        tax_percent=21.0,
        mains_v=230,
        tariff_per_kwh=Decimal("0.32"),
    ),
    "overwater": Region(
        id="overwater",
        name="Overwater",
        currency="NOK",
        tax_percent=25.0,
        mains_v=230,
        tariff_per_kwh=Decimal("1.45"),
    ),
}
NOK_PER_EUR = 11.6
BOXED_MEASURED_FROM = 2020
SYSTEMS = ("Tidewater", "Stillwater")
GENERATIONS = ("Neap", "Ebb", "Flood", "Moss", "Dun", "Slate")


def slug(*words: str) -> str:
    return re.sub(r"[^a-z0-9]+", "-", " ".join(words).lower()).strip("-")


def split(text: str) -> tuple[str, ...]:
    return tuple(filter(None, text.split(";")))


def boxed_cooler(carries_w: int | None, released: date) -> dict[str, Any]:
    """Height and noise of a boxed cooler; of older ones nobody wrote the height down."""
    if carries_w is None:
        return {}
    height = None if released.year < BOXED_MEASURED_FROM else 30 + round(carries_w * 0.45)
    return {"boxed_height_mm": height, "boxed_noise_dba": 34.0 + carries_w // 20}


def processors(rows: list[tuple[Any, ...]]) -> list[tuple[Part, float]]:
    processors: list[tuple[Part, float]] = []
    for (
        maker,
        model,
        socket,
        cores,
        threads,
        s,
        t,
        igpu,
        watts,
        gaming,
        boxed,
        eur,
        released,
        *ended,
    ) in rows:
        kind, mts, cl, most_mts, most_gb, gen, lanes = SOCKETS[socket]
        part = Processor(
            id=slug(maker, model),
            maker=maker,
            model=model,
            socket=socket,
            cores=cores,
            threads=threads,
            single_speed=float(s),
            all_core_speed=float(t),
            speed_sd=0.03 if released.year >= 2024 else 0.02,
            memory_type=kind,
            memory_mts=mts,
            memory_cl=cl,
            memory_channels=2,
            memory_max_mts=most_mts,
            memory_max_gb=float(most_gb),
            card_pcie_gen=gen,
            card_pcie_lanes=lanes,
            sustained_w=watts,
            gaming_w=gaming,
            igpu_speed=float(igpu or 0),
            igpu_upscalers=("Spyglass",) if igpu and igpu > 15 else (),
            boxed_cooler_w=boxed or 0,
            **boxed_cooler(boxed, released),
            released=released,
            withdrawn=ended[0] if ended else WITHDRAWN.get(model),
            igpu_apis=apis(released) if igpu else (),
            design=f"{maker} {next(word for word in GENERATIONS if word in model)}",
            notes=(
                "Made for rendering and compiling; many slow cores." if "Foundry" in model else ""
            ),
        )
        processors.append((part, eur))
    return processors


def _chip_design(released_year: int) -> str:
    return next(word for year, word in reversed(CHIP_DESIGNS) if released_year >= year)


def generators(upscalers: tuple[str, ...], released: date) -> tuple[str, ...]:
    """The made-up frame generators that a card can run: one of any newer card, one of its maker."""
    own = ("Interswell",) if "Driftlens" in upscalers and released.year >= 2025 else ()
    return (*(("Halfwake",) if upscalers and released.year >= 2023 else ()), *own)


def apis(released: date) -> tuple[str, ...]:
    """The made-up graphics API at the level of the day."""
    return ("Fairlead 11",) if released.year < 2018 else ("Fairlead 11", "Fairlead 12")


def cards(
    rows: list[tuple[Any, ...]], partners: list[tuple[Any, ...]] = PARTNERS
) -> list[tuple[Part, float]]:
    cards: list[tuple[Part, float]] = []
    for (
        maker,
        chip,
        gb,
        r1,
        r2,
        r3,
        q,
        watts,
        spike,
        p8,
        p16,
        gen,
        lanes,
        upscalers,
        eur,
        released,
        *ended,
    ) in rows:
        for partner, trim, price, clock, base_mm, per_w, from_w in partners:
            if watts < from_w or (trim == "Short" and watts > 260):
                continue
            part = Graphics(
                id=slug(partner, chip, str(gb), trim),
                maker=partner,
                model=f"{maker} {chip} {gb} GB {trim}",
                chip=f"{maker} {chip}",
                speed_1080p=round(r1 * clock, 1),
                speed_1440p=round(r2 * clock, 1),
                speed_2160p=round(r3 * clock, 1),
                speed_sd=0.03,
                ray_speed=round((q or 0) * clock, 1),
                ray_speed_sd=0.05,
                memory_gb=float(gb),
                pcie_gen=gen,
                pcie_lanes=lanes,
                board_power_w=round(watts * (1.06 if trim == "Triple" else 1.0)),
                spike_factor=spike,
                length_mm=round(base_mm + per_w * watts),
                pcie_8pin=p8,
                pcie_16pin=p16,
                outputs=("DisplayPort", "HDMI"),
                upscalers=split(upscalers),
                generators=generators(split(upscalers), released),
                released=released,
                withdrawn=ended[0] if ended else WITHDRAWN.get(f"{maker} {chip}"),
                apis=apis(released),
                design=f"{maker} {_chip_design(released.year)}",
            )
            cards.append((part, eur * price))
    return cards


def others(series: ModuleType) -> list[tuple[Part, float]]:
    """Boards, kits, drives, coolers, supplies and cases of a module's tables."""
    others: list[tuple[Part, float]] = []
    for (
        maker,
        model,
        socket,
        chipset,
        form,
        kind,
        slots,
        gb,
        mts,
        gen,
        m2,
        sata,
        eps,
        outputs,
        eur,
    ) in series.BOARDS:
        board = Mainboard(
            id=slug(maker, model),
            maker=maker,
            model=model,
            socket=socket,
            chipset=chipset,
            form_factor=form,
            memory_type=kind,
            memory_slots=slots,
            memory_max_gb=float(gb),
            memory_max_mts=mts,
            card_pcie_gen=gen,
            card_pcie_lanes=16,
            m2_slots=m2,
            sata_ports=sata,
            cpu_8pin=eps,
            outputs=split(outputs),
        )
        others.append((board, eur))
    others += kits(series.KITS)
    for maker, model, interface, capacity, speed, eur in series.DRIVES:
        drive = Storage(
            id=slug(maker, model),
            maker=maker,
            model=model,
            interface=interface,
            capacity_gb=capacity,
            read_mbs=speed,
        )
        others.append((drive, eur))
    for maker, model, sockets, height, watts, noise, eur in series.COOLERS:
        cooler = Cooler(
            id=slug(maker, model),
            maker=maker,
            model=model,
            sockets=split(sockets),
            height_mm=height,
            capacity_w=watts,
            noise_dba=noise,
        )
        others.append((cooler, eur))
    for maker, model, watts, spike, form, eps, p8, p16, level, eur in series.SUPPLIES:
        supply = PowerSupply(
            id=slug(maker, model),
            maker=maker,
            model=model,
            watts=watts,
            spike_w=spike,
            form=form,
            cpu_8pin=eps,
            pcie_8pin=p8,
            pcie_16pin=p16,
            efficiency=level,
            notes="No test result and no protections named." if "Bargain" in model else "",
        )
        others.append((supply, eur))
    for maker, model, boards, supplies, card, cooler_mm, fans, litres, airflow, eur in series.CASES:
        case = Case(
            id=slug(maker, model),
            maker=maker,
            model=model,
            board_forms=split(boards),
            supply_forms=split(supplies),
            card_length_mm=card,
            cooler_height_mm=cooler_mm,
            fans_included=fans,
            volume_l=float(litres),
            airflow=airflow,
        )
        others.append((case, eur))
    return others


def kits(rows: list[tuple[Any, ...]]) -> list[tuple[Part, float]]:
    kits: list[tuple[Part, float]] = []
    for maker, model, kind, mts, cl, sticks, gb, ranks, eur in rows:
        kit = Memory(
            id=slug(maker, model, kind),
            maker=maker,
            model=f"{model} {kind}",
            memory_type=kind,
            mts=mts,
            cl=cl,
            sticks=sticks,
            stick_gb=float(gb),
            ranks=ranks,
        )
        kits.append((kit, eur))
    return kits


def liquid_coolers() -> list[tuple[Part, float]]:
    return [
        (
            Cooler(
                id=slug(maker, model),
                maker=maker,
                model=model,
                sockets=split(sockets),
                height_mm=pump,
                capacity_w=watts,
                noise_dba=noise,
                radiator_mm=radiator,
            ),
            eur,
        )
        for maker, model, sockets, pump, watts, noise, eur, radiator in more_parts.LIQUID_COOLERS
    ]


class MadeUpMarket:
    """Shops that ask a little more or less, run out, and sell old parts used."""

    def __init__(self, seed: int = 20261120, offers: list[Offer] | None = None) -> None:
        self.random = random.Random(seed)
        self.offers: list[Offer] = [] if offers is None else offers

    def stock(self, part: Part, eur: float) -> None:
        draw = self.random
        for shop, level in (
            ("Quayside Parts", 1.0),
            ("Three Gulls Computing", 1.02),
            ("Northlight Direct", 0.985),
        ):
            if draw.random() < 0.86:
                self._offer(
                    part,
                    shop,
                    "vellmouth",
                    eur * level * draw.uniform(0.97, 1.05),
                    draw.random() > 0.09,
                )
        if not any(offer.part_id == part.id for offer in self.offers):
            self._offer(part, "Quayside Parts", "vellmouth", eur, True)
        if draw.random() < 0.82:
            self._offer(
                part,
                "Overwater Elektro",
                "overwater",
                eur * draw.uniform(1.0, 1.1),
                draw.random() > 0.12,
            )
        if draw.random() < 0.5:
            self._offer(
                part,
                "Northlight Direct",
                "overwater",
                eur * draw.uniform(0.98, 1.12),
                draw.random() > 0.1,
            )
        if part.released and part.released.year <= 2023 and draw.random() < 0.7:
            self._offer(
                part,
                "The Second Bench",
                "vellmouth",
                eur * draw.uniform(0.5, 0.68),
                True,
                used=True,
            )

    def remnants(self, part: Part, eur: float) -> None:
        """Used, and now and then a last new one."""
        self._offer(
            part,
            "The Second Bench",
            "vellmouth",
            eur * self.random.uniform(0.9, 1.1),
            True,
            used=True,
        )
        if self.random.random() < 0.3:
            self._offer(
                part, "Three Gulls Computing", "vellmouth", eur * 1.7, self.random.random() < 0.6
            )

    def _offer(
        self, part: Part, shop: str, region: str, eur: float, in_stock: bool, used: bool = False
    ) -> None:
        if not eur:
            self.offers.append(free(part, shop, region))
            return
        abroad = region == "overwater"
        price = round(eur * NOK_PER_EUR / 10) * 10 - 1 if abroad else round(eur) - 0.1
        if eur > 250:
            shipping = 0.0
        elif abroad:
            shipping = 79.0
        else:
            shipping = 4.9
        days = self.random.choice((0, 0, 1, 1, 2, 3, 5)) if self.random.random() > 0.06 else 24
        self.offers.append(
            Offer(
                part_id=part.id,
                shop=shop,
                region=region,
                currency=REGIONS[region].currency,
                price_minor=round(price * 100),
                shipping_minor=round(shipping * 100),
                stock="in" if in_stock else "out",
                condition="used" if used else "new",
                seen_on=TODAY - timedelta(days=days),
            )
        )
        self.offers[-1] = with_terms(part, self.offers[-1])


def catalogue() -> Catalogue:
    """The demo's catalogue, as the world publishes it."""
    return made()[0]


def made() -> tuple[Catalogue, World, dict[str, TrueGame]]:
    """The whole made-up world."""
    market, bench = MadeUpMarket(), MadeUpMarket(20261121)
    parts: dict[str, Part] = {}

    def shelve(made: list[tuple[Part, float]], stock: Callable[[Part, float], None]) -> None:
        for part, eur in made:
            assert part.id not in parts, part.id
            parts[part.id] = part
            stock(part, eur)

    shelve([*processors(PROCESSORS), *cards(CHIPS), *others(families)], market.stock)
    shelve([*processors(EARLIER_PROCESSORS), *cards(EARLIER_CHIPS)], bench.remnants)
    shelve(
        [*cards(CHIPS, more_parts.PARTNERS), *others(more_parts), *liquid_coolers()],
        MadeUpMarket(20261123, market.offers).stock,
    )
    shelve(kits(more_parts.ODD_KITS), MadeUpMarket(20261124, market.offers).stock)
    shelve(FURTHER, MadeUpMarket(20261125, market.offers).stock)
    market.offers += KEYS
    described = {game.id: game for game in games()}
    offers = (*market.offers, *bench.offers)
    shown = {key: detailed(part) for key, part in published_parts(parts).items()}
    world = world_of(parts, shown)
    hidden = true_games(world, {game.id: game for game in true_works()})
    measured = results(world, hidden)
    own = {record.key: record for record in OWN}
    shown_catalogue = Catalogue(
        parts=with_records(shown, own),
        own=own,
        references={own.id: own for own in REFERENCES},
        shops={own.key: own for own in SHOPS},
        games=described,
        offers=offers,
        regions=REGIONS,
        published=published(shown),
        charts=charts(parts),
        results=measured,
    )
    return shown_catalogue, world, hidden


def charts(parts: dict[str, Part]) -> dict[str, Chart]:
    """What sources of the made-up world measured, around the true speeds."""
    draw = random.Random(20261122)
    scale = Scale(parts.values(), {})
    truths: dict[tuple[str, str], float] = {
        (key, measure): charts[0]
        for key, standing in scale.standings.items()
        for measure in MEASURES
        if (charts := speed_of(standing, measure)) is not None
    }
    made: dict[str, Chart] = {}
    for key, name, measure, unit, factor, noise, day, slip, named in CHARTS:
        rows = [
            ChartRow(
                text=scale.standings[text].name.replace("\u00a0", " "),
                part=text,
                value=round(
                    truths[text, measure]
                    * factor
                    * draw.gauss(1, noise)
                    * (1.22 if text == slip else 1),
                    1,
                ),
            )
            for text in named
        ]
        made[key] = Chart(
            id=key, name=name, measure=measure, unit=unit, published_on=day, rows=tuple(rows)
        )
    for key, name, measure, day, pairs in LOOSE_CHARTS:
        rows = [
            ChartRow(text=text, part=slug("named", "graphics", text), value=value)
            for text, value in pairs
        ]
        made[key] = Chart(id=key, name=name, measure=measure, published_on=day, rows=tuple(rows))
    return made


def published(parts: dict[str, Part]) -> dict[str, Published]:
    """What the games publish, read from the texts as a user would read them."""
    reader = Reader(Scale(parts.values(), {}), SYSTEMS, ("Fairlead",), ("Spyglass", "Driftlens"))
    return {
        game: Published(
            game=game, tiers=reader.read(text).tiers, text=text, source=source, published_on=day
        )
        for game, (day, source, text) in LISTS.items()
    }


def wanted(
    size: tuple[int, int], *rows: tuple[str, str, float, dict[str, object]]
) -> tuple[Target, ...]:
    return tuple(
        Target(
            id=f"t{n}",
            game_id=game,
            width_px=size[0],
            height_px=size[1],
            preset=preset,
            fps=fps,
            **more,
        )
        for n, (game, preset, fps, more) in enumerate(rows, start=1)
    )


OWNED = (
    "quillon-cutter-ebb-6",
    "pellworth-holm-8-plain",
    "pellworth-groyne-micro-bollard",
    "bramblebyte-plain-16-single-ddr4",
    "stonepier-slate-480",
    "lowhum-even-550",
    "boxwood-yard-crate",
)


def owned_build(world: Catalogue, owned: tuple[str, ...]) -> Build:
    build = Build()
    for part_id in owned:
        build = build.with_part(kind_of(world.parts[part_id]), part_id)
    return build


def briefs(world: Catalogue) -> dict[str, tuple[Brief, Build]]:
    """The briefs that ship with the demo, each with the build it starts from."""
    net_loft = Brief(
        name="Net loft all-rounder",
        region="vellmouth",
        budget_low_minor=105000,
        budget_high_minor=125000,
        display=Display(width_px=2560, height_px=1440, refresh_hz=144.0, variable_from_hz=48.0),
        targets=wanted(
            (2560, 1440),
            ("hollow-meridian", "high", 70.0, {"weight": 3}),
            ("ashfall-wardens", "high", 90.0, {"weight": 2}),
            ("vantage-null", "high", 60.0, {"weight": 2, "upscaling": True, "ray_tracing": True}),
            ("gullwing-circuit", "ultra", 90.0, {"weight": 2}),
            ("thousand-towers", "high", 60.0, {"weight": 1}),
            ("lanternfolk", "ultra", 100.0, {"weight": 1}),
        ),
        storage_gb=1000.0,
        system="Tidewater 11",
        notes="One room, one machine: open worlds in the evening, light games in between.",
    )
    hall = Brief(
        name="Harbour hall, seat row",
        region="vellmouth",
        budget_low_minor=80000,
        budget_high_minor=95000,
        display=Display(width_px=1920, height_px=1080, refresh_hz=240.0),
        targets=wanted(
            (1920, 1080),
            ("causeway-clash", "medium", 240.0, {"weight": 3}),
            ("kiteball-arena", "high", 240.0, {"weight": 2}),
            ("ashfall-wardens", "medium", 100.0, {"weight": 1}),
            ("causeway-clash", "low", 165.0, {"weight": 2, "measure": "low"}),
        ),
        seats=6,
        storage_gb=500.0,
        part_cap_minor=45000,
        notes="The budget pays for six alike. No single part above EUR 450.",
    )
    bunk = Brief(
        name="Ferry bunk",
        region="vellmouth",
        budget_low_minor=50000,
        budget_high_minor=70000,
        display=Display(width_px=1920, height_px=1080, refresh_hz=60.0),
        targets=wanted(
            (1920, 1080),
            ("lanternfolk", "high", 60.0, {"weight": 3}),
            ("kiteball-arena", "low", 60.0, {"weight": 2}),
            ("causeway-clash", "low", 60.0, {"weight": 1, "upscaling": True}),
            ("tin-harbour", "low", 40.0, {"weight": 1}),
        ),
        storage_gb=500.0,
        extras=(Extra(name="Operating system", minor=0, in_budget=True),),
        watt_limit_w=140,
        notes="A shelf of six litres and an inverter that gives 140 W; the case is there already.",
        owned=("lidd-frame-bunk",),
    )
    chart = Brief(
        name="Chart room",
        region="overwater",
        budget_low_minor=1300000,
        budget_high_minor=1700000,
        display=Display(width_px=2560, height_px=1440, refresh_hz=100.0, variable_from_hz=40.0),
        sureness="near certain",
        targets=wanted(
            (2560, 1440),
            ("thousand-towers", "high", 60.0, {"weight": 3}),
            ("tin-harbour", "high", 75.0, {"weight": 3, "measure": "low"}),
            ("deepwater-pilot", "medium", 45.0, {"weight": 2}),
            ("lanternfolk", "high", 90.0, {"weight": 1}),
        ),
        storage_gb=1000.0,
        memory_gb=32.0,
        extras=(Extra(name="Operating system", minor=149000, in_budget=True),),
        notes="The late game is what counts here.",
    )
    tower = Brief(
        name="Signal tower, sent-in list",
        region="vellmouth",
        budget_low_minor=110000,
        budget_high_minor=140000,
        display=Display(width_px=2560, height_px=1440, refresh_hz=165.0, variable_from_hz=48.0),
        targets=wanted(
            (2560, 1440),
            ("causeway-clash", "high", 165.0, {"weight": 2}),
            ("brinewalkers", "high", 75.0, {"weight": 2}),
            ("low-orbit-salvage", "high", 70.0, {"weight": 1}),
            ("deepwater-pilot", "medium", 50.0, {"weight": 1}),
        ),
        storage_gb=1000.0,
        system="Tidewater 10",
        notes="A list that somebody sent, put together for looks. Keep or change, and say why.",
    )
    lamp = Brief(
        name="Lamp room",
        region="vellmouth",
        budget_low_minor=150000,
        budget_high_minor=180000,
        display=Display(width_px=3440, height_px=1440, refresh_hz=144.0, variable_from_hz=48.0),
        targets=wanted(
            (3440, 1440),
            ("gullwing-circuit", "high", 100.0, {"weight": 3}),
            ("vantage-null", "high", 60.0, {"weight": 3, "upscaling": True, "ray_tracing": True}),
            ("hollow-meridian", "high", 70.0, {"weight": 1}),
            ("deepwater-pilot", "high", 60.0, {"weight": 1}),
        ),
        storage_gb=1000.0,
        trust_floor="plain or proven",
        wireless=True,
        system="Tidewater 11",
        notes="Beside the lamp it must stay quiet. No cable reaches the room.",
    )
    bench = Brief(
        name="Old bench machine",
        region="vellmouth",
        budget_low_minor=25000,
        budget_high_minor=45000,
        display=Display(width_px=1920, height_px=1080, refresh_hz=75.0),
        targets=wanted(
            (1920, 1080),
            ("ashfall-wardens", "medium", 70.0, {"weight": 2}),
            ("hollow-meridian", "medium", 60.0, {"weight": 2}),
            ("kiteball-arena", "high", 75.0, {"weight": 1}),
            ("lanternfolk", "high", 75.0, {"weight": 1}),
        ),
        storage_gb=480.0,
        allow_used=True,
        owned=OWNED,
        notes="The bench has a machine already: keep what is good, replace what limits.",
    )
    ship = Brief(
        name="Weather ship, all processor",
        region="vellmouth",
        budget_low_minor=115000,
        budget_high_minor=136000,
        display=Display(width_px=2560, height_px=1440, refresh_hz=120.0, variable_from_hz=48.0),
        targets=wanted(
            (2560, 1440),
            ("hollow-meridian", "high", 65.0, {"weight": 3}),
            ("gullwing-circuit", "high", 80.0, {"weight": 2}),
            ("ashfall-wardens", "high", 85.0, {"weight": 1}),
            ("brinewalkers", "high", 70.0, {"weight": 1}),
        ),
        storage_gb=1000.0,
        notes="Bought for the many cores; the games never see them.",
    )
    lopsided = Build(
        processor="quillon-barque-flood-12",
        graphics="pellworth-reef-8-plain",
        mainboard="saltgrove-mole-full-capstan",
        memory="bramblebyte-burdock-32-pair-ddr5",
        storage=("ledgerock-cairn-1000",),
        cooler="coldreach-trade-wind-twin",
        supply="ampherst-ballast-750",
        case="boxwood-yard-hold",
    )
    sent = Build(
        processor="marrowgate-heron-dun-6",
        graphics="kitefall-pharos-16-triple",
        mainboard="pellworth-wharf-full",
        memory="bramblebyte-plain-16-single-ddr4",
        storage=("ledgerock-ledge-500",),
        cooler="coldreach-gust",
        supply="lowhum-bargain-700",
        case="lidd-frame-porthole",
    )
    four_cores = Build(
        processor="quillon-wherry-flood-4",
        graphics="pellworth-bank-12-plain",
        mainboard="pellworth-groyne-micro-capstan",
        memory="bramblebyte-burdock-16-pair-ddr5",
        storage=("ledgerock-ledge-1000",),
        cooler="coldreach-draught",
        supply="lowhum-level-750",
        case="boxwood-yard-crate",
    )
    seat = propose(world, hall).build
    assert seat
    return {
        "net-loft": (net_loft, four_cores),
        "harbour-hall": (hall, seat),
        "ferry-bunk": (bunk, Build(case="lidd-frame-bunk")),
        "lamp-room": (lamp, Build()),
        "old-bench-machine": (bench, owned_build(world, OWNED)),
        "chart-room": (chart, Build()),
        "signal-tower": (tower, sent),
        "weather-ship": (ship, lopsided),
    }


OWN = (
    OwnRecord(
        of="part",
        name="ampherst-ballast-750",
        used=8,
        again=True,
        remarks="Quiet up to half load, cables long enough for every case so far.",
    ),
    OwnRecord(of="part", name="ledgerock-cairn-1000", used=11, failed=1, again=True),
)


REFERENCES = (
    Reference(
        id="lugger-deck",
        name="Lugger Deck",
        price_minor=549_00,
        currency="EUR",
        reached=(
            read_reached(
                "hollow-meridian", "1440p, dynamic resolution", "no counter: looks locked at 30"
            ),
            read_reached("ashfall-wardens", "1440p, dynamic resolution", "55 to 60"),
            read_reached("gullwing-circuit", "1440p", "locked at 60"),
            read_reached("lanternfolk", "2160p", "locked at 60"),
        ),
        includes="controller, system, one year of warranty",
        lacks="keyboard, mouse, other work; games cost more",
        source="Dry Dock Weekly",
        seen_on=date(2026, 11, 12),
    ),
    Reference(
        id="harbour-lights-ready",
        name="Harbour Lights Ready",
        price_minor=1199_00,
        currency="EUR",
        reached=(
            read_reached("hollow-meridian", "2560x1440, high", "52 to 58"),
            read_reached("gullwing-circuit", "2560x1440, ultra", "66"),
        ),
        includes="system installed, lights, two years of warranty",
        lacks="maker of board and supply not named, one stick of memory",
        source="Quayside Parts",
        seen_on=date(2026, 11, 18),
    ),
)


def main() -> None:
    world = catalogue()
    write_catalogue(world, CATALOGUE)
    BRIEFS.mkdir(exist_ok=True)
    for name, (brief, build) in briefs(world).items():
        (BRIEFS / f"{name}.brief.json").write_text(
            brief_file(brief).model_dump_json(indent=2) + "\n"
        )
        (BRIEFS / f"{name}.build.json").write_text(
            build_file(build).model_dump_json(indent=2) + "\n"
        )
    print(f"{len(world.parts)} parts, {len(world.offers)} offers, {len(world.games)} games")


if __name__ == "__main__":
    main()

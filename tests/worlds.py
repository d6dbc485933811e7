"""Random catalogues and briefs for tests and benchmarks, small or large, reproducible by seed."""

from dataclasses import replace
from datetime import date

import numpy as np

from wattmetron.cache.cache import Keeper
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.speeds.speed_scale import scale_of
from wattmetron.core.values.brief import Brief, Display, Target
from wattmetron.core.values.drives import Storage
from wattmetron.core.values.further_parts import (
    CaptureCard,
    Fan,
    FanSplitter,
    InputDevice,
    OperatingSystem,
    OpticalDrive,
    Screen,
    WirelessAdapter,
)
from wattmetron.core.values.games import Game, Preset, VideoMemoryNeed
from wattmetron.core.values.housing import Case, Cooler, PowerSupply
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.offers import Offer, Region
from wattmetron.core.values.parts import Graphics, Mainboard, Part, Processor
from wattmetron.core.values.published import Published, Tier
from wattmetron.core.values.results import Result, Results

DAY = date(2026, 11, 1)
FLOORS = (
    "solid_state",
    "games_start",
    "starts_as_bought",
    "heat_carried",
    "boxed_judged",
    "all_channels",
    "enough_threads",
    "display_driven",
)
REGION = Region(id="town", name="Town", currency="EUR", tax_percent=21.0, mains_v=230)


class World:
    """Draws parts whose prices follow what they can do, with good and bad deals among them."""

    def __init__(self, seed: int) -> None:
        self.rng = np.random.default_rng(seed)
        self.prices: dict[str, int] = {}
        self.designs = ("reef", "")
        self.sockets = ("Bollard", "Capstan")
        self.types = ("DDR4", "DDR5")

    def pick(self, *values):
        return values[int(self.rng.integers(len(values)))]

    def price(self, part: Part, about: float) -> Part:
        self.prices[part.id] = max(1, round(about * float(self.rng.lognormal(0, 0.15)))) * 100
        return part

    def processor(self, n: int) -> Processor:
        speed = float(self.rng.uniform(40, 160))
        cores = int(self.pick(4, 6, 8, 12))
        watts = int(self.rng.integers(40, 180))
        kind = self.pick(*self.types)
        part = Processor(
            id=f"processor-{n:04}",
            maker="Quillon",
            model=f"chip {n}",
            socket=self.pick(*self.sockets),
            cores=cores,
            threads=cores * 2,
            single_speed=round(speed, 1),
            all_core_speed=round(speed * cores / 8, 1),
            speed_sd=self.pick(0.02, 0.03, 0.05),
            memory_type=kind,
            memory_mts=3200 if kind == "DDR4" else 5600,
            memory_cl=16 if kind == "DDR4" else 36,
            memory_channels=2,
            memory_max_mts=self.pick(3600, 4000) if kind == "DDR4" else self.pick(6000, 6800),
            memory_max_gb=self.pick(64.0, 128.0),
            card_pcie_gen=self.pick(3, 4, 5),
            card_pcie_lanes=16,
            sustained_w=watts,
            gaming_w=round(watts * 0.6),
            igpu_speed=self.pick(None, round(float(self.rng.uniform(5, 25)), 1)),
            igpu_upscalers=self.pick((), ("Driftlens",)),
            boxed_cooler_w=self.pick(None, 65, 95),
            design=f"design {n % 2}",
            boxed_height_mm=(None, 45, 70, 110)[n % 4],
            boxed_noise_dba=(30.0, None, 40.0)[n % 3],
            igpu_apis=((), ("Lodestone 11",), ("Lodestone 12",))[n % 3],
            firmware_family=("Flood", "Ebb")[n % 2],
        )
        return self.price(part, 30 + speed**1.3 * 0.6)

    def card(self, n: int) -> Graphics:
        speed = float(self.rng.uniform(25, 220))
        watts = int(80 + speed * self.rng.uniform(0.8, 1.6))
        part = Graphics(
            id=f"graphics-{n:04}",
            maker="Pellworth",
            model=f"card {n}",
            chip=f"chip {n % 37}",
            speed_1080p=round(speed, 1),
            speed_1440p=round(speed * float(self.rng.uniform(0.9, 1.05)), 1),
            speed_2160p=self.pick(None, round(speed * float(self.rng.uniform(0.8, 1.05)), 1)),
            speed_sd=self.pick(0.03, 0.05),
            ray_speed=self.pick(None, round(speed * 0.9, 1)),
            ray_speed_sd=0.08,
            memory_gb=float(self.pick(4, 6, 8, 12, 16, 24)),
            pcie_gen=self.pick(3, 4, 5),
            pcie_lanes=self.pick(8, 16),
            board_power_w=watts,
            spike_factor=self.pick(1.2, 1.5, 1.9),
            length_mm=int(self.rng.integers(34, 72)) * 5,
            height_mm=self.pick(None, 112, 125, 140),
            thickness_mm=self.pick(None, 38, 48, 62),
            pcie_8pin=0 if watts > 260 else self.pick(1, 2),
            pcie_16pin=1 if watts > 260 else 0,
            adapter_8pin=0,
            compression=False,
            outputs=("DisplayPort", "HDMI"),
            upscalers=self.pick((), ("Driftlens",), ("Driftlens", "Spyglass")),
            generators=((), ("Halfwake",), ("Halfwake", "Interswell"))[n % 3],
            design=self.designs[n % 2],
            apis=(("Lodestone 12",), (), ("Lodestone 11",), ("Lodestone 12.2",))[n % 4],
        )
        return self.price(part, 40 + speed**1.15 * 1.2)

    def board(self, n: int) -> Mainboard:
        kind = self.pick(*self.types)
        form = self.pick("ATX", "ATX", "Micro-ATX", "Mini-ITX")
        part = Mainboard(
            id=f"mainboard-{n:04}",
            maker="Kitefall",
            model=f"board {n}",
            socket=self.pick(*self.sockets),
            chipset="Tern",
            form_factor=form,
            memory_type=kind,
            memory_slots=2 if form == "Mini-ITX" else self.pick(2, 4),
            memory_max_gb=self.pick(64.0, 128.0),
            memory_max_mts=(
                self.pick(3200, 3600, 4400) if kind == "DDR4" else self.pick(5600, 6400, 7200)
            ),
            card_pcie_gen=self.pick(3, 4, 5),
            card_pcie_lanes=self.pick(8, 16, 16),
            m2_slots=self.pick(0, 1, 2),
            sata_ports=self.pick(0, 2, 4),
            cpu_8pin=self.pick(1, 1, 2),
            outputs=self.pick((), ("HDMI",)),
            processor_w=self.pick(None, 95, 150, 250),
            m2_disables_sata=self.pick((), (2,), (0, 2)),
            registered=bool(self.pick(False, False, True)),
            firmware_needed=((), ("Flood=1.10",), ("Ebb=1.9", "Flood=1.2"))[n % 3],
            firmware_shipped=("1.10", "1.3", "")[n // 2 % 3],
            firmware_recovery=n % 5 == 2,
        )
        return self.price(part, 100)

    def kit(self, n: int) -> Memory:
        kind, sticks, gb = self.pick(*self.types), self.pick(1, 2, 2, 4), self.pick(4.0, 8.0, 16.0)
        part = Memory(
            id=f"memory-{n:04}",
            maker="Quickfen",
            model=f"kit {n}",
            memory_type=kind,
            mts=(
                self.pick(2666, 3200, 3600, 4000)
                if kind == "DDR4"
                else self.pick(4800, 5600, 6000, 7200)
            ),
            cl=self.pick(14, 16, 18) if kind == "DDR4" else self.pick(28, 32, 36, 40),
            sticks=sticks,
            stick_gb=gb,
            ranks=self.pick(1, 2),
            height_mm=self.pick(None, 31, 38, 44),
            registered=bool(self.pick(False, False, False, True)),
        )
        return self.price(part, 20 + 3 * sticks * gb)

    def drive(self, n: int) -> Storage:
        gb = self.pick(240, 480, 1000, 2000)
        part = Storage(
            id=f"storage-{n:04}",
            maker="Stonepier",
            model=f"drive {n}",
            interface=self.pick("M.2 NVMe", "SATA"),
            capacity_gb=gb,
            read_mbs=int(self.pick(500, 3500, 7000)),
            form=self.pick(None, None, "3.5 inch", "M.2"),
        )
        if part.size == "3.5 inch" and part.interface == "SATA":
            part = replace(part, read_mbs=180)
        return self.price(part, 15 + gb * 0.06)

    def cooler(self, n: int) -> Cooler:
        capacity = int(self.rng.integers(60, 220))
        part = Cooler(
            id=f"cooler-{n:04}",
            maker="Coldreach",
            model=f"cooler {n}",
            sockets=self.pick(("Bollard",), ("Capstan",), ("Bollard", "Capstan")),
            height_mm=int(self.rng.integers(8, 34)) * 5,
            capacity_w=capacity,
            noise_dba=(24.0, 30.0, None, 38.0)[n % 4],
            memory_clearance_mm=self.pick(None, 33, 40, 60),
            radiator_mm=self.pick(None, None, 120, 240, 280),
            radiator_thickness_mm=self.pick(52, 70),
        )
        return self.price(part, 10 + capacity * 0.25)

    def supply(self, n: int) -> PowerSupply:
        watts = int(self.rng.integers(7, 24)) * 50
        part = PowerSupply(
            id=f"supply-{n:04}",
            maker="Ampherst",
            model=f"supply {n}",
            watts=watts,
            spike_w=int(watts * self.rng.uniform(1.0, 1.6)) // 10 * 10,
            form=self.pick("ATX", "ATX", "SFX"),
            cpu_8pin=self.pick(1, 2),
            pcie_8pin=self.pick(1, 2, 4),
            pcie_16pin=self.pick(0, 1),
            efficiency="Gold",
            length_mm=self.pick(None, 125, 140, 160),
            warranty_years=self.pick(None, None, None, 0, 5),
        )
        return self.price(part, 25 + watts * 0.09)

    def case(self, n: int) -> Case:
        forms = self.pick(
            ("ATX", "Micro-ATX", "Mini-ITX"), ("Micro-ATX", "Mini-ITX"), ("Mini-ITX",), ("ATX",)
        )
        part = Case(
            id=f"case-{n:04}",
            maker="Boxwood Yard",
            model=f"case {n}",
            board_forms=forms,
            supply_forms=self.pick(("ATX",), ("ATX", "SFX"), ("SFX",)),
            card_length_mm=int(self.rng.integers(38, 76)) * 5,
            cooler_height_mm=int(self.rng.integers(9, 35)) * 5,
            card_height_mm=self.pick(None, 115, 130, 150),
            card_thickness_mm=self.pick(None, 40, 50, 70),
            supply_length_mm=self.pick(None, 130, 150, 180),
            radiator_front_mm=self.pick((), (240,), (240, 280)),
            radiator_top_mm=self.pick((), (), (240,)),
            radiator_rear_mm=self.pick((), (120,)),
            places_25=self.pick(None, 0, 2),
            places_35=self.pick(None, 0, 1, 2),
            airflow=("mesh", "closed", "side vents")[n % 3],
            fans_included=(1, 0, 2)[n % 3],
            fan_places=(7, 5, None, 4)[n % 4],
        )
        return self.price(part, 70)

    def fan(self, n: int) -> Fan:
        part = Fan(
            id=f"fan-{n:04}",
            maker="Fennwick",
            model=f"fan {n}",
            size_mm=(120, 120, 140)[n % 3],
            pack=(1, 3)[n % 2],
            noise_dba=(22.0, None, 40.0)[n % 3],
        )
        return self.price(part, 8 + 16 * (n % 2))

    def lists(self, games: list[Game]) -> dict[str, Published]:
        """What games ask of API and storage."""
        tiers = (
            Tier(label="Minimum", api="Lodestone 12"),
            Tier(label="Minimum", api="Lodestone 11", storage_kind="SSD"),
            Tier(label="Minimum", storage_kind="NVMe SSD"),
        )
        return {
            game.id: Published(game=game.id, tiers=(self.pick(*tiers),))
            for game in games
            if self.rng.random() < 0.5
        }

    def game(self, n: int) -> Game:
        need = sorted(float(x) for x in self.rng.uniform(2, 11, 3).round(1))
        presets = tuple(
            Preset(
                name=name,
                processor_factor=u,
                graphics_factor=w,
                video_memory=VideoMemoryNeed(
                    at_1080p_gb=need[0] * f, at_1440p_gb=need[1] * f, at_2160p_gb=need[2] * f
                ),
            )
            for name, u, w, f in (
                ("low", 0.8, 0.5, 0.7),
                ("medium", 0.9, 0.75, 0.85),
                ("high", 1.0, 1.0, 1.0),
            )
        )
        return Game(
            id=f"game-{n}",
            name=f"Game {n}",
            genre="open world",
            processor_ms=round(float(self.rng.uniform(3, 14)), 2),
            parallel_share=round(float(self.rng.uniform(0.1, 0.6)), 2),
            graphics_ms=round(float(self.rng.uniform(3, 16)), 2),
            fixed_share=round(float(self.rng.uniform(0.1, 0.4)), 2),
            processor_variation=self.pick(0.15, 0.18, 0.25),
            graphics_variation=self.pick(0.06, 0.08, 0.12),
            ray_tracing_ms_per_mpx=self.pick(None, 2.0),
            ray_tracing_memory_gb=1.0,
            upscalers=self.pick((), ("Driftlens",)),
            generators=((), ("Interswell",), ("Halfwake",))[n % 3],
            threads=(8, None, 6)[n % 3],
            engine_cap_fps=self.pick(None, None, None, 144.0),
            processor_work_sd=self.pick(0.06, 0.1),
            graphics_work_sd=self.pick(0.06, 0.1),
            memory_gb=self.pick(8.0, 12.0),
            storage_gb=float(self.pick(20, 60, 120)),
            presets=presets,
        )

    def target(self, n: int, games: list[Game]) -> Target:
        width, height = self.pick((1920, 1080), (2560, 1440), (3440, 1440))
        game = games[n % len(games)]
        target = Target(
            id=f"t{n}",
            game_id=game.id,
            width_px=width,
            height_px=height,
            preset=self.pick("low", "medium", "high"),
            upscaling=bool(self.pick(False, True)),
            ray_tracing=bool(self.pick(False, False, True)) and bool(game.ray_tracing_ms_per_mpx),
            fps=float(self.pick(30, 45, 60, 90)),
            measure=self.pick("average", "average", "low"),
            weight=int(self.pick(1, 1, 2, 3, 0)),
        )
        shown = n % 2 == 1
        return replace(target, generated=shown, fps=target.fps * (2 if shown else 1))

    def catalogue(self, per_kind: int, games: int = 4, sold_out: float = 0.1) -> Catalogue:
        makers = (
            self.processor,
            self.card,
            self.board,
            self.kit,
            self.drive,
            self.cooler,
            self.supply,
            self.case,
            self.fan,
        )
        parts = {part.id: part for make in makers for part in (make(n) for n in range(per_kind))}
        offers = tuple(
            Offer(
                part_id=part_id,
                shop="Quayside Parts",
                region="town",
                currency="EUR",
                price_minor=price,
                shipping_minor=self.pick(0, 500),
                stock="in" if self.rng.random() >= sold_out else "out",
                condition="new",
                seen_on=DAY,
            )
            for part_id, price in self.prices.items()
        )
        found = [self.game(n) for n in range(games)]
        return Catalogue(
            parts=parts,
            games={game.id: game for game in found},
            offers=offers,
            regions={"town": REGION},
        ).kept_by(Keeper())

    def results(self, catalogue: Catalogue, per_game: int) -> dict[str, Results]:
        """Results of random pairs, within half and double of what the game's description says."""
        found = {}
        for game in catalogue.games.values():
            items = [
                Result(
                    id=f"r{n}",
                    processor=self.pick(*scale_of(catalogue).of("processor")).key,
                    graphics=self.pick(*scale_of(catalogue).of("graphics")).key,
                    width_px=1920,
                    height_px=1080,
                    preset=self.pick("low", "medium", "high"),
                    average_fps=1000
                    / max(game.processor_ms, game.graphics_ms)
                    * float(self.rng.uniform(0.5, 2)),
                    low_fps=None,
                )
                for n in range(per_game)
            ]
            found[game.id] = Results(game=game.id, items=tuple(items))
        return found

    def brief(self, catalogue: Catalogue, targets: int, budget: int | None = None) -> Brief:
        games = list(catalogue.games.values())
        return Brief(
            name="Random",
            region="town",
            budget_low_minor=0,
            budget_high_minor=(
                budget if budget is not None else int(self.rng.integers(400, 2500)) * 100
            ),
            display=Display(width_px=1920, height_px=1080, refresh_hz=float(self.pick(60, 144))),
            sureness=self.pick("even odds", "likely", "near certain"),
            targets=tuple(self.target(n, games) for n in range(targets)),
            part_cap_minor=self.pick(None, None, 60000),
            accept_spill=bool(self.pick(False, True)),
            memory_gb=self.pick(8.0, 16.0),
            storage_gb=self.pick(400.0, 900.0),
            headroom_percent=self.pick(120, 140),
            trust_floor=self.pick("anything", "nothing doubtful", "nothing doubtful"),
            watt_limit_w=self.pick(None, None, None, int(self.rng.integers(200, 500))),
            **{name: bool(self.rng.random() < 0.6) for name in FLOORS},
            reserve_percent=self.pick(0, 10, 10),
        )

    def roles(self, brief: Brief) -> Brief:
        """The brief with some wishes about what its drives are for."""
        kinds = ("hard disk", "SSD", "NVMe SSD")
        asked = {
            "system_gb": self.pick(0.0, 250.0, 450.0),
            "system_on": self.pick(*kinds),
            "games_gb": self.pick(300.0, 900.0),
            "games_on": self.pick(*kinds),
            "bulk_gb": self.pick(200.0, 1000.0),
            "bulk_on": self.pick(*kinds[:2]),
            "drives_apart": True,
            "no_disks": True,
        }
        return replace(
            brief, **{name: value for name, value in asked.items() if self.rng.random() < 0.35}
        )

    def eased(self, catalogue: Catalogue) -> Catalogue:
        """The catalogue with cases, coolers and boards that take most things, so that many builds
        fit.
        """
        parts = {part_id: self._eased(part) for part_id, part in catalogue.parts.items()}
        return replace(catalogue, parts=parts).kept_by(Keeper())

    def _eased(self, part: Part) -> Part:
        match part:
            case Case():
                return replace(
                    part,
                    board_forms=("ATX", "Micro-ATX", "Mini-ITX"),
                    supply_forms=("ATX", "SFX"),
                    places_25=self.pick(2, 1),
                    places_35=2,
                )
            case Cooler():
                return replace(
                    part, sockets=("Bollard", "Capstan"), capacity_w=part.capacity_w + 60
                )
            case Mainboard():
                return replace(
                    part,
                    m2_slots=self.pick(1, 2),
                    sata_ports=self.pick(1, 4),
                    m2_disables_sata=self.pick((), (1,)),
                )
            case PowerSupply():
                return replace(part, cpu_8pin=2, spike_w=part.spike_w + 150)
        return part

    def further(self, catalogue: Catalogue, brief: Brief) -> tuple[Catalogue, Brief]:
        """The catalogue with what slots, leads, outputs and places share, and perhaps a display
        that not every output drives.
        """
        parts = {
            part_id: self._further(part, n)
            for n, (part_id, part) in enumerate(catalogue.parts.items())
        }
        games = {
            game_id: replace(game, link_mb=(None, 40.0, 0.0)[n % 3])
            for n, (game_id, game) in enumerate(catalogue.games.items())
        }
        display = self.pick(None, None, Display(width_px=2560, height_px=1440, refresh_hz=165.0))
        if display:
            brief = replace(brief, display=display)
        return replace(catalogue, parts=parts, games=games).kept_by(Keeper()), brief

    def newer(self, catalogue: Catalogue) -> Catalogue:
        """The catalogue with figures that are not stated, kinds of memory, radiators over memory,
        sizes of places for fans, and splitters, some on sale.
        """
        cables = [
            FanSplitter(id=f"splitter-{n}", maker="Fennwick", model=f"fork {n}", joins=joins)
            for n, joins in enumerate((2, 3, 5))
        ]
        parts = {part_id: self._newer(part) for part_id, part in catalogue.parts.items()}
        on_sale = tuple(
            replace(catalogue.offers[0], part_id=cable.id, price_minor=price, stock="in")
            for cable, price in zip(cables, (300, 500, 800), strict=True)
            if self.rng.random() < 0.7
        )
        return replace(
            catalogue,
            parts=parts | {cable.id: cable for cable in cables},
            offers=(*catalogue.offers, *on_sale),
        ).kept_by(Keeper())

    def _newer(self, part: Part) -> Part:
        match part:
            case Processor():
                other = "DDR4=3200" if part.memory_type == "DDR5" else "DDR5=5600"
                return replace(part, other_memory=self.pick((), (other,)))
            case Graphics():
                bare = self.pick(False, False, False, True)
                return replace(
                    part,
                    adapter_8pin=self.pick(None, 0, 2),
                    compression=self.pick(None, True, False),
                    pcie_8pin=None if bare else part.pcie_8pin,
                    pcie_16pin=None if bare else part.pcie_16pin,
                )
            case Mainboard():
                return replace(
                    part,
                    memory_type=self.pick(part.memory_type, part.memory_type, "DDR4", "DDR5"),
                    registered=self.pick(None, True, False),
                    unbuffered=self.pick(None, None, True, False),
                )
            case Memory():
                return replace(part, memory_type=self.pick(part.memory_type, "DDR4", "DDR5"))
            case PowerSupply():
                return replace(part, form=self.pick(part.form, "SFX-L", "external"))
            case Case():
                more = self.pick((), ("SFX-L",), ("external",))
                sizes = self.pick((), ("120", "120/140", "140"), ("120/140",) * 4, ("140",) * 3)
                return replace(
                    part,
                    fans_included=self.pick(part.fans_included, part.fans_included, None),
                    fan_sizes=sizes,
                    fan_places=len(sizes) or part.fan_places,
                    above_board_mm=self.pick(None, 40, 60),
                    supply_forms=(*part.supply_forms, *more),
                )
        return part

    def adapters(self, catalogue: Catalogue) -> tuple[Catalogue, tuple[tuple[str, str], ...]]:
        """The catalogue with an adapter and a drive for discs, and some of them to stand in a
        build.
        """
        radio = WirelessAdapter(
            id="wireless-0", maker="Dunmarrow", model="radio", standard="Wi-Fi 6", via="PCIe x1"
        )
        discs = OpticalDrive(id="optical-0", maker="Stonepier", model="discs", via="SATA")
        recorder = CaptureCard(
            id="capture-0",
            maker="Dunmarrow",
            model="recorder",
            via=self.pick("PCIe x1", "PCIe x4"),
            width_px=1920,
            height_px=1080,
            refresh_hz=60.0,
            watts=30,
        )
        parts = {**catalogue.parts, radio.id: radio, discs.id: discs, recorder.id: recorder}
        added = self.pick(
            (("capture", recorder.id),),
            (("wireless", radio.id), ("capture", recorder.id)),
            (("wireless", radio.id),),
            (("optical", discs.id),),
            (("wireless", radio.id), ("wireless", radio.id), ("optical", discs.id)),
        )
        return replace(catalogue, parts=parts).kept_by(Keeper()), added

    def besides(self, catalogue: Catalogue, brief: Brief) -> tuple[Catalogue, Brief]:
        """The catalogue with ways to wireless, systems, displays, inputs and drives for discs, some
        on sale, and a brief that wants some of it; boards with and without wireless.
        """
        wide, fast = self.pick((1920, 60.0), (2560, 144.0)), self.pick(75.0, 165.0)
        common = {"maker": "Dunmarrow"}
        new = (
            WirelessAdapter(
                id="wireless-1", model="card", standard="Wi-Fi 6", via="PCIe x1", **common
            ),
            WirelessAdapter(id="wireless-2", model="dongle", standard="Wi-Fi", via="USB", **common),
            WirelessAdapter(id="wireless-3", model="chip", standard="Wi-Fi 6", via="M.2", **common),
            *self._captures(common),
            OpticalDrive(id="optical-1", model="inside", via="SATA", **common),
            OpticalDrive(id="optical-2", model="outside", via="USB", **common),
            OperatingSystem(
                id="system-1", model="new", family="Tidewater 11", designs=("reef",), **common
            ),
            OperatingSystem(id="system-2", model="old", family="Tidewater 10", **common),
            self._screen("display-1", wide[0], wide[1], ("HDMI 2.0",)),
            self._screen("display-2", 1920, fast, ("DisplayPort 1.4", "HDMI 1.4")),
            InputDevice(id="input-1", model="set", what="keyboard and mouse", **common),
            InputDevice(id="input-2", model="keys", what="keyboard", **common),
            InputDevice(id="input-3", model="pointer", what="mouse", **common),
        )
        on_sale = tuple(
            Offer(
                part_id=part.id,
                shop="Quayside Parts",
                region="town",
                currency="EUR",
                price_minor=100 * int(self.rng.integers(5, 60)),
                shipping_minor=0,
                stock="in",
                condition="new",
                seen_on=DAY,
            )
            for part in new
            if self.rng.random() < 0.85
        )
        parts = {
            **{
                part_id: replace(part, wireless=self.pick("", "", "Wi-Fi 6"))
                if isinstance(part, Mainboard)
                else part
                for part_id, part in catalogue.parts.items()
            },
            **{part.id: part for part in new},
        }
        wanted = tuple(
            kind
            for kind in ("system", "display", "input", "optical", "capture")
            if self.rng.random() < 0.35
        )
        brief = replace(brief, wireless=bool(self.pick(True, True, False)), buys=wanted)
        more = replace(catalogue, parts=parts, offers=(*catalogue.offers, *on_sale))
        return more.kept_by(Keeper()), brief

    def _captures(self, common: dict) -> list[CaptureCard]:
        """Capture cards for a short slot, a long one and USB, that draw so much that it tells."""
        size = {"width_px": 3840, "height_px": 2160, "refresh_hz": 60.0}
        return [
            CaptureCard(
                id=f"capture-{number}",
                model=f"capture {number}",
                via=via,
                watts=int(self.rng.integers(3, 40)),
                **size,
                **common,
            )
            for number, via in enumerate(("PCIe x1", "PCIe x4", "USB", "PCIe x4"), 1)
        ]

    def later(self, catalogue: Catalogue, brief: Brief) -> Brief:
        """The brief with room for a card, named or not, and for sticks to come."""
        cards = [part.id for part in catalogue.by_kind["graphics"]]
        named = self.pick("", "", *cards)
        return replace(
            brief,
            later_card=named,
            later_card_w=None if named else self.pick(None, 150, 250),
            later_card_mm=self.pick(220, 300),
            later_sticks=self.pick(0, 0, 1, 2),
            later_second=self.pick(False, False, True),
            later_processor=self.pick("", *(part.id for part in catalogue.by_kind["processor"])),
        )

    @staticmethod
    def _screen(part_id: str, width: int, hz: float, inputs: tuple[str, ...]) -> Screen:
        height = width * 9 // 16
        return Screen(
            id=part_id,
            maker="Saltgrove",
            model=part_id,
            width_px=width,
            height_px=height,
            refresh_hz=hz,
            inputs=inputs,
        )

    def _further(self, part: Part, n: int) -> Part:
        match part:
            case Processor():
                return replace(part, memory_full_mts=self.pick(None, None, 2666, 5200))
            case Graphics():
                outputs = (("DisplayPort 1.4", "HDMI 2.1"), ("HDMI 1.4",), ("HDMI 2.0",), ("HDMI",))
                adapter = self.pick(0, 2, 3) if part.pcie_16pin else 0
                return replace(part, adapter_8pin=adapter, outputs=outputs[n % 4])
            case Mainboard():
                slots = part.m2_slots
                return replace(
                    part,
                    m2_sata=self.pick((), (1, 0, 0), (0, 1, 1))[:slots],
                    m2_card_lanes=self.pick((), (8,), (0, 12), (4, 4))[:slots],
                    m2_gens=(4, 3, 4)[:slots],
                    memory_full_mts=self.pick(None, 2400, 4400),
                    short_slots=self.pick(None, 1, 1, 2),
                    card_slots=self.pick(None, 1, 2),
                    cpu_4pin=self.pick(0, 0, 1),
                    one_lead_w=self.pick(None, 90, 150),
                    outputs=self.pick((), ("HDMI 1.4",), ("HDMI 2.0",)),
                    processor_w=self.pick(None, 95, 150, 250),
                )
            case PowerSupply():
                return replace(
                    part,
                    cpu_8pin=self.pick(1, 2, 2),
                    cpu_4pin=self.pick(0, 1),
                    pcie_16pin_w=self.pick(None, 250, 600),
                )
            case Case():
                return replace(
                    part,
                    places_525=self.pick(None, 1, 1, 0),
                    radiator_top_thickness_mm=self.pick(None, 55, 80),
                )
            case Storage():
                return replace(part, pcie_gen=self.pick(None, 3, 4))
        return part

    def odd(self, catalogue: Catalogue, brief: Brief) -> tuple[Catalogue, Brief]:
        """The catalogue with lengths, colours, noise and clocks in its parts, and a brief with some
        rules about them.
        """
        parts = {part_id: self._odd(part) for part_id, part in catalogue.parts.items()}
        rules = {
            "banned": tuple(part_id for part_id in parts if self.rng.random() < 0.03),
            "colour": "black",
            "noise_limit_dba": self.pick(37.0, 39.0, 42.0),
            "volume_limit_l": 45.0,
            "wireless": True,
            "work": self.pick(
                ("streaming",), ("voice and browser",), ("streaming", "many things open")
            ),
            "clocks": self.pick("tuned", "undervolted"),
            "room_to_grow": True,
            "no_lights": True,
            "cooling": self.pick("air", "liquid"),
            "recovery": True,
            "fault_display": True,
            "front_usb_c": True,
            "fan_headers": 4,
            "rear_usb": 6,
            "audio_channels": 6,
            "lights_wanted": True,
            "tool_free": True,
            "cable_room_mm": 20,
            "volume_least_l": 35,
            "own_graphics": True,
            "modular": True,
            "protected": True,
        }
        chosen = {name: value for name, value in rules.items() if self.rng.random() < 0.15}
        return replace(catalogue, parts=parts).kept_by(Keeper()), replace(brief, **chosen)

    def _odd(self, part: Part) -> Part:
        part = replace(part, colour=self.pick("", "", "black", "white"))
        match part:
            case Processor():
                return replace(part, tunable=bool(self.pick(True, True, False)))
            case Mainboard():
                lengths = self.pick((), (80, 110), (110, 42), (80, 80))[: part.m2_slots]
                return replace(
                    part,
                    m2_lengths_mm=lengths,
                    tuning=bool(self.pick(True, True, False)),
                    wireless=self.pick("", "Wi-Fi 6", "Wi-Fi 6"),
                    firmware_recovery=bool(self.pick(True, True, False)),
                    fault_display=bool(self.pick(True, False)),
                    front_headers=self.pick(("USB 3",), ("USB 3", "USB-C")),
                    fan_headers=self.pick(None, 3, 5),
                    rear_usb=self.pick(None, 4, 6, 8),
                    audio_channels=self.pick(2, 6, 8),
                )
            case Memory():
                return replace(part, lights=self.rng.random() < 0.3)
            case Storage():
                return replace(part, m2_length_mm=self.pick(None, 42, 80, 80, 110))
            case Cooler():
                return replace(part, noise_dba=self.pick(None, 30.0, 40.0))
            case PowerSupply():
                named = self.pick((), ("OVP", "OCP", "OPP", "SCP"))
                return replace(part, modular=bool(self.pick(True, False)), protections=named)
            case Case():
                lights = ("5 V",) if self.rng.random() < 0.3 else ()
                return replace(
                    part,
                    volume_l=float(self.pick(20, 40, 60)),
                    lights=lights,
                    tool_free=self.rng.random() < 0.6,
                    cable_room_mm=self.pick(None, 15, 25),
                )
        return part

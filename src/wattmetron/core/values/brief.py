"""A brief: budget, region, display, sureness, targets and personal rules.

Every field says of itself how it is called, bounded, explained and asked for (``declared``).
"""

from dataclasses import dataclass, replace
from dataclasses import field as plain_field
from datetime import timedelta
from decimal import Decimal
from typing import Annotated, Any, Literal

from wattmetron.core.errors import BriefError
from wattmetron.core.values.declared import Declared, FieldSpec, Wish, declared
from wattmetron.core.values.games import PresetName
from wattmetron.core.values.offers import Buys
from wattmetron.core.values.other_work import WorkName
from wattmetron.core.values.part_kinds import KINDS, Kind
from wattmetron.core.values.parts import StorageKind
from wattmetron.core.values.preferences import MOST_PREFERENCES, Preference
from wattmetron.core.values.trust import TrustFloor

Sureness = Literal["even odds", "likely", "near certain"]
SURENESS: dict[Sureness, float] = {"even odds": 0.5, "likely": 0.8, "near certain": 0.95}
Measure = Literal["average", "low"]
Clocks = Literal["as shipped", "tuned", "undervolted"]
Cooling = Literal["any", "air", "liquid"]
Availability = Literal["anywhere", "not few", "two shops"]
BoughtKind = Literal["system", "display", "input", "optical"]
Period = Literal["month", "year"]
GROWING_SLOTS, GROWING_M2 = 4, 2
MOST_PIXELS = 16_384
Group = Literal[
    "money",
    "display",
    "parts",
    "machine",
    "features",
    "drives",
    "power",
    "work",
    "later",
    "years",
    "owned",
    "keeps",
    "about",
]
"""Groups of fields that stand together in the form, in its order."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Display:
    """The display."""

    width_px: Annotated[
        int,
        FieldSpec(
            words="display's width", text="Pixels across", unit="px", least=320, most=MOST_PIXELS
        ),
    ] = 1920
    height_px: Annotated[
        int,
        FieldSpec(
            words="display's height", text="Pixels down", unit="px", least=200, most=MOST_PIXELS
        ),
    ] = 1080
    refresh_hz: Annotated[
        float,
        FieldSpec(
            words="display's refresh",
            text="Highest refresh, Hz",
            label="Refresh",
            unit="Hz",
            least=20,
            most=1000,
            group="display",
        ),
    ] = 60.0
    variable_from_hz: Annotated[
        float | None,
        FieldSpec(
            words="variable range",
            text="Where variable refresh begins, Hz; null: fixed",
            label="Variable from",
            unit="Hz",
            least=1,
            most=1000,
            empty="fixed",
            term="variable refresh",
            meaning="A display that waits for the frame within a range of rates, so that uneven"
            " frames do not stutter.",
            group="display",
        ),
    ] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Target:
    """One game at named settings with the frame rate wanted."""

    id: Annotated[
        str, FieldSpec(words="id", text="Id within the brief; empty: given on import", longest=80)
    ]
    game_id: Annotated[str, FieldSpec(words="game", text="Game id", file="game", longest=80)]
    width_px: Annotated[
        int, FieldSpec(words="width", text="Pixels across", unit="px", least=320, most=MOST_PIXELS)
    ] = 1920
    height_px: Annotated[
        int, FieldSpec(words="height", text="Pixels down", unit="px", least=200, most=MOST_PIXELS)
    ] = 1080
    preset: Annotated[
        PresetName,
        FieldSpec(
            words="preset",
            text="Preset",
            label="Preset",
            term="preset",
            meaning="A game's ready-made set of picture options, from low to ultra.",
        ),
    ] = "high"
    upscaling: Annotated[
        bool, FieldSpec(words="upscaling", text="Whether upscaling is acceptable and to be used")
    ] = False
    scale: Annotated[
        float,
        FieldSpec(
            words="scale",
            text="Rendered share of each axis when upscaling",
            least=0.2,
            most=1,
            hint="enter a share of each axis",
        ),
    ] = 0.67
    ray_tracing: Annotated[
        bool, FieldSpec(words="ray tracing", text="Whether ray tracing is on")
    ] = False
    generated: Annotated[
        bool,
        FieldSpec(
            words="frame generation",
            text="Whether the rate is of frames shown, generated ones included, where game and card"
            " can generate them",
        ),
    ] = False
    lowered: Annotated[
        tuple[str, ...],
        FieldSpec(
            words="list of options set lower",
            text="Single options set lower than the preset has them",
            longest=64,
        ),
    ] = ()
    fps: Annotated[
        float,
        FieldSpec(
            words="frame rate",
            text="Frame rate wanted, fps",
            label="fps",
            unit="fps",
            least=1,
            most=2000,
        ),
    ] = 60.0
    measure: Annotated[
        Measure,
        FieldSpec(
            words="measure",
            text="Whether the average or the 1 % low must reach it",
            label="on the",
        ),
    ] = "average"
    cap_fps: Annotated[
        float | None,
        FieldSpec(
            words="cap",
            text="A cap chosen by the user, fps; null: none",
            label="Cap",
            unit="fps",
            least=1,
            most=2000,
            empty="none",
            term="cap",
            meaning="The most frames per second that the engine or the user lets through.",
        ),
    ] = None
    weight: Annotated[
        int,
        FieldSpec(
            words="weight",
            text="How much it counts; 0: shown but not counted",
            label="Weight",
            least=0,
            most=100,
            hint="enter a whole number",
            term="weight",
            meaning="How much a target counts against the others; 0 is shown but not counted.",
        ),
    ] = 1

    @property
    def shown_mpx(self) -> float:
        return self.width_px * self.height_px / 1e6


@dataclass(frozen=True, slots=True, kw_only=True)
class Extra:
    """Something besides the parts that the budget may have to pay for."""

    name: Annotated[
        str,
        FieldSpec(
            words="extra",
            text="What it is",
        ),
    ]
    minor: Annotated[
        int,
        FieldSpec(
            words="extra's amount",
            text="What it costs, in the region's currency",
            file="amount",
            amount=True,
            least=0,
            most=10_000_000,
        ),
    ]
    in_budget: Annotated[bool, FieldSpec(words="budget", text="Whether the budget pays for it")] = (
        True
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Resale:
    """What an owned part may sell for."""

    part: Annotated[str, FieldSpec(words="part", text="Id of an owned part", longest=80)]
    minor: Annotated[
        int,
        FieldSpec(
            words="resale",
            text="What it may sell for, in the region's currency",
            file="amount",
            amount=True,
            least=0,
            most=10_000_000,
        ),
    ]


@dataclass(frozen=True, slots=True, kw_only=True)
class Brief:
    """Everything that was asked for.

    Money is in minor units of the region's currency; the budget is of one of ``seats`` identical
    machines. Name and notes ask for nothing: briefs that differ in them alone are equal.
    """

    name: Annotated[
        str,
        FieldSpec(
            words="name",
            text="Name of the brief, such as the room it is for",
            label="Name",
            group="about",
            wide=True,
            searched=False,
        ),
    ] = plain_field(compare=False)
    region: Annotated[
        str,
        FieldSpec(
            words="region",
            text="Region id: decides currency and offers",
            label="Region",
            choices="regions",
            longest=80,
            group="money",
        ),
    ]
    sureness: Annotated[
        Sureness,
        FieldSpec(
            words="sureness",
            text="even odds 50 %, likely 80 %, near certain 95 %",
            label="Sureness",
            term="sureness",
            meaning="The chance with which a target has to be reached to count as met: 50, 80 or"
            " 95 %. Proposals use it too.",
            group="about",
        ),
    ] = "likely"
    each_percent: Annotated[
        int | None,
        FieldSpec(
            words="sureness of each target",
            text="How surely each target is asked for, %; null: as the sureness says",
            unit="%",
            least=50,
            most=99,
        ),
    ] = None
    together_percent: Annotated[
        int | None,
        FieldSpec(
            words="sureness of all targets at once",
            text="How surely a proposal meets all targets at once, %; null: not asked",
            label="All targets at once, at least",
            unit="%",
            least=1,
            most=99,
            empty="not asked",
            searched=False,
            term="all at once",
            meaning="The chance that one machine meets all targets: a part that is slower than its"
            " figures say is slower in every game.",
            group="about",
        ),
    ] = None
    budget_low_minor: Annotated[
        int,
        FieldSpec(
            words="budget's lower end",
            text="Lower end, in the region's currency",
            label="Budget from",
            empty="0",
            file="low",
            amount=True,
            least=0,
            most=10_000_000,
            searched=False,
            group="money",
        ),
    ] = 0
    budget_high_minor: Annotated[
        int,
        FieldSpec(
            words="budget's upper end",
            text="Upper end, in the region's currency: what a proposal may spend",
            label="Budget up to",
            file="high",
            amount=True,
            least=0,
            most=10_000_000,
            searched=False,
            group="money",
        ),
    ]
    part_cap_minor: Annotated[
        int | None,
        FieldSpec(
            words="part price cap",
            text="Most that a single part may cost; null: no cap",
            label="No part above",
            empty="no cap",
            file="part_price_cap",
            amount=True,
            least=0,
            most=10_000_000,
            term="no part above",
            meaning="A rule of the brief: no single new part may cost more than this, delivered.",
            group="parts",
        ),
        Wish(name="part price cap", without=None, phrase="no part above {money}"),
    ] = None
    display: Annotated[Display, FieldSpec(words="display", text="The display")]
    memory_gb: Annotated[
        float,
        FieldSpec(
            words="least memory",
            text="Least main memory, GB",
            label="Memory at least",
            unit="GB",
            least=0,
            most=4096,
            group="parts",
        ),
        Wish(
            name="least memory",
            without=0.0,
            phrase="at least {value:,g}{thin}GB of memory",
            preferred="memory of so many GB",
            sense="at least",
        ),
    ] = 16.0
    storage_gb: Annotated[
        float,
        FieldSpec(
            words="least storage",
            text="Least storage, GB",
            label="Storage at least",
            unit="GB",
            least=0,
            most=200_000,
            group="drives",
        ),
        Wish(
            name="least storage",
            without=0.0,
            phrase="at least {value:,g}{thin}GB of storage",
            preferred="storage of so many GB",
            sense="at least",
        ),
    ] = 500.0
    system_gb: Annotated[
        float,
        FieldSpec(
            words="room for the system",
            text="Room for the operating system and programs on one drive, GB",
            label="Room for the system",
            group="drives",
            unit="GB",
            least=0,
            most=200_000,
        ),
    ] = 80.0
    system_on: Annotated[
        StorageKind,
        FieldSpec(
            words="drive for the system",
            text="Slowest kind of drive that the system may stand on",
            label="System on",
            group="drives",
        ),
    ] = "SSD"
    games_gb: Annotated[
        float,
        FieldSpec(
            words="room for games",
            text="Room for games, GB; 0: what the brief's games take with a fifth kept free",
            label="Room for games",
            group="drives",
            unit="GB",
            empty="0",
            least=0,
            most=200_000,
        ),
        Wish(name="room for games", without=0.0, phrase="{value:g}{thin}GB for games"),
    ] = 0.0
    games_on: Annotated[
        StorageKind,
        FieldSpec(
            words="drive for games",
            text="Slowest kind of drive that games may stand on; their lists may ask for a faster"
            " one",
            label="Games on",
            group="drives",
        ),
    ] = "SSD"
    bulk_gb: Annotated[
        float,
        FieldSpec(
            words="room for bulk",
            text="Room for recordings, backups and the like, GB",
            label="Room for bulk, such as recordings",
            group="drives",
            unit="GB",
            empty="0",
            least=0,
            most=200_000,
        ),
        Wish(name="room for bulk", without=0.0, phrase="{value:g}{thin}GB for bulk"),
    ] = 0.0
    bulk_on: Annotated[
        StorageKind,
        FieldSpec(
            words="drive for bulk",
            text="Slowest kind of drive that recordings and the like may stand on",
            label="Bulk on",
            group="drives",
        ),
    ] = "hard disk"
    headroom_percent: Annotated[
        int,
        FieldSpec(
            words="supply headroom",
            text="Least supply output in % of the full draw",
            label="Supply headroom",
            unit="%",
            least=100,
            most=300,
            hint="140 is usual",
            term="headroom",
            meaning="What a power supply can give, in % of the full draw: 140 leaves room for"
            " ageing and a later upgrade.",
            group="power",
        ),
        Wish(
            name="supply headroom",
            without=100,
            phrase="supply headroom of {value}{thin}%",
            preferred="supply headroom of so many %",
            sense="at least",
        ),
    ] = 140
    reserve_percent: Annotated[
        int,
        FieldSpec(
            words="reserve",
            text="What cooler and power supply carry beyond what sizing asks for",
            label="Reserve of cooler and supply",
            unit="%",
            least=0,
            most=100,
            group="power",
        ),
        Wish(name="reserve", without=0, phrase="{value} % reserve in cooler and supply"),
    ] = 10
    watt_limit_w: Annotated[
        int | None,
        FieldSpec(
            words="limit in watts",
            text="Most that the machine may draw, W; null: no limit",
            label="Draw at most",
            unit="W",
            least=20,
            most=5000,
            empty="no limit",
            term="limit in watts",
            meaning="The most that the machine may draw with everything busy, as behind an"
            " inverter. Nothing above it is proposed.",
            group="power",
        ),
        Wish(
            name="limit in watts",
            without=None,
            phrase="at most {value}{thin}W",
            preferred="a draw of at most so many W",
            sense="at most",
        ),
    ] = None
    play_hours: Annotated[
        float,
        FieldSpec(
            words="hours of play",
            text="Hours of play a day, for the bill",
            label="Hours of play a day",
            least=0,
            most=24,
            searched=False,
            group="power",
        ),
    ] = 2.0
    desk_hours: Annotated[
        float,
        FieldSpec(
            words="hours at the desk",
            text="Hours at the desk a day, for the bill",
            label="At the desk, hours a day",
            least=0,
            most=24,
            searched=False,
            group="power",
        ),
    ] = 2.0
    tariff_per_kwh: Annotated[
        Decimal | None,
        FieldSpec(
            words="price of a kWh",
            text="Price of a kWh in the region's currency; null: the region's",
            label="Price of a kWh",
            least=0,
            most=1000,
            choices="tariff",
            searched=False,
            group="power",
        ),
    ] = None
    trust_floor: Annotated[
        TrustFloor,
        FieldSpec(
            words="trust floor",
            text="How far a part must be trusted to be proposed",
            label="Trust in parts",
            term="trust in parts",
            meaning="From warranty, reviews, protections and tests: proven, plain, unknown or"
            " doubtful. Nothing below the floor is proposed.",
            group="parts",
        ),
        Wish(
            name="trust floor",
            without="anything",
            phrase="trust in parts: {value}",
            preferred="trust in parts",
            sense="strictest",
        ),
    ] = "nothing doubtful"
    clocks: Annotated[
        Clocks,
        FieldSpec(
            words="clocks",
            text="Whether clocks are to be tuned or voltages lowered",
            label="Clocks",
            term="clocks",
            meaning="Tuned: processor and card somewhat faster for more watts, with chip, board"
            " and cooler that allow it. Undervolted: fewer watts for almost the same speed. Both"
            " are rules of thumb with a wider range.",
            group="parts",
        ),
        Wish(name="clocks", without="as shipped", phrase="clocks {value}"),
    ] = "as shipped"
    noise_limit_dba: Annotated[
        float | None,
        FieldSpec(
            words="limit of noise",
            text="How loud the machine may be in play, dB(A), an indication; null: no limit",
            label="Noise in play at most",
            unit="dB(A)",
            least=10,
            most=90,
            empty="no limit",
            group="power",
        ),
        Wish(
            name="limit of noise",
            without=None,
            phrase="at most {value:g}{thin}dB(A) in play",
            preferred="at most so many dB(A) in play",
            sense="at most",
        ),
    ] = None
    volume_limit_l: Annotated[
        float | None,
        FieldSpec(
            words="largest case",
            text="Largest case, litres; null: no limit",
            label="Case at most",
            unit="litres",
            least=1,
            most=500,
            empty="any size",
            group="machine",
        ),
        Wish(
            name="largest case",
            without=None,
            phrase="case at most {value:g}{thin}l",
            preferred="a case of at most so many litres",
            sense="at most",
        ),
    ] = None
    colour: Annotated[
        str,
        FieldSpec(
            words="colour",
            text="Colour of the parts whose colour is known; empty: any",
            label="Colour",
            empty="any",
            hint="enter one, such as white",
            choices="colours",
            term="colour",
            meaning="Parts whose colour is known must have this one; parts without a stated"
            " colour are allowed.",
            group="machine",
        ),
        Wish(name="colour", without="", phrase="colour {value}", preferred="a colour"),
    ] = ""
    seats: Annotated[
        int,
        FieldSpec(
            words="number of identical machines",
            text="Identical machines; the budget is of one of them",
            label="Identical machines",
            empty="1",
            least=1,
            most=500,
            hint="enter a whole number",
            term="identical machines",
            meaning="How many alike the budget has to pay for. The budget is then typed for all of"
            " them; every other figure is of one.",
            searched=False,
            group="about",
        ),
    ] = 1
    years: Annotated[
        int,
        FieldSpec(
            words="years to keep",
            text="Years for which the machine is to be kept; 0: not asked",
            label="Years to keep",
            least=0,
            most=10,
            empty="not asked",
            term="years to keep",
            meaning="Balance shows which targets are still met year by year if the games ask for"
            " so much more each year: an assumption, not a forecast.",
            searched=False,
            group="years",
        ),
    ] = 0
    growth_percent: Annotated[
        float,
        FieldSpec(
            words="growth of the games' work",
            text="Assumed growth of the games' work, % a year",
            label="Games grow",
            unit="% a year",
            empty="12",
            least=0,
            most=100,
            searched=False,
            group="years",
        ),
    ] = 12.0
    system: Annotated[
        str,
        FieldSpec(
            words="operating system",
            text="Operating system that will run, as published lists name it",
            label="Operating system",
            wide=True,
            empty="not stated",
            choices="systems",
            term="operating system",
            meaning="What will run on the machine, as published requirements name it: their lists"
            " are then judged on it too.",
            group="work",
        ),
    ] = ""
    notes: Annotated[
        str,
        FieldSpec(
            words="notes",
            text="Free text",
            label="Notes, for you alone",
            longest=4000,
            searched=False,
            group="about",
        ),
    ] = plain_field(default="", compare=False)
    work: Annotated[
        tuple[WorkName, ...],
        FieldSpec(
            words="other work",
            text="Other work on the machine",
            label="Other work on the machine",
            term="other work",
            meaning="What else the machine does: it sets floors of all-core speed, memory and"
            " storage; what runs beside a game takes frames, which Balance shows. Rules of thumb.",
            group="work",
        ),
        Wish(name="other work", without=(), phrase="other work: {listed}"),
    ] = ()
    outside: Annotated[
        tuple[Kind, ...],
        FieldSpec(
            words="list of what is not in the budget",
            text="Kinds of part that are not in the budget",
            label="Not in the budget",
            choices="further kinds",
            longest=14,
            group="owned",
        ),
    ] = ()
    allow_used: Annotated[
        bool,
        FieldSpec(
            words="used parts",
            text="Whether used parts may be proposed",
            label="Used parts allowed",
            flag=("allowed", "not allowed"),
            group="parts",
        ),
        Wish(
            name="new parts only",
            without=True,
            preferred="new parts rather than used ones",
            preference="new",
            value=False,
        ),
    ] = False
    allow_lists: Annotated[
        bool,
        FieldSpec(
            words="raffles and waiting lists",
            text="Whether offers that are had only by raffle or waiting list count",
            label="Raffles and waiting lists count",
            flag=("count", "do not count"),
            group="parts",
        ),
    ] = False
    old_after_days: Annotated[
        int,
        FieldSpec(
            words="days until a price is old",
            text="After how many days, counted from the newest price, a price is marked as stale",
            label="A price is stale after",
            unit="days",
            least=1,
            most=365,
            group="parts",
        ),
    ] = 14
    availability: Annotated[
        Availability,
        FieldSpec(
            words="availability",
            text="How surely each part must be had: in stock anywhere, more than the last few, or"
            " in stock at two shops",
            label="Each part in stock",
            term="availability",
            meaning="Parts of which one shop has the last few may be gone before the order is"
            " out. Not few: some shop has more than that. Two shops: if one fails, another has it.",
            group="parts",
        ),
        Wish(
            name="availability",
            without="anywhere",
            phrase="in stock: {value}",
            preferred="parts that are surely in stock",
        ),
    ] = "anywhere"
    accept_spill: Annotated[
        bool,
        FieldSpec(
            words="too little video memory",
            text="Whether too little video memory is acceptable",
            label="Video memory may fall short",
            flag=("allowed", "not allowed"),
            group="parts",
        ),
        Wish(name="enough video memory", without=True),
    ] = False
    wireless: Annotated[
        bool,
        FieldSpec(
            words="wireless",
            text="Whether wireless is wanted",
            label="Wireless",
            group="machine",
        ),
        Wish(name="wireless", without=False, preferred="wireless", value=True),
    ] = False
    later_card: Annotated[
        str,
        FieldSpec(
            words="card to come later",
            text="Id of the graphics card that case, power supply and cooling must take later;"
            " empty: none",
            label="A card to come later",
            choices="cards",
            group="later",
        ),
        Wish(name="card to come later", without="", phrase="room for a later card"),
    ] = ""
    later_card_w: Annotated[
        int | None,
        FieldSpec(
            words="later card's power",
            text="Board power of a later card that is not named, W; null: none",
            label="Or a later card's power",
            unit="W",
            least=20,
            most=1500,
            empty="none",
            group="later",
        ),
        Wish(
            name="power of a later card", without=None, phrase="room for a card of {value}{thin}W"
        ),
    ] = None
    later_card_mm: Annotated[
        int,
        FieldSpec(
            words="later card's length",
            text="Length of a later card that is not named, mm",
            label="Or a later card's length",
            unit="mm",
            least=100,
            most=500,
            group="later",
        ),
    ] = 300
    later_second: Annotated[
        bool,
        FieldSpec(
            words="second card to come later",
            text="Whether the build must take a second graphics card like the first later",
            label="A second card like the first",
            flag=("to come later", "not to come"),
            group="later",
        ),
        Wish(name="second card to come later", without=False, phrase="room for a second card"),
    ] = False
    later_processor: Annotated[
        str,
        FieldSpec(
            words="processor to come later",
            text="Id of the processor that mainboard, memory, cooler and power supply must take"
            " later; empty: none",
            label="A processor to come later",
            choices="chips",
            group="later",
        ),
        Wish(name="processor to come later", without="", phrase="room for a later processor"),
    ] = ""
    later_sticks: Annotated[
        int,
        FieldSpec(
            words="sticks to come later",
            text="Memory slots that stay free for sticks to come",
            label="Memory sticks to come later",
            least=0,
            most=8,
            empty="0",
            group="later",
        ),
        Wish(name="sticks to come later", without=0, phrase="{value} memory slots left free"),
    ] = 0
    upgrade_minor: Annotated[
        int | None,
        FieldSpec(
            words="money for upgrades",
            text="Money set aside for upgrades in each month or year; null: not asked",
            label="Money for upgrades",
            empty="not asked",
            file="upgrade_money",
            amount=True,
            least=1,
            most=10_000_000,
            searched=False,
            group="later",
        ),
    ] = None
    upgrade_every: Annotated[
        Period,
        FieldSpec(
            words="period of the money for upgrades",
            text="Whether that is for a month or a year",
            label="Money for upgrades in each",
            searched=False,
            group="later",
        ),
    ] = "month"
    buys: Annotated[
        tuple[BoughtKind, ...],
        FieldSpec(
            words="list of what else is bought",
            text="What is bought besides the machine: an operating system that its games run on,"
            " the display, keyboard and mouse, a drive for discs",
            label="Also to be bought",
            choices="bought kinds",
            group="owned",
        ),
        Wish(name="what else is bought", without=(), phrase="to be bought too: {listed}"),
    ] = ()
    no_lights: Annotated[
        bool,
        FieldSpec(
            words="lights",
            text="Whether parts with lights are left out",
            label="No lights",
            flag=("not wanted", "allowed"),
            group="machine",
        ),
        Wish(name="no lights", without=False, preferred="no lights", value=True),
    ] = False
    recovery: Annotated[
        bool,
        FieldSpec(
            words="firmware recovery",
            text="Whether firmware must be written without a processor",
            label="Firmware written without a processor",
            group="features",
        ),
        Wish(
            name="firmware recovery",
            without=False,
            preferred="firmware written without a processor",
            value=True,
        ),
    ] = False
    fault_display: Annotated[
        bool,
        FieldSpec(
            words="fault display",
            text="Whether the mainboard must show where a start stops",
            label="Mainboard that shows where a start stops",
            group="features",
        ),
        Wish(
            name="fault display",
            without=False,
            preferred="a mainboard that shows where a start stops",
            value=True,
        ),
    ] = False
    front_usb_c: Annotated[
        bool,
        FieldSpec(
            words="front USB-C",
            text="Whether the mainboard must have a header for USB-C in front",
            label="USB-C header for the front",
            group="features",
        ),
        Wish(
            name="front USB-C", without=False, preferred="a USB-C header for the front", value=True
        ),
    ] = False
    own_graphics: Annotated[
        bool,
        FieldSpec(
            words="graphics in the processor",
            text="Whether the processor must have graphics of its own",
            label="Graphics in the processor, to find faults",
            group="features",
        ),
        Wish(
            name="graphics in the processor",
            without=False,
            preferred="graphics in the processor",
            value=True,
        ),
    ] = False
    modular: Annotated[
        bool,
        FieldSpec(
            words="modular cables",
            text="Whether the cables of the power supply must be modular",
            label="Power supply with modular cables",
            group="features",
        ),
        Wish(name="modular cables", without=False, preferred="modular cables", value=True),
    ] = False
    protected: Annotated[
        bool,
        FieldSpec(
            words="protections",
            text="Whether the power supply must name OVP, OCP, OPP and SCP as its protections",
            label="Power supply that names OVP, OCP, OPP and SCP",
            group="features",
        ),
        Wish(
            name="protections",
            without=False,
            preferred="a power supply that names OVP, OCP, OPP and SCP",
            value=True,
        ),
    ] = False
    fan_headers: Annotated[
        int,
        FieldSpec(
            words="least fan headers",
            text="Fan headers that the mainboard must have at least",
            label="Fan headers at least",
            least=0,
            most=20,
            empty="0",
            group="features",
        ),
        Wish(
            name="fan headers",
            without=0,
            phrase="{value} fan headers or more",
            preferred="so many fan headers",
            sense="at least",
        ),
    ] = 0
    rear_usb: Annotated[
        int,
        FieldSpec(
            words="least rear USB ports",
            text="USB ports that the mainboard must have at the rear at least",
            label="USB ports at the rear at least",
            least=0,
            most=30,
            empty="0",
            group="features",
        ),
        Wish(
            name="rear USB ports",
            without=0,
            phrase="{value} USB ports at the rear or more",
            preferred="so many USB ports at the rear",
            sense="at least",
        ),
    ] = 0
    audio_channels: Annotated[
        int,
        FieldSpec(
            words="least audio channels",
            text="Channels that the mainboard's audio must have at least; 2 is stereo, 8 is"
            " surround",
            label="Audio channels at least",
            least=0,
            most=16,
            empty="0",
            group="features",
        ),
        Wish(
            name="audio channels",
            without=0,
            phrase="audio with {value} channels or more",
            preferred="so many audio channels",
            sense="at least",
        ),
    ] = 0
    lights_wanted: Annotated[
        bool,
        FieldSpec(
            words="lights wanted",
            text="Whether the case must have lights",
            label="Case with lights",
            group="machine",
        ),
        Wish(name="lights wanted", without=False, preferred="a case with lights", value=True),
    ] = False
    cooling: Annotated[
        Cooling,
        FieldSpec(
            words="cooling",
            text="Whether the processor's cooler must be an air or a liquid one",
            label="Cooling",
            term="cooling",
            meaning="Liquid: a cooler with a radiator, which the case must carry; a boxed cooler"
            " does not count. Air: no liquid in the machine, a boxed cooler counts.",
            group="machine",
        ),
        Wish(
            name="cooling",
            without="any",
            phrase="{value} cooling",
            preferred="air or liquid cooling",
        ),
    ] = "any"
    tool_free: Annotated[
        bool,
        FieldSpec(
            words="case without tools",
            text="Whether the case must open and take drives without tools",
            label="Case that needs no tools",
            group="machine",
        ),
        Wish(
            name="case without tools",
            without=False,
            preferred="a case that needs no tools",
            value=True,
        ),
    ] = False
    cable_room_mm: Annotated[
        int,
        FieldSpec(
            words="least room for cables",
            text="Room for cables that the case must have behind the mainboard at least, mm",
            label="Room for cables at least",
            unit="mm",
            least=0,
            most=100,
            empty="0",
            group="machine",
        ),
        Wish(
            name="room for cables",
            without=0,
            phrase="{value}{thin}mm or more for cables",
            preferred="so many mm for cables",
            sense="at least",
        ),
    ] = 0
    volume_least_l: Annotated[
        int,
        FieldSpec(
            words="smallest case",
            text="Smallest case, litres: a roomy one is easier to build in; 0: no limit",
            label="Case at least",
            unit="litres",
            least=0,
            most=500,
            empty="0",
            group="machine",
        ),
        Wish(
            name="smallest case",
            without=0,
            phrase="case of {value}{thin}l or more",
            preferred="a case of at least so many litres",
            sense="at least",
        ),
    ] = 0
    room_to_grow: Annotated[
        bool,
        FieldSpec(
            words="room to grow",
            text="Whether the mainboard must have four memory slots and two M.2 places",
            label="Room to grow",
            term="room to grow",
            meaning="A mainboard with four memory slots and two M.2 places at least, so that"
            " memory and drives can be added.",
            group="machine",
        ),
        Wish(
            name="room to grow",
            without=False,
            preferred="room to grow: 4 memory slots, 2 M.2 places",
            value=True,
        ),
    ] = False
    no_disks: Annotated[
        bool,
        FieldSpec(
            words="spinning disks",
            text="Whether hard disks are left out",
            label="No spinning disk",
            group="drives",
            flag=("not wanted", "allowed"),
        ),
        Wish(name="no spinning disk", without=False, preferred="no spinning disk", value=True),
    ] = False
    drives_apart: Annotated[
        bool,
        FieldSpec(
            words="drives of their own",
            text="Whether system, games and bulk each have drives of their own",
            label="System, games and bulk each on a drive of their own",
            group="drives",
        ),
        Wish(name="drives of their own", without=False, phrase="a drive for each role"),
    ] = False
    solid_state: Annotated[
        bool,
        FieldSpec(
            words="solid state",
            text="Whether the system is on solid state, and games on the kind that they ask for",
            label="System on an SSD, games on the kind they ask for",
            flag=("asked for", "let go"),
            group="keeps",
        ),
        Wish(name="solid state", without=False, phrase="system and games on SSDs"),
    ] = True
    games_start: Annotated[
        bool,
        FieldSpec(
            words="graphics API",
            text="Whether what draws must know the graphics API that each game needs to start",
            label="Graphics that every game starts on",
            flag=("asked for", "let go"),
            group="keeps",
        ),
        Wish(name="graphics API", without=False, phrase="graphics that every game starts on"),
    ] = True
    starts_as_bought: Annotated[
        bool,
        FieldSpec(
            words="first start",
            text="Whether the machine starts without a part borrowed for a firmware update",
            label="Starts without a borrowed processor",
            flag=("asked for", "let go"),
            group="keeps",
        ),
        Wish(name="first start", without=False, phrase="starts without a borrowed processor"),
    ] = True
    heat_carried: Annotated[
        bool,
        FieldSpec(
            words="airflow",
            text="Whether case and fans carry all heat off quietly; missing fans are bought",
            label="Enough airflow, fans bought where they are missing",
            flag=("asked for", "let go"),
            group="keeps",
        ),
        Wish(name="airflow", without=False, phrase="enough airflow"),
    ] = True
    boxed_judged: Annotated[
        bool,
        FieldSpec(
            words="boxed cooler",
            text="Whether a boxed cooler counts only where its height is known to fit",
            label="Boxed cooler only where it is known to fit",
            flag=("asked for", "let go"),
            term="boxed cooler",
            meaning="The cooler that comes in the box with a processor.",
            group="keeps",
        ),
        Wish(name="boxed cooler", without=False, phrase="a boxed cooler only where known to fit"),
    ] = True
    all_channels: Annotated[
        bool,
        FieldSpec(
            words="memory channels",
            text="Whether memory must stand in all channels of the processor",
            label="Memory in all channels",
            flag=("asked for", "let go"),
            group="keeps",
        ),
        Wish(name="memory channels", without=False, phrase="memory in all channels"),
    ] = True
    enough_threads: Annotated[
        bool,
        FieldSpec(
            words="threads",
            text="Whether the processor has as many threads as the most demanding game uses, and"
            " six cores beside a card from 400 on",
            label="As many threads as the games use, six cores beside a card from 400 on",
            flag=("asked for", "let go"),
            group="keeps",
        ),
        Wish(name="threads", without=False, phrase="as many threads as the games use"),
    ] = True
    display_driven: Annotated[
        bool,
        FieldSpec(
            words="display",
            text="Whether an output carries the display at its full refresh",
            label="An output that carries the display at its full refresh",
            flag=("asked for", "let go"),
            group="keeps",
        ),
        Wish(
            name="display output",
            without=False,
            phrase="an output that carries the display's refresh",
        ),
    ] = True
    targets: Annotated[
        tuple[Target, ...], FieldSpec(words="list of targets", text="Targets", longest=40)
    ] = ()
    owned: Annotated[
        tuple[str, ...],
        FieldSpec(
            words="list of owned parts",
            text="Part ids that are there already: they cost nothing and compete with what is on"
            " sale",
            longest=60,
        ),
    ] = ()
    stays: Annotated[
        tuple[str, ...],
        FieldSpec(
            words="list of owned parts that stay",
            text="Part ids among the owned ones that every proposal keeps",
            longest=60,
        ),
    ] = ()
    resale: Annotated[
        tuple[Resale, ...],
        FieldSpec(
            words="list of resales",
            text="What owned parts may sell for; one that is not named goes by the cheapest used"
            " price",
            longest=60,
        ),
    ] = ()
    counts_resale: Annotated[
        bool,
        FieldSpec(
            words="counting of resale",
            text="Whether the budget counts on what owned parts that are left over may sell for",
            flag=("counted", "not counted"),
        ),
    ] = False
    no_makers: Annotated[
        tuple[str, ...],
        FieldSpec(
            words="list of excluded makers",
            text="Makers whose parts are not wanted",
            longest=100,
        ),
        Wish(name="excluded makers", without=(), phrase="nothing of {listed}"),
    ] = ()
    banned: Annotated[
        tuple[str, ...],
        FieldSpec(words="list of excluded parts", text="Part ids that are not wanted", longest=200),
        Wish(name="excluded parts", without=(), phrase="without {names}"),
    ] = ()
    only_of: Annotated[
        tuple[tuple[Kind, str], ...],
        FieldSpec(
            words="list of makers to buy from",
            text="By kind of part the makers to buy from; a kind that is not named is open",
            longest=40,
        ),
        Wish(
            name="makers to buy from",
            without=(),
            phrase="{makers}",
            preferred="a maker, by kind of part",
            preference="maker",
            sense="also",
        ),
    ] = ()
    preferences: Annotated[
        tuple[Preference, ...],
        FieldSpec(
            words="list of preferences",
            text="Wishes granted in this order where they cost little",
            longest=MOST_PREFERENCES,
            searched=False,
        ),
    ] = ()
    preference_minor: Annotated[
        int | None,
        FieldSpec(
            words="amount that a preference may cost",
            text="Most that each preference may cost; null: a twentieth of the budget",
            file="preference_up_to",
            amount=True,
            least=0,
            most=10_000_000,
            searched=False,
        ),
    ] = None
    extras: Annotated[
        tuple[Extra, ...],
        FieldSpec(
            words="list of extras",
            text="What else the budget may have to pay for",
            longest=20,
            searched=False,
        ),
    ] = ()

    @property
    def chance(self) -> float:
        """The sureness of each target as a probability."""
        return SURENESS[self.sureness] if self.each_percent is None else self.each_percent / 100

    @property
    def old_after(self) -> timedelta:
        return timedelta(days=self.old_after_days)

    @property
    def may_buy(self) -> Buys:
        return Buys(self.allow_used, self.allow_lists, self.trust_floor == "anything")

    @property
    def extras_minor(self) -> int:
        return sum(extra.minor for extra in self.extras if extra.in_budget)

    @property
    def counted_targets(self) -> tuple[Target, ...]:
        """Targets that count: weight above zero."""
        return tuple(target for target in self.targets if target.weight > 0)


BRIEF: tuple[Declared, ...] = declared(Brief)
DISPLAY: tuple[Declared, ...] = declared(Display)
TARGET: tuple[Declared, ...] = declared(Target)
EXTRA: tuple[Declared, ...] = declared(Extra)
RESALE: tuple[Declared, ...] = declared(Resale)


NOT_SEARCHED: dict[str, Any] = {
    field.name: field.bare() if field.required else field.default
    for field in BRIEF
    if not field.spec.searched
}


def searched(brief: Brief) -> Brief:
    """The brief as the search looks at it: without what changes nothing there."""
    return replace(brief, **NOT_SEARCHED)


def check_fields(brief: Brief) -> None:
    """Raises BriefError with one clear sentence for the first entry that cannot be worked with;
    preferences are left to ``wishes.check_preferences``.
    """
    if not brief.name.strip():
        raise BriefError("The brief has no name: give it one, such as the room it is for.")
    if brief.budget_low_minor > brief.budget_high_minor:
        raise BriefError("The budget's lower end is above its upper end: swap the two amounts.")
    for field in DISPLAY:
        field.check(getattr(brief.display, field.name))
    low_hz = brief.display.variable_from_hz
    if low_hz is not None and low_hz > brief.display.refresh_hz:
        raise BriefError(
            "The variable range must begin between 1 Hz and the refresh: enter such a number."
        )
    for number, target in enumerate(brief.targets, start=1):
        check_target(target, f"Target {number}")
    for field in BRIEF:
        field.check(getattr(brief, field.name))
    if brief.play_hours + brief.desk_hours > 24:
        raise BriefError(
            "Hours of play and at the desk must together lie within 0–24 a day: enter such numbers."
        )
    if any(kind in KINDS for kind in brief.outside):
        raise BriefError(
            "Only further parts, such as a display, can be outside the budget: the machine itself"
            " is what it pays for."
        )
    if any(kind not in KINDS or not maker.strip() for kind, maker in brief.only_of):
        raise BriefError(
            "Makers to buy from are given by kind of part: name kind and maker of each."
        )


def check_target(target: Target, where: str) -> None:
    """Raises BriefError for the first entry of a target that cannot be worked with."""
    for field in TARGET:
        try:
            field.check(getattr(target, field.name))
        except BriefError as error:
            raise BriefError(f"{where}: {str(error)[:1].lower()}{str(error)[1:]}") from error

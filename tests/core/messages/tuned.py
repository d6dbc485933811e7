"""Fifteen letters in five tones, for tuning the reader."""

from tests.core.messages import Letter

LETTERS = (
    Letter(
        "plain",
        """Hello,

around 1,200, at most 1,400, I have a 1440p 165 Hz display, mostly Gullwing Circuit and some
Hollow Meridian, upscaling is fine, nothing flashy, I still have my drive and case.

Thanks""",
        {
            "budget": (120_000, 140_000),
            "size": (2560, 1440),
            "refresh_hz": 165.0,
            "games": ("gullwing-circuit", "hollow-meridian"),
            "upscaling": True,
            "no_lights": True,
            "own_kinds": ("storage", "case"),
        },
    ),
    Letter(
        "plain",
        """Good evening. My budget is 950 euros for the tower alone. I play Kiteball Arena and Causeway
Clash on a 1080p screen with 240 Hz. It should stay quiet, and please no used parts. I need wireless,
the router is two rooms away.""",
        {
            "budget": (0, 95_000),
            "currency": "EUR",
            "games": ("kiteball-arena", "causeway-clash"),
            "size": (1920, 1080),
            "refresh_hz": 240.0,
            "quiet": True,
            "allow_used": False,
            "wireless": True,
        },
    ),
    Letter(
        "plain",
        """I would like to spend between 1,600 and 1,900 EUR. The display is an ultrawide, 3440x1440 at
144 Hz. Games: Vantage Null with ray tracing at 60 fps, Ashfall Wardens, Tin Harbour. I also stream
in the evening. 32 GB of memory and 2 TB of storage, no hard disks.""",
        {
            "budget": (160_000, 190_000),
            "currency": "EUR",
            "size": (3440, 1440),
            "refresh_hz": 144.0,
            "games": ("vantage-null", "ashfall-wardens", "tin-harbour"),
            "ray_tracing": ("vantage-null",),
            "fps": {"vantage-null": 60.0},
            "work": ("streaming",),
            "memory_gb": 32.0,
            "storage_gb": 2000.0,
            "no_disks": True,
        },
    ),
    Letter(
        "terse",
        """Budget: 800-1000 EUR
Games: Brinewalkers, Lanternfolk
Monitor: 1920x1080, 75 Hz
Used: ok
Case: small, white""",
        {
            "budget": (80_000, 100_000),
            "currency": "EUR",
            "games": ("brinewalkers", "lanternfolk"),
            "size": (1920, 1080),
            "refresh_hz": 75.0,
            "allow_used": True,
            "small": True,
            "colour": "white",
        },
    ),
    Letter(
        "terse",
        """1500 max. 4k60. Deepwater Pilot, Thousand Towers. No operating system needed. No RGB. Black.
Have: keyboard, mouse, monitor.""",
        {
            "budget": (0, 150_000),
            "size": (3840, 2160),
            "refresh_hz": 60.0,
            "games": ("deepwater-pilot", "thousand-towers"),
            "no_lights": True,
            "colour": "black",
            "own_kinds": ("input", "display"),
        },
    ),
    Letter(
        "terse",
        """- EUR 1300
- 2560x1440 / 144 Hz
- Cold Harbour Nine (144 fps, medium), Gable Row (60)
- WiFi
- nothing from Lowhum
- keep it for 4 years""",
        {
            "budget": (0, 130_000),
            "currency": "EUR",
            "size": (2560, 1440),
            "refresh_hz": 144.0,
            "games": ("cold-harbour-nine", "gable-row"),
            "fps": {"cold-harbour-nine": 144.0, "gable-row": 60.0},
            "preset": {"cold-harbour-nine": "medium"},
            "wireless": True,
            "no_makers": ("Lowhum",),
            "years": 4,
        },
    ),
    Letter(
        "chatty",
        """Hi there! So my old machine finally gave up last week, and since my birthday is coming I scraped
together roughly 1100 bucks, maybe 1150 if it really makes a difference. I am all about The Quiet
Lock and Paper Lighthouse these days (cosy stuff, I know), but my brother keeps dragging me into
Breakwater Siege. The screen is a normal full HD one, 60 hertz. Lights? Oh please no. And if it
could be small enough to sit on the shelf, that would make my year.""",
        {
            "budget": (110_000, 115_000),
            "games": ("the-quiet-lock", "paper-lighthouse", "breakwater-siege"),
            "size": (1920, 1080),
            "refresh_hz": 60.0,
            "no_lights": True,
            "small": True,
        },
    ),
    Letter(
        "chatty",
        """Hey! You helped my cousin, now it is my turn. I've got about 2k to burn. QHD display, 240 Hz, the
fast kind. Low Orbit Salvage is the big one, I want a solid 120 there, and Saltmarsh Rally when the
boys are over. I edit videos on the weekend. Don't care about looks at all, but it must not howl
like my last one. Oh and second hand is totally fine by me!""",
        {
            "budget": (0, 200_000),
            "size": (2560, 1440),
            "refresh_hz": 240.0,
            "games": ("low-orbit-salvage", "saltmarsh-rally"),
            "fps": {"low-orbit-salvage": 120.0},
            "work": ("video editing",),
            "quiet": True,
            "allow_used": True,
        },
    ),
    Letter(
        "chatty",
        """Morning! Coffee in hand, here is the wish list. I can stretch to 1,750 but 1,500 would make my wife
happier. We both play Ferryman's Due and Winter Buoy, me on a 1440p panel at 165 Hz. I already own
a case and a power supply, both fairly new. Ray tracing is not for me, and neither is upscaling, I
see every smear. A white build would be lovely.""",
        {
            "budget": (150_000, 175_000),
            "games": ("ferrymans-due", "winter-buoy"),
            "size": (2560, 1440),
            "refresh_hz": 165.0,
            "own_kinds": ("case", "supply"),
            "upscaling": False,
            "colour": "white",
        },
    ),
    Letter(
        "capitals",
        """NEED A GAMING PC. 1000 EURO NOT A CENT MORE. KITEBALL ARENA AT 240 FPS, 1080P 240HZ. NO USED STUFF.
NEED AN OPERATING SYSTEM TOO.""",
        {
            "budget": (0, 100_000),
            "currency": "EUR",
            "games": ("kiteball-arena",),
            "fps": {"kiteball-arena": 240.0},
            "size": (1920, 1080),
            "refresh_hz": 240.0,
            "allow_used": False,
            "buys": ("system",),
        },
    ),
    Letter(
        "capitals",
        """BUDGET 1800. 4K 120 HZ SCREEN. HOLLOW MERIDIAN ON ULTRA, DROWNED PARISH. ANY UPSCALING OK.
SILENT PLEASE. 64GB RAM. WIFI.""",
        {
            "budget": (0, 180_000),
            "size": (3840, 2160),
            "refresh_hz": 120.0,
            "games": ("hollow-meridian", "drowned-parish"),
            "preset": {"hollow-meridian": "ultra"},
            "upscaling": True,
            "quiet": True,
            "memory_gb": 64.0,
            "wireless": True,
        },
    ),
    Letter(
        "capitals",
        """TWELVE BELLS AND KELP BARONS. FULL HD 75HZ. 650 TO 750 EUROS. MUST INCLUDE A KEYBOARD AND MOUSE AND A
SCREEN. BLACK CASE.""",
        {
            "budget": (65_000, 75_000),
            "currency": "EUR",
            "games": ("twelve-bells", "kelp-barons"),
            "size": (1920, 1080),
            "refresh_hz": 75.0,
            "buys": ("input", "display"),
            "colour": "black",
        },
    ),
    Letter(
        "parent",
        """Dear Sir or Madam, my daughter turns fourteen and wants to play Mudlark Stories and Lanternfolk with
her friends, and she also mentioned something called Causeway Clash. We do not want to pay more than
700 euros altogether. We have a television with 1920 x 1080 and 60 Hz that she can use. It stands in
her bedroom, so it should not be loud. She needs wireless internet.""",
        {
            "budget": (0, 70_000),
            "currency": "EUR",
            "games": ("mudlark-stories", "lanternfolk", "causeway-clash"),
            "size": (1920, 1080),
            "refresh_hz": 60.0,
            "quiet": True,
            "wireless": True,
        },
    ),
    Letter(
        "parent",
        """My son saves for a computer. He has 850 euros and grandma adds 150. The game is Ashfall Wardens, and
Ropewalk. His monitor shows 2560 by 1440 at 100 Hz. He would like one terabyte of space. It should
last five years. We would rather buy everything new.""",
        {
            "budget": (0, 100_000),
            "currency": "EUR",
            "games": ("ashfall-wardens", "ropewalk"),
            "size": (2560, 1440),
            "refresh_hz": 100.0,
            "storage_gb": 1000.0,
            "years": 5,
            "allow_used": False,
        },
    ),
    Letter(
        "parent",
        """We need a machine for both children: Tin Harbour for the elder, Net and Anchor for the younger one.
The budget is 15,000 kroner, at the very most 16,000. The display has to come with it, a 1440p one.
Please nothing with blinking lights, and nothing second-hand.""",
        {
            "budget": (1_500_000, 1_600_000),
            "currency": "NOK",
            "games": ("tin-harbour", "net-and-anchor"),
            "size": (2560, 1440),
            "buys": ("display",),
            "no_lights": True,
            "allow_used": False,
        },
    ),
)

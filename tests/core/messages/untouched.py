"""Fifteen letters in five other tones, never used for tuning."""

from tests.core.messages import Letter

LETTERS = (
    Letter(
        "formal",
        """To whom it may concern,

we intend to purchase a workstation for leisure purposes and request a proposal not exceeding EUR
1,350.00, delivery included. The titles to be operated are Hollow Meridian and Ferryman's Due. The
existing display offers a resolution of 2560 x 1440 pixels at a refresh rate of 144 Hz. Illumination
of components is not desired. Refurbished goods are excluded.

Yours faithfully""",
        {
            "budget": (0, 135_000),
            "currency": "EUR",
            "games": ("hollow-meridian", "ferrymans-due"),
            "size": (2560, 1440),
            "refresh_hz": 144.0,
            "no_lights": True,
            "allow_used": False,
        },
    ),
    Letter(
        "formal",
        """Dear Mr Halloran, further to our conversation I confirm the following particulars. Available funds:
2,100 euros, with an upper limit of 2,300 euros. Application: Deepwater Pilot and Low Orbit Salvage
on a screen of 3840 x 2160, 144 Hz. In addition, material for lectures is cut (video editing). The
system shall be as silent as practicable and shall comprise at least 64 GB of memory.""",
        {
            "budget": (210_000, 230_000),
            "currency": "EUR",
            "games": ("deepwater-pilot", "low-orbit-salvage"),
            "size": (3840, 2160),
            "refresh_hz": 144.0,
            "work": ("video editing",),
            "quiet": True,
            "memory_gb": 64.0,
        },
    ),
    Letter(
        "formal",
        """We kindly ask for an offer for one computer. Budget frame: EUR 900 to EUR 1,050. Software: Breakwater
Siege (144 frames per second on medium settings), Kelp Barons. Screen: 1920 x 1080, 144 Hz. The
enclosure shall be black and compact. A wireless connection is required. Operating system: to be
included.""",
        {
            "budget": (90_000, 105_000),
            "currency": "EUR",
            "games": ("breakwater-siege", "kelp-barons"),
            "fps": {"breakwater-siege": 144.0},
            "preset": {"breakwater-siege": "medium"},
            "size": (1920, 1080),
            "refresh_hz": 144.0,
            "colour": "black",
            "small": True,
            "wireless": True,
            "buys": ("system",),
        },
    ),
    Letter(
        "telegraph",
        """1250 eur stop 1440p 165hz stop gullwing circuit saltmarsh rally stop no lights stop wifi yes stop used
no stop""",
        {
            "budget": (0, 125_000),
            "currency": "EUR",
            "size": (2560, 1440),
            "refresh_hz": 165.0,
            "games": ("gullwing-circuit", "saltmarsh-rally"),
            "no_lights": True,
            "wireless": True,
            "allow_used": False,
        },
    ),
    Letter(
        "telegraph",
        """mudlark stories + paper lighthouse, fullhd 60hz, 500 tops, small + white, got ssd and psu already""",
        {
            "budget": (0, 50_000),
            "games": ("mudlark-stories", "paper-lighthouse"),
            "size": (1920, 1080),
            "refresh_hz": 60.0,
            "small": True,
            "colour": "white",
            "own_kinds": ("storage", "supply"),
        },
    ),
    Letter(
        "telegraph",
        """vantage null rt on 60fps / drowned parish / uwqhd 100hz / 1700-1850 / upscaling ok / 2tb / no hdd""",
        {
            "budget": (170_000, 185_000),
            "games": ("vantage-null", "drowned-parish"),
            "ray_tracing": ("vantage-null",),
            "fps": {"vantage-null": 60.0},
            "size": (3440, 1440),
            "refresh_hz": 100.0,
            "upscaling": True,
            "storage_gb": 2000.0,
            "no_disks": True,
        },
    ),
    Letter(
        "forum",
        """First post, be gentle :) Looking for a build around the 1.4k mark, could go 1.5k for the right gpu.
Mainly Brinewalkers and Winter Buoy @ 1440p, monitor is 170hz. Aiming for 90+ fps in Brinewalkers on
high. Not a fan of RGB. Open to used parts from trusted sellers. Already have a Saltgrove Casement
27 and a case.""",
        {
            "budget": (140_000, 150_000),
            "games": ("brinewalkers", "winter-buoy"),
            "size": (2560, 1440),
            "refresh_hz": 170.0,
            "fps": {"brinewalkers": 90.0},
            "preset": {"brinewalkers": "high"},
            "no_lights": True,
            "allow_used": True,
            "owned": ("saltgrove-casement-27",),
            "own_kinds": ("case",),
        },
    ),
    Letter(
        "forum",
        """Budget? 1k-ish, hard cap 1100€. What for? Cold Harbour Nine at 240fps low settings (competitive),
sometimes Twelve Bells. 1080p/240Hz panel. Noise matters to me, lights don't, the box goes under the
desk. I stream twice a week. Please no Ampherst psu, had one die.""",
        {
            "budget": (100_000, 110_000),
            "currency": "EUR",
            "games": ("cold-harbour-nine", "twelve-bells"),
            "fps": {"cold-harbour-nine": 240.0},
            "preset": {"cold-harbour-nine": "low"},
            "size": (1920, 1080),
            "refresh_hz": 240.0,
            "quiet": True,
            "work": ("streaming",),
            "no_makers": ("Ampherst",),
        },
    ),
    Letter(
        "forum",
        """Upgrade itch. 4k/120 oled on the way, Ashfall Wardens and Hollow Meridian maxed out if possible, 60fps
is plenty. 2.5k total incl. OS, no exceptions. ITX would be sweet. Won't buy second hand. Planning to
keep it 5 yrs.""",
        {
            "budget": (0, 250_000),
            "games": ("ashfall-wardens", "hollow-meridian"),
            "size": (3840, 2160),
            "refresh_hz": 120.0,
            "preset": {"ashfall-wardens": "ultra", "hollow-meridian": "ultra"},
            "fps": {"ashfall-wardens": 60.0, "hollow-meridian": 60.0},
            "buys": ("system",),
            "small": True,
            "allow_used": False,
            "years": 5,
        },
    ),
    Letter(
        "questions",
        """How much do you want to spend? Up to 1,150 EUR.
Which games? Tin Harbour, Thousand Towers, Gable Row.
Which display? 2560x1440 with 100 Hz.
Anything you own already? Keyboard and mouse.
Used parts? No.
Looks? White, no lighting.
Anything else? Wireless LAN.""",
        {
            "budget": (0, 115_000),
            "currency": "EUR",
            "games": ("tin-harbour", "thousand-towers", "gable-row"),
            "size": (2560, 1440),
            "refresh_hz": 100.0,
            "own_kinds": ("input",),
            "allow_used": False,
            "colour": "white",
            "no_lights": True,
            "wireless": True,
        },
    ),
    Letter(
        "questions",
        """Price range: NOK 12 000 - 14 000
Titles played: Causeway Clash (competitive, 1 % low of 144 fps), Kiteball Arena
Screen: 1080p, 144 Hz
Upscaling acceptable: no
Ray tracing: no
Noise: as low as possible
Storage: 1 TB SSD, no HDD""",
        {
            "budget": (1_200_000, 1_400_000),
            "currency": "NOK",
            "games": ("causeway-clash", "kiteball-arena"),
            "fps": {"causeway-clash": 144.0},
            "size": (1920, 1080),
            "refresh_hz": 144.0,
            "upscaling": False,
            "quiet": True,
            "storage_gb": 1000.0,
            "no_disks": True,
        },
    ),
    Letter(
        "questions",
        """Q: What is it for? A: The Quiet Lock and Ropewalk. Office work besides.
Q: What may it cost? A: 600, 650 if need be.
Q: Monitor? A: Still to be bought, full HD will do.
Q: Old parts? A: I have 16 GB of RAM and a hard disk to carry over.""",
        {
            "budget": (60_000, 65_000),
            "games": ("the-quiet-lock", "ropewalk"),
            "size": (1920, 1080),
            "buys": ("display",),
            "own_kinds": ("memory", "storage"),
        },
    ),
    Letter(
        "foreign",
        """Hello, excuse my english. I search a computer for play Deepwater Pilot and Winter Buoy. I can pay
1.300 euro, maximum 1.450 euro. My screen make 2560x1440 and 144 hz. Must be silent please, I have
baby. I not want used things. Thank you very much.""",
        {
            "budget": (130_000, 145_000),
            "currency": "EUR",
            "games": ("deepwater-pilot", "winter-buoy"),
            "size": (2560, 1440),
            "refresh_hz": 144.0,
            "quiet": True,
            "allow_used": False,
        },
    ),
    Letter(
        "foreign",
        """Good day. The price should be from 1000 until 1200 euro. The games are Brinewalkers, Net and Anchor,
Kelp Barons. Resolution is WQHD, 75 Hz. I want that the computer is black and without colored lights.
I have already the power supply and two SSD. WLAN is necessary.""",
        {
            "budget": (100_000, 120_000),
            "currency": "EUR",
            "games": ("brinewalkers", "net-and-anchor", "kelp-barons"),
            "size": (2560, 1440),
            "refresh_hz": 75.0,
            "colour": "black",
            "no_lights": True,
            "own_kinds": ("supply", "storage"),
            "wireless": True,
        },
    ),
    Letter(
        "foreign",
        """Hi, for my boyfriend is the present. He play Vantage Null and Saltmarsh Rally, he say 60 fps with
raytracing in Vantage Null he dream of. Money I have 1 600 euros. TV is 4K 60 Hz. He has mouse and
keyboard. Little box is better, the table is small. Also used pieces are ok for me.""",
        {
            "budget": (0, 160_000),
            "currency": "EUR",
            "games": ("vantage-null", "saltmarsh-rally"),
            "fps": {"vantage-null": 60.0},
            "ray_tracing": ("vantage-null",),
            "size": (3840, 2160),
            "refresh_hz": 60.0,
            "own_kinds": ("input",),
            "small": True,
            "allow_used": True,
        },
    ),
)

"""More made-up parts in series: the same columns as the families, one row for each size or
socket.
"""

from typing import Any

# socket -> chipsets from plain to grand, type, GB for two and four slots, MT/s, PCIe
PLATFORMS = {
    "Bollard": (("Tern", "Petrel", "Petrel"), "DDR4", 64, 128, 3600, 4),
    "Capstan": (("Fulmar", "Skua", "Gyrfalcon"), "DDR5", 96, 192, 6400, 5),
    "Tiller": (("Dunlin", "Whimbrel", "Whimbrel"), "DDR4", 64, 128, 3600, 3),
    "Rudder": (("Sandpiper", "Curlew", "Kestrel"), "DDR5", 96, 192, 6800, 5),
}

# maker, series, place among the chipsets, form, slots, M.2, SATA, processor 8-pin, outputs, EUR for
# DDR4 and DDR5
BOARD_SERIES = [
    ("Pellworth", "Groyne Micro", 0, "Micro-ATX", 2, 1, 4, 1, "HDMI", 58, 84),
    ("Saltgrove", "Mole Micro", 1, "Micro-ATX", 4, 2, 4, 1, "HDMI;DisplayPort", 88, 125),
    ("Saltgrove", "Mole Full", 1, "ATX", 4, 3, 6, 2, "HDMI;DisplayPort", 109, 155),
    ("Kitefall", "Sluice Full", 1, "ATX", 4, 2, 4, 1, "HDMI", 92, 135),
    ("Dunmarrow", "Weatherboard", 2, "ATX", 4, 4, 6, 2, "HDMI;DisplayPort", 169, 265),
    ("Kitefall", "Sluice Mini", 1, "Mini-ITX", 2, 2, 2, 1, "HDMI;DisplayPort", 125, 175),
    ("Dunmarrow", "Weatherboard Wide", 2, "E-ATX", 4, 5, 8, 2, "HDMI;DisplayPort", 229, 349),
    ("Saltgrove", "Mole Mini", 0, "Mini-ITX", 2, 1, 2, 1, "HDMI", 99, 119),
    ("Kitefall", "Sluice Wide", 2, "ATX", 4, 3, 6, 2, "HDMI;DisplayPort", 139, 215),
    ("Pellworth", "Groyne Full", 0, "ATX", 4, 1, 4, 1, "HDMI", 72, 99),
]
BOARDS = [
    (
        maker,
        f"{series} {socket}",
        socket,
        chips[place],
        form,
        kind,
        slots,
        least if slots == 2 else most,
        mts,
        gen if place else max(3, gen - 1),
        m2,
        sata,
        eps,
        outputs,
        eur[kind == "DDR5"],
    )
    for maker, series, place, form, slots, m2, sata, eps, outputs, *eur in BOARD_SERIES
    for socket, (chips, kind, least, most, mts, gen) in PLATFORMS.items()
]

# maker, series, type, MT/s, CL, EUR and EUR per GB
KIT_SERIES = [
    ("Bramblebyte", "Teasel", "DDR4", 3200, 16, 9, 1.55),
    ("Quickfen", "Marram", "DDR4", 3600, 16, 11, 1.75),
    ("Bramblebyte", "Teasel Show", "DDR4", 3600, 18, 20, 1.75),
    ("Bramblebyte", "Burdock", "DDR5", 5600, 40, 12, 2.15),
    ("Quickfen", "Marram", "DDR5", 6000, 34, 16, 2.5),
    ("Quickfen", "Marram Low", "DDR5", 6000, 36, 18, 2.5),
    ("Bramblebyte", "Burdock Show", "DDR5", 6400, 36, 32, 2.7),
]
KIT_SIZES = [
    ("Single", 1, 8, 1),
    ("Single", 1, 16, 1),
    ("Pair", 2, 8, 1),
    ("Pair", 2, 24, 1),
    ("Pair", 2, 16, 1),
    ("Pair", 2, 32, 2),
    ("Four", 4, 16, 1),
]
KITS = [
    (
        maker,
        f"{series} {sticks * gb} {word}",
        kind,
        mts,
        cl,
        sticks,
        gb,
        ranks,
        round(base + per_gb * sticks * gb),
    )
    for maker, series, kind, mts, cl, base, per_gb in KIT_SERIES
    for word, sticks, gb, ranks in KIT_SIZES
] + [
    ("Quickfen", "Cordage 64 Pair Registered", "DDR5", 4800, 40, 2, 32, 2, 99),
    ("Quickfen", "Cordage 32 Pair Registered", "DDR4", 2666, 19, 2, 16, 2, 39),
    ("Bramblebyte", "Burdock 32 Pair Careful", "DDR5", 5600, 46, 2, 16, 1, 109),
]

ODD_KITS: list[tuple[Any, ...]] = [("Quickfen", "Marram 128 Four", "DDR4", 3200, 18, 4, 32, 2, 249)]

# maker, series, interface, MB/s, EUR and EUR per TB
DRIVE_SERIES = [
    ("Stonepier", "Shingle", "M.2 NVMe", 3400, 14, 46),
    ("Ledgerock", "Cobble", "M.2 NVMe", 5100, 16, 56),
    ("Ledgerock", "Cairn", "M.2 NVMe", 7400, 22, 68),
    ("Stonepier", "Boulder", "SATA", 550, 15, 54),
]
DRIVES = [
    (maker, f"{series} {gb}", interface, gb, speed, round(base + per_tb * gb / 1000))
    for maker, series, interface, speed, base, per_tb in DRIVE_SERIES
    for gb in (250, 500, 1000, 2000, 4000, 8000)
] + [
    ("Stonepier", "Drum 8000", "SATA", 8000, 210, 149),
    ("Stonepier", "Drum 2000", "SATA", 2000, 190, 62),
    ("Ledgerock", "Spoil 1000", "M.2 NVMe", 1000, 2400, 41),
    ("Ledgerock", "Cairn Long 4000", "M.2 NVMe", 4000, 7000, 329),
    ("Ledgerock", "Cobble Short 1000", "M.2 NVMe", 1000, 4800, 92),
    ("Stonepier", "Scree 2000", "M.2 NVMe", 2000, 12400, 219),
]

ALL_SOCKETS = "Bollard;Capstan;Tiller;Rudder"
# maker, model, sockets, height mm, W, dB(A), EUR
COOLERS = [
    ("Coldreach", "Draught", ALL_SOCKETS, 62, 85, 36.0, 12),
    ("Coldreach", "Draught Plus", ALL_SOCKETS, 92, 105, 33.0, 16),
    ("Coldreach", "Cat's Paw", ALL_SOCKETS, 132, 140, 28.0, 24),
    ("Coldreach", "Cat's Paw Black", ALL_SOCKETS, 132, 140, 28.0, 27),
    ("Coldreach", "Squall Show", "Bollard;Capstan;Rudder", 156, 185, 28.0, 44),
    ("Coldreach", "Trade Wind", ALL_SOCKETS, 155, 195, 24.0, 52),
    ("Coldreach", "Trade Wind Twin", ALL_SOCKETS, 163, 240, 23.0, 74),
    ("Fennwick", "Neap Tide", ALL_SOCKETS, 54, 100, 31.0, 39),
    ("Fennwick", "Slack Water", ALL_SOCKETS, 145, 160, 20.0, 59),
    ("Fennwick", "Slack Water Twin", ALL_SOCKETS, 160, 230, 21.0, 89),
    ("Fennwick", "Rip", "Capstan;Rudder", 155, 210, 27.0, 42),
    ("Fennwick", "Rip Pale", "Capstan;Rudder", 155, 210, 27.0, 46),
    ("Coldreach", "Lull", "Capstan;Rudder", 120, 125, 21.0, 35),
    ("Coldreach", "Puff", ALL_SOCKETS, 45, 65, 38.0, 9),
]
# maker, model, sockets, pump mm, W, dB(A), EUR, radiator mm
LIQUID_COOLERS = [
    ("Fennwick", "Undertow 120", ALL_SOCKETS, 47, 150, 33.0, 59, 120),
    ("Fennwick", "Undertow 240", ALL_SOCKETS, 47, 230, 30.0, 85, 240),
    ("Fennwick", "Undertow 280", ALL_SOCKETS, 47, 260, 28.0, 105, 280),
    ("Fennwick", "Undertow 360", ALL_SOCKETS, 47, 320, 28.0, 129, 360),
    ("Coldreach", "Millrace 240", "Capstan;Rudder", 52, 240, 32.0, 79, 240),
    ("Coldreach", "Millrace 360", "Capstan;Rudder", 52, 310, 31.0, 115, 360),
]

# maker, series, form, spike share, 16-pin from W, level, EUR and EUR per 100 W
SUPPLY_SERIES = [
    ("Lowhum", "Level", "ATX", 1.45, 750, "Bronze", 22, 6.9),
    ("Ampherst", "Ballast", "ATX", 1.6, 750, "Gold", 32, 8.6),
    ("Ampherst", "Ballast Black", "ATX", 1.6, 750, "Gold", 36, 8.6),
    ("Ampherst", "Bedrock", "ATX", 1.75, 750, "Titanium", 79, 14.5),
]
SUPPLIES = [
    (
        maker,
        f"{series} {watts}",
        watts,
        round(watts * spike / 10) * 10,
        form,
        1 if watts < 650 else 2,
        2 if watts < 650 else 4,
        1 if watts >= from_w else 0,
        level,
        round(base + per * watts / 100),
    )
    for maker, series, form, spike, from_w, level, base, per in SUPPLY_SERIES
    for watts in (450, 550, 650, 750, 850, 1000)
    if not (series == "Bedrock" and watts < 650)
] + [
    ("Ampherst", "Small Ballast 500", 500, 720, "SFX", 1, 2, 0, "Gold", 89),
    ("Ampherst", "Small Ballast 850", 850, 1360, "SFX", 2, 4, 1, "Platinum", 169),
    ("Lowhum", "Small 300", 300, 330, "SFX", 1, 0, 0, "Bronze", 45),
    ("Lowhum", "Bargain 500", 500, 380, "ATX", 1, 2, 0, "", 24),
]

# maker, model, boards, supplies, card mm, cooler mm, fans, litres, airflow, EUR
FULL, MICRO = "ATX;Micro-ATX;Mini-ITX", "Micro-ATX;Mini-ITX"
CASES = [
    ("Boxwood Yard", "Galley", FULL, "ATX", 340, 160, 2, 41, "mesh", 52),
    ("Boxwood Yard", "Galley Glass", FULL, "ATX", 340, 160, 3, 41, "closed", 69),
    ("Boxwood Yard", "Galley Pale", FULL, "ATX", 340, 160, 2, 41, "mesh", 57),
    ("Boxwood Yard", "Hold", FULL, "ATX", 380, 175, 3, 52, "mesh", 89),
    ("Boxwood Yard", "Hold Wide", f"E-ATX;{FULL}", "ATX", 430, 185, 4, 68, "mesh", 139),
    ("Boxwood Yard", "Bulkhead", FULL, "ATX", 370, 178, 3, 55, "closed", 119),
    ("Boxwood Yard", "Skiff Box", MICRO, "ATX", 330, 158, 2, 31, "mesh", 55),
    ("Boxwood Yard", "Skiff Box Pale", MICRO, "ATX", 330, 158, 2, 31, "mesh", 59),
    ("Boxwood Yard", "Duffel", "Mini-ITX", "SFX", 305, 66, 1, 12, "mesh", 99),
    ("Boxwood Yard", "Ditty Box", "Mini-ITX", "SFX", 180, 60, 1, 8, "side vents", 75),
    ("Lidd & Frame", "Gangway", FULL, "ATX", 360, 168, 3, 45, "mesh", 95),
    ("Lidd & Frame", "Gangway Lit", FULL, "ATX", 360, 168, 4, 45, "mesh", 119),
    ("Lidd & Frame", "Skylight", FULL, "ATX", 400, 172, 3, 60, "side vents", 149),
    ("Lidd & Frame", "Skylight Small", MICRO, "ATX;SFX", 350, 165, 2, 38, "side vents", 115),
    ("Lidd & Frame", "Foredeck", FULL, "ATX", 325, 162, 1, 40, "closed", 59),
    ("Lidd & Frame", "Chart Table", MICRO, "ATX", 290, 110, 1, 22, "side vents", 85),
    ("Lidd & Frame", "Hatch Tall", "Mini-ITX", "SFX", 335, 140, 1, 17, "mesh", 139),
    ("Lidd & Frame", "Alcove", "Mini-ITX", "SFX;ATX", 310, 155, 1, 20, "mesh", 109),
    ("Boxwood Yard", "Stowage", MICRO, "ATX", 300, 150, 1, 27, "closed", 39),
    ("Lidd & Frame", "Lantern Room", FULL, "ATX", 415, 180, 6, 62, "side vents", 169),
    ("Boxwood Yard", "Trunk", f"E-ATX;{FULL}", "ATX", 390, 170, 2, 56, "mesh", 79),
]

# partner, trim, price factor, clock factor, length by watts (mm + mm per W), from this wattage on
PARTNERS = [
    ("Dunmarrow", "Broad", 1.01, 1.000, 200, 0.40, 100),
    ("Pellworth", "Pale", 1.06, 1.008, 214, 0.36, 130),
]

"""Hand-written families of made-up parts; the generator spells them out part by part."""

from datetime import date

# maker, model, socket, cores, threads, S, T, integrated R, sustained W, gaming W, boxed W, EUR, released
PROCESSORS = [
    ("Quillon", "Wherry Ebb 4", "Bollard", 4, 8, 58, 30, 7.5, 65, 48, 65, 79, date(2022, 3, 1)),
    ("Quillon", "Cutter Ebb 6", "Bollard", 6, 12, 66, 48, 8, 76, 55, 65, 109, date(2022, 3, 1)),
    ("Quillon", "Ketch Ebb 8", "Bollard", 8, 16, 71, 66, 8, 105, 72, None, 165, date(2022, 6, 1)),
    ("Quillon", "Barque Ebb 12", "Bollard", 12, 24, 72, 98, None, 142, 88, None, 239, date(2022, 9, 1)),
    ("Quillon", "Wherry Flood 4", "Capstan", 4, 8, 86, 45, 11, 60, 44, 65, 112, date(2024, 9, 1)),
    ("Quillon", "Cutter Flood 6", "Capstan", 6, 12, 97, 72, 12, 88, 62, 95, 189, date(2024, 9, 1)),
    ("Quillon", "Cutter Flood 6 Bare", "Capstan", 6, 12, 96, 71, None, 88, 62, 95, 159, date(2025, 1, 15)),
    ("Quillon", "Ketch Flood 8", "Capstan", 8, 16, 104, 100, 12, 120, 80, None, 289, date(2024, 9, 1)),
    ("Quillon", "Ketch Flood 8 Deep", "Capstan", 8, 16, 128, 98, 12, 120, 74, None, 419, date(2025, 4, 1)),
    ("Quillon", "Barque Flood 12", "Capstan", 12, 24, 107, 148, 12, 170, 104, None, 389, date(2024, 11, 1)),
    ("Quillon", "Galleass Flood 16", "Capstan", 16, 32, 109, 190, 12, 210, 125, None, 549, date(2024, 11, 1)),
    ("Quillon", "Skiff Flood 6 Low", "Capstan", 6, 12, 88, 62, 21, 45, 35, 65, 205, date(2025, 6, 1)),
    ("Quillon", "Skiff Flood 8 Low", "Capstan", 8, 16, 93, 86, 27, 54, 42, 65, 279, date(2025, 6, 1)),
    ("Marrowgate", "Gannet Dun 4", "Tiller", 4, 4, 55, 22, 5, 65, 50, 65, 65, date(2021, 10, 1)),
    ("Marrowgate", "Heron Dun 6", "Tiller", 6, 12, 69, 46, 5.5, 95, 68, 65, 119, date(2022, 1, 10)),
    ("Marrowgate", "Osprey Dun 8", "Tiller", 8, 16, 75, 64, None, 125, 90, None, 169, date(2022, 1, 10)),
    ("Marrowgate", "Heron Slate 6", "Rudder", 6, 12, 93, 68, 9, 105, 74, 95, 165, date(2024, 10, 10)),
    ("Marrowgate", "Heron Slate 10", "Rudder", 10, 16, 101, 104, 9, 140, 95, None, 249, date(2024, 10, 10)),
    ("Marrowgate", "Osprey Slate 14", "Rudder", 14, 20, 108, 142, 10, 180, 118, None, 345, date(2024, 10, 10)),
    ("Marrowgate", "Osprey Slate 14 Bare", "Rudder", 14, 20, 108, 141, None, 180, 118, None, 319, date(2025, 1, 10)),
    ("Marrowgate", "Albatross Slate 20", "Rudder", 20, 28, 114, 196, 10, 240, 160, None, 529, date(2024, 10, 10)),
    ("Marrowgate", "Petrel Slate 4", "Rudder", 4, 8, 82, 40, 8, 58, 45, 65, 99, date(2025, 2, 1)),
    ("Marrowgate", "Heron Slate 6 Low", "Rudder", 6, 12, 86, 58, 18, 48, 38, 65, 189, date(2025, 5, 20)),
    ("Marrowgate", "Foundry Slate 24", "Rudder", 24, 48, 84, 215, None, 225, 140, None, 689, date(2024, 12, 1)),
]

# Earlier generations, mostly sold used by now: the same columns and the end of sale.
EARLIER_PROCESSORS = [
    ("Quillon", "Wherry Neap 4", "Thwart", 4, 8, 44, 22, 5, 65, 48, 65, 39, date(2018, 3, 1), date(2021, 6, 1)),
    ("Quillon", "Cutter Neap 6", "Thwart", 6, 12, 49, 35, 5, 65, 52, 65, 55, date(2018, 3, 1), date(2021, 9, 1)),
    ("Quillon", "Ketch Neap 8", "Thwart", 8, 16, 52, 47, None, 95, 66, None, 79, date(2018, 9, 1), date(2021, 9, 1)),
    ("Marrowgate", "Gannet Moss 2", "Gunwale", 2, 4, 38, 11, 4, 54, 40, 54, 25, date(2017, 10, 1), date(2020, 6, 1)),
    ("Marrowgate", "Gannet Moss 4", "Gunwale", 4, 4, 46, 18, 4, 65, 48, 65, 35, date(2017, 10, 1), date(2020, 10, 1)),
    ("Marrowgate", "Heron Moss 6", "Gunwale", 6, 6, 51, 29, 4.5, 65, 55, 65, 52, date(2018, 10, 1), date(2021, 3, 1)),
    ("Marrowgate", "Osprey Moss 8", "Gunwale", 8, 16, 58, 44, None, 95, 74, None, 95, date(2019, 2, 1), date(2021, 9, 1)),
]

# socket -> memory type, rated MT/s, CL, most MT/s, most GB, PCIe generation and lanes to the card
SOCKETS = {
    "Bollard": ("DDR4", 3200, 16, 3600, 128, 4, 16),
    "Thwart": ("DDR4", 2666, 16, 3200, 64, 3, 16),
    "Gunwale": ("DDR4", 2400, 16, 2666, 64, 3, 16),
    "Tiller": ("DDR4", 3200, 16, 3600, 128, 3, 16),
    "Capstan": ("DDR5", 5600, 36, 6400, 192, 5, 16),
    "Rudder": ("DDR5", 5600, 36, 6800, 192, 5, 16),
}

# maker, chip, GB, R at 1080/1440/2160, Q, watts, spike, 8-pin, 16-pin, PCIe gen, lanes, upscalers, EUR, released
CHIPS = [
    ("Marlpoint", "Skerry", 4, 30, 28, 24, None, 75, 1.2, 0, 0, 4, 8, "Spyglass", 105, date(2022, 5, 1)),
    ("Orlop", "Wick", 8, 56, 52, 45, None, 185, 1.5, 2, 0, 3, 16, "", 169, date(2020, 8, 1)),
    ("Orlop", "Lantern", 6, 42, 41, 36, None, 115, 1.3, 1, 0, 4, 8, "Spyglass", 145, date(2022, 9, 1)),
    ("Marlpoint", "Holm", 8, 59, 57, 52, 38, 132, 1.4, 1, 0, 4, 8, "Spyglass", 209, date(2023, 3, 1)),
    ("Nacre", "Shoal", 8, 66, 64, 57, 62, 140, 1.3, 1, 0, 4, 8, "Driftlens;Spyglass", 259, date(2023, 6, 1)),
    ("Orlop", "Beacon", 12, 81, 81, 77, 60, 195, 1.5, 2, 0, 4, 16, "Spyglass", 309, date(2023, 10, 1)),
    ("Nacre", "Reef", 8, 92, 88, 74, 92, 172, 1.3, 1, 0, 5, 8, "Driftlens;Spyglass", 349, date(2025, 3, 1)),
    ("Nacre", "Reef", 16, 92, 91, 86, 92, 178, 1.3, 1, 0, 5, 8, "Driftlens;Spyglass", 429, date(2025, 3, 1)),
    ("Marlpoint", "Ness", 16, 106, 107, 105, 76, 250, 1.6, 2, 0, 4, 16, "Spyglass", 445, date(2024, 2, 1)),
    ("Nacre", "Bank", 12, 126, 124, 117, 128, 228, 1.4, 0, 1, 5, 16, "Driftlens;Spyglass", 589, date(2025, 2, 1)),
    ("Orlop", "Pharos", 16, 139, 141, 142, 108, 304, 1.7, 3, 0, 5, 16, "Spyglass", 659, date(2025, 3, 15)),
    ("Nacre", "Trench", 16, 165, 166, 164, 170, 305, 1.5, 0, 1, 5, 16, "Driftlens;Spyglass", 909, date(2025, 1, 30)),
    ("Nacre", "Fathom", 24, 207, 212, 218, 216, 425, 1.6, 0, 1, 5, 16, "Driftlens;Spyglass", 1689, date(2025, 1, 30)),
]

# Earlier chips, mostly sold used by now: the same columns and the end of sale.
EARLIER_CHIPS = [
    ("Orlop", "Taper", 2, 15, 12, 8, None, 60, 1.2, 0, 0, 3, 8, "", 45, date(2017, 5, 1), date(2020, 2, 1)),
    ("Orlop", "Taper", 4, 18, 17, 14, None, 70, 1.2, 0, 0, 3, 8, "", 59, date(2017, 9, 1), date(2020, 9, 1)),
    ("Marlpoint", "Ayre", 3, 26, 22, 15, None, 110, 1.4, 1, 0, 3, 16, "", 65, date(2018, 4, 1), date(2020, 12, 1)),
    ("Marlpoint", "Ayre", 6, 31, 29, 25, None, 120, 1.4, 1, 0, 3, 16, "", 85, date(2018, 4, 1), date(2021, 3, 1)),
    ("Nacre", "Cove", 6, 37, 36, 31, None, 120, 1.3, 1, 0, 3, 16, "Spyglass", 109, date(2019, 3, 1), date(2021, 10, 1)),
    ("Marlpoint", "Stack", 8, 47, 46, 42, None, 165, 1.4, 2, 0, 3, 16, "Spyglass", 139, date(2019, 7, 1), date(2022, 2, 1)),
    ("Nacre", "Inlet", 8, 53, 52, 47, 34, 175, 1.4, 2, 0, 3, 16, "Driftlens;Spyglass", 165, date(2020, 2, 1), date(2022, 9, 1)),
]

# (maker, first year) -> design: the generation that games take to alike
CHIP_DESIGNS = ((2015, "Marl"), (2021, "Chalk"), (2024, "Flint"))

# Ends of sale among the parts above.
WITHDRAWN = {
    "Wherry Ebb 4": date(2025, 3, 1), "Osprey Dun 8": date(2025, 6, 1), "Gannet Dun 4": date(2024, 12, 1),
    "Orlop Wick": date(2023, 6, 1), "Marlpoint Skerry": date(2025, 9, 1),
}  # fmt: skip

# partner, trim, price factor, clock factor, length by watts (mm + mm per W), trims from this wattage on
PARTNERS = [
    ("Pellworth", "Plain", 1.00, 1.000, 178, 0.36, 0),
    ("Dunmarrow", "Twin", 1.03, 1.005, 192, 0.38, 0),
    ("Kitefall", "Triple", 1.08, 1.020, 226, 0.36, 150),
    ("Saltgrove", "Short", 1.05, 0.985, 160, 0.20, 0),
]

# maker, model, socket, chipset, form, type, slots, GB, MT/s, PCIe, M.2, SATA, 8-pin, outputs, EUR
BOARDS = [
    ("Kitefall", "Jetty Micro", "Bollard", "Tern", "Micro-ATX", "DDR4", 2, 64, 3200, 3, 1, 4, 1, "HDMI", 62),
    ("Dunmarrow", "Slipway Micro", "Bollard", "Petrel", "Micro-ATX", "DDR4", 4, 128, 3600, 4, 2, 4, 1, "HDMI;DisplayPort", 84),
    ("Pellworth", "Quay Full", "Bollard", "Petrel", "ATX", "DDR4", 4, 128, 3600, 4, 2, 6, 1, "HDMI;DisplayPort", 99),
    ("Saltgrove", "Cove Mini", "Bollard", "Petrel", "Mini-ITX", "DDR4", 2, 64, 3600, 4, 1, 4, 1, "HDMI;DisplayPort", 119),
    ("Kitefall", "Jetty Micro Five", "Capstan", "Fulmar", "Micro-ATX", "DDR5", 2, 96, 5600, 4, 1, 4, 1, "HDMI", 88),
    ("Dunmarrow", "Slipway Micro Five", "Capstan", "Fulmar", "Micro-ATX", "DDR5", 4, 192, 6400, 4, 2, 4, 1, "HDMI;DisplayPort", 119),
    ("Pellworth", "Quay Full Five", "Capstan", "Skua", "ATX", "DDR5", 4, 192, 6400, 4, 3, 4, 1, "HDMI;DisplayPort", 149),
    ("Dunmarrow", "Slipway Full Five", "Capstan", "Skua", "ATX", "DDR5", 4, 192, 6400, 5, 3, 6, 2, "HDMI;DisplayPort", 189),
    ("Kitefall", "Jetty Grand", "Capstan", "Gyrfalcon", "ATX", "DDR5", 4, 192, 6400, 5, 4, 6, 2, "HDMI;DisplayPort", 289),
    ("Saltgrove", "Cove Mini Five", "Capstan", "Skua", "Mini-ITX", "DDR5", 2, 96, 6400, 5, 2, 2, 1, "HDMI;DisplayPort", 179),
    ("Pellworth", "Cove Mini Plain", "Capstan", "Fulmar", "Mini-ITX", "DDR5", 2, 96, 5600, 4, 1, 2, 1, "HDMI", 129),
    ("Kitefall", "Pontoon Micro", "Tiller", "Dunlin", "Micro-ATX", "DDR4", 2, 64, 3200, 3, 1, 4, 1, "HDMI", 55),
    ("Dunmarrow", "Staithe Micro", "Tiller", "Whimbrel", "Micro-ATX", "DDR4", 4, 128, 3600, 3, 2, 4, 1, "HDMI;DisplayPort", 79),
    ("Pellworth", "Wharf Full", "Tiller", "Whimbrel", "ATX", "DDR4", 4, 128, 3600, 3, 2, 6, 1, "HDMI;DisplayPort", 95),
    ("Kitefall", "Pontoon Micro Five", "Rudder", "Sandpiper", "Micro-ATX", "DDR5", 2, 96, 5600, 4, 1, 4, 1, "HDMI", 92),
    ("Dunmarrow", "Staithe Micro Five", "Rudder", "Curlew", "Micro-ATX", "DDR5", 4, 192, 6400, 5, 2, 4, 1, "HDMI;DisplayPort", 129),
    ("Pellworth", "Wharf Full Five", "Rudder", "Curlew", "ATX", "DDR5", 4, 192, 6400, 5, 3, 4, 1, "HDMI;DisplayPort", 159),
    ("Kitefall", "Pontoon Grand", "Rudder", "Kestrel", "ATX", "DDR5", 4, 192, 6800, 5, 5, 6, 2, "HDMI;DisplayPort", 319),
    ("Saltgrove", "Inlet Mini Five", "Rudder", "Curlew", "Mini-ITX", "DDR5", 2, 96, 6400, 5, 2, 2, 1, "HDMI;DisplayPort", 189),
    ("Dunmarrow", "Staithe Full Headless", "Rudder", "Sandpiper", "ATX", "DDR5", 4, 192, 5600, 4, 2, 4, 1, "", 99),
]

# maker, model, type, MT/s, CL, sticks, GB, ranks, EUR
KITS = [
    ("Bramblebyte", "Plain 8 Single", "DDR4", 2666, 19, 1, 8, 1, 19),
    ("Bramblebyte", "Plain 16 Single", "DDR4", 3200, 22, 1, 16, 1, 31),
    ("Bramblebyte", "Plain 16 Pair", "DDR4", 3200, 16, 2, 8, 1, 36),
    ("Quickfen", "Reed 16 Pair", "DDR4", 3600, 18, 2, 8, 1, 42),
    ("Quickfen", "Reed 32 Pair", "DDR4", 3600, 18, 2, 16, 2, 64),
    ("Bramblebyte", "Plain 32 Pair", "DDR4", 3200, 16, 2, 16, 2, 58),
    ("Quickfen", "Sedge 32 Pair", "DDR4", 4000, 16, 2, 16, 1, 109),
    ("Bramblebyte", "Thorn 16 Single", "DDR5", 4800, 40, 1, 16, 1, 44),
    ("Bramblebyte", "Thorn 32 Single", "DDR5", 5600, 46, 1, 32, 2, 82),
    ("Bramblebyte", "Thorn 16 Pair", "DDR5", 5200, 40, 2, 8, 1, 52),
    ("Bramblebyte", "Thorn 32 Pair", "DDR5", 5600, 36, 2, 16, 1, 88),
    ("Quickfen", "Rill 32 Pair", "DDR5", 6000, 36, 2, 16, 1, 96),
    ("Quickfen", "Rill 32 Pair Quick", "DDR5", 6000, 30, 2, 16, 1, 112),
    ("Quickfen", "Weir 32 Pair", "DDR5", 6400, 32, 2, 16, 1, 129),
    ("Quickfen", "Weir 32 Pair Show", "DDR5", 7200, 34, 2, 16, 1, 189),
    ("Bramblebyte", "Thorn 64 Pair", "DDR5", 5600, 40, 2, 32, 2, 169),
    ("Quickfen", "Rill 64 Pair", "DDR5", 6000, 32, 2, 32, 2, 215),
    ("Bramblebyte", "Thorn 64 Four", "DDR5", 5200, 40, 4, 16, 1, 175),
]

# maker, model, interface, GB, MB/s, EUR
DRIVES = [
    ("Stonepier", "Slate 240", "SATA", 240, 520, 24),
    ("Stonepier", "Slate 480", "SATA", 480, 540, 35),
    ("Stonepier", "Slate 960", "SATA", 960, 550, 62),
    ("Stonepier", "Slate 1920", "SATA", 1920, 550, 118),
    ("Ledgerock", "Ledge 250", "M.2 NVMe", 250, 2100, 29),
    ("Ledgerock", "Ledge 500", "M.2 NVMe", 500, 3300, 39),
    ("Ledgerock", "Ledge 1000", "M.2 NVMe", 1000, 3500, 58),
    ("Ledgerock", "Ledge 2000", "M.2 NVMe", 2000, 3600, 109),
    ("Ledgerock", "Scarp 1000", "M.2 NVMe", 1000, 7000, 79),
    ("Ledgerock", "Scarp 2000", "M.2 NVMe", 2000, 7200, 139),
    ("Ledgerock", "Scarp 4000", "M.2 NVMe", 4000, 7200, 289),
    ("Stonepier", "Granite 1000", "M.2 NVMe", 1000, 5000, 65),
    ("Stonepier", "Granite 2000", "M.2 NVMe", 2000, 5000, 119),
    ("Stonepier", "Granite 4000", "M.2 NVMe", 4000, 5000, 239),
    ("Stonepier", "Basalt 1000", "M.2 NVMe", 1000, 12000, 149),
    ("Stonepier", "Drum 4000", "SATA", 4000, 200, 89),
]

# maker, model, sockets, height mm, W, dB(A), EUR
COOLERS = [
    ("Fennwick", "Low Tide", "Bollard;Capstan;Tiller;Rudder", 37, 65, 34.0, 29),
    ("Fennwick", "Low Tide Wide", "Bollard;Capstan;Rudder", 47, 95, 33.0, 45),
    ("Fennwick", "Half Tide", "Bollard;Capstan;Tiller;Rudder", 70, 110, 30.0, 49),
    ("Coldreach", "Gust", "Bollard;Capstan;Tiller;Rudder", 125, 125, 31.0, 19),
    ("Coldreach", "Gust Plus", "Bollard;Capstan;Tiller;Rudder", 148, 150, 29.0, 26),
    ("Coldreach", "Squall", "Bollard;Capstan;Rudder", 154, 180, 27.0, 35),
    ("Coldreach", "Squall Twin", "Bollard;Capstan;Rudder", 157, 220, 26.0, 45),
    ("Coldreach", "Gale", "Capstan;Rudder", 165, 250, 25.0, 79),
    ("Fennwick", "High Tide", "Bollard;Capstan;Tiller;Rudder", 158, 200, 22.0, 69),
    ("Fennwick", "Spring Tide", "Capstan;Rudder", 168, 260, 21.0, 109),
    ("Coldreach", "Zephyr", "Tiller;Bollard", 119, 100, 32.0, 15),
    ("Coldreach", "Doldrum", "Capstan;Rudder", 136, 140, 19.0, 59),
]

# maker, model, W, spike W, form, processor 8-pin, 8-pin, 16-pin, level, EUR
SUPPLIES = [
    ("Lowhum", "Plain 400", 400, 430, "ATX", 1, 1, 0, "White", 35),
    ("Lowhum", "Plain 500", 500, 540, "ATX", 1, 2, 0, "Bronze", 45),
    ("Lowhum", "Even 550", 550, 690, "ATX", 1, 2, 0, "Bronze", 55),
    ("Lowhum", "Even 650", 650, 810, "ATX", 2, 4, 0, "Bronze", 65),
    ("Ampherst", "Steady 550", 550, 770, "ATX", 1, 2, 0, "Gold", 75),
    ("Ampherst", "Steady 650", 650, 940, "ATX", 2, 4, 0, "Gold", 85),
    ("Ampherst", "Steady 750", 750, 1120, "ATX", 2, 4, 1, "Gold", 99),
    ("Ampherst", "Steady 850", 850, 1300, "ATX", 2, 4, 1, "Gold", 119),
    ("Ampherst", "Steady 1000", 1000, 1600, "ATX", 2, 5, 1, "Gold", 159),
    ("Ampherst", "Still 850", 850, 1450, "ATX", 2, 4, 1, "Platinum", 175),
    ("Ampherst", "Still 1200", 1200, 2100, "ATX", 2, 6, 2, "Platinum", 269),
    ("Lowhum", "Small 450", 450, 520, "SFX", 1, 2, 0, "Bronze", 69),
    ("Ampherst", "Small Steady 600", 600, 840, "SFX", 1, 2, 0, "Gold", 99),
    ("Ampherst", "Small Steady 750", 750, 1120, "SFX", 2, 4, 1, "Gold", 135),
    ("Lowhum", "Bargain 700", 700, 560, "ATX", 1, 2, 0, "", 32),
    ("Lowhum", "Even 750", 750, 960, "ATX", 2, 4, 1, "Bronze", 79),
]

# maker, model, boards, supplies, card mm, cooler mm, fans, litres, airflow, EUR
CASES = [
    ("Boxwood Yard", "Crate", "ATX;Micro-ATX;Mini-ITX", "ATX", 330, 158, 1, 42, "mesh", 45),
    ("Boxwood Yard", "Crate Mesh", "ATX;Micro-ATX;Mini-ITX", "ATX", 345, 163, 3, 44, "mesh", 65),
    ("Boxwood Yard", "Sea Chest", "E-ATX;ATX;Micro-ATX;Mini-ITX", "ATX", 400, 180, 3, 58, "mesh", 109),
    ("Boxwood Yard", "Locker", "Micro-ATX;Mini-ITX", "ATX;SFX", 320, 160, 1, 29, "mesh", 49),
    ("Boxwood Yard", "Locker Small", "Micro-ATX;Mini-ITX", "SFX", 285, 130, 1, 19, "side vents", 69),
    ("Lidd & Frame", "Cabin", "ATX;Micro-ATX;Mini-ITX", "ATX", 355, 170, 2, 46, "closed", 85),
    ("Lidd & Frame", "Stateroom", "E-ATX;ATX;Micro-ATX;Mini-ITX", "ATX", 420, 185, 4, 65, "mesh", 159),
    ("Lidd & Frame", "Bunk", "Mini-ITX", "SFX", 215, 48, 0, 6, "side vents", 89),
    ("Lidd & Frame", "Berth", "Mini-ITX", "SFX", 322, 70, 0, 10, "mesh", 129),
    ("Lidd & Frame", "Hatch", "Mini-ITX;Micro-ATX", "SFX;ATX", 300, 155, 2, 24, "mesh", 95),
    ("Boxwood Yard", "Plank", "ATX;Micro-ATX;Mini-ITX", "ATX", 305, 155, 1, 38, "closed", 36),
    ("Lidd & Frame", "Porthole", "ATX;Micro-ATX;Mini-ITX", "ATX", 290, 165, 3, 45, "closed", 99),
]

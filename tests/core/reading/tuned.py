"""The half that the reader may be tuned on: the demo's lists and a few more, with their structure by hand."""

from tests.core.reading.expected import Sample, T
from wattmetron.demo.lists import LISTS

MOSS2, MOSS4, NEAP4, NEAP6 = "marrowgate-gannet-moss-2", "marrowgate-gannet-moss-4", "quillon-wherry-neap-4", "quillon-cutter-neap-6"
HMOSS6, EBB6, DUN6 = "marrowgate-heron-moss-6", "quillon-cutter-ebb-6", "marrowgate-heron-dun-6"
KNEAP8, OMOSS8, EBB8, ODUN8 = "quillon-ketch-neap-8", "marrowgate-osprey-moss-8", "quillon-ketch-ebb-8", "marrowgate-osprey-dun-8"
FLOOD6, SLATE6, FLOOD8, SLATE10 = "quillon-cutter-flood-6", "marrowgate-heron-slate-6", "quillon-ketch-flood-8", "marrowgate-heron-slate-10"
EBB4, DUN4, SLATE14 = "quillon-wherry-ebb-4", "marrowgate-gannet-dun-4", "marrowgate-osprey-slate-14"
P1080, P1440 = "1920x1080", "2560x1440"
T10, T11 = "Tidewater 10", "Tidewater 11"

DEMO: dict[str, tuple[str, tuple[T, ...]]] = {
    "causeway-clash": ("labels", (
        T("Minimum", f"{MOSS4} {NEAP4}", "orlop-taper@4", 8, None, 35, None, "Tidewater 10 64-bit", "Fairlead 11", P1080, "medium", 60),
        T("Recommended", f"{EBB6} {DUN6}", "orlop-lantern@6 nacre-cove@6", 16, None, 35, "SSD", "Tidewater 11 64-bit", "Fairlead 12", P1080, "medium", 144),
    )),
    "hollow-meridian": ("conditions in headings", (
        T("Minimum", f"{NEAP4} {MOSS4}", "marlpoint-ayre@6 marlpoint-skerry@4", 12, 4, 110, "SSD", T10, "", P1080, "low", 30),
        T("Recommended", f"{EBB6} {DUN6}", "orlop-beacon@12 nacre-reef@8", 16, 8, 110, "NVMe SSD", T11, "", P1080, "high", 60),
        T("Ultra", f"{FLOOD6} {SLATE6}", "nacre-bank@12 orlop-pharos@16", 16, 12, 110, "NVMe SSD", T11, "", P1440, "high", 60),
    )),
    "gullwing-circuit": ("bullets", (
        T("Minimum", f"{NEAP6} {HMOSS6}", "marlpoint-ayre@6 marlpoint-skerry@4", 8, None, 90, "hard disk", "Tidewater 10 (64-bit)", "", P1080, "low", 60),
        T("Recommended", f"{KNEAP8} {OMOSS8}", "nacre-inlet@8 orlop-wick@8 orlop-beacon@12", 12, None, 90, "SSD", "Tidewater 11 (64-bit)", "", P1080, "high", 60),
    )),
    "deepwater-pilot": ("clocks alone", (
        T("Minimum", "#4c3.2", "marlpoint-ayre@6", 16, None, 140, None, T10, "", P1080, "low", 30),
        T("Recommended", f"{SLATE14} {FLOOD8}", "orlop-beacon@12 nacre-reef@16", 32, None, 140, "NVMe SSD", T11, "", P1080, "high", 60),
    )),
    "ashfall-wardens": ("tabs", (
        T("Minimum", f"{KNEAP8} {OMOSS8}", "marlpoint-ayre@6 marlpoint-skerry@4", 8, None, 95, None, T10, "", P1080, "low", 60),
        T("Recommended", f"{EBB6} {DUN6}", "nacre-shoal@8 marlpoint-holm@8", 16, None, 95, "SSD", T10, "", P1080, "high", 60),
    )),
    "lanternfolk": ("prose", (
        T("Minimum", MOSS2, "orlop-taper@2", 4, None, 6, None, T10),
        T("Recommended", NEAP4, "marlpoint-ayre@3", 8, None, 6),
    )),
    "thousand-towers": ("label above value", (
        T("Minimum", f"{KNEAP8} {OMOSS8}", "marlpoint-ayre@3", 16, None, 30, None, T10, "", P1080, "low", 30),
        T("Recommended", f"{SLATE14} quillon-barque-flood-12", "orlop-taper@4", 16, None, 30, "SSD", T11, "", P1080, "medium", 60),
    )),
    "vantage-null": ("markdown table", (
        T("Entry", MOSS4, "marlpoint-skerry@4", 12, None, 85, "SSD", "", "Fairlead 12", P1080, "low", 30),
        T("Standard", f"{EBB6} {DUN6}", "nacre-reef@16", 16, None, 85, "SSD", "", "Fairlead 12", P1080, "high", 60),
        T("High", FLOOD6, "orlop-pharos@16 nacre-trench@16", 16, None, 85, "SSD", "", "Fairlead 12", P1440, "high", 60),
        T("Ray traced", FLOOD6, "nacre-trench@16", 16, None, 85, "SSD", "", "Fairlead 12", P1080, "high", 60, True),
    )),
    "kiteball-arena": ("terse", (
        T("min", f"{MOSS4} {NEAP4}", "orlop-taper@4", 4, None, 22, None, T10),
        T("rec", f"{EBB6} {DUN6}", "nacre-cove@6 orlop-lantern@6", 8, None, 22, "SSD", T11),
    )),
    "tin-harbour": ("megabytes and decimals", (
        T("Minimum", f"{NEAP6} {HMOSS6}", "orlop-taper@2", 8, None, 12.5, None, "Tidewater 10, 64 bit", "", P1080, "low", 30),
        T("Recommended", f"{FLOOD8} {SLATE10}", "marlpoint-stack@8 orlop-lantern@6", 16, 8, 12.5, "SSD", "Tidewater 11, 64 bit", "", P1080, "high", 60),
    )),
    "brinewalkers": ("markdown table", (
        T("Minimum", f"{DUN6} {EBB6}", "marlpoint-ayre", 12, None, 48, None, T10, "", P1080, "low", 60),
        T("Recommended", f"{EBB8} {ODUN8}", "nacre-shoal@8 marlpoint-holm@8", 16, None, 48, "SSD", T11, "", P1080, "high", 60),
    )),
    "low-orbit-salvage": ("key and value", (
        T("minimum", f"{EBB4} marrowgate-osprey-moss-8", "marlpoint-ayre@6 marlpoint-skerry@4", 12, None, 70, "SSD", T10, "", P1080, "low", 30),
        T("recommended", "quillon-skiff-flood-6-low marrowgate-heron-slate-6-low", "nacre-shoal@8 orlop-beacon@12", 16, None, 70, "SSD", T11, "", P1080, "high", 60),
    )),
    "saltmarsh-rally": ("run together", (
        T("Minimum", f"{HMOSS6} {NEAP6}", "marlpoint-ayre@6 marlpoint-skerry@4", 8, None, 60, None, T10, "", P1080, "low", 60),
        T("Recommended", f"{KNEAP8} {OMOSS8}", "nacre-inlet@8 orlop-wick@8", 12, None, 60, "SSD", T11, "", P1080, "high", 60),
    )),
    "the-quiet-lock": ("markup", (
        T("Minimum", MOSS4, "marlpoint-ayre@3", 8, None, 40, None, "Tidewater 10 64-bit", "", P1080, "low", 60),
        T("Recommended", NEAP6, "marlpoint-stack@8", 16, None, 40, None, "Tidewater 11 64-bit", "", P1080, "high", 60),
    )),
    "ferrymans-due": ("tier before label", (
        T("Minimum", f"{EBB6} {DUN6}", "nacre-shoal@8 marlpoint-holm@8", 16, None, 120, "SSD", "", "", P1080, "medium", 60),
        T("Recommended", f"{EBB8} {ODUN8}", "orlop-pharos@16 nacre-bank@12 orlop-wick@8", 16, None, 120, "NVMe SSD", "", "", P1440, "high", 60),
    )),
    "cold-harbour-nine": ("conditions in headings", (
        T("Minimum", f"{NEAP4} {MOSS4}", "orlop-taper@4", 8, None, 28, None, "", "", P1080, "low", 60),
        T("Recommended", f"{NEAP6} {HMOSS6}", "nacre-cove@6 orlop-lantern@6", 12, None, 28, None, "", "", P1080, "high", 60),
        T("Competitive", f"{EBB8} {ODUN8}", "orlop-wick@8 marlpoint-holm@8", 16, None, 28, "SSD", "", "", P1080, "medium", 144),
    )),
    "gable-row": ("flattened columns", (
        T("Minimum", f"{DUN4} ?quillon-pilot-5", "marlpoint-ayre@3", 8, None, 25, None, T10, "", P1080, "low", 30),
        T("Recommended", f"{FLOOD6} {SLATE6}", "orlop-lantern@6 marlpoint-stack@8", 16, None, 25, None, T11, "", P1080, "high", 60),
    )),
    "twelve-bells": ("tabs", (
        T("Minimum", f"{KNEAP8} {OMOSS8}", "marlpoint-ayre@6 marlpoint-skerry@4", 8, None, 65, None, "", "", P1080, "low", 60),
        T("Recommended", f"{EBB6} {DUN6}", "orlop-wick@8 marlpoint-holm@8", 16, None, 65, "SSD", "", "", P1080, "high", 60),
        T("Enthusiast", f"{EBB8} {ODUN8}", "nacre-reef@16 marlpoint-ness@16", 16, None, 65, "NVMe SSD", "", "", P1440, "high", 60),
    )),
    "drowned-parish": ("conditions in headings", (
        T("Minimum", f"{MOSS4} {NEAP4}", "marlpoint-ayre@3 marlpoint-skerry@4", 12, None, 75, "SSD", "", "", P1080, "low", 30, False),
        T("Recommended", f"{EBB6} {DUN6}", "nacre-bank@12", 16, None, 75, "SSD", "", "", P1080, "high", 60, True),
    )),
    "kelp-barons": ("prose", (
        T("Minimum", f"{EBB4} marrowgate-osprey-moss-8", "orlop-taper@4", 12, None, 18, None, "", "", P1080, "low", 30),
        T("Recommended", f"{FLOOD8} {SLATE10}", "nacre-cove@6 orlop-lantern@6", 16, None, 18, None, "", "", P1080, "high", 60),
    )),
    "mudlark-stories": ("clocks alone", (
        T("Minimum", "#2c2.4", "", 4, 1, 3, None, T10),
        T("Recommended", "#4c3", "orlop-taper@2", 8, None, 3, None, T10),
    )),
    "breakwater-siege": ("conditions in headings", (
        T("Minimum", f"{NEAP4} {MOSS4}", "marlpoint-ayre", 8, 3, 45, None, "", "", P1080, "medium", 60),
        T("Recommended", f"{EBB8} {ODUN8}", "marlpoint-holm nacre-shoal", 16, 8, 45, "SSD", "", "", P1080, "medium", 144),
    )),
    "paper-lighthouse": ("terse", (
        T("min", f"{NEAP4} {MOSS4}", "orlop-taper@2", 4, None, 9, None, "", "", P1080, "low", 60),
        T("rec", f"{NEAP6} {HMOSS6}", "marlpoint-ayre@3 marlpoint-skerry@4", 8, None, 9, "SSD", "", "", P1080, "high", 60),
    )),
    "winter-buoy": ("label above value", (
        T("Low", f"{EBB6} {DUN6}", "marlpoint-ayre@6 nacre-cove@6", 12, res=P1080, preset="low", fps=60),
        T("Medium", f"{EBB8} {ODUN8}", "marlpoint-stack@8 nacre-inlet@8", 16, res=P1080, preset="medium", fps=60),
        T("High", f"{FLOOD6} {SLATE6}", "orlop-beacon@12 nacre-reef@8", 12, res=P1080, preset="high", fps=60),
        T("Very high", f"{FLOOD6} {SLATE6}", "nacre-bank@12 orlop-pharos@16", 32, res=P1440, preset="high", fps=60),
    )),
    "net-and-anchor": ("markdown table", (
        T("Minimum", f"{HMOSS6} {NEAP6}", "orlop-taper@4", 16, None, 55, None, "", "", P1080, "low", 30),
        T("Recommended", f"{SLATE10} {FLOOD8}", "orlop-wick@8 nacre-reef@8", 32, None, 55, "SSD", "", "", P1080, "high", 60),
    )),
    "ropewalk": ("bullets", (
        T("Minimum", f"{MOSS4} {NEAP4}", "orlop-taper@4", 4, None, 15, None, "", "", "1280x720", "low", 60),
        T("Recommended", f"{NEAP6} {HMOSS6}", "nacre-cove@6 orlop-lantern@6", 8, None, 15, "SSD", "", "", P1080, "high", 60),
    )),
}

MORE = (
    Sample("unknown parts", """\
Minimum:
CPU: Quillon Wherry Gale 4 or equivalent
GPU: Orlop Cinder 4 GB
RAM: 8 GB
Recommended:
CPU: Marrowgate Heron Slate 6 Deep
GPU: Nacre Shoal Twin 8 GB
RAM: 16 GB
""", (
        T("Minimum", "?quillon-wherry-gale-4", "?orlop-cinder@4", 8),
        T("Recommended", "?marrowgate-heron-slate-6-deep", "?nacre-shoal-twin@8", 16),
    )),
    Sample("unknown parts", """\
Minimum:
CPU: Quillon Barge 3 or Marrowgate Gannet Moss 4
GPU: Nacre Spit 6 GB or Marlpoint Ayre 6 GB
RAM: 8 GB
Recommended:
CPU: Quillon Cutter Flood 6 Plus or Marrowgate Heron Slate 6
GPU: Nacre Reef Max 16 GB or Orlop Beacon 12 GB
RAM: 16 GB
""", (
        T("Minimum", f"?quillon-barge-3 {MOSS4}", "?nacre-spit@6 marlpoint-ayre@6", 8),
        T("Recommended", f"?quillon-cutter-flood-6-plus {SLATE6}", "?nacre-reef-max@16 orlop-beacon@12", 16),
    )),
    Sample("misspelt", """\
MINIMUM
Prozessor: Marowgate Gannet Moss 4
Graphic: Orlop Tapper 4 GB
Memmory: 8 GB
Storge: 20 GB
""", (T("Minimum", MOSS4, "orlop-taper@4", 8, None, 20),)),
    Sample("own names for tiers", """\
Low tide
Processor: Quillon Wherry Ebb 4
Graphics: Orlop Lantern 6 GB
Memory: 8 GB

High tide
Processor: Quillon Cutter Flood 6
Graphics: Nacre Reef 8 GB
Memory: 16 GB
""", (
        T("Low tide", EBB4, "orlop-lantern@6", 8),
        T("High tide", FLOOD6, "nacre-reef@8", 16),
    )),
    Sample("tier after label", """\
CPU (min): Quillon Cutter Neap 6
CPU (rec): Quillon Cutter Flood 6
GPU (min): Nacre Cove 6 GB
GPU (rec): Nacre Reef 16 GB
RAM (min): 8 GB
RAM (rec): 16 GB
""", (
        T("Min", NEAP6, "nacre-cove@6", 8),
        T("Rec", FLOOD6, "nacre-reef@16", 16),
    )),
)

TUNED = tuple(Sample(style, LISTS[game][2], tiers) for game, (style, tiers) in DEMO.items()) + MORE

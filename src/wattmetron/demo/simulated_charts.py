"""Hand-written list of the made-up world's charts: who measured what, in which unit, and how
well.
"""

from datetime import date

OLD_CHIPS = (
    "orlop-taper@2",
    "orlop-taper@4",
    "marlpoint-ayre@3",
    "marlpoint-ayre@6",
    "nacre-cove@6",
    "marlpoint-stack@8",
    "nacre-inlet@8",
)
MIDDLE_CHIPS = (
    "marlpoint-skerry@4",
    "orlop-lantern@6",
    "orlop-wick@8",
    "marlpoint-holm@8",
    "nacre-shoal@8",
    "orlop-beacon@12",
)
NEW_CHIPS = (
    "nacre-reef@8",
    "nacre-reef@16",
    "marlpoint-ness@16",
    "nacre-bank@12",
    "orlop-pharos@16",
    "nacre-trench@16",
    "nacre-fathom@24",
)
OLD_CORES = (
    "quillon-wherry-neap-4",
    "quillon-cutter-neap-6",
    "quillon-ketch-neap-8",
    "marrowgate-gannet-moss-2",
    "marrowgate-gannet-moss-4",
    "marrowgate-heron-moss-6",
    "marrowgate-osprey-moss-8",
)
MIDDLE_CORES = (
    "quillon-wherry-ebb-4",
    "quillon-cutter-ebb-6",
    "quillon-ketch-ebb-8",
    "marrowgate-gannet-dun-4",
    "marrowgate-heron-dun-6",
    "marrowgate-osprey-dun-8",
)
NEW_CORES = (
    "quillon-wherry-flood-4",
    "quillon-cutter-flood-6",
    "quillon-ketch-flood-8",
    "quillon-ketch-flood-8-deep",
    "quillon-barque-flood-12",
    "marrowgate-petrel-slate-4",
    "marrowgate-heron-slate-6",
    "marrowgate-heron-slate-10",
    "marrowgate-osprey-slate-14",
    "marrowgate-albatross-slate-20",
)

# id, source, measure, unit, unit per point, noise, published on, part with a slip, parts
CHARTS = [
    (
        "harbour-lab-1080p",
        "Harbour Lab",
        "1080p",
        "relative to Nacre Shoal = 100",
        1.515,
        0.015,
        date(2025, 6, 3),
        "",
        (*MIDDLE_CHIPS, *NEW_CHIPS),
    ),
    (
        "harbour-lab-1440p",
        "Harbour Lab",
        "1440p",
        "relative to Nacre Shoal = 100",
        1.562,
        0.015,
        date(2025, 6, 3),
        "",
        (*MIDDLE_CHIPS[2:], *NEW_CHIPS),
    ),
    (
        "harbour-lab-2160p",
        "Harbour Lab",
        "2160p",
        "relative to Nacre Shoal = 100",
        1.754,
        0.02,
        date(2025, 6, 3),
        "",
        NEW_CHIPS,
    ),
    (
        "three-gulls-table",
        "Three Gulls' counter table",
        "1080p",
        "fps over eight games",
        0.83,
        0.035,
        date(2025, 9, 9),
        "orlop-lantern@6",
        (*OLD_CHIPS[3:], *MIDDLE_CHIPS, *NEW_CHIPS[:4]),
    ),
    (
        "second-bench-tests",
        "The Second Bench",
        "1080p",
        "relative to Marlpoint Ayre = 100",
        3.22,
        0.025,
        date(2024, 3, 12),
        "",
        (*OLD_CHIPS, *MIDDLE_CHIPS[:3]),
    ),
    (
        "dry-dock-rays",
        "Dry Dock Weekly",
        "ray tracing",
        "fps",
        0.55,
        0.03,
        date(2025, 7, 20),
        "",
        ("marlpoint-holm@8", "nacre-shoal@8", "orlop-beacon@12", *NEW_CHIPS),
    ),
    (
        "dry-dock-games",
        "Dry Dock Weekly",
        "one core",
        "fps over six games",
        1.37,
        0.02,
        date(2025, 5, 14),
        "",
        (*MIDDLE_CORES, *NEW_CORES),
    ),
    (
        "second-bench-cores",
        "The Second Bench",
        "one core",
        "relative to Heron Dun 6 = 100",
        1.449,
        0.025,
        date(2024, 3, 12),
        "",
        (*OLD_CORES, *MIDDLE_CORES),
    ),
    (
        "dry-dock-rendering",
        "Dry Dock Weekly",
        "all cores",
        "points",
        118.0,
        0.015,
        date(2025, 5, 14),
        "",
        (*MIDDLE_CORES, *NEW_CORES),
    ),
]

# id, source, measure, published on, (part that the catalogue lacks, value)
LOOSE_CHARTS = [
    (
        "letter-from-afar",
        "A letter from afar",
        "1080p",
        date(2025, 8, 1),
        (("Nacre Spit 6 GB", 61.0), ("Orlop Cinder 4 GB", 44.0)),
    ),
]

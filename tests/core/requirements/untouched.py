"""The half that the reader is never tuned on: texts with their structure, written by hand
beforehand.
"""

from tests.core.requirements.expected import Sample, T

MOSS4, NEAP4, NEAP6, HMOSS6 = (
    "marrowgate-gannet-moss-4",
    "quillon-wherry-neap-4",
    "quillon-cutter-neap-6",
    "marrowgate-heron-moss-6",
)
EBB6, DUN6, EBB8, ODUN8 = (
    "quillon-cutter-ebb-6",
    "marrowgate-heron-dun-6",
    "quillon-ketch-ebb-8",
    "marrowgate-osprey-dun-8",
)
FLOOD6, SLATE6, FLOOD8, SLATE10 = (
    "quillon-cutter-flood-6",
    "marrowgate-heron-slate-6",
    "quillon-ketch-flood-8",
    "marrowgate-heron-slate-10",
)

UNTOUCHED = (
    Sample(
        "labels",
        """\
MINIMUM:
OS: Stillwater 4 (64-bit)
Processor: Quillon Wherry Ebb 4 | Marrowgate Gannet Dun 4
Memory: 6 GB RAM
Graphics: Marlpoint Ayre 3 GB | Orlop Taper 4 GB
API: Version Fairlead 11
Storage: 22 GB available space
RECOMMENDED:
OS: Stillwater 5 (64-bit)
Processor: Quillon Cutter Ebb 6 | Marrowgate Heron Dun 6
Memory: 12 GB RAM
Graphics: Nacre Shoal 8 GB | Orlop Wick 8 GB
Storage: 22 GB available space
Network: Broadband Internet connection
""",
        (
            T(
                "Minimum",
                "quillon-wherry-ebb-4 marrowgate-gannet-dun-4",
                "marlpoint-ayre@3 orlop-taper@4",
                6,
                None,
                22,
                None,
                "Stillwater 4 (64-bit)",
                "Fairlead 11",
            ),
            T(
                "Recommended",
                f"{EBB6} {DUN6}",
                "nacre-shoal@8 orlop-wick@8",
                12,
                None,
                22,
                None,
                "Stillwater 5 (64-bit)",
            ),
        ),
    ),
    Sample(
        "labels",
        """\
Minimum system requirements:

Operating System: Tidewater 10 64-bit (latest update)
CPU: Marrowgate Osprey Moss 8, Quillon Ketch Neap 8 or better
Graphics Card: Nacre Cove (6 GB), Orlop Lantern (6 GB)
System Memory: 16GB
Hard Drive Space: 100GB (SSD)
Display: 1920x1080

Recommended system requirements:

Operating System: Tidewater 11 64-bit
CPU: Marrowgate Heron Slate 10, Quillon Ketch Flood 8 or better
Graphics Card: Orlop Beacon (12 GB), Nacre Reef (16 GB)
System Memory: 32GB
Hard Drive Space: 100GB (SSD)
Display: 2560x1440
""",
        (
            T(
                "Minimum",
                "marrowgate-osprey-moss-8 quillon-ketch-neap-8",
                "nacre-cove@6 orlop-lantern@6",
                16,
                None,
                100,
                "SSD",
                "Tidewater 10 64-bit (latest update)",
                res="1920x1080",
            ),
            T(
                "Recommended",
                f"{SLATE10} {FLOOD8}",
                "orlop-beacon@12 nacre-reef@16",
                32,
                None,
                100,
                "SSD",
                "Tidewater 11 64-bit",
                res="2560x1440",
            ),
        ),
    ),
    Sample(
        "run together",
        """\
Minimum: OS: Tidewater 10 CPU: Quillon Wherry Neap 4 RAM: 4 GB GPU: Orlop Taper 2 GB HDD: 12 GB Recommended: OS: Tidewater 10 CPU: Quillon Cutter Neap 6 RAM: 8 GB GPU: Marlpoint Ayre 6 GB HDD: 12 GB
""",
        (
            T("Minimum", NEAP4, "orlop-taper@2", 4, None, 12, "hard disk", "Tidewater 10"),
            T("Recommended", NEAP6, "marlpoint-ayre@6", 8, None, 12, "hard disk", "Tidewater 10"),
        ),
    ),
    Sample(
        "run together",
        """\
OS: Tidewater 10; Processor: Marrowgate Gannet Dun 4; Memory: 8 GB; Graphics: Marlpoint Skerry 4 GB; Storage: 50 GB; OS: Tidewater 11; Processor: Marrowgate Heron Slate 6; Memory: 16 GB; Graphics: Nacre Reef 8 GB; Storage: 50 GB SSD
""",
        (
            T(
                "",
                "marrowgate-gannet-dun-4",
                "marlpoint-skerry@4",
                8,
                None,
                50,
                None,
                "Tidewater 10",
            ),
            T("", SLATE6, "nacre-reef@8", 16, None, 50, "SSD", "Tidewater 11"),
        ),
    ),
    Sample(
        "flattened columns",
        """\
Minimum
Recommended
OS
Tidewater 10
Tidewater 11
Processor
Quillon Wherry Ebb 4
Quillon Cutter Flood 6
RAM
8 GB
16 GB
Graphics card
Marlpoint Skerry
Nacre Reef 16 GB
Disk
40 GB
40 GB SSD
""",
        (
            T(
                "Minimum",
                "quillon-wherry-ebb-4",
                "marlpoint-skerry",
                8,
                None,
                40,
                None,
                "Tidewater 10",
            ),
            T("Recommended", FLOOD6, "nacre-reef@16", 16, None, 40, "SSD", "Tidewater 11"),
        ),
    ),
    Sample(
        "flattened columns",
        """\
MINIMUM   RECOMMENDED
Processor:
Marrowgate Heron Moss 6 / Quillon Cutter Neap 6
Quillon Ketch Ebb 8 / Marrowgate Osprey Dun 8
Video card:
Marlpoint Ayre 6 GB
Nacre Inlet 8 GB / Orlop Wick 8 GB
Memory:
8 GB
16 GB
Storage:
70 GB HDD
70 GB SSD
""",
        (
            T("Minimum", f"{HMOSS6} {NEAP6}", "marlpoint-ayre@6", 8, None, 70, "hard disk"),
            T("Recommended", f"{EBB8} {ODUN8}", "nacre-inlet@8 orlop-wick@8", 16, None, 70, "SSD"),
        ),
    ),
    Sample(
        "tabs",
        "Spec\tMinimum\tRecommended\nCPU\tMarrowgate Gannet Moss 4\tMarrowgate Heron Dun"
        " 6\nGPU\tOrlop Taper 4GB\tNacre Shoal"
        " 8GB\nRAM\t8GB\t16GB\nStorage\t30GB\t30GB\nVRAM\t4GB\t8GB\nOS\tTidewater 10\tTidewater"
        " 10\n",
        (
            T("Minimum", MOSS4, "orlop-taper@4", 8, 4, 30, None, "Tidewater 10"),
            T("Recommended", DUN6, "nacre-shoal@8", 16, 8, 30, None, "Tidewater 10"),
        ),
    ),
    Sample(
        "tabs",
        "\tLow\tMedium\tHigh\tUltra\nResolution\t1080p\t1080p\t1440p\t4K\nFPS\t30\t60\t60\t60\nCPU\tQuillon"
        " Wherry Ebb 4\tQuillon Cutter Ebb 6\tQuillon Cutter Flood 6\tQuillon Ketch Flood 8"
        " Deep\nGPU\tMarlpoint Skerry 4 GB\tMarlpoint Holm 8 GB\tMarlpoint Ness 16 GB\tNacre Fathom"
        " 24 GB\nRAM\t8 GB\t16 GB\t16 GB\t32 GB\n",
        (
            T("Low", "quillon-wherry-ebb-4", "marlpoint-skerry@4", 8, res="1920x1080", fps=30),
            T("Medium", EBB6, "marlpoint-holm@8", 16, res="1920x1080", fps=60),
            T("High", FLOOD6, "marlpoint-ness@16", 16, res="2560x1440", fps=60),
            T(
                "Ultra",
                "quillon-ketch-flood-8-deep",
                "nacre-fathom@24",
                32,
                res="3840x2160",
                fps=60,
            ),
        ),
    ),
    Sample(
        "markdown table",
        """\
| Requirement | Minimum | Recommended |
|:--|:--|:--|
| OS | Tidewater 10 | Tidewater 11 |
| CPU | Quillon Cutter Neap 6 | Quillon Ketch Ebb 8 or Marrowgate Osprey Dun 8 |
| RAM | 8 GB | 16 GB |
| GPU | Nacre Cove 6 GB | Orlop Beacon 12 GB |
| Storage | 85 GB | 85 GB (SSD) |
| API | Fairlead 12 | Fairlead 12 |
""",
        (
            T("Minimum", NEAP6, "nacre-cove@6", 8, None, 85, None, "Tidewater 10", "Fairlead 12"),
            T(
                "Recommended",
                f"{EBB8} {ODUN8}",
                "orlop-beacon@12",
                16,
                None,
                85,
                "SSD",
                "Tidewater 11",
                "Fairlead 12",
            ),
        ),
    ),
    Sample(
        "markdown table",
        """\
| Tier | CPU | GPU | RAM | Target |
|---|---|---|---|---|
| Minimum | Marrowgate Gannet Moss 4 | Marlpoint Ayre 3 GB | 8 GB | 1080p low, 30 fps |
| Recommended | Quillon Cutter Ebb 6 | Marlpoint Holm 8 GB | 16 GB | 1080p high, 60 fps |
""",
        (
            T("Minimum", MOSS4, "marlpoint-ayre@3", 8, res="1920x1080", preset="low", fps=30),
            T("Recommended", EBB6, "marlpoint-holm@8", 16, res="1920x1080", preset="high", fps=60),
        ),
    ),
    Sample(
        "bullets",
        """\
Minimum requirements
* Marrowgate Heron Moss 6 or equivalent
* Marlpoint Stack 8GB or equivalent
* 12GB of system memory
* 60GB of free space on an SSD
* Tidewater 10

Recommended requirements
* Quillon Ketch Ebb 8 or equivalent
* Orlop Beacon 12GB or equivalent
* 16GB of system memory
* 60GB of free space on an SSD
* Tidewater 11
""",
        (
            T("Minimum", HMOSS6, "marlpoint-stack@8", 12, None, 60, "SSD", "Tidewater 10"),
            T("Recommended", EBB8, "orlop-beacon@12", 16, None, 60, "SSD", "Tidewater 11"),
        ),
    ),
    Sample(
        "bullets",
        """\
Minimum:
– Quillon Wherry Neap 4 (4 cores) / Marrowgate Gannet Moss 4 (4 cores)
– 8 GiB RAM
– Orlop Taper 4 GiB
– 20 GiB storage
– Fairlead 11
Recommended:
– Quillon Cutter Neap 6 (6 cores) / Marrowgate Heron Moss 6 (6 cores)
– 16 GiB RAM
– Marlpoint Ayre 6 GiB
– 20 GiB storage
– Fairlead 12
""",
        (
            T("Minimum", f"{NEAP4} {MOSS4}", "orlop-taper@4", 8, None, 20, None, "", "Fairlead 11"),
            T(
                "Recommended",
                f"{NEAP6} {HMOSS6}",
                "marlpoint-ayre@6",
                16,
                None,
                20,
                None,
                "",
                "Fairlead 12",
            ),
        ),
    ),
    Sample(
        "prose",
        """\
For the minimum experience you will need a Quillon Cutter Neap 6 or a Marrowgate Heron Moss 6, a Marlpoint Ayre with 6 GB, 8 GB of RAM and 45 GB of storage. \
For the recommended experience you will need a Quillon Cutter Flood 6, a Nacre Reef with 8 GB, 16 GB of RAM and 45 GB of storage.
""",
        (
            T("Minimum", f"{NEAP6} {HMOSS6}", "marlpoint-ayre@6", 8, None, 45),
            T("Recommended", FLOOD6, "nacre-reef@8", 16, None, 45),
        ),
    ),
    Sample(
        "prose",
        """\
Our minimum is a Marrowgate Gannet Dun 4 processor together with 8 GB of memory and an Orlop Lantern 6 GB graphics card; the game takes 32 GB on disk. We aim for 1080p at 30 fps there.
Our recommendation is a Marrowgate Osprey Slate 14 processor together with 16 GB of memory and an Orlop Pharos 16 GB graphics card; we aim for 1440p at 60 fps there.
""",
        (
            T(
                "Minimum",
                "marrowgate-gannet-dun-4",
                "orlop-lantern@6",
                8,
                None,
                32,
                res="1920x1080",
                fps=30,
            ),
            T(
                "Recommended",
                "marrowgate-osprey-slate-14",
                "orlop-pharos@16",
                16,
                res="2560x1440",
                fps=60,
            ),
        ),
    ),
    Sample(
        "tier before label",
        """\
Min CPU: Quillon Wherry Ebb 4
Min GPU: Marlpoint Skerry 4 GB
Min RAM: 8 GB
Min storage: 25 GB
Rec CPU: Quillon Cutter Flood 6
Rec GPU: Nacre Reef 8 GB
Rec RAM: 16 GB
Rec storage: 25 GB SSD
""",
        (
            T("Min", "quillon-wherry-ebb-4", "marlpoint-skerry@4", 8, None, 25),
            T("Rec", FLOOD6, "nacre-reef@8", 16, None, 25, "SSD"),
        ),
    ),
    Sample(
        "tier after label",
        """\
Processor (minimum): Marrowgate Heron Dun 6
Processor (recommended): Marrowgate Heron Slate 10
Graphics (minimum): Marlpoint Holm 8 GB
Graphics (recommended): Marlpoint Ness 16 GB
Memory (minimum): 12 GB
Memory (recommended): 16 GB
""",
        (
            T("Minimum", DUN6, "marlpoint-holm@8", 12),
            T("Recommended", SLATE10, "marlpoint-ness@16", 16),
        ),
    ),
    Sample(
        "conditions in headings",
        """\
MINIMUM – 1080p, 30 FPS, low preset with upscaling
CPU: Quillon Cutter Ebb 6
GPU: Nacre Inlet 8 GB
RAM: 16 GB
Storage: 130 GB SSD

RECOMMENDED – 1440p, 60 FPS, high preset with upscaling
CPU: Quillon Cutter Flood 6
GPU: Nacre Bank 12 GB
RAM: 16 GB
Storage: 130 GB SSD

ULTRA – 4K, 60 FPS, ultra preset, ray tracing on, with upscaling
CPU: Quillon Ketch Flood 8 Deep
GPU: Nacre Fathom 24 GB
RAM: 32 GB
Storage: 130 GB SSD
""",
        (
            T(
                "Minimum",
                EBB6,
                "nacre-inlet@8",
                16,
                None,
                130,
                "SSD",
                res="1920x1080",
                preset="low",
                fps=30,
                up=True,
            ),
            T(
                "Recommended",
                FLOOD6,
                "nacre-bank@12",
                16,
                None,
                130,
                "SSD",
                res="2560x1440",
                preset="high",
                fps=60,
                up=True,
            ),
            T(
                "Ultra",
                "quillon-ketch-flood-8-deep",
                "nacre-fathom@24",
                32,
                None,
                130,
                "SSD",
                res="3840x2160",
                preset="ultra",
                fps=60,
                rt=True,
                up=True,
            ),
        ),
    ),
    Sample(
        "conditions in headings",
        """\
Minimum (720p, 30 fps)
Processor: Marrowgate Gannet Moss 2
Graphics: Orlop Taper 2 GB
Memory: 4 GB
Recommended (1080p, 60 fps)
Processor: Quillon Wherry Ebb 4
Graphics: Marlpoint Skerry 4 GB
Memory: 8 GB
""",
        (
            T("Minimum", "marrowgate-gannet-moss-2", "orlop-taper@2", 4, res="1280x720", fps=30),
            T(
                "Recommended",
                "quillon-wherry-ebb-4",
                "marlpoint-skerry@4",
                8,
                res="1920x1080",
                fps=60,
            ),
        ),
    ),
    Sample(
        "label above value",
        """\
Minimum

CPU
Marrowgate Heron Dun 6

GPU
Marlpoint Holm

RAM
16 GB

SSD
90 GB

Recommended

CPU
Marrowgate Osprey Slate 14 Bare

GPU
Orlop Pharos

RAM
32 GB

SSD
90 GB
""",
        (
            T("Minimum", DUN6, "marlpoint-holm", 16, None, 90, "SSD"),
            T(
                "Recommended",
                "marrowgate-osprey-slate-14-bare",
                "orlop-pharos",
                32,
                None,
                90,
                "SSD",
            ),
        ),
    ),
    Sample(
        "terse",
        """\
minimum: heron moss 6, 8gb, ayre 6gb, 30gb hdd
recommended: ketch ebb 8, 16gb, reef 8gb, 30gb ssd
""",
        (
            T("Minimum", HMOSS6, "marlpoint-ayre@6", 8, None, 30, "hard disk"),
            T("Recommended", EBB8, "nacre-reef@8", 16, None, 30, "SSD"),
        ),
    ),
    Sample(
        "terse",
        """\
Min - Cutter Ebb 6 / Heron Dun 6 - 12GB - Holm 8GB / Shoal 8GB - 80GB SSD - 1080p60 low
Rec - Ketch Flood 8 / Heron Slate 10 - 16GB - Ness 16GB / Reef 16GB - 80GB SSD - 1440p60 high
""",
        (
            T(
                "Min",
                f"{EBB6} {DUN6}",
                "marlpoint-holm@8 nacre-shoal@8",
                12,
                None,
                80,
                "SSD",
                res="1920x1080",
                preset="low",
                fps=60,
            ),
            T(
                "Rec",
                f"{FLOOD8} {SLATE10}",
                "marlpoint-ness@16 nacre-reef@16",
                16,
                None,
                80,
                "SSD",
                res="2560x1440",
                preset="high",
                fps=60,
            ),
        ),
    ),
    Sample(
        "markup",
        """\
<table><tr><th></th><th>Minimum</th><th>Recommended</th></tr>
<tr><td>Processor</td><td>Quillon Wherry Neap 4</td><td>Quillon Cutter Ebb 6</td></tr>
<tr><td>Graphics</td><td>Orlop Taper 4 GB</td><td>Nacre Shoal 8 GB</td></tr>
<tr><td>Memory</td><td>8 GB</td><td>16 GB</td></tr></table>
""",
        (
            T("Minimum", NEAP4, "orlop-taper@4", 8),
            T("Recommended", EBB6, "nacre-shoal@8", 16),
        ),
    ),
    Sample(
        "markup",
        """\
<p><b>Minimum:</b><br>CPU: Marrowgate Gannet Dun 4<br>RAM: 8&nbsp;GB<br>GPU: Orlop Lantern 6&nbsp;GB<br>Disk: 20&nbsp;GB</p>
<p><b>Recommended:</b><br>CPU: Marrowgate Heron Slate 6<br>RAM: 16&nbsp;GB<br>GPU: Orlop Beacon 12&nbsp;GB<br>Disk: 20&nbsp;GB SSD</p>
""",
        (
            T("Minimum", "marrowgate-gannet-dun-4", "orlop-lantern@6", 8, None, 20),
            T("Recommended", SLATE6, "orlop-beacon@12", 16, None, 20, "SSD"),
        ),
    ),
    Sample(
        "megabytes and decimals",
        """\
Minimum:
Processor: Marrowgate Gannet Moss 4 @ 3,3 GHz
Memory: 6144MB
Video memory: 3072MB
Graphics: Marlpoint Ayre
Hard disk: 1500MB
Recommended:
Processor: Quillon Cutter Neap 6 @ 3.2GHz
Memory: 8192MB
Video memory: 6144MB
Graphics: Marlpoint Ayre
Hard disk: 1500MB
""",
        (
            T("Minimum", MOSS4, "marlpoint-ayre", 6, 3, 1.5),
            T("Recommended", NEAP6, "marlpoint-ayre", 8, 6, 1.5),
        ),
    ),
    Sample(
        "megabytes and decimals",
        """\
Minimum: Processor: Quillon Wherry Neap 4 (4x 3,1 GHz); Memory: 8 GB; Graphics: Orlop Taper 4096 MB; Storage: 0,8 TB
Recommended: Processor: Quillon Ketch Neap 8 (8x 3,7 GHz); Memory: 16 GB; Graphics: Nacre Inlet 8192 MB; Storage: 0,8 TB SSD
""",
        (
            T("Minimum", NEAP4, "orlop-taper@4", 8, None, 800),
            T("Recommended", "quillon-ketch-neap-8", "nacre-inlet@8", 16, None, 800, "SSD"),
        ),
    ),
    Sample(
        "key and value",
        """\
[Minimum]
processor=Marrowgate Heron Dun 6
memory=12GB
graphics=Nacre Cove 6GB
storage=64GB

[Recommended]
processor=Marrowgate Osprey Slate 14
memory=32GB
graphics=Nacre Trench 16GB
storage=64GB NVMe
""",
        (
            T("Minimum", DUN6, "nacre-cove@6", 12, None, 64),
            T(
                "Recommended",
                "marrowgate-osprey-slate-14",
                "nacre-trench@16",
                32,
                None,
                64,
                "NVMe SSD",
            ),
        ),
    ),
    Sample(
        "clocks alone",
        """\
Minimum
OS: Tidewater 10
Processor: Dual Core 2.8 GHz
Memory: 4 GB
Graphics: 2 GB VRAM
Storage: 5 GB
Recommended
OS: Tidewater 10
Processor: Hexa Core 3.6 GHz
Memory: 8 GB
Graphics: 4 GB VRAM
Storage: 5 GB
""",
        (
            T("Minimum", "#2c2.8", "", 4, 2, 5, None, "Tidewater 10"),
            T("Recommended", "#6c3.6", "", 8, 4, 5, None, "Tidewater 10"),
        ),
    ),
    Sample(
        "misspelt",
        """\
Minimum
Procesor: Quilon Wherry Neap 4
Graphics: Marlpiont Ayre 3 GB
Memory: 8 GB
Recomended
Procesor: Quilon Cuter Ebb 6
Graphics: Marlpiont Holm 8 GB
Memory: 16 GB
""",
        (
            T("Minimum", NEAP4, "marlpoint-ayre@3", 8),
            T("Recomended", EBB6, "marlpoint-holm@8", 16),
        ),
    ),
    Sample(
        "own names for tiers",
        """\
Deckhand:
CPU: Marrowgate Gannet Dun 4
GPU: Marlpoint Skerry 4 GB
RAM: 8 GB
Runs at 1080p, low preset, 30 fps

Captain:
CPU: Quillon Cutter Flood 6
GPU: Orlop Beacon 12 GB
RAM: 16 GB
Runs at 1080p, high preset, 60 fps
""",
        (
            T(
                "Deckhand",
                "marrowgate-gannet-dun-4",
                "marlpoint-skerry@4",
                8,
                res="1920x1080",
                preset="low",
                fps=30,
            ),
            T("Captain", FLOOD6, "orlop-beacon@12", 16, res="1920x1080", preset="high", fps=60),
        ),
    ),
    Sample(
        "unknown parts",
        """\
Minimum
Processor: Marrowgate Heron Moss 6 or Quillon Smack 6
Memory: 8 GB
Graphics: Orlop Lantern Xtra 6 GB
Recommended
Processor: Quillon Ketch Flood 8 Deep Blue
Memory: 16 GB
Graphics: Marlpoint Ness 16 GB or Marlpoint Holm Twin 8 GB
""",
        (
            T("Minimum", f"{HMOSS6} ?quillon-smack-6", "?orlop-lantern-xtra@6", 8),
            T(
                "Recommended",
                "?quillon-ketch-flood-8-deep-blue",
                "marlpoint-ness@16 ?marlpoint-holm-twin@8",
                16,
            ),
        ),
    ),
    Sample(
        "labels",
        """\
System Requirements
Minimum:
Requires a 64-bit processor and operating system
OS: Tidewater 10
Processor: Quillon Wherry Ebb 4
Memory: 8 GB RAM
Graphics: Marlpoint Skerry 4 GB
Storage: 14 GB available space
Sound Card: any
Recommended:
Requires a 64-bit processor and operating system
OS: Tidewater 11
Processor: Quillon Cutter Flood 6
Memory: 16 GB RAM
Graphics: Nacre Shoal 8 GB
Storage: 14 GB available space
""",
        (
            T(
                "Minimum",
                "quillon-wherry-ebb-4",
                "marlpoint-skerry@4",
                8,
                None,
                14,
                None,
                "Tidewater 10",
            ),
            T("Recommended", FLOOD6, "nacre-shoal@8", 16, None, 14, None, "Tidewater 11"),
        ),
    ),
    Sample(
        "conditions in headings",
        """\
Minimum: 30 fps at 1080p
* Processor: Marrowgate Heron Dun 6
* Graphics: Nacre Cove 6 GB
* Memory: 12 GB
Recommended: 60 fps at 1440p
* Processor: Quillon Ketch Ebb 8
* Graphics: Nacre Bank 12 GB
* Memory: 16 GB
""",
        (
            T("Minimum", DUN6, "nacre-cove@6", 12, res="1920x1080", fps=30),
            T("Recommended", EBB8, "nacre-bank@12", 16, res="2560x1440", fps=60),
        ),
    ),
)

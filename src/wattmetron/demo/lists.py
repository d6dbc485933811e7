"""Requirements of the made-up games as their publishers wrote them, each in a style of its own."""

from datetime import date

# game id -> (published on, source, text)
LISTS: dict[str, tuple[date, str, str]] = {
    "causeway-clash": (
        date(2023, 5, 11),
        "the publisher's page",
        """\
SYSTEM REQUIREMENTS

MINIMUM:
OS: Tidewater 10 64-bit
Processor: Marrowgate Gannet Moss 4 or Quillon Wherry Neap 4
Memory: 8 GB RAM
Graphics: Orlop Taper 4 GB
API: Fairlead 11
Storage: 35 GB available space
Additional Notes: 1080p, medium preset, 60 fps

RECOMMENDED:
OS: Tidewater 11 64-bit
Processor: Quillon Cutter Ebb 6 or Marrowgate Heron Dun 6
Memory: 16 GB RAM
Graphics: Orlop Lantern 6 GB or Nacre Cove 6 GB
API: Fairlead 12
Storage: 35 GB available space, SSD
Additional Notes: 1080p, medium preset, 144 fps
""",
    ),
    "hollow-meridian": (
        date(2025, 9, 2),
        "the publisher's page",
        """\
Minimum (1080p / 30 fps / Low)
CPU: Quillon Wherry Neap 4 / Marrowgate Gannet Moss 4
GPU: Marlpoint Ayre 6GB / Marlpoint Skerry 4GB
RAM: 12GB
VRAM: 4GB
Storage: 110GB SSD
OS: Tidewater 10

Recommended (1080p / 60 fps / High)
CPU: Quillon Cutter Ebb 6 / Marrowgate Heron Dun 6
GPU: Orlop Beacon 12GB / Nacre Reef 8GB
RAM: 16GB
VRAM: 8GB
Storage: 110GB NVMe SSD
OS: Tidewater 11

Ultra (1440p / 60 fps / High)
CPU: Quillon Cutter Flood 6 / Marrowgate Heron Slate 6
GPU: Nacre Bank 12GB / Orlop Pharos 16GB
RAM: 16GB
VRAM: 12GB
Storage: 110GB NVMe SSD
OS: Tidewater 11
""",
    ),
    "gullwing-circuit": (
        date(2024, 11, 20),
        "a press kit",
        """\
What your machine needs

Minimum
• Tidewater 10 (64-bit)
• Quillon Cutter Neap 6 or Marrowgate Heron Moss 6
• 8 GB RAM
• Marlpoint Ayre (6 GB), Marlpoint Skerry (4 GB)
• 90 GB on a hard drive
• 1920x1080, low preset, 60 fps

Recommended
• Tidewater 11 (64-bit)
• Quillon Ketch Neap 8, Marrowgate Osprey Moss 8
• 12 GB RAM
• Nacre Inlet (8 GB), Orlop Wick (8 GB), Orlop Beacon (12 GB)
• 90 GB on an SSD
• 1920x1080, high preset, 60 fps
""",
    ),
    "deepwater-pilot": (
        date(2025, 3, 4),
        "the manual",
        """\
MINIMUM
Operating system: Tidewater 10
Processor: Quad core, 3.2 GHz or faster
Main memory: 16 GB
Graphics card: Marlpoint Ayre 6 GB or better
Disk space: 140 GB
Tested at: 1920 x 1080, low, 30 fps

RECOMMENDED
Operating system: Tidewater 11
Processor: Marrowgate Osprey Slate 14 or Quillon Ketch Flood 8
Main memory: 32 GB
Graphics card: Orlop Beacon 12 GB or Nacre Reef 16 GB
Disk space: 140 GB, NVMe SSD
Tested at: 1920 x 1080, high, 60 fps
""",
    ),
    "ashfall-wardens": (
        date(2024, 8, 15),
        "the publisher's page",
        "\n".join(
            "\t".join(row)
            for row in (
                ("", "Minimum", "Recommended"),
                ("Resolution", "1920x1080", "1920x1080"),
                ("Preset", "Low", "High"),
                ("Frame rate", "60 fps", "60 fps"),
                (
                    "CPU",
                    "Quillon Ketch Neap 8 / Marrowgate Osprey Moss 8",
                    "Quillon Cutter Ebb 6 / Marrowgate Heron Dun 6",
                ),
                (
                    "GPU",
                    "Marlpoint Ayre 6 GB / Marlpoint Skerry 4 GB",
                    "Nacre Shoal 8 GB / Marlpoint Holm 8 GB",
                ),
                ("RAM", "8 GB", "16 GB"),
                ("Disk", "95 GB", "95 GB SSD"),
                ("OS", "Tidewater 10", "Tidewater 10"),
            )
        )
        + "\n",
    ),
    "lanternfolk": (
        date(2022, 10, 1),
        "a letter to players",
        """\
Lanternfolk runs on nearly anything. At the minimum you need a Marrowgate Gannet Moss 2 processor, 4 GB of memory, \
an Orlop Taper with 2 GB and 6 GB of free disk space on Tidewater 10. We recommend a Quillon Wherry Neap 4 processor, \
8 GB of memory, a Marlpoint Ayre with 3 GB and 6 GB of free disk space.
""",
    ),
    "thousand-towers": (
        date(2024, 2, 6),
        "the back of the box",
        """\
Minimum requirements

Processor
Quillon Ketch Neap 8 or Marrowgate Osprey Moss 8
Graphics
Marlpoint Ayre 3 GB
Memory
16 GB
Storage
30 GB
System
Tidewater 10
Settings
1920x1080, low preset, 30 fps

Recommended requirements

Processor
Marrowgate Osprey Slate 14 or Quillon Barque Flood 12
Graphics
Orlop Taper 4 GB
Memory
16 GB
Storage
30 GB SSD
System
Tidewater 11
Settings
1920x1080, medium preset, 60 fps
""",
    ),
    "vantage-null": (
        date(2025, 10, 9),
        "a performance guide",
        """\
| | Entry | Standard | High | Ray traced |
| --- | --- | --- | --- | --- |
| Target | 1080p, low, 30 fps | 1080p, high, 60 fps | 1440p, high, 60 fps | 1080p, high, 60 fps, ray tracing on |
| Processor | Marrowgate Gannet Moss 4 | Quillon Cutter Ebb 6 or Marrowgate Heron Dun 6 | Quillon Cutter Flood 6 | Quillon Cutter Flood 6 |
| Graphics | Marlpoint Skerry 4 GB | Nacre Reef 16 GB | Orlop Pharos 16 GB or Nacre Trench 16 GB | Nacre Trench 16 GB |
| Memory | 12 GB | 16 GB | 16 GB | 16 GB |
| API | Fairlead 12 | Fairlead 12 | Fairlead 12 | Fairlead 12 |
| Storage | 85 GB SSD | 85 GB SSD | 85 GB SSD | 85 GB SSD |
""",
    ),
    "kiteball-arena": (
        date(2023, 7, 21),
        "a post by the studio",
        """\
min: gannet moss 4 or wherry neap 4, 4gb ram, taper 4gb, 22gb disk, tidewater 10
rec: cutter ebb 6 or heron dun 6, 8gb ram, cove 6gb or lantern 6gb, 22gb ssd, tidewater 11
""",
    ),
    "tin-harbour": (
        date(2024, 5, 30),
        "the publisher's page",
        """\
Minimum:
  System: Tidewater 10, 64 bit
  Processor: Quillon Cutter Neap 6 (6 cores, 3,4 GHz) or Marrowgate Heron Moss 6 (6 cores, 3,6 GHz)
  Memory: 8192 MB RAM
  Video card: Orlop Taper, 2048 MB
  Hard disk: 12,5 GB
  Settings: 1080p, low, 30 fps

Recommended:
  System: Tidewater 11, 64 bit
  Processor: Quillon Ketch Flood 8 (8 cores, 4,2 GHz) or Marrowgate Heron Slate 10 (10 cores, 4,1 GHz)
  Memory: 16384 MB RAM
  Video card: Marlpoint Stack (8192 MB) or Orlop Lantern (6144 MB)
  Video memory: 8192 MB
  Hard disk: 12,5 GB SSD
  Settings: 1080p, high, 60 fps
""",
    ),
    "brinewalkers": (
        date(2024, 3, 14),
        "the project's wiki",
        """\
| Component | Minimum | Recommended |
|---|---|---|
| Settings | 1080p low, 60 fps | 1080p high, 60 fps |
| CPU | Marrowgate Heron Dun 6 / Quillon Cutter Ebb 6 | Quillon Ketch Ebb 8 / Marrowgate Osprey Dun 8 |
| RAM | 12 GB | 16 GB |
| GPU | Marlpoint Ayre | Nacre Shoal 8 GB / Marlpoint Holm 8 GB |
| Disk | 48 GB | 48 GB SSD |
| OS | Tidewater 10 | Tidewater 11 |
""",
    ),
    "low-orbit-salvage": (
        date(2025, 6, 18),
        "a settings file",
        """\
[minimum]
os = Tidewater 10
cpu = Quillon Wherry Ebb 4 or Marrowgate Osprey Moss 8
ram = 12 GB
gpu = Marlpoint Ayre 6 GB or Marlpoint Skerry 4 GB
disk = 70 GB SSD
settings = 1920x1080, low, 30 fps

[recommended]
os = Tidewater 11
cpu = Quillon Skiff Flood 6 Low or Marrowgate Heron Slate 6 Low
ram = 16 GB
gpu = Nacre Shoal 8 GB or Orlop Beacon 12 GB
disk = 70 GB SSD
settings = 1920x1080, high, 60 fps
""",
    ),
    "saltmarsh-rally": (
        date(2023, 9, 12),
        "the publisher's page",
        """\
MINIMUM: OS: Tidewater 10 Processor: Marrowgate Heron Moss 6 or Quillon Cutter Neap 6 Memory: 8 GB RAM \
Graphics: Marlpoint Ayre 6 GB or Marlpoint Skerry 4 GB Storage: 60 GB available space \
Target: 1080p, low preset, 60 fps RECOMMENDED: OS: Tidewater 11 Processor: Quillon Ketch Neap 8 or \
Marrowgate Osprey Moss 8 Memory: 12 GB RAM Graphics: Nacre Inlet 8 GB or Orlop Wick 8 GB \
Storage: 60 GB available space, SSD Target: 1080p, high preset, 60 fps
""",
    ),
    "the-quiet-lock": (
        date(2024, 4, 2),
        "the publisher's page",
        """\
<h2>Minimum</h2>
<ul class="bb_ul"><li><strong>OS:</strong> Tidewater 10 64-bit<br></li>
<li><strong>Processor:</strong> Marrowgate Gannet Moss 4<br></li>
<li><strong>Memory:</strong> 8 GB RAM<br></li>
<li><strong>Graphics:</strong> Marlpoint Ayre 3 GB<br></li>
<li><strong>Storage:</strong> 40 GB available space<br></li>
<li><strong>Target:</strong> 1920x1080, low preset, 60 fps</li></ul>
<h2>Recommended</h2>
<ul class="bb_ul"><li><strong>OS:</strong> Tidewater 11 64-bit<br></li>
<li><strong>Processor:</strong> Quillon Cutter Neap 6<br></li>
<li><strong>Memory:</strong> 16 GB RAM<br></li>
<li><strong>Graphics:</strong> Marlpoint Stack 8 GB &amp; up<br></li>
<li><strong>Storage:</strong> 40 GB available space<br></li>
<li><strong>Target:</strong> 1920x1080, high preset, 60 fps</li></ul>
""",
    ),
    "ferrymans-due": (
        date(2025, 7, 1),
        "the publisher's page",
        """\
Minimum CPU: Quillon Cutter Ebb 6 or Marrowgate Heron Dun 6
Minimum GPU: Nacre Shoal 8 GB or Marlpoint Holm 8 GB
Minimum RAM: 16 GB
Minimum storage: 120 GB SSD
Minimum settings: 1080p, medium, 60 fps

Recommended CPU: Quillon Ketch Ebb 8 or Marrowgate Osprey Dun 8
Recommended GPU: Orlop Pharos 16 GB, Nacre Bank 12 GB or Orlop Wick 8 GB
Recommended RAM: 16 GB
Recommended storage: 120 GB NVMe SSD
Recommended settings: 1440p, high, 60 fps
""",
    ),
    "cold-harbour-nine": (
        date(2024, 10, 25),
        "the publisher's page",
        """\
Minimum - 1080p 60 FPS, Low settings
Processor: Quillon Wherry Neap 4 or Marrowgate Gannet Moss 4
Graphics: Orlop Taper 4 GB
Memory: 8 GB
Storage: 28 GB

Recommended - 1080p 60 FPS, High settings
Processor: Quillon Cutter Neap 6 or Marrowgate Heron Moss 6
Graphics: Nacre Cove 6 GB or Orlop Lantern 6 GB
Memory: 12 GB
Storage: 28 GB

Competitive - 1080p 144 FPS, Medium settings
Processor: Quillon Ketch Ebb 8 or Marrowgate Osprey Dun 8
Graphics: Orlop Wick 8 GB or Marlpoint Holm 8 GB
Memory: 16 GB
Storage: 28 GB SSD
""",
    ),
    "gable-row": (
        date(2025, 2, 27),
        "the publisher's page",
        """\
MINIMUM
RECOMMENDED
Operating system
Tidewater 10
Tidewater 11
CPU
Marrowgate Gannet Dun 4 or Quillon Pilot 5
Quillon Cutter Flood 6 or Marrowgate Heron Slate 6
Memory
8 GB
16 GB
Graphics
Marlpoint Ayre 3 GB
Orlop Lantern 6 GB or Marlpoint Stack 8 GB
Storage
25 GB
25 GB
Settings
1080p, low, 30 fps
1080p, high, 60 fps
""",
    ),
    "twelve-bells": (
        date(2025, 4, 16),
        "the publisher's page",
        "\n".join(
            "\t".join(row)
            for row in (
                ("Tier", "Minimum", "Recommended", "Enthusiast"),
                (
                    "Experience",
                    "1080p / 60 fps / Low",
                    "1080p / 60 fps / High",
                    "1440p / 60 fps / High",
                ),
                (
                    "Processor",
                    "Quillon Ketch Neap 8, Marrowgate Osprey Moss 8",
                    "Quillon Cutter Ebb 6, Marrowgate Heron Dun 6",
                    "Quillon Ketch Ebb 8, Marrowgate Osprey Dun 8",
                ),
                (
                    "Graphics",
                    "Marlpoint Ayre (6 GB), Marlpoint Skerry (4 GB)",
                    "Orlop Wick (8 GB), Marlpoint Holm (8 GB)",
                    "Nacre Reef (16 GB), Marlpoint Ness (16 GB)",
                ),
                ("Memory", "8 GB", "16 GB", "16 GB"),
                ("Storage", "65 GB", "65 GB SSD", "65 GB NVMe SSD"),
            )
        )
        + "\n",
    ),
    "drowned-parish": (
        date(2025, 11, 3),
        "the publisher's page",
        """\
MINIMUM SPECIFICATIONS (1080P, LOW PRESET, 30 FPS, NO RAY TRACING)
CPU: MARROWGATE GANNET MOSS 4 OR QUILLON WHERRY NEAP 4
GPU: MARLPOINT AYRE 3GB OR MARLPOINT SKERRY 4GB
RAM: 12 GB
DISK: 75 GB SSD

RECOMMENDED SPECIFICATIONS (1080P, HIGH PRESET, 60 FPS, RAY TRACING ON)
CPU: QUILLON CUTTER EBB 6 OR MARROWGATE HERON DUN 6
GPU: NACRE BANK 12GB
RAM: 16 GB
DISK: 75 GB SSD
""",
    ),
    "kelp-barons": (
        date(2024, 6, 6),
        "a letter to players",
        """\
To play at 1920x1080 on the low preset at 30 fps (minimum), have a Quillon Wherry Ebb 4 or Marrowgate Osprey Moss 8, \
12 GB of RAM, an Orlop Taper with 4 GB and 18 GB of disk space.
To play at 1920x1080 on the high preset at 60 fps (recommended), have a Quillon Ketch Flood 8 or Marrowgate Heron Slate 10, \
16 GB of RAM, a Nacre Cove with 6 GB or an Orlop Lantern with 6 GB and 18 GB of disk space.
""",
    ),
    "mudlark-stories": (
        date(2021, 5, 18),
        "the back of the box",
        """\
MINIMUM:
OS: Tidewater 10
Processor: 2.4 GHz dual core
Memory: 4 GB RAM
Graphics: Any card with 1 GB video memory
Storage: 3 GB

RECOMMENDED:
OS: Tidewater 10
Processor: 3 GHz quad core
Memory: 8 GB RAM
Graphics: Orlop Taper 2 GB
Storage: 3 GB
""",
    ),
    "breakwater-siege": (
        date(2024, 9, 9),
        "the publisher's page",
        """\
Minimum (1080p, medium, 60 fps)
CPU: Quillon Wherry Neap 4 or Marrowgate Gannet Moss 4
Graphics: Marlpoint Ayre
Video memory: 3 GB
RAM: 8 GB
Storage: 45 GB

Recommended (1080p, medium, 144 fps)
CPU: Quillon Ketch Ebb 8 or Marrowgate Osprey Dun 8
Graphics: Marlpoint Holm or Nacre Shoal
Video memory: 8 GB
RAM: 16 GB
Storage: 45 GB SSD
""",
    ),
    "paper-lighthouse": (
        date(2025, 5, 5),
        "a post by the studio",
        """\
min (1080p low 60fps): wherry neap 4 / gannet moss 4, 4gb ram, taper 2gb, 9gb disk
rec (1080p high 60fps): cutter neap 6 / heron moss 6, 8gb ram, ayre 3gb / skerry 4gb, 9gb ssd
""",
    ),
    "winter-buoy": (
        date(2025, 1, 15),
        "the project's wiki",
        """\
Low
Processor
Quillon Cutter Ebb 6 / Marrowgate Heron Dun 6
Graphics
Marlpoint Ayre 6 GB / Nacre Cove 6 GB
Memory
12 GB
Settings
1080p, low, 60 fps

Medium
Processor
Quillon Ketch Ebb 8 / Marrowgate Osprey Dun 8
Graphics
Marlpoint Stack 8 GB / Nacre Inlet 8 GB
Memory
16 GB
Settings
1080p, medium, 60 fps

High
Processor
Quillon Cutter Flood 6 / Marrowgate Heron Slate 6
Graphics
Orlop Beacon 12 GB / Nacre Reef 8 GB
Memory
12 GB
Settings
1080p, high, 60 fps

Very high
Processor
Quillon Cutter Flood 6 / Marrowgate Heron Slate 6
Graphics
Nacre Bank 12 GB / Orlop Pharos 16 GB
Memory
32 GB
Settings
1440p, high, 60 fps
""",
    ),
    "net-and-anchor": (
        date(2024, 12, 12),
        "the project's wiki",
        """\
| | Minimum | Recommended |
| :-- | :-- | :-- |
| Runs at | 1080p, low, 30 fps | 1080p, high, 60 fps |
| Processor | Marrowgate Heron Moss 6 or Quillon Cutter Neap 6 | Marrowgate Heron Slate 10 or Quillon Ketch Flood 8 |
| Graphics | Orlop Taper 4 GB | Orlop Wick 8 GB or Nacre Reef 8 GB |
| Memory | 16 GB | 32 GB |
| Storage | 55 GB | 55 GB SSD |
""",
    ),
    "ropewalk": (
        date(2023, 3, 3),
        "a press kit",
        """\
Minimum specs
- Marrowgate Gannet Moss 4 / Quillon Wherry Neap 4
- Orlop Taper 4GB
- 4GB RAM
- 15GB disk space
- 720p, low settings, 60 fps

Recommended specs
- Quillon Cutter Neap 6 / Marrowgate Heron Moss 6
- Nacre Cove 6GB / Orlop Lantern 6GB
- 8GB RAM
- 15GB disk space (SSD)
- 1080p, high settings, 60 fps
""",
    ),
}

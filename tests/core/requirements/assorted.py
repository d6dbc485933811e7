"""Thirty-two requirement texts, no two alike in form, with what is to be read of each; written down
before the reader was scored on any of them. The first sixteen are the half that it may be tuned on.
"""

from tests.core.requirements.expected import Sample, T

TUNED: tuple[Sample, ...] = (
    Sample(
        "forum post",
        "hey all, lots of people ask what they need. we tested on a quillon cutter ebb 6 with an"
        " orlop taper 4gb and 8 gb ram and it holds 30 fps at 1080p low, so call that the minimum."
        " for recommended think quillon cutter flood 6, nacre reef 8gb, 16 gb ram, that gives you"
        " 60 fps at 1440p high.",
        (
            T(
                "Minimum",
                "quillon-cutter-ebb-6",
                "orlop-taper@4",
                8,
                res="1920x1080",
                preset="low",
                fps=30,
            ),
            T(
                "Recommended",
                "quillon-cutter-flood-6",
                "nacre-reef@8",
                16,
                res="2560x1440",
                preset="high",
                fps=60,
            ),
        ),
    ),
    Sample(
        "by component",
        "Processor\n  Minimum: Quillon Wherry Ebb 4\n  Recommended: Marrowgate Heron Slate 6\n"
        "Graphics card\n  Minimum: Marlpoint Skerry 4 GB\n  Recommended: Orlop Wick 8 GB\n"
        "Memory\n  Minimum: 8 GB\n  Recommended: 16 GB\n"
        "Storage\n  Minimum: 45 GB\n  Recommended: 60 GB SSD\n",
        (
            T("Minimum", "quillon-wherry-ebb-4", "marlpoint-skerry@4", 8, disk=45),
            T("Recommended", "marrowgate-heron-slate-6", "orlop-wick@8", 16, disk=60, kind="SSD"),
        ),
    ),
    Sample(
        "component and level in one label",
        "CPU (minimum): Marrowgate Gannet Dun 4\nCPU (recommended): Quillon Ketch Flood 8\n"
        "GPU (minimum): Orlop Lantern 6 GB\nGPU (recommended): Nacre Bank 12 GB\n"
        "RAM (minimum): 12 GB\nRAM (recommended): 32 GB\n",
        (
            T("Minimum", "marrowgate-gannet-dun-4", "orlop-lantern@6", 12),
            T("Recommended", "quillon-ketch-flood-8", "nacre-bank@12", 32),
        ),
    ),
    Sample(
        "german questions",
        "Was brauche ich mindestens?\nEinen Quillon Cutter Ebb 6, 12 GB RAM und eine Nacre Cove mit"
        " 6 GB. 90 GB sollten auf der SSD frei sein.\n\nUnd was empfehlt ihr?\nEinen Quillon Ketch"
        " Flood 8, 32 GB RAM und eine Orlop Beacon mit 12 GB.\n",
        (
            T("Minimum", "quillon-cutter-ebb-6", "nacre-cove@6", 12, disk=90, kind="SSD"),
            T("Recommended", "quillon-ketch-flood-8", "orlop-beacon@12", 32),
        ),
    ),
    Sample(
        "three columns",
        "              Minimum              Recommended            Ultra\n"
        "Processor     Quillon Wherry Ebb 4   Quillon Cutter Flood 6   Quillon Ketch Flood 8\n"
        "Graphics      Orlop Taper 4 GB       Nacre Reef 8 GB          Nacre Bank 12 GB\n"
        "Memory        8 GB                   16 GB                    32 GB\n"
        "Aim           1080p, 30 fps          1440p, 60 fps            2160p, 60 fps\n",
        (
            T("Minimum", "quillon-wherry-ebb-4", "orlop-taper@4", 8, res="1920x1080", fps=30),
            T(
                "Recommended",
                "quillon-cutter-flood-6",
                "nacre-reef@8",
                16,
                res="2560x1440",
                fps=60,
            ),
            T("Ultra", "quillon-ketch-flood-8", "nacre-bank@12", 32, res="3840x2160", fps=60),
        ),
    ),
    Sample(
        "short message",
        "Specs are in! MIN: Heron Dun 6 + Orlop Lantern 6GB + 12 gigs of RAM. REC: Heron Slate 10 +"
        " Nacre Bank 12GB + 32 gigs. SSD for everyone, 120 gigs.",
        (
            T("Min", "marrowgate-heron-dun-6", "orlop-lantern@6", 12, disk=120, kind="SSD"),
            T("Rec", "marrowgate-heron-slate-10", "nacre-bank@12", 32, disk=120, kind="SSD"),
        ),
    ),
    Sample(
        "spanish questions",
        "¿Qué necesito como mínimo? Un Marrowgate Gannet Moss 4, 6 GB de RAM y una Marlpoint Ayre"
        " de"
        " 3 GB.\n¿Y qué recomendáis? Un Marrowgate Osprey Dun 8, 24 GB de RAM y una Marlpoint Holm"
        " de 8 GB.\n",
        (
            T("Minimum", "marrowgate-gannet-moss-4", "marlpoint-ayre@3", 6),
            T("Recommended", "marrowgate-osprey-dun-8", "marlpoint-holm@8", 24),
        ),
    ),
    Sample(
        "at the very least",
        "At the very least have a Quillon Wherry Neap 4, 6 GB of RAM and an Orlop Taper (2 GB)."
        " Ideally you own a Quillon Ketch Ebb 8, 24 GB of RAM and a Nacre Shoal (8 GB). Keep 35 GB"
        " of disk space free either way.",
        (
            T("Minimum", "quillon-wherry-neap-4", "orlop-taper@2", 6, disk=35),
            T("Recommended", "quillon-ketch-ebb-8", "nacre-shoal@8", 24, disk=35),
        ),
    ),
    Sample(
        "braces",
        '{"minimum": {"cpu": "Quillon Cutter Ebb 6", "gpu": "Nacre Cove 6 GB", "ram_gb": 12,'
        ' "disk_gb": 90}, "recommended": {"cpu": "Marrowgate Heron Slate 10", "gpu": "Orlop Beacon'
        ' 12 GB", "ram_gb": 32, "disk_gb": 120}}',
        (
            T("Minimum", "quillon-cutter-ebb-6", "nacre-cove@6", 12, disk=90),
            T("Recommended", "marrowgate-heron-slate-10", "orlop-beacon@12", 32, disk=120),
        ),
    ),
    Sample(
        "keys with a prefix",
        "min_os = Tidewater 10\nmin_cpu = Quillon Wherry Ebb 4\nmin_gpu = Orlop Taper 4 GB\n"
        "min_ram = 8 GB\nrec_os = Tidewater 11\nrec_cpu = Quillon Cutter Flood 6\n"
        "rec_gpu = Orlop Wick 8 GB\nrec_ram = 16 GB\n",
        (
            T("Min", "quillon-wherry-ebb-4", "orlop-taper@4", 8, os="Tidewater 10"),
            T("Rec", "quillon-cutter-flood-6", "orlop-wick@8", 16, os="Tidewater 11"),
        ),
    ),
    Sample(
        "tags left over",
        "<b>Minimum</b><br>\n<b>OS:</b> Tidewater 10<br>\n<b>Processor:</b> Quillon Cutter Ebb"
        " 6<br>"
        "\n<b>Memory:</b> 12 GB RAM<br>\n<b>Graphics:</b> Nacre Cove 6 GB<br>\n"
        "<b>Recommended</b><br>\n<b>OS:</b> Tidewater 11<br>\n<b>Processor:</b> Quillon Ketch Flood"
        " 8<br>\n<b>Memory:</b> 32 GB RAM<br>\n<b>Graphics:</b> Nacre Bank 12 GB<br>",
        (
            T("Minimum", "quillon-cutter-ebb-6", "nacre-cove@6", 12, os="Tidewater 10"),
            T("Recommended", "quillon-ketch-flood-8", "nacre-bank@12", 32, os="Tidewater 11"),
        ),
    ),
    Sample(
        "copied columns",
        "Minimum\nRecommended\nProcessor\nMarrowgate Gannet Dun 4\nMarrowgate Heron Slate 6\n"
        "Graphics\nMarlpoint Skerry 4 GB\nOrlop Wick 8 GB\nMemory\n8 GB\n16 GB\n",
        (
            T("Minimum", "marrowgate-gannet-dun-4", "marlpoint-skerry@4", 8),
            T("Recommended", "marrowgate-heron-slate-6", "orlop-wick@8", 16),
        ),
    ),
    Sample(
        "emoji",
        "🟢 Minimum\n🧠 Quillon Wherry Ebb 4\n🎮 Orlop Taper 4 GB\n💾 8 GB RAM\n📦 45 GB\n\n"
        "🔵 Recommended\n🧠 Quillon Cutter Flood 6\n🎮 Nacre Reef 8 GB\n💾 16 GB RAM\n📦 60 GB\n",
        (
            T("Minimum", "quillon-wherry-ebb-4", "orlop-taper@4", 8, disk=45),
            T("Recommended", "quillon-cutter-flood-6", "nacre-reef@8", 16, disk=60),
        ),
    ),
    Sample(
        "megabytes",
        "MINIMUM SYSTEM REQUIREMENTS\nCPU: Marrowgate Gannet Moss 4\nRAM: 6144 MB\n"
        "Video: Marlpoint Ayre, 3072 MB\nHDD: 20000 MB\n\nRECOMMENDED SYSTEM REQUIREMENTS\nCPU:"
        " Quillon Ketch Ebb 8\nRAM: 16384 MB\nVideo: Nacre Shoal, 8192 MB\nHDD: 35000 MB\n",
        (
            T(
                "Minimum",
                "marrowgate-gannet-moss-4",
                "marlpoint-ayre@3",
                6,
                disk=20,
                kind="hard disk",
            ),
            T("Recommended", "quillon-ketch-ebb-8", "nacre-shoal@8", 16, disk=35, kind="hard disk"),
        ),
    ),
    Sample(
        "what has changed",
        "The minimum processor is now the Quillon Cutter Ebb 6 (it was the Quillon Wherry Ebb 4),"
        " the minimum graphics card stays the Orlop Lantern with 6 GB, and 12 GB of memory are"
        " enough. Recommended: Quillon Ketch Flood 8, Orlop Beacon with 12 GB, 32 GB of memory.",
        (
            T("Minimum", "quillon-cutter-ebb-6", "orlop-lantern@6", 12),
            T("Recommended", "quillon-ketch-flood-8", "orlop-beacon@12", 32),
        ),
    ),
    Sample(
        "for example",
        "Minimum:\n* a processor with four fast cores, such as the Quillon Wherry Ebb 4\n* a"
        " graphics"
        " card with 4 GB, for example the Marlpoint Skerry\n* 8 GB RAM\nRecommended:\n* a processor"
        " with six fast cores, such as the Marrowgate Heron Slate 6\n* a graphics card with 8 GB,"
        " for example the Nacre Reef\n* 16 GB RAM\n",
        (
            T("Minimum", "quillon-wherry-ebb-4", "marlpoint-skerry", 8, vram=4),
            T("Recommended", "marrowgate-heron-slate-6", "nacre-reef", 16, vram=8),
        ),
    ),
)

UNTOUCHED: tuple[Sample, ...] = (
    Sample(
        "developer's letter",
        "Dear players,\n\nwe have been asked a lot about hardware. If you own a Marrowgate Heron"
        " Dun"
        " 6 and an Orlop Lantern (6 GB), with 12 GB of system memory, you meet our minimum. We"
        " built"
        " the game, though, for people with a Marrowgate Heron Slate 10 and an Orlop Beacon (12"
        " GB),"
        " with 32 GB of system memory; that is what we recommend.\n\nYours, the team",
        (
            T("Minimum", "marrowgate-heron-dun-6", "orlop-lantern@6", 12),
            T("Recommended", "marrowgate-heron-slate-10", "orlop-beacon@12", 32),
        ),
    ),
    Sample(
        "component lines with a slash between levels",
        "Minimum / Recommended\nProcessor: Quillon Wherry Ebb 4 / Quillon Cutter Flood 6\n"
        "Graphics card: Orlop Taper 4 GB / Orlop Wick 8 GB\nMemory: 8 GB / 16 GB\n"
        "Storage: 45 GB / 60 GB\n",
        (
            T("Minimum", "quillon-wherry-ebb-4", "orlop-taper@4", 8, disk=45),
            T("Recommended", "quillon-cutter-flood-6", "orlop-wick@8", 16, disk=60),
        ),
    ),
    Sample(
        "rate as heading",
        "30 FPS · 1080p · Low\n  Quillon Cutter Ebb 6 · Nacre Cove 6 GB · 12 GB RAM\n"
        "60 FPS · 1440p · High\n  Quillon Cutter Flood 6 · Nacre Reef 8 GB · 16 GB RAM\n"
        "60 FPS · 2160p · Ultra\n  Quillon Ketch Flood 8 · Nacre Bank 12 GB · 32 GB RAM\n",
        (
            T(
                "30 fps · 1080p · low",
                "quillon-cutter-ebb-6",
                "nacre-cove@6",
                12,
                res="1920x1080",
                preset="low",
                fps=30,
            ),
            T(
                "60 fps · 1440p · high",
                "quillon-cutter-flood-6",
                "nacre-reef@8",
                16,
                res="2560x1440",
                preset="high",
                fps=60,
            ),
            T(
                "60 fps · 2160p · ultra",
                "quillon-ketch-flood-8",
                "nacre-bank@12",
                32,
                res="3840x2160",
                preset="ultra",
                fps=60,
            ),
        ),
    ),
    Sample(
        "italian at least",
        "Per giocare serve almeno un Quillon Cutter Ebb 6 con 12 GB di RAM e una Nacre Cove da 6"
        " GB."
        " Consigliamo un Quillon Ketch Flood 8 con 32 GB di RAM e una Nacre Bank da 12 GB. Lo"
        " spazio"
        " richiesto è di 120 GB.",
        (
            T("Minimum", "quillon-cutter-ebb-6", "nacre-cove@6", 12, disk=120),
            T("Recommended", "quillon-ketch-flood-8", "nacre-bank@12", 32, disk=120),
        ),
    ),
    Sample(
        "portuguese table",
        "Componente | Mínimo | Recomendado\nProcessador | Marrowgate Gannet Moss 4 | Marrowgate"
        " Osprey Dun 8\nPlaca de vídeo | Marlpoint Ayre 3 GB | Marlpoint Holm 8 GB\nMemória | 6"
        " GB |"
        " 24 GB\nEspaço em disco | 20 GB | 35 GB\n",
        (
            T("Minimum", "marrowgate-gannet-moss-4", "marlpoint-ayre@3", 6, disk=20),
            T("Recommended", "marrowgate-osprey-dun-8", "marlpoint-holm@8", 24, disk=35),
        ),
    ),
    Sample(
        "polish bullets",
        "Wymagania sprzętowe\nMinimum\n• Quillon Wherry Ebb 4 albo Marrowgate Gannet Dun 4\n• 8 GB"
        " RAM\n• Orlop Taper 4 GB\n• 45 GB na dysku SSD\nZalecane\n• Quillon Cutter Flood 6 albo"
        " Marrowgate Heron Slate 6\n• 16 GB RAM\n• Nacre Reef 8 GB\n• 60 GB na dysku SSD\n",
        (
            T(
                "Minimum",
                "quillon-wherry-ebb-4 marrowgate-gannet-dun-4",
                "orlop-taper@4",
                8,
                disk=45,
                kind="SSD",
            ),
            T(
                "Recommended",
                "quillon-cutter-flood-6 marrowgate-heron-slate-6",
                "nacre-reef@8",
                16,
                disk=60,
                kind="SSD",
            ),
        ),
    ),
    Sample(
        "french table",
        "            | Minimum | Conseillé\nSystème     | Tidewater 10 | Tidewater 11\nProcesseur"
        "  |"
        " Quillon Cutter Ebb 6 | Quillon Ketch Flood 8\nMémoire     | 12 Go | 32 Go\nCarte"
        " graphique"
        " | Nacre Cove 6 Go | Nacre Bank 12 Go\nStockage    | 90 Go | 120 Go SSD\n",
        (
            T("Minimum", "quillon-cutter-ebb-6", "nacre-cove@6", 12, disk=90, os="Tidewater 10"),
            T(
                "Recommended",
                "quillon-ketch-flood-8",
                "nacre-bank@12",
                32,
                disk=120,
                kind="SSD",
                os="Tidewater 11",
            ),
        ),
    ),
    Sample(
        "telegram",
        "MINIMUM CPU QUILLON WHERRY EBB 4 GPU ORLOP TAPER 4GB RAM 8GB HDD 45GB RECOMMENDED CPU"
        " QUILLON CUTTER FLOOD 6 GPU NACRE REEF 8GB RAM 16GB SSD 60GB",
        (
            T("Minimum", "quillon-wherry-ebb-4", "orlop-taper@4", 8, disk=45, kind="hard disk"),
            T("Recommended", "quillon-cutter-flood-6", "nacre-reef@8", 16, disk=60, kind="SSD"),
        ),
    ),
    Sample(
        "laptops in a note",
        "Minimum requirements\nProcessor: Marrowgate Gannet Dun 4\nGraphics: Orlop Lantern 6 GB\n"
        "Memory: 12 GB\nLaptop versions of these parts may work but are not supported.\n\n"
        "Recommended requirements\nProcessor: Marrowgate Heron Slate 10\nGraphics: Orlop Beacon 12"
        " GB\nMemory: 32 GB\nAn internet connection is needed for the first start.\n",
        (
            T("Minimum", "marrowgate-gannet-dun-4", "orlop-lantern@6", 12),
            T("Recommended", "marrowgate-heron-slate-10", "orlop-beacon@12", 32),
        ),
    ),
    Sample(
        "dutch questions",
        "Wat heb ik minimaal nodig? Een Marrowgate Gannet Moss 4, 6 GB geheugen en een Marlpoint"
        " Ayre"
        " van 3 GB.\nWat raden jullie aan? Een Quillon Ketch Ebb 8, 24 GB geheugen en een Nacre"
        " Shoal"
        " van 8 GB.\n",
        (
            T("Minimum", "marrowgate-gannet-moss-4", "marlpoint-ayre@3", 6),
            T("Recommended", "quillon-ketch-ebb-8", "nacre-shoal@8", 24),
        ),
    ),
    Sample(
        "levels by roman numbers",
        "Level I (1080p at 30 fps)\nQuillon Wherry Ebb 4\nOrlop Taper, 4 GB of video memory\n8 GB"
        " of"
        " main memory\n\nLevel II (1440p at 60 fps)\nQuillon Cutter Flood 6\nNacre Reef, 8 GB of"
        " video memory\n16 GB of main memory\n",
        (
            T("Level I", "quillon-wherry-ebb-4", "orlop-taper@4", 8, res="1920x1080", fps=30),
            T("Level II", "quillon-cutter-flood-6", "nacre-reef@8", 16, res="2560x1440", fps=60),
        ),
    ),
    Sample(
        "resolution as table head",
        "| | 1080p, 60 fps | 1440p, 60 fps | 2160p, 60 fps |\n| CPU | Quillon Cutter Ebb 6 |"
        " Quillon"
        " Cutter Flood 6 | Quillon Ketch Flood 8 |\n| GPU | Nacre Cove 6 GB | Nacre Reef 8 GB |"
        " Nacre"
        " Bank 12 GB |\n| RAM | 12 GB | 16 GB | 32 GB |\n",
        (
            T(
                "1080p, 60 fps",
                "quillon-cutter-ebb-6",
                "nacre-cove@6",
                12,
                res="1920x1080",
                fps=60,
            ),
            T(
                "1440p, 60 fps",
                "quillon-cutter-flood-6",
                "nacre-reef@8",
                16,
                res="2560x1440",
                fps=60,
            ),
            T(
                "2160p, 60 fps",
                "quillon-ketch-flood-8",
                "nacre-bank@12",
                32,
                res="3840x2160",
                fps=60,
            ),
        ),
    ),
    Sample(
        "either maker",
        "MINIMUM\nCPU: Quillon Wherry Ebb 4 (or Marrowgate Gannet Dun 4 if you prefer)\nGPU: either"
        " an Orlop Taper with 4 GB or a Marlpoint Skerry with 4 GB\nRAM: 8 GB\n\nRECOMMENDED\nCPU:"
        " Quillon Cutter Flood 6 (or Marrowgate Heron Slate 6 if you prefer)\nGPU: either a Nacre"
        " Reef with 8 GB or an Orlop Wick with 8 GB\nRAM: 16 GB\n",
        (
            T(
                "Minimum",
                "quillon-wherry-ebb-4 marrowgate-gannet-dun-4",
                "orlop-taper@4 marlpoint-skerry@4",
                8,
            ),
            T(
                "Recommended",
                "quillon-cutter-flood-6 marrowgate-heron-slate-6",
                "nacre-reef@8 orlop-wick@8",
                16,
            ),
        ),
    ),
    Sample(
        "unknown parts",
        "Minimum: Quillon Wherry Ebb 4 or Tern Mk IV, Orlop Taper 4 GB, 8 GB RAM\nRecommended:"
        " Quillon Cutter Flood 6, Nacre Reef 8 GB, 16 GB RAM\n",
        (
            T("Minimum", "quillon-wherry-ebb-4 ?tern-mk-iv", "orlop-taper@4", 8),
            T("Recommended", "quillon-cutter-flood-6", "nacre-reef@8", 16),
        ),
    ),
    Sample(
        "german run-on",
        "Systemanforderungen: Minimum: Prozessor Quillon Cutter Ebb 6, Grafikkarte Nacre Cove (6"
        " GB),"
        " 12 GB RAM, 90 GB freier Speicherplatz, 1080p mit 60 Bildern pro Sekunde; Empfohlen:"
        " Prozessor Quillon Ketch Flood 8, Grafikkarte Nacre Bank (12 GB), 32 GB RAM, 120 GB freier"
        " Speicherplatz, 2160p mit 60 Bildern pro Sekunde.",
        (
            T(
                "Minimum",
                "quillon-cutter-ebb-6",
                "nacre-cove@6",
                12,
                disk=90,
                res="1920x1080",
                fps=60,
            ),
            T(
                "Recommended",
                "quillon-ketch-flood-8",
                "nacre-bank@12",
                32,
                disk=120,
                res="3840x2160",
                fps=60,
            ),
        ),
    ),
    Sample(
        "ranges and upscaling",
        "Performance (1080p, upscaling on, 60 fps):\n- Quillon Cutter Ebb 6\n- Nacre Cove 6 GB\n-"
        " 12"
        " GB RAM\n\nQuality (2160p, upscaling off, 60 fps):\n- Quillon Ketch Flood 8\n- Nacre"
        " Bank 12"
        " GB\n- 32 GB RAM\n",
        (
            T(
                "Performance",
                "quillon-cutter-ebb-6",
                "nacre-cove@6",
                12,
                res="1920x1080",
                fps=60,
                up=True,
            ),
            T(
                "Quality",
                "quillon-ketch-flood-8",
                "nacre-bank@12",
                32,
                res="3840x2160",
                fps=60,
                up=False,
            ),
        ),
    ),
)

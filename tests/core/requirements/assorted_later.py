"""Twenty more requirement texts, no two alike, written down before the reader was scored on any of
them and after it had been mended for the others; then sixteen more, on which nothing was tuned.
"""

from tests.core.requirements.expected import Sample, T

LATER: tuple[Sample, ...] = (
    Sample(
        "spanish blog",
        "Para jugar a 1080p y 30 fps con ajustes bajos hace falta un Quillon Wherry Ebb 4, 8 GB de"
        " memoria RAM y una Orlop Taper de 4 GB.\n\nSi quieres 1440p y 60 fps con ajustes altos,"
        " recomendamos un Quillon Cutter Flood 6, 16 GB de memoria RAM y una Nacre Reef de 8 GB.\n",
        (
            T(
                "",
                "quillon-wherry-ebb-4",
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
        "markup table",
        "<table><tr><th></th><th>Minimum</th><th>Recommended</th></tr><tr><td>CPU</td><td>Quillon"
        " Cutter Ebb 6</td><td>Quillon Ketch Flood 8</td></tr><tr><td>GPU</td><td>Nacre Cove 6 GB"
        "</td><td>Nacre Bank 12 GB</td></tr><tr><td>RAM</td><td>12 GB</td><td>32 GB</td></tr>"
        "</table>",
        (
            T("Minimum", "quillon-cutter-ebb-6", "nacre-cove@6", 12),
            T("Recommended", "quillon-ketch-flood-8", "nacre-bank@12", 32),
        ),
    ),
    Sample(
        "names of their own",
        "DECKHAND\nQuillon Wherry Ebb 4, Orlop Taper 4 GB, 8 GB RAM\n\nMATE\nQuillon Cutter Flood"
        " 6,"
        " Nacre Reef 8 GB, 16 GB RAM\n\nCAPTAIN\nQuillon Ketch Flood 8, Nacre Bank 12 GB, 32 GB"
        " RAM\n",
        (
            T("Deckhand", "quillon-wherry-ebb-4", "orlop-taper@4", 8),
            T("Mate", "quillon-cutter-flood-6", "nacre-reef@8", 16),
            T("Captain", "quillon-ketch-flood-8", "nacre-bank@12", 32),
        ),
    ),
    Sample(
        "ends of a range",
        "Low-end: Marrowgate Gannet Dun 4 / Marlpoint Skerry 4 GB / 8 GB\nMid-range: Marrowgate"
        " Heron"
        " Slate 6 / Orlop Wick 8 GB / 16 GB\nHigh-end: Marrowgate Heron Slate 10 / Orlop Beacon"
        " 12 GB"
        " / 32 GB\n",
        (
            T("Low-end", "marrowgate-gannet-dun-4", "marlpoint-skerry@4", 8),
            T("Mid-range", "marrowgate-heron-slate-6", "orlop-wick@8", 16),
            T("High-end", "marrowgate-heron-slate-10", "orlop-beacon@12", 32),
        ),
    ),
    Sample(
        "tier behind each",
        "Quillon Wherry Ebb 4, Orlop Taper 4 GB, 8 GB RAM (minimum); Quillon Cutter Flood 6, Nacre"
        " Reef 8 GB, 16 GB RAM (recommended).",
        (
            T("Minimum", "quillon-wherry-ebb-4", "orlop-taper@4", 8),
            T("Recommended", "quillon-cutter-flood-6", "nacre-reef@8", 16),
        ),
    ),
    Sample(
        "polish questions",
        "Czego potrzebuję minimalnie? Procesora Quillon Cutter Ebb 6, 12 GB pamięci RAM i karty"
        " Nacre"
        " Cove 6 GB.\nA co polecacie? Procesor Quillon Ketch Flood 8, 32 GB pamięci RAM i kartę"
        " Nacre"
        " Bank 12 GB.\n",
        (
            T("Minimum", "quillon-cutter-ebb-6", "nacre-cove@6", 12),
            T("Recommended", "quillon-ketch-flood-8", "nacre-bank@12", 32),
        ),
    ),
    Sample(
        "french run-on",
        "Config mini : Quillon Wherry Ebb 4, 8 Go de RAM, Orlop Taper 4 Go, 45 Go sur le disque."
        " Config conseillée : Quillon Cutter Flood 6, 16 Go de RAM, Nacre Reef 8 Go, 60 Go sur le"
        " disque.",
        (
            T("Minimum", "quillon-wherry-ebb-4", "orlop-taper@4", 8, disk=45),
            T("Recommended", "quillon-cutter-flood-6", "nacre-reef@8", 16, disk=60),
        ),
    ),
    Sample(
        "german table",
        "Komponente\tMinimum\tEmpfohlen\nProzessor\tMarrowgate Heron Dun 6\tMarrowgate Heron Slate"
        " 10\nGrafikkarte\tOrlop Lantern 6 GB\tOrlop Beacon 12 GB\nArbeitsspeicher\t12 GB\t32 GB\n"
        "Auflösung\t1080p\t2160p\n",
        (
            T("Minimum", "marrowgate-heron-dun-6", "orlop-lantern@6", 12, res="1920x1080"),
            T("Recommended", "marrowgate-heron-slate-10", "orlop-beacon@12", 32, res="3840x2160"),
        ),
    ),
    Sample(
        "plus signs",
        "minimum = wherry ebb 4 + taper 4gb + 8gb\nrecommended = cutter flood 6 + reef 8gb +"
        " 16gb\n",
        (
            T("Minimum", "quillon-wherry-ebb-4", "orlop-taper@4", 8),
            T("Recommended", "quillon-cutter-flood-6", "nacre-reef@8", 16),
        ),
    ),
    Sample(
        "box",
        "+-------------+----------------------+------------------------+\n"
        "|             | Minimum              | Recommended            |\n"
        "+-------------+----------------------+------------------------+\n"
        "| Processor   | Quillon Cutter Ebb 6 | Quillon Ketch Flood 8  |\n"
        "| Graphics    | Nacre Cove 6 GB      | Nacre Bank 12 GB       |\n"
        "| Memory      | 12 GB                | 32 GB                  |\n"
        "+-------------+----------------------+------------------------+\n",
        (
            T("Minimum", "quillon-cutter-ebb-6", "nacre-cove@6", 12),
            T("Recommended", "quillon-ketch-flood-8", "nacre-bank@12", 32),
        ),
    ),
    Sample(
        "labels in two languages",
        "Minimum / Minimal\nCPU / Prozessor: Marrowgate Gannet Moss 4\nGPU / Grafikkarte: Marlpoint"
        " Ayre 3 GB\nRAM / Arbeitsspeicher: 6 GB\n\nRecommended / Empfohlen\nCPU / Prozessor:"
        " Marrowgate Osprey Dun 8\nGPU / Grafikkarte: Marlpoint Holm 8 GB\nRAM / Arbeitsspeicher:"
        " 24"
        " GB\n",
        (
            T("Minimum", "marrowgate-gannet-moss-4", "marlpoint-ayre@3", 6),
            T("Recommended", "marrowgate-osprey-dun-8", "marlpoint-holm@8", 24),
        ),
    ),
    Sample(
        "target line",
        "MINIMUM\nTarget: 1080p/30/Low\nCPU: Quillon Wherry Ebb 4\nGPU: Orlop Taper 4GB\nRAM:"
        " 8GB\n\n"
        "RECOMMENDED\nTarget: 1440p/60/High\nCPU: Quillon Cutter Flood 6\nGPU: Nacre Reef 8GB\nRAM:"
        " 16GB\n",
        (
            T(
                "Minimum",
                "quillon-wherry-ebb-4",
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
        "paired with",
        "A Quillon Wherry Ebb 4 paired with an Orlop Taper (4 GB) and 8 GB of memory gets you 30"
        " frames at 1080p. A Quillon Cutter Flood 6 paired with a Nacre Reef (8 GB) and 16 GB of"
        " memory gets you 60 frames at 1440p.",
        (
            T("", "quillon-wherry-ebb-4", "orlop-taper@4", 8, res="1920x1080", fps=30),
            T("", "quillon-cutter-flood-6", "nacre-reef@8", 16, res="2560x1440", fps=60),
        ),
    ),
    Sample(
        "numbered letter",
        "1) The least we support: Marrowgate Heron Dun 6, Orlop Lantern with 6 GB, 12 GB of"
        " RAM.\n2)"
        " What we suggest: Marrowgate Heron Slate 10, Orlop Beacon with 12 GB, 32 GB of RAM.\n3)"
        " Disk"
        " space for either: 120 GB.\n",
        (
            T("Minimum", "marrowgate-heron-dun-6", "orlop-lantern@6", 12, disk=120),
            T("Recommended", "marrowgate-heron-slate-10", "orlop-beacon@12", 32, disk=120),
        ),
    ),
    Sample(
        "portuguese letter",
        "Olá! Para começar, o mínimo é um Marrowgate Gannet Moss 4 com 6 GB de RAM e uma Marlpoint"
        " Ayre de 3 GB. Recomendamos um Marrowgate Osprey Dun 8 com 24 GB de RAM e uma Marlpoint"
        " Holm"
        " de 8 GB. O jogo ocupa 35 GB no disco.",
        (
            T("Minimum", "marrowgate-gannet-moss-4", "marlpoint-ayre@3", 6, disk=35),
            T("Recommended", "marrowgate-osprey-dun-8", "marlpoint-holm@8", 24, disk=35),
        ),
    ),
    Sample(
        "italian lines",
        "Minimi\nQuillon Wherry Ebb 4 o equivalente\n8 GB di RAM\nOrlop Taper da 4 GB\n45 GB"
        " liberi su"
        " disco\n\nRaccomandati\nQuillon Cutter Flood 6 o equivalente\n16 GB di RAM\nNacre Reef"
        " da 8"
        " GB\n60 GB liberi su disco\n",
        (
            T("Minimum", "quillon-wherry-ebb-4", "orlop-taper@4", 8, disk=45),
            T("Recommended", "quillon-cutter-flood-6", "nacre-reef@8", 16, disk=60),
        ),
    ),
    Sample(
        "dutch run-on",
        "Systeemeisen. Minimaal: Quillon Cutter Ebb 6, 12 GB geheugen, Nacre Cove met 6 GB en 90 GB"
        " schijfruimte. Aanbevolen: Quillon Ketch Flood 8, 32 GB geheugen, Nacre Bank met 12 GB en"
        " 120 GB schijfruimte.",
        (
            T("Minimum", "quillon-cutter-ebb-6", "nacre-cove@6", 12, disk=90),
            T("Recommended", "quillon-ketch-flood-8", "nacre-bank@12", 32, disk=120),
        ),
    ),
    Sample(
        "stars and small print",
        "**MINIMUM**\n* OS *: Tidewater 10 (64-bit)\n* Processor: Quillon Cutter Ebb 6 or"
        " Marrowgate"
        " Heron Dun 6\n* Memory: 12 GB RAM\n* Graphics: Nacre Cove 6 GB\n* Storage: 90 GB available"
        " space\n* Sound Card: any\n\n**RECOMMENDED**\n* OS *: Tidewater 11 (64-bit)\n* Processor:"
        " Quillon Ketch Flood 8 or Marrowgate Heron Slate 10\n* Memory: 32 GB RAM\n* Graphics:"
        " Nacre"
        " Bank 12 GB\n* Storage: 120 GB available space\n* as of next year, older systems are not"
        " supported\n",
        (
            T(
                "Minimum",
                "quillon-cutter-ebb-6 marrowgate-heron-dun-6",
                "nacre-cove@6",
                12,
                disk=90,
                os="Tidewater 10 (64-bit)",
            ),
            T(
                "Recommended",
                "quillon-ketch-flood-8 marrowgate-heron-slate-10",
                "nacre-bank@12",
                32,
                disk=120,
                os="Tidewater 11 (64-bit)",
            ),
        ),
    ),
    Sample(
        "cards first",
        "GPU: Orlop Taper 4 GB (min), Nacre Reef 8 GB (rec)\nCPU: Quillon Wherry Ebb 4 (min),"
        " Quillon"
        " Cutter Flood 6 (rec)\nRAM: 8 GB (min), 16 GB (rec)\n",
        (
            T("Min", "quillon-wherry-ebb-4", "orlop-taper@4", 8),
            T("Rec", "quillon-cutter-flood-6", "nacre-reef@8", 16),
        ),
    ),
    Sample(
        "rays in a tier of their own",
        "Recommended: Quillon Cutter Flood 6, Nacre Reef 8 GB, 16 GB RAM - 1440p, 60 fps, no ray"
        " tracing\nRecommended with ray tracing: Quillon Ketch Flood 8, Nacre Bank 12 GB, 32 GB"
        " RAM -"
        " 1440p, 60 fps, ray tracing on\n",
        (
            T(
                "Recommended",
                "quillon-cutter-flood-6",
                "nacre-reef@8",
                16,
                res="2560x1440",
                fps=60,
                rt=False,
            ),
            T(
                "Recommended with ray tracing",
                "quillon-ketch-flood-8",
                "nacre-bank@12",
                32,
                res="2560x1440",
                fps=60,
                rt=True,
            ),
        ),
    ),
)

LAST: tuple[Sample, ...] = (
    Sample(
        "spec card",
        "[ MINIMUM ]  Wherry Ebb 4  |  Taper 4 GB  |  8 GB RAM  |  45 GB\n[ RECOMMENDED ]  Cutter"
        " Flood"
        " 6  |  Reef 8 GB  |  16 GB RAM  |  60 GB\n",
        (
            T("Minimum", "quillon-wherry-ebb-4", "orlop-taper@4", 8, disk=45),
            T("Recommended", "quillon-cutter-flood-6", "nacre-reef@8", 16, disk=60),
        ),
    ),
    Sample(
        "what runs it how",
        "What do I need for 1080p at 30? A Quillon Wherry Ebb 4, an Orlop Taper (4 GB) and 8 GB of"
        " RAM.\nWhat do I need for 1440p at 60? A Quillon Cutter Flood 6, a Nacre Reef (8 GB) and"
        " 16"
        " GB of RAM.\nWhat do I need for 2160p at 60? A Quillon Ketch Flood 8, a Nacre Bank (12 GB)"
        " and 32 GB of RAM.\n",
        (
            T("", "quillon-wherry-ebb-4", "orlop-taper@4", 8, res="1920x1080", fps=30),
            T("", "quillon-cutter-flood-6", "nacre-reef@8", 16, res="2560x1440", fps=60),
            T("", "quillon-ketch-flood-8", "nacre-bank@12", 32, res="3840x2160", fps=60),
        ),
    ),
    Sample(
        "german letter",
        "Liebe Spieler,\n\nals Minimum haben wir mit einem Marrowgate Heron Dun 6, 12 GB"
        " Arbeitsspeicher"
        " und einer Orlop Lantern mit 6 GB getestet. Wir empfehlen aber einen Marrowgate Heron"
        " Slate"
        " 10, 32 GB Arbeitsspeicher und eine Orlop Beacon mit 12 GB. Auf der Festplatte belegt das"
        " Spiel 120 GB.\n",
        (
            T("Minimum", "marrowgate-heron-dun-6", "orlop-lantern@6", 12, disk=120),
            T("Recommended", "marrowgate-heron-slate-10", "orlop-beacon@12", 32, disk=120),
        ),
    ),
    Sample(
        "french columns",
        "                    Minimale                Recommandée\nProcesseur          Quillon"
        " Cutter"
        " Ebb 6    Quillon Ketch Flood 8\nCarte graphique     Nacre Cove 6 Go         Nacre Bank 12"
        " Go\nMémoire vive        12 Go                   32 Go\n",
        (
            T("Minimum", "quillon-cutter-ebb-6", "nacre-cove@6", 12),
            T("Recommended", "quillon-ketch-flood-8", "nacre-bank@12", 32),
        ),
    ),
    Sample(
        "rungs",
        "1. Just starts: Quillon Wherry Neap 4 / Orlop Taper 2 GB / 6 GB RAM\n2. Plays well:"
        " Quillon"
        " Cutter Flood 6 / Nacre Reef 8 GB / 16 GB RAM\n3. Shines: Quillon Ketch Flood 8 / Nacre"
        " Bank"
        " 12 GB / 32 GB RAM\n",
        (
            T("Just starts", "quillon-wherry-neap-4", "orlop-taper@2", 6),
            T("Plays well", "quillon-cutter-flood-6", "nacre-reef@8", 16),
            T("Shines", "quillon-ketch-flood-8", "nacre-bank@12", 32),
        ),
    ),
    Sample(
        "card before processor",
        "Minimum: a Marlpoint Ayre (3 GB) in a machine with a Marrowgate Gannet Moss 4 and 6 GB"
        " RAM."
        " Recommended: a Marlpoint Holm (8 GB) in a machine with a Marrowgate Osprey Dun 8 and 24"
        " GB"
        " RAM.",
        (
            T("Minimum", "marrowgate-gannet-moss-4", "marlpoint-ayre@3", 6),
            T("Recommended", "marrowgate-osprey-dun-8", "marlpoint-holm@8", 24),
        ),
    ),
    Sample(
        "component sentences",
        "The processor should at least be a Quillon Cutter Ebb 6, better a Quillon Ketch Flood 8."
        " The"
        " graphics card should at least be a Nacre Cove 6 GB, better a Nacre Bank 12 GB. Memory"
        " should"
        " at least be 12 GB, better 32 GB.",
        (
            T("Minimum", "quillon-cutter-ebb-6", "nacre-cove@6", 12),
            T("Recommended", "quillon-ketch-flood-8", "nacre-bank@12", 32),
        ),
    ),
    Sample(
        "polish table",
        "| | Minimalne | Zalecane |\n| Procesor | Quillon Wherry Ebb 4 | Quillon Cutter Flood 6"
        " |\n|"
        " Karta graficzna | Orlop Taper 4 GB | Nacre Reef 8 GB |\n| Pamięć | 8 GB | 16 GB |\n|"
        " Dysk |"
        " 45 GB | 60 GB SSD |\n",
        (
            T("Minimum", "quillon-wherry-ebb-4", "orlop-taper@4", 8, disk=45),
            T("Recommended", "quillon-cutter-flood-6", "nacre-reef@8", 16, disk=60, kind="SSD"),
        ),
    ),
    Sample(
        "no processor stated",
        "Minimum graphics: Orlop Taper 4 GB. Recommended graphics: Nacre Reef 8 GB. You need 8 GB"
        " of"
        " RAM, 16 GB are better.",
        (
            T("Minimum", "", "orlop-taper@4", 8),
            T("Recommended", "", "nacre-reef@8", 16),
        ),
    ),
    Sample(
        "one tier only",
        "Runs on: Tidewater 10, Quillon Wherry Ebb 4, Orlop Taper 4 GB, 8 GB RAM, 45 GB of disk"
        " space.",
        (T("", "quillon-wherry-ebb-4", "orlop-taper@4", 8, disk=45, os="Tidewater 10"),),
    ),
    Sample(
        "settings pages",
        "LOW\n1080p, 30 fps\nCPU: Quillon Wherry Ebb 4\nGPU: Orlop Taper 4 GB\n8 GB"
        " RAM\n\nHIGH\n1440p,"
        " 60 fps\nCPU: Quillon Cutter Flood 6\nGPU: Nacre Reef 8 GB\n16 GB RAM\n\nULTRA\n2160p,"
        " 60 fps\n"
        "CPU: Quillon Ketch Flood 8\nGPU: Nacre Bank 12 GB\n32 GB RAM\n",
        (
            T("Low", "quillon-wherry-ebb-4", "orlop-taper@4", 8, res="1920x1080", fps=30),
            T("High", "quillon-cutter-flood-6", "nacre-reef@8", 16, res="2560x1440", fps=60),
            T("Ultra", "quillon-ketch-flood-8", "nacre-bank@12", 32, res="3840x2160", fps=60),
        ),
    ),
    Sample(
        "spanish run-on",
        "Requisitos: mínimos - Marrowgate Gannet Moss 4, 6 GB RAM, Marlpoint Ayre 3 GB, 20 GB de"
        " disco;"
        " recomendados - Marrowgate Osprey Dun 8, 24 GB RAM, Marlpoint Holm 8 GB, 35 GB de disco.",
        (
            T("Minimum", "marrowgate-gannet-moss-4", "marlpoint-ayre@3", 6, disk=20),
            T("Recommended", "marrowgate-osprey-dun-8", "marlpoint-holm@8", 24, disk=35),
        ),
    ),
    Sample(
        "alternatives on lines of their own",
        "MINIMUM\nCPU\nQuillon Wherry Ebb 4\nor\nMarrowgate Gannet Dun 4\nGPU\nOrlop Taper 4"
        " GB\nor\n"
        "Marlpoint Skerry 4 GB\nRAM\n8 GB\n\nRECOMMENDED\nCPU\nQuillon Cutter Flood"
        " 6\nor\nMarrowgate"
        " Heron Slate 6\nGPU\nNacre Reef 8 GB\nor\nOrlop Wick 8 GB\nRAM\n16 GB\n",
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
        "advice with a joke",
        "Will it run? On a Quillon Wherry Ebb 4 with an Orlop Taper 4GB and 8GB RAM it crawls,"
        " sorry,"
        " runs (that is our official minimum). To see the sea as we painted it, get a Quillon"
        " Cutter"
        " Flood 6, a Nacre Reef 8GB and 16GB RAM (officially recommended, for once).",
        (
            T("Minimum", "quillon-wherry-ebb-4", "orlop-taper@4", 8),
            T("Recommended", "quillon-cutter-flood-6", "nacre-reef@8", 16),
        ),
    ),
    Sample(
        "italian table",
        "\tMinimo\tConsigliato\nProcessore\tQuillon Cutter Ebb 6\tQuillon Ketch Flood 8\nScheda"
        " video\t"
        "Nacre Cove 6 GB\tNacre Bank 12 GB\nMemoria\t12 GB\t32 GB\nSpazio su disco\t90 GB\t120"
        " GB\n",
        (
            T("Minimum", "quillon-cutter-ebb-6", "nacre-cove@6", 12, disk=90),
            T("Recommended", "quillon-ketch-flood-8", "nacre-bank@12", 32, disk=120),
        ),
    ),
    Sample(
        "dutch letter",
        "Hallo! Het spel draait al op een Marrowgate Gannet Dun 4 met 8 GB geheugen en een"
        " Marlpoint"
        " Skerry van 4 GB, dat is het minimum. Wij raden een Marrowgate Heron Slate 6 met 16 GB"
        " geheugen en een Orlop Wick van 8 GB aan.",
        (
            T("Minimum", "marrowgate-gannet-dun-4", "marlpoint-skerry@4", 8),
            T("Recommended", "marrowgate-heron-slate-6", "orlop-wick@8", 16),
        ),
    ),
)

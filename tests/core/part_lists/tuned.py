"""The half that the reader may be tuned on."""

from tests.core.part_lists import Sent

TUNED = (
    Sent(
        "names alone",
        """Quillon Ketch Flood 8
Saltgrove Mole Full Capstan
Bramblebyte Burdock 32 Pair DDR5
Kitefall Nacre Reef 16 GB Triple
Ledgerock Cairn 1000
Fennwick High Tide
Ampherst Ballast 750
Lidd & Frame Gangway""",
        (
            "quillon-ketch-flood-8",
            "saltgrove-mole-full-capstan",
            "bramblebyte-burdock-32-pair-ddr5",
            "kitefall-reef-16-triple",
            "ledgerock-cairn-1000",
            "fennwick-high-tide",
            "ampherst-ballast-750",
            "lidd-frame-gangway",
        ),
    ),
    Sent(
        "names alone",
        """marrowgate heron slate 6
dunmarrow weatherboard rudder

quickfen marram low 16 pair ddr5
dunmarrow marlpoint holm 8 gb twin

stonepier shingle 500
boxwood yard plank
lowhum level 550""",
        (
            "marrowgate-heron-slate-6",
            "dunmarrow-weatherboard-rudder",
            "quickfen-marram-low-16-pair-ddr5",
            "dunmarrow-holm-8-twin",
            "stonepier-shingle-500",
            "boxwood-yard-plank",
            "lowhum-level-550",
        ),
    ),
    Sent(
        "kind and price",
        """CPU: Quillon Cutter Flood 6 - €169.90
GPU: Pellworth Orlop Pharos 16 GB Plain - €644.90
Motherboard: Pellworth Groyne Full Capstan - €109.00
RAM: Quickfen Marram 32 Pair DDR5 - €94.50
SSD: Stonepier Granite 1000 - €71.00
PSU: Ampherst Steady 750 - €118.00
Case: Boxwood Yard Galley - €55.80
Total: €1,263.10""",
        (
            "quillon-cutter-flood-6 @ 169.90",
            "pellworth-pharos-16-plain @ 644.90",
            "pellworth-groyne-full-capstan @ 109.00",
            "quickfen-marram-32-pair-ddr5 @ 94.50",
            "stonepier-granite-1000 @ 71.00",
            "ampherst-steady-750 @ 118.00",
            "boxwood-yard-galley @ 55.80",
        ),
    ),
    Sent(
        "kind and price",
        """Processor ........ Marrowgate Osprey Slate 14 ........ EUR 289
Cooler ........... Coldreach Trade Wind Twin ......... EUR 48
Board ............ Kitefall Sluice Full Rudder ....... EUR 131
Memory ........... Bramblebyte Thorn 32 Pair DDR5 .... EUR 99
Graphics ......... Kitefall Nacre Bank 12 GB Triple .. EUR 599
Drive ............ Ledgerock Scarp 2000 .............. EUR 139
Supply ........... Lowhum Even 750 ................... EUR 92
Housing .......... Lidd & Frame Skylight ............. EUR 99""",
        (
            "marrowgate-osprey-slate-14 @ 289",
            "coldreach-trade-wind-twin @ 48",
            "kitefall-sluice-full-rudder @ 131",
            "bramblebyte-thorn-32-pair-ddr5 @ 99",
            "kitefall-bank-12-triple @ 599",
            "ledgerock-scarp-2000 @ 139",
            "lowhum-even-750 @ 92",
            "lidd-frame-skylight @ 99",
        ),
    ),
    Sent(
        "csv",
        """Component,Product,Qty,Price
Processor,Quillon Skiff Flood 6 Low,1,149.90
Mainboard,Kitefall Sluice Mini Capstan,1,118.20
Memory,Bramblebyte Burdock 16 Single DDR5,2,31.90
Storage,"Ledgerock Cobble 1000, 1 TB",1,58.40
Power supply,Ampherst Small Steady 600,1,121.00
Case,"Lidd & Frame Cabin",1,89.00""",
        (
            "quillon-skiff-flood-6-low @ 149.90",
            "kitefall-sluice-mini-capstan @ 118.20",
            "2 bramblebyte-burdock-16-single-ddr5 @ 31.90",
            "ledgerock-cobble-1000 @ 58.40",
            "ampherst-small-steady-600 @ 121.00",
            "lidd-frame-cabin @ 89.00",
        ),
    ),
    Sent(
        "csv",
        """name;kind;shop;price in EUR
Marrowgate Heron Dun 6;processor;The Second Bench;61,50
Dunmarrow Orlop Beacon 12 GB Twin;graphics card;Quayside Parts;189,90
Quickfen Reed 16 Pair DDR4;memory;Quayside Parts;33,80
Stonepier Drum 4000;drive;Northlight Direct;79,00
Coldreach Sail 120 Three;fans;Northlight Direct;21,90""",
        (
            "marrowgate-heron-dun-6 @ 61.50",
            "dunmarrow-beacon-12-twin @ 189.90",
            "quickfen-reed-16-pair-ddr4 @ 33.80",
            "stonepier-drum-4000 @ 79.00",
            "coldreach-sail-120-three @ 21.90",
        ),
    ),
    Sent(
        "sheet",
        "Part\tWhat\tPieces\tEach\tTogether\n"
        "CPU\tQuillon Barque Flood 12\t1\t369.00\t369.00\n"
        "Cooler\tFennwick Undertow 280\t1\t129.00\t129.00\n"
        "RAM\tQuickfen Rill 32 Pair Quick DDR5\t2\t119.00\t238.00\n"
        "GPU\tDunmarrow Nacre Trench 16 GB Broad\t1\t899.00\t899.00\n"
        "SSD\tStonepier Boulder 2000\t2\t109.00\t218.00\n"
        "PSU\tAmpherst Bedrock 1000\t1\t199.00\t199.00\n"
        "Sum\t\t\t\t2052.00",
        (
            "quillon-barque-flood-12 @ 369.00",
            "fennwick-undertow-280 @ 129.00",
            "2 quickfen-rill-32-pair-quick-ddr5 @ 119.00",
            "dunmarrow-trench-16-broad @ 899.00",
            "2 stonepier-boulder-2000 @ 109.00",
            "ampherst-bedrock-1000 @ 199.00",
        ),
    ),
    Sent(
        "sheet",
        "\tOld one\tNew one\nprocessor\t\tQuillon Wherry Flood 4\nboard\t\tPellworth Groyne Micro"
        " Capstan\nmemory\t\tBramblebyte Burdock 16 Pair DDR5\ncard\t\tSaltgrove Orlop Wick 8 GB"
        " Short\ncase\t\tBoxwood Yard Stowage",
        (
            "quillon-wherry-flood-4",
            "pellworth-groyne-micro-capstan",
            "bramblebyte-burdock-16-pair-ddr5",
            "saltgrove-wick-8-short",
            "boxwood-yard-stowage",
        ),
    ),
    Sent(
        "markdown table",
        """| Type | Item | Price |
|:-----|:-----|------:|
| **CPU** | [Marrowgate Petrel Slate 4](https://quayside.example/p/1) | €100.80 @ Quayside Parts |
| **Motherboard** | [Saltgrove Mole Micro Rudder](https://quayside.example/p/2) | €84.00 @ Quayside Parts |
| **Memory** | [Quickfen Marram 16 Pair DDR5](https://quayside.example/p/3) | €49.00 @ Quayside Parts |
| **Video card** | [Pellworth Orlop Lantern 6 GB Plain](https://northlight.example/9) | €145.80 @ Northlight Direct |
| | *Prices with tax* | |
| | **Total** | **€379.60** |""",
        (
            "marrowgate-petrel-slate-4 @ 100.80",
            "saltgrove-mole-micro-rudder @ 84.00",
            "quickfen-marram-16-pair-ddr5 @ 49.00",
            "pellworth-lantern-6-plain @ 145.80",
        ),
    ),
    Sent(
        "markdown table",
        """Part | Choice | Why
--- | --- | ---
Graphics | Dunmarrow Nacre Reef 8 GB Broad | quiet
Processor | Quillon Cutter Ebb 6 | cheap on DDR4
Memory | Bramblebyte Teasel Show 32 Pair DDR4 | it glows
Cooler | Coldreach Squall Show | it glows too
Case | Boxwood Yard Galley Glass | see above""",
        (
            "dunmarrow-reef-8-broad",
            "quillon-cutter-ebb-6",
            "bramblebyte-teasel-show-32-pair-ddr4",
            "coldreach-squall-show",
            "boxwood-yard-galley-glass",
        ),
    ),
    Sent(
        "bullets",
        """* Quillon Ketch Ebb 8 (used, 120 EUR)
* Pellworth Wharf Full – 74 €
* Quickfen Marram 32 Pair DDR4, 62 €
* Dunmarrow Nacre Shoal 8 GB Twin: 155 €
* Stonepier Slate 960, 49,90 €
* Lowhum Plain 500 for 39 €""",
        (
            "quillon-ketch-ebb-8 @ 120",
            "pellworth-wharf-full @ 74",
            "quickfen-marram-32-pair-ddr4 @ 62",
            "dunmarrow-shoal-8-twin @ 155",
            "stonepier-slate-960 @ 49.90",
            "lowhum-plain-500 @ 39",
        ),
    ),
    Sent(
        "bullets",
        """- [x] Marrowgate Osprey Slate 14 Bare
- [x] Fennwick Spring Tide
- [ ] Kitefall Jetty Grand
- [ ] Bramblebyte Burdock 64 Pair DDR5
- [ ] Kitefall Nacre Fathom 24 GB Triple (if the money allows)
- [ ] Ampherst Still 1200""",
        (
            "marrowgate-osprey-slate-14-bare",
            "fennwick-spring-tide",
            "kitefall-jetty-grand",
            "bramblebyte-burdock-64-pair-ddr5",
            "kitefall-fathom-24-triple",
            "ampherst-still-1200",
        ),
    ),
    Sent(
        "prose",
        """Hello, I was thinking of the Quillon Cutter Flood 6 on a Dunmarrow Staithe Micro Five with
the Bramblebyte Burdock 32 Pair DDR5 kit. For the card a Saltgrove Nacre Reef 8 GB Short because my
Lidd & Frame Bunk is tiny. The supply would be the Ampherst Small Ballast 500 and I keep the
Stonepier Shingle 1000 from my old machine.""",
        (
            "quillon-cutter-flood-6",
            "dunmarrow-staithe-micro-five",
            "bramblebyte-burdock-32-pair-ddr5",
            "saltgrove-reef-8-short",
            "lidd-frame-bunk",
            "ampherst-small-ballast-500",
            "stonepier-shingle-1000",
        ),
    ),
    Sent(
        "prose",
        """My brother says to get a Marrowgate Heron Slate 10, cooled by a Fennwick Rip, in a Pellworth
Groyne Full Rudder. Then a Kitefall Marlpoint Ness 16 GB Triple for 460 euros, plus two Ledgerock
Ledge 1000 drives, and everything goes into a Boxwood Yard Crate Mesh with a Lowhum Level 750. What
do you think? I mostly play Gullwing Circuit at 1440p and have 1,500 at most.""",
        (
            "marrowgate-heron-slate-10",
            "fennwick-rip",
            "pellworth-groyne-full-rudder",
            "kitefall-ness-16-triple @ 460",
            "2 ledgerock-ledge-1000",
            "boxwood-yard-crate-mesh",
            "lowhum-level-750",
        ),
    ),
    Sent(
        "short",
        """ketch flood 8 deep
mole full capstan
marram low 32 ddr5 pair
trench 16gb broad dunmarrow
scarp 2tb
bedrock 850
high tide
gangway lit""",
        (
            "quillon-ketch-flood-8-deep",
            "saltgrove-mole-full-capstan",
            "quickfen-marram-low-32-pair-ddr5",
            "dunmarrow-trench-16-broad",
            "ledgerock-scarp-2000",
            "ampherst-bedrock-850",
            "fennwick-high-tide",
            "lidd-frame-gangway-lit",
        ),
    ),
    Sent(
        "short",
        """petrel slate 4 / weatherboard rudder / burdock 16 single / wick 8gb plain / cobble 500 /
level 450 / plank case""",
        (
            "marrowgate-petrel-slate-4",
            "dunmarrow-weatherboard-rudder",
            "bramblebyte-burdock-16-single-ddr5",
            "pellworth-wick-8-plain",
            "ledgerock-cobble-500",
            "lowhum-level-450",
            "boxwood-yard-plank",
        ),
    ),
    Sent(
        "order",
        """Order no. 20261107-44 – Quayside Parts
Pos  Qty  Art.no.   Description                              Unit      Sum
1    1    QP-00917  Quillon Ketch Flood 8, processor          239.00    239.00
2    1    QP-01822  Saltgrove Mole Full Capstan mainboard     129.00    129.00
3    2    QP-02210  Stonepier Granite 2000 NVMe SSD 2 TB      118.00    236.00
4    3    QP-05541  Fennwick Vane 140 fan                      17.90     53.70
Shipping                                                                 6.90
Grand total incl. VAT                                                  664.60""",
        (
            "quillon-ketch-flood-8 @ 239.00",
            "saltgrove-mole-full-capstan @ 129.00",
            "2 stonepier-granite-2000 @ 118.00",
            "3 fennwick-vane-140 @ 17.90",
        ),
    ),
    Sent(
        "order",
        """Your basket (5 items)

Pellworth Nacre Bank 12 GB Pale
In stock – dispatched tomorrow
Quantity: 1
€ 589.90
Remove

Boxwood Yard Skiff Box Pale
Only 2 left
Quantity: 1
€ 64.80
Remove

Coldreach Sail 140
In stock
Quantity: 3
€ 35.70
Remove

Subtotal € 690.40""",
        (
            "pellworth-bank-12-pale @ 589.90",
            "boxwood-yard-skiff-box-pale @ 64.80",
            "3 coldreach-sail-140",
        ),
    ),
    Sent(
        "forum",
        """[b]First build, please rate[/b]
[list]
[*][b]CPU:[/b] Marrowgate Albatross Slate 20
[*][b]GPU:[/b] Dunmarrow Marlpoint Stack 8 GB Twin
[*][b]RAM:[/b] Bramblebyte Plain 16 Single DDR4
[*][b]PSU:[/b] Lowhum Bargain 700
[*][b]Case:[/b] Lidd & Frame Lantern Room :)
[/list]
Budget was 1100. Thanks in advance!!""",
        (
            "marrowgate-albatross-slate-20",
            "dunmarrow-stack-8-twin",
            "bramblebyte-plain-16-single-ddr4",
            "lowhum-bargain-700",
            "lidd-frame-lantern-room",
        ),
    ),
    Sent(
        "forum",
        """> What would you change?
> Quillon Cutter Neap 6
> Kitefall Pontoon Micro
> Quickfen Marram 8 Single DDR4
> Pellworth Marlpoint Ayre 6 GB Plain
I'd swap the card.""",
        (
            "quillon-cutter-neap-6",
            "kitefall-pontoon-micro",
            "quickfen-marram-8-single-ddr4",
            "pellworth-ayre-6-plain",
        ),
    ),
    Sent(
        "quantities",
        """2x Quickfen Marram 16 Single DDR5
Ledgerock Cairn 2000 x2
Fennwick Vane 120 (3)
4 × Coldreach Reed 92
1 pc. Ampherst Ballast 850
Saltgrove Casement 27, two of them""",
        (
            "2 quickfen-marram-16-single-ddr5",
            "2 ledgerock-cairn-2000",
            "3 fennwick-vane-120",
            "4 coldreach-reed-92",
            "ampherst-ballast-850",
            "2 saltgrove-casement-27",
        ),
    ),
    Sent(
        "quantities",
        """6 seats, so:
6x Quillon Wherry Flood 4
6x Pellworth Groyne Micro Capstan
12x Bramblebyte Burdock 8 Single DDR5
6x Saltgrove Nacre Shoal 8 GB Short
6x Stonepier Shingle 500
6x Lowhum Level 450""",
        (
            "6 quillon-wherry-flood-4",
            "6 pellworth-groyne-micro-capstan",
            "12 bramblebyte-burdock-8-single-ddr5",
            "6 saltgrove-shoal-8-short",
            "6 stonepier-shingle-500",
            "6 lowhum-level-450",
        ),
    ),
    Sent(
        "slips",
        """Quilon Ketch Flod 8
Saltgrove Mole Ful Capstan
Bramblebite Burdock 32 Pair DDR5
Kitefal Nacre Reef 16GB Tripple
Ledgerok Cairn 1000
Ampherst Balast 750
Lidd and Frame Gangway""",
        (
            "quillon-ketch-flood-8",
            "saltgrove-mole-full-capstan",
            "bramblebyte-burdock-32-pair-ddr5",
            "kitefall-reef-16-triple",
            "ledgerock-cairn-1000",
            "ampherst-ballast-750",
            "lidd-frame-gangway",
        ),
    ),
    Sent(
        "slips",
        """marowgate heron slate6
dunmarow waetherboard wide rudder
quickfen maram 32pair ddr5
pellworth orlop becon 12gb plain
stonpier shingel 1000
coldreach trade-wind""",
        (
            "marrowgate-heron-slate-6",
            "dunmarrow-weatherboard-wide-rudder",
            "quickfen-marram-32-pair-ddr5",
            "pellworth-beacon-12-plain",
            "stonepier-shingle-1000",
            "coldreach-trade-wind",
        ),
    ),
    Sent(
        "json",
        """{"title": "loft pc", "items": [
 {"type": "cpu", "name": "Quillon Galleass Flood 16", "price": {"amount": "549.00", "currency": "EUR"}},
 {"type": "board", "name": "Saltgrove Mole Mini Capstan", "price": {"amount": "151.00", "currency": "EUR"}},
 {"type": "ram", "name": "Quickfen Weir 32 Pair DDR5", "quantity": 1},
 {"type": "ssd", "name": "Ledgerock Scarp 4000", "quantity": 2}
]}""",
        (
            "quillon-galleass-flood-16 @ 549.00",
            "saltgrove-mole-mini-capstan @ 151.00",
            "quickfen-weir-32-pair-ddr5",
            "2 ledgerock-scarp-4000",
        ),
    ),
    Sent(
        "comments",
        """1. Quillon Cutter Flood 6 Bare <- best value under 160
2. Coldreach Gust (20 bucks, quieter than the boxed one)
3. Pellworth Groyne Micro Capstan // could be any board really
4. Bramblebyte Thorn 16 Pair DDR5 # 5600 is enough
5. Nacre Reef 8 GB, whichever is cheapest
6. Lowhum Even 550""",
        (
            "quillon-cutter-flood-6-bare",
            "coldreach-gust @ 20",
            "pellworth-groyne-micro-capstan",
            "bramblebyte-thorn-16-pair-ddr5",
            "chip Nacre Reef 8 GB",
            "lowhum-even-550",
        ),
    ),
    Sent(
        "comments",
        """CPU - Marrowgate Osprey Dun 8 (already have it)
GPU - Orlop Pharos 16 GB
PSU - Ampherst Ballast Black 650
Monitor - Saltgrove Fanlight 24 Fast
OS - Tidewater 11 Home
Wifi - Kitefall Pennant Card""",
        (
            "marrowgate-osprey-dun-8",
            "chip Orlop Pharos 16 GB",
            "ampherst-ballast-black-650",
            "saltgrove-fanlight-24-fast",
            "tidewater-11-home",
            "kitefall-pennant-card",
        ),
    ),
    Sent(
        "other words",
        """Prozessor: Quillon Barque Ebb 12 – 1 Stück – 199,00 €
Grafikkarte: Kitefall Nacre Inlet 8 GB Triple – 179,00 €
Arbeitsspeicher: Bramblebyte Teasel 64 Pair DDR4 – 109,50 €
Netzteil: Ampherst Steady 650 – 98,00 €
Gehäuse: Boxwood Yard Sea Chest – 129,00 €""",
        (
            "quillon-barque-ebb-12 @ 199.00",
            "kitefall-inlet-8-triple @ 179.00",
            "bramblebyte-teasel-64-pair-ddr4 @ 109.50",
            "ampherst-steady-650 @ 98.00",
            "boxwood-yard-sea-chest @ 129.00",
        ),
    ),
    Sent(
        "unknown among them",
        """Quillon Ketch Flood 8 - 239
Ironwharf Capstan Plus 9 mainboard - 149
Bramblebyte Burdock 32 Pair DDR5 - 89
Ironwharf Lumen 850 W power supply - 101
Ledgerock Cairn 1000 - 66""",
        (
            "quillon-ketch-flood-8 @ 239",
            "? Ironwharf Capstan Plus 9 @ 149",
            "bramblebyte-burdock-32-pair-ddr5 @ 89",
            "? Ironwharf Lumen 850 W @ 101",
            "ledgerock-cairn-1000 @ 66",
        ),
    ),
    Sent(
        "figures first",
        """6-core processor - Quillon Cutter Flood 6
32 GB (2x16) DDR5 - Bramblebyte Burdock 32 Pair DDR5
1 TB NVMe - Ledgerock Cairn 1000
12 GB graphics - Nacre Bank 12 GB by Dunmarrow, the Twin
650 W Gold - Ampherst Steady 650
240 mm liquid cooler - Coldreach Millrace 240""",
        (
            "quillon-cutter-flood-6",
            "bramblebyte-burdock-32-pair-ddr5",
            "ledgerock-cairn-1000",
            "dunmarrow-bank-12-twin",
            "ampherst-steady-650",
            "coldreach-millrace-240",
        ),
    ),
    Sent(
        "markup",
        """<table><tr><td>CPU</td><td><b>Quillon Skiff Flood 8 Low</b></td><td>€279.90</td></tr>
<tr><td>GPU</td><td>Saltgrove Marlpoint Ness 16 GB Short<script>alert(1)</script></td><td>&euro;452.00</td></tr>
<tr><td>Case</td><td>Lidd &amp; Frame Hatch Tall</td><td>€79.00</td></tr></table>""",
        (
            "quillon-skiff-flood-8-low @ 279.90",
            "saltgrove-ness-16-short @ 452.00",
            "lidd-frame-hatch-tall @ 79.00",
        ),
    ),
)

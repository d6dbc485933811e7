"""The half that the reader was never tuned on."""

from tests.core.part_lists import Sent

UNTOUCHED = (
    Sent(
        "names alone",
        """Marrowgate Osprey Slate 14
Kitefall Sluice Wide Rudder
Quickfen Rill 64 Pair DDR5
Pellworth Nacre Trench 16 GB Plain
Stonepier Granite 4000
Fennwick Undertow 360
Ampherst Still 850
Boxwood Yard Bulkhead""",
        (
            "marrowgate-osprey-slate-14",
            "kitefall-sluice-wide-rudder",
            "quickfen-rill-64-pair-ddr5",
            "pellworth-trench-16-plain",
            "stonepier-granite-4000",
            "fennwick-undertow-360",
            "ampherst-still-850",
            "boxwood-yard-bulkhead",
        ),
    ),
    Sent(
        "names alone",
        """QUILLON WHERRY EBB 4
DUNMARROW STAITHE FULL HEADLESS
QUICKFEN SEDGE 32 PAIR DDR4
SALTGROVE MARLPOINT AYRE 3 GB SHORT
LEDGEROCK SPOIL 1000
LIDD & FRAME ALCOVE
LOWHUM SMALL 450""",
        (
            "quillon-wherry-ebb-4",
            "dunmarrow-staithe-full-headless",
            "quickfen-sedge-32-pair-ddr4",
            "saltgrove-ayre-3-short",
            "ledgerock-spoil-1000",
            "lidd-frame-alcove",
            "lowhum-small-450",
        ),
    ),
    Sent(
        "kind and price",
        """Processor = Marrowgate Heron Slate 6 Low = 139 EUR
Cooling = none, comes in the box
Mainboard = Pellworth Groyne Micro Rudder = 82.50 EUR
Memory = Bramblebyte Burdock Show 32 Pair DDR5 = 109 EUR
Card = Dunmarrow Nacre Reef 16 GB Twin = 429 EUR
Storage = Ledgerock Cobble 2000 = 99.90 EUR
Supply = Lowhum Level 650 = 69 EUR""",
        (
            "marrowgate-heron-slate-6-low @ 139",
            "pellworth-groyne-micro-rudder @ 82.50",
            "bramblebyte-burdock-show-32-pair-ddr5 @ 109",
            "dunmarrow-reef-16-twin @ 429",
            "ledgerock-cobble-2000 @ 99.90",
            "lowhum-level-650 @ 69",
        ),
    ),
    Sent(
        "kind and price",
        """€239 CPU Quillon Ketch Flood 8
€44 cooler Fennwick Low Tide Wide
€121 mobo Saltgrove Mole Full Capstan
€95 ram Quickfen Marram 32 Pair DDR5
€1,699 gpu Pellworth Nacre Fathom 24 GB Plain
€145 psu Ampherst Bedrock 850
€110 case Lidd & Frame Stateroom""",
        (
            "quillon-ketch-flood-8 @ 239",
            "fennwick-low-tide-wide @ 44",
            "saltgrove-mole-full-capstan @ 121",
            "quickfen-marram-32-pair-ddr5 @ 95",
            "pellworth-fathom-24-plain @ 1699",
            "ampherst-bedrock-850 @ 145",
            "lidd-frame-stateroom @ 110",
        ),
    ),
    Sent(
        "csv",
        """"Qty","Manufacturer","Model","Unit price","Currency"
"1","Quillon","Barque Flood 12","372.00","EUR"
"1","Coldreach","Millrace 360","139.00","EUR"
"2","Bramblebyte","Thorn 32 Single DDR5","58.00","EUR"
"1","Kitefall","Orlop Pharos 16 GB Triple","671.00","EUR"
"1","Lidd & Frame","Skylight Small","88.00","EUR\"""",
        (
            "quillon-barque-flood-12 @ 372.00",
            "coldreach-millrace-360 @ 139.00",
            "2 bramblebyte-thorn-32-single-ddr5 @ 58.00",
            "kitefall-pharos-16-triple @ 671.00",
            "lidd-frame-skylight-small @ 88.00",
        ),
    ),
    Sent(
        "csv",
        """Marrowgate Gannet Dun 4,66.80,2026-11-02
Dunmarrow Slipway Micro,51.00,2026-11-02
Quickfen Marram 16 Pair DDR4,36.00,2026-11-02
Pellworth Marlpoint Skerry 4 GB Plain,62.80,2026-11-03
Stonepier Slate 480,29.90,2026-11-03""",
        (
            "marrowgate-gannet-dun-4 @ 66.80",
            "dunmarrow-slipway-micro @ 51.00",
            "quickfen-marram-16-pair-ddr4 @ 36.00",
            "pellworth-skerry-4-plain @ 62.80",
            "stonepier-slate-480 @ 29.90",
        ),
    ),
    Sent(
        "sheet",
        "1\tQuillon Cutter Flood 6\tNorthlight Direct\t169,90 €\n"
        "1\tDunmarrow Weatherboard Capstan\tNorthlight Direct\t97,40 €\n"
        "2\tQuickfen Marram Low 16 Single DDR5\tQuayside Parts\t33,00 €\n"
        "1\tPellworth Orlop Beacon 12 GB Pale\tQuayside Parts\t201,00 €\n"
        "1\tBoxwood Yard Galley Pale\tQuayside Parts\t61,80 €",
        (
            "quillon-cutter-flood-6 @ 169.90",
            "dunmarrow-weatherboard-capstan @ 97.40",
            "2 quickfen-marram-low-16-single-ddr5 @ 33.00",
            "pellworth-beacon-12-pale @ 201.00",
            "boxwood-yard-galley-pale @ 61.80",
        ),
    ),
    Sent(
        "sheet",
        "What\tModel\tPrice\tBought\nProcessor\tMarrowgate Foundry Slate 24\t410\tno\nCooler\tFennwick"
        " Slack Water Twin\t79\tno\nBoard\tKitefall Jetty Grand\t219\tno\nRAM\tQuickfen Marram 64 Four"
        " DDR5\t205\tno\nScratch disk\tLedgerock Cairn Long 4000\t289\tyes\n",
        (
            "marrowgate-foundry-slate-24 @ 410",
            "fennwick-slack-water-twin @ 79",
            "kitefall-jetty-grand @ 219",
            "quickfen-marram-64-four-ddr5 @ 205",
            "ledgerock-cairn-long-4000 @ 289",
        ),
    ),
    Sent(
        "markdown table",
        """|Slot|Pick|EUR|
|-|-|-|
|cpu|Quillon Ketch Flood 8 Deep|389|
|cooler|Coldreach Gale|54|
|board|Kitefall Sluice Full Capstan|139|
|ram|Bramblebyte Burdock 32 Pair Careful DDR5|129|
|gpu|Dunmarrow Orlop Pharos 16 GB Broad|659|
|psu|Ampherst Ballast Black 850|131|""",
        (
            "quillon-ketch-flood-8-deep @ 389",
            "coldreach-gale @ 54",
            "kitefall-sluice-full-capstan @ 139",
            "bramblebyte-burdock-32-pair-careful-ddr5 @ 129",
            "dunmarrow-pharos-16-broad @ 659",
            "ampherst-ballast-black-850 @ 131",
        ),
    ),
    Sent(
        "markdown table",
        """| # | Part | Qty | Note |
|---|---|---|---|
| 1 | `Stonepier Boulder 4000` | 2 | mirrored |
| 2 | `Ledgerock Cairn 500` | 1 | system |
| 3 | `Fennwick Vane 120` | 5 | all round |
| 4 | `Boxwood Yard Hold Wide` | 1 | room for it all |""",
        (
            "2 stonepier-boulder-4000",
            "ledgerock-cairn-500",
            "5 fennwick-vane-120",
            "boxwood-yard-hold-wide",
        ),
    ),
    Sent(
        "bullets",
        """• Quillon Skiff Flood 8 Low … 279,90
• Saltgrove Inlet Mini Five … 133,00
• Quickfen Marram Low 32 Pair DDR5 … 101,00
• Lidd & Frame Berth … 92,00
• Ampherst Small Ballast 850 … 169,00
• Fennwick Half Tide … 41,00""",
        (
            "quillon-skiff-flood-8-low @ 279.90",
            "saltgrove-inlet-mini-five @ 133.00",
            "quickfen-marram-low-32-pair-ddr5 @ 101.00",
            "lidd-frame-berth @ 92.00",
            "ampherst-small-ballast-850 @ 169.00",
            "fennwick-half-tide @ 41.00",
        ),
    ),
    Sent(
        "bullets",
        """Things I already bought:
 - Boxwood Yard Duffel
 - Lowhum Even 650
Things still to buy:
 - Marrowgate Heron Slate 10 + Dunmarrow Weatherboard Wide Rudder
 - Bramblebyte Thorn 32 Pair DDR5
 - Saltgrove Nacre Bank 12 GB Short""",
        (
            "boxwood-yard-duffel",
            "lowhum-even-650",
            "marrowgate-heron-slate-10",
            "dunmarrow-weatherboard-wide-rudder",
            "bramblebyte-thorn-32-pair-ddr5",
            "saltgrove-bank-12-short",
        ),
    ),
    Sent(
        "prose",
        """I picked the Marrowgate Osprey Slate 14 Bare since everybody has it, a Coldreach Doldrum to
keep it cool, and the Saltgrove Mole Full Rudder underneath. Memory is Quickfen Rill 32 Pair DDR5.
Because I like racing games the graphics card had to be the Dunmarrow Nacre Trench 16 GB Twin, and
it all runs off an Ampherst Steady 850 inside the Lidd & Frame Chart Table.""",
        (
            "marrowgate-osprey-slate-14-bare",
            "coldreach-doldrum",
            "saltgrove-mole-full-rudder",
            "quickfen-rill-32-pair-ddr5",
            "dunmarrow-trench-16-twin",
            "ampherst-steady-850",
            "lidd-frame-chart-table",
        ),
    ),
    Sent(
        "prose",
        """so i have 900 and want to play causeway clash at 240 hz. a mate sold me his quillon ketch neap
8 and a pellworth quay full for 95 together, i would add bramblebyte plain 32 pair ddr4 (55 at
northlight), the pellworth nacre cove 6 gb plain and reuse the lowhum plain 400 i have. is that
enough or do i need a new power supply?""",
        (
            "quillon-ketch-neap-8",
            "pellworth-quay-full",
            "bramblebyte-plain-32-pair-ddr4 @ 55",
            "pellworth-cove-6-plain",
            "lowhum-plain-400",
        ),
    ),
    Sent(
        "short",
        """osprey slate 14
sluice full rudder
thorn 64 pair ddr5
fathom 24 kitefall
granite 2tb
still 1200w
undertow 360
sea chest""",
        (
            "marrowgate-osprey-slate-14",
            "kitefall-sluice-full-rudder",
            "bramblebyte-thorn-64-pair-ddr5",
            "kitefall-fathom-24-triple",
            "stonepier-granite-2000",
            "ampherst-still-1200",
            "fennwick-undertow-360",
            "boxwood-yard-sea-chest",
        ),
    ),
    Sent(
        "short",
        """cutter flood 6 bare, gust plus, groyne micro capstan, burdock 32 pair, ness 16 gb short,
cairn 1tb, steady 650, crate mesh""",
        (
            "quillon-cutter-flood-6-bare",
            "coldreach-gust-plus",
            "pellworth-groyne-micro-capstan",
            "bramblebyte-burdock-32-pair-ddr5",
            "saltgrove-ness-16-short",
            "ledgerock-cairn-1000",
            "ampherst-steady-650",
            "boxwood-yard-crate-mesh",
        ),
    ),
    Sent(
        "order",
        """Three Gulls Computing – Invoice 118/2026

 1 x Quillon Cutter Flood 6                      EUR 171.00
 1 x Pellworth Quay Full Five                    EUR 128.00
 2 x Quickfen Marram 8 Single DDR5  à EUR 21.50  EUR  43.00
 1 x Pellworth Nacre Shoal 8 GB Pale             EUR 159.00
     Postage and packing                         EUR   7.90
     of which VAT 21 %                           EUR  88.33
     To pay                                      EUR 508.90""",
        (
            "quillon-cutter-flood-6 @ 171.00",
            "pellworth-quay-full-five @ 128.00",
            "2 quickfen-marram-8-single-ddr5 @ 21.50",
            "pellworth-shoal-8-pale @ 159.00",
        ),
    ),
    Sent(
        "order",
        """Item: Ledgerock Scarp 1000
SKU: 77-120
Price: 78.00

Item: Ampherst Ballast 650
SKU: 77-245
Price: 99.00

Item: Saltgrove Casement 34
SKU: 78-001
Price: 379.00""",
        (
            "ledgerock-scarp-1000 @ 78.00",
            "ampherst-ballast-650 @ 99.00",
            "saltgrove-casement-34 @ 379.00",
        ),
    ),
    Sent(
        "forum",
        """Hey all, long time lurker. Specs:
[spoiler]
CPU : Quillon Barque Ebb 12
Mobo : Pellworth Wharf Full
GPU : Kitefall Nacre Reef 8 GB Triple
RAM : Quickfen Marram 32 Pair DDR4 @ 3600
SSD : Ledgerock Ledge 500 + Stonepier Drum 2000 for games
[/spoiler]
Is the processor holding me back in Thousand Towers?""",
        (
            "quillon-barque-ebb-12",
            "pellworth-wharf-full",
            "kitefall-reef-8-triple",
            "quickfen-marram-32-pair-ddr4",
            "ledgerock-ledge-500",
            "stonepier-drum-2000",
        ),
    ),
    Sent(
        "forum",
        """@loftcrew my list v3 (changed the case!!):
~ Marrowgate Heron Dun 6 ~ 60
~ Dunmarrow Slipway Micro ~ 50
~ Bramblebyte Teasel 16 Pair DDR4 ~ 38
~ Dunmarrow Orlop Wick 8 GB Twin ~ 98
~ Boxwood Yard Ditty Box ~ 47
#firstbuild""",
        (
            "marrowgate-heron-dun-6 @ 60",
            "dunmarrow-slipway-micro @ 50",
            "bramblebyte-teasel-16-pair-ddr4 @ 38",
            "dunmarrow-wick-8-twin @ 98",
            "boxwood-yard-ditty-box @ 47",
        ),
    ),
    Sent(
        "quantities",
        """Stonepier Basalt 1000 (qty 2)
Coldreach Sail 120: 3 pieces
two Bramblebyte Burdock 16 Single DDR5
1x Ampherst Steady 550
Quickfen Tiller Set - 1
3 * Fennwick Vane 140""",
        (
            "2 stonepier-basalt-1000",
            "3 coldreach-sail-120",
            "2 bramblebyte-burdock-16-single-ddr5",
            "ampherst-steady-550",
            "quickfen-tiller-set",
            "3 fennwick-vane-140",
        ),
    ),
    Sent(
        "quantities",
        """4 of Ledgerock Cobble 8000
1 Dunmarrow Halyard Card
Ledgerock Quern Out, just one
x2 Quickfen Marram 64 Pair DDR5
Saltgrove Fanlight 24 times two""",
        (
            "4 ledgerock-cobble-8000",
            "dunmarrow-halyard-card",
            "ledgerock-quern-out",
            "2 quickfen-marram-64-pair-ddr5",
            "2 saltgrove-fanlight-24",
        ),
    ),
    Sent(
        "slips",
        """Quillion Barque Flood12
Kitefall Sluce Full Capstan
Quikfen Weir 32 Pair DDR5
Dunmarrow Nacre Bnak 12 GB Twin
Stonepeer Granite 1000
Fenwick Slack Water
Boxwod Yard Trunk""",
        (
            "quillon-barque-flood-12",
            "kitefall-sluice-full-capstan",
            "quickfen-weir-32-pair-ddr5",
            "dunmarrow-bank-12-twin",
            "stonepier-granite-1000",
            "fennwick-slack-water",
            "boxwood-yard-trunk",
        ),
    ),
    Sent(
        "slips",
        """marrowgate ospray slate 14 bare
pelworth groin full rudder
bramblebyte torn 32 pair ddr5
saltgrove marlpoint holm 8gb shrot
ampherst stedy 550
lidd frame sky-light small""",
        (
            "marrowgate-osprey-slate-14-bare",
            "pellworth-groyne-full-rudder",
            "bramblebyte-thorn-32-pair-ddr5",
            "saltgrove-holm-8-short",
            "ampherst-steady-550",
            "lidd-frame-skylight-small",
        ),
    ),
    Sent(
        "json",
        """[{"part": "Marrowgate Heron Slate 6", "cost": 129.8},
{"part": "Saltgrove Cove Mini Five", "cost": 119},
{"part": "Quickfen Marram 32 Pair DDR5", "cost": 94.5, "count": 1},
{"part": "Saltgrove Orlop Lantern 6 GB Short", "cost": 149},
{"part": "Coldreach Sail Show 120 Three", "cost": 33.9, "count": 2}]""",
        (
            "marrowgate-heron-slate-6 @ 129.80",
            "saltgrove-cove-mini-five @ 119",
            "quickfen-marram-32-pair-ddr5 @ 94.50",
            "saltgrove-lantern-6-short @ 149",
            "2 coldreach-sail-show-120-three @ 33.90",
        ),
    ),
    Sent(
        "comments",
        """A) Quillon Cutter Flood 6 ... good enough for years
B) Fennwick Neap Tide ... the boxed one is loud
C) Dunmarrow Staithe Micro ... DDR5? not sure
D) Marlpoint Holm 8 GB ... any maker
E) Ampherst Ballast 550 ... never skimp here
F) Boxwood Yard Locker Small ... fits under the bench""",
        (
            "quillon-cutter-flood-6",
            "fennwick-neap-tide",
            "dunmarrow-staithe-micro",
            "chip Marlpoint Holm 8 GB",
            "ampherst-ballast-550",
            "boxwood-yard-locker-small",
        ),
    ),
    Sent(
        "comments",
        """The heart of it: Nacre Trench 16 GB
Next to it: Quillon Ketch Flood 8 (not the Deep, too dear)
Board: anything, say Pellworth Groyne Full Capstan
Supply: at least Ampherst Steady 750
And for discs: Ledgerock Quern""",
        (
            "chip Nacre Trench 16 GB",
            "quillon-ketch-flood-8",
            "pellworth-groyne-full-capstan",
            "ampherst-steady-750",
            "ledgerock-quern",
        ),
    ),
    Sent(
        "other words",
        """prosessor Quillon Wherry Flood 4 kr 1 399,-
hovedkort Pellworth Groyne Micro Capstan kr 1 090,-
minne Bramblebyte Burdock 16 Pair DDR5 kr 599,-
skjermkort Dunmarrow Nacre Inlet 8 GB Twin kr 1 890,-
strømforsyning Lowhum Level 550 kr 649,-""",
        (
            "quillon-wherry-flood-4 @ 1399",
            "pellworth-groyne-micro-capstan @ 1090",
            "bramblebyte-burdock-16-pair-ddr5 @ 599",
            "dunmarrow-inlet-8-twin @ 1890",
            "lowhum-level-550 @ 649",
        ),
    ),
    Sent(
        "unknown among them",
        """CPU: Marrowgate Heron Slate 6, 129 EUR
Cooler: Northcliff Breeze 4, 35 EUR
GPU: Pellworth Marlpoint Ness 16 GB Pale, 449 EUR
Case: Northcliff Tall Box, 59 EUR
PSU: Lowhum Level 650, 68 EUR""",
        (
            "marrowgate-heron-slate-6 @ 129",
            "? Northcliff Breeze 4 @ 35",
            "pellworth-ness-16-pale @ 449",
            "? Northcliff Tall Box @ 59",
            "lowhum-level-650 @ 68",
        ),
    ),
    Sent(
        "figures first",
        """eight cores: Quillon Ketch Flood 8
thirty-two gigabytes: Quickfen Marram 32 Pair DDR5
two terabytes, fast: Stonepier Granite 2000
sixteen gigabytes of video memory: Dunmarrow Marlpoint Ness 16 GB Broad
seven hundred and fifty watts: Ampherst Ballast 750
a large white tower: Boxwood Yard Galley Pale""",
        (
            "quillon-ketch-flood-8",
            "quickfen-marram-32-pair-ddr5",
            "stonepier-granite-2000",
            "dunmarrow-ness-16-broad",
            "ampherst-ballast-750",
            "boxwood-yard-galley-pale",
        ),
    ),
    Sent(
        "markup",
        """<ul>
<li>Processor &ndash; <a href="x">Quillon Galleass Flood 16</a> <span class="p">549,00&nbsp;&euro;</span></li>
<li>Cooler &ndash; <a href="x">Fennwick Slack Water Twin</a> <span class="p">82,00&nbsp;&euro;</span></li>
<li>Case &ndash; <a href="javascript:alert(1)">Lidd &amp; Frame Stateroom</a> <span class="p">112,00&nbsp;&euro;</span></li>
</ul>""",
        (
            "quillon-galleass-flood-16 @ 549.00",
            "fennwick-slack-water-twin @ 82.00",
            "lidd-frame-stateroom @ 112.00",
        ),
    ),
)

"""Records of one's own and machines for comparison that ship with the demo."""

from datetime import date

from wattmetron.core.values.own_record import OwnRecord
from wattmetron.core.values.references import Reference, read_reached

OWN = (
    OwnRecord(
        of="part",
        name="ampherst-ballast-750",
        used=8,
        again=True,
        remarks="Quiet up to half load, cables long enough for every case so far.",
    ),
    OwnRecord(of="part", name="ledgerock-cairn-1000", used=11, failed=1, again=True),
)


REFERENCES = (
    Reference(
        id="lugger-deck",
        name="Lugger Deck",
        price_minor=549_00,
        currency="EUR",
        reached=(
            read_reached(
                "hollow-meridian", "1440p, dynamic resolution", "no counter: looks locked at 30"
            ),
            read_reached("ashfall-wardens", "1440p, dynamic resolution", "55 to 60"),
            read_reached("gullwing-circuit", "1440p", "locked at 60"),
            read_reached("lanternfolk", "2160p", "locked at 60"),
        ),
        includes="controller, system, one year of warranty",
        lacks="keyboard, mouse, other work; games cost more",
        source="Dry Dock Weekly",
        seen_on=date(2026, 11, 12),
    ),
    Reference(
        id="harbour-lights-ready",
        name="Harbour Lights Ready",
        price_minor=1199_00,
        currency="EUR",
        reached=(
            read_reached("hollow-meridian", "2560x1440, high", "52 to 58"),
            read_reached("gullwing-circuit", "2560x1440, ultra", "66"),
        ),
        includes="system installed, lights, two years of warranty",
        lacks="maker of board and supply not named, one stick of memory",
        source="Quayside Parts",
        seen_on=date(2026, 11, 18),
    ),
)

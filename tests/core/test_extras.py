"""What is bought besides the eight kinds: the cheapest way to each wish, as a whole machine."""

from dataclasses import replace
from functools import cache

import pytest

from tests.core.test_compatibility_rules import BOARD, CARD, CHIP, RECORDER, WHOLE
from tests.demo import loft, world
from wattmetron.core.compatibility.extras import Besides, besides_missed, runs, shows
from wattmetron.core.compatibility.floor_violations import missed
from wattmetron.core.compatibility.floors_of_brief import floors_of
from wattmetron.core.compatibility.rule_wishes import wishes_of
from wattmetron.core.compatibility.rules import check
from wattmetron.core.power.draw import draw
from wattmetron.core.requirements.versions import version_of
from wattmetron.core.search.proposal import propose
from wattmetron.core.texts.messages.message_reader import read_letter
from wattmetron.core.values.brief import BOUGHT_KINDS, Display
from wattmetron.core.values.build import Build
from wattmetron.core.values.further_parts import (
    InputDevice,
    OperatingSystem,
    OpticalDrive,
    Screen,
    WirelessAdapter,
)
from wattmetron.places.balance.wish_costs import wish_costs


@cache
def prices():
    return world().prices(loft().region, loft().may_buy)


SIZE = Display(width_px=2560, height_px=1440, refresh_hz=144.0)
SCREEN = Screen(
    id="screen",
    maker="Saltgrove",
    model="Screen",
    width_px=2560,
    height_px=1440,
    refresh_hz=144.0,
    inputs=("HDMI 2.0", "DisplayPort 1.4"),
)
SYSTEM = OperatingSystem(
    id="system", maker="Tidewater", model="Eleven", family="Tidewater 11", designs=("Flood",)
)
WANTS = Besides(
    wireless=True,
    kinds=frozenset(BOUGHT_KINDS),
    systems=(version_of("Tidewater 10 64-bit"),),
    display=SIZE,
)


def proposed(**changes):
    asked = replace(loft(), **changes)
    found = propose(world(), asked, "least money")
    assert found.build is not None
    return asked, found


def test_the_price_of_wireless_is_that_of_the_cheapest_way():
    """A stick at EUR 23.80 delivered, where a board with wireless costs EUR 35 more."""
    _, bare = proposed(wireless=False)
    asked, found = proposed(wireless=True)
    ways = [
        prices().cost(part.id)
        for part in world().by_kind["wireless"]
        if prices().cost(part.id) is not None
    ]
    by_board = propose(
        world(),
        replace(asked, banned=tuple(part.id for part in world().by_kind["wireless"])),
        "least money",
    )
    assert not by_board.build.of("wireless")
    assert found.cost_minor == min(by_board.cost_minor, bare.cost_minor + min(ways))
    assert found.cost_minor - bare.cost_minor <= 2380
    (told,) = [own for own in wish_costs(world(), asked, Build()) if own.wish.name == "wireless"]
    assert told.cost_minor <= 2380


def test_all_that_is_wanted_is_in_the_proposal_and_in_its_total():
    _, bare = proposed(system="")
    asked, found = proposed(
        system="", wireless=True, buys=("system", "display", "input", "optical")
    )
    build = found.build
    for kind in ("system", "display", "input", "optical"):
        assert build.of(kind), kind
    machine = world().machine(build)
    assert not [*missed(machine, floors_of(world(), asked))]
    rules = {"operating system", "system and processor", "display plug", "disc bay", "wireless"}
    found_rules = check(machine, wishes_of(asked, world().games, world().published))
    assert not rules & {item.rule for item in found_rules}
    owned = replace(asked, owned=build.of("display"))
    there = propose(world(), owned, "least money")
    assert there.build.of("display") == build.of("display")
    assert there.cost_minor == found.cost_minor - prices().cost(build.of("display")[0])
    free = propose(world(), replace(asked, outside=("system",)), "least money")
    assert free.cost_minor == found.cost_minor - prices().cost(build.of("system")[0])
    assert found.cost_minor > bare.cost_minor + prices().cost(build.of("display")[0])


def test_a_capture_card_is_the_cheapest_that_records_the_display_and_its_draw_is_counted():
    """At 2560x1440 the stick records too little; the card for a short slot at EUR 176.90 + 4.90 is
    the cheapest that does, and the box on USB at EUR 271.90 where boards have no slot left.
    """
    _, bare = proposed()
    asked, found = proposed(buys=("capture",))
    assert found.build.of("capture") == ("dunmarrow-fetch-card",)
    machine, without = world().machine(found.build), world().machine(bare.build)
    assert found.cost_minor == bare.cost_minor + 18_180
    assert draw(machine).full_w == draw(without).full_w + 8
    assert "recording" not in {item.rule for item in check(machine, wishes_of(asked))}
    _, boxed = proposed(buys=("capture",), banned=("dunmarrow-fetch-card", "kitefall-skein-four"))
    assert boxed.build.of("capture") == ("kitefall-skein-out",)
    message = read_letter(world(), "Budget 900 euro, includes a capture card.")
    assert [reading.value for reading in message.of("buys")] == ["capture"]


def test_the_system_that_the_brief_names_is_the_one_that_is_bought():
    for named in ("Tidewater 10", "Tidewater 11", "Stillwater 24"):
        asked = replace(loft(), system=named, buys=("system",), targets=())
        build = propose(world(), asked, "least money").build
        (own,) = build.of("system")
        assert world().part(own).family == named
        assert not [*missed(world().machine(build), floors_of(world(), asked))]


def test_what_stays_is_not_bought_again():
    screen = world().by_kind["display"][0].id
    asked = replace(loft(), buys=("display",))
    kept = Build(added=(("display", screen),))
    assert propose(world(), asked, "least money", kept).build.of("display") == (screen,)


@pytest.mark.parametrize(
    ("screen", "source", "does"),
    [
        (SCREEN, CARD, True),
        (replace(SCREEN, refresh_hz=143.0), CARD, False),
        (replace(SCREEN, width_px=3840, height_px=2160), CARD, False),
        (replace(SCREEN, inputs=("DVI",)), CARD, False),
        (SCREEN, BOARD, True),
        (replace(SCREEN, refresh_hz=240.0), BOARD, False),
        (replace(SCREEN, inputs=()), CARD, False),
    ],
    ids=["does", "slower", "other size", "no plug", "by the board", "too fast for it", "not known"],
)
def test_which_display_does(screen, source, does):
    assert shows(screen, source, WANTS) is does


def test_which_system_does():
    flood = replace(CHIP, design="Flood")
    assert runs(SYSTEM, flood, WANTS) and not runs(SYSTEM, CHIP, WANTS)
    assert runs(replace(SYSTEM, designs=()), CHIP, WANTS), "no designs are named"
    newer = replace(WANTS, systems=(version_of("Tidewater 12"),))
    assert not runs(SYSTEM, flood, newer)
    assert not runs(SYSTEM, flood, replace(WANTS, systems=(version_of("Stillwater 24"),)))


def test_what_is_missing_is_said_and_a_module_for_which_no_place_is_known_does_not_count():
    def said(*added):
        return [word for _, word in besides_missed(replace(WHOLE, added=added), WANTS)]

    radio = WirelessAdapter(
        id="radio", maker="Dunmarrow", model="radio", standard="Wi-Fi 6", via="M.2"
    )
    keys = InputDevice(id="keys", maker="Quickfen", model="keys", what="keyboard")
    discs = OpticalDrive(id="discs", maker="Ledgerock", model="discs", via="USB")
    assert said(radio, keys) == [
        "Kitefall Board has no wireless, and no adapter brings it.",
        "No operating system is there that games and Quillon Chip run on.",
        "No display of 2560x1440 at 144 Hz is there that the graphics drive in full.",
        "Keyboard or mouse is missing.",
        "There is no drive for discs.",
        "No capture card is there that records 2560x1440.",
    ]
    box = replace(RECORDER, via="USB")
    mouse = replace(keys, id="mouse", what="mouse")
    system = replace(SYSTEM, designs=())
    assert said(replace(radio, via="USB"), keys, mouse, discs, SCREEN, system, box) == []

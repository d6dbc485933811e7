"""Machines at the edge, each with what an experienced builder says of it: the gravest level, and a
word that must fall; ``fine`` means that nothing at all is said.

A machine is the usual one with changes: by kind the fields that differ, null for a part left out;
some are held against wishes of a brief.
"""

import json
from pathlib import Path

import pytest

from wattmetron.core.compatibility.finding import LEVELS
from wattmetron.core.compatibility.rule_wishes import Ask, Wishes
from wattmetron.core.compatibility.rules import check
from wattmetron.core.values.brief import Display
from wattmetron.core.values.kits import joined
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.part_kinds import FURTHER_KINDS
from wattmetron.core.values.part_types import PART_TYPES

TOLD = json.loads(Path(__file__).with_name("edge_machines.json").read_text())
MORE = json.loads(Path(__file__).with_name("edge_machines_more.json").read_text())
MACHINES = TOLD["machines"] + MORE["machines"]


def part(kind, figures):
    held = {key: tuple(own) if isinstance(own, list) else own for key, own in figures.items()}
    return PART_TYPES[kind](**held)


def machine(changes):
    """The usual machine with these changes."""
    places = {}
    for kind, usual in TOLD["usual"].items():
        if isinstance(usual, list):
            places[kind] = tuple(part(kind, own) for own in changes.get(kind, usual))
        elif (own := changes.get(kind, {})) is not None:
            places[kind] = part(kind, {**usual, **own})
    if "second" in changes:
        places["second_card"] = part("graphics", {**TOLD["usual"]["graphics"], **changes["second"]})
    if "kits" in changes:
        kits = tuple(part("memory", own) for own in changes["kits"])
        places |= {"kits": kits, "memory": joined(kits)}
    added = [part(kind, own) for kind in changes if kind in FURTHER_KINDS for own in changes[kind]]
    return Machine(**places, added=tuple(added))


def wishes(told):
    """The wishes that a machine is held against."""
    typed = dict(told.get("wishes", {}))
    if "display" in typed:
        typed["display"] = Display(**typed["display"])
    return Wishes(**typed | {"asks": tuple(Ask(**own) for own in typed.get("asks", ()))})


@pytest.mark.parametrize("told", MACHINES, ids=lambda told: told["words"])
def test_the_verdict_is_that_of_a_builder(told):
    found = check(machine(told["changes"]), wishes(told))
    said = [(item.level, item.sentence) for item in found]
    if told["level"] == "fine":
        assert not said
        return
    assert min((level for level, _ in said), key=LEVELS.index) == told["level"], said
    sentences = " ".join(text for level, text in said if level == told["level"])
    assert told["word"].lower() in sentences.lower()


def test_there_are_many_and_each_is_another():
    assert len({told["words"] for told in MACHINES}) == len(MACHINES) >= 160

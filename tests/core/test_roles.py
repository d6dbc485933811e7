"""Roles of drives: which serve system, games and bulk, by hand and against every way to share."""

from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from tests.core.brute import packs
from tests.demo import loft, world
from wattmetron.core.compatibility.allowed import may_be_bought
from wattmetron.core.compatibility.floor_violations import missed
from wattmetron.core.compatibility.floors_of_brief import floors_of, storage_floor
from wattmetron.core.compatibility.roles import ANY, SOLID, DriveNeed, DriveRoom, Room, roles_of
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.drives import Storage
from wattmetron.core.values.machine import Machine


def drive(kind: str, gb: int) -> Storage:
    return Storage(
        id=f"{kind} {gb}",
        maker="Ledgerock",
        model=f"{kind} {gb}",
        interface="M.2 NVMe" if kind == "NVMe SSD" else "SATA",
        capacity_gb=gb,
        read_mbs={"hard disk": 180, "SSD": 500, "NVMe SSD": 3500}[kind],
    )


NVME, SSD, DISK = drive("NVMe SSD", 500), drive("SSD", 1000), drive("hard disk", 4000)
WANTED = DriveNeed(Room(250, 2), DriveRoom(900, 900, 0), Room(3000), apart=True)


def test_each_role_by_hand():
    assert roles_of([DISK, SSD, NVME], WANTED) == (("bulk",), ("games",), ("system",))
    assert roles_of([SSD, DISK], WANTED) is None, "no NVMe SSD for the system"
    assert roles_of([NVME, SSD], WANTED._replace(bulk=Room(0))) == (("system",), ("games",))
    assert roles_of([NVME, DISK], WANTED) is None, "games belong on an SSD"
    shared = WANTED._replace(apart=False)
    assert roles_of([drive("NVMe SSD", 1150), DISK], shared) == (("system", "games"), ("bulk",))
    assert roles_of([drive("NVMe SSD", 1149), DISK], shared) is None
    assert roles_of([drive("NVMe SSD", 4150)], shared) == (("system", "games", "bulk"),)
    assert roles_of([drive("NVMe SSD", 4150)], shared._replace(all_gb=4151)) is None
    assert roles_of([], shared) is None


DRIVES = st.lists(
    st.builds(
        drive, st.sampled_from(("hard disk", "SSD", "NVMe SSD")), st.sampled_from((1, 2, 3, 4))
    ),
    max_size=5,
)
GB = st.integers(0, 5)
KIND = st.integers(0, 2)


@given(DRIVES, GB, KIND, st.tuples(GB, GB, GB), GB, KIND, GB, st.booleans())
def test_as_every_way_to_share_the_drives(drives, system, on, games, bulk, bulk_on, total, apart):
    need = DriveNeed(
        Room(system, on),
        DriveRoom(sum(games), games[1] + games[2], games[2]),
        Room(bulk, bulk_on),
        total,
        apart,
    )
    pace = [{"hard disk": 0, "SSD": 1, "NVMe SSD": 2}[own.kind] for own in drives]
    rooms = [own.capacity_gb for own in drives]

    def shared(first):
        others = [(pace[n], rooms[n]) for n in range(len(drives)) if n != first]
        if not apart:
            left = (pace[first], rooms[first] - system)
            return packs([left, *others], [*enumerate(games), (bulk_on, bulk)])
        return any(
            packs([own for n, own in enumerate(others) if mask >> n & 1], enumerate(games))
            and packs([own for n, own in enumerate(others) if not mask >> n & 1], [(bulk_on, bulk)])
            for mask in range(2 ** len(others))
        )

    able = [n for n in range(len(drives)) if pace[n] >= on and rooms[n] >= system]
    got = roles_of(drives, need)
    assert (got is not None) == (sum(rooms) >= total and any(shared(n) for n in able))
    if got:
        assert sum("system" in own for own in got) == 1 and all(got)
        assert not apart or all(len(own) == 1 for own in got)


def test_a_small_fast_one_one_for_games_and_a_large_cheap_one():
    """The cheapest drive of the demo for each role; more money than the roles want is not spent."""
    asked = replace(
        loft(),
        budget_high_minor=300_000,
        storage_gb=0.0,
        system_gb=240.0,
        system_on="NVMe SSD",
        games_gb=1000.0,
        bulk_gb=4000.0,
        drives_apart=True,
    )
    book = world().prices(asked.region, asked.may_buy)
    chosen = propose(world(), asked, "least money").build
    drives = [world().part(part_id) for part_id in chosen.storage]
    need = floors_of(world(), asked).storage
    roles = roles_of(drives, need)
    assert sorted(role for own in roles for role in own) == ["bulk", "games", "system"]
    for role, gb, kinds in (
        ("system", 240, ("NVMe SSD",)),
        ("games", need.games.all_gb, ("SSD", "NVMe SSD")),
        ("bulk", 4000, ("hard disk", "SSD", "NVMe SSD")),
    ):
        (own,) = [drive for drive, is_for in zip(drives, roles, strict=True) if role in is_for]
        assert own.capacity_gb >= gb and own.kind in kinds, role
        cheaper = [
            other.id
            for other in world().by_kind["storage"]
            if other.capacity_gb >= gb
            and other.kind in kinds
            and (price := book.cost(other.id)) is not None
            and price < book.cost(own.id)
            and other.size == own.size
            and may_be_bought(asked, other, price, (), book.supply)
        ]
        assert not cheaper, role
    without_disks = propose(world(), replace(asked, no_disks=True), "least money").build
    assert all(world().part(part_id).kind != "hard disk" for part_id in without_disks.storage)


def test_what_is_missing_is_said_by_role():
    def said(drives, **changes):
        brief = replace(loft(), targets=(), storage_gb=0.0, system_gb=240.0, **changes)
        floors = floors_of(world(), brief)
        return dict(missed(Machine(storage=tuple(drives)), floors))

    assert said([NVME]) == {}
    assert said([DISK]) == {
        "solid_state": "The system wants 240 GB on an SSD; there is none.",
    }
    assert said([NVME], games_gb=1000.0) == {
        "storage_gb": "Storage is 500 GB; system, games and bulk want 1,240 GB.",
    }
    assert said([NVME, DISK], games_gb=1000.0) == {
        "solid_state": (
            "Games that belong on an SSD want 1,000 GB on one beside the rest; drives of that kind"
            " hold 500 GB."
        ),
    }
    assert said([SSD], games_gb=500.0, drives_apart=True) == {
        "drives_apart": "System, games and bulk do not have drives of their own."
    }
    small = drive("SSD", 200)
    assert said([small, small], games_gb=100.0) == {
        "system_gb": "No drive has 240 GB for the system."
    }
    assert said([DISK], solid_state=False) == {}


def test_the_system_wants_a_solid_state_drive_unless_that_is_let_go():
    asked = replace(loft(), system_gb=200.0, system_on="SSD")
    assert storage_floor(world(), asked).system == Room(200.0, SOLID)
    assert storage_floor(world(), replace(asked, solid_state=False)).system == Room(200.0, ANY)

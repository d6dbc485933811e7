"""As good for less: what can be bought today at or above the speed of a part, and what it would
bring along.
"""

from dataclasses import dataclass
from datetime import date

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.vetting import Vetting
from wattmetron.core.errors import UnknownPartError
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.speeds.equal_parts import Use, equals
from wattmetron.core.speeds.speed_scale import Standing, scale_of
from wattmetron.core.values.build import Build
from wattmetron.core.values.offers import Buys, Offer
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.parts import Part
from wattmetron.places.assessment.assess import Assessment, known_brief, known_build, not_allowed

SHOWN = 12


@dataclass(frozen=True, slots=True, kw_only=True)
class Alternative:
    """A part as good for its price; ``saving_minor`` against the part named, None where that has no
    price.
    """

    part: Part
    offer: Offer
    ratio: float
    chance: float
    saving_minor: int | None
    forces: tuple[str, ...]
    build: Build | None
    present: bool
    named: bool
    age_days: int | None


@dataclass(frozen=True, kw_only=True)
class Alternatives:
    """Alternatives to a standing, cheapest first; ``named_minor`` is what the part named costs
    today. Left out are ``dearer`` ones and those that do not fit the build (``unfit``).
    """

    wanted: Standing
    named_minor: int | None
    rows: tuple[Alternative, ...]
    hidden: int
    dearer: int
    unfit: int
    use: Use
    currency: str


def alternatives(
    catalogue: Catalogue,
    key: str,
    region: str,
    buys: Buys,
    now: Assessment | None = None,
    use: Use | None = None,
) -> Alternatives:
    """Parts at or above the speed of a part, chip or named part that can be bought in the region
    today.

    With a build, each comes with what it would force there. Raises UnknownPartError for an unknown
    key.
    """
    wanted = scale_of(catalogue).standing(key)
    if wanted is None:
        raise UnknownPartError(key)
    use = use or Use()
    book = catalogue.prices(region, buys)
    named = min(
        (price for part_id in wanted.part_ids if (price := book.cost(part_id)) is not None),
        default=None,
    )
    kind: Kind = wanted.side
    as_good = [
        (offer, equal)
        for equal in equals(wanted, catalogue.by_kind[kind], scale_of(catalogue), use)
        if (offer := book.best(equal.part.id)) is not None
    ]
    as_good.sort(key=lambda row: (row[0].cost_minor, row[1].part.id))
    cheaper = [
        (offer, equal)
        for offer, equal in as_good
        if named is None or equal.named or offer.cost_minor < named
    ]
    vetting = None if now is None else _vetting(catalogue, now)
    forced = {
        equal.part.id: _forces(catalogue, now, vetting, kind, equal.part) for _, equal in cheaper
    }
    alternatives = [row for row in cheaper if row[1].named or not forced[row[1].part.id][0]]
    rows = tuple(
        Alternative(
            part=equal.part,
            offer=offer,
            ratio=equal.ratio,
            chance=equal.chance,
            saving_minor=None if named is None else named - offer.cost_minor,
            forces=forces,
            build=build,
            present=now is not None and equal.part.id in now.build.of(kind),
            named=equal.named,
            age_days=_age(equal.part.released, book.newest),
        )
        for offer, equal in alternatives[:SHOWN]
        for forces, build in [forced[equal.part.id]]
    )
    return Alternatives(
        wanted=wanted,
        named_minor=named,
        rows=rows,
        hidden=max(0, len(alternatives) - SHOWN),
        dearer=len(as_good) - len(cheaper),
        unfit=len(cheaper) - len(alternatives),
        use=use,
        currency=book.currency,
    )


def _vetting(catalogue: Catalogue, now: Assessment) -> Vetting:
    machine = machine_of(catalogue, known_build(catalogue, now.build), now.brief.clocks)
    return Vetting(catalogue, known_brief(catalogue, now.brief), machine)


def _forces(
    catalogue: Catalogue,
    now: Assessment | None,
    vetting: Vetting | None,
    kind: Kind,
    part: Part,
) -> tuple[tuple[str, ...], Build | None]:
    """What speaks against this part in the build as a whole, and the build that it makes."""
    if now is None or vetting is None:
        return (), None
    build = now.build.with_part(kind, part.id)
    machine = machine_of(catalogue, known_build(catalogue, build), now.brief.clocks)
    book = catalogue.prices(now.brief.region, now.brief.may_buy)
    cost = book.cost(part.id) or 0
    against = not_allowed(now.brief, part, cost, book, now.stays)
    return (*against, *vetting.objections(machine)), build


def _age(released: date | None, today: date | None) -> int | None:
    return None if released is None or today is None else (today - released).days

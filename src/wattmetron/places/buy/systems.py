"""The operating system as a line with choices: there already, bought, a resold key, free."""

from dataclasses import dataclass
from typing import Literal

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.requirements.versions import offered, version_of
from wattmetron.core.values.further_parts import OperatingSystem
from wattmetron.core.values.offers import ANY_PARTS, Offer
from wattmetron.places.assessment.assess import Assessment, whole_wishes

How = Literal["there already", "bought new", "resold key", "free"]


@dataclass(frozen=True, slots=True, kw_only=True)
class SystemChoice:
    """A way to an operating system: what it costs with its risk in minor units, the games of the
    brief that do not run on it, whether it supports the processor, whether it is in the build.
    """

    how: How
    name: str
    part: OperatingSystem | None
    offer: Offer | None
    cost_minor: int
    not_run: tuple[str, ...]
    supports: bool
    present: bool


def system_choices(catalogue: Catalogue, now: Assessment) -> tuple[SystemChoice, ...]:
    """The ways, those on which all games run first, then by cost; without games that name one there
    is nothing that does not run.
    """
    choices = []
    if now.brief.system:
        choices.append(
            SystemChoice(
                how="there already",
                name=now.brief.system,
                part=None,
                offer=None,
                cost_minor=0,
                not_run=_not_run(catalogue, now, now.brief.system),
                supports=True,
                present="system" not in now.brief.buys and not now.build.of("system"),
            )
        )
    book = catalogue.prices(now.brief.region, ANY_PARTS)
    for part in catalogue.by_kind["system"]:
        if not isinstance(part, OperatingSystem):
            continue
        ways: dict[How, Offer] = {}
        for offer in book.all_of(part.id):
            if offer.may_be_had(ANY_PARTS):
                ways.setdefault(_how(offer), offer)
        choices += [_choice(catalogue, now, part, how, offer) for how, offer in ways.items()]
    return tuple(
        sorted(
            choices,
            key=lambda choice: (
                len(choice.not_run),
                not choice.supports,
                choice.cost_minor,
                choice.name,
            ),
        )
    )


def _how(offer: Offer) -> How:
    if offer.condition != "new":
        return "resold key"
    return "free" if offer.delivered_minor == 0 else "bought new"


def _choice(
    catalogue: Catalogue, now: Assessment, part: OperatingSystem, how: How, offer: Offer
) -> SystemChoice:
    owned = part.id in now.brief.owned
    chip = now.machine.processor
    return SystemChoice(
        how="there already" if owned else how,
        name=part.name,
        part=part,
        offer=offer,
        cost_minor=0 if owned else offer.cost_minor,
        not_run=_not_run(catalogue, now, part.family),
        supports=chip is None or not part.designs or chip.design in part.designs,
        present=part.id in now.build.of("system") and _counts(catalogue, now, part.id, offer),
    )


def _counts(catalogue: Catalogue, now: Assessment, part_id: str, offer: Offer) -> bool:
    """Whether it is this offer that the total counts with."""
    return catalogue.prices(now.brief.region, now.brief.may_buy).best(part_id) == offer


def _not_run(catalogue: Catalogue, now: Assessment, family: str) -> tuple[str, ...]:
    had = (version_of(family),)
    return tuple(
        dict.fromkeys(
            ask.game
            for ask in whole_wishes(catalogue, now.brief).asks
            if ask.system.text and offered(ask.system, had) is False
        )
    )

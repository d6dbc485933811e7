"""What the form of a brief offers to choose from."""

from dataclasses import dataclass

from wattmetron.core.balance.granting import most_minor
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.brief import CLOCKS, Brief
from wattmetron.core.values.other_work import WORKS
from wattmetron.core.values.parts import FURTHER_KINDS, KIND_PLURALS, KINDS, Kind, Part
from wattmetron.core.values.trust import TRUST_FLOORS
from wattmetron.services.advice.preferences import PREFERRED_WORDS
from wattmetron.services.words.figures import KIND_WORDS, listed
from wattmetron.services.words.wishes import preference_words


@dataclass(frozen=True, slots=True)
class Choices:
    """Lists for one brief with a catalogue; money in the region's currency."""

    catalogue: Catalogue
    brief: Brief
    currency: str

    @property
    def ownable(self) -> list[tuple[str, tuple[Part, ...]]]:
        return [(KIND_WORDS[kind], parts) for kind, parts in self.catalogue.by_kind.items()]

    @property
    def further(self) -> list[tuple[Kind, str]]:
        """Kinds that may be outside the budget."""
        return [(kind, KIND_PLURALS[kind]) for kind in FURTHER_KINDS]

    @property
    def trust_floors(self) -> tuple[str, ...]:
        return tuple(TRUST_FLOORS)

    @property
    def systems(self) -> list[str]:
        """Operating systems that published lists name."""
        return sorted(
            {
                tier.system
                for one in self.catalogue.published.values()
                for tier in one.tiers
                if tier.system
            }
        )

    @property
    def works(self) -> tuple[str, ...]:
        return tuple(WORKS)

    @property
    def clocks(self) -> tuple[str, ...]:
        return CLOCKS

    @property
    def colours(self) -> list[str]:
        return sorted({part.colour for part in self.catalogue.parts.values() if part.colour})

    @property
    def preferences(self) -> list[str]:
        return [preference_words(self.brief, one, self.currency) for one in self.brief.preferences]

    @property
    def preferable(self) -> tuple[tuple[str, str], ...]:
        return tuple(PREFERRED_WORDS.items())

    @property
    def preferable_values(self) -> list[str]:
        """Values that a preference can have where they are words."""
        pairs = sorted(
            {
                (KIND_WORDS[kind], part.maker)
                for kind in KINDS
                for part in self.catalogue.by_kind[kind]
            }
        )
        return [*self.colours, *TRUST_FLOORS, *(f"{kind}: {maker}" for kind, maker in pairs)]

    @property
    def preference_most(self) -> int:
        return most_minor(self.brief)

    @property
    def only_of(self) -> list[tuple[tuple[str, str], str]]:
        """Kinds with the makers to buy from."""
        kinds = dict.fromkeys(kind for kind, _ in self.brief.only_of)
        return [
            (
                (kind, KIND_WORDS[kind]),
                listed([maker for own, maker in self.brief.only_of if own == kind]),
            )
            for kind in kinds
        ]

    @property
    def makers(self) -> list[str]:
        return sorted({part.maker for part in self.catalogue.parts.values()})

"""A preference: a wish that is granted where it costs little; a floor always holds."""

from dataclasses import dataclass

MOST_PREFERENCES = 10
USUAL_SHARE = 0.05
"""What a preference may cost where the brief does not say: a twentieth of the budget."""


@dataclass(frozen=True, slots=True)
class Preference:
    """One preference as it was typed: ``("colour", "white")``, ``("memory_gb", "32")``.

    Which wishes there are is declared with the fields of the brief.
    """

    wish: str
    value: str = ""

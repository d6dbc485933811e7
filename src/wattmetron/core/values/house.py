"""What a builder adds to every handout: house rules, and sets of peripherals in grades."""

from dataclasses import dataclass

from wattmetron.core.errors import BriefError

GRADES = ("Modest", "Good", "Fine")
MOST_RULES, LONGEST_RULE, MOST_LINES, LONGEST_LINE, LONGEST_GRADE = 20, 1000, 12, 160, 40


@dataclass(frozen=True, slots=True)
class Peripherals:
    """One grade: what it is called, and a line for each thing."""

    name: str
    lines: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class House:
    """House rules, each a text, and the grades of peripherals."""

    rules: tuple[str, ...] = ()
    grades: tuple[Peripherals, ...] = tuple(Peripherals(name) for name in GRADES)

    @property
    def filled(self) -> tuple[Peripherals, ...]:
        return tuple(peripherals for peripherals in self.grades if peripherals.lines)


def checked_house(house: House) -> House:
    """The same; raises BriefError for what is too many, too long or has no name."""
    if len(house.rules) > MOST_RULES:
        raise BriefError(f"There are more than {MOST_RULES} house rules: join or shorten them.")
    if any(len(rule) > LONGEST_RULE for rule in house.rules):
        raise BriefError(f"A house rule is longer than {LONGEST_RULE:,} characters: shorten it.")
    if len(house.grades) != len(GRADES):
        raise BriefError(f"There are {len(GRADES)} sets of peripherals: fill in those.")
    for peripherals in house.grades:
        if not peripherals.name or len(peripherals.name) > LONGEST_GRADE:
            raise BriefError(
                f"Each set of peripherals needs a name of at most {LONGEST_GRADE} characters."
            )
        if len(peripherals.lines) > MOST_LINES:
            raise BriefError(f"“{peripherals.name}” has more than {MOST_LINES} lines: shorten it.")
        if any(len(line) > LONGEST_LINE for line in peripherals.lines):
            raise BriefError(
                f"A line of “{peripherals.name}” is longer than {LONGEST_LINE} characters:"
                " shorten it."
            )
    if len({peripherals.name.casefold() for peripherals in house.grades}) < len(house.grades):
        raise BriefError("Two sets of peripherals have the same name: rename one.")
    return house

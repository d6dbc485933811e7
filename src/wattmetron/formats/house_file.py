"""House rules and peripherals as a document."""

from typing import Annotated

from pydantic import Field

from wattmetron.core.values.house import (
    GRADES,
    LONGEST_GRADE,
    LONGEST_LINE,
    LONGEST_RULE,
    MOST_LINES,
    MOST_RULES,
    House,
    Peripherals,
)
from wattmetron.formats.declared_fields import Strict


class GradeFile(Strict):
    """A set of peripherals."""

    name: Annotated[str, Field(min_length=1, max_length=LONGEST_GRADE)] = Field(
        description="What the set is called"
    )
    lines: list[Annotated[str, Field(max_length=LONGEST_LINE)]] = Field(
        default_factory=list, max_length=MOST_LINES, description="A line for each thing"
    )


class HouseFile(Strict):
    """What is added to every handout."""

    rules: list[Annotated[str, Field(max_length=LONGEST_RULE)]] = Field(
        default_factory=list, max_length=MOST_RULES, description="House rules, each a text"
    )
    grades: list[GradeFile] = Field(
        default_factory=lambda: [GradeFile(name=name) for name in GRADES],
        min_length=len(GRADES),
        max_length=len(GRADES),
        description="Peripherals in three grades",
    )


def house_file(house: House) -> HouseFile:
    return HouseFile(
        rules=list(house.rules),
        grades=[
            GradeFile(name=peripherals.name, lines=list(peripherals.lines))
            for peripherals in house.grades
        ],
    )


def house_from(file: HouseFile) -> House:
    grades = tuple(
        Peripherals(grade_file.name, tuple(grade_file.lines)) for grade_file in file.grades
    )
    return House(tuple(file.rules), grades)

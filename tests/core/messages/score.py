"""How much of the letters is read rightly, field by field."""

from dataclasses import dataclass, field

from tests.core.messages import Letter
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.texts.messages.message_reader import read_letter

PLAIN = (
    "budget",
    "currency",
    "size",
    "refresh_hz",
    "upscaling",
    "no_lights",
    "quiet",
    "small",
    "colour",
    "wireless",
    "allow_used",
    "memory_gb",
    "storage_gb",
    "no_disks",
    "years",
)
BY_GAME = ("fps", "preset")
LISTS = {
    "own_kinds": "own_kind",
    "owned": "owned",
    "no_makers": "no_maker",
    "work": "work",
    "buys": "buys",
}


@dataclass
class Score:
    """Fields read rightly of all that are expected or read; what was wrong though marked sure."""

    right: int = 0
    all: int = 0
    wrong: list[str] = field(default_factory=list)
    wrong_though_sure: list[str] = field(default_factory=list)

    @property
    def share(self) -> float:
        return self.right / self.all if self.all else 1.0


def as_expected(letter) -> dict:
    """What was read, in the form of what is expected."""
    found = {}
    for name in PLAIN:
        for own in letter.of(name):
            found[name] = own.value
    found["games"] = tuple(own.value for own in letter.of("game"))
    for name in BY_GAME:
        found[name] = {own.game: own.value for own in letter.of(name)}
    found["ray_tracing"] = tuple(own.game for own in letter.of("ray_tracing"))
    for name, one in LISTS.items():
        found[name] = tuple(own.value for own in letter.of(one))
    return {name: value for name, value in found.items() if value not in ((), {})}


def score(catalogue: Catalogue, letters: tuple[Letter, ...]) -> Score:
    total = Score()
    for n, own in enumerate(letters):
        letter = read_letter(catalogue, own.text)
        found = as_expected(letter)
        sure = {said.field: said.sure for said in reversed(letter.readings)}
        for name in sorted({*own.expected, *found}):
            total.all += 1
            want, got = own.expected.get(name), found.get(name)
            same = (
                set(want) == set(got)
                if isinstance(want, tuple)
                and isinstance(got, tuple)
                and name in (*LISTS, "games", "ray_tracing")
                else want == got
            )
            if same:
                total.right += 1
                continue
            total.wrong.append(f"{own.tone} {n}: {name} is {got!r}, not {want!r}")
            field_name = LISTS.get(name, "game" if name == "games" else name)
            if got is not None and sure.get(field_name, False):
                total.wrong_though_sure.append(total.wrong[-1])
    return total

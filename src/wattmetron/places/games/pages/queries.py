"""What addresses of the place Games say; unknown values are taken for nothing."""

from typing import Annotated, Any, get_args

from pydantic import BeforeValidator

from wattmetron.places.games.library import DEMANDS, MET_CHOICES, Question, Sort
from wattmetron.shell.forms import Form, Number, Short80, Short400, one_of, whole_or_none


class MachineQuery(Form):
    """The machine that games are measured against: a brief's build, or loose parts."""

    brief: Short80 = ""
    parts: Short400 = ""

    @property
    def brief_id(self) -> int | None:
        return whole_or_none(self.brief)


class MoneyQuery(Form):
    """A region and the frame rate that counts."""

    region: Short80 = ""
    fps: Annotated[str, BeforeValidator(lambda value: str(value).strip()[:12])] = ""


class ListQuery(MachineQuery):
    """The question that the list answers."""

    q: Short80 = ""
    genre: Short80 = ""
    demand: Annotated[str, one_of(tuple(DEMANDS), "")] = ""
    met: Annotated[str, one_of(MET_CHOICES, "")] = ""
    sort: Annotated[Sort, one_of(get_args(Sort), "name")] = "name"
    page: Number = 1

    @property
    def question(self) -> Question:
        return Question(
            words=self.q,
            genre=self.genre,
            demand=self.demand,
            met=self.met,
            sort=self.sort,
            page=self.page or 1,
        )


def _named(value: Any) -> str | None:
    return str(value).strip()[:80] or None


class GameQuery(MachineQuery):
    """One game, and a part beside which others as good are shown."""

    equal: Annotated[str | None, BeforeValidator(_named)] = None

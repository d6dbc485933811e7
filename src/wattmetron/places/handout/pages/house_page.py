"""House rules and peripherals as a page: typed once, shown in every handout."""

from dataclasses import dataclass

from fastapi import APIRouter, Request
from fastapi.responses import Response
from starlette.concurrency import run_in_threadpool

from wattmetron.core.errors import WattmetronError
from wattmetron.core.values.house import GRADES, House, Peripherals
from wattmetron.places.handout.house_rules import Housed, housed, keep_house, undo_house
from wattmetron.shell.forms import Form, Number, Typed, read, typed
from wattmetron.shell.pages import page
from wattmetron.shell.requests import workshop_of

router = APIRouter(include_in_schema=False)
NAMES = tuple(f"name{n}" for n in range(len(GRADES)))
LINES = tuple(f"lines{n}" for n in range(len(GRADES)))


class HouseForm(Form):
    """The version that was changed, and the rules, a blank line between two of them."""

    version: Number = 0
    rules: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class HousePage:
    """What is typed or kept: rules as a text, each set's name and lines as a text."""

    version: int
    can_undo: bool
    rules: str
    grades: tuple[tuple[str, str], ...]
    notice: str = ""
    error: str = ""


def _kept(housed_rules: Housed, notice: str = "") -> HousePage:
    return HousePage(
        version=housed_rules.version,
        can_undo=housed_rules.can_undo,
        rules="\n\n".join(housed_rules.house.rules),
        grades=tuple((grade.name, "\n".join(grade.lines)) for grade in housed_rules.house.grades),
        notice=notice,
    )


@router.get("/house")
def show_house(request: Request) -> Response:
    return _page(request, _kept(housed(workshop_of(request))))


@router.post("/house")
async def save_house(request: Request) -> Response:
    entries = await typed(request)
    return await run_in_threadpool(_save, request, entries)


def _save(request: Request, entries: Typed) -> Response:
    workshop = workshop_of(request)
    form = read(HouseForm, entries)
    grades = tuple(
        (entries.get(name, "").strip(), entries.get(lines, ""))
        for name, lines in zip(NAMES, LINES, strict=True)
    )
    house = House(
        _paragraphs(form.rules), tuple(Peripherals(kind, _lines(t)) for kind, t in grades)
    )
    try:
        keep_house(workshop, form.version, house)
    except WattmetronError as error:
        now = housed(workshop)
        house_page = HousePage(
            version=now.version,
            can_undo=now.can_undo,
            rules=form.rules,
            grades=grades,
            error=str(error),
        )
        return _page(request, house_page, 422)
    return _page(request, _kept(housed(workshop), "Kept: every handout shows it from now on."))


@router.post("/house/undo")
async def undo(request: Request) -> Response:
    entries = await typed(request)
    return await run_in_threadpool(_undo, request, entries)


def _undo(request: Request, entries: Typed) -> Response:
    workshop = workshop_of(request)
    undo_house(workshop, read(HouseForm, entries).version)
    return _page(request, _kept(housed(workshop), "The last change is taken back."))


def _page(request: Request, house_page: HousePage, status: int = 200) -> Response:
    return page(request, "places/handout/pages/house.html", {"own": house_page}, status, "/house")


def _paragraphs(text: str) -> tuple[str, ...]:
    pieces = text.replace("\r\n", "\n").split("\n\n")
    return tuple(" ".join(piece.split()) for piece in pieces if piece.strip())


def _lines(text: str) -> tuple[str, ...]:
    return tuple(" ".join(line.split()) for line in text.splitlines() if line.strip())

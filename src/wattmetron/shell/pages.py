"""Rendering: whole pages for a browser's request, the working part alone for a swap in place."""

from pathlib import Path
from typing import Any

from fastapi import Request
from fastapi.responses import HTMLResponse
from jinja2 import Environment, FileSystemLoader, StrictUndefined

from wattmetron import __version__
from wattmetron.core.values.games import PRESETS
from wattmetron.core.values.money import to_decimal
from wattmetron.core.values.part_kinds import FURTHER_KINDS, SPECS
from wattmetron.core.values.parts import STORAGE_KINDS
from wattmetron.drawing.frame_row import axis
from wattmetron.drawing.marks import level_mark, state_mark
from wattmetron.shell.static_files import static
from wattmetron.words.figures import money
from wattmetron.words.glossary import GLOSSARY

_ENVIRONMENT = Environment(
    loader=FileSystemLoader(Path(__file__).parent.parent),
    autoescape=True,
    undefined=StrictUndefined,
    trim_blocks=True,
    lstrip_blocks=True,
)


def plain(value: float | None) -> str:
    """A figure for an input: ``60`` rather than ``60.0``, nothing for None."""
    return "" if value is None else f"{round(value, 6):g}"


def amount(minor: int) -> str:
    """Money for an input: ``1250`` or ``1250.50``."""
    return f"{to_decimal(minor):f}".removesuffix(".00")


_ENVIRONMENT.filters.update(plain=plain, amount=amount, money=money)
_ENVIRONMENT.globals.update(
    state_mark=state_mark,
    level_mark=level_mark,
    frame_axis=axis,
    version=__version__,
    glossary=GLOSSARY,
    static=static,
    further_kinds=[(kind, SPECS[kind].add) for kind in FURTHER_KINDS],
    presets=PRESETS,
    storage_kinds=STORAGE_KINDS,
)


def asks_for_part(request: Request) -> bool:
    """Whether a swap in place is asked for, rather than a whole page."""
    headers = request.headers
    return (
        headers.get("hx-request") == "true" and headers.get("hx-history-restore-request") != "true"
    )


def rendered(template: str, content: dict[str, Any]) -> str:
    """The named template as a text that stands alone, in the theme of whoever opens it."""
    return _ENVIRONMENT.get_template(template).render(
        **content, part=False, path="", theme="", shared=False
    )


def page(
    request: Request,
    template: str,
    content: dict[str, Any],
    status: int = 200,
    url: str | None = None,
) -> HTMLResponse:
    """The named template, inside the page shell unless the request asks for a part."""
    theme = request.cookies.get("theme", "")
    html = _ENVIRONMENT.get_template(template).render(
        **content,
        part=asks_for_part(request),
        path=request.url.path,
        shared=getattr(request.app.state, "shared", False),
        theme=theme if theme in ("paper", "night") else "",
    )
    answer = {"vary": "HX-Request", "cache-control": "no-store"}
    if url is not None:
        answer["hx-push-url"] = url
    return HTMLResponse(html.encode(errors="replace"), status, answer)

"""Handouts as pages that stand alone and as files."""

import re
from base64 import b64encode

from fastapi.responses import Response

from wattmetron.core.catalogue import Catalogue
from wattmetron.places.handout.content import Handout
from wattmetron.places.handout.pages.view import pictures_of
from wattmetron.shell.pages import rendered
from wattmetron.shell.static_files import STATIC, static

STYLE = STATIC / "handout.css"
FILE_TYPES = {
    "html": "text/html",
    "md": "text/markdown",
    "txt": "text/plain",
    "csv": "text/csv",
    "json": "application/json",
}


def page_content(catalogue: Catalogue, made: Handout, **more: object) -> dict[str, object]:
    """What the page of a handout is filled with."""
    served = {"style": static("handout.css"), "icon": static("icon.svg")}
    usual = {**served, "says": "", "choices": (), "when": "", "region": ""}
    return {"h": made, "pictures": pictures_of(catalogue, made, drawn_only=True), **usual, **more}


def handout_file(catalogue: Catalogue, made: Handout) -> str:
    """One HTML file that works from a disk."""
    style = f"data:text/css;base64,{b64encode(STYLE.read_bytes()).decode()}"
    return rendered(
        "places/handout/pages/page.html", page_content(catalogue, made, style=style, icon="")
    )


def as_download(title: str, form: str, text: str) -> Response:
    """A text as a file of this form, named after its title."""
    name = re.sub(r"[^a-z0-9]+", "-", title.lower()).strip("-") or "handout"
    headers = {"content-disposition": f'attachment; filename="{name[:60]}.{form}"'}
    return Response(
        text.encode(errors="replace"),
        media_type=f"{FILE_TYPES[form]}; charset=utf-8",
        headers=headers,
    )

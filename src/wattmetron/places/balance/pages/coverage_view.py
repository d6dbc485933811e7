"""Library coverage in the Balance view: a map of resolutions and presets with the games behind each
cell.
"""

from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.balance.coverage import (
    USUAL_FPS,
    Cover,
    CoverCell,
    cover,
    genres_of,
    rate_of,
)
from wattmetron.shell.address import DeskQuery, Link

RATES = (30, 60, 90, 120, 144, 240)


@dataclass(frozen=True, slots=True, kw_only=True)
class CoverView:
    """The map with its heads; per row the preset and for each cell its words, share in % and
    address; the opened cell.
    """

    words: str
    error: str
    fps: str
    rates: tuple[int, ...]
    genre: str
    genres: tuple[str, ...]
    sizes: tuple[str, ...]
    rows: tuple[tuple[str, tuple[tuple[str, int, str], ...]], ...]
    opened: CoverCell | None
    close_url: str


def cover_view(
    catalogue: Catalogue, subject: Assessment, query: DeskQuery, link: Link
) -> CoverView:
    """The panel for a build; what cannot be computed is said in one sentence."""
    fps, genre, covered, error = query.cover or f"{USUAL_FPS:g}", query.shelf or "", None, ""
    try:
        covered = cover(catalogue, subject.brief, subject.machine, rate_of(fps), genre)
    except BriefError as problem:
        error = str(problem)
    return CoverView(
        words=covered.words if covered else "Said of a build that runs.",
        error=error,
        fps=fps,
        rates=RATES,
        genre=genre,
        genres=genres_of(catalogue),
        sizes=tuple(cell.size for cell in covered.rows[0]) if covered else (),
        rows=_rows(covered, link) if covered else (),
        opened=covered.cell(query.cell) if covered and query.cell else None,
        close_url=link(cell=None),
    )


def _rows(covered: Cover, link: Link) -> tuple[tuple[str, tuple[tuple[str, int, str], ...]], ...]:
    return tuple(
        (
            row[0].preset,
            tuple(
                (
                    f"{len(cell.reached)} of {cell.games}",
                    round(100 * len(cell.reached) / cell.games),
                    link(cell=f"{cell.size} {cell.preset}"),
                )
                for cell in row
            ),
        )
        for row in covered.rows
    )

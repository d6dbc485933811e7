"""Storing what games publish: confirmed drafts, single edits, files; every edit is a dated
revision.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import (
    ConflictError,
    InvalidError,
    NotPossibleError,
    UnknownGameError,
)
from wattmetron.core.game_fit.priors import unknown_game
from wattmetron.core.speeds.speed_scale import key_of
from wattmetron.core.texts.requirements.requirements_reader import reader_of
from wattmetron.core.values.games import Game
from wattmetron.core.values.ids import ADDRESSES, is_id
from wattmetron.core.values.published import Assumptions, Listed, NamedPart, Published, Side
from wattmetron.core.values.results import Results
from wattmetron.formats.catalogue_writing import requirements_of
from wattmetron.formats.problems import FormatError, Problem, add_problem
from wattmetron.formats.requirements_file import (
    REQUIREMENTS_FORMAT,
    PublishedGame,
    RequirementsFile,
    TierRow,
    read_flat,
    read_requirements,
    tier_of_row,
    write_flat,
    write_requirements,
)
from wattmetron.store import catalogue_edits
from wattmetron.store import catalogues as store
from wattmetron.store.database import Transaction
from wattmetron.workshop.workshop import Workshop

RESERVED = frozenset({"read", "open", "confirm", "assumptions"})
"""Ids that are addresses of the place itself."""


class GameNameError(InvalidError):
    """A name for a new game that cannot be taken."""


@dataclass(frozen=True, slots=True)
class GameState:
    """The version of a game's requirements, what undo would bring back, and whether the game was
    made by hand.
    """

    version: int
    undo: str | None
    changed_at: datetime | None
    by_hand: bool = False


def game_state(workshop: Workshop, game_id: str) -> GameState:
    """The standing revision of what a game publishes."""
    with workshop.database.reading() as session:
        revisions = catalogue_edits.revisions(session, "published", game_id, 2)
        by_hand = catalogue_edits.made_by_hand(session, "game", game_id)
        version = catalogue_edits.standing_id(session, "published", game_id)
    if not revisions:
        return GameState(0, None, None, by_hand)
    return GameState(
        version, revisions[0].source if len(revisions) > 1 else None, revisions[0].at, by_hand
    )


def new_game(catalogue: Catalogue, name: str, genre: str) -> Game:
    """A game of which nothing is known but its name and genre; raises GameNameError."""
    name = " ".join(name.split())
    if not name:
        raise GameNameError("The game has no name: type it as the publisher writes it.")
    if len(name) > 120:
        raise GameNameError("The game's name is longer than 120 characters: shorten it.")
    game_id = key_of(name)[:80].strip("-")
    if game_id in ADDRESSES:
        game_id = f"{game_id}-game"
    if not is_id(game_id):
        raise GameNameError(
            f"“{name}” holds no letter or digit to tell it by: type a name with some."
        )
    taken = next(
        (game for game in catalogue.games.values() if game.name.casefold() == name.casefold()), None
    )
    if taken is not None or game_id in catalogue.games:
        known = taken or catalogue.games[game_id]
        raise GameNameError(
            f"There is a game called “{known.name}” already: open it and paste its text there."
        )
    return unknown_game(game_id, name, " ".join(genre.split())[:60] or "other")


def publish(
    workshop: Workshop,
    published: Published,
    version: int,
    sentence: str,
    game: Game | None = None,
    named: NamedPart | None = None,
) -> None:
    """Store what a game publishes in place of a version; ``game`` is stored too where it is new."""
    edits: dict[tuple[str, str], catalogue_edits.Edit] = {("published", published.game): published}
    if game is not None:
        edits["game", game.id] = game
    if named is not None:
        edits["named", named.id] = named
    with workshop.database.writing() as session:
        _check_version(session, published.game, version)
        catalogue_edits.revise(session, edits, sentence)


def _check_version(session: Transaction, game_id: str, version: int) -> None:
    if catalogue_edits.standing_id(session, "published", game_id) != version:
        raise ConflictError(
            "These requirements were changed in another tab: here is what they say now; make your"
            " change again."
        )


def undo_publishing(workshop: Workshop, game_id: str, version: int) -> str:
    """Bring back what a game published before its last change; returns what was taken back."""
    with workshop.database.writing() as session:
        _check_version(session, game_id, version)
        revisions = catalogue_edits.revisions(session, "published", game_id, 2)
        if len(revisions) < 2:
            raise NotPossibleError("Nothing was changed here yet.")
        catalogue_edits.revise(
            session,
            {("published", game_id): revisions[1].value},
            f"took back: {revisions[0].source}"[:200],
        )
        return revisions[0].source


def remove_game(workshop: Workshop, game_id: str, version: int) -> str:
    """Take out a game that was made by hand, with what it publishes; returns its name."""
    game = workshop.catalogue().games.get(game_id)
    if game is None:
        raise UnknownGameError(game_id)
    with workshop.database.writing() as session:
        _check_version(session, game_id, version)
        if not catalogue_edits.made_by_hand(session, "game", game_id):
            raise NotPossibleError(
                f"{game.name} belongs to the imported catalogue: take it out of that and import it"
                " again."
            )
        catalogue_edits.revise(
            session, {("game", game_id): None, ("published", game_id): None}, f"removed {game.name}"
        )
    return game.name


def restore_game(workshop: Workshop, game_id: str) -> str:
    """Bring back a game that was removed; returns its name."""
    with workshop.database.writing() as session:
        games = catalogue_edits.revisions(session, "game", game_id, 1)
        if not games or catalogue_edits.standing_id(session, "game", game_id):
            raise UnknownGameError(game_id)
        edits: dict[tuple[str, str], catalogue_edits.Edit] = {("game", game_id): games[0].value}
        lists = catalogue_edits.revisions(session, "published", game_id, 1)
        if lists:
            edits["published", game_id] = lists[0].value
        catalogue_edits.revise(session, edits, f"brought back {games[0].value.name}")
        return str(games[0].value.name)


def set_assumptions(workshop: Workshop, assumptions: Assumptions) -> None:
    """Store the table of assumptions."""
    with workshop.database.writing() as session:
        catalogue_edits.revise(
            session, {("assumptions", store.ASSUMPTIONS_KEY): assumptions}, "table of assumptions"
        )


# --- files
# --------------------------------------------------------------------------------------------


def export_json(catalogue: Catalogue, game_ids: Sequence[str] | None = None) -> str:
    """The requirements of the named games, or of all, as JSON."""
    return write_requirements(requirements_of(catalogue, game_ids))


def export_csv(catalogue: Catalogue, game_ids: Sequence[str] | None = None) -> str:
    """The flat part of the requirements as CSV."""
    wanted = (
        list(catalogue.published)
        if game_ids is None
        else [game_id for game_id in game_ids if game_id in catalogue.published]
    )
    return write_flat(catalogue.published[text] for text in wanted)


def import_file(workshop: Workshop, name: str, data: bytes) -> list[str]:
    """Store the requirements of a JSON or CSV file, all of it or nothing; returns the ids of its
    games.

    Games that the catalogue lacks are made from their name and genre. Raises FormatError with every
    problem.
    """
    catalogue = workshop.catalogue()
    if _looks_like_json(data):
        file = read_requirements(name, data)
    else:
        file = _from_rows(catalogue, name, read_flat(name, data))
    games = _missing_games(catalogue, name, file)
    edits: dict[tuple[str, str], catalogue_edits.Edit] = {("game", game.id): game for game in games}
    edits |= {("published", game.game): game.published for game in file.games if game.tiers}
    edits |= {
        ("results", game.game): Results(game=game.game, items=game.results)
        for game in file.games
        if game.results
    }
    edits |= {("named", part.id): part for part in file.named}
    if file.assumptions is not None:
        edits["assumptions", store.ASSUMPTIONS_KEY] = file.assumptions
    if not edits:
        raise FormatError(
            [
                Problem(
                    file=name,
                    line=None,
                    column="",
                    actual="no game",
                    expected="at least one game with a tier",
                )
            ]
        )
    with workshop.database.writing() as session:
        catalogue_edits.revise(session, edits, f"file {name}")
    return [game.game for game in file.games]


def _looks_like_json(data: bytes) -> bool:
    return data.removeprefix(b"\xef\xbb\xbf").lstrip()[:1] == b"{"


def _missing_games(catalogue: Catalogue, name: str, file: RequirementsFile) -> list[Game]:
    problems: list[Problem] = []
    games = []
    for number, game in enumerate(file.games, start=1):
        if game.game in catalogue.games:
            continue
        where = f"games › {number} › game"
        if not is_id(game.game):
            add_problem(
                problems,
                name,
                actual=f"“{game.game}”",
                expected="small letters, digits and hyphens",
                column=where,
            )
        elif not game.name.strip():
            add_problem(
                problems,
                name,
                actual=f"the new game “{game.game}” without a name",
                expected="its name and genre",
                column=where,
            )
        else:
            games.append(unknown_game(game.game, game.name.strip(), game.genre.strip() or "other"))
    if problems:
        raise FormatError(problems)
    return games


def _from_rows(catalogue: Catalogue, name: str, rows: Sequence[TierRow]) -> RequirementsFile:
    """Rows of a CSV gathered by game; parts are matched by name where that is sure."""
    problems = [
        Problem(
            file=name,
            line=number + 1,
            column="game",
            actual=f"“{row.game}”",
            expected="the id of a game of the catalogue; make the game first",
        )
        for number, row in enumerate(rows, start=1)
        if row.game not in catalogue.games
    ]
    if problems:
        raise FormatError(problems)
    tiers: dict[str, list[TierRow]] = {}
    for row in rows:
        tiers.setdefault(row.game, []).append(row)
    games = tuple(
        PublishedGame(
            game=game_id,
            source=f"file {name}"[:200],
            tiers=tuple(
                tier_of_row(
                    row,
                    _matched(catalogue, row.processors, "processor"),
                    _matched(catalogue, row.graphics, "graphics"),
                )
                for row in tier_rows
            ),
        )
        for game_id, tier_rows in tiers.items()
    )
    return RequirementsFile(format=REQUIREMENTS_FORMAT, games=games)


def _matched(catalogue: Catalogue, names: Sequence[str], side: Side) -> list[Listed]:
    """Listed parts from a cell, read as the reader reads a labelled line."""
    listeds: list[Listed] = []
    label = "Processor" if side == "processor" else "Graphics"
    for name in names:
        if not name.strip():
            continue
        listed = reader_of(catalogue).read(f"{label}: {name}").tiers[0].listed(side)
        listeds += listed or [Listed(text=name.strip()[:200])]
    return listeds


def edited(catalogue: Catalogue, game_id: str) -> Published:
    """What a game publishes, to be edited; raises UnknownGameError where there is nothing."""
    published = catalogue.published.get(game_id)
    if published is None:
        raise UnknownGameError(game_id)
    return published

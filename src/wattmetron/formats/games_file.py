"""games.json: the games with their workloads, as a JSON array."""

from pydantic import ConfigDict, TypeAdapter, ValidationError

from wattmetron.core.values.games import PRESETS, Game, Option, Preset, VideoMemoryNeed
from wattmetron.formats.json_text import bounded
from wattmetron.formats.problems import FormatError, Problem, add_problem

for _kind in (Game, Option, Preset, VideoMemoryNeed):
    setattr(_kind, "__pydantic_config__", ConfigDict(extra="forbid"))  # noqa: B010

GAMES: TypeAdapter[list[Game]] = TypeAdapter(list[Game])


def write_games(games: list[Game]) -> str:
    return GAMES.dump_json(games, indent=2).decode() + "\n"


def read_games(file: str, text: str, problems: list[Problem]) -> list[Game]:
    """The games of a file; problems name the place as game number and field."""
    try:
        games = GAMES.validate_json(bounded(file, text))
    except FormatError as error:
        problems += error.problems
        return []
    except ValidationError as error:
        for problem in error.errors(include_url=False):
            location = " › ".join(
                str(step + 1) if isinstance(step, int) else str(step) for step in problem["loc"]
            )
            shown = "no such value" if problem["type"] == "missing" else f"“{problem['input']}”"
            add_problem(
                problems, file, actual=shown, expected=problem["msg"].lower(), column=location
            )
        return []
    for number, game in enumerate(games, start=1):
        _check_presets(file, number, game, problems)
    return games


def _check_presets(file: str, number: int, game: Game, problems: list[Problem]) -> None:
    where = f"{number} › presets"
    order = [PRESETS.index(preset.name) for preset in game.presets]
    if not order or order != sorted(set(order)):
        names = ", ".join(preset.name for preset in game.presets) or "none"
        add_problem(
            problems, file, actual=names, expected="each preset once, lowest first", column=where
        )
    for lower, higher in zip(game.presets, game.presets[1:], strict=False):
        if (
            lower.graphics_factor > higher.graphics_factor
            or lower.processor_factor > higher.processor_factor
        ):
            add_problem(
                problems,
                file,
                actual=f"{higher.name} lighter than {lower.name}",
                expected="rising factors",
                column=where,
            )

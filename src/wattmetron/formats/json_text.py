"""JSON from outside, within bounds: how deep, how many digits, no NaN; its texts cleaned."""

import json
from typing import Any, NoReturn

from wattmetron.core.values.text import clean
from wattmetron.formats.problems import FormatError, Problem

MOST_DEEP = 40
MOST_DIGITS = 40


class JsonError(ValueError):
    """What is no JSON, or goes beyond the bounds; says what was found and what is expected."""

    def __init__(self, found: str, expected: str) -> None:
        super().__init__(f"found {found}; expected {expected}")
        self.found, self.expected = found, expected


def read_json(data: bytes | str) -> Any:
    """The value of a JSON text; raises JsonError."""
    try:
        text = data.decode("utf-8-sig") if isinstance(data, bytes) else data
        value = json.loads(text, parse_int=_whole, parse_float=_broken, parse_constant=_constant)
    except JsonError:
        raise
    except RecursionError:
        raise _too_deep() from None
    except UnicodeDecodeError as error:
        raise JsonError("bytes that are no text", "JSON in UTF-8") from error
    except ValueError as error:
        raise JsonError(f"broken JSON ({error})", "JSON") from error
    return _cleaned(value, 0)


def bounded(name: str, data: bytes | str) -> str:
    """The same as JSON text again, for a model to read; raises FormatError."""
    try:
        return json.dumps(read_json(data))
    except JsonError as error:
        raise FormatError(
            [Problem(file=name, line=None, column="", actual=error.found, expected=error.expected)]
        ) from error


def _cleaned(value: Any, depth: int) -> Any:
    if isinstance(value, str):
        return clean(value)
    if depth > MOST_DEEP:
        raise _too_deep()
    if isinstance(value, list):
        return [_cleaned(item, depth + 1) for item in value]
    if isinstance(value, dict):
        return {clean(key): _cleaned(item, depth + 1) for key, item in value.items()}
    return value


def _whole(digits: str) -> int:
    return int(_short(digits))


def _broken(digits: str) -> float:
    value = float(_short(digits))
    if value in (float("inf"), float("-inf")):
        raise JsonError(f"the number {digits}", "a smaller one")
    return value


def _short(digits: str) -> str:
    if len(digits) > MOST_DIGITS:
        raise JsonError(f"a number of {len(digits):,} digits", f"{MOST_DIGITS} at most")
    return digits


def _constant(word: str) -> NoReturn:
    raise JsonError(word, "a number")


def _too_deep() -> JsonError:
    return JsonError("brackets within brackets without end", f"{MOST_DEEP} levels at most")

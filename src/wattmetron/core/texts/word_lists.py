"""Words by which texts are read, as data: the TOML files of ``words``."""

import tomllib
from importlib.resources import files
from typing import Any

Words = tuple[str, ...]


def word_lists(name: str) -> dict[str, Any]:
    """The lists of a file by their names; lists are tuples."""
    text = files("wattmetron.core.texts").joinpath("words", f"{name}.toml").read_text("utf-8")
    return {key: _fixed(value) for key, value in tomllib.loads(text).items()}


def _fixed(value: Any) -> Any:
    if isinstance(value, list):
        return tuple(_fixed(item) for item in value)
    if isinstance(value, dict):
        return {key: _fixed(item) for key, item in value.items()}
    return value

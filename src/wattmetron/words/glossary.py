"""One line of explanation for each trade word, shown on demand: those of ``glossary.toml``,
and those of the brief's fields.
"""

import tomllib
from importlib.resources import files

from wattmetron.core.values.brief import BRIEF, DISPLAY, TARGET

_WORDS = tomllib.loads(files("wattmetron.words").joinpath("glossary.toml").read_text("utf-8"))
GLOSSARY: dict[str, tuple[str, str]] = {
    **{key: (term, meaning) for key, (term, meaning) in _WORDS.items()},
    **{
        field.name: (field.spec.term, field.spec.meaning)
        for field in (*BRIEF, *DISPLAY, *TARGET)
        if field.spec.meaning
    },
}

"""The code's terms in one line each, from the docstrings of public classes."""

import ast
import re
from pathlib import Path

SOURCE = Path(__file__).parent.parent / "src" / "wattmetron"
ROOMS = ("core", "cache", "formats", "store", "workshop", "places", "shell")
SENTENCE = re.compile(r".*?[.;:](?=\s|$)", re.DOTALL)
HEAD = """# Glossary

What the code's terms mean, in alphabetical order, from the docstrings of its classes
(`make docs`). The terms of the trade that pages explain stand in `words/glossary.py`.

| term | meaning | where |
| --- | --- | --- |
"""


def terms() -> list[tuple[str, str, str]]:
    """Each public class of the rooms with its first sentence and its file; pages are left out."""
    return sorted(
        (node.name, _first_sentence(ast.get_docstring(node) or ""), str(path.relative_to(SOURCE)))
        for room in ROOMS
        for path in (SOURCE / room).rglob("*.py")
        if "pages" not in path.parts
        for node in ast.parse(path.read_text()).body
        if isinstance(node, ast.ClassDef) and not node.name.startswith("_")
    )


def glossary_markdown() -> str:
    return HEAD + "".join(
        f"| `{term}` | {meaning} | `{path}` |\n" for term, meaning, path in terms()
    )


def _first_sentence(text: str) -> str:
    flat = " ".join(text.split()).replace("|", "\\|")
    found = SENTENCE.match(flat)
    return (found[0] if found else flat).rstrip(".;:")

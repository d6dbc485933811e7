"""The shape of the code, held by its syntax trees: names that say nothing, class and file
names that occur twice, files and expressions that are too long.

What does not keep to it yet stands in ``shape.toml``; that list may only shrink.
"""

import ast
import tomllib
from collections import Counter
from pathlib import Path

import pytest

SOURCE = Path(__file__).parent.parent / "src" / "wattmetron"
EXCEPTIONS = tomllib.loads(Path(__file__).with_name("shape.toml").read_text())
BANNED = {"own", "one", "said", "told", "found", "held", "kept", "asked", "place", "at"}
SHARED_FILES = {"routes.py", "forms.py", "views.py", "__init__.py", "__main__.py"}
LONGEST_FILE = 400
WIDEST_TUPLE = 2


@pytest.fixture(scope="module")
def trees():
    return {
        str(path.relative_to(SOURCE)): ast.parse(path.read_text())
        for path in sorted(SOURCE.rglob("*.py"))
    }


def bindings(tree):
    """Names that are bound: assigned, looped over or taken as arguments."""
    for node in ast.walk(tree):
        if isinstance(node, ast.Name) and isinstance(node.ctx, ast.Store):
            yield node.id
        elif isinstance(node, ast.arg):
            yield node.arg


def test_names_that_say_nothing_get_fewer(trees):
    counts = Counter(name for tree in trees.values() for name in bindings(tree) if name in BANNED)
    assert dict(counts) == EXCEPTIONS["banned_bindings"]


def test_a_class_has_a_name_of_its_own(trees):
    names = Counter(
        node.name
        for tree in trees.values()
        for node in ast.walk(tree)
        if isinstance(node, ast.ClassDef) and not node.name.startswith("_")
    )
    twice = sorted(name for name, count in names.items() if count > 1)
    assert twice == EXCEPTIONS["class_names_used_twice"]


def test_a_file_has_a_name_of_its_own(trees):
    names = Counter(Path(path).name for path in trees)
    twice = sorted(name for name, count in names.items() if count > 1 and name not in SHARED_FILES)
    assert twice == EXCEPTIONS["file_names_used_twice"]


def test_no_file_is_long():
    lines = {
        str(path.relative_to(SOURCE)): len(path.read_text().splitlines())
        for path in SOURCE.rglob("*.py")
    }
    long = {path: count for path, count in sorted(lines.items()) if count > LONGEST_FILE}
    allowed = EXCEPTIONS["long_files"]
    assert long.keys() == allowed.keys()
    assert all(count <= allowed[path] for path, count in long.items()), long


def test_no_conditional_stands_within_another(trees):
    counts = {}
    for path, tree in trees.items():
        inner = sum(
            isinstance(child, ast.IfExp)
            for node in ast.walk(tree)
            if isinstance(node, ast.IfExp)
            for part in (node.test, node.body, node.orelse)
            for child in ast.walk(part)
        )
        if inner:
            counts[path] = inner
    assert counts == EXCEPTIONS["conditionals_within_another"]


def test_no_public_function_returns_a_wide_tuple(trees):
    wide = {}
    for path, tree in trees.items():
        functions = sorted(
            node.name
            for node in ast.walk(tree)
            if isinstance(node, (ast.FunctionDef, ast.AsyncFunctionDef))
            and not node.name.startswith("_")
            and is_wide(node.returns)
        )
        if functions:
            wide[path] = functions
    assert wide == EXCEPTIONS["functions_with_wide_tuples"]


def is_wide(returns):
    """Whether an annotation is a tuple of more than two, whatever stands around it."""
    for node in ast.walk(returns) if returns is not None else ():
        if not isinstance(node, ast.Subscript) or getattr(node.value, "id", "") != "tuple":
            continue
        items = node.slice.elts if isinstance(node.slice, ast.Tuple) else [node.slice]
        repeated = any(isinstance(item, ast.Constant) and item.value is ... for item in items)
        if len(items) > WIDEST_TUPLE and not repeated:
            return True
    return False


def imported(tree):
    """Modules that a file imports, wherever it does so."""
    for node in ast.walk(tree):
        if isinstance(node, ast.Import):
            yield from (alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom) and node.module:
            yield node.module


def test_use_cases_know_neither_pages_nor_the_web_nor_the_database(trees):
    """The layers within a place; what lies below all places is held by import-linter."""
    beyond = {
        (path, module)
        for path, tree in trees.items()
        if path.startswith("places/") and "/pages/" not in path
        for module in imported(tree)
        if ".pages" in module
        or module.startswith("wattmetron.shell")
        or module.split(".")[0] in {"fastapi", "starlette", "jinja2", "sqlalchemy", "alembic"}
    }
    assert beyond == set()

"""The core keeps nothing between two questions: no state in modules, no caches of functions, no
keys made of addresses.
"""

import ast
from pathlib import Path

import pytest

import wattmetron.core

ROOT = Path(wattmetron.core.__file__).parent
CACHES = {"lru_cache", "cache", "cachedmethod", "cached"}
CHANGES = {
    "add", "append", "clear", "discard", "extend", "insert", "pop", "popitem", "remove",
    "setdefault", "sort", "update",
}  # fmt: skip


def impurities(tree: ast.Module) -> list[str]:
    """What keeps something from one call to the next."""
    of_module = {
        name.id
        for node in tree.body
        if isinstance(node, (ast.Assign, ast.AnnAssign))
        for target in (node.targets if isinstance(node, ast.Assign) else [node.target])
        for name in ast.walk(target)
        if isinstance(name, ast.Name)
    }
    return [
        f"line {node.lineno}: {said}"
        for function in ast.walk(tree)
        if isinstance(function, (ast.FunctionDef, ast.AsyncFunctionDef, ast.Lambda))
        for outside in [of_module - _own_names(function)]
        for node in ast.walk(function)
        if (said := _impure(node, outside))
    ]


def _own_names(function) -> set[str]:
    return {
        node.id if isinstance(node, ast.Name) else node.arg
        for node in ast.walk(function)
        if isinstance(node, ast.arg)
        or (isinstance(node, ast.Name) and isinstance(node.ctx, ast.Store))
    }


def _impure(node: ast.AST, of_module: set[str]) -> str:
    match node:
        case ast.Global(names=names):
            return f"sets {names} of the module"
        case ast.Name(id=name) if name in CACHES:
            return f"{name} keeps results"
        case ast.Attribute(attr=name) if name in CACHES:
            return f"{name} keeps results"
        case ast.Call(func=ast.Name(id="id")):
            return "an address stands for a value"
        case ast.Subscript(value=ast.Name(id=name), ctx=ast.Store() | ast.Del()):
            return f"changes {name} of the module" if name in of_module else ""
        case ast.Call(func=ast.Attribute(value=ast.Name(id=name), attr=change)):
            return f"changes {name}" if name in of_module and change in CHANGES else ""
    return ""


@pytest.mark.parametrize(
    ("code", "said"),
    [
        ("from functools import lru_cache\n@lru_cache\ndef f(): ...", "keeps results"),
        ("import functools\n@functools.cache\ndef f(): ...", "keeps results"),
        ("KEPT = {}\ndef f(x):\n    KEPT[x] = 1", "changes KEPT"),
        ("KEPT = []\ndef f(x):\n    KEPT.append(x)", "changes KEPT"),
        ("last = None\ndef f(x):\n    global last\n    last = x", "of the module"),
        ("def f(x, kept):\n    kept[id(x)] = 1", "an address"),
    ],
)
def test_what_would_be_kept_is_seen(code, said):
    (seen,) = impurities(ast.parse(code))[:1]
    assert said in seen


def test_what_is_a_functions_own_may_change():
    assert impurities(ast.parse("NAMES = {}\ndef f():\n    names = {}\n    names[1] = NAMES")) == []


def test_the_core_keeps_nothing():
    impure = {
        str(path.relative_to(ROOT)): seen
        for path in ROOT.rglob("*.py")
        if (seen := impurities(ast.parse(path.read_text())))
    }
    assert impure == {}

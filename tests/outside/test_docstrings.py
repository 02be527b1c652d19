"""The form of docstrings: the first line says what it is, then one parameter a line, each of them one that there is."""

from __future__ import annotations

import ast
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

from tests.words_shown import ROOT

Documented = ast.ClassDef | ast.FunctionDef | ast.AsyncFunctionDef
_NAMED = re.compile(r"^(\w+(?:(?:, | and )\w+)*): ")
SOURCES = sorted((ROOT / "src" / "fardo").rglob("*.py"))


def documented(path: Path) -> Iterator[tuple[Documented, str]]:
    for node in ast.walk(ast.parse(path.read_text("utf-8"))):
        if isinstance(node, Documented) and (text := ast.get_docstring(node)) is not None:
            yield node, text


def parameters(node: Documented) -> set[str]:
    """Of a function, or the fields and what the constructor takes of a class."""
    if isinstance(node, ast.ClassDef):
        own = {
            one.target.id for one in node.body if isinstance(one, ast.AnnAssign) and isinstance(one.target, ast.Name)
        }
        made = [one for one in node.body if isinstance(one, ast.FunctionDef) and one.name == "__init__"]
        return own.union(*(parameters(one) for one in made))
    said = node.args
    every = [*said.posonlyargs, *said.args, *said.kwonlyargs, said.vararg, said.kwarg]
    return {one.arg for one in every if one is not None}


def faults(node: Documented, text: str) -> Iterator[str]:
    first, *rest = text.splitlines()
    if first.startswith(("Args:", ">>>")):
        yield "its first line does not say what it is"
    if "Args:" in text and "Args:" not in rest:
        yield "Args: stands on no line of its own"
    if "Args:" not in rest:
        return
    names = parameters(node)
    for line in rest[rest.index("Args:") + 1 :]:
        if not line.strip():
            break
        if line.startswith(" " * 5):
            continue  # it goes on
        said = _NAMED.match(line.strip())
        if said is None:
            yield f"no parameter begins {line.strip()!r}"
            continue
        own = set(re.split(", | and ", said[1]))
        if own - names:
            yield f"{', '.join(sorted(own - names))} is no parameter"
        again = re.search(rf"\. ({'|'.join(map(re.escape, sorted(names)))}): ", line)
        if again:
            yield f"{again[1]} stands on the line of another"


@pytest.mark.parametrize("path", SOURCES, ids=lambda path: str(path.relative_to(ROOT / "src" / "fardo")))
def test_every_docstring_has_the_form(path: Path) -> None:
    found = [f"{path.name}:{node.lineno} {node.name}: {fault}" for node, text in documented(path)
             for fault in faults(node, text)]  # fmt: skip
    assert found == []


def test_what_is_not_in_the_form_is_found() -> None:
    bad = ast.parse(
        'def f(a, b):\n    """What it is.\n\n    Args:\n        a: one. b: two.\n        c: none.\n    """'
    ).body[0]
    assert isinstance(bad, ast.FunctionDef)
    told = list(faults(bad, ast.get_docstring(bad) or ""))
    assert told == ["b stands on the line of another", "c is no parameter"]

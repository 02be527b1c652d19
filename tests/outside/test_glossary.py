"""One word for one thing: no old word of the glossary on a screen or print, in a message, in the docs or as a name."""

from __future__ import annotations

import ast
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

from tests.words_shown import ROOT, shown

GLOSSARY = ROOT / "docs" / "glossary.md"
ROW = re.compile(r"^\| (?P<word>[^|]+) \| (?P<means>[^|]+) \| ?(?P<olds>[^|]*)\|$", re.MULTILINE)


def old_words() -> Iterator[str]:
    for row in ROW.finditer(GLOSSARY.read_text("utf-8")):
        if row["word"] != "word" and row["word"] != "name":
            yield from (one.strip() for one in row["olds"].split(";") if one.strip())


PHRASES = sorted(one for one in old_words() if not one.startswith("`"))
NAMES = sorted(one.strip("`") for one in old_words() if one.startswith("`"))


def test_the_glossary_is_read() -> None:
    assert len(PHRASES) > 20
    assert {"Settler", "worth"} <= set(NAMES)


@pytest.fixture(scope="module")
def everything_shown() -> list[tuple[str, str]]:
    documents = [path for path in (ROOT / "docs").rglob("*.md") if path != GLOSSARY]
    told = [
        (f"{path.relative_to(ROOT)}:{n}", line)
        for path in (*documents, ROOT / "README.md")
        for n, line in enumerate(path.read_text("utf-8").splitlines(), 1)
    ]
    return [*shown(), *told]


@pytest.mark.parametrize("phrase", PHRASES)
def test_no_old_word_is_shown(everything_shown: list[tuple[str, str]], phrase: str) -> None:
    found = re.compile(
        rf"(?<!\w){re.escape(phrase)}(?!\w)" if phrase[-1].isalnum() else re.escape(phrase), re.IGNORECASE
    )
    assert [(place, words[:120]) for place, words in everything_shown if found.search(words)] == []


@pytest.fixture(scope="module")
def every_name() -> dict[str, Path]:
    names: dict[str, Path] = {}
    for path in (ROOT / "src" / "fardo").rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text("utf-8"))):
            if isinstance(node, ast.ClassDef | ast.FunctionDef):
                names.setdefault(node.name, path)
            elif isinstance(node, ast.Name):
                names.setdefault(node.id, path)
    return names


@pytest.mark.parametrize("name", NAMES)
def test_no_old_name_is_used(every_name: dict[str, Path], name: str) -> None:
    assert name not in every_name, every_name.get(name)


def test_every_file_that_the_docs_name_is_there() -> None:
    there = {path.name for folder in ("src", "tests", "benchmarks") for path in (ROOT / folder).rglob("*.py")}
    documents = [*(ROOT / "docs").rglob("*.md"), ROOT / "README.md"]
    named = {(path.name, name) for path in documents for name in re.findall(r"(\w+\.py)\b", path.read_text("utf-8"))}
    assert len(named) > 20
    assert sorted((document, name) for document, name in named if name not in there) == []

"""Every word that people read: on screens, in messages, on prints and in the kinds of goods.

``python -m tests.words_shown`` prints them, a line each with its place, to be read once as a stranger.
"""

from __future__ import annotations

import ast
import re
import tomllib
from collections.abc import Iterator
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parent.parent
_WEB, _SOURCE = ROOT / "web" / "src", ROOT / "src" / "fardo"
_BLOCKS = re.compile(r"<(script|style)\b.*?</\1>", re.DOTALL)
_COMMENTS = re.compile(r"<!--.*?-->|/\*.*?\*/|^\s*//.*?$", re.DOTALL | re.MULTILINE)
_TAGS = re.compile(
    r"<[a-zA-Z/](?:[^<>{}\"'`]|\"[^\"]*\"|'[^']*'|`[^`]*`|=>|\{(?:[^{}]|\{(?:[^{}]|\{[^{}]*\})*\})*\})*>"
)
_SPOKEN = re.compile(r"\b(?:aria-label|placeholder|title|label|note|of)=(?:\"([^\"]*)\"|\{`([^`]*)`\})")
_HOLES = re.compile(r"\{[#:/@][^{}]*\}|\$?\{(?:[^{}]|\{(?:[^{}]|\{[^{}]*\})*\})*\}")
_QUOTED = re.compile(r"'((?:[^'\\\n]|\\.)+)'|\"((?:[^\"\\\n]|\\.)+)\"|`((?:[^`\\]|\\.)+)`")
_WORDS = re.compile(r"[A-Za-z]{2,}.*\s.*[A-Za-z]|^[A-Z][a-z]+[.…]?$", re.DOTALL)
_NO_WORDS = re.compile(r"^[\w./:#\[\]=>+*~^$@-]+$|^[MLHVCSQTAZmlhvcsqtaz\d ,.-]+$|^\.[a-z]|var\(--|^#|^import ")


def shown() -> Iterator[tuple[str, str]]:
    """Each with where it stands: file and line."""
    for path in sorted(_WEB.rglob("*.svelte")):
        yield from _of_page(path)
    for path in sorted(_WEB.rglob("*.ts")):
        if path.name != "schema.d.ts":
            yield from _of_script(path, path.read_text("utf-8"), 0)
    for path in sorted(_SOURCE.rglob("*.py")):
        yield from _of_python(path)
    for path in sorted(_SOURCE.rglob("*.toml")):
        yield from ((_place(path, 0), words) for words in _told(tomllib.loads(path.read_text("utf-8"))))


def _of_page(path: Path) -> Iterator[tuple[str, str]]:
    text = path.read_text("utf-8")
    for block in _BLOCKS.finditer(text):
        if block[1] == "script":
            yield from _of_script(path, block[0], text[: block.start()].count("\n"))

    def blank(found: re.Match[str]) -> str:
        return re.sub(r"[^\n]", " ", found[0])

    markup = _COMMENTS.sub(blank, _BLOCKS.sub(blank, text))
    for found in _SPOKEN.finditer(markup):
        words = _HOLES.sub("…", found[1] or found[2] or "").strip()
        if re.search("[A-Za-z]", words):
            yield _place(path, markup[: found.start()].count("\n")), words
    for hole in _HOLES.finditer(markup):
        for quoted in _QUOTED.finditer(hole[0]):
            words = next(one for one in quoted.groups() if one)
            if _WORDS.search(words) and not _NO_WORDS.search(words):
                yield _place(path, markup[: hole.start()].count("\n")), _HOLES.sub("…", words)
    bare = _TAGS.sub(lambda found: "\0" + blank(found), markup)
    bare = _HOLES.sub(lambda found: "…" + "\n" * found[0].count("\n"), bare)
    line = 0
    for piece in bare.split("\0"):
        words = " ".join(piece.split())
        if re.search("[A-Za-z]{2,}", words):
            yield _place(path, line + len(piece) - len(piece.lstrip("\n"))), words
        line += piece.count("\n")


def _of_script(path: Path, text: str, line: int) -> Iterator[tuple[str, str]]:
    bare = _COMMENTS.sub(lambda found: "\n" * found[0].count("\n"), text)
    for found in _QUOTED.finditer(bare):
        words = _HOLES.sub("…", next(one for one in found.groups() if one))
        if _WORDS.search(words) and not _NO_WORDS.search(words):
            yield _place(path, line + bare[: found.start()].count("\n")), words


def _of_python(path: Path) -> Iterator[tuple[str, str]]:
    tree = ast.parse(path.read_text("utf-8"))
    silent = {id(node.value) for node in ast.walk(tree) if isinstance(node, ast.Expr)}
    for node in ast.walk(tree):
        if isinstance(node, ast.JoinedStr):
            silent |= {id(value) for value in node.values}
            words = "".join(v.value if isinstance(v, ast.Constant) else "…" for v in node.values)
        elif isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in silent:
            words = node.value
        else:
            continue
        if _WORDS.search(words) and not _NO_WORDS.search(words) and "SELECT " not in words:
            yield _place(path, node.lineno - 1), " ".join(words.split())


def _told(value: Any) -> Iterator[str]:
    if isinstance(value, str):
        if _WORDS.search(value):
            yield value
    elif isinstance(value, dict):
        for one in value.values():
            yield from _told(one)
    elif isinstance(value, list):
        for one in value:
            yield from _told(one)


def _place(path: Path, line: int) -> str:
    return f"{path.relative_to(ROOT)}:{line + 1}"


if __name__ == "__main__":
    for place, words in shown():
        print(f"{place}\t{words}")

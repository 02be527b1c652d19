"""The list of the tests that take longest names tests that are there."""

from __future__ import annotations

from tests.conftest import LONG
from tests.words_shown import ROOT


def test_each_of_them_is_there() -> None:
    there = [one.split("[")[0].split("::") for one in LONG]
    assert len(there) > 20
    assert [name for path, name in there if f"def {name}(" not in (ROOT / path).read_text("utf-8")] == []

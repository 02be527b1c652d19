"""No answer and no print changes unnoticed: what is kept of each job against what comes out today."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from fastapi.testclient import TestClient

from tests.kept_answers import KEPT, NAMES, lines_of, that_day

WHY = (
    "answers changed; where that is meant, write them anew by `python -m tests.kept_answers` and read each line that "
    "differs, else see what changed by `python -m tests.kept_answers --show JOB CALL` here and in the commit before"
)


@pytest.fixture(autouse=True)
def _that_day() -> Iterator[None]:
    with that_day():
        yield


OF_THE_DEMO = [name for name in NAMES if name.startswith(("demo", "shop"))]


@pytest.mark.parametrize("name", OF_THE_DEMO)
def test_what_is_answered_is_what_was(client: TestClient, name: str) -> None:
    compare(client, name)


@pytest.mark.parametrize("name", [name for name in NAMES if name not in OF_THE_DEMO])
def test_what_is_answered_of_other_goods_is_what_was(client: TestClient, name: str) -> None:
    compare(client, name)


def compare(client: TestClient, name: str) -> None:
    kept = [line for line in KEPT.read_text("utf-8").splitlines() if line.startswith(f"{name} | ")]
    assert lines_of(client, name) == kept, WHY


def test_every_line_that_is_kept_is_compared() -> None:
    lines = KEPT.read_text("utf-8").splitlines()
    assert {line.split(" | ")[0] for line in lines} == set(NAMES)
    assert len(lines) == len(set(lines)) > 1000

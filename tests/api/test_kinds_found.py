"""Kinds of goods by what people call them: whole words and titles first."""

from __future__ import annotations

import pytest
from fastapi.testclient import TestClient


@pytest.mark.parametrize(
    ("words", "first"),
    [
        ("book", "books"), ("paperback", "books"), ("western saddle", "riding-saddle"), ("vase", "pottery"),
        ("skeleton", "articulated-model"), ("board game", "board-set"),
    ],
)  # fmt: skip
def test_the_kind_meant_stands_first(client: TestClient, words: str, first: str) -> None:
    assert client.post("/api/line", json={"text": words}).json()["kinds"][0]["code"] == first


def test_what_no_kind_holds_finds_none(client: TestClient) -> None:
    assert client.post("/api/line", json={"text": "zither"}).json()["kinds"] == []

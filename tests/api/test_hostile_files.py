"""Files made to hold the shop up are refused with a sentence, or read; the shop goes on answering."""

from __future__ import annotations

from typing import Any

import pytest
from fastapi.testclient import TestClient

from fardo.api import reading
from tests.hostile import FILES, dxf, tetrahedron, zipped

# Those that are only large: what they hold can be used.
READ = {"59 megapixels.jpg", "24 megapixels.png"}


def send(client: TestClient, name: str, content: bytes) -> Any:
    """To the address that takes such a file."""
    if name.endswith((".svg", ".dxf")):
        drawing = {"name": name, "content": content.decode("utf-8", "replace")}
        return client.post("/api/shop/designs/read", json=drawing)
    if name.endswith(".zip"):
        return client.post("/api/jobs/bundle", content=content)
    if name.endswith(".job.json"):
        return client.post("/api/jobs/file", content=content)
    return client.post("/api/files", files={"files": (name, content)})


def said(answer: Any) -> str:
    """Why it was not taken; empty where it was."""
    if answer.status_code in (200, 201):
        taken = answer.json()
        return taken[0].get("problem") or "" if isinstance(taken, list) else ""
    return answer.json()["detail"]


@pytest.mark.parametrize("name", FILES)
def test_nothing_a_file_holds_holds_up_the_shop(client: TestClient, monkeypatch: pytest.MonkeyPatch, name: str) -> None:
    if name in READ:
        monkeypatch.setattr(reading, "LONGEST_S", 60)  # this machine may be busy; benchmarks/attack times them
    answer = send(client, name, FILES[name]())
    assert answer.status_code < 500, answer.text
    assert (said(answer) == "") == (name in READ), said(answer)
    assert client.get("/api/alive").status_code == 200


def test_what_is_counted_is_still_read_up_to_the_limit(client: TestClient) -> None:
    (taken,) = send(client, "one.glb", tetrahedron(1)).json()
    assert (taken["problem"], taken["triangles"]) == (None, 4)
    assert "enclose nothing" in send(client, "a.dxf", dxf(lines=300)).json()["detail"]
    assert send(client, "a.zip", zipped()).status_code == 201

"""Clients that send half a request and stop, or send much at once: they are hung up on, or wait their turn."""

from __future__ import annotations

import socket
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

import httpx
import pytest
import uvicorn

from fardo.api import patience, request_guard
from fardo.api.app import create_app
from tests.made_up import job
from tests.served import CREWS, AppHere


@pytest.fixture
def address(shop_file: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[tuple[str, int]]:
    """A shop that waits a fifth of a second where it would wait ten."""
    monkeypatch.setattr(patience, "HEAD_S", 0.2)
    monkeypatch.setattr(request_guard, "_PAUSE_S", 0.2)
    usual = uvicorn.Config

    def config(*args: Any, **options: Any) -> uvicorn.Config:
        return usual(*args, **options, http=patience.PatientProtocol, timeout_keep_alive=1)

    monkeypatch.setattr(uvicorn, "Config", config)
    app = create_app(shop_file, CREWS)
    with AppHere(app) as served:
        url = httpx.URL(served.url)
        yield url.host, url.port or 0
    app.state.context.database.close()


def sent(address: tuple[str, int], *pieces: bytes) -> bytes:
    """What comes back until the shop hangs up."""
    with socket.create_connection(address, timeout=30) as line:
        for piece in pieces:
            line.sendall(piece)
        came = b""
        while more := line.recv(65536):
            came += more
        return came


HEAD = b"POST /api/jobs HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 900\r\n"


@pytest.mark.parametrize("half", [b"", b"GET /api/jo", b"GET /api/jobs HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Half: "])
def test_half_a_request_is_hung_up_on(address: tuple[str, int], half: bytes) -> None:
    assert sent(address, half) == b""


def test_a_body_that_stops_is_told_so_and_hung_up_on(address: tuple[str, int]) -> None:
    for body in (b"", b'{"format": '):
        answer = sent(address, HEAD + b"\r\n" + body)
        assert answer.startswith(b"HTTP/1.1 408")
        assert b"nothing was changed" in answer
    files = HEAD.replace(b"/api/jobs", b"/api/files").replace(b"application/json", b"multipart/form-data; boundary=x")
    assert sent(address, files + b"\r\n--x\r\n").startswith(b"HTTP/1.1 408")


def test_a_second_request_on_a_line_is_waited_for_as_the_first(address: tuple[str, int]) -> None:
    whole = b"GET /api/alive HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n"
    answer = sent(address, whole, b"GET /api/al")
    assert answer.count(b"HTTP/1.1 200") == 1
    assert sent(address, whole + whole, b"GET /").count(b"HTTP/1.1 200") == 2


def test_those_who_wait_their_turn_with_a_large_body_all_come_to_it(
    address: tuple[str, int], monkeypatch: pytest.MonkeyPatch
) -> None:
    host, port = address

    def send(_: int) -> int:
        files = {"files": ("large.stl", b"solid x" + b" " * 3_000_000)}
        return httpx.post(f"http://{host}:{port}/api/files", files=files, timeout=60).status_code

    with ThreadPoolExecutor(8) as clients:
        assert set(clients.map(send, range(8))) == {200}


def test_a_fault_of_ours_is_an_answer_and_the_connection_lasts(
    address: tuple[str, int], monkeypatch: pytest.MonkeyPatch
) -> None:
    def broken(*_: object, **__: object) -> None:
        raise ZeroDivisionError

    host, port = address
    with httpx.Client(base_url=f"http://{host}:{port}", trust_env=False) as client:
        monkeypatch.setattr("fardo.api.routers.jobs.row", broken)
        answer = client.get("/api/jobs")
        assert (answer.status_code, answer.json()["title"]) == (500, "A fault of ours")
        monkeypatch.undo()
        assert client.get("/api/alive").status_code == 200
        assert client.post("/api/jobs", json=job()).status_code == 201

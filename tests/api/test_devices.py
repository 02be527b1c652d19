"""The simulated tape and scale: their readings come to every page that listens, their faults harm nothing."""

from __future__ import annotations

import json
from collections.abc import Iterator
from pathlib import Path

import httpx
import pytest

from fardo.standins.instrument import MODELS, serve
from tests.served import ServedHere, free_port


@pytest.fixture
def shop(shop_file: Path) -> Iterator[str]:
    with ServedHere(shop_file) as served:
        yield served.url


@pytest.fixture
def tape(shop: str) -> Iterator[str]:
    port = free_port()
    server = serve(MODELS["tape"], port, shop)
    yield f"http://127.0.0.1:{port}"
    server.shutdown()
    server.server_close()


def pressed(tape: str, reading: str, fault: str = "") -> str:
    return httpx.post(tape, data={"reading": reading, "fault": fault}).text


def test_a_reading_comes_to_a_page_that_listens(shop: str, tape: str) -> None:
    with httpx.stream("GET", f"{shop}/api/devices/stream") as stream:
        lines = stream.iter_lines()
        assert next(lines) == ": listening"
        assert "Sent 10 1/2 in; 1 open page heard it." in pressed(tape, "10 1/2 in")
        told = next(line for line in lines if line.startswith("data: "))
    assert json.loads(told.removeprefix("data: ")) == {"device": "tape", "reading": "10 1/2 in"}


@pytest.mark.parametrize(
    ("fault", "says"),
    [
        ("nonsense", "The shop does not take"),
        ("wrong", "a weight, where a length is wanted"),
        ("silent", "nothing was sent"),
    ],
)
def test_a_device_with_a_fault_is_told_so_and_the_shop_goes_on(shop: str, tape: str, fault: str, says: str) -> None:
    assert says in pressed(tape, "10 1/2 in", fault)
    assert httpx.get(f"{shop}/api/alive").status_code == 200
    assert "Sent 9 in; 0 open pages heard it." in pressed(tape, "9 in")


def test_a_page_of_a_device_is_safe_from_what_is_typed_into_it(tape: str) -> None:
    assert "<script>" not in pressed(tape, "<script>1</script>", "silent")


def test_a_device_without_a_shop_says_so() -> None:
    port = free_port()
    server = serve(MODELS["scale"], port, f"http://127.0.0.1:{free_port()}")
    try:
        assert "The shop does not answer" in pressed(f"http://127.0.0.1:{port}", "4 lb")
    finally:
        server.shutdown()
        server.server_close()

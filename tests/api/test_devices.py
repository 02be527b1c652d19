"""The simulated tape and scale: their readings come to every page that listens, their faults harm nothing."""

from __future__ import annotations

import asyncio
import io
import json
import re
import socket
from collections.abc import Iterator
from pathlib import Path

import httpx
import pytest
from fastapi.testclient import TestClient
from PIL import Image

from fardo.core.refusal import NoAnswer
from fardo.standins.device_page import serve_device
from fardo.standins.instrument import MODELS, serve
from fardo.standins.printer import Printer
from fardo.wire.printer import print_out
from tests.api.test_job_papers import saved
from tests.served import ServedHere, free_port
from tests.simulated_carrier import served_carrier


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
    assert json.loads(told.removeprefix("data: ")) == {
        "device": "tape", "reading": "10 1/2 in", "state": "settled",
    }  # fmt: skip


def test_a_scale_tells_what_it_shows_until_it_has_settled_tares_and_says_overload(shop: str) -> None:
    port = free_port()
    server = serve(MODELS["scale"], port, shop)
    scale = f"http://127.0.0.1:{port}"
    try:
        with httpx.stream("GET", f"{shop}/api/devices/stream") as stream:
            lines = stream.iter_lines()
            assert next(lines) == ": listening"
            put = httpx.post(scale, data={"reading": "4 lb 6 oz", "deed": "put"}, timeout=None).text
            assert "Sent 4 lb 6 oz; 1 open page heard it." in put
            told = []
            while not told or told[-1]["state"] == "settling":
                told.append(json.loads(next(one for one in lines if one.startswith("data: ")).removeprefix("data: ")))
        assert [one["state"] for one in told[:-1]] == ["settling"] * (len(told) - 1)
        assert len(told) > 2
        assert told[-1]["reading"] == "4 lb 6 oz"
        assert "it shows 0 lb" in httpx.post(scale, data={"deed": "tare"}).text
        again = httpx.post(scale, data={"reading": "5 lb 6 oz", "deed": "put"}, timeout=None).text
        assert "Sent 1 lb;" in again
        # Within half an ounce it may not be within half of ten grams yet: it trembles once more until it is.
        in_kilos = httpx.post(scale, data={"deed": "unit"}).text
        while "0.45 kg" not in in_kilos:
            assert re.search(r"It shows 0\.4[3-7] kg", in_kilos)
            assert "1 lb" in httpx.post(scale, data={"deed": "unit"}).text
            in_kilos = httpx.post(scale, data={"deed": "unit"}).text
        assert "Sent overload;" in httpx.post(scale, data={"reading": "151 lb", "deed": "put"}).text
        assert "not understood" in httpx.post(scale, data={"reading": "heavy", "deed": "put"}).text
    finally:
        server.shutdown()
        server.server_close()


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
        assert "server is not responding" in pressed(f"http://127.0.0.1:{port}", "4 lb")
    finally:
        server.shutdown()
        server.server_close()


@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "https://evil.example"}, {"Origin": "null"}, {"Origin": "http://localhost:1"},
        {"Host": "evil.example"}, {"Host": "evil@127.0.0.1"}, {"Host": "127.0.0.1/evil"},
    ],
)  # fmt: skip
def test_another_sites_page_presses_nothing(shop: str, tape: str, headers: dict[str, str]) -> None:
    refused = httpx.post(tape, data={"reading": "10 1/2 in", "fault": ""}, headers=headers)
    assert refused.status_code == 403
    assert "Sent" not in refused.text
    with served_carrier() as carrier:
        for path in ("fault", "labels", "quotes"):
            assert httpx.post(f"{carrier.url}/{path}", data={"fault": "error"}, headers=headers).status_code == 403
        assert '<p role="status">none</p>' in httpx.get(carrier.url).text
    own = {"Origin": tape}
    assert "0 open pages heard it" in httpx.post(tape, data={"reading": "9 in", "fault": ""}, headers=own).text


@pytest.fixture
def printer() -> Iterator[str]:
    port = free_port()
    server = serve_device(Printer(), port)
    yield f"http://127.0.0.1:{port}"
    server.shutdown()
    server.server_close()


def shop_with_printer(client: TestClient, address: str) -> str:
    """A saved job of a shop that prints there; its id."""
    shop = client.get("/api/shop").json()
    shop["shop"]["printer"] = address
    client.put("/api/shop", json={"revision": shop["revision"], "shop": shop["shop"]}).raise_for_status()
    return saved(client)


def test_a_label_comes_out_of_the_printer_at_its_true_size(client: TestClient, printer: str) -> None:
    key = shop_with_printer(client, printer)
    assert client.post(f"/api/jobs/{key}/print", json={"what": "label"}).json() == {"pages": 1}
    assert "Page 1, 4 x 6 in" in httpx.get(printer).text
    picture = Image.open(io.BytesIO(httpx.get(f"{printer}/pages/1.png").content))
    assert picture.size == (4 * 203, 6 * 203)
    assert picture.convert("L").getextrema() == (0, 255)
    papers = client.post(f"/api/jobs/{key}/print", json={"what": "papers"}).json()["pages"]
    assert f"Page {papers + 1}, 8.5 x 11 in" in httpx.get(printer).text
    assert httpx.get(f"{printer}/pages/99.png").status_code == 404
    httpx.post(printer, data={"deed": "empty"})
    assert "Nothing was printed yet" in httpx.get(printer).text


@pytest.mark.parametrize(
    ("fault", "says", "came"),
    [("out of paper", "does not print: out of paper", 0), ("jammed", "jammed after the first page", 1)],
)
def test_a_fault_of_the_printer_is_told_and_nothing_is_printed_twice(
    client: TestClient, printer: str, fault: str, says: str, came: int
) -> None:
    key = shop_with_printer(client, printer)
    httpx.post(printer, data={"fault": fault})
    refused = client.post(f"/api/jobs/{key}/print", json={"what": "papers"})
    assert refused.status_code == 422
    assert says in refused.json()["detail"]
    assert httpx.get(printer).text.count("<figure>") == came


def test_without_a_printer_or_with_one_switched_off_the_shop_says_so(client: TestClient) -> None:
    key = saved(client)
    assert "enter its address" in client.post(f"/api/jobs/{key}/print", json={}).json()["detail"]
    key = shop_with_printer(client, f"http://127.0.0.1:{free_port()}")
    assert "cannot be reached" in client.post(f"/api/jobs/{key}/print", json={}).json()["detail"]
    shop = client.get("/api/shop").json()
    shop["shop"]["printer"] = "http://printer.example"
    answer = client.put("/api/shop", json={"revision": shop["revision"], "shop": shop["shop"]})
    assert (answer.status_code, answer.json()["field"]) == (422, "printer")


@pytest.mark.parametrize("content", [b"", b"%PDF-1.4 nothing more", b"<script>"])
def test_a_printer_refuses_what_is_no_pdf(printer: str, content: bytes) -> None:
    answer = httpx.post(f"{printer}/print", content=content, headers={"Content-Type": "application/pdf"})
    assert answer.status_code == 415
    with pytest.raises(NoAnswer, match="it prints PDF"):
        asyncio.run(print_out(printer, content))


@pytest.mark.parametrize("length", ["-1", "x", "9" * 30, "²"])
def test_a_form_of_no_length_is_answered(tape: str, length: str) -> None:
    url = httpx.URL(tape)
    with socket.create_connection((url.host, url.port or 0), timeout=30) as line:
        line.sendall(f"POST / HTTP/1.0\r\nHost: 127.0.0.1\r\nContent-Length: {length}\r\n\r\n".encode())
        assert line.recv(1000).startswith(b"HTTP/1.0 200")

"""A carrier asked over the network: its answers beside our own, and each of its faults."""

from __future__ import annotations

import asyncio
import re
import socket
import subprocess
import sys
import time
from decimal import Decimal
from pathlib import Path
from typing import Any

import httpx
import pytest
from fastapi.testclient import TestClient

from fardo.demo import CARRIER
from fardo.wire.call import LARGEST_ANSWER, Wire
from fardo.wire.carrier import ask_all, message_of
from tests.core.test_going_together import parcel
from tests.made_up import job
from tests.served import Served, free_port
from tests.simulated_carrier import BRIEF, fault, ground, wired


def ask(client: TestClient, **changes: Any) -> Any:
    answer = client.post("/api/ask", json={"job": job(**changes), "way": "tray"})
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_what_the_carrier_asks_stands_beside_our_own_line_by_line(asking: TestClient) -> None:
    (told,) = ask(asking)
    assert (told["carrier"], told["state"], told["tries"]) == (CARRIER, "answered", 1)
    work = asking.post("/api/work-out", json={"job": job(), "in_hand": "tray"}).json()
    (way,) = [one for one in work["ways"] if one["way"] == "tray"]
    ours = {(q["service"], q["programme"]): q["amount"] for q in way["quotes"] if q["carrier"] == CARRIER}
    assert {(q["service"], q["programme"]): q["ours"] for q in told["quotes"]} == ours
    for quote in told["quotes"]:
        # Its fuel is a point and a quarter above the tariff's: that line differs, and no other does.
        assert [line["what"] for line in quote["lines"] if line["differs"]] == ["fuel"]
        (fuel,) = [line for line in quote["lines"] if line["differs"]]
        more = Decimal(fuel["theirs"]) - Decimal(fuel["ours"])
        assert quote["more"] == f"+{more}"
        assert Decimal(quote["amount"]) - Decimal(quote["ours"]) == more
        assert sum(Decimal(line["theirs"]) for line in quote["lines"]) == Decimal(quote["amount"])


def test_parcels_beside_and_value_go_over_the_wire_too(asking: TestClient) -> None:
    beside = [{"name": "stand", "size": "20 x 14 x 9 in", "weight": "21 lb", "value": "300.00"}]
    (alone,), (both,) = ask(asking), ask(asking, beside=beside, value="640.00")
    assert Decimal(ground(both)["amount"]) > Decimal(ground(alone)["amount"])
    assert [line["what"] for line in ground(both)["lines"] if line["differs"]] == ["fuel"]


def test_what_it_refuses_it_says_and_what_we_reckoned_stands_beside_it(asking: TestClient) -> None:
    (told,) = ask(asking, ship={"from": "20440", "to": "73120"})
    assert told["state"] == "answered"
    assert {no["why"] for no in told["refused"]} == {"does not go from 20440 to 73120"}
    assert {no["ours"] for no in told["refused"]} == {None}
    # One programme refuses what another of the same service takes: they are not taken for each other.
    heavy = [{**job()["parts"][0], "weight": "85 lb"}]
    (told,) = ask(asking, parts=heavy)
    (refused,) = [no for no in told["refused"] if no["service"] == "Ground"]
    assert (refused["programme"], refused["ours"]) == ("marketplace", None)
    assert ground(told)["programme"] == "account"


@pytest.mark.parametrize(
    ("name", "state", "tries", "says"),
    [
        ("slow", "slow", 3, "does not answer in time"),
        ("error", "trouble", 3, "has trouble of its own (status 503)"),
        ("nonsense", "nonsense", 1, "answers what cannot be read"),
        ("wrong sum", "nonsense", 1, "its lines for Ground come to"),
        ("drops", "away", 3, "cannot be reached"),
    ],
)
def test_no_fault_of_the_carriers_costs_more_than_a_sentence(
    asking: TestClient, carrier: str, name: str, state: str, tries: int, says: str
) -> None:
    fault(carrier, name)
    (told,) = ask(asking)
    assert (told["state"], told["tries"], told["quotes"]) == (state, tries, [])
    assert told["says"].startswith(says)
    assert told["seconds"] <= BRIEF.in_all + BRIEF.read
    # All else is as it was.
    work = asking.post("/api/work-out", json={"job": job(), "in_hand": "tray"}).json()
    assert [q for way in work["ways"] if way["way"] == "tray" for q in way["quotes"] if q["carrier"] == CARRIER]


@pytest.mark.parametrize("name", ["slow", "error", "drops"])
def test_a_fault_that_passes_is_got_over(asking: TestClient, carrier: str, name: str) -> None:
    fault(carrier, name, times=2)
    (told,) = ask(asking)
    assert (told["state"], told["tries"]) == ("answered", 3)


def test_a_carrier_that_is_not_there_does_not_hold_up_one_that_is(asking: TestClient, carrier: str) -> None:
    wired(asking, f"http://127.0.0.1:{free_port()}", carrier)
    gone, there = ask(asking)
    assert (gone["state"], there["state"]) == ("away", "answered")


def test_none_is_asked_where_none_is_set_or_where_it_does_not_ship(asking: TestClient) -> None:
    assert asking.post("/api/ask", json={"job": job(ship={}), "way": "tray"}).json()["field"] == "ship.to"
    wired(asking)
    assert ask(asking) == []


@pytest.mark.parametrize(
    "address", ["ftp://127.0.0.1", "http://carrier.invalid/", "carrier", "file:///etc/passwd", "https://"]
)
def test_an_address_in_clear_or_none_at_all_is_refused(client: TestClient, address: str) -> None:
    refused = wired(client, address)
    assert (refused.status_code, refused.json()["field"]) == (422, "wires[0].address")


def test_a_number_that_is_none_is_not_made_an_address_of(asking: TestClient) -> None:
    label = {"carrier": CARRIER, "service": "Ground", "amount": "9.00", "currency": "USD", "tracking": "../labels"}
    refused = asking.post("/api/jobs", json=job(chosen={"label": label}))
    assert (refused.status_code, refused.json()["field"]) == (422, "chosen.label.tracking")


def test_an_answer_larger_than_any_is_not_read_to_its_end() -> None:
    """A body without an end: it stops at the limit."""
    sent = 0

    class Endless(httpx.AsyncByteStream):
        async def __aiter__(self) -> Any:
            nonlocal sent
            while True:
                sent += 100_000
                yield b" " * 100_000

    transport = httpx.MockTransport(lambda _: httpx.Response(200, stream=Endless()))
    question = message_of(parcel("10x10x10", "5 lb"), "USD")
    begun = time.monotonic()
    (told,) = asyncio.run(ask_all([(Wire("x", "https://carrier.invalid"), question)], BRIEF, transport))
    assert (told.state, told.tries) == ("nonsense", 1)
    assert sent <= LARGEST_ANSWER + 200_000
    assert told.seconds <= time.monotonic() - begun


def test_the_demo_serves_its_carrier_in_a_process_of_its_own_that_ends_with_it(tmp_path: Path) -> None:
    with Served(tmp_path / "demo.db", "demo") as served:
        said = served.line()
        carrier = re.search(rf"{CARRIER}, simulated: (http://\S+)", said)
        assert carrier, said
        with httpx.Client(trust_env=False) as client:
            (wire,) = client.get(f"{served.url}/api/shop").json()["shop"]["wires"]
            assert wire == {"carrier": CARRIER, "address": carrier[1]}
            (told,) = client.post(f"{served.url}/api/ask", json={"job": job(), "way": "tray"}).json()
            assert told["state"] == "answered"
            # Killed, it leaves nothing running behind it.
            with client.stream("GET", carrier[1]):
                pass
            served.kill()
            address = httpx.URL(carrier[1])
            while True:
                try:
                    socket.create_connection((address.host, address.port or 0)).close()
                except OSError:
                    break


def test_a_port_that_is_taken_is_said_and_nothing_is_served() -> None:
    with socket.create_server(("127.0.0.1", 0)) as taken:
        port = str(taken.getsockname()[1])
        command = [sys.executable, "-m", "fardo.cli", "standin", "carrier", "--port", port]
        done = subprocess.run(command, capture_output=True, text=True, stdin=subprocess.DEVNULL)
    assert (done.returncode, done.stdout) == (2, "")
    assert f"port: read '{port}', taken by something else" in done.stderr

"""The shop on its own network: refused without a session, in with passphrase or code, slowed after wrong tries."""

from __future__ import annotations

import json
import re
import shutil
import socket
import sqlite3
import ssl
import subprocess
import sys
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

import httpx
import pytest
import zxingcpp
from argon2 import PasswordHasher, Type, extract_parameters
from fastapi import FastAPI
from fastapi.testclient import TestClient
from PIL import Image, ImageDraw

from fardo.api.gate import CODE_LASTS_S, COOKIE, Gate
from fardo.api.made_up import MadeUp
from fardo.core.refusal import BadInput
from fardo.store import access
from fardo.store.access import Access
from fardo.store.database import Database
from fardo.wire.hosts import LOCAL_HOSTS
from tests.api.test_command import fardo
from tests.served import AppHere, close_app, free_port, open_app

WORDS = "reel loom bobbin treadle"
HASHER = access._HASHER
HERE = "192.168.1.10"
URL = f"http://{HERE}:8740"


class Clock:
    """Seconds that go on when they are told to."""

    now = 1000.0

    def __call__(self) -> float:
        return self.now


@pytest.fixture(autouse=True)
def _quick(monkeypatch: pytest.MonkeyPatch) -> None:
    """Trying a passphrase costs time on purpose, which is not what these test."""
    monkeypatch.setattr(access, "_HASHER", PasswordHasher(time_cost=1, memory_cost=8, parallelism=1))


@pytest.fixture
def clock() -> Clock:
    return Clock()


@pytest.fixture
def app(shop_file: Path, clock: Clock) -> Iterator[FastAPI]:
    """A shop that is served to its network."""
    app = open_app(shop_file)
    app.state.context.access.set_passphrase(WORDS)
    app.state.gate = Gate((*LOCAL_HOSTS, HERE, "workshop.local"), clock)
    app.state.addresses = [URL, "http://workshop.local:8740"]
    yield app
    app.state.gate = None
    close_app(app)


def device(app: FastAPI, address: str = "192.168.1.20", url: str = URL) -> TestClient:
    """A browser on another address."""
    return TestClient(app, base_url=url, client=(address, 50123), raise_server_exceptions=False)


@pytest.fixture
def tablet(app: FastAPI) -> TestClient:
    return device(app)


@pytest.fixture
def own(app: FastAPI) -> TestClient:
    return device(app, "127.0.0.1", "http://127.0.0.1:8740")


def enter(client: TestClient, **said: str) -> httpx.Response:
    return client.post("/api/access/enter", json=said)


def test_without_a_session_nothing_is_told_and_a_page_leads_to_the_way_in(tablet: TestClient) -> None:
    for path in ("/api/jobs", "/api/shop", "/api/openapi.json", "/api/devices/stream", "/assets/x.js", "/api/access"):
        assert tablet.get(path).status_code == 401, path
    assert tablet.post("/api/jobs", json={}).status_code == 401
    page = tablet.get("/", headers={"Accept": "text/html"}, follow_redirects=False)
    assert (page.status_code, page.headers["location"]) == (303, "/enter")
    assert "Open the shop" in tablet.get("/enter").text


def test_the_passphrase_lets_a_device_in_and_its_cookie_is_for_no_script_and_no_other_site(tablet: TestClient) -> None:
    wrong = enter(tablet, passphrase="reel loom bobbin")
    assert (wrong.status_code, wrong.json()["detail"]) == (403, "That is not the passphrase.")
    answer = enter(tablet, passphrase=WORDS)
    assert answer.status_code == 200
    cookie = answer.headers["set-cookie"].lower()
    assert all(one in cookie for one in ("httponly", "samesite=strict", "path=/", "max-age=7776000"))
    assert tablet.get("/api/jobs").status_code == 200
    (session,) = tablet.get("/api/access").json()["sessions"]
    assert session["this_device"]


def test_a_session_that_is_ended_is_out_at_once_and_others_stay(app: FastAPI, tablet: TestClient) -> None:
    other = device(app, "192.168.1.21")
    for one in (tablet, other):
        enter(one, passphrase=WORDS)
    own_id = next(one["id"] for one in other.get("/api/access").json()["sessions"] if one["this_device"])
    assert tablet.delete(f"/api/access/sessions/{own_id}").status_code == 200
    assert other.get("/api/jobs").status_code == 401
    assert tablet.get("/api/jobs").status_code == 200
    assert tablet.delete("/api/access/sessions/nothing").status_code == 404


def test_a_session_lasts_a_restart_and_a_new_passphrase_ends_all(app: FastAPI, tablet: TestClient) -> None:
    enter(tablet, passphrase=WORDS)
    assert Access(app.state.context.database).session_of(tablet.cookies[COOKIE]) is not None
    app.state.context.access.set_passphrase("another four words here")
    assert tablet.get("/api/jobs").status_code == 401
    assert enter(tablet, passphrase=WORDS).status_code == 403
    assert enter(tablet, passphrase="another four words here").status_code == 200


def test_a_session_that_was_not_seen_for_long_is_over(app: FastAPI, tablet: TestClient) -> None:
    enter(tablet, passphrase=WORDS)
    with app.state.context.database.writing() as connection:
        connection.execute("UPDATE session SET seen_at = '2020-01-01T00:00:00+00:00'")
    assert tablet.get("/api/jobs").status_code == 401
    assert app.state.context.access.sessions() == []


def test_a_code_from_a_screen_lets_one_device_in_once(app: FastAPI, own: TestClient, clock: Clock) -> None:
    told = own.post("/api/access/code").json()
    code = told["address"].partition("#code=")[2]
    assert told["address"].startswith(f"{URL}/enter#code=")
    assert read_qr(told["svg"]) == told["address"]
    assert quiet_zone(told["svg"]) == pytest.approx(4)
    first, second, third = (device(app, f"192.168.1.{n}") for n in (30, 31, 32))
    assert enter(first, code=code).status_code == 200
    assert first.get("/api/jobs").status_code == 200
    assert "used up" in enter(second, code=code).json()["detail"]
    late = own.post("/api/access/code").json()["address"].partition("#code=")[2]
    clock.now += CODE_LASTS_S + 1
    assert enter(third, code=late).status_code == 403


def quiet_zone(svg: str) -> float:
    """In modules (ISO/IEC 18004 asks for four)."""
    size = float(re.search(r'width="([\d.]+)"', svg)[1])  # type: ignore[index]
    dark = [dict(re.findall(r'(\w[\w-]*)="([^"]*)"', one)) for one in re.findall(r"<rect ([^>]*)>", svg)
            if "rgb(0%,0%,0%)" in one.replace(" ", "")]  # fmt: skip
    squares = [(float(one["x"]), float(one["width"])) for one in dark if "x" in one and float(one["width"]) < size]
    return min(x for x, _ in squares) / min(wide for _, wide in squares)


def read_qr(svg: str) -> str:
    """The text of a code drawn in squares, by a reader that is not ours."""
    size = float(re.search(r'width="([\d.]+)"', svg)[1])  # type: ignore[index]
    scale = 8
    picture = Image.new("L", (int(size * scale), int(size * scale)), 255)
    pen = ImageDraw.Draw(picture)
    for found in re.finditer(r"<rect ([^>]*)>", svg):
        said = dict(re.findall(r'(\w[\w-]*)="([^"]*)"', found[1]))
        if "fill: rgb(0%,0%,0%)" in found[1] or "fill:rgb(0%,0%,0%)" in found[1].replace(" ", ""):
            x, y, wide, high = (float(said.get(name, 0)) * scale for name in ("x", "y", "width", "height"))
            pen.rectangle((x, y, x + wide - 1, y + high - 1), fill=0)
    for turned in (picture, picture.transpose(Image.Transpose.FLIP_TOP_BOTTOM)):
        if read := zxingcpp.read_barcodes(turned):
            return str(read[0].text)
    return ""


def test_fifty_wrong_tries_are_slowed_ever_more(tablet: TestClient, clock: Clock) -> None:
    tried, waited = 0, 0.0
    longest = 0.0
    while tried < 50:
        answer = enter(tablet, passphrase=f"wrong words number {tried}")
        if answer.status_code == 429:
            wait = float(answer.headers["retry-after"])
            assert "try again in" in answer.json()["detail"]
            longest, waited = max(longest, wait), waited + wait
            clock.now += wait
            continue
        assert answer.status_code == 403
        tried += 1
    assert longest == 300
    assert waited > 3 * 3600
    # While it waits the right words are not even tried.
    assert enter(tablet, passphrase=WORDS).status_code == 429


def test_many_tries_at_once_are_no_more_than_as_many(app: FastAPI) -> None:
    with AppHere(app) as served, ThreadPoolExecutor(20) as threads:

        def wrong(n: int) -> int:
            said = {"passphrase": f"wrong words number {n}"}
            return httpx.post(
                f"{served.url}/api/access/enter", json=said, headers={"Host": HERE}, timeout=None
            ).status_code

        answers = sorted(threads.map(wrong, range(40)))
    assert answers == [403] * 5 + [429] * 35


def test_a_right_try_counts_against_nobody(app: FastAPI) -> None:
    for n in range(2, 42):
        assert enter(device(app, f"192.168.1.{n}"), passphrase=WORDS).status_code == 200
    assert enter(device(app, "192.168.1.99"), passphrase="wrong words").status_code == 403


@pytest.mark.parametrize(
    ("said", "told"),
    [("Phone/1.0 (Mobile)", "phone or tablet at 192.168.1.20"), ("Desk/2.0", "computer at 192.168.1.20")],
)
def test_a_device_is_listed_in_plain_words(tablet: TestClient, said: str, told: str) -> None:
    tablet.headers["User-Agent"] = said
    enter(tablet, passphrase=WORDS)
    assert [one["device"] for one in tablet.get("/api/access").json()["sessions"]] == [told]


def test_many_addresses_do_not_get_round_the_wait(app: FastAPI, clock: Clock) -> None:
    answers = [enter(device(app, f"192.168.1.{n}"), passphrase="wrong words again").status_code for n in range(2, 60)]
    assert answers[:30] == [403] * 30
    assert answers[-1] == 429


@pytest.mark.parametrize(
    "host", ["evil.example", "192.168.1.11:8740", "workshop.local.evil.example", f"{HERE}@evil", ""]
)
def test_another_name_is_not_answered_to(app: FastAPI, tablet: TestClient, host: str) -> None:
    """A page elsewhere whose name is made to point here (DNS rebinding) asks for its own name."""
    enter(tablet, passphrase=WORDS)
    refused = tablet.get("/api/jobs", headers={"Host": host})
    assert (refused.status_code, refused.json()["detail"]) == (
        403, f"This shop does not answer to {host or 'no host'}.",
    )  # fmt: skip
    assert tablet.get("/api/jobs", headers={"Host": "workshop.local:8740"}).status_code == 200


@pytest.mark.parametrize("origin", ["https://evil.example", "null", "http://192.168.1.10", "http://192.168.1.11:8740"])
def test_another_sites_page_changes_nothing_even_with_the_cookie(tablet: TestClient, origin: str) -> None:
    enter(tablet, passphrase=WORDS)
    for send in (tablet.post, tablet.put, tablet.get):
        assert send("/api/jobs", headers={"Origin": origin}).status_code == 403
    assert enter(device(tablet.app, "192.168.1.40"), passphrase=WORDS).status_code == 200  # type: ignore[arg-type]


def test_from_the_network_a_name_of_this_machine_itself_opens_nothing(app: FastAPI) -> None:
    assert device(app, url="http://127.0.0.1:8740").get("/api/jobs").status_code == 401
    assert device(app, "127.0.0.1").get("/api/jobs").status_code == 401  # as through a tunnel


@pytest.mark.parametrize("cookie", ["", "x", "a=b; ;;", f"{COOKIE}=", f"{COOKIE}=" + "x" * 5000, f'{COOKIE}="\\"'])
def test_a_cookie_of_any_kind_is_answered(tablet: TestClient, cookie: str) -> None:
    assert tablet.get("/api/jobs", headers={"Cookie": cookie}).status_code == 401


def test_the_passphrase_is_changed_on_the_shops_own_machine_alone(own: TestClient, tablet: TestClient) -> None:
    enter(tablet, passphrase=WORDS)
    refused = tablet.put("/api/access/passphrase", json={"passphrase": "mine from now on"})
    assert refused.status_code == 422
    short = own.put("/api/access/passphrase", json={"passphrase": "short"})
    assert (short.status_code, short.json()["field"]) == (422, "passphrase")
    assert "short" not in short.json()["read"]
    told: Any = own.put("/api/access/passphrase", json={"passphrase": "mine from now on"}).json()
    assert told["sessions"] == []
    assert told["plain"]
    assert told["may_change"]


def test_a_passphrase_costs_who_guesses_it_time(shop_file: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """Argon2id with at least 19 MiB and two rounds (OWASP password storage cheat sheet, from memory)."""
    monkeypatch.setattr(access, "_HASHER", HASHER)
    Access(Database(shop_file)).set_passphrase(WORDS)
    [(kept,)] = sqlite3.connect(shop_file).execute("SELECT hash FROM passphrase")
    costs = extract_parameters(kept)
    assert costs.type is Type.ID
    assert costs.memory_cost >= 19 * 1024
    assert costs.time_cost >= 2


def test_neither_passphrase_nor_token_is_kept_or_logged(
    app: FastAPI, tablet: TestClient, shop_file: Path, tmp_path: Path, caplog: pytest.LogCaptureFixture
) -> None:
    enter(tablet, passphrase=WORDS)
    token = tablet.cookies[COOKIE]
    enter(tablet, passphrase="no words of ours")
    copy = tmp_path / "copy.db"
    connection = sqlite3.connect(shop_file)
    connection.execute("VACUUM INTO ?", (str(copy),))
    connection.close()
    for content in (copy.read_bytes(), json.dumps([one.getMessage() for one in caplog.records]).encode()):
        assert WORDS.encode() not in content
        assert token.encode() not in content
        assert b"no words of ours" not in content
    assert b"$argon2id$" in copy.read_bytes()


@pytest.mark.skipif(shutil.which("openssl") is None, reason="needs openssl to make a certificate")
def test_with_a_certificate_the_cookie_goes_over_tls_alone(shop_file: Path, tmp_path: Path) -> None:
    cert, key, port = tmp_path / "c.pem", tmp_path / "k.pem", free_port()
    make = ["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", "-subj", "/CN=localhost"]
    made = [*make, "-addext", "subjectAltName=DNS:localhost", "-keyout", str(key), "-out", str(cert)]
    subprocess.run(made, check=True, capture_output=True)
    database = Database(shop_file)
    Access(database).set_passphrase(WORDS)
    database.close()
    serve = ["serve", "--lan", "--db", str(shop_file), "--port", str(port), "--cert", str(cert), "--key", str(key)]
    with subprocess.Popen([sys.executable, "-m", "fardo.cli", *serve], stdout=subprocess.PIPE, text=True) as served:
        assert served.stdout is not None
        own, elsewhere = served.stdout.readline(), served.stdout.readline()
        try:
            assert own.startswith(f"Fardo on https://127.0.0.1:{port}")
            assert "https://" in elsewhere
            trusted = ssl.create_default_context(cafile=str(cert))
            with httpx.Client(base_url=f"https://localhost:{port}", verify=trusted, timeout=None) as client:
                assert client.get("/api/access").json()["plain"] is False
                cookie = client.post("/api/access/enter", json={"passphrase": WORDS}).headers["set-cookie"].lower()
            assert "secure" in cookie
        finally:
            served.kill()


@pytest.mark.parametrize(
    "given",
    [
        ["--cert", "pp"], ["--cert", "pp", "--key", "pp"], ["--lan", "--cert", "pp", "--key", "pp"],
        ["--lan", "--cert", "none", "--key", "none"],
    ],
)  # fmt: skip
def test_a_certificate_that_cannot_be_used_is_told_before_anything_is_served(tmp_path: Path, given: list[str]) -> None:
    (tmp_path / "pp").write_text("no certificate")
    paths = [one if one.startswith("--") else str(tmp_path / one) for one in given]
    told = fardo("serve", "--db", str(tmp_path / "new.db"), *paths, code=2)
    assert "cert" in told.stderr
    assert not (tmp_path / "new.db").exists()


def test_without_a_passphrase_nothing_is_served_to_the_network(shop_file: Path) -> None:
    told = fardo("serve", "--lan", "--db", str(shop_file), "--port", str(free_port()), code=1)
    assert "has no passphrase: set one first by fardo passphrase" in told.stderr


@pytest.mark.parametrize("words", ["", "x" * 9, " " * 30, "x" * 201])
def test_a_passphrase_has_a_length(tmp_path: Path, demo_file: Path, words: str) -> None:
    shutil.copy(demo_file, tmp_path / "shop.db")
    database = Database(tmp_path / "shop.db")
    with pytest.raises(BadInput):
        Access(database).set_passphrase(words)
    assert not Access(database).has_passphrase
    assert not Access(database).knows(words)
    database.close()


def test_served_to_itself_alone_nobody_is_asked(client: TestClient) -> None:
    assert client.get("/api/jobs").status_code == 200
    told = client.get("/api/access").json()
    assert (told["on_network"], told["addresses"], told["has_passphrase"]) == (False, [], False)
    assert client.post("/api/access/code").status_code == 422
    assert client.post("/api/access/enter", json={}).json() == {"in": True}


def test_wrong_tries_of_many_addresses_keep_no_known_device_out(app: FastAPI, tablet: TestClient) -> None:
    assert enter(tablet, passphrase=WORDS).status_code == 200
    for n in range(100, 140):
        enter(device(app, f"192.168.1.{n}"), passphrase="wrong words again")
    assert enter(device(app, "192.168.1.200"), passphrase=WORDS).status_code == 429
    assert enter(device(app), passphrase=WORDS).status_code == 200
    # Its own wrong tries still make it wait.
    answers = [enter(device(app), passphrase="wrong words again").status_code for _ in range(7)]
    assert answers == [403] * 5 + [429] * 2


def test_a_code_lets_a_device_in_whoever_else_tried(app: FastAPI, own: TestClient) -> None:
    for n in range(100, 140):
        enter(device(app, f"192.168.1.{n}"), passphrase="wrong words again")
    code = own.post("/api/access/code").json()["address"].partition("#code=")[2]
    assert enter(device(app, "192.168.1.200"), code=code).status_code == 200


def test_thousands_of_wrong_tries_are_answered(clock: Clock) -> None:
    gate = Gate(LOCAL_HOSTS, clock)
    for _ in range(3000):
        gate.begin_try("192.168.1.20")
    assert gate.waits("192.168.1.20") == 300


def test_a_half_body_at_the_way_in_takes_no_place_of_a_signed_in_device(app: FastAPI) -> None:
    """A body of no stated length, or a large one, is refused before it is waited for."""
    with AppHere(app) as served:
        url = httpx.URL(served.url)
        for head in ("Transfer-Encoding: chunked", "Content-Length: 90000"):
            with socket.create_connection((url.host, url.port or 0), timeout=60) as line:
                line.sendall(f"POST /api/access/enter HTTP/1.1\r\nHost: {HERE}\r\n{head}\r\n\r\n".encode())
                assert line.recv(100).startswith(b"HTTP/1.1 413 ")


def test_a_stream_ends_with_its_session(app: FastAPI) -> None:
    with AppHere(app) as served, httpx.Client(base_url=served.url, timeout=None) as client:
        token = client.post("/api/access/enter", json={"passphrase": WORDS}, headers={"Host": HERE}).cookies[COOKIE]
        client.cookies.clear()
        (session,) = client.get("/api/access").json()["sessions"]
        as_device = {"Host": HERE, "Cookie": f"{COOKIE}={token}"}
        reading = {"device": "tape", "reading": "10 1/2 in"}
        with client.stream("GET", "/api/devices/stream", headers=as_device) as stream:
            heard = stream.iter_lines()
            assert "listening" in next(heard)
            client.post("/api/devices/readings", json=reading)
            assert any("10 1/2 in" in line for line in heard)
            assert client.delete(f"/api/access/sessions/{session['id']}").status_code == 200
            client.post("/api/devices/readings", json={**reading, "reading": "11 in"})
            assert not any("11 in" in line for line in heard)


def test_the_made_up_shop_has_no_passphrase_of_its_own(tmp_path: Path, app: FastAPI) -> None:
    """Access is the served shop's, whichever of the two the browser works on."""
    app.state.made_up = MadeUp(tmp_path / "own.db", lambda path: Database(path).close(), app.state.context.crews)
    own = device(app, "127.0.0.1", "http://127.0.0.1:8740")
    tablet = device(app)
    assert enter(tablet, passphrase=WORDS).status_code == 200
    for one in (own, tablet):
        assert one.post("/api/made-up").status_code == 200
    assert tablet.get("/api/access").json()["sessions"][0]["this_device"]
    assert own.put("/api/access/passphrase", json={"passphrase": "another four words here"}).status_code == 200
    assert tablet.get("/api/jobs").status_code == 401
    assert enter(tablet, passphrase=WORDS).status_code == 403
    assert enter(tablet, passphrase="another four words here").status_code == 200
    app.state.made_up.close()

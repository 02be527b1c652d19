"""The bench of a shop with very many jobs: its lists and searches, on a quiet machine and while a search runs."""

from __future__ import annotations

import json
import time
from collections.abc import Callable, Iterator
from datetime import date
from pathlib import Path
from random import Random

import httpx
from tests.made_up import job, part
from tests.served import Served

from benchmarks.table import times_row
from fardo.demo import open_demo
from fardo.store.database import Database
from fardo.store.jobs import Jobs

_IN_HAND = 10  # one of so many
_TIMES = 100
_TARGET = "95 % under 50 ms"
_NAMES = ("bobbin", "reed", "heddle", "shuttle", "treadle", "wheel", "saddle", "concertina", "paddle", "loom", "stool")
_WORDS = ("w", "wheel", "saddle 9", "s", "t", "trea")


def attack(folder: Path, number: int) -> Iterator[tuple[str, ...]]:
    """Rows of times."""
    shop = _filled(folder / "many.db", number)
    begun = time.monotonic()
    with Served(shop) as served, httpx.Client(base_url=served.url, timeout=120, trust_env=False) as client:
        yield "opening the shop", "1", f"{1000 * (time.monotonic() - begun):.0f}", "", "", ""
        while client.get("/api/jobs").json()["renewing"]:
            time.sleep(0.1)
        yield from _lists(client, "")
        ring = {"kind": "ring", "outer_diameter": "22 in", "inner_diameter": "18 in", "thickness": "2 in"}
        wheels = job(parts=[part(name=f"wheel {n}", shape=ring) for n in range(9)])
        run = client.post("/api/arrange", json={"job": wheels, "effort": "long"}).json()["run"]
        while client.get(f"/api/arrange/{run}").json()["done"] == 0:
            time.sleep(0.1)
        yield from _lists(client, ", a search running")
        client.post(f"/api/arrange/{run}/stop")
        while client.get("/api/cutting").json()["renewing"]:
            time.sleep(0.2)
        yield times_row("the cutting plan again", _timed(lambda _: client.get("/api/cutting"), 10), "")


def _lists(client: httpx.Client, how: str) -> Iterator[tuple[str, ...]]:
    cursor = client.get("/api/jobs").json()["cursor"]
    asked: dict[str, Callable[[int], httpx.Response]] = {
        "the bench": lambda _: client.get("/api/jobs"),
        "its second page": lambda _: client.get("/api/jobs", params={"cursor": cursor}),
        "archived jobs": lambda _: client.get("/api/jobs", params={"archived": True}),
        "a search": lambda n: client.get("/api/jobs", params={"words": _WORDS[n % 6]}),
        "a search of archived jobs": lambda n: client.get(
            "/api/jobs", params={"words": _WORDS[n % 6], "archived": True}
        ),
        "the line": lambda n: client.post("/api/line", json={"text": _WORDS[n % 6]}),
    }
    for name, ask in asked.items():
        yield times_row(f"{name}{how}", _timed(ask, _TIMES), _TARGET)


def _timed(ask: Callable[[int], httpx.Response], times: int) -> list[float]:
    found = []
    for n in range(times):
        begun = time.monotonic()
        answer = ask(n)
        found.append(time.monotonic() - begun)
        answer.raise_for_status()
    return found


def _filled(path: Path, number: int) -> Path:
    """The made-up shop with so many jobs like its own beside them, a tenth of them in hand."""
    open_demo(path, date(2026, 3, 2))
    database, draw = Database(path), Random(1)
    templates = [json.loads(line.content) for line in Jobs(database).page().jobs]
    with database.writing() as connection:
        (last,) = connection.execute("SELECT max(changed) FROM job").fetchone()
        for n in range(1, number + 1):
            content = {**templates[n % len(templates)], "title": f"{draw.choice(_NAMES)} {draw.choice(_NAMES)} {n}"}
            text, away = json.dumps(content), None if n % _IN_HAND == 0 else "2026-01-01"
            way = ((content.get("chosen") or {}).get("box") or {}).get("way", "")
            connection.execute(
                "INSERT INTO job (id, revision, title, day, destination, content, created_at, saved_at, archived_at,"
                " changed, box_way) VALUES (?, 1, ?, ?, ?, ?, '2026-01-01', '2026-01-01', ?, ?, ?)",
                (f"{n:012x}", content["title"], content.get("day"), content["ship"].get("to") or "", text, away,
                 last + n, way),
            )  # fmt: skip
            connection.execute("INSERT INTO job_revision VALUES (?, 1, ?, '2026-01-01')", (f"{n:012x}", text))
            connection.execute(
                "INSERT INTO job_search (rowid, words, place) VALUES (?, ?, ?)",
                (last + n, content["title"], "away" if away else "hand"),
            )
    database.close()
    return path

"""What is changed in a shop is told to every open page, once, and by whom."""

from __future__ import annotations

import asyncio
import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import httpx
import pytest

from fardo.api.listeners import Reading, _Page
from fardo.store.changes import Changed, changed_since, mark_of
from fardo.store.database import Database
from fardo.store.jobs import Jobs
from fardo.store.settings import Settings
from tests.made_up import job
from tests.served import ServedHere


@pytest.fixture
def shop(shop_file: Path) -> Iterator[str]:
    with ServedHere(shop_file) as served:
        yield served.url


class Page:
    """A page that listens."""

    def __init__(self, stream: httpx.Response) -> None:
        self._lines = stream.iter_lines()
        assert next(self._lines) == ": listening"

    def told(self) -> tuple[str, Any]:
        """What it is told next: the event and what it holds."""
        event = next(line for line in self._lines if line.startswith("event: ")).removeprefix("event: ")
        data = next(line for line in self._lines if line.startswith("data: ")).removeprefix("data: ")
        return event, json.loads(data)


def test_a_change_of_a_job_is_told_by_its_revision_and_its_name(shop: str) -> None:
    with httpx.stream("GET", f"{shop}/api/devices/stream") as stream:
        page = Page(stream)
        added = httpx.post(f"{shop}/api/jobs", json=job(title="one")).json()
        event, told = page.told()
        assert event == "changed"
        assert told["jobs"] == [{"id": added["id"], "revision": 1, "change": ""}]
        change = {"revision": 1, "job": job(title="two"), "change": "window-7"}
        httpx.put(f"{shop}/api/jobs/{added['id']}", json=change)
        _, told = page.told()
    assert told == {
        "jobs": [{"id": added["id"], "revision": 2, "change": "window-7"}],
        "settings": False, "at_the_bench": False, "whole": False,
    }  # fmt: skip


def test_settings_and_what_is_done_at_the_bench_are_told_apart(shop: str) -> None:
    key = httpx.get(f"{shop}/api/jobs").json()["jobs"][0]["id"]
    view = httpx.get(f"{shop}/api/shop").json()
    with httpx.stream("GET", f"{shop}/api/devices/stream") as stream:
        page = Page(stream)
        httpx.put(f"{shop}/api/shop", json={"revision": view["revision"], "shop": view["shop"]}).raise_for_status()
        _, told = page.told()
        assert (told["settings"], told["at_the_bench"], told["jobs"]) == (True, False, [])
        tick = {"id": "tick-0001", "step": "fetch", "done": True, "at": "2026-03-02T08:00:00Z"}
        httpx.post(f"{shop}/api/jobs/{key}/packing/ticks", json={"ticks": [tick]}).raise_for_status()
        _, told = page.told()
    assert (told["settings"], told["at_the_bench"], told["jobs"]) == (False, True, [])


def test_what_the_bench_only_works_out_is_no_change(shop: str) -> None:
    """A list that is renewed is kept in the file too; if that were told, two lists would renew each other for ever."""
    with httpx.stream("GET", f"{shop}/api/devices/stream") as stream:
        page = Page(stream)
        view = httpx.get(f"{shop}/api/shop").json()
        httpx.put(f"{shop}/api/shop", json={"revision": view["revision"], "shop": view["shop"]})
        assert page.told()[1]["settings"]
        rows = httpx.get(f"{shop}/api/jobs").json()
        while rows["renewing"]:
            rows = httpx.get(f"{shop}/api/jobs").json()
        added = httpx.post(f"{shop}/api/jobs", json=job()).json()
        assert [one["id"] for one in page.told()[1]["jobs"]] == [added["id"]]  # and nothing before it


def test_a_page_that_does_not_keep_up_misses_readings_and_no_change() -> None:
    async def heard() -> list[str]:
        page = _Page()
        page.wake()
        await asyncio.sleep(0)  # it is noted in the loop
        for n in range(50):
            page.take(Reading(device="tape", reading=f"{n + 1} in"))
        told = [await page.next() for _ in range(page.waiting.qsize())]
        return ["changed" if one is None else one.reading for one in told]

    told = asyncio.run(heard())
    assert told.count("changed") == 1
    assert told[-1] == "50 in"
    assert len(told) == 20


def test_many_changes_at_once_or_a_copy_put_in_place_mean_all_of_it(shop_file: Path) -> None:
    database = Database(shop_file)
    try:
        jobs, then = Jobs(database), mark_of(database)
        first = jobs.page().jobs[0]
        assert changed_since(database, then) == (then, Changed())
        assert not changed_since(database, then)[1]
        jobs.archive(first.id)
        _, one = changed_since(database, then)
        assert [(job.id, job.revision) for job in one.jobs] == [(first.id, first.revision)]
        for _ in range(201):
            jobs.restore(first.id)
        assert [job.id for job in changed_since(database, then)[1].jobs] == [first.id]
        for _ in range(200):
            jobs.add(first.read().job)
        _, many = changed_since(database, then)
        assert (many.whole, many.jobs) == (True, ())
        now = mark_of(database)
        with database.writing() as connection:
            connection.execute("UPDATE job SET changed = -1 WHERE changed = (SELECT max(changed) FROM job)")
        assert changed_since(database, now)[1].whole
        Settings(database).archive_tariff("Oddbarrow")
        assert changed_since(database, now)[1].settings
    finally:
        database.close()


def test_a_page_that_is_gone_is_told_nothing_more(shop_file: Path) -> None:
    database = Database(shop_file)
    try:
        heard: list[str] = []
        unwatch = database.watch(lambda: heard.append("changed"))
        first = Jobs(database).page().jobs[0]
        Jobs(database).archive(first.id)
        assert heard == ["changed"]
        unwatch()
        Jobs(database).restore(first.id)
        assert heard == ["changed"]
        with pytest.raises(ZeroDivisionError), database.writing():
            _ = 1 // 0
        assert heard == ["changed"]
    finally:
        database.close()

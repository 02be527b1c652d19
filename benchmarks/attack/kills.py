"""Processes killed: a server while it saves and buys labels; a command while it backs up, restores, migrates."""

from __future__ import annotations

import os
import shutil
import signal
import threading
from collections import Counter
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field
from functools import partial
from pathlib import Path
from random import Random
from typing import Any

import httpx
from tests.api.test_backups import old_shop
from tests.made_up import job
from tests.served import Served
from tests.simulated_carrier import fault, ground, served_carrier, wired

from fardo.demo import CARRIER
from fardo.files.job import JobFile
from fardo.standins.carrier import FAULTS
from fardo.store.backup import back_up, restore
from fardo.store.database import Database
from fardo.store.jobs import Jobs
from fardo.store.labels import Labels
from fardo.store.soundness import check_shop


@dataclass
class Kills:
    """What came of them."""

    kills: Counter[str] = field(default_factory=Counter)
    acknowledged: int = 0
    lost: int = 0
    bought: int = 0
    twice: int = 0
    unknown: int = 0
    faults: list[str] = field(default_factory=list)


def while_saving(shop: Path, kills: int, draw: Random, came: Kills) -> None:
    """Two windows save jobs of their own as quickly as they can; the server is killed in between."""
    with Served(shop) as served:
        keys = [httpx.post(f"{served.url}/api/jobs", json=job(title="0")).json()["id"] for _ in range(2)]
        done = dict.fromkeys(keys, 1)  # the revision acknowledged last
        for _ in range(kills):
            stop, saved = threading.Event(), threading.Event()
            with ThreadPoolExecutor(2) as windows:
                going = [windows.submit(_save, served.url, key, done, stop, saved) for key in keys]
                saved.wait(60)
                threading.Event().wait(draw.random() * 0.25)
                served.kill()
                stop.set()
                came.acknowledged += sum(one.result() for one in going)
            came.kills["saving over the network"] += 1
            check_shop(shop)
            database = Database(shop)
            for key in keys:
                found = Jobs(database).get(key).revision
                came.lost += max(0, done[key] - found)
                done[key] = found
            database.close()
            served.restart()


def _save(url: str, key: str, done: dict[str, int], stop: threading.Event, saved: threading.Event) -> int:
    count = 0
    with httpx.Client(trust_env=False) as client:
        while not stop.is_set():
            change = {"revision": done[key], "job": job(title=f"save {done[key]}")}
            try:
                answer = client.put(f"{url}/api/jobs/{key}", json=change)
            except httpx.TransportError:
                break
            done[key] = answer.json()["revision"]
            count += 1
            saved.set()
    return count


def of_the_store(folder: Path, kills: int, draw: Random, came: Kills) -> None:
    """Saves, backups, restores and migrations in a process without a server, killed at a random moment of its time."""
    whole, other, trial = folder / "whole.db", folder / "other.db", folder / "trial"
    database = Database(whole)
    for n in range(60):
        Jobs(database).add(JobFile.model_validate(job(title=f"job {n}")))
    database.close()
    Database(other).close()
    for n in range(kills):
        shutil.rmtree(trial, ignore_errors=True)
        trial.mkdir()
        target = trial / "target.db"
        what = ("saving", "backing up", "restoring", "migrating")[n % 4]
        try:
            if what == "saving":
                shutil.copy(other, target)
                _killed_while_saving(target, draw.random() * 0.2, came)
            elif what == "migrating":
                old_shop(target)
                _killed_while(partial(Database, target), draw.random() * 0.06)
            else:
                shutil.copy(other, target)
                work = back_up if what == "backing up" else restore
                _killed_while(partial(work, whole, target), draw.random() * 0.06)
            came.kills[what] += 1
            _must_be_sound(target, what, came)
        except Exception as fault:
            came.faults.append(f"{what}: {fault!r}")


def _must_be_sound(target: Path, what: str, came: Kills) -> None:
    """One shop or the other, whole, and nothing half written once it has been opened."""
    found = check_shop(target)
    allowed = {"saving": range(2), "migrating": range(1)}.get(what, (0, 60))
    if found.flaws or found.jobs not in allowed:
        came.faults.append(f"{what}: {found}")
    Database(target).close()
    if list(target.parent.glob("*.fardo-part*")):
        came.faults.append(f"{what}: something half written is left")


def _killed_while_saving(target: Path, seconds: float, came: Kills) -> None:
    """A process saves one job again and again, and says so by a byte each time, until it is killed."""
    read, write = os.pipe()

    def save() -> None:
        jobs = Jobs(Database(target))
        stored = jobs.add(JobFile.model_validate(job()))
        os.write(write, b".")
        while True:
            stored = jobs.change(stored.id, stored.revision, stored.job)
            os.write(write, b".")

    _killed_while(save, seconds)
    os.close(write)
    with os.fdopen(read, "rb") as told:
        acknowledged = len(told.read())
    came.acknowledged += acknowledged
    database = Database(target)
    lines = Jobs(database).page().jobs
    came.lost += max(0, acknowledged - (lines[0].revision if lines else 0))
    database.close()


def _killed_while(work: Callable[[], object], seconds: float) -> None:
    child = os.fork()
    if child == 0:
        try:
            work()
        finally:
            os._exit(0)
    threading.Event().wait(seconds)
    os.kill(child, signal.SIGKILL)
    os.waitpid(child, 0)


def while_buying(shop: Path, kills: int, draw: Random, came: Kills) -> None:
    """Labels bought from a carrier with every fault it can have, the server killed while it asks.

    When the carrier is itself again, each job must know of just the labels that the carrier has sold for it.
    """
    with served_carrier(slow_seconds=6) as carrier, Served(shop) as served:
        with httpx.Client(base_url=served.url, timeout=60) as client:
            wired(client, carrier.url).raise_for_status()
        keys: list[str] = []
        for _ in range(kills):
            fault(carrier.url, "")
            key = httpx.post(f"{served.url}/api/jobs", json=job()).json()["id"]
            keys.append(key)
            quotes = [_quote(served.url, key) for _ in range(2)]
            fault(carrier.url, draw.choice(list(FAULTS)))
            with ThreadPoolExecutor(2) as windows:
                going = [windows.submit(_buy, served.url, key, quote) for quote in quotes]
                threading.Event().wait(draw.random() * 0.4)
                served.kill()
                for one in going:
                    one.result()
            came.kills["buying"] += 1
            served.restart()
        fault(carrier.url, "")
        for key in keys:
            for _ in range(6):
                told = httpx.post(f"{served.url}/api/jobs/{key}/label/ask-again", timeout=60).json()["label"]
                if told is None or told["state"] in ("sold", "unsold"):
                    break
        page = httpx.get(carrier.url, trust_env=False).text
    database = Database(shop)
    labels = Labels(database)
    known = [label for key in keys if (label := labels.of_job(key)) is not None]
    came.unknown += sum(label.state == "asking" for label in known)
    sold = {str(label.tracking) for label in known if label.state == "sold"}
    came.bought += page.count("<li>")
    came.twice += page.count("<li>") - sum(tracking in page for tracking in sold)
    database.close()


def _quote(url: str, key: str) -> Any:
    (told,) = httpx.post(f"{url}/api/ask", json={"job": job(), "way": "tray", "id": key}, timeout=60).json()
    quote = ground(told)
    return {"carrier": CARRIER, "service": "Ground", "programme": "account", "quote": quote["quote"],
            "amount": quote["asks"], "currency": quote["currency"]}  # fmt: skip


def _buy(url: str, key: str, quote: Any) -> None:
    try:
        httpx.post(f"{url}/api/jobs/{key}/label", json=quote, timeout=60)
    except httpx.TransportError:
        return

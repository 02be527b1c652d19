"""Requests made up, by several at once, at a shop in a process of its own."""

from __future__ import annotations

import json
import sys
import threading
import time
from collections import Counter
from dataclasses import dataclass, field
from pathlib import Path
from random import Random

import httpx
from tests.fuzzing import Asked, Fuzz, fault_of
from tests.served import Served
from tests.simulated_carrier import wired

_CLIENTS = 3
_TOLD_EVERY = 5000


@dataclass
class Came:
    """What came of it. Args: seconds: of each answer."""

    asked: int = 0
    statuses: Counter[int] = field(default_factory=Counter)
    faults: Counter[str] = field(default_factory=Counter)
    resets: int = 0
    seconds: list[float] = field(default_factory=list)
    longest: float = 0.0
    slowest: str = ""


def attack(shop: Path, number: int, seed: int) -> Came:
    """So many requests at a shop's copy."""
    came, guard = Came(), threading.Lock()
    with Served(shop) as served:
        document = httpx.get(f"{served.url}/api/openapi.json", timeout=60).json()
        with httpx.Client(base_url=served.url, timeout=60) as client:
            wired(client, "http://127.0.0.1:9").raise_for_status()  # nobody answers there

        def ask(n: int) -> None:
            fuzz = Fuzz(document, Random(f"{seed} {n}"))
            with httpx.Client(base_url=served.url, timeout=120, trust_env=False) as client:
                for asked, _ in zip(fuzz.requests(), range(-(-number // _CLIENTS)), strict=False):
                    _one(client, fuzz, asked, came, guard)

        threads = [threading.Thread(target=ask, args=(n,)) for n in range(_CLIENTS)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        if httpx.get(f"{served.url}/api/jobs", timeout=60).status_code != 200:
            came.faults["the bench does not answer any more"] += 1
    return came


def _one(client: httpx.Client, fuzz: Fuzz, asked: Asked, came: Came, guard: threading.Lock) -> None:
    begun = time.monotonic()
    try:
        status, kind, content = _answer(client, asked)
    except httpx.TransportError as fault:
        with guard:
            came.resets += 1
            came.faults[f"{asked.method} {asked.url.partition('?')[0]}: {type(fault).__name__}"] += 1
        return
    took = time.monotonic() - begun
    try:
        answer = json.loads(content) if kind.startswith("application/json") else None
    except ValueError:
        answer = None
    fuzz.learn(asked, status, answer)
    with guard:
        came.asked += 1
        if came.asked % _TOLD_EVERY == 0:
            print(f"{came.asked} asked", dict(came.statuses), file=sys.stderr, flush=True)
        came.statuses[status] += 1
        if took > came.longest:
            came.longest = took
            came.slowest = f"{asked.method} {asked.url.partition('?')[0][:60]}"
        came.seconds.append(took)
        if fault := fault_of(asked, status, kind):
            came.faults[f"{asked.method} {asked.url.partition('?')[0][:80]}: {fault}"] += 1


def _answer(client: httpx.Client, asked: Asked) -> tuple[int, str, bytes]:
    with client.stream(asked.method, asked.url, content=asked.content, headers=asked.headers) as response:
        kind = response.headers.get("content-type", "")
        # A stream of events goes on as long as somebody listens.
        content = b"" if kind.startswith("text/event-stream") else response.read()
        return response.status_code, kind, content

"""Hostile files, each sent to a shop in a process of its own, and timed."""

from __future__ import annotations

import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import httpx
from tests.api.test_hostile_files import said, send
from tests.hostile import FILES
from tests.served import Served


def attack(shop: Path) -> Iterator[tuple[str, str, str]]:
    """Its name, how long the answer took, and what it was."""
    with Served(shop) as served, httpx.Client(base_url=served.url, timeout=120, trust_env=False) as client:
        answering: Any = client
        send(answering, "first.csv", b"name,length,width,height\nbobbin,1,2,3\n")  # begins the process that reads
        for name, make in FILES.items():
            content = make()
            begun = time.monotonic()
            answer = send(answering, name, content)
            took = time.monotonic() - begun
            yield name, f"{took:.2f}", f"{answer.status_code} {said(answer)[:70]}"

"""Large bodies sent at once: how much memory the server takes meanwhile."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import httpx
from tests.api.test_processes import descendants
from tests.served import Served


def attack(shop: Path, clients: int = 20, size: int = 24_000_000) -> Iterator[tuple[str, str]]:
    """What they were answered, and the most the server's process and those beside it took."""
    with Served(shop) as served:
        httpx.get(f"{served.url}/api/jobs", timeout=60)
        before, most, stop = _resident(served.pid), 0, threading.Event()

        def watch() -> None:
            nonlocal most
            while not stop.wait(0.01):
                most = max(most, _resident(served.pid))

        watching = threading.Thread(target=watch)
        watching.start()
        with ThreadPoolExecutor(clients) as senders:
            statuses = list(senders.map(lambda _: _send(served.url, size), range(clients)))
        stop.set()
        watching.join()
        yield "sent at once", f"{clients} of {size // 10**6} MB"
        yield "answered 200", str(statuses.count(200))
        yield "the server before, MB", f"{before / 1000:.0f}"
        yield "the server at most, MB", f"{most / 1000:.0f}"
        yield "processes beside it", str(len(descendants(served.pid)))


def _send(url: str, size: int) -> int:
    files = {"files": ("large.stl", b"solid x\n" + b" " * size)}
    return httpx.post(f"{url}/api/files", files=files, timeout=300).status_code


def _resident(pid: int) -> int:
    """In kB."""
    return int(Path(f"/proc/{pid}/status").read_text().partition("VmRSS:")[2].split()[0])

"""How heavy the first view is, and how soon a second `make demo` answers."""

from __future__ import annotations

import os
import re
import signal
import subprocess
import time
from pathlib import Path

import httpx
from tests.served import free_port

from benchmarks.table import percentile, show

_TREE = Path(__file__).resolve().parent.parent


def run(starts: int = 5) -> None:
    seconds = []
    weights: dict[str, int] = {}
    for _ in range(starts):
        port = free_port()
        begun = time.perf_counter()
        process = subprocess.Popen(
            ["make", "demo", f"PORT={port}"], cwd=_TREE, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True,
            start_new_session=True,
        )  # fmt: skip
        try:
            assert process.stdout is not None
            while "http://" not in process.stdout.readline():
                pass
            page = httpx.get(f"http://127.0.0.1:{port}/")
            httpx.get(f"http://127.0.0.1:{port}/api/jobs").raise_for_status()
            seconds.append(time.perf_counter() - begun)
            weights = weights or _weigh(f"http://127.0.0.1:{port}", page)
        finally:
            os.killpg(process.pid, signal.SIGTERM)
            process.wait()
    show(
        "Second make demo to an answering page, in s", ("starts", "median", "worst", "aim"),
        [(str(starts), f"{percentile(seconds, 50):.2f}", f"{max(seconds):.2f}", "under 5")],
    )  # fmt: skip
    rows = [(name, f"{size / 1000:.1f}", "") for name, size in weights.items()]
    rows.append(("page, script and style", f"{sum(weights.values()) / 1000:.1f}", "under 350"))
    show("First view as sent, compressed, in kB", ("file", "kB", "aim"), rows)


def _weigh(url: str, page: httpx.Response) -> dict[str, int]:
    """Bytes over the wire of the page and of every script and style it names."""
    sizes = {"/": _wire(page)}
    for name in re.findall(r'(?:src|href)="(/[^"]+\.(?:js|css))"', page.text):
        sizes[name] = _wire(httpx.get(url + name))
    return sizes


def _wire(answer: httpx.Response) -> int:
    return answer.num_bytes_downloaded

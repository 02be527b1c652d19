"""What the server answers while a search runs: strokes of one part, a list, a table of plans."""

from __future__ import annotations

import tempfile
import time
from collections.abc import Callable
from datetime import date
from pathlib import Path

import httpx
from tests.made_up import box, job, part
from tests.served import Served

from benchmarks.table import show, times_row
from fardo.demo import open_demo

_PAUSE_S = 0.1


def run() -> None:
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "demo.db"
        open_demo(path, date(2026, 3, 2))
        with Served(path) as server, httpx.Client(base_url=server.url, timeout=60) as client:
            while client.get("/api/jobs").json()["renewing"]:
                time.sleep(0.05)
            searched = next(one for one in client.get("/api/jobs").json()["jobs"] if one["title"].startswith("Treadle"))
            content = client.get(f"/api/jobs/{searched['id']}").json()["job"]

            def stroke(n: int) -> None:
                typed = job(parts=[part(shape=box(height=f"{8 + n % 23} {1 + n % 15}/16"))], value="640.00")
                client.post("/api/work-out", json={"job": typed, "in_hand": "slotted"}).raise_for_status()

            asked: dict[str, Callable[[int], object]] = {
                "a stroke of one part": stroke,
                "the bench": lambda _: client.get("/api/jobs").raise_for_status(),
                "the settings": lambda _: client.get("/api/shop").raise_for_status(),
            }
            seconds: dict[str, list[float]] = {name: [] for name in asked}
            for seed in range(2):
                begun = client.post("/api/arrange", json={"job": content, "effort": "normal", "seed": seed}).json()
                n = 0
                while client.get(f"/api/arrange/{begun['run']}").json()["state"] == "searching":
                    for name, ask in asked.items():
                        started = time.perf_counter()
                        ask(n)
                        seconds[name].append(time.perf_counter() - started)
                        n += 1
                    time.sleep(_PAUSE_S)
    rows = [times_row(name, taken, "95 % within 100 ms") for name, taken in seconds.items() if taken]
    show("While a search runs, in ms", ("what", "asked", "median", "95 %", "worst", "aim"), rows)


if __name__ == "__main__":
    run()

"""Runs every attack and prints what came of it."""

from __future__ import annotations

import argparse
import tempfile
import time
from collections.abc import Sequence
from datetime import date
from pathlib import Path
from random import Random

from benchmarks.attack import bodies, files, kills, many_jobs, processes, requests, work_outs
from benchmarks.table import show
from fardo.demo import open_demo


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--requests", type=int, default=3000)
    asked.add_argument("--kills", type=int, default=40)
    asked.add_argument("--jobs", type=int, default=5000)
    asked.add_argument("--work-outs", type=int, default=800)
    asked.add_argument("--seed", type=int, default=1)
    said = asked.parse_args()
    draw = Random(said.seed)
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        if said.requests:
            _requests(folder / "requests.db", said.requests, said.seed)
        if said.kills:
            _kills(folder, said.kills, draw)
        if said.jobs:
            columns = ("asked for", "times", "median, ms", "95 %, ms", "worst, ms", "aim")
            show(f"{said.jobs} jobs, a tenth in hand", columns, list(many_jobs.attack(folder, said.jobs)))
        if said.work_outs:
            rows = list(work_outs.attack(_demo(folder / "work.db"), said.work_outs))
            show("Memory left by work-outs", ("work-outs", "more MB"), rows)
        show("Hostile files", ("file", "seconds", "answer"), list(files.attack(_demo(folder / "files.db"))))
        show("Large bodies at once", ("figure", "value"), list(bodies.attack(_demo(folder / "bodies.db"))))
        show("Processes of a server", ("ended by", "processes", "gone after, s"), list(processes.attack(folder)))


def _requests(shop: Path, number: int, seed: int) -> None:
    begun = time.monotonic()
    came = requests.attack(_demo(shop), number, seed)
    seconds = sorted(came.seconds)
    _figures(
        f"Requests made up, seed {seed}",
        [
            ("asked", came.asked), ("in seconds", round(time.monotonic() - begun)),
            ("answered 5xx", sum(count for status, count in came.statuses.items() if status >= 500)),
            ("connections lost", came.resets), ("other faults", sum(came.faults.values()) - came.resets),
            ("median, ms", round(1000 * seconds[len(seconds) // 2], 1)),
            ("99 %, ms", round(1000 * seconds[int(len(seconds) * 0.99)])),
            ("slowest, s", f"{seconds[-1]:.1f}, {came.slowest}"),
            *((f"status {status}", count) for status, count in sorted(came.statuses.items())),
            *came.faults.most_common(20),
        ],
    )  # fmt: skip


def _kills(folder: Path, number: int, draw: Random) -> None:
    came = kills.Kills()
    served = number // 10  # these take seconds each, as a server is begun anew
    kills.while_saving(_demo(folder / "saving.db"), served, draw, came)
    kills.of_the_store(folder, number - 2 * served, draw, came)
    kills.while_buying(_demo(folder / "buying.db"), served, draw, came)
    _figures(
        "Kills",
        [
            *((f"kills while {what}", count) for what, count in came.kills.items()),
            ("saves acknowledged", came.acknowledged), ("acknowledged saves lost", came.lost),
            ("labels sold by the carrier", came.bought), ("labels sold that no job knows of", came.twice),
            ("purchases still unknown in the end", came.unknown), ("shops not sound", len(came.faults)),
            *(("fault", fault) for fault in came.faults[:10]),
        ],
    )  # fmt: skip


def _figures(title: str, figures: Sequence[tuple[object, object]]) -> None:
    show(title, ("figure", "value"), [(str(name), str(value)) for name, value in figures])


def _demo(path: Path) -> Path:
    open_demo(path, date(2026, 3, 2))
    return path


if __name__ == "__main__":
    main()

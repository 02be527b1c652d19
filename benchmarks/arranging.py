"""The arranging engine: what true shapes save, how long it takes, how full published container classes are packed.

The same engine is run twice on each kit, once on the things as they are, once on the boxes around them; same gaps, same
seed, same effort. Times are of this machine.
"""

from __future__ import annotations

import json
import math
import resource
import statistics
import time
from dataclasses import replace
from pathlib import Path

from benchmarks.containers import CLASSES, LITERATURE, container_ask
from benchmarks.kits import KITS, job_of
from benchmarks.table import show
from fardo.arranging import Progress, Workers
from fardo.core.arrange.ask import Arrangement, Ask
from fardo.core.arrange.compiled import warm as compiled_warm
from fardo.core.arrange.search import SearchState, improve
from fardo.core.plan.load import ask_of
from fardo.core.quantity import INCH, volume_nm3
from fardo.files.job import read_job
from fardo.files.shop import starting_shop
from fardo.files.understood import understand

_EXAMPLES = Path(__file__).resolve().parents[1] / "tests" / "examples"
_BOARD_INCHES = 3 / 8  # what walls and flaps add to a side, about
_DIVISOR = 139  # in3 a pound
_KINDS = (8, 15, 30)
_PROBLEMS_A_CLASS = 10


def run() -> None:
    with_pool = Workers()
    try:
        savings(with_pool)
        times(with_pool)
    finally:
        with_pool.close()
    containers()


def asks() -> dict[str, Ask]:
    """Every kit, and the example jobs."""
    jobs = {title: json.dumps(job_of(title, parts)) for title, parts in KITS.items()}
    jobs |= {path.name.removesuffix(".job.json"): path.read_text() for path in sorted(_EXAMPLES.glob("*.job.json"))}
    shop = starting_shop().to_core()
    return {title: ask_of(understand(read_job(job), shop).must_load()) for title, job in jobs.items()}


def boxed(ask: Ask) -> Ask:
    """The same, every thing a block as large as the box around it."""
    return replace(ask, bodies=tuple(replace(body, held="block") for body in ask.bodies))


def savings(workers: Workers) -> None:
    rows, rooms, weights = [], [], []
    for title, ask in asks().items():
        shaped, block = (smallest(workers.arrange(one)) for one in (ask, boxed(ask)))
        saved = 1 - volume_nm3(*shaped.inside) / volume_nm3(*block.inside)
        lighter = 1 - dimensional(shaped) / dimensional(block)
        rooms.append(saved)
        weights.append(lighter)
        rows.append((title, str(len(ask.bodies)), inches(block), inches(shaped), f"{saved:.1%}", f"{lighter:.1%}"))
    rows.append(("mean", "", "", "", f"{statistics.mean(rooms):.1%}", f"{statistics.mean(weights):.1%}"))
    show(
        "True shapes against the boxes around them, normal effort (aim 20 %, at least 15 %)",
        ("Kit", "Things", "As boxes, in", "As they are, in", "Room saved", "Dim. weight saved"), rows,
    )  # fmt: skip


def smallest(answers: tuple[Arrangement, ...]) -> Arrangement:
    return min(answers, key=lambda answer: answer.room_nm3)


def dimensional(answer: Arrangement) -> int:
    """Pounds, each side up to the inch."""
    sides = [math.ceil(side.nm / INCH.nm + _BOARD_INCHES) for side in answer.inside]
    return math.ceil(math.prod(sides) / _DIVISOR)


def inches(answer: Arrangement) -> str:
    return " x ".join(f"{side.nm / INCH.nm:.1f}" for side in sorted(answer.inside, reverse=True))


def times(workers: Workers) -> None:
    every = [body for ask in asks().values() for body in ask.bodies]
    rows = []
    for count in _KINDS:
        ask = Ask(tuple(every[(n * 7) % len(every)] for n in range(count)))
        first: list[float] = []
        started = time.perf_counter()

        def told(progress: Progress, since: float = started, into: list[float] = first) -> None:
            if progress.answers and not into:
                into.append(time.perf_counter() - since)

        workers.arrange(ask, "normal", told)
        ended = time.perf_counter() - started
        rows.append((str(count), f"{first[0]:.2f} s" if first else "-", f"{ended:.1f} s"))
    workers.close()  # what they came to is known once they are gone
    most = resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss / 1000
    show(
        "Time of a search at normal effort (aim: first under 1 s; 8 in 5 s, 30 in 20 s)",
        ("Things", "First arrangement", "End"), rows,
    )  # fmt: skip
    print(f"Largest worker: {most:.0f} MB, and there are two (aim: under 1000 MB in all).\n")


def containers() -> None:
    rows, longest = [], 0.0
    compiled_warm()
    for name, kinds in CLASSES.items():
        fills = []
        for problem in range(_PROBLEMS_A_CLASS):
            ask = container_ask(kinds, problem)
            started = time.perf_counter()
            found = improve(ask, SearchState(), 5).best
            longest = max(longest, time.perf_counter() - started)
            assert found is not None
            assert ask.inside is not None
            packed = sum(
                volume_nm3(*body.sizes) for body, laid in zip(ask.bodies, found.answer.laid, strict=True) if laid
            )
            fills.append(packed / volume_nm3(*ask.inside))
        first, best = LITERATURE[name]
        rows.append((name, str(kinds), f"{statistics.mean(fills):.1%}", f"{first:.1f} %", f"{best:.1f} %"))
    show(
        f"Container classes, mean fill of {_PROBLEMS_A_CLASS} problems each; all turns allowed",
        ("Class", "Kinds of box", "Fill here", "Bischoff & Ratcliff 1995*", "Parreno et al. 2010*"), rows,
    )  # fmt: skip
    print(f"Longest of all: {longest:.1f} s (aim 30 s). Mean aim 92 %.")
    print("* mean of 100 problems, values from memory; there boxes may stand only on some of their sides.\n")

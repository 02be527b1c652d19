"""A hundred made consignments of the made-up workshop: what the plan saves on the habit, how soon it is there, memory.

The habit is the next ready box for everything side by side, at the counter. The shop is the demo's: its boxes, board,
carriers and rates. Sizes are drawn anew from one seed, so that the table is the same on every machine but for times.
"""

from __future__ import annotations

import resource
import statistics
import time
from collections.abc import Iterator
from random import Random
from typing import Any

from benchmarks.demo_shop import demo_shop
from benchmarks.kits import Part, _bars, _box, _disc, _egg, _ring, _rod, _several, _taper
from benchmarks.table import percentile, show
from fardo.arranging import Progress, Whole, Workers
from fardo.core.plan.alternatives import habit
from fardo.core.plan.job import Job
from fardo.core.plan.picture import price_ways
from fardo.files.job import JobFile
from fardo.files.understood import understand

_COUNT = 100
_PLACES = ("73120", "21877", "31840", "84410")
_FRAGILITY = ("", "", "does-not-break", "rugged", "moderately-rugged", "delicate")


def _goods(random: Random) -> Part:
    """One thing of the workshop's, its sizes drawn."""
    by = random.uniform(0.7, 1.3)
    wheel = _several((_ring(18 * by, 15 * by, 1.5), (0, 0, 0.5)), (_rod(2, 2.5), (9 * by - 1, 9 * by - 1, 0)))
    choices: list[tuple[str, Part, float]] = [
        ("concertina in its case", _box(9.5 * by, 9.5 * by, 8 * by), 4.5),
        ("drive wheel", wheel, 4),
        ("flyer", _bars(0.5, [(0, 0, 0), (7 * by, 0, 0)], [(7 * by, -3, 0), (7 * by, 3, 0)]), 0.6),
        ("bobbin", _rod(3 * by, 5 * by), 0.3),
        ("treadle", _box(14 * by, 5 * by, 1), 1.5),
        ("bench of a wheel", _box(18 * by, 6 * by, 2), 5),
        ("leg", _taper(1.5, 1, 16 * by), 0.7),
        ("table loom, folded", _box(24 * by, 18 * by, 9 * by), 16),
        ("reed", _box(24 * by, 5, 0.5), 1.2),
        ("shuttle", _egg(12 * by, 2, 1.5), 0.4),
        ("paddle", _several((_rod(1.25, 60 * by), (3, 0.5, 0)), (_box(7, 1, 18), (0, 0.25, 60 * by - 18))), 2.4),
        ("stock saddle", _several((_egg(20 * by, 16 * by, 8), (0, 0, 8)), (_box(14 * by, 12, 10), (3, 2, 0))), 22),
        ("stirrup", _ring(6, 4.5, 2), 1),
        ("spindle", _several((_rod(0.4, 12 * by), (1.3, 1.3, 0)), (_disc(3, 0.5), (0, 0, 2))), 0.2),
        ("wool, baled", _box(16 * by, 12 * by, 8 * by), 3),
    ]  # fmt: skip
    name, shape, pounds = random.choice(choices)
    fragility = random.choice(_FRAGILITY)
    entry: dict[str, Any] = {
        "name": name, "count": random.choice((1, 1, 1, 2, 3, 4)) if pounds < 2 else 1, "shape": shape,
        "weight": f"{pounds * by:.2f} lb", "gap": random.choice(("1/2 in", "1 in", "2 in")),
        "protect": random.choice(([], [{"material": "bubble-small"}], [{"material": "tissue"}])),
    }  # fmt: skip
    return entry | ({"fragility": fragility} if fragility else {})


def consignments(count: int = _COUNT, seed: int = 18) -> Iterator[JobFile]:
    """Made ones: one to six rows of goods, to a home or a shop, some with a declared value."""
    random = Random(seed)
    for n in range(count):
        parts = [_goods(random) for _ in range(random.choice((1, 1, 1, 2, 2, 3, 4, 6)))]
        for k, part in enumerate(parts):
            part["name"] = f"{part['name']} {k + 1}"
        value = random.choice((None, None, "80.00", "350.00", "900.00"))
        yield JobFile.model_validate(
            {"title": f"made consignment {n + 1}", "parts": parts, "value": value,
             "ship": {"to": random.choice(_PLACES), "residential": random.random() < 0.7}}
        )  # fmt: skip


def run(count: int = _COUNT) -> None:
    shop, carriers, postcode = demo_shop()
    workers = Workers()
    workers.warm()
    shares, firsts, ends, of_eight, unsent, worse = [], [], [], [], 0, 0
    for job_file in consignments(count):
        started = time.perf_counter()
        job: Job = understand(job_file, shop, postcode)
        plan = price_ways(job, shop, carriers).cheapest
        firsts.append(time.perf_counter() - started)
        usual = habit(job, shop, carriers)
        things = len(job.must_load().units)
        total = plan.costs.total if plan is not None else None
        if things > 1:
            found = workers.cheapest(Whole(job, shop, carriers), "normal", _quiet)
            total = found[0].total if found and found[0].total is not None else total
        ends.append(time.perf_counter() - started)
        if things == 8:
            of_eight.append(ends[-1])
        if total is None or usual is None:
            unsent += 1
            continue
        worse += total > usual.plan.costs.total
        shares.append(1 - total.minor / usual.plan.costs.total.minor)
    workers.close()
    own, theirs = (resource.getrusage(who).ru_maxrss / 1024 for who in (resource.RUSAGE_SELF, resource.RUSAGE_CHILDREN))
    eight = f"{statistics.mean(of_eight):.1f} s" if of_eight else "-"
    show(
        f"{count} made consignments, the plan against the habit",
        ("figure", "found", "aim"),
        [
            ("mean saving in all", f"{statistics.mean(shares):.1%}", "35 %"),
            ("median, best tenth", f"{percentile(shares, 50):.1%}, {percentile(shares, 90):.1%}", ""),
            ("plan dearer than the habit", str(worse), "0"),
            ("no plan, or no habit to compare with", str(unsent), ""),
            ("first plan, median and 95 %", f"{percentile(firsts, 50):.2f} s, {percentile(firsts, 95):.2f} s", "1 s"),
            ("end, median and 95 %", f"{percentile(ends, 50):.1f} s, {percentile(ends, 95):.1f} s", ""),
            ("end, of those of 8 things", eight, "5 s"),
            ("most memory, server and a worker", f"{own:.0f} MB, {theirs:.0f} MB", ""),
        ],
    )


def _quiet(_: Progress) -> None:
    pass


if __name__ == "__main__":
    run()

"""Every job of the demo, the examples of the tests and every kind of goods: the plan against everything side by side,
and what an independent check says of it.

The check measures the arrangement anew with the goods' own meshes, adds the costs up, and prices each parcel by
`fardo price`.
"""

from __future__ import annotations

import sys
import time
from collections.abc import Iterator
from pathlib import Path
from typing import cast

from tests.plans_checked import faults_of

from benchmarks.all_kinds import begun
from benchmarks.demo_shop import demo_shop
from benchmarks.table import show
from fardo.arranging import Effort, Whole, Workers
from fardo.core.plan.alternatives import alternatives
from fardo.core.plan.job import Job
from fardo.core.plan.load import not_in_one
from fardo.core.plan.parcels import plans_in_parcels
from fardo.core.plan.picture import best_plans, price_ways
from fardo.core.quantity import Money
from fardo.core.refusal import Refusal
from fardo.files.job import JobFile, read_job
from fardo.files.kind import shipped_kinds
from fardo.files.shop import starting_shop
from fardo.files.understood import understand

_HERE = Path(__file__).resolve().parent.parent


def jobs() -> Iterator[tuple[str, JobFile]]:
    for folder in (_HERE / "tests" / "examples", _HERE / "src" / "fardo" / "demo" / "jobs"):
        for path in sorted(folder.glob("*.job.json")):
            yield path.name.removesuffix(".job.json"), read_job(path.read_bytes())
    for kind in shipped_kinds():
        yield kind.code, begun(kind, starting_shop())


def run(effort: str = "normal") -> None:
    shop, carriers, postcode = demo_shop()
    workers = Workers()
    workers.warm()
    rows, wrong = [], 0
    for name, job_file in jobs():
        started = time.perf_counter()
        job: Job = understand(job_file, shop, postcode)
        try:
            load = job.must_load()
            beside = price_ways(job, shop, carriers).cheapest
            found = []
            if len(load.units) + len(load.extras) > 1 and not not_in_one(load):
                found = [one.answer for one in workers.cheapest(Whole(job, shop, carriers), cast(Effort, effort))[:4]]
            plans = best_plans(job, found, shop, carriers, plans_in_parcels(job, shop, carriers))
        except Refusal as reason:
            rows.append((name, "", "", "", str(reason)[:60]))
            continue
        said = [fault for one in alternatives(plans, shop, job.value) for fault in faults_of(one.plan, job)]
        was: Money | None = beside.costs.total if beside is not None else None
        if was is not None and plans[0].costs.total > was and not plans[0].favour:
            said.append(f"dearer than side by side, {was}")
        wrong += len(said)
        took = f"{time.perf_counter() - started:.1f} s"
        rows.append((name, str(was or "–"), f"{plans[0].costs.total}, {plans[0].label}", took, "; ".join(said)))
    workers.close()
    show(f"Plans looked over from outside, {effort} effort: {wrong} faults in {len(rows)} jobs",
         ("job", "side by side", "plan", "took", "faults"), rows)  # fmt: skip
    if wrong:
        sys.exit(1)


if __name__ == "__main__":
    run(*sys.argv[1:])

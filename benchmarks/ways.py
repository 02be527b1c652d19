"""Every way to get a box for one inside size, from a stash of two hundred: worked out, boxed up and weighed."""

from __future__ import annotations

import contextlib
import random
import time
from dataclasses import replace

from tests.made_up import load, shop

from benchmarks.table import show, times_row
from fardo.core.make import WAYS, Stock
from fardo.core.make.stock import StockBox
from fardo.core.plan.boxed import box_up
from fardo.core.quantity import INCH, Money
from fardo.core.refusal import NoAnswer

_BOXES = 200
_ROUNDS = 30


def stash() -> tuple[StockBox, ...]:
    draw = random.Random(7)
    grade = shop().grade("C")
    found = []
    for n in range(_BOXES):
        sides = sorted((INCH * draw.randint(8, 40) for _ in range(2)), reverse=True)
        inside = (sides[0], sides[1], INCH * draw.randint(6, 30))
        found.append(StockBox(f"box {n}", inside, grade, Money(draw.randint(0, 400), "USD"), 4, n % 2 == 0))
    return tuple(found)


def run() -> None:
    stocked = replace(shop(), stock=Stock(stash(), shop().stock.pouches))
    goods = load("25 x 14 x 9 3/4")
    by_way: dict[str, list[float]] = {way: [] for way in WAYS}
    whole = []
    for _ in range(_ROUNDS):
        begun = time.perf_counter()
        for way in WAYS:
            since = time.perf_counter()
            with contextlib.suppress(NoAnswer):
                box_up(goods, way, stocked.grade(None), stocked)
            by_way[way].append(time.perf_counter() - since)
        whole.append(time.perf_counter() - begun)
    rows = [times_row(way, seconds, "") for way, seconds in by_way.items()]
    rows.append(times_row("all ways", whole, "under 200"))
    show(f"One load in every way, {_BOXES} boxes there, ms", ("way", "rounds", "median", "95 %", "worst", "aim"), rows)

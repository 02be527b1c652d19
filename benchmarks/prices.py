"""One parcel against all services, a map of price over two sides, the cheaper steps, and a day of parcels."""

from __future__ import annotations

import random
import time
from collections.abc import Callable

from tests.made_up import services, shop

from benchmarks.table import show, times_row
from fardo.core.quantity import INCH, Length, read_mass
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.service import compare
from fardo.core.tariff.step_map import price_map
from fardo.core.tariff.steps import cheaper_points

_CELLS, _DAY = 200, 300


def _timed(times: int, what: Callable[[], object]) -> list[float]:
    seconds = []
    for _ in range(times):
        begun = time.perf_counter()
        what()
        seconds.append(time.perf_counter() - begun)
    return seconds


def run() -> None:
    asked, into = services(), shop().exchange
    draw = random.Random(3)

    def parcel() -> Parcel:
        a, b, c = (Length(INCH.nm * draw.randint(16, 320) // 8) for _ in range(3))
        return Parcel((a, b, c), read_mass(f"{draw.randint(8, 900)} oz"), "10440", "73120", draw.random() < 0.5)

    day = [parcel() for _ in range(_DAY)]
    quarter = INCH.nm // 4
    sides = [Length(quarter * (20 + n)) for n in range(_CELLS)]
    one = day[0]
    rows = [
        times_row("one parcel, all services", _timed(60, lambda: compare(asked, one, exchange=into)), "under 5"),
        times_row(f"a day of {_DAY} parcels", _timed(3, lambda: [compare(asked, p, exchange=into) for p in day]),
                  "under 2000"),
    ]  # fmt: skip
    for service in asked:
        name = f"map {_CELLS} x {_CELLS}, {service.carrier} {service.name}"
        rows.append(times_row(name, _timed(3, lambda s=service: price_map(s, one, sides, sides)), "under 150"))
    rows.append(
        times_row("cheaper steps, all services", _timed(5, lambda: [cheaper_points(s, one) for s in asked]), "")
    )
    show("Prices, ms", ("what", "rounds", "median", "95 %", "worst", "aim"), rows)

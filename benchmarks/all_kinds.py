"""Every kind of goods as it comes: inside size, air, what is proposed first, its price and what stands in amber.

``python -m benchmarks.all_kinds`` prints the table; with ``--counts`` also for 3, 6 and 12 of each.
"""

from __future__ import annotations

import sys

from fardo.core.make import WAYS
from fardo.core.plan.picture import Picture, draw_up
from fardo.core.quantity import show_sizes
from fardo.core.tariff.carriers import Carriers
from fardo.demo import TARIFFS
from fardo.files.job import JobFile, Ship
from fardo.files.kind import KindFile, shipped_kinds, start_job
from fardo.files.shop import ShopFile, starting_shop
from fardo.files.tariff import read_tariffs, services_of
from fardo.files.understood import understand

COUNTS = (1, 3, 6, 12)


def begun(kind: KindFile, shop: ShopFile, count: int | None = None) -> JobFile:
    """A job of that kind, its measures taken for the goods'."""
    job = start_job(kind, kind.title, shop)
    first = job.parts[0].model_copy(update={"count": job.parts[0].count if count is None else count})
    parts = [first, *job.parts[1:]]
    answers = dict.fromkeys(job.questions, "none")
    return job.model_copy(update={"parts": parts, "ship": Ship(to="73120", residential=True), "answers": answers})


def picture_of(job: JobFile, shop: ShopFile, carriers: Carriers) -> Picture:
    core = shop.to_core()
    return draw_up(understand(job, core, "10440"), core, carriers)


def row(kind: KindFile, picture: Picture) -> str:
    way, units = picture.current, picture.shop.units
    if way is None:
        reason = picture.job.beyond or ", ".join(picture.job.missing) or str(picture.problems[:1])
        return f"{kind.code:20} nothing: {reason}"
    boxed = way.boxed
    inside = show_sizes(boxed.made.inside, units, "up").text
    price = str(way.cheapest) if way.cheapest else "–"
    what = boxed.made.item or boxed.made.grade.code
    amber = "; ".join(part.caution for part in picture.parts if part.caution) + (boxed.too_large or "")
    return (
        f"{kind.code:20} {inside:30} {float(boxed.air) * 100:3.0f} %  {WAYS[way.way].TITLE + ', ' + what:62} "
        f"{price:>8}  {amber}"
    )


def main() -> None:
    shop = starting_shop()
    carriers = Carriers(tuple(services_of(read_tariffs(TARIFFS))))
    for kind in shipped_kinds():
        for count in COUNTS if "--counts" in sys.argv else (None,):
            picture = picture_of(begun(kind, shop, count), shop, carriers)
            print(f"{count or ' ':2} {row(kind, picture)}")


if __name__ == "__main__":
    main()

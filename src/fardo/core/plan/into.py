"""Into which of the boxes there the goods may be arranged, and of the others which side is short and by how much."""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.make.stock import SIDES, StockBox, Taken
from fardo.core.plan.job import Job
from fardo.core.plan.needed import contents_of, inside_of
from fardo.core.plan.shop import Shop
from fardo.core.quantity import Length


@dataclass(frozen=True, slots=True)
class BoxToPackIn:
    """A box in stock, and whether it takes the goods.

    Args:
        short: by how much its side is too small for the goods as they lie now; nothing, or less, where they go in.
    """

    box: StockBox
    short: Length
    side: str

    @property
    def takes_it(self) -> bool:
        return self.short.nm <= 0


def boxes_to_pack_in(job: Job, shop: Shop) -> list[BoxToPackIn]:
    """Every sound box there, those that take the goods as they lie now first, then those that lack least; of equal ones
    the smaller.

    Raises: as `Job.must_load` does.
    """
    load = job.must_load()
    grade = shop.grades.get(job.board or shop.default_grade, shop.grade(None))
    needed = inside_of(load, grade, shop)[0].inside
    contents = contents_of(load, needed)
    found = []
    for box in job.shop_for(shop).stock.boxes:
        if box.count and box.left and box.hollow is None:
            short, axis = contents.shortest_by(box.inside)
            found.append(BoxToPackIn(box, short, SIDES[axis]))
    return sorted(found, key=lambda one: (max(one.short.nm, 0), Taken(one.box).weight.ng, one.box.name))

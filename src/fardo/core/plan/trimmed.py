"""A trim tried for real: all of it is arranged again in a box that is so much smaller, or in another size that costs
less; offered only if it holds and does.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from fardo.core.arrange.search import pack_into
from fardo.core.goods.part import Sizes
from fardo.core.make import WAYS
from fardo.core.plan.aims import aims_below
from fardo.core.plan.job import Job
from fardo.core.plan.load import arrange, ask_of, liner_thickness
from fardo.core.plan.picture import Picture
from fardo.core.plan.savings import may_be_tried
from fardo.core.plan.shop import Shop
from fardo.core.plan.weighed import Weighed, weigh
from fardo.core.quantity import Length, Money
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.carriers import Carriers
from fardo.core.tariff.steps import SIDES, Cheaper

_ROUNDS, _SIZES = 8, 10  # starting values


@dataclass(frozen=True, slots=True)
class Trimmed:
    """An arrangement that is smaller by a trim.

    Args:
        saves: in all, against the job as it was.
        total: in all, then.
    """

    weighed: Weighed
    saves: Money
    total: Money


def trimmed(job: Job, picture: Picture, shop: Shop, carriers: Carriers, rounds: int = _ROUNDS) -> Trimmed:
    """The job arranged so that it costs less: with the trim off its side, else in the first other size that does.

    Args:
        picture: of the job, with its plan and the trim that would save most.

    Raises: NoAnswer, in a sentence, where no trim is known, or nothing that was tried holds and costs less.
    """
    trim, plan = picture.trim, picture.plan
    if trim is None or plan is None or not _may_lie_otherwise(picture):
        raise NoAnswer("No side of this box is worth trimming, or one thing alone is in it.")
    load = job.must_load()
    liner, now = liner_thickness(load) * 2, arrange(load)
    sizes = [_less(inside, (0, 1, 2), liner)
             for inside in _trimmed_insides(plan.boxed.made.inside, plan.boxed.made.outside, trim)]  # fmt: skip
    sizes += [aim.inside for aim in aims_below(job, now, now.room_nm3, shop, carriers)[:_SIZES]]
    for inside in sizes:
        answer = pack_into(replace(ask_of(load), inside=inside), rounds)
        found = weigh(job, answer, shop, carriers) if answer is not None else None
        if found is None or found[0].total is None:
            continue
        if found[0].total < plan.costs.total:
            return Trimmed(found[0], plan.costs.total - found[0].total, found[0].total)
    raise NoAnswer("It was tried: everything in it does not lie so that it costs less.")


def _may_lie_otherwise(picture: Picture) -> bool:
    """Whether a side of a box that is cut is worth trimming, and there are several things in it to lie otherwise."""
    trim, plan, load = picture.trim, picture.plan, picture.job.load
    if not may_be_tried(picture):
        return False
    if trim is None or plan is None or load is None or not isinstance(trim.by, Length):
        return False
    several = len(load.units) + sum(not extra.lies_flat for extra in load.extras) > 1
    return several and WAYS[plan.boxed.made.way].NEEDS == "sheet"


def _trimmed_insides(inside: Sizes, outside: Sizes, trim: Cheaper) -> list[Sizes]:
    """The inside with the trim off; equal sides are tried one after the other."""
    by_length = sorted(range(3), key=lambda axis: -outside[axis].nm)
    assert isinstance(trim.by, Length)
    if trim.what == "girth":
        off = Length(-(-trim.by.nm // 4))
        return [_less(inside, (by_length[1], by_length[2]), off)]
    if trim.what not in SIDES:
        return []
    wanted = outside[by_length[SIDES.index(trim.what)]]
    return [_less(inside, (axis,), trim.by) for axis in range(3) if outside[axis] == wanted]


def _less(inside: Sizes, axes: tuple[int, ...], by: Length) -> Sizes:
    a, b, c = (Length(max(side.nm - by.nm, 1)) if axis in axes else side for axis, side in enumerate(inside))
    return a, b, c

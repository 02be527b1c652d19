"""Which of the changes that were worked out are told: those that hold, and save enough to be worth the change."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Generic, TypeVar

from fardo.core.plan.picture import Picture
from fardo.core.plan.wrapped import Wrapped
from fardo.core.quantity import Money

T = TypeVar("T")

_TOLD = 4  # changes at most
_WORTH_IT = 100  # parts of the sum, of which a change saves one at least: starting value


@dataclass(frozen=True, slots=True)
class Saving(Generic[T]):
    """A change that makes a job cheaper.

    Args:
        change: what is changed.
        saves: in all.
        total: in all, then.
    """

    change: T
    saves: Money
    total: Money


def may_be_tried(picture: Picture) -> bool:
    """Whether something else may be tried for it: a box that somebody chose stays as it is, and so does its price."""
    return picture.plan is not None and picture.job.box is None and picture.job.price is None


def may_lose_a_layer(units: Sequence[Wrapped], layers: int) -> bool:
    """Whether a layer less may be tried: only where a check says if what is left is enough, and never the last, which
    keeps scratches off too.

    Args:
        units: of one part.
        layers: of the one material.
    """
    return bool(units) and units[0].part.fragility is not None and not units[0].part.proven and layers > 1


def that_hold(now: Picture, tried: Iterable[tuple[T, Picture]]) -> list[Saving[T]]:
    """Those that hold as well as it does now and cost less.

    Args:
        tried: each change with the job as it is drawn up then.
    """
    return [
        Saving(change, saves, then.plan.costs.total)
        for change, then in tried
        if now.plan is not None and then.plan is not None and holds_as_well(then, now)
        and (saves := now.plan.more_than(then.plan)) is not None
    ]  # fmt: skip


def worth_telling(now: Picture, savings: Iterable[Saving[T]]) -> list[Saving[T]]:
    """Those that save enough of the sum, what saves most first, a few at most."""
    if now.plan is None:
        return []
    least = now.plan.costs.total.minor
    enough = [one for one in savings if one.saves.minor * _WORTH_IT >= least]
    return sorted(enough, key=lambda one: one.saves, reverse=True)[:_TOLD]


def holds_as_well(picture: Picture, before: Picture) -> bool:
    """Whether a changed job goes as it is now, and no check says of it what it did not say before."""
    now, was = picture.plan, before.plan
    if now is None or was is None or picture.job.problems:
        return False
    # By their words: what was short before is shorter now where they differ.
    if {part.caution for part in picture.parts} - {"", *(part.caution for part in before.parts)}:
        return False
    return now.overloaded <= was.overloaded and now.at_risk <= was.at_risk

"""A step at the bench, in words, its measures kept as measures until they are shown."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Literal

from fardo.core.goods.part import Sizes
from fardo.core.quantity import Length

Stage = Literal["make", "pack", "close", "closed"]  # before the goods, as they go in, to close it, once it is closed


@dataclass(frozen=True, slots=True)
class Step:
    """A packing step at the bench, in words.

    Args:
        do: in words, with {} where a measure belongs.
        measures: in that order.
        knife: whether a blade is in hand, so that its cautions stand beside it.
        before_cutting: whether it is done, or heeded, before anything is cut.
        stage: when it is done; None goes on from the step before it, and what follows the goods' going in closes.
        tapes: whether tape goes on with it.
    """

    do: str
    measures: tuple[Length | Sizes, ...] = ()
    knife: bool = False
    before_cutting: bool = False
    stage: Stage | None = None
    tapes: bool = False

    def told(self, show: Callable[[Length], str]) -> str:
        """The step in words, its measures put in.

        >>> Step("Score at {}.", (Length.of_mm(50),)).told(lambda length: f"{length.mm:g} mm")
        'Score at 50 mm.'
        """
        return told(self.do, self.measures, show)


def told(do: str, measures: Sequence[Length | Sizes], show: Callable[[Length], str]) -> str:
    """Words with measures put in where {} stands; other braces, as in somebody's name for a thing, stay as they are.

    >>> told("Put in {a} reed: {} deep.", (Length.of_mm(50),), lambda length: f"{length.mm:g} mm")
    'Put in {a} reed: 50 mm deep.'
    """
    before, *after = do.split("{}")
    said = [_said(measure, show) for measure in measures]
    said += ["{}"] * (len(after) - len(said))
    return before + "".join(one + words for one, words in zip(said, after, strict=False))


def by_stage(steps: Sequence[Step]) -> dict[Stage, tuple[Step, ...]]:
    """The steps of each stage, in their order."""
    found: dict[Stage, list[Step]] = {"make": [], "pack": [], "close": [], "closed": []}
    at: Stage = "make"
    for step in steps:
        at = step.stage or ("close" if at == "pack" else at)
        found[at].append(step)
    return {stage: tuple(of) for stage, of in found.items()}


def before_cutting(steps: Sequence[Step]) -> int:
    """How many of them come before anything is cut; they are the first."""
    return sum(step.before_cutting for step in steps)


def _said(measure: Length | Sizes, show: Callable[[Length], str]) -> str:
    """A measure, or three of them with their unit once."""
    if isinstance(measure, Length):
        return show(measure)
    sides = [show(side).rpartition(" ") for side in measure]
    return f"{' x '.join(number for number, _, _ in sides)} {sides[-1][2]}"

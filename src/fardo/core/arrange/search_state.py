"""What a search has come to: the best answer of each proportion, and how it was built."""

from __future__ import annotations

from dataclasses import dataclass, replace

from fardo.core.arrange.ask import PROPORTIONS, Arrangement, Proportion
from fardo.core.arrange.cost import TOLERANCE


@dataclass(frozen=True, slots=True)
class Found:
    """An answer, what it costs (the less the better), and the order in which it was built.

    Args:
        tied: the answer as it was searched for, with every bundle as one thing; None where nothing is bundled.
    """

    cost: float
    answer: Arrangement
    built_in: tuple[int, ...]
    tied: Arrangement | None = None


@dataclass(frozen=True, slots=True)
class SearchState:
    """How far a search is.

    Args:
        chain: which of several searches of one ask.
        done: rounds.
        found: the best, and the best of each proportion.
        costs: of what was built lately.
    """

    chain: int = 0
    done: int = 0
    found: tuple[Found, ...] = ()
    costs: tuple[float, ...] = ()

    @property
    def best(self) -> Found | None:
        return min(self.found, key=lambda found: found.cost, default=None)

    @property
    def goes_in(self) -> bool:
        """Whether all of it is in the box that was asked about."""
        return self.best is not None and self.best.cost <= TOLERANCE

    def of(self, proportion: Proportion) -> Found | None:
        return next((found for found in self.found if found.answer.proportion == proportion), None)

    def kept(self, new: Found) -> SearchState:
        """With a new answer where it is the best of its proportion; of equals the older stays."""
        same = self.of(new.answer.proportion)
        if same is not None and same.cost <= new.cost + TOLERANCE:
            return self
        others = [found for found in self.found if found is not same]
        found = sorted([*others, new], key=lambda f: (f.cost, PROPORTIONS.index(f.answer.proportion)))
        return replace(self, found=tuple(found))

"""In what order a sheet is cut, so that the fence is set least often: each cut after the one that frees its rest."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from fardo.core.quantity import Length

_STATES_OF_QUICK = 20  # a quick order of n cuts takes as long as n x n / 20 states
_FEW = 8  # so many cuts have so few states that they are always looked at
_MOST_STATES = 4000  # of the search for the order of one sheet's cuts with fewest fence changes


@dataclass(frozen=True, slots=True)
class Rect:
    """On a sheet: its lower left corner and its sides."""

    x: Length
    y: Length
    length: Length
    width: Length

    @property
    def area_nm2(self) -> int:
        return self.length.nm * self.width.nm


@dataclass(frozen=True, slots=True)
class Cut:
    """A cut through a rest of the sheet.

    Args:
        rest: what is parted.
        across: whether the cut runs across its length; else along it.
        fence: how far from the rest's left or lower edge.
        after: the cut that frees this rest, by its number, None for the whole sheet.
    """

    rest: Rect
    across: bool
    fence: Length
    after: int | None


def order_cuts(cuts: Sequence[Cut]) -> tuple[Cut, ...]:
    """The same cuts in the order that sets the fence least often, each after the one that frees its rest.

    Exact for a few dozen cuts. `after` is renumbered.
    """
    return CutSearch(_MOST_STATES).order(cuts)


class CutSearch:
    """Looks for orders of cuts that set the fence least often, as long as it has states to spend.

    Breadth first over what has been cut: at a setting all that can be cut at it is cut, which never does harm. Where
    the states of a sheet run out it goes on by the setting that does most at once; where those in all do, the cuts of a
    sheet that has many stay in the order they were made.
    """

    def __init__(self, states: int) -> None:
        self._left = states

    def order(self, cuts: Sequence[Cut]) -> tuple[Cut, ...]:
        few = len(cuts) <= _FEW
        if self._left <= 0 and not few:
            return tuple(cuts)  # as they were made, which frees every rest before it is cut
        self._left -= len(cuts) ** 2 // _STATES_OF_QUICK
        quick, settings, _ = _ordered(cuts, 0)
        if settings > len({cut.fence for cut in cuts}) and (self._left > 0 or few):
            thorough, fewer, looked_at = _ordered(cuts, _MOST_STATES if few else min(_MOST_STATES, self._left))
            self._left -= looked_at
            if fewer < settings:
                quick = thorough
        number = {old: new for new, old in enumerate(quick)}
        return tuple(replace(cuts[n], after=None if (after := cuts[n].after) is None else number[after]) for n in quick)


def _ordered(cuts: Sequence[Cut], states: int) -> tuple[list[int], int, int]:
    """The cuts' numbers in order, how often the fence is set, and how many states were looked at.

    Args:
        states: that are looked at before only the setting that does most is followed.
    """
    start: frozenset[int] = frozenset()
    seen: dict[frozenset[int], tuple[frozenset[int], list[int]] | None] = {start: None}
    edge = [start]
    whole = frozenset(range(len(cuts)))
    while whole not in seen:
        edge = [after for state in edge for after in _settings(cuts, state, seen)]
        if len(seen) > states:
            edge = [max(edge, key=len)]
    order: list[int] = []
    state, settings = whole, 0
    while (came := seen[state]) is not None:
        state, done = came
        order = done + order
        settings += 1
    return order, settings, len(seen)


def _settings(
    cuts: Sequence[Cut], state: frozenset[int], seen: dict[frozenset[int], tuple[frozenset[int], list[int]] | None]
) -> Iterator[frozenset[int]]:
    """Every state one setting of the fence away that is new."""
    ready = [n for n, cut in enumerate(cuts) if n not in state and (cut.after is None or cut.after in state)]
    for fence in sorted({cuts[n].fence for n in ready}):
        done: list[int] = []
        now = set(state)
        while True:
            more = [
                n for n, cut in enumerate(cuts)
                if n not in now and cut.fence == fence and (cut.after is None or cut.after in now)
            ]  # fmt: skip
            if not more:
                break
            done += more
            now.update(more)
        after = frozenset(now)
        if after not in seen:
            seen[after] = (state, done)
            yield after

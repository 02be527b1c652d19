"""Fence settings: what the fence of a saw or the mark of a straightedge is set to, in the order of cutting.

The order is common practice: first everything that goes through, so that all pieces are square to an edge; then the
scores, the fence still square; the short cuts last, when a slip can no longer spoil a whole sheet.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fardo.core.cut.drawing import Blank, Line
from fardo.core.quantity import Length

Blade = Literal["through", "score, inner face", "second score, inner face", "slot", "knife"]


@dataclass(frozen=True, slots=True)
class FenceSetting:
    """A setting of the fence and what is cut by it.

    Args:
        fence: distance from the edge that runs along the fence.
        blade: what the blade does.
        do: what is cut, in words.
        cuts: how many passes at this setting.
    """

    fence: Length
    blade: Blade
    do: str
    cuts: int


def fence_of(blank: Blank) -> tuple[FenceSetting, ...]:
    """The settings for a plain piece, read off its drawing: through, scores from the nearer edge, then the knife."""
    of = f" of the {blank.name}"
    settings = [
        FenceSetting(blank.size[0], "through", f"length{of}", blank.count),
        FenceSetting(blank.size[1], "through", f"width{of}", blank.count),
    ]
    for axis, edges in ((0, "first short edge"), (1, "first long edge")):
        at = sorted({line.start[axis] for line in blank.lines if line.kind == "score" and _across(line, axis)})
        settings += [
            FenceSetting(x, "score, inner face", f"score {n}{of}, from its {edges}", blank.count)
            for n, x in enumerate(at, 1)
        ]
    inner = [line for line in blank.lines if line.kind in ("cut", "slot") and not _on_edge(line, blank)]
    deep = {abs(line.end[axis].nm - line.start[axis].nm) for line in inner for axis in (0, 1)} - {0}
    if deep:
        settings.append(FenceSetting(Length(max(deep)), "knife", f"slots and corners{of}", len(inner) * blank.count))
    return tuple(settings)


def _across(line: Line, axis: int) -> bool:
    return line.start[axis] == line.end[axis]


def _on_edge(line: Line, blank: Blank) -> bool:
    return any(_across(line, axis) and line.start[axis].nm in (0, blank.size[axis].nm) for axis in (0, 1))

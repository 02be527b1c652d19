"""Corner guards for a slab: a square of board, marked at T and 2T from two edges, the corner square cut out, folded.

T makes the side wall, the outer T wraps the back (common practice). T is the slab's thickness; where it was measured
bare, the board of the guard is added to it.
"""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.protect.coat import Coat, Cut, Layer, Wearer, all_round, square_metres
from fardo.core.protect.forms.asks import Ask, Held
from fardo.core.quantity import Length

FORM = "corner"
TITLE = "corner guards"
ASKS: tuple[Ask, ...] = ()
HELD: Held = "block"
CORNERS = 4


@dataclass(frozen=True, slots=True)
class CornerGuard:
    """A guard of board for a corner.

    Args:
        side: of the square it is cut from.
        lines: where it is scored, measured from both of two adjacent edges.
        cut_out: side of the square taken out of the corner between these edges.
    """

    side: Length
    lines: tuple[Length, Length]
    cut_out: Length


def corner_guard(thickness: Length, reach: Length) -> CornerGuard:
    """The guard for a slab `thickness` thick, going `reach` along its face.

    >>> inch = Length.of_inches
    >>> [float(line.inches) for line in corner_guard(inch("1.5"), inch(4)).lines]
    [1.5, 3.0]
    """
    return CornerGuard(thickness * 2 + reach, (thickness, thickness * 2), thickness * 2)


def guard_for(wearer: Wearer, layer: Layer) -> CornerGuard:
    """The guard for what it is put on, whose thickness is measured without it; every line up to the tape's step."""
    thickness = wearer.sizes[wearer.axes[2]] + layer.material.thickness
    return corner_guard(thickness.to_step(wearer.step, "up"), layer.material.reach.to_step(wearer.step, "up"))


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    guard = guard_for(wearer, layer)
    cuts = (Cut(CORNERS, guard.side, guard.side),)
    says = (
        "From two edges of each square that meet, mark both lines; cut out the square in their corner; score and fold.",
    )
    return Coat(layer.material, all_round(layer.material.thickness), cuts, square_metres(cuts), says)

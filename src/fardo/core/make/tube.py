"""A square tube for long things: a slotted case laid on its side, so that its flaps close the ends.

The sizes are those of `slotted` with the longest way as its height: outside = inside + 4t along it and 2t across.
"""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

from fardo.core.board.grade import Grade
from fardo.core.goods.part import Sizes
from fardo.core.make import slotted
from fardo.core.make.allowances import Allowances
from fardo.core.make.made import Made, School, check_inside
from fardo.core.make.step import Step
from fardo.core.why import Why

NAME, TITLE = "tube", "Square tube, cut from sheet"
FLAPS = "both"
NEEDS = "sheet"
OPENS = "end"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(12)  # starting value: as a slotted case


def make(inside: Sizes, grade: Grade, allowances: Allowances, school: School = "exact") -> Made:
    """The blank for an inside size, and the tube it makes along its longest side. Raises BadInput out of range."""
    check_inside(inside)
    axis = max(range(3), key=lambda n: inside[n])
    across = sorted((n for n in range(3) if n != axis), key=lambda n: -inside[n].nm)
    order = (*across, axis)
    made = slotted.make((inside[order[0]], inside[order[1]], inside[order[2]]), grade, allowances)

    def back(sizes: Sizes) -> Sizes:
        a, b, c = (sizes[order.index(n)] for n in range(3))
        return a, b, c

    why = made.whys["outside"]
    return replace(
        made, way=NAME, needed=inside, inside=back(made.inside), outside=back(made.outside),
        blanks=(replace(made.blanks[0], name="tube"),),
        fence=tuple(replace(one, do=one.do.replace("of the case", "of the tube")) for one in made.fence),
        minutes=MINUTES, notes=(),
        whys={**made.whys, "outside": Why("inside + 4t along the tube, + 2t across it", why.values, why.rule)},
        steps=(
            Step("Fold it around, glue or tape the seam, close one end and tape it.", tapes=True),
            Step("Slide the goods in and fill the end.", stage="pack"),
            Step("Close it: three strips of tape over each end.", tapes=True),
        ),
    )  # fmt: skip

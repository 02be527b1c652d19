"""Two boxes end to end for long goods: one with its flaps pushed into the other's open end, the other's flaps outside.

They need not be alike: the one that goes in must be no larger around inside than the other, and its flaps go down
inside it, where they take a board at each side. Pressed home the heights add up; pulled out they give up to the shorter
flaps less the least overlap more. Outside it grows as a telescoped stack does. It lies along the goods' longest side
(common practice).
"""

from __future__ import annotations

from fractions import Fraction

from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import OVERLAP, Allowances
from fardo.core.make.contents import Contents
from fardo.core.make.made import Made, School, check_inside, sides_told
from fardo.core.make.step import Step
from fardo.core.make.stock import Stock, StockBox, Taken, TooSmall, closing_tape
from fardo.core.quantity import Length, both_units, volume_nm3
from fardo.core.refusal import NoAnswer
from fardo.core.why import Why

NAME, TITLE = "end-to-end", "Two boxes end to end"
FLAPS = "both"
NEEDS = "stock"
OPENS = "end"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(12)  # starting value

_PRACTICE = "pressed home the heights add up; pulled, up to a flap less the overlap more (common practice)"
_BOARDS_AT_THE_JOINT = 2


def take(contents: Contents, stock: Stock, allowances: Allowances) -> tuple[Made, ...]:
    """For each box there is the one that goes into it best, the pair that takes least room closed first.

    Raises: NoAnswer where no two do.
    """
    inside = contents.inside
    check_inside(inside)
    axis = max(range(3), key=lambda n: inside[n])
    rest = [n for n in range(3) if n != axis]
    wide, thick = sorted((inside[n] for n in rest), reverse=True)
    boxes = [box for box in stock.boxes_to_join if box.count]
    around = [one for one in boxes if one.inside[0] >= wide and one.inside[1] >= thick]
    if not around:
        raise NoAnswer("no box there is as wide and as thick as the goods across")
    found: list[tuple[int, str, str, StockBox, StockBox]] = []
    short: list[tuple[int, str]] = []
    for outer in around:
        best, lacks = _best_inner(outer, around, (wide, thick, inside[axis]), allowances[OVERLAP])
        if best is not None:
            pull = _pull(outer, best, inside[axis])
            found.append((volume_nm3(*outside_of(outer, best, pull)), outer.name, best.name, outer, best))
        elif lacks is not None:
            short.append((lacks[0], f"{outer.name} and {lacks[1].name}"))
    if not found:
        if not short:
            raise NoAnswer("no two boxes there are go into each other")
        nm, names = min(short)
        raise TooSmall(f"{names} are together {both_units(Length(nm))} too short", Length(nm))
    return tuple(
        _made(inside, axis, outer, inner, _pull(outer, inner, inside[axis]))
        for *_, outer, inner in sorted(found, key=lambda one: one[:3])
    )


def _pull(outer: StockBox, inner: StockBox, need: Length) -> Length:
    """How far they are pulled out of each other so that what is so long goes in."""
    return Length(max(need.nm - inner.inside[2].nm - outer.inside[2].nm, 0))


def _best_inner(
    outer: StockBox, boxes: list[StockBox], goods: Sizes, overlap: Length
) -> tuple[StockBox | None, tuple[int, StockBox] | None]:
    """The box that makes it least long; where none makes it long enough, the nearest and what it lacks, nm.

    Whole nanometres are compared as they are: of two hundred boxes there are forty thousand pairs.
    """
    (a, b, high), least = (side.nm for side in outer.inside), overlap.nm
    wide, thick, need = (side.nm for side in goods)
    best: tuple[int, int] | None = None
    lacks: tuple[int, int] | None = None
    for n, inner in enumerate(boxes):
        length, width, height = inner.inside
        spare = width.nm // 2 - least  # of its flaps, which are the shorter ones
        flaps = inner.grade.caliper.nm * 2
        if length.nm > a or width.nm > b or spare < 0 or (inner is outer and outer.count < 2):
            continue
        if a - flaps < wide or b - flaps < thick:
            continue
        whole = high + height.nm
        if need <= whole + spare:
            best = min((max(whole, need), n), best or (max(whole, need), n))
        else:
            lacks = min((need - whole - spare, n), lacks or (need - whole - spare, n))
    return boxes[best[1]] if best else None, (lacks[0], boxes[lacks[1]]) if lacks else None


def outside_of(outer: StockBox, inner: StockBox, pull: Length) -> Sizes:
    """Closed: along the joined heights last."""
    t = outer.grade.caliper
    across = t * (2 + 2 * _BOARDS_AT_THE_JOINT)
    ends = t * 2 + inner.grade.caliper * 2
    return outer.inside[0] + across, outer.inside[1] + across, outer.inside[2] + inner.inside[2] + pull + ends


def _made(inside: Sizes, axis: int, outer: StockBox, inner: StockBox, pull: Length) -> Made:
    """Laid along `axis`, the wider side of the opening along the wider of the other two."""
    rest = sorted((n for n in range(3) if n != axis), key=lambda n: (-inside[n].nm, n))

    def laid(sizes: Sizes) -> Sizes:
        by = {rest[0]: sizes[0], rest[1]: sizes[1], axis: sizes[2]}
        return by[0], by[1], by[2]

    flaps = inner.grade.caliper * 2
    across = [min(small, large - flaps) for small, large in zip(inner.inside[:2], outer.inside[:2], strict=True)]
    room = laid((across[0], across[1], outer.inside[2] + inner.inside[2] + pull))
    size = outside_of(outer, inner, pull)
    told = (*sides_told("box", outer.inside), *sides_told("the other", inner.inside), ("pulled out", pull),
            ("caliper t", outer.grade.caliper))  # fmt: skip
    around = (outer.inside[0] + outer.inside[1]) * 2
    taken = (Taken(outer, 2),) if inner is outer else (Taken(outer), Taken(inner))
    overlap = Length(min(inner.inside[1].nm, outer.inside[1].nm) // 2) - pull
    return Made(
        way=NAME, school="exact", grade=outer.grade, needed=inside, inside=room, outside=laid(size), blanks=(),
        fence=(), tape=closing_tape(size) + around + (size[0] + size[2]) * 4, minutes=MINUTES,
        whys={
            "inside": Why("height + height + pull; across, the one that goes in or the other less 2t", told, _PRACTICE),
            "outside": Why("across, the outer inside + 6t; along, inside + 4t", told, _PRACTICE),
            "blank": Why("whole boxes, nothing is cut", told, _PRACTICE),
        },
        notes=(), taken=taken, condition="used" if outer.used or inner.used else "new",
        steps=(
            Step("Close and tape one end of each box; the flaps of the other ends stay open.", tapes=True),
            Step(f"Put the goods into {outer.name} and fill around them; its open flaps stay up outside the joint.",
                 stage="pack"),
            Step(f"Push the open flaps of {inner.name} down inside it, over the goods, until {{}} of them overlap.",
                 (overlap,)),
            Step("Tape the joint all around, then twice around lengthwise, so that three strips cross each end.",
                 tapes=True),
        ),
    )  # fmt: skip

"""A mailer or a bag that is there, put straight around the goods: flat, rigid, padded, or a bag.

What is l x w x h, its two smaller sides w and h, needs a flat width of w + h and a flat length of l + h, and what the
seams and the closing take (common practice). A flat or rigid one takes what is no thicker than it says. Filled, it is
as long and as wide as it lies flat, less the height, and two walls higher than the goods. A bag is trimmed on both
sides to what the goods need and folded flat over them: a carrier counts its flat size as trimmed.
"""

from __future__ import annotations

from fractions import Fraction
from itertools import pairwise

from fardo.core.board.grade import NO_BOARD
from fardo.core.cut.drawing import Blank, Line, Note, chain
from fardo.core.goods.part import MOST_OF_ONE, Sizes
from fardo.core.make.allowances import SEAMS, Allowances
from fardo.core.make.contents import Contents
from fardo.core.make.made import Made, School, check_inside, sides_told
from fardo.core.make.step import Stage, Step
from fardo.core.make.stock import POUCHES, Pouch, Stock, Taken, TooSmall, nearest_of
from fardo.core.quantity import ZERO, Length, both_units
from fardo.core.refusal import NoAnswer
from fardo.core.why import Why

NAME, TITLE = "mailer", "Mailer or bag"
NEEDS = "stock"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(1)  # to slip in and close: starting value

COUNTED_BARE = "Counted flat by the goods as wrapped; cut sides are taped like wrapping and take no seam."
RULE = "flat width w + h, flat length l + h, and the seams (common practice)"


def take(contents: Contents, stock: Stock, allowances: Allowances) -> tuple[Made, ...]:
    """Every mailer there is that closes on the goods, the cheapest first, of equal ones the smaller.

    Raises: NoAnswer where none does, or the goods may not travel so.
    """
    return in_pouches(NAME, contents, stock.own_pouches, allowances)


def in_pouches(way: str, contents: Contents, pouches: tuple[Pouch, ...], allowances: Allowances) -> tuple[Made, ...]:
    goods = contents.in_mailer or contents.inside
    check_inside(goods)
    found: list[tuple[int, int, str, Pouch]] = []
    whys: list[tuple[str, NoAnswer]] = []
    for pouch in pouches:
        try:
            if not pouch.count:
                raise NoAnswer("there is none left")
            if (why := contents.kept_out.get(pouch.kind)) is not None:
                raise NoAnswer(why)
            must_close(pouch, goods, allowances[SEAMS])
        except NoAnswer as none:
            whys.append((pouch.name, none))
        else:
            found.append((pouch.price.minor, pouch.width.nm * pouch.length.nm, pouch.name, pouch))
    if not found:
        if contents.kept_out and all(pouch.kind in contents.kept_out for pouch in pouches):
            raise NoAnswer(next(iter(contents.kept_out.values())))
        raise nearest_of(whys, "there is none")
    return tuple(_closed_on(way, goods, one[3], allowances) for one in sorted(found, key=lambda one: one[:3]))


def trimmed_flat(pouch: Pouch, around: Sizes, allowances: Allowances) -> tuple[Length, Length]:
    """Length and width of a bag as it lies flat once both sides are cut to what it goes around; cut sides are taped
    like wrapping and need no seam.
    """
    l, w, h = (around[n] for n in _lying(around))  # noqa: E741 -- as the rule has them
    return (
        min(pouch.length, allowances.at_least(l + h)),
        min(pouch.width, allowances.at_least(w + h)),
    )  # fmt: skip


def _closed_on(way: str, goods: Sizes, pouch: Pouch, allowances: Allowances) -> Made:
    needs = (*sides_told("goods", goods), ("flat width", pouch.width), ("flat length", pouch.length),
             ("seams", allowances[SEAMS]), ("wall", pouch.wall))  # fmt: skip
    long, wide, high = _lying(goods)
    bag = pouch.kind == "bag"
    # A bag is folded flat over the goods; any other stays as long and as wide as its height leaves it.
    filled = (
        {}
        if bag
        else {long: pouch.length - goods[high], wide: pouch.width - goods[high], high: goods[high] + pouch.wall * 2}
    )
    # Whatever it is closed on, it is no smaller than the goods.
    outside = tuple(max(filled.get(n, ZERO), goods[n] + pouch.wall * 2) for n in range(3))
    flat = trimmed_flat(pouch, goods, allowances) if bag else (pouch.length, pouch.width)
    return Made(
        way=way, school="exact", grade=NO_BOARD, needed=goods, inside=goods,
        outside=(outside[0], outside[1], outside[2]), blanks=(), fence=(), tape=ZERO, minutes=MINUTES,
        whys={
            "inside": Why(f"{pouch.name}, closed on the goods", needs, RULE),
            "outside": Why("goods + 2 walls, folded flat" if bag else "flat length - h, flat width - h, h + 2 walls",
                           needs, RULE),
            "blank": Why("nothing is cut", needs, RULE),
        },
        notes=(COUNTED_BARE,) if bag else (), taken=(Taken(pouch),), soft=True, carrier=pouch.carrier, flat=flat,
        standing=bag_to_trim(pouch, flat) if bag else None,
        steps=(*trim_steps(pouch, flat, "goods", "pack"), *_CLOSING) if bag else (
            Step(f"Slip the goods into the {POUCHES[pouch.kind]}, heavy end first; nothing sharp against its walls.",
                 stage="pack"),
            Step("Close it within its own seams, flap flat, no bulge at the seam; tape over a flap that lifts.",
                 tapes=True),
        ),
    )  # fmt: skip


_CLOSING = (
    Step(
        "Fold the cut sides flat over it like wrapping and tape them all along; the label goes on a flat face.",
        tapes=True,
    ),
)


def trim_steps(pouch: Pouch, flat: tuple[Length, Length], what: str, stage: Stage) -> tuple[Step, ...]:
    """How a bag is cut down, both ways where both are longer than what it goes around.

    Args:
        what: goes into it, at which stage.
    """
    length, width = flat
    if length < pouch.length and width < pouch.width:
        cut = Step(f"Trim the {pouch.name} to {{}} x {{}} flat, from the open end and from one side.", flat, knife=True)
    elif length < pouch.length or width < pouch.width:
        side, to = ("open end", length) if length < pouch.length else ("side", width)
        cut = Step(f"Trim the {pouch.name} to {{}} at its {side}.", (to,), knife=True)
    else:
        return (Step(f"Slip the {what} into the {pouch.name}.", stage=stage),)
    return (cut, Step(f"Slip the {what} in, against the bag's own seams.", stage=stage))


def must_close(pouch: Pouch, inside: Sizes, seams: Length) -> None:
    """Raises TooSmall, saying which measure lacks how much, where it does not close on the goods.

    >>> from fardo.core.quantity import INCH, Mass, Money
    >>> inch = Length.of_inches
    >>> padded = Pouch("9 1/2 x 12 1/2", "padded", inch("9.5"), inch("12.5"), inch("0.1875"), None, Mass(0),
    ...                Money(0, "USD"), 1)
    >>> must_close(padded, (inch("7.375"), inch("4.375"), inch("4.375")), inch("0.5"))
    >>> must_close(padded, (inch("7.75"), inch("4.375"), inch("4.375")), inch("0.5"))
    Traceback (most recent call last):
    fardo.core.make.stock.TooSmall: 1/8 in (4 mm) too short
    """
    l, w, h = (inside[n] for n in _lying(inside))  # noqa: E741 -- as the rule has them
    if pouch.thickest is not None and h > pouch.thickest:
        lacks = h - pouch.thickest
        raise TooSmall(f"{both_units(lacks)} too thin", lacks)
    short, narrow = l + h + seams - pouch.length, w + h + seams - pouch.width
    if max(short, narrow).nm > 0:
        raise TooSmall(
            f"{both_units(max(short, narrow))} too {'short' if short >= narrow else 'narrow'}", max(short, narrow)
        )


def bag_to_trim(pouch: Pouch, flat: tuple[Length, Length]) -> Blank:
    """A bag as it lies flat, its open end to the right, with the lines that the scissors follow.

    Args:
        flat: length and width as trimmed.
    """
    length, width = pouch.length, pouch.width
    outline = ((ZERO, ZERO), (length, ZERO), (length, width), (ZERO, width))
    lines = [Line("edge", start, end) for start, end in pairwise((*outline, outline[0]))]
    if flat[0] < length:
        lines.append(Line("cut", (flat[0], ZERO), (flat[0], flat[1])))
    if flat[1] < width:
        lines.append(Line("cut", (ZERO, flat[1]), (flat[0], flat[1])))
    dimensions = (
        *chain((ZERO, flat[0]), "below", ZERO), *chain((ZERO, length), "above", width),
        *chain((ZERO, flat[1]), "left", ZERO), *chain((ZERO, width), "right", length),
    )  # fmt: skip
    note = Note((flat[0].half(), flat[1].half()), "this stays; sealed end left")
    return Blank(f"{pouch.name}, to trim", (length, width), outline, tuple(lines), dimensions, (note,), "either way")


def most_that_close(pouch: Pouch, pile: Sizes, count: int, seams: Length) -> int:
    """How many of what lies `count` high in a pile go into a mailer at most.

    Args:
        pile: sizes of all of it; it grows along the shortest, through which it is piled.
    """
    thin = min((2, 1, 0), key=lambda axis: pile[axis].nm)
    most, each = 0, pile[thin]
    while most < MOST_OF_ONE:
        sides = tuple(Length(each.nm * (most + 1) // count) if axis == thin else pile[axis] for axis in range(3))
        try:
            must_close(pouch, (sides[0], sides[1], sides[2]), seams)
        except NoAnswer:
            break
        most += 1
    return most


def _lying(inside: Sizes) -> tuple[int, int, int]:
    """Which side is l, w and h: its longest, middle and shortest, as it lies in a mailer."""
    h, w, l = sorted(range(3), key=lambda n: inside[n])  # noqa: E741
    return l, w, h

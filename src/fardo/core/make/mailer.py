"""A mailer or a bag that is there, put straight around the goods: flat, rigid, padded, or a bag.

What is l x w x h, its two smaller sides w and h, needs a flat width of w + h and a flat length of l + h, and what the
seams and the closing take (common practice). A flat or rigid one takes what is no thicker than it says. Filled, it is
as long and as wide as it lies flat, less the height, and two walls higher than the goods; a bag is folded flat over
them.
"""

from __future__ import annotations

from fractions import Fraction

from fardo.core.board.grade import NO_BOARD
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import SEAMS, Allowances
from fardo.core.make.made import Made, School, check_inside, sides_told
from fardo.core.make.step import Step
from fardo.core.make.stock import POUCHES, Pouch, Stock, Taken, TooSmall, both_units, nearest_of
from fardo.core.quantity import ZERO, Length
from fardo.core.refusal import NoAnswer
from fardo.core.why import Why

NAME, TITLE = "mailer", "Mailer or bag"
NEEDS = "stock"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(1)  # to slip in and close: starting value

RULE = "flat width w + h, flat length l + h, and the seams (common practice)"


def take(inside: Sizes, stock: Stock, allowances: Allowances, upright: bool) -> Made:
    """Of the mailers there are, the cheapest that closes, of equal ones the smaller. Raises NoAnswer where none."""
    return in_pouch(NAME, inside, stock.own_pouches, allowances)


def in_pouch(way: str, inside: Sizes, pouches: tuple[Pouch, ...], allowances: Allowances) -> Made:
    check_inside(inside)
    found: list[tuple[int, int, str, Pouch]] = []
    whys: list[tuple[str, NoAnswer]] = []
    for pouch in pouches:
        try:
            if not pouch.count:
                raise NoAnswer("there is none left")
            must_close(pouch, inside, allowances[SEAMS])
        except NoAnswer as none:
            whys.append((pouch.name, none))
        else:
            found.append((pouch.price.minor, pouch.width.nm * pouch.length.nm, pouch.name, pouch))
    if not found:
        raise nearest_of(whys, "there is none")
    pouch = min(found, key=lambda one: one[:3])[3]
    needs = (*sides_told("inside", inside), ("flat width", pouch.width), ("flat length", pouch.length),
             ("seams", allowances[SEAMS]), ("wall", pouch.wall))  # fmt: skip
    long, wide, high = _lying(inside)
    filled_as = (
        "flat length - h, flat width - h, h + 2 walls" if pouch.kind != "bag" else "goods + 2 walls, folded flat"
    )
    # A bag is folded flat over the goods; any other stays as long and as wide as its height leaves it.
    filled = (
        {}
        if pouch.kind == "bag"
        else {long: pouch.length - inside[high], wide: pouch.width - inside[high], high: inside[high] + pouch.wall * 2}
    )
    # Whatever it is closed on, it is no smaller than the goods.
    outside = tuple(max(filled.get(n, ZERO), inside[n] + pouch.wall * 2) for n in range(3))
    return Made(
        way=way, school="exact", grade=NO_BOARD, needed=inside, inside=inside,
        outside=(outside[0], outside[1], outside[2]), blanks=(), fence=(), tape=ZERO, minutes=MINUTES,
        whys={
            "inside": Why(f"{pouch.name}, closed on the goods", needs, RULE),
            "outside": Why(filled_as, needs, RULE),
            "blank": Why("nothing is cut", needs, RULE),
        },
        notes=(), taken=(Taken(pouch),), soft=True, carrier=pouch.carrier,
        steps=(
            Step(f"Slip the goods into the {POUCHES[pouch.kind]}, heavy end first; nothing sharp against its walls."),
            Step("Close it within its own seams, flap flat, no bulge at the seam; tape over a flap that lifts."),
        ),
    )  # fmt: skip


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


def _lying(inside: Sizes) -> tuple[int, int, int]:
    """Which side is l, w and h: its longest, middle and shortest, as it lies in a mailer."""
    h, w, l = sorted(range(3), key=lambda n: inside[n])  # noqa: E741
    return l, w, h

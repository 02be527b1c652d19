"""The cushion check: t = C x h / G, beside the habit of so many inches, with a sentence where the two disagree.

Source: the cushion method of MIL-HDBK-304 and the drop heights of ISTA 1A, values from memory. C is the cushion factor
of the material at its best static stress, G the fragility in g, h the drop height.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from fractions import Fraction

from fardo.core.quantity import INCH, POUND, Length, Mass, Units, show_length, show_mass
from fardo.core.refusal import BadInput
from fardo.core.why import Why

# Class, least and most g it bears (MIL-HDBK-304, from memory). The least is reckoned with.
CLASSES: tuple[tuple[str, int, int], ...] = (
    ("extremely-fragile", 15, 25),
    ("very-delicate", 25, 40),
    ("delicate", 40, 60),
    ("moderately-delicate", 60, 85),
    ("moderately-rugged", 85, 115),
    ("rugged", 115, 200),
)
CLASS_NAMES = tuple(name for name, _, _ in CLASSES)
_LAST = CLASS_NAMES[-1]
# Cloth, books in film, rubber: no drop harms it, so no cushion is asked for (common practice).
DOES_NOT_BREAK, NO_LIMIT = "does-not-break", 1001
# Below so many pounds it is dropped from so many inches (ISTA 1A, from memory).
_DROPS = ((21, 30), (41, 24), (61, 18), (100, 12))
_DROP_HEAVY = 8
_IN_G = re.compile(r"\s*(\d{1,3})\s*[gG]?\s*")
_LEAST_G, _MOST_G = 5, 500
# A habit of more than so many times the check is said to be more than the check asks.
_MUCH = 2


def read_fragility(text: str, field: str = "fragility") -> int:
    """What a thing bears, in g: from its class (the least of it) or a figure such as ``60 G``.

    >>> read_fragility("delicate"), read_fragility("30 G")
    (40, 30)
    """
    wanted = "-".join(text.lower().split())
    if wanted == DOES_NOT_BREAK:
        return NO_LIMIT
    for name, least, _ in CLASSES:
        if wanted == name:
            return least
    figure = _IN_G.fullmatch(text)
    if figure and _LEAST_G <= int(figure[1]) <= _MOST_G:
        return int(figure[1])
    raise BadInput(
        "not a fragility", read=text, field=field,
        allowed=", ".join(CLASS_NAMES) + f", {DOES_NOT_BREAK}, or {_LEAST_G} to {_MOST_G} G",
    )  # fmt: skip


def say_class(name: str) -> str:
    """A class as it is chosen from a list.

    >>> say_class("very-delicate"), say_class("rugged")
    ('very delicate, 25–40 G', 'rugged, over 115 G')
    """
    if name == DOES_NOT_BREAK:
        return "does not break"
    least, most = next((least, most) for known, least, most in CLASSES if known == name)
    bears = f"over {least}" if name == _LAST else f"{least}–{most}"
    return f"{name.replace('-', ' ')}, {bears} G"


def goods_of(fragility: int) -> str:
    """Goods that bear so many g, as one speaks of them.

    >>> goods_of(40), goods_of(50)
    ('delicate goods', 'goods that bear 50 G')
    """
    named = next((name for name, least, _ in CLASSES if least == fragility), None)
    return f"{named.replace('-', ' ')} goods" if named else f"goods that bear {fragility} G"


def drop_height(weight: Mass) -> Length:
    """From how high a parcel of that weight is dropped in the test.

    >>> float(drop_height(POUND * 9).inches), float(drop_height(POUND * 21).inches)
    (30.0, 24.0)
    """
    inches = next((drop for below, drop in _DROPS if weight < POUND * below), _DROP_HEAVY)
    return INCH * inches


def cushion_thickness(weight: Mass, fragility: int, factor: Fraction) -> Length:
    """How thick a cushion must be, up to the nanometre.

    >>> float(cushion_thickness(POUND * 9, 60, Fraction(3)).inches)
    1.5
    """
    return Length(-(-drop_height(weight).nm * factor // fragility))


@dataclass(frozen=True, slots=True)
class CushionCheck:
    """What the check asks, what there is by habit, and what to say. `enough` is False where the habit falls short."""

    asks: Length
    has: Length
    enough: bool
    says: str
    why: Why


def check_cushion(
    weight: Mass, fragility: int, factor: Fraction, has: Length, units: Units, proven: str = ""
) -> CushionCheck:
    """Whether the cushion is enough for how fragile the goods are.

    Args:
        weight: of the parcel as it is dropped.
        has: gap and cushioning wrap on the thinnest side.
        proven: how such goods are packed in practice with less, where that is known; it stands over the formula.
    """
    asks = cushion_thickness(weight, fragility, factor)
    asked, there = show_length(asks, units, "up").text, show_length(has, units, "down").text
    goods = goods_of(fragility)
    if has < asks and proven:
        says = f"Cushion check: the formula asks for {asked}, there is {there}. Practice differs: {proven}."
    elif has < asks:
        says = (
            f"Cushion check: {goods} in a parcel of this weight need {asked}, there is {there}. Add gap, a layer, or a "
            "softer fill."
        )
    elif has.nm > asks.nm * _MUCH:
        says = f"Cushion check: {goods} in a parcel of this weight need {asked}, there is {there}: more than enough."
    else:
        says = f"Cushion check: {goods} in a parcel of this weight need {asked}, there is {there}. OK."
    why = Why(
        "C x h / G",
        (("C, cushion factor", f"{float(factor):g}"), ("h, drop", drop_height(weight)), ("G", f"{fragility} g"),
         ("parcel", show_mass(weight, units, "up").text)),
        "cushion method of MIL-HDBK-304, drop heights of ISTA 1A (from memory)",
    )  # fmt: skip
    return CushionCheck(asks, has, has >= asks or bool(proven), says, why)

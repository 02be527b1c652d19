"""Reads a length or a mass from what people type at a bench, exactly, or says why not.

Taken: ``10 1/2``  ``10-1/2"``  ``10½``  ``5' 3"``  ``5 ft 3 1/2 in``  ``26.7 cm``  ``26,7 cm``  ``4 lb 6 oz``
``2 kg``  ``10 1/2 + 2 x 1/8``, and sizes such as ``24 x 12 x 8 in``. A number with no unit has the shop's unit.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from decimal import Decimal
from fractions import Fraction

from fardo.core.quantity.length import NM_PER_INCH, NM_PER_MM, Length
from fardo.core.quantity.mass import NG_PER_GRAM, NG_PER_OUNCE, NG_PER_POUND, Mass
from fardo.core.quantity.show import show_length
from fardo.core.refusal import BadInput

LONGEST = Length(10_000 * NM_PER_MM)  # no parcel, and no board, is longer than ten metres
HEAVIEST = Mass(1_000_000 * NG_PER_GRAM)
ANY_LENGTH, ANY_MASS = LONGEST * 10, Mass(HEAVIEST.ng * 10)  # that a text may say, whether or not it is allowed
LONGEST_TEXT = 80
FARTHEST = Length(20_000_000 * 1000 * NM_PER_MM)  # half way round the earth

_Refuse = Callable[[str], BadInput]


@dataclass(frozen=True, slots=True)
class _Unit:
    name: str
    size: int  # nm or ng
    system: str  # units of different systems do not make one measure
    bare_next: str | None = None  # the unit of a bare number that follows: 5' 3 is five feet three inches


_FEET = _Unit("ft", 12 * NM_PER_INCH, "inch", "in")
_INCHES = _Unit("in", NM_PER_INCH, "inch", "in")
_LENGTHS = {
    **dict.fromkeys(["in", "inch", "inches", '"', "''"], _INCHES),
    **dict.fromkeys(["ft", "foot", "feet", "'"], _FEET),
    **dict.fromkeys(["yd", "yard", "yards"], _Unit("yd", 36 * NM_PER_INCH, "inch")),
    **dict.fromkeys(["mm"], _Unit("mm", NM_PER_MM, "metric")),
    **dict.fromkeys(["cm"], _Unit("cm", 10 * NM_PER_MM, "metric")),
    **dict.fromkeys(["m", "metre", "metres", "meter", "meters"], _Unit("m", 1000 * NM_PER_MM, "metric")),
}
_DISTANCES = {
    **dict.fromkeys(["mi", "mile", "miles"], _Unit("mi", 63_360 * NM_PER_INCH, "inch")),
    **dict.fromkeys(["km", "kilometre", "kilometres"], _Unit("km", 1_000_000 * NM_PER_MM, "metric")),
}
_MASSES = {
    **dict.fromkeys(["lb", "lbs", "pound", "pounds", "#"], _Unit("lb", NG_PER_POUND, "pound", "oz")),
    **dict.fromkeys(["oz", "ounce", "ounces"], _Unit("oz", NG_PER_OUNCE, "pound")),
    **dict.fromkeys(["kg", "kgs", "kilo", "kilos"], _Unit("kg", 1000 * NG_PER_GRAM, "metric")),
    **dict.fromkeys(["g", "gram", "grams"], _Unit("g", NG_PER_GRAM, "metric")),
}

_VULGAR = {c: f" {n}" for c, n in zip("½¼¾⅛⅜⅝⅞", ["1/2", "1/4", "3/4", "1/8", "3/8", "5/8", "7/8"], strict=True)}
_SIGNS = str.maketrans(
    {"′": "'", "’": "'", "‘": "'", "″": '"', "”": '"', "“": '"', "⁄": "/", "×": "x", "–": "-", "−": "-", "\u00a0": " ",
     "\u202f": " ", "\u2009": " ", **_VULGAR}
)  # fmt: skip

_NUMBER = r"(?:(?:\d{1,9}(?:\s+|-))?\d{1,9}\s*/\s*\d{1,9}|\d{1,12}(?:[.,]\d{1,20})?|[.,]\d{1,20})"
_FRACTION = re.compile(r"\d+\s*/\s*\d+")
_TERM = re.compile(rf"\s*(?P<number>{_NUMBER})\s*(?P<unit>[a-z#]+|''|'|\")?\.?\s*")
_FEET_DASH = re.compile(r"('|ft|feet|foot)\s*-\s*(?=\d)")
_LAST_UNIT = re.compile(r"([a-z#]+|''|'|\")\.?\s*$")
_TIMES = re.compile(r"\s*(\d{1,6})\s*[x*]\s*(.+)")
_TIMES_SIGN = re.compile(r"(?<=[\s\d'\"a-z.])x(?=[\s\d.,])|(?<=\d)x(?=\d)|\*")

_LENGTH_ALLOWED = 'a length such as 10 1/2, 10-1/2", 5\' 3", 26.7 cm'
_MASS_ALLOWED = "a weight such as 4 lb 6 oz, 4.4 lb, 2 kg"


def read_length(
    text: str, bare_unit: str = "in", *, most: Length = LONGEST, zero: bool = False, field: str = ""
) -> Length:
    """The length that `text` says, to the nanometre.

    Args:
        text: what was typed.
        bare_unit: the unit of a number that has none, ``in``, ``cm`` or ``mm``.
        most: the largest allowed.
        zero: whether nothing at all is allowed too.
        field: named in a refusal.

    Raises: BadInput, with a sentence, for anything that is not exactly one length in range.

    >>> read_length("1 ft") == read_length("30.48 cm") == read_length("11 3/4 + 4 x 1/16")
    True
    """
    length = Length(_read(text, _LENGTHS, bare_unit, _LENGTH_ALLOWED, field))
    check_length(length, text, most=most, zero=zero, field=field)
    return length


def check_length(length: Length, read: object, *, most: Length = LONGEST, zero: bool = False, field: str = "") -> None:
    """Raises BadInput where `length` is out of range: nothing (unless `zero`), below it, or over `most`."""
    allowed = (
        f"{'nothing' if zero else 'more than nothing'}, up to {show_length(most, 'in', 'down').text} ({most.mm:g} mm)"
    )
    _check_range(length.nm, most.nm, zero, read, allowed, field)


def read_distance(text: str, units: str = "in", *, field: str = "") -> Length:
    """How far it is by road: ``40 mi``, ``65 km``; a bare number has the shop's unit, miles beside inches.

    Raises: BadInput, with a sentence.

    >>> read_distance("5 mi") == read_distance("8.04672 km")
    True
    """
    allowed = "a distance such as 40 mi or 65 km"
    distance = Length(_read(text, _DISTANCES, "mi" if units == "in" else "km", allowed, field))
    up_to = f"more than nothing, up to {FARTHEST.mm / 1e6:g} km"
    _check_range(distance.nm, FARTHEST.nm, False, text, up_to, field, "farther than there is road")
    return distance


def read_mass(text: str, bare_unit: str = "lb", *, most: Mass = HEAVIEST, zero: bool = False, field: str = "") -> Mass:
    """The mass that `text` says, to the nanogram; arguments and refusals as `read_length`.

    >>> read_mass("4 lb 6 oz") == read_mass("70 oz")
    True
    """
    mass = Mass(_read(text, _MASSES, bare_unit, _MASS_ALLOWED, field))
    check_mass(mass, text, most=most, zero=zero, field=field)
    return mass


def check_mass(mass: Mass, read: object, *, most: Mass = HEAVIEST, zero: bool = False, field: str = "") -> None:
    """As `check_length`, for a mass."""
    allowed = f"{'nothing' if zero else 'more than nothing'}, up to {most.grams / 1000:g} kg"
    _check_range(mass.ng, most.ng, zero, read, allowed, field)


def _check_range(
    value: int, most: int, zero: bool, read: object, allowed: str, field: str, over: str = "more than fits any parcel"
) -> None:
    if value < 0:
        raise BadInput("a measure below zero", read=read, allowed=allowed, field=field)
    if value == 0 and not zero:
        raise BadInput("nothing at all", read=read, allowed=allowed, field=field)
    if value > most:
        raise BadInput(over, read=read, allowed=allowed, field=field)


def read_sizes(
    text: str, bare_unit: str = "in", *, most: Length = LONGEST, field: str = ""
) -> tuple[Length, Length, Length]:
    """Three lengths with a cross between them; a unit after the last counts for those before that have none.

    >>> read_sizes("24x12x8in") == read_sizes("24 x 12 x 8") == read_sizes("2' x 12in x 8")
    True
    """
    length, width, height = _crossed(text, 3, "three sizes such as 24 x 12 x 8 in", bare_unit, most, field)
    return length, width, height


def read_flat(text: str, bare_unit: str = "in", *, field: str = "") -> tuple[Length, Length]:
    """Length and width of what lies flat, the longer first; units as `read_sizes` has them.

    >>> read_flat("13x18in") == read_flat("18 x 13")
    True
    """
    one, other = _crossed(text, 2, "two sizes such as 18 x 13 in", bare_unit, LONGEST, field)
    return max(one, other), min(one, other)


def _crossed(text: str, count: int, allowed: str, bare_unit: str, most: Length, field: str) -> Iterator[Length]:
    """So many lengths with a cross between them."""
    parts = _TIMES_SIGN.split(_plain(text, allowed, field))
    if len(parts) != count:
        wanted = allowed.split()[0]
        sides = "1 side" if len(parts) == 1 else f"{len(parts)} sides"
        raise BadInput(f"{sides} where {wanted} are needed", read=text, allowed=allowed, field=field)
    last_unit = _LAST_UNIT.search(parts[-1])
    if last_unit and last_unit[1] in _LENGTHS:
        bare_unit = _LENGTHS[last_unit[1]].name
    return (read_length(part.strip(), bare_unit, most=most, field=field) for part in parts)


def _read(text: str, units: dict[str, _Unit], bare_unit: str, allowed: str, field: str) -> int:
    """The sum that `text` says, in the units' nm or ng."""

    def refuse(why: str) -> BadInput:
        return BadInput(why, read=text, allowed=allowed, field=field)

    plain = _plain(text, allowed, field)
    # In a sum a unit typed once, at its end, is meant for all of it.
    closing = _LAST_UNIT.search(plain)
    bare = units[closing[1] if closing and closing[1] in units else bare_unit]
    total = 0
    for addend in plain.split("+"):
        # Only inside a sum: 24x12 alone is two sizes, not 288.
        found = _TIMES.fullmatch(addend) if "+" in plain else None
        times, said = (int(found[1]), found[2]) if found else (1, addend)
        total += times * _compound(said.strip(), units, bare if "+" in plain else units[bare_unit], refuse)
    return total


def _compound(said: str, units: dict[str, _Unit], bare: _Unit, refuse: _Refuse) -> int:
    """One measure in falling units: 5 ft 3 1/2 in."""
    if not said:
        raise refuse("nothing where a measure is wanted")
    total, at, before, number_before = 0, 0, None, ""
    while at < len(said):
        found = _TERM.match(said, at)
        if not found:
            raise refuse(_why_unreadable(said[at:], whole=at == 0))
        number, name = found["number"], found["unit"]
        if name is not None and name not in units:
            raise refuse(_why_wrong_unit(name))
        if name is not None:
            unit = units[name]
        elif before is None:
            unit = bare
        elif before.bare_next is None:
            raise refuse("a number without its unit")
        else:
            unit = units[before.bare_next]
        if before is not None:
            # 10 in 1/2 is a tape's way of saying it; any other second number of the same unit is a slip.
            fraction_follows = name is None and bool(_FRACTION.fullmatch(number)) and number_before.isdigit()
            if before.system != unit.system:
                raise refuse(f"{before.name} and {unit.name} mixed in one measure")
            if unit.size > before.size:
                raise refuse(f"{unit.name} after {before.name}; the larger unit comes first")
            if unit is before and not fraction_follows:
                raise refuse("two numbers in a row")
        value = _exactly(number, unit, refuse)
        if before is not None and value >= (unit if unit is before else before).size:
            whole = "a whole one" if unit is before else f"a whole {before.name}"
            raise refuse(f"{number} {unit.name} after {before.name} is {whole} or more")
        total += value
        at, before, number_before = found.end(), unit, number
    return total


def _exactly(number: str, unit: _Unit, refuse: _Refuse) -> int:
    if "/" in number:
        top, bottom = re.split(r"\s*/\s*", number)
        pieces = re.split(r"\s*-\s*|\s+", top)
        if int(bottom) == 0:
            raise refuse("a fraction over nothing")
        part = Fraction(int(pieces[-1]), int(bottom))
        if len(pieces) == 2 and part >= 1:
            raise refuse(f"{pieces[-1]}/{bottom} after a whole number is a whole one or more")
        exact = (part + (int(pieces[0]) if len(pieces) == 2 else 0)) * unit.size
        # Thirds of an inch are on no tape; rounding them would let three of them be more, or less, than the inch.
        if exact.denominator != 1 and not (unit.system == "pound" and _by_halving(int(bottom))):
            raise refuse(f"{number} {unit.name} cannot be kept exactly; use 1/2, 1/4 ... 1/64, or a decimal")
        return _whole(exact, unit)
    whole, _, places = number.partition(",")
    if len(places) == 3 and whole.strip("0"):
        raise refuse(f"which can mean {whole}.{places} or {whole}{places}; leave the comma out or use a point")
    return _whole(Fraction(Decimal(number.replace(",", "."))) * unit.size, unit)


def _by_halving(bottom: int) -> bool:
    """Whether a fraction is one that a scale shows: halves, quarters ... sixty-fourths."""
    return bottom in (2, 4, 8, 16, 32, 64)


def _whole(exact: Fraction, unit: _Unit) -> int:
    """Finer than a nanometre or nanogram is noise of other programs' decimals; it goes to the nearest. Parts of an
    ounce go down, so that two halves are never more than the ounce, which would be billed as two.
    """
    return exact.__floor__() if unit.system == "pound" else round(exact)


def _plain(text: str, allowed: str, field: str) -> str:
    if len(text) > LONGEST_TEXT:
        raise BadInput("far too long for a measure", read=text, allowed=allowed, field=field)
    # The dash of 5'-3" joins feet to inches; it takes nothing away.
    return _FEET_DASH.sub(r"\1 ", text.translate(_SIGNS).lower().strip())


def _why_unreadable(rest: str, whole: bool) -> str:
    rest = rest.strip()
    if rest.strip("+-") in ("nan", "inf", "infinity"):
        return "not a number"
    if rest.startswith("-"):
        return "a measure below zero"
    return "not understood" if whole else f"{rest!r} is not understood"


def _why_wrong_unit(name: str) -> str:
    if name in _MASSES:
        return "a weight, where a length is wanted"
    if name in _LENGTHS:
        return "a length, where a weight is wanted"
    if name == "x":
        return "several sizes, where one is wanted"
    return f"{name!r} is not a unit known here"

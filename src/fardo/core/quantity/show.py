"""Prints a length or a mass as people read it; what is printed reads back to what was meant.

Inches go in sixteenths and centimetres in tenths unless another step is asked for. `Shown.exact` says whether the
text is the whole truth, so that a screen can say "rounded up".
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from typing import Literal

from fardo.core.quantity.length import MM, NM_PER_INCH, NM_PER_MM, SIXTEENTH, SIXTY_FOURTH, Length, Rounding
from fardo.core.quantity.mass import NG_PER_GRAM, NG_PER_OUNCE, Mass
from fardo.core.quantity.space import cubic_cm, cubic_inches

_FOOT_M = Fraction("0.3048")
Units = Literal["in", "cm"]  # the shop's choice: inches with pounds, or centimetres with kilos

# What a tape measure shows: no figure that is marked, cut or set by is finer.
TAPE: dict[Units, Length] = {"in": SIXTEENTH, "cm": MM}


def on_the_tape(step: Length, units: Units) -> Length:
    """A step of a fence as the tape shows it, never finer.

    >>> on_the_tape(Length.of_mm(1), "in") == SIXTEENTH
    True
    """
    return step.to_step(TAPE[units], "up")


# The finest anyone enters.
FINEST: dict[Units, Length] = {"in": SIXTY_FOURTH, "cm": Length(NM_PER_MM // 10)}


@dataclass(frozen=True, slots=True)
class Shown:
    """A measure in words.

    Args:
        text: with its unit.
        exact: whether nothing was rounded away.
    """

    text: str
    exact: bool

    def __str__(self) -> str:
        return self.text


# A picture of a job shows the same few hundred measures at every stroke.
@lru_cache(maxsize=8192)
def show_length(length: Length, units: Units, rounding: Rounding, step: Length | None = None) -> Shown:
    """``10 1/2 in`` or ``26.7 cm``.

    Args:
        rounding: ``up`` for what must hold, ``down`` for what must fit through.
        step: the finest shown; 1/16 in or 1 mm unless given.

    >>> show_length(Length.of_inches("10.52"), "in", "up").text
    '10 9/16 in'
    """
    stepped = length.to_step(step or TAPE[units], rounding)
    number = _mixed(Fraction(stepped.nm, NM_PER_INCH)) if units == "in" else _decimal(stepped.nm, 10 * NM_PER_MM)
    return Shown(f"{number} {units}", stepped == length)


def show_sizes(
    sizes: tuple[Length, Length, Length], units: Units, rounding: Rounding, step: Length | None = None
) -> Shown:
    """``24 x 12 x 8 in``, each side as `show_length` shows it."""
    sides = [show_length(side, units, rounding, step) for side in sizes]
    return Shown(" x ".join(s.text.removesuffix(f" {units}") for s in sides) + f" {units}", all(s.exact for s in sides))


def both_units(length: Length, rounding: Rounding = "up") -> str:
    """For a sentence that knows no shop: in both units.

    >>> both_units(Length.of_inches("1.3"))
    '1 5/16 in (34 mm)'
    """
    millimetres = length.to_step(MM, rounding).nm // NM_PER_MM
    return f"{show_length(length, 'in', rounding).text} ({millimetres} mm)"


def show_cross(length: Length, width: Length, units: Units, rounding: Rounding) -> str:
    """``24 x 12 in``, a sheet or a blank, each side as `show_length` shows it."""
    a, b = (show_length(side, units, rounding).text for side in (length, width))
    return f"{a.removesuffix(f' {units}')} x {b}"


@lru_cache(maxsize=4096)
def show_mass(mass: Mass, units: Units, rounding: Rounding) -> Shown:
    """``4 lb 6 oz`` to the ounce, or ``2.35 kg`` to ten grams.

    >>> show_mass(Mass.of_grams(2000), "in", "up").text
    '4 lb 7 oz'
    """
    if units == "cm":
        stepped = mass.to_step(Mass(10 * NG_PER_GRAM), rounding)
        return Shown(f"{_decimal(stepped.ng, 1000 * NG_PER_GRAM)} kg", stepped == mass)
    stepped = mass.to_step(Mass(NG_PER_OUNCE), rounding)
    pounds, ounces = divmod(stepped.ng // NG_PER_OUNCE, 16)
    text = " ".join(f"{n} {unit}" for n, unit in ((pounds, "lb"), (ounces, "oz")) if n) or "0 lb"
    return Shown(text, stepped == mass)


def show_addend(mass: Mass, units: Units) -> str:
    """A mass that is one of a sum, to a tenth of an ounce or to the gram: rounded up each, they would come to more.

    >>> show_addend(Mass.of_grams(2000), "in"), show_addend(Mass.of_grams(35), "cm")
    ('4 lb 6.5 oz', '0.035 kg')
    """
    if units == "cm":
        return f"{_decimal(mass.to_step(Mass(NG_PER_GRAM), 'nearest').ng, 1000 * NG_PER_GRAM)} kg"
    tenths = round(Fraction(mass.ng * 10, NG_PER_OUNCE))
    pounds, rest = divmod(tenths, 160)
    said = [(f"{pounds}", "lb"), (f"{rest / 10:g}", "oz")]
    return " ".join(f"{n} {unit}" for n, unit in said if n != "0") or "0 lb"


def show_volume(nm3: int, units: Units) -> str:
    """``1,240 cu in`` or ``20.3 litres``."""
    if units == "in":
        return f"{float(cubic_inches(nm3)):,.0f} cu in"
    return f"{float(cubic_cm(nm3)) / 1000:,.1f} litres"


def show_area(square_metres: Fraction, units: Units) -> str:
    """``12.4 sq ft`` or ``1.2 m²``, up at the last figure."""
    return f"{_tenths_up(square_metres / _FOOT_M**2)} sq ft" if units == "in" else f"{_tenths_up(square_metres)} m²"


def show_run(metres: Fraction, units: Units) -> str:
    """Of what is sold by its length: ``12.4 ft`` or ``3.8 m``, up at the last figure."""
    return f"{_tenths_up(metres / _FOOT_M)} ft" if units == "in" else f"{_tenths_up(metres)} m"


def show_litres(litres: Fraction, units: Units) -> str:
    """``3.5 litres`` in either units, as loose fill is sold; up at the last figure."""
    return f"{_tenths_up(litres)} litres"


def _tenths_up(amount: Fraction) -> str:
    return f"{-(-amount * 10 // 1) / 10:g}"


def _mixed(inches: Fraction) -> str:
    if inches < 0:
        return f"-{_mixed(-inches)}"
    whole, rest = divmod(inches, 1)
    if not rest:
        return str(whole)
    # A step that is no power of two (a tenth, say) is still a fraction people can type back.
    return f"{whole} {rest}" if whole else str(rest)


def _decimal(value: int, per: int) -> str:
    if value < 0:
        return f"-{_decimal(-value, per)}"
    whole, rest = divmod(value, per)
    places = str(rest).rjust(len(str(per)) - 1, "0").rstrip("0")
    return f"{whole}.{places}" if places else str(whole)

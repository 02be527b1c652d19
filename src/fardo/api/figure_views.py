"""Figures in the shop's units, each ready to answer "why"."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from fardo.core.quantity import FINEST, INCH, Length, Mass, Money, Units, show_addend, show_length, show_sizes
from fardo.core.why import Value, Why

_THICK = INCH  # what is less is how thick something is


class WhyView(BaseModel):
    """The formula, what was put in, and the rule or source."""

    formula: str
    values: list[tuple[str, str]]
    rule: str


class Figure(BaseModel):
    """A figure in words. `exact` is false where it was rounded for reading; `rounded` says which way."""

    text: str
    exact: bool = True
    rounded: Literal["up", "down", "nearest"] = "up"
    why: WhyView | None = None


class SizesView(BaseModel):
    """Length, width, height: in millimetres, and in words with and without the unit."""

    mm: tuple[float, float, float]
    sides: tuple[str, str, str]
    figure: Figure


def view_sizes(
    sizes: tuple[Length, Length, Length], units: Units, why: Why | None = None, rounding: Literal["up", "down"] = "up"
) -> SizesView:
    """Sizes in words: `up` for what is needed or measured outside, `down` for the room a box really has."""
    shown = show_sizes(sizes, units, rounding)
    a, b, c = (show_length(side, units, rounding).text.removesuffix(f" {units}") for side in sizes)
    figure = Figure(text=shown.text, exact=shown.exact, rounded=rounding, why=view_why(why, units) if why else None)
    return SizesView(mm=(sizes[0].mm, sizes[1].mm, sizes[2].mm), sides=(a, b, c), figure=figure)


def view_why(why: Why, units: Units) -> WhyView:
    return WhyView(formula=why.formula, values=[(name, say(value, units)) for name, value in why.values], rule=why.rule)


def say(value: Value, units: Units) -> str:
    """A value in words: lengths as the tape shows them, how thick board and wrap are as finely as it was measured,
    weights so that they add up.
    """
    if isinstance(value, Length):
        return show_length(value, units, "nearest", FINEST[units] if value < _THICK else None).text
    if isinstance(value, Mass):
        return show_addend(value, units)
    if isinstance(value, tuple):
        return show_sizes(value, units, "nearest", FINEST[units] if max(value) < _THICK else None).text
    return f"{value} {value.currency}" if isinstance(value, Money) else value

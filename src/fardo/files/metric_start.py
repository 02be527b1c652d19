"""The starting values for a shop that measures in centimetres: each typed length at the nearest round one, weights in
grams, names of boxes by their sides in centimetres.
"""

from __future__ import annotations

import re
from fractions import Fraction
from typing import Any

from fardo.core.quantity import INCH, Length, read_length, read_mass
from fardo.files.shop import ShopFile, starting_shop

_LENGTH = re.compile(r"[\d ./]+ in")
_SIZES = re.compile(r"[\d ./]+( x [\d ./]+){1,2} in")
_MASS = re.compile(r"[\d ./]+ (lb|oz)( [\d./]+ oz)?")
_SIDE = r"\d+(?: \d+/\d+|/\d+|\.\d+)?"
_NAMED = re.compile(rf"{_SIDE}(?: x {_SIDE})+")
_CUBE = re.compile(r"(\d+) cube")
_NAMED_LENGTH = re.compile(rf"({_SIDE}) in\b")
# Up to so long a length is rounded to so many millimetres.
_ROUND: tuple[tuple[Length, Fraction], ...] = (
    (INCH.half().half(), Fraction(1, 2)), (INCH, Fraction(1)), (INCH * 10, Fraction(5)),
)  # fmt: skip


def metric_shop() -> ShopFile:
    """The starting shop in centimetres, on A4."""
    content = _metric(starting_shop().model_dump(mode="json", by_alias=True))
    return ShopFile.model_validate({**content, "units": "cm", "paper": "a4", "fence_step": "1 mm", "kerf": "3 mm"})


def _metric(value: Any) -> Any:
    if isinstance(value, dict):
        told = {name: _metric(one) for name, one in value.items()}
        if isinstance(value.get("name"), str):
            told["name"] = _named(value["name"], sized="inside" in value or "width" in value)
        return told
    if isinstance(value, list):
        return [_metric(one) for one in value]
    if not isinstance(value, str):
        return value
    if _LENGTH.fullmatch(value):
        return _length(read_length(value, "in", zero=True))
    if _SIZES.fullmatch(value):
        return f"{' x '.join(_centimetres(side) for side in _sides(value))} cm"
    if _MASS.fullmatch(value):
        grams = round(read_mass(value, "lb").grams)
        return f"{grams} g" if grams < 1000 else f"{round(grams / 100) / 10:g} kg"
    return value


def _sides(text: str) -> list[Length]:
    return [read_length(f"{side} in", "in") for side in text.removesuffix(" in").split(" x ")]


def _named(name: str, sized: bool) -> str:
    """A name with its lengths in metric ones, as they are rounded.

    Args:
        sized: whether bare sides in it are inches, as of a box.
    """
    if sized:
        name = _CUBE.sub(lambda found: f"{_centimetres(_sides(found[1])[0])} cube", name)
        name = _NAMED.sub(lambda found: " x ".join(_centimetres(side) for side in _sides(found[0])), name)
    return _NAMED_LENGTH.sub(lambda found: _length(_sides(found[1])[0]), name)


def _length(length: Length) -> str:
    step = next((step for most, step in _ROUND if length <= most), Fraction(10))
    millimetres = Fraction(round(Fraction(str(length.mm)) / step)) * step
    return f"{float(millimetres):g} mm" if millimetres < 20 else f"{float(millimetres) / 10:g} cm"


def _centimetres(length: Length) -> str:
    said = _length(length)
    return said.removesuffix(" cm") if said.endswith("cm") else f"{float(said.removesuffix(' mm')) / 10:g}"

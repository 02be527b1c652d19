"""What things are wrapped in, as the shop buys it, and a layer of it on a part."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from typing import Literal, Protocol

from fardo.core.goods.shape import Sizes
from fardo.core.quantity import ZERO, Length, Mass, Money

Side = Literal["all", "left", "right", "front", "back", "below", "above"]
Sold = Literal["m2", "m", "litre", "each"]
BubbleSide = Literal["in", "out"]
MOST_LAYERS = 100

IN_WORDS_OF_SIDES: dict[Side, str] = {
    "all": "All round", "left": "On the left end", "right": "On the right end", "front": "On the front",
    "back": "On the back", "below": "On the underside", "above": "On the top",
}  # fmt: skip
IN_WORDS: dict[Sold, str] = {"m2": "square metre", "m": "metre", "litre": "litre", "each": "piece"}


@dataclass(frozen=True, slots=True)
class Material:
    """A material that goods are wrapped in.

    Args:
        code: how jobs name it.
        form: how it is put on, one of `FORMS`.
        thickness: of one layer, pressed lightly.
        sold: what is counted.
        weight_per: of one of these.
        price_per_100: of a hundred; one may cost less than a coin.
        cushions: whether its thickness counts against a blow.
        width: of the roll or sheet it is cut from, None where it is cut to any width.
        overlap: share of a length added where it meets itself.
        bubbly: whether it has a smooth and a bubble side.
        inner: the widest tube it goes over.
        reach: how far a corner guard goes along the face.
        board: the shop's board an inner box is made of.
        gives: by how much one layer is pressed in on a side.
        tears_every: the length between its perforations, None where it is cut anywhere.
        fills: the hollow that one pad of it fills, cubic nanometres, where stuffing is counted in pads.
        minutes: to put one on, the shop's usual where none is said.
    """

    code: str
    name: str
    form: str
    thickness: Length
    sold: Sold
    weight_per: Mass
    price_per_100: Money
    cushions: bool
    width: Length | None = None
    overlap: Fraction = Fraction(0)
    bubbly: bool = False
    inner: Length | None = None
    reach: Length = ZERO
    board: str | None = None
    gives: Length = ZERO
    tears_every: Length | None = None
    fills: int | None = None
    minutes: Fraction | None = None


class ReadyMade(Protocol):
    """A box or a mailer that is there, which a layer may be."""

    @property
    def name(self) -> str: ...
    @property
    def count(self) -> int: ...
    @property
    def weight(self) -> Mass: ...
    @property
    def price(self) -> Money: ...


@dataclass(frozen=True, slots=True)
class Layer:
    """A material on a part.

    Args:
        layers: how many lie on each other.
        crossed: wound both ways.
        across: how many the second way, as many as the first where nobody said.
        reused: it was used before and costs nothing.
        room: free on each side inside an inner box.
        hollow: what is stuffed or filled inside the thing.
        lengths: of the tubes to cover, or of strips.
        on: which side alone.
        each: on every piece of a pile, before they are piled.
        item: a box or a mailer that is there, which the layer is.
        open: a box without its top flaps, that need not shut.
        bubbles: which way the bubbles look where the shop's habit is not followed.
    """

    material: Material
    layers: int = 1
    crossed: bool = False
    across: int | None = None
    reused: bool = False
    room: Length = ZERO
    hollow: Sizes | None = None
    lengths: tuple[Length, ...] = ()
    bubbles: BubbleSide | None = None
    on: Side = "all"
    each: bool = False
    item: ReadyMade | None = None
    open: bool = False

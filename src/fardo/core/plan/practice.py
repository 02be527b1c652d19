"""A job to practise on: a made-up hand reel with a tape along each side and a scale under it.

What each step asks, and whether it is done, follows from the job as it is. A measure that is off is told by how much
and not what it should be, so that the tape is read again.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from fardo.core.plan.picture import Picture
from fardo.core.quantity import OUNCE, POUND, TAPE, Length, Mass, Units, show_length, show_mass

Side = Literal["length", "width", "height"]
Knot = Literal["measure", "protect", "box", "price"]
_OF_THE_PART = "parts[0]"


@dataclass(frozen=True, slots=True)
class PracticeGoods:
    """What is on the bench.

    Args:
        sides: where the tape along each side ends.
        weight: what the scale shows.
    """

    sides: tuple[tuple[Side, Length], ...]
    weight: Mass


@dataclass(frozen=True, slots=True)
class PracticeStep:
    """One thing to do.

    Args:
        key: its name.
        title: in a word or two.
        says: what to do, and why.
        knot: where it is done.
        done: whether it is.
        off: what is not right yet, in sentences.
    """

    key: str
    title: str
    says: str
    knot: Knot
    done: bool
    off: tuple[str, ...] = ()


_SIDES: dict[Units, tuple[tuple[Side, Length], ...]] = {
    "in": (
        ("length", Length.of_inches("17.625")), ("width", Length.of_inches("11.875")),
        ("height", Length.of_inches("15.5")),
    ),
    "cm": (("length", Length.of_mm(448)), ("width", Length.of_mm(302)), ("height", Length.of_mm(394))),
}  # fmt: skip
_WEIGHT: dict[Units, Mass] = {"in": POUND * 2 + OUNCE * 14, "cm": Mass.of_grams(1300)}


def practice_goods(units: Units) -> PracticeGoods:
    """The reel, in figures that a tape and a scale of these units show."""
    return PracticeGoods(_SIDES[units], _WEIGHT[units])


def practice_steps(picture: Picture, units: Units, first_cut: Length | None = None) -> tuple[PracticeStep, ...]:
    """All there is to do, from the tape to the price, in order.

    Args:
        picture: the job as it is.
        units: of the shop.
        first_cut: what somebody says the fence is set to first; None where nothing was said.
    """
    return tuple(_steps(picture, units, first_cut))


def _steps(picture: Picture, units: Units, first_cut: Length | None) -> Iterator[PracticeStep]:
    job, goods = picture.job, practice_goods(units)
    read = dict(job.read)
    sides = [(side, read.get(f"{_OF_THE_PART}.shape.{side}"), is_so) for side, is_so in goods.sides]
    yield PracticeStep(
        "sides", "Measure",
        "A tape lies along each side of the reel. Read where the side ends and type it under Parts: length, width, "
        "height. Measure unwrapped, at the widest point: the width goes over the crank.",
        "measure", all(typed == is_so for _, typed, is_so in sides),
        tuple(
            _off(side, typed, is_so, units) for side, typed, is_so in sides
            if isinstance(typed, Length) and typed != is_so
        ),
    )  # fmt: skip
    weight = read.get(f"{_OF_THE_PART}.weight")
    shown = show_mass(goods.weight, units, "nearest").text
    yield PracticeStep(
        "weight", "Weigh",
        f"The scale shows {shown}. Type it as the weight. What is packed later is weighed again; until then the board, "
        "the wrap and the fill are added by estimate.",
        "measure", weight == goods.weight,
        (f"Weight: the scale shows {shown}.",) if weight not in (None, goods.weight) else (),
    )  # fmt: skip
    yield PracticeStep(
        "wrap", "Wrap",
        "Add a layer of small bubble, two layers. Beside it stands what to cut from the roll and how much larger the "
        "reel is by it.",
        "protect", any(part.wrapped for part in job.parts),
    )  # fmt: skip
    yield PracticeStep(
        "destination", "Destination",
        "Type a destination postcode that you know. From then on the docket at the right has a total, and each change "
        "of a measure shows what it costs. No total? The docket says what is missing.",
        "measure", job.journey is not None,
    )  # fmt: skip
    yield PracticeStep(
        "box", "Box",
        "Look at Lid and tray, cut from sheet. The inside size is the reel, its wrap and the gap on every side; the "
        "outside is what a carrier measures. Choose this box.",
        "box", job.box is not None,
    )  # fmt: skip
    yield _first_cut(picture, units, first_cut)
    yield PracticeStep(
        "price", "Price",
        "Services stand in a table, the lowest total first: postage, surcharges and your packing together. Unfold a "
        "row to see each line of the bill, then choose one.",
        "price", job.price is not None,
    )  # fmt: skip


def _first_cut(picture: Picture, units: Units, said: Length | None) -> PracticeStep:
    is_chosen = picture.job.box is not None
    fence = picture.current.boxed.made.fence if is_chosen and picture.current else ()
    first = fence[0].fence.to_step(TAPE[units], "nearest") if fence else None
    off = () if said is None or first is None or said == first else (
        f"{show_length(said, units, 'nearest').text} is not the first setting: look at the top row of the list.",
    )  # fmt: skip
    return PracticeStep(
        "cut", "First cut",
        "The cut sheet lists the settings in the order of cutting: first what goes through, so that the piece is "
        "square, then the scores. What is the fence, or the straightedge, set to first?",
        "box", is_chosen and (first is None or said == first), off,  # a box that is not cut has no first cut
    )  # fmt: skip


def _off(side: Side, typed: Length, is_so: Length, units: Units) -> str:
    """What is wrong with a measure: by how much, not what it is."""
    less = typed < is_so
    by = show_length(is_so - typed if less else typed - is_so, units, "nearest", TAPE[units]).text
    then = "The box would come out too small." if less else "The box would be larger than it must be."
    return f"{side.capitalize()}: {by} {'less' if less else 'more'} than the tape shows. {then}"

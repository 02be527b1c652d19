"""The litres that are filled, against points thrown into the box: each is in a wrapped thing or in a void."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import suppress

import numpy as np
import pytest

from fardo.core.arrange.ask import Ask
from fardo.core.arrange.body import Body
from fardo.core.arrange.initial_layout import initial_layout
from fardo.core.arrange.void_space import empty_cells
from fardo.core.goods.gap import Gap
from fardo.core.goods.part import Part
from fardo.core.goods.shape import Box, Cylinder, Ring, Shape
from fardo.core.plan.box import box_for
from fardo.core.plan.boxed import Boxed, box_up
from fardo.core.plan.load import Load, placed
from fardo.core.plan.wrapped import wrap_up
from fardo.core.protect.material import Layer
from fardo.core.quantity import read_mass
from fardo.core.refusal import NoAnswer
from fardo.demo import _JOBS
from fardo.files.job import read_job
from fardo.files.understood import understand
from tests.made_up import inches, shop, sizes

POINTS = 40_000
SHOP = shop()
BUBBLE = Layer(SHOP.materials["bubble-large"], 2)
Inside = Callable[[np.ndarray, float], np.ndarray]


def test_a_side_lower_than_a_cell_is_one_cell_of_room() -> None:
    flat = Body("card", Box(inches("6"), inches("4"), inches("1/4")), weight=read_mass("1 oz"))
    ask = Ask((flat,))
    cells = empty_cells(ask, initial_layout(ask), 25.4)
    assert sorted(cells.shape) == [1, 4, 6]
    assert not cells.any()


def litres(boxed: Boxed, inside_of: Inside | None = None) -> float:
    """Of the inside, how much is in no wrapped thing. Args: inside_of: which bare points are within a growth of one."""
    sides = np.array([side.mm for side in boxed.made.inside])
    points = np.random.default_rng(3).random((POINTS, 3)) * sides
    full = np.zeros(POINTS, dtype=bool)
    for one in placed(boxed.load, boxed.arrangement):
        at, size = (np.array([side.mm for side in corner]) for corner in (one.at, one.sizes))
        near = ((points >= at) & (points <= at + size)).all(axis=1)
        if inside_of is not None:
            bare = (points - [side.mm for side in one.origin]) @ np.array(one.laid.turn, dtype=float)
            near &= inside_of(bare, min(by.mm for by in one.body.grown))
        full |= near
    return float((1 - full.mean()) * sides.prod() / 1e6)


def filled(boxed: Boxed) -> float:
    return sum(float(one.litres) for one in boxed.filling.places)


@pytest.mark.parametrize("job", ["1-concertina", "3-flyer-set", "4-table-loom", "5-stock-saddle", "6-paddles"])
def test_voids_of_the_made_up_shops_jobs_add_up_to_what_is_left(job: str) -> None:
    (path,) = _JOBS.glob(f"{job}*.job.json")
    read, tried = understand(read_job(path.read_bytes()), SHOP, "10440"), 0
    for way in ("slotted", "tray", "shelf", "recut"):
        with suppress(NoAnswer):  # none there is large enough
            boxed = box_for(way, read, SHOP)
            assert filled(boxed) == pytest.approx(litres(boxed), rel=0.02)
            tried += 1
    assert tried >= 3


def in_cylinder(points: np.ndarray, by: float) -> np.ndarray:
    """10 in across, 6 in long, standing."""
    around = np.hypot(points[:, 0] - 127, points[:, 1] - 127)
    return (around <= 127 + by) & (points[:, 2] >= -by) & (points[:, 2] <= 152.4 + by)


def in_ring(points: np.ndarray, by: float) -> np.ndarray:
    """22 in across, open for 18 in, 2 1/4 in thick: its opening stays open, smaller by the wrap."""
    around = np.hypot(points[:, 0] - 279.4, points[:, 1] - 279.4)
    return (around <= 279.4 + by) & (around >= 228.6 - by) & (points[:, 2] >= -by) & (points[:, 2] <= 57.15 + by)


@pytest.mark.parametrize(
    ("shape", "inside_of"),
    [
        (Cylinder(inches("10"), inches("6")), in_cylinder),
        (Ring(inches("22"), inches("18"), inches("2 1/4")), in_ring),
        (Box(*sizes("12 x 9 x 4")), None),
    ],
    ids=["cylinder", "ring", "box"],
)
def test_round_and_open_things_leave_the_room_they_leave(shape: Shape, inside_of: Inside | None) -> None:
    part = Part("thing", shape, read_mass("4 lb"), Gap.even(inches("2")))
    boxed = box_up(Load((wrap_up(part, (BUBBLE,), SHOP),), ()), "slotted", SHOP.grade("C"), SHOP)
    assert filled(boxed) == pytest.approx(litres(boxed, inside_of), rel=0.02)

"""Small changes that make a job cheaper: one layer less, one step further apart, the goods pressed in."""

from __future__ import annotations

from typing import Any

import pytest

from fardo.core.plan.box import box_for
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.picture import Picture, choice_of_box, draw_up
from fardo.core.plan.savings import holds_as_well
from fardo.core.tariff.carriers import Carriers
from fardo.files.changes import changes
from fardo.files.job import JobFile
from fardo.files.understood import understand
from tests.made_up import inches, services, shop

EVERY = Carriers(services())


def wrapped(layers: int, fragility: str | None = "does-not-break", **said: Any) -> JobFile:
    size = {"kind": "box", "length": "12 in", "width": "9 in", "height": "6 in"}
    one = {"name": "box of reeds", "weight": "3 lb", "gap": "0", "fragility": fragility, "shape": size,
           "protect": [{"material": "bubble-small", "layers": layers}]}  # fmt: skip
    return JobFile.model_validate({"ship": {"to": "73120"}, "ways": ["slotted"], "parts": [one], **said})


def drawn(job: JobFile) -> Picture:
    return draw_up(understand(job, shop(), "10440"), shop(), EVERY)


def boxed(job: JobFile) -> Boxed:
    return box_for("slotted", understand(job, shop(), "10440"), shop())


def said(job: JobFile) -> list[str]:
    return [one.says for one in changes(job, understand(job, shop(), "10440"), shop())]


def test_a_box_is_cut_smaller_by_what_the_goods_are_pressed_in() -> None:
    load = understand(wrapped(2), shop(), "10440").must_load()
    by = load.gives
    assert by == inches("1/8")  # two layers, two sides, 1/32 in each: the shop's material
    loose, tight = boxed(wrapped(2)), boxed(wrapped(2, pressed="1/8 in"))
    assert tight.arrangement.inside == loose.arrangement.inside
    for side in range(3):
        assert loose.made.inside[side] - tight.made.inside[side] == by
        assert loose.made.outside[side] - tight.made.outside[side] == by
    assert tight.made.steps[-1].measures == (by,)
    assert "Press the goods in" in tight.made.steps[-1].do
    # What is pressed in gives no way any more.
    rugged, pressed = drawn(wrapped(5, "rugged")), drawn(wrapped(5, "rugged", pressed="1/8 in"))
    (loose_check,), (tight_check,) = (
        [part.check for part in picture.parts if part.check is not None] for picture in (rugged, pressed)
    )
    assert loose_check.has - tight_check.has == by.half()
    # Another press is another box than was chosen.
    assert choice_of_box(tight.made) != choice_of_box(loose.made)


def test_more_than_the_wrap_gives_is_refused_with_what_it_gives() -> None:
    (problem,) = understand(wrapped(2, pressed="1/4 in"), shop(), "10440").problems
    assert problem.field == "pressed"
    assert "up to 1/8 in" in str(problem)


@pytest.mark.parametrize(("layers", "by"), [(1, "1/16 in"), (3, "3/16 in")])
def test_goods_are_pressed_in_by_what_a_tape_shows(layers: int, by: str) -> None:
    (pressed,) = (one for one in said(wrapped(layers)) if one.startswith("Press"))
    assert pressed == f"Press the goods in by {by} each way, as far as the wrap gives"


def test_one_layer_less_only_where_a_check_says_what_is_left() -> None:
    less = "Put one layer less of small bubble, 3/16 in"
    assert [one for one in said(wrapped(3)) if one.startswith("Put")] == [less]
    assert not [one for one in said(wrapped(1)) if one.startswith("Put")]
    assert not [one for one in said(wrapped(3, None)) if one.startswith("Put")]


def test_what_leaves_too_little_cushion_does_not_hold() -> None:
    enough = wrapped(1, "does-not-break")
    assert holds_as_well(drawn(enough), drawn(wrapped(2)))
    before, after = drawn(wrapped(5, "rugged")), drawn(wrapped(4, "rugged"))
    short = [part.check.enough for picture in (before, after) for part in picture.parts if part.check is not None]
    assert short == [True, False]
    assert not holds_as_well(after, before)
    assert not holds_as_well(drawn(wrapped(3, "rugged")), after)  # what falls short is not made to fall shorter


@pytest.mark.parametrize("chosen", [True, False])
def test_a_step_that_is_not_taken_yet_is_tried(chosen: bool) -> None:
    step = {"id": "legs", "do": "Twist the legs out.", "saves": {"height": "2 in"}, "chosen": chosen}
    job = wrapped(1, take_apart=[step])
    told = [one for one in changes(job, understand(job, shop(), "10440"), shop()) if "apart" in one.says]
    assert [one.says for one in told] == ([] if chosen else ["Twist the legs out: one step further apart"])
    for one in told:
        assert one.job.parts[0].shape.height == "4 in"  # type: ignore[union-attr]
        assert one.job.take_apart[0].chosen


def test_trying_a_change_leaves_the_job_as_it_was() -> None:
    job = wrapped(3)
    before = job.model_dump_json()
    less = [one.job.parts[0].protect[0].layers for one in changes(job, understand(job, shop(), "10440"), shop())]
    assert 2 in less
    assert job.model_dump_json() == before

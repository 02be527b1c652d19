"""What a job says: every shape read, what is missing named for its part, what is wrong named by its field."""

from __future__ import annotations

import math
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.goods.gap import Gap
from fardo.core.goods.shape import MEASURED, Bars, Box, Compound, Cylinder, Outline, Shape
from fardo.core.plan.job import Job
from fardo.core.quantity import INCH
from fardo.files.job import JobFile, plain, read_job, write_job
from fardo.files.typed import with_units
from fardo.files.understood import understand
from tests.made_up import inches, job, part, shop, sizes

SHOP = shop()
METRIC = type(SHOP)(**{**{name: getattr(SHOP, name) for name in SHOP.__dataclass_fields__}, "units": "cm"})


def said(**changes: Any) -> Job:
    return understand(JobFile.model_validate(job(**changes)), SHOP)


def shape_of(shape: dict[str, Any]) -> Shape:
    found = said(parts=[part(shape=shape)])
    assert (found.problems, found.missing) == ((), ())
    return found.parts[0].units[0].shape


def fault(**of_part: Any) -> str:
    (problem,) = said(parts=[part(**of_part)]).problems
    return problem.sentence


@pytest.mark.parametrize("kind", MEASURED)
def test_every_measured_shape_is_read_from_its_measures(kind: str) -> None:
    typed = {asked.name: f"{9 - n} 1/2 in" for n, asked in enumerate(MEASURED[kind].ASKED)}
    shape = shape_of({"kind": kind, **typed})
    assert type(shape) is MEASURED[kind]
    for name, text in typed.items():
        assert getattr(shape, name) == inches(text)


@pytest.mark.parametrize("kind", MEASURED)
def test_every_measure_that_is_missing_is_named(kind: str) -> None:
    labels = [asked.label.lower() for asked in MEASURED[kind].ASKED]
    assert said(parts=[part(shape={"kind": kind})]).missing == tuple(labels)
    two = said(parts=[part(), part(name="horn", shape={"kind": kind}, weight=None)])
    assert two.missing == (*(f"{label} of horn" for label in labels), "weight of horn")


def test_an_outline_begins_at_nothing_wherever_its_corners_were_typed() -> None:
    shape = shape_of({"kind": "outline", "thickness": "1/2 in", "points": [["-3", "1"], ["9", "1"], ["9", 152.4]]})
    assert isinstance(shape, Outline)
    assert shape.sizes == sizes("12 x 5 x 1/2")
    assert shape.points[0] == (inches("0"), inches("0"))


def test_a_pole_is_as_long_as_the_tape_says() -> None:
    """Common practice: a tube is sawn off flat, so the tape says what is between its ends."""
    shape = shape_of({"kind": "bars", "diameter": "1", "members": [[["0", "0", "0"], ["12", "0", "0"]]]})
    assert isinstance(shape, Bars)
    assert shape.sizes == sizes("12 x 1 x 1")
    assert shape.lengths == (inches("12"),)


def test_bars_are_round_where_they_meet_and_flat_where_they_end() -> None:
    """A treadle of three bars in a right angle: half a diameter beyond the corner, none beyond the free ends."""
    corner = ["0", "0", "0"]
    shape = shape_of(
        {"kind": "bars", "diameter": "1", "members": [[["8", "0", "0"], corner], [corner, ["0", "6", "0"]]]}
    )
    assert isinstance(shape, Bars)
    assert shape.sizes == sizes("8 1/2 x 6 1/2 x 1")
    assert shape.lengths == (inches("8 1/2"), inches("6 1/2"))


def test_bars_that_go_on_in_a_line_are_as_much_as_one_bar() -> None:
    """The balls where they meet lie within them: pi / 4 x 2 x 2 x 4 cubic inches either way."""
    ends = ["0", "0", "0"], ["2", "0", "0"], ["4", "0", "0"]
    whole = shape_of({"kind": "bars", "diameter": "2", "members": [[ends[0], ends[2]]]})
    parted = shape_of({"kind": "bars", "diameter": "2", "members": [[ends[0], ends[1]], [ends[1], ends[2]]]})
    assert whole.volume_nm3 / INCH.nm**3 == pytest.approx(math.pi * 4, rel=1e-6)
    assert parted.volume_nm3 == pytest.approx(whole.volume_nm3, rel=0.01)


def test_a_compound_of_compounds_is_read_and_too_deep_a_one_refused() -> None:
    shape: dict[str, Any] = {"kind": "box", "length": "4", "width": "3", "height": "2"}
    for depth in range(1, 8):
        shape = {"kind": "compound", "of": [{"shape": shape, "at": ["1", "0", "0"]}]}
        if depth <= 4:
            assert isinstance(shape_of(shape), Compound)
            assert shape_of(shape).sizes == sizes("4 x 3 x 2")
        else:
            assert "within" in fault(shape=shape)


def test_more_shapes_in_a_part_than_are_united_at_a_stroke_are_refused() -> None:
    leaf = {"shape": {"kind": "box", "length": "1", "width": "1", "height": "1"}}
    branch = {"shape": {"kind": "compound", "of": [leaf] * 50}}
    assert "at most 120 in a part" in fault(shape={"kind": "compound", "of": [branch] * 3})


def test_a_shape_of_a_compound_without_a_place_is_at_its_corner() -> None:
    leg = {"kind": "box", "length": "2", "width": "2", "height": "6"}
    top = {"kind": "box", "length": "12", "width": "10", "height": "1"}
    stool = {"kind": "compound", "of": [{"shape": leg}, {"shape": top, "at": ["0", "0", "6"]}]}
    assert shape_of(stool).sizes == sizes("12 x 10 x 7")


def test_a_quarter_turn_in_a_compound_changes_its_sides() -> None:
    turned = {
        "shape": {"kind": "box", "length": "9", "width": "3", "height": "2"},
        "turn": [[0, -1, 0], [1, 0, 0], [0, 0, 1]],
    }
    assert shape_of({"kind": "compound", "of": [turned]}).sizes == sizes("3 x 9 x 2")


@pytest.mark.parametrize(
    ("shape", "says"),
    [
        ({"kind": "outline", "thickness": "1", "points": [["0", "0"], ["1", "1"]]}, "shape.points: read '2 corners'"),
        ({"kind": "outline", "thickness": "1", "points": [["0", "0"], ["1", "1"], ["2", "2"]]}, "lie on one line"),
        ({"kind": "outline", "thickness": "x", "points": [["0", "0"], ["9", "0"], ["0", "9"]]}, "thickness: read"),
        ({"kind": "outline", "thickness": "1", "points": [["0", "0"], ["wide", "0"], ["0", "9"]]},
         "parts[0].shape.points[1][0]"),
        ({"kind": "outline", "thickness": "1", "points": [["0", "0"], ["9", "0"], ["0", "9"]],
          "holes": [[["20", "20"], ["21", "20"], ["21", "21"]]]}, "parts[0].shape.holes[0]"),
        ({"kind": "bars", "diameter": "1", "members": []}, "1 to 60 bars"),
        ({"kind": "compound", "of": []}, "1 to 60 shapes"),
        ({"kind": "compound", "of": [{"shape": {"kind": "box", "length": "1", "width": "1", "height": "1"},
                                      "turn": [[2, 0, 0], [0, 1, 0], [0, 0, 1]]}]}, "parts[0].shape.of[0].turn"),
        ({"kind": "compound", "of": [{"shape": {"kind": "box", "length": "1", "width": "1", "height": "1"},
                                      "turn": [[1, 0], [0, 1]]}]}, "three rows of three"),
        ({"kind": "compound", "of": [{"shape": {"kind": "disc", "diameter": "-2", "thickness": "1"}}]},
         "parts[0].shape.of[0].shape.diameter"),
        ({"kind": "ring", "outer_diameter": "5", "inner_diameter": "6", "thickness": "1"}, "inner_diameter"),
    ],
)  # fmt: skip
def test_what_is_wrong_in_a_shape_is_named_by_its_field(shape: dict[str, Any], says: str) -> None:
    assert says in fault(shape=shape)


def test_how_fragile_a_thing_is_gives_the_gap_that_was_not_said() -> None:
    """A boxed article, and what does not break, 1/2 in; ordinary goods 2, fragile ones 3 to 4 (common practice; the
    figures are the shop's).
    """
    gaps = {
        None: "1/2", "does-not-break": "1/2", "rugged": "1", "moderately-rugged": "2", "moderately-delicate": "2",
        "delicate": "3", "very-delicate": "3", "extremely-fragile": "4", "20 G": "4", "300 G": "1",
    }  # fmt: skip
    for fragility, gap in gaps.items():
        unit = said(parts=[part(fragility=fragility, gap=None)]).parts[0].units[0]
        assert unit.part.gap == Gap.even(inches(gap)), fragility
    assert said(parts=[part(fragility="extremely-fragile", gap="1/2")]).parts[0].units[0].part.gap == Gap.even(
        inches("1/2")
    )


def test_a_row_begun_and_left_empty_is_none_wherever_it_stands() -> None:
    found = said(parts=[{"name": ""}, part(), {"name": ""}])
    assert found.missing == ()
    assert [len(part.units) for part in found.parts] == [0, 1, 0]
    assert said(parts=[{"name": ""}]).missing == ("length", "width", "height", "weight")


def test_two_rows_that_say_the_same_are_two_things() -> None:
    found = said(parts=[part(), part(), {"name": ""}, part()])
    assert [len(part.units) for part in found.parts] == [1, 1, 0, 1]
    assert found.load is not None
    assert len(found.load.units) == 3


def test_a_sleeve_that_holds_fewer_makes_more_piles() -> None:
    flat = {"shape": {"kind": "box", "length": "9", "width": "6", "height": "1/8"}, "count": 23}
    piles = lambda **said_: [u.pile for u in said(parts=[part(**flat, **said_)]).parts[0].units]  # noqa: E731
    assert piles(piles=3) == [8, 8, 7]
    assert piles(sleeve_holds=8) == [8, 8, 7]
    assert piles(piles=2, sleeve_holds=6) == [6, 6, 6, 5]
    assert piles() == [1] * 23


def test_layers_ask_for_what_their_form_needs() -> None:
    assert "protect[0].hollow" in fault(protect=[{"material": "stuffing"}])
    assert "protect[1].room" in fault(protect=[{"material": "tissue"}, {"material": "inner-box", "room": "-1"}])
    assert "not put on a part" in fault(protect=[{"material": "liner-board"}])
    tubes = said(parts=[part(protect=[{"material": "pipe-foam", "lengths": ["12", "30 cm"]}])]).parts[0].units[0]
    assert [cut.length for cut in tubes.coats[0].cuts] == [inches("12"), inches("30 cm")]


def test_what_was_typed_means_the_same_after_the_shop_goes_metric() -> None:
    """A bare number gets the shop's unit when it is kept; everywhere a measure may stand."""
    parts = [
        part(gap="1", weight="2", protect=[{"material": "inner-box", "room": "1 1/2"},
                                           {"material": "stuffing", "hollow": "4 x 3 x 2"}]),
        part(shape={"kind": "bars", "diameter": "1", "members": [[["0", "0", "0"], ["9", "0", "0"]]]},
             protect=[{"material": "pipe-foam", "lengths": ["7", "30 mm"]}]),
        part(shape={"kind": "compound", "of": [
            {"shape": {"kind": "cylinder", "diameter": "3", "length": "8"}, "at": ["1", "2", "3"]}]}),
        part(shape={"kind": "outline", "thickness": "1/2", "points": [["0", "0"], ["9", "0"], ["0", "9"]]}),
    ]  # fmt: skip
    before = JobFile.model_validate(job(parts=parts, extras=[{"name": "card", "size": "6 x 4 x 1/8", "weight": "1"}]))
    kept = with_units(before, "in")
    in_inches, in_metric = understand(before, SHOP), understand(kept, METRIC)
    assert in_metric.problems == ()
    for one, other in zip((p.units for p in in_inches.parts), (p.units for p in in_metric.parts), strict=True):
        assert [unit.sizes for unit in one] == [unit.sizes for unit in other]
        assert [unit.goods_weight for unit in one] == [unit.goods_weight for unit in other]
        assert [unit.part.gap for unit in one] == [unit.part.gap for unit in other]
    assert in_inches.load is not None
    assert in_metric.load is not None
    assert in_inches.load.extras == in_metric.load.extras
    assert with_units(kept, "in") == kept


length = st.integers(1, 640).map(lambda n: f"{n}/16 in")


@st.composite
def any_part(draw: st.DrawFn) -> dict[str, Any]:
    kind = draw(st.sampled_from(["box", "cylinder", "disc", "taper", "ellipsoid"]))
    shape = {"kind": kind, **{asked.name: draw(length) for asked in MEASURED[kind].ASKED}}
    return {
        "name": draw(st.text(st.characters(codec="utf-8", exclude_categories=["Cs", "Cc"]), max_size=20)),
        "count": draw(st.integers(1, 5)),
        "weight": f"{draw(st.integers(1, 400))} oz",
        "shape": shape,
        "protect": [
            {"material": code} for code in draw(st.lists(st.sampled_from(["tissue", "bubble-small"]), max_size=2))
        ],
        "guessed": draw(st.booleans()),
    }


@given(st.lists(any_part(), min_size=1, max_size=5))
def test_a_job_written_and_read_again_says_the_same(parts: list[dict[str, Any]]) -> None:
    before = JobFile.model_validate(job(parts=parts))
    after = read_job(write_job(before))
    assert after == before
    assert plain(after) == plain(before)
    assert understand(after, SHOP).load == understand(before, SHOP).load


def test_a_job_of_before_there_were_parts_of_every_shape_is_read_as_it_was() -> None:
    old = job()
    shape = understand(JobFile.model_validate(old), SHOP).parts[0].units[0].shape
    assert shape == Box(*sizes("9 1/2 x 9 1/2 x 8"))
    assert isinstance(Cylinder(inches("2"), inches("3")), Shape)


@pytest.mark.parametrize(
    ("changes", "most"),
    [
        (lambda n: {"count": n}, 999),
        (lambda n: {"protect": [{"material": "bubble-small", "layers": n}]}, 100),
        (lambda n: {"protect": [{"material": "bubble-small", "layers": 2, "crossed": True, "across": n}]}, 100),
    ],
)
def test_counts_are_taken_up_to_their_most_and_no_further(changes: Any, most: int) -> None:
    assert said(parts=[part(**changes(most))]).problems == ()
    assert str(most) in fault(**changes(most + 1))

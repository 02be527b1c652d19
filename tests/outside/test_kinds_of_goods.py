"""Kinds of goods: each complete, valid by its JSON Schema (a general-purpose validator), planned without a fault."""

from __future__ import annotations

import json
import tomllib
from importlib.resources import files
from pathlib import Path

import jsonschema
import pytest

from fardo.core.goods.hazard import QUESTIONS
from fardo.core.plan.boxed import box_up
from fardo.core.refusal import NoAnswer
from fardo.files.job import JobFile
from fardo.files.kind import KindFile, kind_of_job, shipped_kinds, start_job, steps_of, take_step
from fardo.files.shop import starting_shop
from fardo.files.typed import with_units
from fardo.files.understood import understand
from tests.made_up import ranked, services

KINDS = {kind.code: kind for kind in shipped_kinds()}
SHOP_FILE = starting_shop()
SHOP = SHOP_FILE.to_core()
# The kinds that practitioners name, and some more they would miss.
ROWS = {
    "bicycle", "electric-bike", "wheels", "golf-bag", "riding-saddle", "laptop", "rack-unit", "record-deck",
    "framed-picture", "glass-lamp", "pottery", "books", "sleeved-flats", "cased-collectible", "cards-stationery",
    "shoes", "textiles", "articulated-model", "board-set", "heavy-tool", "instrument",
}  # fmt: skip
MORE = {
    "spinning-wheel", "table-loom", "concertina", "long-poles", "flat-screen", "mirror", "sewing-machine",
    "engine-tool",
}  # fmt: skip
# Too large for any sheet in a starting shop's stock, which is said in words.
LARGER_THAN_A_SHEET = {"electric-bike"}

each = pytest.mark.parametrize("kind", KINDS.values(), ids=lambda kind: kind.code)


def begun(kind: KindFile) -> JobFile:
    job = start_job(kind, "", SHOP_FILE)
    return job.model_copy(update={"ship": job.ship.model_copy(update={"origin": "10440", "to": "21877"})})


def whole_job(kind: KindFile) -> JobFile:
    """Begun with no step taken."""
    steps = [step.model_copy(update={"chosen": False}) for step in kind.steps]
    return start_job(kind.model_copy(update={"steps": steps}), "", SHOP_FILE)


def test_every_row_of_the_trade_has_its_kind() -> None:
    assert set(KINDS) == ROWS | MORE


@each
def test_a_kind_is_complete(kind: KindFile) -> None:
    for sentences in (kind.weak_points, kind.protection, kind.arrangement, kind.checks):
        assert sentences
        assert all(len(sentence) > 2 for sentence in sentences)
    assert kind.about
    assert kind.fill.why
    assert kind.steps
    assert all(code in QUESTIONS for code in kind.questions)
    parts = [*kind.parts, *(part for step in kind.steps for part in step.frees)]
    for part in parts:
        assert part.name
        assert part.weight
    assert any(part.protect for part in parts) or kind.liner
    for step in kind.steps:
        assert step.do[0].isupper()
        assert step.back, f"{kind.code}: {step.id} does not say how it goes back"
        # Nothing comes off that has no tool, no hand and no thread named for it.
        assert step.tool or step.caution


@each
def test_a_kind_file_is_valid_by_its_schema(kind: KindFile) -> None:
    schema = json.loads((Path(__file__).resolve().parents[2] / "docs/formats/fardo-kind-1.schema.json").read_text())
    content = tomllib.loads(files("fardo.files").joinpath(f"kinds/{kind.code}.toml").read_text("utf-8"))
    jsonschema.Draft202012Validator(schema).validate(content)


@each
def test_a_kind_is_understood_and_planned_without_a_fault(kind: KindFile) -> None:
    job = begun(kind)
    said = understand(job, SHOP)
    assert (said.problems, said.missing, said.beyond) == ((), (), None)
    assert said.guessed
    load = said.must_load()
    for way in ("tray", "slotted"):
        boxed = box_up(load, way, SHOP.grade(job.board), SHOP)
        assert boxed.weights.total > load.goods_weight
    assert said.journey is not None
    if kind.code in LARGER_THAN_A_SHEET:
        with pytest.raises(NoAnswer, match="no sheet of"):
            ranked(load, ["tray", "slotted"], said.journey, services(), SHOP, board=job.board)
    else:
        assert ranked(load, ["tray", "slotted"], said.journey, services(), SHOP, board=job.board)


@each
def test_taking_every_step_and_leaving_it_again_changes_nothing(kind: KindFile) -> None:
    """Steps are worked from top to bottom, undone from bottom to top; every measure comes back."""
    whole = whole_job(kind)
    job = whole
    for step in kind.steps:
        job = take_step(job, step.id, True, SHOP)
        assert len(job.parts) == len(whole.parts) + sum(len(s.frees) for s in job.take_apart if s.chosen)
    assert [step.id for step in steps_of(job)] == [step.id for step in kind.steps]
    assert understand(job, SHOP).problems == ()
    for step in reversed(kind.steps):
        job = take_step(job, step.id, False, SHOP)
    before, after = understand(whole, SHOP), understand(job, SHOP)
    assert [part.units[0].shape for part in after.parts] == [part.units[0].shape for part in before.parts]
    assert steps_of(job) == ()


@each
def test_what_comes_off_weighs_what_it_weighed_before(kind: KindFile) -> None:
    job = whole_job(kind)

    def all_of_it(said: JobFile) -> int:
        return sum(unit.goods_weight.ng for part in understand(said, SHOP).parts for unit in part.units)

    whole = all_of_it(job)
    for step in kind.steps:
        job = take_step(job, step.id, True, SHOP)
        # A share of several alike may leave a nanogram each.
        assert abs(all_of_it(job) - whole) <= 1000, step.id


@each
def test_every_step_that_saves_makes_the_thing_smaller(kind: KindFile) -> None:
    job = whole_job(kind)
    for step in kind.steps:
        if step.of:  # another part's measures
            continue
        before = understand(job, SHOP).parts[0].units[0].shape.sizes
        job = take_step(job, step.id, True, SHOP)
        after = understand(job, SHOP).parts[0].units[0].shape.sizes
        assert all(a <= b for a, b in zip(after, before, strict=True))
        assert (after != before) == bool(step.saves), step.id


def test_arms_are_folded_or_not_and_straight_again() -> None:
    """A choice changes the measures of the part it is of, and left again gives them back."""

    def arm(job: JobFile) -> list[float]:
        part = next(part for part in understand(job, SHOP).parts if part.name == "arm")
        return sorted(float(side.inches) for side in part.units[0].shape.sizes)

    straight = begun(KINDS["articulated-model"])
    folded = take_step(straight, "fold-arms", True, SHOP)
    assert arm(folded)[-1] == arm(straight)[-1] - 6
    assert arm(folded)[0] == arm(straight)[0] + 1.5
    assert arm(take_step(folded, "fold-arms", False, SHOP)) == arm(straight)


def test_the_usual_bicycle_goes_in_a_box_of_54_8_28() -> None:
    """Common practice for the frame with everything off and the rear wheel in: it lies flat, six inches thick."""
    (frame,) = understand(begun(KINDS["bicycle"]), SHOP).parts[0].units
    assert [float(side.inches) for side in frame.shape.sizes] == [54, 28, 6]


def test_the_left_pedals_turn_stands_at_its_step() -> None:
    """Common practice: the left pedal has a left-hand thread and unscrews clockwise."""
    step = next(step for step in begun(KINDS["bicycle"]).take_apart if step.id == "pedals")
    assert "left pedal unscrews clockwise" in step.turn
    assert "L on the left turning anticlockwise" in step.back


@pytest.mark.parametrize("code", ["electric-bike", "laptop"])
def test_what_has_a_battery_asks_for_it_and_cautions_at_the_step(code: str) -> None:
    job = begun(KINDS[code])
    assert "battery" in job.questions
    step = next(step for step in job.take_apart if "battery" in step.caution.lower())
    assert "49 CFR 173.185" in step.caution


@pytest.mark.parametrize("code", ["electric-bike", "rack-unit", "sewing-machine"])
def test_the_lifting_caution_stands_where_it_is_lifted(code: str) -> None:
    step = next(step for step in begun(KINDS[code]).take_apart if step.id == "lift")
    assert "Over 50 lb" in step.caution
    assert "two people" in step.caution


def test_what_was_measured_is_kept_when_a_step_is_left_and_taken_again() -> None:
    job = begun(KINDS["table-loom"])
    reed = next(part for part in job.parts if part.name == "reed")
    reed.shape.length = "23 1/2 in"
    reed.guessed = False
    left = take_step(job, "reed", False, SHOP)
    assert "reed" not in [part.name for part in left.parts]
    again = take_step(left, "reed", True, SHOP)
    back = next(part for part in again.parts if part.name == "reed")
    assert (back.shape.length, back.guessed) == ("23 1/2 in", False)


def test_a_finished_job_becomes_a_kind_with_what_was_measured() -> None:
    job = with_units(begun(KINDS["concertina"]), "in")
    job.parts[0].shape.length = "10 in"
    kind = kind_of_job(job, "my-concertina", "My concertina", KINDS["concertina"])
    assert kind.parts[0].shape.length == "10 in"
    assert kind.weak_points == KINDS["concertina"].weak_points
    again = start_job(kind, "", SHOP_FILE)
    assert [step.chosen for step in again.take_apart] == [step.chosen for step in job.take_apart]
    assert understand(again, SHOP).problems == ()


def test_a_shops_habits_are_on_the_list_of_every_new_job() -> None:
    for kind in (None, KINDS["table-loom"]):
        names = [extra.name for extra in start_job(kind, "", SHOP_FILE).extras]
        assert "packing slip and note" in names

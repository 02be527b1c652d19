"""The packing steps of a plan: nothing it counts is left out, nothing is done twice, in the order of the bench."""

from __future__ import annotations

from collections import Counter
from dataclasses import replace
from fractions import Fraction
from typing import Any

import pytest

from fardo.core.make import WAYS
from fardo.core.make.stock import closing_tape
from fardo.core.pack.fetch import PLACES, to_fetch
from fardo.core.pack.marks import opening
from fardo.core.pack.packing_step import BoardUsed, BoxUsed, FillUsed, PackingStep, WrapUsed
from fardo.core.pack.steps import ToPack, packing_steps
from fardo.core.plan.box import box_for
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.job import Job
from fardo.core.plan.load import arrange, placed
from fardo.core.plan.parts import wrap_used
from fardo.core.plan.tape import TapeStrips, plan_tape
from fardo.core.quantity import INCH, POUND
from fardo.files.job import JobFile
from fardo.files.kind import start_job, steps_of, take_step
from fardo.files.shop import starting_shop
from fardo.files.understood import understand
from tests.core.test_packers_sense import KINDS, of_kind
from tests.core.test_whole_cost import block, job_of
from tests.made_up import inches, job, part, shop, sizes


def used(steps: tuple[PackingStep, ...], kind: type) -> list[Any]:
    return [one for step in steps for one in step.used if isinstance(one, kind)]


@pytest.mark.parametrize("code", sorted(KINDS))
def test_what_the_steps_take_is_what_the_plan_counts(code: str) -> None:
    picture = of_kind(code)
    for way in picture.ways:
        boxed = way.boxed
        steps = packing_steps(ToPack(picture.job, boxed, shop()))
        assert sum(one.total.nm for one in used(steps, TapeStrips)) == boxed.tape_length.nm
        assert sum((step.minutes for step in steps), Fraction(0)) == boxed.minutes
        wrap: Counter[str] = Counter()
        for coat in boxed.coats:
            wrap[coat.material.code] += coat.amount  # type: ignore[assignment]
        for one in used(steps, WrapUsed):
            wrap[one.material.code] -= one.amount  # type: ignore[assignment]
        assert {code: left for code, left in wrap.items() if left} == {}
        filled = sum((one.stuffed for one in boxed.filling.places), Fraction(0))
        assert sum((one.litres for one in used(steps, FillUsed)), Fraction(0)) == filled
        # A used box that is re-cut is drawn as a blank, and no board is fetched for it.
        cut = [blank for insert in boxed.inserts for blank in insert.blanks]
        cut += [] if boxed.made.taken else boxed.made.blanks
        board = Counter({(blank.name, blank.size): blank.count for blank in cut})
        assert Counter({(one.blank, one.size): one.count for one in used(steps, BoardUsed)}) == board
        assert {one.name: one.count for one in used(steps, BoxUsed)} == {t.item.name: t.count for t in boxed.made.taken}


@pytest.mark.parametrize("code", sorted(KINDS))
def test_every_thing_goes_in_once_and_is_counted(code: str) -> None:
    picture = of_kind(code)
    steps = packing_steps(ToPack(picture.job, picture.ways[0].boxed, shop()))
    assert len({step.key for step in steps}) == len(steps)
    load = picture.ways[0].boxed.load
    placed = [step for step in steps if step.key.startswith("place ")]
    assert [step.goes_in for step in placed] == list(range(1, len(placed) + 1))
    assert len(placed) == len(load.units) + sum(not extra.lies_flat for extra in load.extras)
    (check,) = [dict(step.count) for step in steps if step.count]
    parts = Counter[str]()
    for unit in load.units:
        parts[unit.part.name] += unit.pile
    assert {name: check[name] for name in parts} == parts
    assert {extra.name for extra in load.extras} <= set(check)


@pytest.mark.parametrize("code", sorted(KINDS))
def test_what_a_kind_has_checked_is_checked_before_it_is_closed(code: str) -> None:
    job = start_job(KINDS[code], "", starting_shop())
    assert job.checklist == list(KINDS[code].checks)
    picture = of_kind(code)
    to_pack = ToPack(picture.job, picture.ways[0].boxed, shop(), steps_of(job), checklist=job.checklist)
    steps = packing_steps(to_pack)
    told = [step.says[0] for step in steps if step.key.startswith("own check")]
    assert told == job.checklist
    assert all(step.section == "Check" for step in steps if step.key.startswith("own check"))


def order_of(steps: tuple[PackingStep, ...], *keys: str) -> list[int]:
    found = [step.key for step in steps]
    return [found.index(key) for key in keys]


def wheel(**said: Any) -> tuple[Job, JobFile]:
    file = JobFile.model_validate({
        "ship": {"to": "73120"}, "ways": ["slotted", "tray", "mailer"],
        "parts": [part(name="drive wheel", weight="6 lb", gap="2 in",
                       shape={"kind": "box", "length": "20 in", "width": "20 in", "height": "3 in"},
                       protect=[{"material": "bubble-large", "layers": 1}]),
                  part(name="bench", weight="31 lb", gap="2 in",
                       shape={"kind": "box", "length": "20 in", "width": "12 in", "height": "8 in"})],
        "extras": [{"name": "packing slip", "size": "11 x 8 1/2 x 1/64 in"},
                   {"name": "oil bottle", "size": "4 x 2 x 2 in"}],
        **said,
    })  # fmt: skip
    return understand(file, shop(), "10440"), file


def test_the_order_is_that_of_the_bench() -> None:
    job, _ = wheel()
    steps = packing_steps(ToPack(job, box_for("slotted", job, shop()), shop()))
    keys = ("wrap drive wheel bubble-large", "box", "make 1", "make 5", "fill under", "place 0", "fill top",
            "last packing slip", "inside address", "all in", "shake", "tape top", "weigh", "measure",
            "label", "hand over")  # fmt: skip
    places = order_of(steps, *keys)
    assert places == sorted(places)
    # The picture beside a step shows what is in the box by then: nothing over the first fill, all of it from the top's.
    goes_in = {step.key: step.goes_in for step in steps}
    assert (goes_in["fill under"], goes_in["place 0"], goes_in["fill top"]) == (0, 1, goes_in["inside address"])
    # The bench needs two to lift it, the closed parcel too.
    assert {step.key for step in steps if step.people == 2} == {"place 1", "shake", "weigh", "hand over"}


def test_a_tray_is_closed_once_the_goods_are_in() -> None:
    job, _ = wheel()
    steps = packing_steps(ToPack(job, box_for("tray", job, shop()), shop()))
    places = order_of(steps, "make 1", "place 0", "all in", "close 1", "weigh")
    assert places == sorted(places)
    close = steps[places[3]]
    assert close.do.startswith("Once the goods are in, set the lid on")
    assert [one.where for one in close.used if isinstance(one, TapeStrips)] == ["once around, where it closes"]
    assert "tape top" not in {step.key for step in steps}


@pytest.mark.parametrize("code", sorted(KINDS))
def test_no_box_is_closed_before_the_goods_are_in_nor_packed_twice(code: str) -> None:
    picture = of_kind(code)
    for way in picture.ways:
        steps = packing_steps(ToPack(picture.job, way.boxed, shop()))
        packed = next(n for n, step in enumerate(steps) if step.key == "all in")
        before = [step.do for step in steps[:packed] if step.section == "Box"]
        closing = ("over the top", "Close it within", "Fold both covers over", "set the lid on", "outer top over it")
        assert [do for do in before if any(words in do for words in closing)] == [], way.way
        after = [step.do for step in steps[packed:]]
        goes_in = ("Put the goods", "Slip the goods", "Slide the goods", "Lay the goods", "Stand the goods")
        assert [do for do in after if do.startswith(goes_in)] == [], way.way


def test_what_was_done_for_one_box_is_not_done_for_another_and_wrap_is() -> None:
    job, _ = wheel()
    tray, case = (
        {step.key: step.tick for step in packing_steps(ToPack(job, box_for(way, job, shop()), shop()))}
        for way in ("tray", "slotted")
    )
    same = {key for key in tray if case.get(key) == tray[key]}
    assert same == {"wrap drive wheel bubble-large"}
    twice, _ = wheel(parts=[part(name="drive wheel", protect=[{"material": "bubble-large", "layers": 2}])])
    more = {step.key: step.tick for step in packing_steps(ToPack(twice, box_for("tray", twice, shop()), shop()))}
    assert more["wrap drive wheel bubble-large"] != tray["wrap drive wheel bubble-large"]


def test_a_pad_under_and_over_the_goods_is_put_in_and_laid_on_top() -> None:
    job, _ = wheel(inserts=[{"kind": "pad", "count": 2, "where": "both"}, {"kind": "edge-cap", "count": 4,
                   "length": "10 in", "depth": "2 in"}])  # fmt: skip
    steps = packing_steps(ToPack(job, box_for("slotted", job, shop()), shop()))
    places = order_of(steps, "insert edge-cap", "box", "insert pad", "place 0", "insert pad 2", "all in")
    assert places == sorted(places)
    assert [one.count for key in (2, 4) for one in steps[places[key]].used] == [2, 2]


def test_a_box_in_a_bag_is_taped_before_it_is_bagged() -> None:
    job, _ = wheel(ways=["bagged"], parts=[part(name="hub", weight="2 lb", gap="1 in")])
    steps = packing_steps(ToPack(job, box_for("bagged", job, shop()), shop()))
    places = order_of(steps, "all in", "tape top", "closed 1")
    assert places == sorted(places)


def test_steps_of_taking_apart_come_first_each_bag_with_its_number() -> None:
    file = start_job(KINDS["spinning-wheel"], "", starting_shop())
    for step in file.take_apart:
        file = file if step.chosen else take_step(file, step.id, True, shop())
    job = understand(file, shop(), "10440")
    steps = packing_steps(ToPack(job, box_for("slotted", job, shop()), shop(), steps_of(file)))
    apart = [step for step in steps if step.key.startswith("apart ")]
    assert len(apart) == len(file.take_apart)
    assert steps[: len(apart)] == tuple(apart)
    bags = [says for step in apart for says in step.says if says.startswith("Bag ")]
    assert [says.split(":")[0] for says in bags] == [f"Bag {n} of {len(bags)}" for n in range(1, len(bags) + 1)]
    (check,) = [dict(step.count) for step in steps if step.count]
    assert sum(name.startswith("bag ") for name in check) == len(bags)
    assert next(step.do for step in steps if step.key == "bags").startswith(f"Put in bags 1 to {len(bags)}, tied to")
    assert any("Hooks are sharp" in caution for step in apart for caution in step.cautions)


def test_the_strips_of_a_case_by_hand() -> None:
    """Common practice, of a case 20 x 12 outside: under it one strip of 20 + 2 x 3 in and two of 12 + 2 x 3 in, over it
    the same, 124 in; its seam beside.
    """
    job, _ = wheel(ways=["shelf"])
    made = box_for("slotted", job, shop()).made
    load = box_for("slotted", job, shop()).load
    strips = plan_tape(made, load, POUND * 10)
    length, width, _ = made.outside
    for three in (strips.bottom, strips.closing):
        assert [(one.count, one.length) for one in three] == [(1, length + INCH * 6), (2, width + INCH * 6)]
    assert strips.total == made.tape
    assert closing_tape(sizes("20 x 12 x 9")) == inches("124")
    # Half as much again, by a rule of the house: a second time over the seams and edges.
    more = plan_tape(made, replace(load, tape=Fraction(3, 2)), POUND * 10)
    assert more.total.nm == made.tape.nm * 3 // 2
    assert more.closing[-1].where.startswith("a second time")


def stock_box(weight: str, **said: Any) -> Boxed:
    """A wheel of that weight in the stock box it fits best, and what else its job says."""
    file = JobFile.model_validate({
        "ship": {"to": "73120"}, "ways": ["shelf"], "extras": [],
        "parts": [part(name="drive wheel", weight=weight, gap="1/2 in",
                       shape={"kind": "box", "length": "16 in", "width": "12 in", "height": "6 in"})],
        **said,
    })  # fmt: skip
    job = understand(file, shop(), "10440")
    return box_for("shelf", job, shop())


def test_weight_weather_and_value_ask_for_more_tape_by_hand() -> None:
    """Common practice: a heavy parcel gets a second strip along the bottom and two down the maker's seam; wet or dear
    every long edge and the maker's seam once; one that is re-packed nothing across the top.
    """
    usual = stock_box("10 lb")
    length, width, height = usual.made.outside
    assert usual.taped.total == (length + INCH * 6) * 2 + (width + INCH * 6) * 4
    heavy = stock_box("30 lb")
    assert heavy.taped.total - usual.taped.total == length + INCH * 6 + height * 2
    assert [one.where for one in heavy.taped.making] == ["down the maker's side seam"]
    for wet in (stock_box("10 lb", wet_weather=True), stock_box("10 lb", value="1200.00")):
        assert wet.taped.total - usual.taped.total == length * 4 + height
        assert wet.tape > usual.tape
        assert wet.weights.tape > usual.weights.tape
    repacked = stock_box("10 lb", repacked=True)
    assert usual.taped.total - repacked.taped.total == (width + INCH * 6) * 2
    assert [one.where for one in repacked.taped.closing] == ["along the top seam, a hand down both ends"]


def test_what_others_pack_again_is_taped_lightly_and_marked() -> None:
    job, _ = wheel(repacked=True)
    steps = {step.key: step for step in packing_steps(ToPack(job, box_for("slotted", job, shop()), shop()))}
    assert steps["lightly"].do == "Tape the top lightly: others open it there and pack it again."
    assert steps["marks"].do == "Mark it on four sides: open here."
    job, _ = wheel()
    assert "lightly" not in {step.key for step in packing_steps(ToPack(job, box_for("slotted", job, shop()), shop()))}


def test_an_extra_goes_where_it_is_said_to_go() -> None:
    extras = [
        {"name": "thank-you card", "size": "6 x 4 x 1/64 in", "place": "inside the wrap"},
        {"name": "oil bottle", "size": "4 x 2 x 2 in", "place": "beside"},
        {"name": "packing slip", "size": "11 x 8 1/2 x 1/64 in", "place": "on top"},
        {"name": "return label", "size": "6 x 4 x 1/64 in", "place": "outside"},
    ]
    job, _ = wheel(extras=extras)
    boxed = box_for("slotted", job, shop())
    steps = packing_steps(ToPack(job, boxed, shop()))
    keys = ("in the wrap thank-you card", "wrap drive wheel bubble-large", "box", "place 2", "last packing slip",
            "all in", "label", "outside return label", "hand over")  # fmt: skip
    places = order_of(steps, *keys)
    assert places == sorted(places)
    (count,) = [dict(step.count) for step in steps if step.count]
    assert {"thank-you card", "oil bottle", "packing slip"} <= set(count)
    assert "return label" not in count
    # Only what lies beside the goods takes up room.
    assert [one.body.name for one in placed(boxed.load, boxed.arrangement) if one.body.extra] == ["oil bottle"]


def test_a_job_may_say_its_own_minutes() -> None:
    usual, longer = (box_for("slotted", wheel(**said)[0], shop()) for said in ({}, {"pack_minutes": 90}))
    assert longer.minutes - usual.minutes == 90 - shop().pack_minutes
    steps = packing_steps(ToPack(wheel(pack_minutes=90)[0], longer, shop()))
    assert sum((step.minutes for step in steps), Fraction(0)) == longer.minutes


def test_a_mailer_has_no_bottom_to_tape_and_is_not_shaken() -> None:
    file = JobFile.model_validate({
        "ship": {"to": "73120"}, "ways": ["mailer"],
        "parts": [part(name="reed", weight="9 oz", gap="0", fragility="does-not-break",
                       shape={"kind": "box", "length": "11 in", "width": "4 in", "height": "1/2 in"})],
        "extras": [],
    })  # fmt: skip
    job = understand(file, shop(), "10440")
    steps = packing_steps(ToPack(job, box_for("mailer", job, shop()), shop()))
    keys = {step.key for step in steps}
    assert {"tape seams", "shake", "fill under", "fill between"} & keys == set()
    places = order_of(steps, "box", "place 0", "all in", "press", "close 1", "label")
    assert places == sorted(places)
    assert steps[places[1]].do == "Put in reed."
    assert steps[places[1]].says[0].startswith("Slip the goods into")


def test_of_dear_goods_nothing_is_told_outside() -> None:
    job, _ = wheel()
    boxed = box_for("slotted", job, shop())
    plain = {step.key: step.do for step in packing_steps(ToPack(job, boxed, shop(), plain=True))}
    assert plain["marks"] == "Nothing outside tells what is in it."
    assert "marks" not in {step.key for step in packing_steps(ToPack(job, boxed, shop()))}


@pytest.mark.parametrize("code", sorted(KINDS))
def test_what_is_fetched_is_the_sum_over_the_steps(code: str) -> None:
    picture = of_kind(code)
    for way in picture.ways[:2]:
        steps = packing_steps(ToPack(picture.job, way.boxed, shop()))
        fetched = to_fetch(steps, shop().stock)
        assert len({(one.place, one.name, one.size) for one in fetched}) == len(fetched)
        by_place = {place: [one for one in fetched if one.place == place] for place in PLACES}
        tape = sum(one.total.nm for one in used(steps, TapeStrips))
        assert sum(one.amount for one in by_place["Tape"]) == Fraction(tape, 10**9)
        assert sum(one.amount for one in by_place["Fill"]) == sum(
            one.fill.taken(one.litres) for one in used(steps, FillUsed)
        )
        assert sum(one.amount for one in by_place["Board"]) == sum(one.count for one in used(steps, BoardUsed))
        cut = [one for one in used(steps, WrapUsed) if not one.taken]
        assert sum(one.amount for one in by_place["Wrap"]) == sum(one.amount for one in cut)
        boxes = sum(one.count for one in used(steps, BoxUsed))
        boxes += sum(int(one.amount) for one in used(steps, WrapUsed) if one.taken)
        assert sum(one.amount for one in by_place["Boxes and mailers"]) == boxes
        assert all(one.short == 0 for one in fetched)
        tools = [one.amount for one in by_place["Tools"]]
        assert tools == [1] * (len(tools) or WAYS[way.way].NEEDS == "sheet")  # a blade at least, where board is cut


def test_what_is_not_there_any_more_is_short() -> None:
    job, _ = wheel(ways=["shelf"], parts=[part(name="hub", weight="2 lb", gap="1 in")])
    steps = packing_steps(ToPack(job, box_for("shelf", job, shop()), shop()))
    (taken,) = used(steps, BoxUsed)
    stock = shop().stock
    gone = replace(stock, boxes=tuple(replace(one, count=0) for one in stock.boxes))
    assert [(one.name, one.short) for one in to_fetch(steps, gone) if one.short] == [(taken.name, 1)]


def test_what_stays_upright_is_stood_up_before_it_is_opened() -> None:
    lamp = block("lamp", "8 x 6 x 12")
    for rules, begins in (({"this_side_up": True}, "Stand it with the arrows up."), ({}, "Cut the tape")):
        job = job_of([{**lamp, "rules": rules}], ways=["slotted"])
        boxed = box_for("slotted", job, shop())
        assert opening(boxed.made, boxed.load)[0].startswith(begins)


def test_a_liner_is_cut_to_the_box_in_hand_and_not_to_the_least_there_could_be() -> None:
    """In a stock box larger than asked it lies on that box's walls: their insides, the ends between the others."""
    said = {"parts": [part(gap="1 in")], "extras": [], "liner": {"material": "liner-foam"}, "ways": ["shelf"]}
    read = understand(JobFile.model_validate(job(**said)), shop())
    boxed = box_for("shelf", read, shop())
    thick = next(m.thickness for m in shop().materials.values() if m.code == "liner-foam")
    length, width, height = boxed.made.inside
    coat = next(one for one in boxed.coats if one.material.code == "liner-foam")
    assert [(cut.length, cut.width) for cut in coat.cuts] == [
        (length, width), (length, height - thick * 2), (width - thick * 2, height - thick * 2),
    ]  # fmt: skip
    needed = arrange(read.must_load()).inside
    assert any(side - thick * 2 > least for side, least in zip(boxed.made.inside, needed, strict=True))
    step = next(one for one in packing_steps(ToPack(read, boxed, shop())) if one.key == "liner")
    (used,) = [one for one in step.used if isinstance(one, WrapUsed)]
    assert used.cuts == coat.cuts
    assert coat.cuts[0] in [one.cut for one in wrap_used(read, shop(), boxed.made).cuts]

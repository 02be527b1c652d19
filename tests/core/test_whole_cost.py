"""The plan by what it costs in all: prices steer the search, and nothing dearer is taken for taking less room."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Any

import pytest

from fardo.arranging import Whole, cheapest_here
from fardo.core.arrange.ask import all_turned
from fardo.core.arrange.initial_layout import initial_layout
from fardo.core.arrange.search import SearchState, improve, merge
from fardo.core.arrange.turn import TURNS
from fardo.core.make import WAYS
from fardo.core.plan.aims import aims_below
from fardo.core.plan.job import Job
from fardo.core.plan.load import ask_of, bodies_of, holds
from fardo.core.plan.picture import draw_up
from fardo.core.plan.savings import may_be_tried
from fardo.core.plan.trimmed import trimmed
from fardo.core.plan.weighed import weigh, weigh_as_it_stands, weigh_each
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.carriers import Carriers
from fardo.core.tariff.service import Service
from fardo.files.job import JobFile, Ship
from fardo.files.kind import shipped_kinds, start_job
from fardo.files.shop import starting_shop
from fardo.files.understood import understand
from tests.made_up import inches, services, shop

EVERY = Carriers(services())


def block(name: str, size: str, count: int = 1, weight: str = "2 lb") -> dict[str, Any]:
    length, width, height = (f"{side} in" for side in size.split(" x "))
    shape = {"kind": "box", "length": length, "width": width, "height": height}
    return {"name": name, "count": count, "weight": weight, "gap": "0", "fragility": "does-not-break", "shape": shape}


def job_of(parts: Iterable[dict[str, Any]], **said: Any) -> Job:
    content = {"ship": {"to": "73120"}, "parts": list(parts), **said}
    return understand(JobFile.model_validate(content), shop(), "10440")


def called(carrier: str, name: str) -> Service:
    return next(one for one in services() if (one.carrier, one.name) == (carrier, name))


def limited(service: Service, longest: str) -> Service:
    return replace(service, limits=replace(service.limits, longest_side=inches(longest)))


def inside(answer: Any) -> list[float]:
    return sorted(float(side.inches) for side in answer.inside)


def test_the_cheapest_is_found_where_no_search_for_room_finds_it() -> None:
    """Above 15 1/4 in only freight takes it. What takes least room is 15 in inside, which no board leaves at 15 1/4."""
    parts = [block(f"block {n}", size) for n, size in
             enumerate(("9 x 5 x 4", "8 x 4 x 4", "14 x 8 x 4", "6 x 4 x 7", "6 x 7 x 5"))]  # fmt: skip
    world = Carriers(
        (limited(called("Wendlefirth Post", "Parcel"), "15 1/4"), called("Tarnfell Freight", "Pallet line"))
    )
    job = job_of(parts, ways=["slotted", "tray"])
    ask = ask_of(job.must_load())
    by_room = merge([improve(ask, SearchState(chain), 12) for chain in range(2)])
    dear = min(one.total for one in weigh_each(job, by_room, shop(), world) if one.total)
    best, *_ = cheapest_here(Whole(job, shop(), world), "normal")
    assert best.total is not None
    assert best.total.minor * 3 < dear.minor
    assert inside(best.answer) not in [inside(answer) for answer in by_room]
    assert best.answer.room_nm3 > min(answer.room_nm3 for answer in by_room)
    assert holds(ask, best.answer)


def test_twelve_cubes_and_forty_blocks_are_a_block_with_a_price_at_once() -> None:
    for one, longest in ((block("cube", "6 x 6 x 6", 12, "1 lb"), 18), (block("block", "4 x 6 x 3", 40, "4 oz"), 30)):
        job = job_of([one])
        first = weigh(job, initial_layout(ask_of(job.must_load())), shop(), EVERY)
        assert first is not None
        assert first[0].total is not None
        best, *_ = cheapest_here(Whole(job, shop(), EVERY), "quick")
        assert best.total is not None
        assert best.total <= first[0].total
        assert inside(best.answer)[2] <= longest


def of_kind(code: str, count: int = 1) -> Job:
    kind = next(kind for kind in shipped_kinds() if kind.code == code)
    begun = start_job(kind, "", starting_shop())
    parts = [begun.parts[0].model_copy(update={"count": count}), *begun.parts[1:]]
    job = begun.model_copy(update={"ship": Ship(to="73120", residential=True), "parts": parts})
    return understand(job, shop(), "10440")


@pytest.mark.parametrize(("kind", "count"), [("bicycle", 1), ("sleeved-flats", 1), ("framed-picture", 6)])
def test_nothing_is_dearer_than_side_by_side(kind: str, count: int) -> None:
    job = of_kind(kind, count)
    beside = weigh(job, initial_layout(ask_of(job.must_load())), shop(), EVERY)
    best, *others = cheapest_here(Whole(job, shop(), EVERY), "quick")
    assert beside is not None
    assert beside[0].total is not None
    assert best.total is not None
    assert best.total <= beside[0].total
    assert [one.rank for one in others] == sorted(one.rank for one in others)


def test_a_trim_is_tried_for_real_and_taken_only_if_it_holds_and_costs_less() -> None:
    world = Carriers((called("Wendlefirth Post", "Parcel"), called("Oddbarrow", "Ground")))
    loose = [block("case", "15 x 11 x 4", 2), block("horn", "7 x 8 x 4"), block("bar", "18 x 4 x 3"),
             block("plate", "13 x 7 x 3", 2)]  # fmt: skip
    job = job_of(loose, ways=["slotted"])
    picture = draw_up(job, shop(), world)
    assert may_be_tried(picture)
    assert picture.plan is not None
    found = trimmed(job, picture, shop(), world)
    assert found.saves.minor > 0
    assert found.weighed.total is not None
    assert found.weighed.total + found.saves == picture.plan.costs.total
    assert holds(ask_of(job.must_load()), found.weighed.answer)
    # A bar and two plates fill their box but for an edge that no other size of it saves.
    tight = job_of([block("bar", "10 x 4 x 3"), block("plate", "17 x 10 x 4", 2)], ways=["slotted"])
    full = draw_up(tight, shop(), world)
    assert may_be_tried(full)
    with pytest.raises(NoAnswer, match="does not lie so that it costs less"):
        trimmed(tight, full, shop(), world)
    alone = draw_up(job_of([block("plate", "14 x 12 x 10 1/4")], ways=["slotted"]), shop(), world)
    with pytest.raises(NoAnswer, match="one thing alone"):
        trimmed(alone.job, alone, shop(), world)
    lined = job_of([block("plate", "14 x 12 x 10 1/4")], ways=["slotted"],
                   extras=[{"name": "card", "size": "6 x 4 x 1/16 in", "lies_flat": True}])  # fmt: skip
    with pytest.raises(NoAnswer, match="one thing alone"):  # a card on top lies no other way
        trimmed(lined, draw_up(lined, shop(), world), shop(), world)
    # A box that somebody chose stays as it is.
    made = picture.plan.boxed.made
    chosen = {"box": {"way": made.way, "board": made.grade.code, "inside_mm": [side.mm for side in made.needed]}}
    assert not may_be_tried(draw_up(job_of(loose, ways=["slotted"], chosen=chosen), shop(), world))


def test_the_same_seed_and_effort_give_the_same() -> None:
    job = job_of([block(f"block {n}", size) for n, size in enumerate(("9 x 5 x 4", "8 x 4 x 4", "14 x 8 x 4"))])
    assert cheapest_here(Whole(job, shop(), EVERY, 7), "quick") == cheapest_here(Whole(job, shop(), EVERY, 7), "quick")


def test_sizes_aimed_at_cost_less_and_take_every_thing_by_itself() -> None:
    job = job_of([block("long", "20 x 3 x 3"), block("plate", "14 x 12 x 2"), block("cube", "6 x 6 x 6")])
    answer = initial_layout(ask_of(job.must_load()))
    now = weigh(job, answer, shop(), EVERY)
    assert now is not None
    assert now[0].total is not None
    listed = aims_below(job, now[0].answer, answer.room_nm3, shop(), EVERY)
    assert listed
    for aim in listed:
        assert aim.at < now[0].total
        assert sorted(aim.inside)[2] >= inches("14")
    # None goes into another that costs no more: where that cannot be packed, it cannot either.
    for one in listed:
        for other in listed:
            assert (
                one is other or other.at > one.at or any(a > b for a, b in zip(one.inside, other.inside, strict=True))
            )


def test_a_metric_shop_aims_at_whole_centimetres_outside() -> None:
    job = job_of([block("long", "20 x 3 x 3"), block("plate", "14 x 12 x 2"), block("cube", "6 x 6 x 6")])
    metric = replace(shop(), units="cm")
    answer = initial_layout(ask_of(job.must_load()))
    now = weigh(job, answer, metric, EVERY)
    assert now is not None
    made = next(way.boxed.made for way in now[1].ways if WAYS[way.way].NEEDS == "sheet")
    wall = max(out - into for out, into in zip(made.outside, made.inside, strict=True))
    listed = aims_below(job, now[0].answer, answer.room_nm3, metric, EVERY)
    assert any(all((side + wall).nm % 10_000_000 == 0 for side in aim.inside) for aim in listed)


def test_where_nothing_has_a_price_the_least_billed_weight_comes_first() -> None:
    job = understand(JobFile.model_validate({"parts": [block("cube", "6 x 6 x 6", 12)]}), shop(), "10440")
    assert job.journey is None
    best, *others = cheapest_here(Whole(job, shop(), EVERY), "quick")
    assert best.total is None
    assert inside(best.answer) == [12, 12, 18]
    assert not any(other.rank < best.rank for other in others)


def test_the_whole_is_stood_on_the_side_that_costs_least() -> None:
    """The same three sides, another of them up: the board takes more, and so does the box."""
    job = job_of([block("plate", "12 x 10 x 4"), block("bar", "10 x 6 x 5")], ways=["slotted"])
    load = job.must_load()
    layout = initial_layout(ask_of(load))
    stood = [weigh_as_it_stands(job, all_turned(bodies_of(load), layout, turn), shop(), EVERY) for turn in TURNS]
    found = weigh(job, layout, shop(), EVERY)
    assert found is not None
    assert found[0].total == min(one[0].total for one in stood if one is not None and one[0].total)
    assert len({one[0].total for one in stood if one is not None}) > 1

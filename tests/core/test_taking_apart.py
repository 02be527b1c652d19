"""Taking apart: bags, the receiver's sheet, and hazards with what they limit."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.goods.hazard import QUESTIONS, tags, weigh_answers
from fardo.core.goods.take_apart import TakeApartStep, bag_labels, put_back
from fardo.core.plan.boxed import box_up
from fardo.core.plan.journey import Journey
from fardo.core.plan.price import price
from fardo.core.refusal import BadInput
from fardo.files.job import StepEntry
from tests.made_up import load, services, shop

STEPS = (
    TakeApartStep("band", "Slip the drive band off", keep="drive band"),
    TakeApartStep(
        "wheel", "Lift the wheel off", tool="mallet", turn="clockwise", keep="pegs, L and R", frees=("drive wheel",)
    ),
    TakeApartStep("legs", "Twist the legs out", back="Legs into their numbers"),
)


def test_each_bag_says_which_of_how_many_it_is_what_it_holds_and_where_it_goes() -> None:
    first, second = bag_labels(STEPS)
    assert (first.number, first.of, first.holds, first.goes_to) == (1, 2, "drive band", "")
    assert (second.number, second.of, second.holds, second.goes_to) == (2, 2, "pegs, L and R", "drive wheel")


def test_the_receiver_puts_together_in_the_order_reversed_with_the_bag_each_step_needs() -> None:
    steps = put_back(STEPS)
    assert [step.number for step in steps] == [1, 2, 3]
    assert [step.bag for step in steps] == [0, 2, 1]
    assert steps[0].do == "Legs into their numbers"
    assert steps[1].do == "Undo: lift the wheel off"
    assert steps[1].turn == "clockwise"


@given(st.lists(st.booleans(), max_size=12))
def test_every_bag_is_asked_for_once_and_none_twice(kept: list[bool]) -> None:
    steps = [TakeApartStep(str(n), f"Step {n}", keep="screws" if keep else "") for n, keep in enumerate(kept)]
    bags = [step.bag for step in put_back(steps) if step.bag]
    assert sorted(bags) == [label.number for label in bag_labels(steps)]


def test_an_open_question_waits_and_an_answer_cautions() -> None:
    weighed = weigh_answers(("battery", "glass"), {"battery": "installed"})
    assert [question.code for question in weighed.open] == ["glass"]
    ((about, caution),) = weighed.cautions
    assert about == "battery"
    assert "49 CFR 173.185 and the carrier's own list decide" in caution
    assert weighed.tags == {"lithium-installed"}
    with pytest.raises(BadInput, match="installed"):
        weigh_answers(("battery",), {"battery": "flat"})


@pytest.mark.parametrize(
    ("question", "answer"),
    [
        ("battery", "damaged"),
        ("fuel", "holds"),
        ("mercury", "instrument"),
        ("dust", "fibre"),
        ("cover", "missing"),
        ("paint", "wet"),
    ],
)
def test_what_must_not_be_sent_is_refused_by_every_service(question: str, answer: str) -> None:
    weighed = weigh_answers((question,), {question: answer})
    assert weighed.never
    boxed = box_up(load(), "slotted", shop().grade("C"), shop())
    plans, refused = price(boxed, Journey("10440", "73120", False, hazards=weighed), services())
    assert plans == []
    assert {no.why for no in refused} == {"this does not ship"}


def test_a_service_refuses_what_its_tariff_says_it_does_not_take() -> None:
    weighed = weigh_answers(("battery",), {"battery": "alone"})
    boxed = box_up(load(), "slotted", shop().grade("C"), shop())
    journey = Journey("10440", "73120", False, hazards=weighed)
    plans, refused = price(boxed, journey, services(), shop().exchange)
    not_taken = [no for no in refused if no.why == "does not take a lithium battery sent alone"]
    assert {no.carrier for no in not_taken} >= {"Oddbarrow", "Quillmere Courier"}
    assert "lithium-alone" not in {tag for s in services() if s.carrier == "Tarnfell Freight" for tag in s.refuses}
    assert {plan.quote.carrier for plan in plans} == {"Tarnfell Freight"}
    assert len(plans) + len(refused) == sum(not service.other_way for service in services())


def test_every_question_may_be_answered_with_none_and_every_tag_has_words() -> None:
    for question in QUESTIONS.values():
        assert question.answers[0].code == "none"
        assert question.answers[0].caution == ""
        assert all(answer.caution for answer in question.answers[1:])
    said = [answer.tag for question in QUESTIONS.values() for answer in question.answers if answer.tag]
    assert len(said) == len(tags()) > 0  # no code stands for two things
    assert all(tag.says for tag in said)


def test_a_step_is_neither_chosen_nor_done_before_somebody_says_so() -> None:
    step = StepEntry(id="bars", do="Turn the bars")
    assert (step.chosen, step.done) == (False, False)

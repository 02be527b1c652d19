"""A closed parcel by scale and tape: priced as the tariff says, and what to do where it costs more than planned."""

from __future__ import annotations

from dataclasses import replace

import pytest

from fardo.core.goods.part import Sizes
from fardo.core.pack.closed import Closed, ClosedPrice, doubts, price_closed
from fardo.core.plan.box import box_for
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.job import Job
from fardo.core.plan.journey import Journey, parcel_of
from fardo.core.plan.progress import Knot, Sending, tie_all
from fardo.core.quantity import INCH, OUNCE, POUND, SIXTY_FOURTH, ZERO, Length, Mass, Money
from fardo.core.refusal import BadInput
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.service import Quote, Service, find_service, quote
from tests.made_up import load, services, shop, sizes

JOURNEY = Journey("10440", "73120", residential=True)
DOLLARS = Exchange("USD")
GROUND = ("Oddbarrow", "Ground", "account")


@pytest.fixture
def boxed() -> Boxed:
    return box_for("slotted", Job(load=load()), shop())


def service_of(called: tuple[str, str, str]) -> Service:
    found = find_service(services(), called)
    assert found is not None
    return found


def asked(boxed: Boxed, weight: Mass | None = None, sides: Sizes | None = None) -> Money:
    """By the tariff, of a parcel put together here."""
    parcel = parcel_of(boxed, JOURNEY)
    parcel = replace(parcel, weight=weight or parcel.weight, sizes=sides or parcel.sizes)
    found = quote(service_of(GROUND), parcel)
    assert isinstance(found, Quote)
    return found.amount


def closed(boxed: Boxed, weight: Mass | None = None, sides: Sizes | None = None) -> ClosedPrice:
    return price_closed(Closed(weight, sides), boxed, JOURNEY, GROUND, services(), DOLLARS)


def more(boxed: Boxed, by: Length) -> Sizes:
    a, b, c = boxed.made.outside
    return a, b, c + by


def test_as_planned_it_costs_what_was_planned_and_nothing_is_advised(boxed: Boxed) -> None:
    found = closed(boxed, boxed.weights.total, boxed.made.outside)
    assert found.planned == found.now
    assert found.more == Money(0, "USD")
    assert found.advice == ()
    assert closed(boxed).more == Money(0, "USD")  # neither weighed nor measured: as planned


def test_a_bulge_over_a_step_is_pressed_or_paid_for(boxed: Boxed) -> None:
    bulging = more(boxed, INCH)
    found = closed(boxed, sides=bulging)
    assert found.now is not None
    assert found.now.amount == asked(boxed, sides=bulging) > asked(boxed)
    assert found.more == found.now.amount - asked(boxed)
    press = next(one for one in found.advice if one.deed == "press")
    assert press.point is not None
    assert isinstance(press.point.by, Length)
    assert press.point.by <= INCH
    assert press.saves == found.now.amount - press.point.amount
    pay = found.advice[-1]
    assert (pay.deed, pay.saves) == ("pay", found.more)


def test_a_weight_over_a_step_says_what_to_take_out(boxed: Boxed) -> None:
    # So heavy that the actual weight is billed, an ounce over a pound.
    heavy = POUND * 80 + OUNCE
    found = closed(boxed, heavy)
    assert found.now is not None
    assert found.now.amount == asked(boxed, heavy)
    out = next(one for one in found.advice if one.deed == "take out")
    assert out.point is not None
    assert (out.point.to, out.point.by) == (POUND * 80, OUNCE)
    assert out.saves == asked(boxed, heavy) - asked(boxed, POUND * 80)


def test_each_side_is_advised_once_and_only_what_can_be_pressed(boxed: Boxed) -> None:
    found = closed(boxed, sides=more(boxed, INCH * 3))
    whats = [one.point.what for one in found.advice if one.point]
    assert len(whats) == len(set(whats))
    assert all(one.point.by <= INCH for one in found.advice if one.point and isinstance(one.point.by, Length))


def test_less_than_planned_costs_less_and_asks_for_nothing(boxed: Boxed) -> None:
    found = closed(boxed, sides=more(boxed, -INCH * 3))
    assert found.more is not None
    assert found.more.minor < 0
    assert found.advice == ()


def test_another_service_is_named_where_it_asks_less_now(boxed: Boxed) -> None:
    grown = more(boxed, INCH * 4)
    found = closed(boxed, sides=grown)
    others = [
        one for service in services() if not service.other_way
        if isinstance(one := quote(service, replace(parcel_of(boxed, JOURNEY), sizes=grown)), Quote)
    ]  # fmt: skip
    assert found.now is not None
    cheaper = [one for one in others if one.amount.currency == "USD" and one.amount < found.now.amount]
    named = [one.quote for one in found.advice if one.deed == "other service" and one.quote]
    assert bool(named) == bool(cheaper)
    assert cheaper
    assert named[0].amount == min(one.amount for one in cheaper)


def test_what_the_service_no_longer_takes_says_why_and_by_what_it_goes(boxed: Boxed) -> None:
    found = closed(boxed, POUND * 600)
    assert found.now is None
    assert found.refused
    assert found.more is None
    assert "pay" not in [one.deed for one in found.advice]


def test_a_bulge_is_told_by_side_whichever_way_it_was_measured(boxed: Boxed) -> None:
    a, b, c = more(boxed, INCH)
    for sides in ((a, b, c), (c, a, b), (b, c, a)):
        over = Closed(sides=sides).over(boxed, SIXTY_FOURTH)
        assert over is not None
        assert [one > ZERO for one in sorted(over)] == [False, False, True]
    assert Closed().over(boxed, INCH) is None


def test_a_reading_far_from_the_plan_is_doubted(boxed: Boxed) -> None:
    planned = boxed.weights.total
    assert doubts(Closed(planned, boxed.made.outside), boxed) == ()
    assert doubts(Closed(planned * 2, more(boxed, INCH * 6)), boxed) == ()
    assert "scale at zero" in doubts(Closed(planned * 2 + OUNCE), boxed)[0]
    assert "scale at zero" in doubts(Closed(OUNCE * 3), boxed)[0]
    assert "measured outside" in doubts(Closed(sides=more(boxed, INCH * 7)), boxed)[0]
    assert "measured outside" in doubts(Closed(sides=sizes("12 x 8 x 6")), boxed)[0]


def test_a_service_there_is_not_is_refused(boxed: Boxed) -> None:
    with pytest.raises(BadInput, match="not a service here"):
        price_closed(Closed(), boxed, JOURNEY, ("Nobody", "Nothing", ""), services(), DOLLARS)


TIED = tuple(Knot(name, "tied", "") for name in ("measure", "protect", "arrange", "box", "price"))
NOT_ARRANGED = tuple(replace(one, state="open") if one.name == "arrange" else one for one in TIED)
LOOSE_BOX = tuple(replace(one, state="loose") if one.name == "box" else one for one in TIED)


@pytest.mark.parametrize(
    ("planned", "sending", "states", "move"),
    [
        (TIED, Sending(steps=20), "open open", "Pack it"),
        (TIED, Sending(1, 20), "open open", "Go on packing"),
        (TIED, Sending(20, 20), "tied open", "Weigh and measure it"),
        (TIED, Sending(19, 20), "open open", "Go on packing"),
        (TIED, Sending(3, 20, closed=True), "tied open", "Buy its label, or enter its number"),
        (TIED, Sending(0, 20, closed=True), "tied open", "Buy its label, or enter its number"),
        (TIED, Sending(20, 20, closed=True, numbered=True), "tied open", "Hand it over"),
        (TIED, Sending(5, 20, otherwise=True), "loose open", "Go on packing"),
        (NOT_ARRANGED, Sending(20, 20), "tied open", "Weigh and measure it"),
        (LOOSE_BOX, Sending(5, 20), "loose open", ""),
        (LOOSE_BOX, Sending(0, 20), "open open", ""),
        (LOOSE_BOX, Sending(handed_over="2026-03-02"), "tied tied", "On the way"),
        ((), Sending(), "open open", ""),
        ((), Sending(handed_over="2026-03-02"), "tied tied", "On the way"),
        (TIED, Sending(handed_over="2026-03-02", expected="soon"), "tied tied", "On the way, expected soon"),
    ],
)  # fmt: skip
def test_the_last_knots_follow_what_was_done(
    planned: tuple[Knot, ...], sending: Sending, states: str, move: str
) -> None:
    (*_, pack, sent), told = tie_all(planned, sending)
    assert f"{pack.state} {sent.state}" == states
    assert told == move


def test_what_is_packed_needs_no_arrangement_any_more() -> None:
    for sending, state in ((Sending(3, 20), "open"), (Sending(20, 20), "tied"), (Sending(handed_over="then"), "tied")):
        knots, _ = tie_all(NOT_ARRANGED, sending)
        assert {knot.name: knot.state for knot in knots}["arrange"] == state


def test_packing_says_how_far_it_is() -> None:
    (*_, pack, _), _ = tie_all(TIED, Sending(7, 20))
    assert pack.says == "7 of 20 steps done"

"""The nearest cheaper point of a service, and the map of its price over two sides, against single quotes."""

from __future__ import annotations

from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from fardo.core.quantity import INCH, Length, Mass, Money, read_mass, read_sizes
from fardo.core.tariff.hangs_on import hangs_on
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.service import Quote, quote
from fardo.core.tariff.step_map import price_map
from fardo.core.tariff.steps import cheaper_points
from tests.made_up import inches, services

SERVICES = services()


def service(name: str, rate_plan: str = ""):
    return next(one for one in SERVICES if one.name == name and rate_plan in ("", one.rate_plan))


def parcel(size: str, weight: str, **more: object) -> Parcel:
    return Parcel(read_sizes(size, "in"), read_mass(weight), "10440", "73120", **more)  # type: ignore[arg-type]


def found(name: str, sent: Parcel) -> dict[str, tuple[Length | Mass, Money]]:
    return {one.what: (one.to, one.saves) for one in cheaper_points(service(name), sent)}


def test_a_side_just_over_a_threshold_comes_down_to_it() -> None:
    sent = parcel("48 1/16 x 10 x 8", "20 lb")
    to, saves = found("Ground", sent)["longest side"]
    assert to == inches("48")
    before, after = (quote(service("Ground"), one) for one in (sent, replace(sent, sizes=read_sizes("48 x 10 x 8"))))
    assert isinstance(before, Quote)
    assert isinstance(after, Quote)
    assert saves == before.amount - after.amount
    (step,) = [one for one in cheaper_points(service("Ground"), sent) if one.what == "longest side"]
    assert "additional handling" in step.why
    assert step.by == inches("1/16")


def test_girth_over_its_limit_is_brought_to_it_by_each_side() -> None:
    """60 x 12 1/16 x 12 has 108 1/8: an eighth off the length, or a sixteenth off what is counted twice."""
    steps = found("Parcel", parcel("60 x 12 1/16 x 12", "30 lb"))
    assert steps["longest side"][0] == inches("59 7/8")
    assert steps["second side"][0] == inches("12")
    assert steps["third side"][0] == inches("11 15/16")
    assert steps["girth"][0] == inches("48")  # 1/32 off each of both sides across


def test_a_near_small_step_does_not_hide_a_large_one_a_little_further() -> None:
    """A half inch spares a pound, an inch and a half the surcharge of the longest side."""
    steps = [one for one in cheaper_points(service("Ground"), parcel("49 1/2 x 12 x 8", "9 lb"))
             if one.what == "longest side"]  # fmt: skip
    assert [(one.by, str(one.saves)) for one in steps] == [(inches("1 1/2"), "27.16"), (inches("1/2"), "0.73")]


def test_a_side_that_is_the_longest_no_more_comes_down_to_a_girth_too() -> None:
    """29 5/8 x 28 x 12 7/8 is oversize at 111 3/8; at 27 1/8 the 28 in are its length, and it is 108."""
    step = next(one for one in cheaper_points(service("Parcel"), parcel("29 5/8 x 28 x 12 7/8", "20 lb"))
                if one.what == "longest side")  # fmt: skip
    assert step.to == inches("27 1/8")


def test_the_last_step_of_a_volume_tier_within_reach_is_found() -> None:
    """9.1 x 4 1/2 x 4 1/2, sides down to a quarter inch: just below 8 3/4 it is 8 1/2 x 20.25 in2, 0.0996 ft3."""
    (step,) = [one for one in cheaper_points(service("Small Cubes"), parcel("9.1 x 4.5 x 4.5", "2 lb"), inches("1/2"))
               if one.what == "longest side"]  # fmt: skip
    assert step.to == Length(inches("8 3/4").nm - 1)


def test_a_freight_trim_counts_what_goes_with_it() -> None:
    """380 lb in 48 x 40 x 30 beside 100 lb in 40 x 40 x 30: 480 lb are class 100 in 60 ft3, 46.4 x 40 x 30 of them."""
    sent = replace(parcel("48 x 40 x 30", "380 lb"), beside=(parcel("40 x 40 x 30", "100 lb"),))
    (step,) = [one for one in cheaper_points(service("Pallet line"), sent) if one.what == "longest side"]
    assert step.to == Length.of_inches("46.4")
    assert "no freight, class 125" in step.why


def test_a_pound_less_and_a_cubic_foot_less_are_found() -> None:
    steps = found("Parcel", parcel("12 x 12 x 12 1/4", "5 lb 2 oz"))
    # At a cubic foot size no longer counts: it is billed as 6 lb in the place of 11.
    assert steps["longest side"][0] == inches("12")
    light = found("Parcel", parcel("8 x 6 x 4", "5 lb 2 oz"))
    assert light["weight"][0] == read_mass("5 lb")


def test_a_little_off_both_sides_across_may_do_what_one_alone_does_not() -> None:
    """10 1/2 x 10 1/2 across at /166, sides to the nearest inch: 20 x 11 x 11 is 15 lb, 20 x 10 x 10 is 13 lb; off one
    of them only it is 20 x 11 x 10, 14 lb.
    """
    steps = {step.what: step for step in cheaper_points(service("Parcel"), parcel("20 x 10 1/2 x 10 1/2", "2 lb"))}
    assert steps["girth"].by.nm < INCH.nm  # a sliver off each: just below the half inch
    assert steps["girth"].saves > steps["second side"].saves


def test_all_of_the_reach_may_be_taken_off_both_sides_across() -> None:
    """260 lb in 48 x 40 x 30 are 7.8 lb/ft3; 1/4 in off both sides across leaves 7.91, 1/2 in 8.03, and class 100."""
    steps = cheaper_points(service("Pallet line"), parcel("48 x 40 x 30", "260 lb"), inches("1/2"))
    (step,) = [one for one in steps if one.what == "girth"]
    assert step.by == inches("2")  # 1/2 in off each of the four sides that the tape goes over


def test_where_nothing_within_reach_is_cheaper_or_it_is_not_taken_there_is_no_step() -> None:
    assert cheaper_points(service("Prepaid Label"), parcel("8 x 6 x 4", "2 lb")) == []
    assert cheaper_points(service("Small Cubes"), parcel("30 x 6 x 4", "2 lb")) == []


side = st.integers(20, 480).map(lambda n: Length(INCH.nm * n // 8))
sent_as = st.sampled_from(["box", "soft", "not rectangular"])


def test_just_under_a_cubic_foot_is_a_step_though_it_is_on_no_quarter_inch() -> None:
    """[Domestic Mail Manual, from memory: 1 ft3] 19 1/4 x 10 x 9 is 1732.5 in3; at 19.2 in it is 1728 and is spared."""
    (step, *_) = cheaper_points(service("Parcel"), parcel("19 1/4 x 10 x 9", "14 oz"))
    assert (step.what, step.to) == ("longest side", Length(INCH.nm * 192 // 10))


@given(side, side, side, st.integers(1, 1100), st.sampled_from(SERVICES), sent_as)
def test_every_step_costs_what_it_says_and_nothing_nearer_on_its_grid_costs_less(a, b, c, ounces, asks, form) -> None:
    sent = Parcel((a, b, c), read_mass(f"{ounces} oz"), "10440", "73120", form=form, flat=(a, b))
    now = quote(asks, sent)
    steps = cheaper_points(asks, sent)
    for step in steps:
        assert isinstance(now, Quote)
        if step.what == "weight":
            then = quote(asks, replace(sent, weight=step.to))
        elif step.what == "girth":
            longest, second, third = sent.sides
            off = Length(step.by.nm // 4)
            assert step.by.nm == 4 * off.nm
            assert step.to == sent.girth - step.by
            then = quote(asks, replace(sent, sizes=(longest, second - off, third - off)))
        else:
            n = ["longest side", "second side", "third side"].index(step.what)
            sides = list(sent.sides)
            sides[n] = step.to
            then = quote(asks, replace(sent, sizes=tuple(sides)))
            nearest = min((one for one in steps if one.what == step.what), key=lambda one: one.by)
            # An eighth of an inch nearer than the nearest it is no cheaper than now.
            for nm in range(step.to.nm + INCH.nm // 8, sent.sides[n].nm, INCH.nm // 8) if step is nearest else ():
                sides[n] = Length(nm)
                nearer = quote(asks, replace(sent, sizes=tuple(sides)))
                assert not isinstance(nearer, Quote) or nearer.amount >= now.amount
            assert step is nearest or step.saves.minor >= 2 * nearest.saves.minor
        assert isinstance(then, Quote)
        assert (then.amount, now.amount - then.amount) == (step.amount, step.saves)
        assert step.saves.minor > 0


@given(side, side, side, st.integers(0, 40), st.integers(1, 1100), st.sampled_from(SERVICES), sent_as)
def test_what_a_price_hangs_on_tells_alike_prices_from_unlike(a, b, c, off, ounces, asks, form) -> None:
    """An eighth of an inch at a time off a side: as long as nothing of it changes, neither does the price."""
    sent = Parcel((a, b, c), read_mass(f"{ounces} oz"), "10440", "73120", form=form, flat=(a, b))
    trimmed = (Length(max(a.nm - off * INCH.nm // 8, 1)), b, c)
    hangs = hangs_on(asks, sent)
    one, other = (quote(asks, sent.of_sizes(sizes)) for sizes in (sent.sizes, trimmed))
    amounts = [said.amount if isinstance(said, Quote) else None for said in (one, other)]
    assert hangs.key(sent.sizes) != hangs.key(trimmed) or amounts[0] == amounts[1]


@given(st.integers(8, 400), st.integers(8, 400), side, st.integers(1, 1400), st.sampled_from(SERVICES), sent_as,
       st.sampled_from([(0, 1), (1, 2), (2, 0)]), st.sampled_from([0, 0, 1]))  # fmt: skip
def test_every_cell_of_the_map_is_the_single_quote(x, y, third, ounces, asks, form, axes, off) -> None:
    """Also of sides a nanometre off every grid, whose volumes do not fit 64 bits."""
    step = INCH.nm // 8
    xs, ys = ([Length((start + 3 * k) * step + off) for k in range(9)] for start in (x, y))
    sizes = [third] * 3
    sent = Parcel(tuple(sizes), read_mass(f"{ounces} oz"), "10440", "73120", form=form, flat=(xs[0], ys[0]))
    seen = price_map(asks, sent, xs, ys, axes)
    for i, one in enumerate(xs):
        for j, other in enumerate(ys):
            cell = list(sizes)
            cell[axes[0]], cell[axes[1]] = one, other
            single = quote(asks, replace(sent, sizes=tuple(cell)))
            assert seen.at(i, j) == (single.amount if isinstance(single, Quote) else None)


def test_metric_sides_are_mapped() -> None:
    courier = next(one for one in SERVICES if one.carrier == "Quillmere Courier")
    sent = Parcel(tuple(Length.of_mm(n) for n in (300, 200, 150)), read_mass("1 kg"), "10440", "73120")
    seen = price_map(courier, sent, [Length.of_mm(n) for n in range(295, 345, 5)], [Length.of_mm(200)])
    assert seen.at(0, 0) == seen.at(1, 0)
    assert seen.at(8, 0) != seen.at(7, 0)  # 34 x 20 x 15 by 5000 is over 2 kg, 33 x 20 x 15 is not

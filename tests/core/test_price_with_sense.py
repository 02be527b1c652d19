"""Prices a careful person would pay: cover, the label a sale brings, where it was sold, wishes, countries, letters."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from fardo.core.plan.boxed import Boxed, box_up
from fardo.core.plan.channel import Channel, SaleLabel, closed_to
from fardo.core.plan.journey import Journey, Wishes
from fardo.core.plan.picture import draw_up
from fardo.core.plan.price import Plan, price
from fardo.core.quantity import Length, Money, read_mass
from fardo.core.tariff.carriers import Carriers
from fardo.core.tariff.limits import Limits
from fardo.core.tariff.service import Service, quote
from fardo.core.tariff.zones import ZoneRow, find_zone
from fardo.files.job import JobFile
from fardo.files.understood import understand
from tests.made_up import inches, job, load, services, shop

SHOP = shop()
C = SHOP.grade("C")
POST, CARTS = "Wendlefirth Post", "Oddbarrow"


def journey(**changes: Any) -> Journey:
    said: dict[str, Any] = {"value": None, "cover_from": Money(10_000, "USD"), **changes}
    return Journey("10440", "73120", False, **said)


def boxed(size: str = "10 x 6 x 4", weight: str = "3 lb") -> Boxed:
    return box_up(load(size, weight, gap="1/2"), "slotted", C, SHOP)


def without_cover(service: Service) -> Service:
    kept = tuple(charge for charge in service.charges if not charge.covers(Money(1, service.currency)))
    return replace(service, charges=kept)


def named(plans: list[Plan], carrier: str) -> Plan:
    return next(plan for plan in plans if plan.quote.carrier == carrier)


def two_services() -> list[Service]:
    """The post's parcel and a carrier's ground service."""
    post = next(one for one in services() if one.called == (POST, "Parcel", "counter"))
    ground = next(one for one in services() if one.called == (CARTS, "Ground", "account"))
    return [post, ground]


def test_what_does_not_cover_the_value_comes_after_what_does() -> None:
    """650 declared: the cheaper service has no cover for it and comes second, and says how much is at risk."""
    post, ground = two_services()
    cheap, dear = sorted((post, ground), key=lambda one: price(boxed(), journey(), [one])[0][0].costs.total.minor)
    value = Money(65_000, "USD")
    plans, _ = price(boxed(), journey(value=value), [without_cover(cheap), dear])
    assert [plan.quote.carrier for plan in plans] == [dear.carrier, cheap.carrier]
    assert [plan.quote.uncovered for plan in plans] == [None, value]
    assert plans[1].costs.total < plans[0].costs.total


def test_below_the_shops_value_it_is_only_said() -> None:
    post, ground = two_services()
    cheap, dear = sorted((post, ground), key=lambda one: price(boxed(), journey(), [one])[0][0].costs.total.minor)
    plans, _ = price(boxed(), journey(value=Money(9_900, "USD")), [without_cover(cheap), dear])
    assert plans[0].quote.carrier == cheap.carrier
    assert plans[0].quote.uncovered == Money(9_900, "USD")


def test_a_way_whose_services_all_leave_it_uncovered_comes_last_too() -> None:
    content = JobFile.model_validate(job(value="640.00"))
    bare = tuple(without_cover(one) for one in services())
    picture = draw_up(understand(content, SHOP), SHOP, Carriers(bare))
    assert picture.current is not None
    assert picture.current.plans[0].at_risk
    whole = draw_up(understand(content, SHOP), SHOP, Carriers(services()))
    assert whole.current is not None
    assert not whole.current.plans[0].at_risk


def test_the_shop_asks_for_a_signature_from_a_value_on() -> None:
    for value, asked in (("499.00", False), ("500.00", True)):
        read = understand(JobFile.model_validate(job(value=value)), SHOP)
        assert read.journey is not None
        assert read.journey.signature is asked


LABEL = SaleLabel(POST, read_mass("4 lb"))


def test_a_prepaid_label_is_there_only_where_a_sale_brought_one() -> None:
    plans, refused = price(boxed(), journey(), services())
    assert "prepaid" not in {plan.quote.rate_plan for plan in plans}
    assert {one.why for one in refused if one.rate_plan == "prepaid"} == {"no label came with the sale"}


def test_it_costs_the_seller_nothing_more() -> None:
    plans, _ = price(boxed(), journey(label=LABEL), services())
    first = plans[0]
    assert first.quote.rate_plan == "prepaid"
    assert first.quote.amount == Money(0, "USD")
    assert first.costs.postage == Money(0, "USD")
    assert first.costs.total == first.own


def test_its_cap_is_the_sales_and_not_the_tariffs() -> None:
    _, refused = price(boxed(weight="5 lb"), journey(label=LABEL), services())
    (why,) = {one.why for one in refused if one.rate_plan == "prepaid"}
    assert why.startswith("weighs 5 lb")
    assert why.endswith("the label from the sale takes 4 lb")


def test_another_carriers_label_does_not_go_with_this_one() -> None:
    _, refused = price(boxed(), journey(label=SaleLabel(CARTS, read_mass("4 lb"))), services())
    assert f"the label that came with the sale is {CARTS}'s" in {one.why for one in refused}


def test_a_label_that_covers_nothing_does_not_stand_before_what_covers() -> None:
    plans, _ = price(boxed(), journey(label=LABEL, value=Money(65_000, "USD")), services())
    assert plans[0].quote.uncovered is None
    prepaid = next(plan for plan in plans if plan.quote.rate_plan == "prepaid")
    assert prepaid.quote.uncovered == Money(65_000, "USD")


MARKET = Channel("Makers' market", frozenset({"marketplace"}), LABEL)


def test_a_marketplaces_prices_are_open_to_its_own_sales() -> None:
    assert closed_to(None, (MARKET,)) == {"marketplace"}
    assert closed_to(MARKET, (MARKET,)) == frozenset()
    _, refused = price(boxed(), journey(closed=closed_to(None, (MARKET,))), services())
    assert "marketplace prices belong to sales of another channel" in {one.why for one in refused}


def test_a_jobs_channel_brings_its_label_and_what_goes_in() -> None:
    slip = job()["extras"]
    at = replace(SHOP, channels=(replace(MARKET, inserts=understand_extras(slip)),))
    read = understand(JobFile.model_validate(job(channel="Makers' market", extras=[])), at)
    assert read.journey is not None
    assert read.journey.label == LABEL
    assert read.load is not None
    assert [extra.name for extra in read.load.extras] == ["spare reeds, boxed"]
    # One's own word goes before the channel's.
    own = {"carrier": CARTS, "most_weight": "2 lb"}
    read = understand(JobFile.model_validate(job(channel="Makers' market", label=own)), at)
    assert read.journey is not None
    assert read.journey.label == SaleLabel(CARTS, read_mass("2 lb"))


def understand_extras(entries: list[Any]) -> Any:
    read = understand(JobFile.model_validate(job(extras=entries)), SHOP)
    assert read.load is not None
    return read.load.extras


def test_a_channel_that_is_not_there_is_told() -> None:
    (problem,) = understand(JobFile.model_validate(job(channel="fair")), replace(SHOP, channels=(MARKET,))).problems
    assert (problem.field, problem.read, problem.allowed) == ("channel", "fair", "Makers' market")


def test_a_job_may_wish_for_at_most_so_many_days() -> None:
    plans, refused = price(boxed(), journey(wishes=Wishes(days_at_most=3)), services())
    assert plans
    assert all(plan.quote.days[1] <= 3 for plan in plans)
    assert any("at most 3 are wished for" in one.why for one in refused)


def test_a_job_may_wish_for_at_most_so_much_in_all() -> None:
    small, large = boxed("10 x 6 x 4"), boxed("20 x 12 x 9")
    wish = journey(wishes=Wishes(sides_sum_at_most=inches("36")))
    assert price(small, wish, services())[0]
    plans, refused = price(large, wish, services())
    assert plans == []
    assert any(one.why.endswith("at most 36 in is wished for") for one in refused)


def test_a_postcode_of_another_country_is_never_priced_as_home() -> None:
    """75001 is a place at home as it is one abroad."""
    at_home, _ = price(boxed(), replace(journey(), destination="75001"), services())
    abroad, refused = price(boxed(), replace(journey(), destination="75001", country="FR"), services())
    assert at_home
    assert abroad == []
    assert "does not go from 10440 to 75001" in {one.why for one in refused}


def test_a_tariff_says_which_country_it_serves() -> None:
    rows = [ZoneRow("1", ("7",), "home", (2, 5)), ZoneRow("1", ("7",), "abroad", (7, 14), "FR")]
    home, over = find_zone(rows, "10440", "75001"), find_zone(rows, "10440", "75001", "FR")
    assert home is not None
    assert over is not None
    assert (home.zone, over.zone) == ("home", "abroad")
    assert find_zone(rows, "10440", "75001", "DE") is None


@pytest.mark.parametrize(
    ("ship", "shops", "country"),
    [({}, "", ""), ({"to_country": "FR"}, "US", "FR"), ({"to_country": "us"}, "US", ""),
     ({"from_country": "FR", "to_country": "FR"}, "US", "")],
)  # fmt: skip
def test_home_is_where_it_leaves_from(ship: dict[str, str], shops: str, country: str) -> None:
    content = JobFile.model_validate(job(ship={**job()["ship"], **ship}))
    read = understand(content, replace(SHOP, country=shops))
    assert read.journey is not None
    assert read.journey.country == country


def test_what_is_no_country_is_told() -> None:
    content = JobFile.model_validate(job(ship={**job()["ship"], "to_country": "F1"}))
    (problem,) = understand(content, SHOP).problems
    assert (problem.field, problem.read, problem.allowed) == ("ship.to_country", "F1", "its two letters")


def test_a_letter_is_thin_and_bends() -> None:
    post, _ = two_services()
    letter = replace(post, name="Letter", form="letter", tracked=False,
                     limits=Limits(thickness=Length.of_inches("1/4"), bends=True))  # fmt: skip
    thin = replace(parcel("9 x 6 x 1/8"), stiff=False)
    taken = quote(letter, thin)
    assert not hasattr(taken, "why")
    assert (taken.form, taken.tracked) == ("letter", False)  # type: ignore[union-attr]
    assert quote(letter, replace(thin, stiff=True)).why == "is stiff; only what bends is taken"  # type: ignore[union-attr]
    thick = replace(parcel("9 x 6 x 1"), stiff=False)
    assert quote(letter, thick).why == "thickness is 1 in; the most is 1/4 in"  # type: ignore[union-attr]


def parcel(size: str) -> Any:
    from fardo.core.tariff.parcel import Parcel
    from tests.made_up import sizes

    return Parcel(sizes(size), read_mass("2 oz"), "10440", "73120")

"""What the look over a tariff finds, and that the made-up carriers' own are clean."""

from __future__ import annotations

import json
from typing import Any

import pytest

from fardo.core.refusal import BadInput
from fardo.core.tariff.lint import look_over, overlapping
from fardo.files.tariff import read_tariff
from tests.made_up import services


def tariff(*charges: dict[str, Any], **service: Any) -> Any:
    zones = [{"from": "1", "to": ["1-4"], "zone": "near", "days": [1, 2]},
             {"from": "1", "to": ["5-9"], "zone": "far", "days": [2, 4]}]  # fmt: skip
    plain = {"name": "Cart", "programme": "counter", "zones": zones, "weight_step": "1 lb", "charges": list(charges)}
    return read_tariff(json.dumps({"format": "fardo-tariff/1", "carrier": "Fennick Carts", "currency": "USD",
                                   "services": [{**plain, **service}]}))  # fmt: skip


def grid(*rows: list[str], zones: tuple[str, ...] = ("near", "far"), **more: Any) -> dict[str, Any]:
    return {"kind": "grid", "zones": list(zones), "rows": [list(row) for row in rows], **more}


GOOD = grid(["1 lb", "4.00", "5.00"], ["2 lb", "4.50", "5.80"], ["3 lb", "5.00", "6.60"])


def findings(*charges: dict[str, Any], **service: Any) -> list[str]:
    (one,) = tariff(*charges, **service).to_core()
    return look_over(one)


def test_a_sound_tariff_has_nothing_to_look_at() -> None:
    assert findings(GOOD) == []
    for service in services():
        assert look_over(service) == [], f"{service.carrier} {service.name}"


@pytest.mark.parametrize(
    ("charge", "says"),
    [
        (grid(["1 lb", "4.00"], zones=("near",), when={"to": ["1-4"]}), "no column for zone far"),
        (grid(["1 lb", "4.00", "5.00", "6.00"], zones=("near", "far", "moon")), "the column moon is no zone"),
        (grid(["1 lb", "4.00", "5.00"], ["2 lb", "4.50", "4.80"]), "costs 4.80, less than the row before it, 5.00"),
        (grid(["1 lb", "4.00", "5.00"], ["2 lb", "4.50", "5.80"], ["4 lb", "5.50", "6.90"]), "no row between 2 lb"),
        ({"kind": "freight", "zones": ["near", "far"], "minimum": "50.00", "rows": [["50", "20.00", "30.00"]]},
         "no row for class 55"),
        ({"kind": "volume", "zones": ["near", "far"], "step": "1/4 in", "longest_side": "18 in", "weight": "20 lb",
          "rows": [["0.1", "5.00", "6.00"], ["0.2", "4.00", "7.00"]]}, "up to 0.2 costs 4.00"),
        ({"kind": "soft-pack", "side": "18 in", "weight": "20 lb", "rows": [["21 in", "5.00"], ["27 in", "4.00"]]},
         "up to 27 in costs 4.00"),
        ({"kind": "container", "weight": "70 lb", "rows": [["bag", "5.00"], ["bag", "6.00"]]}, "named twice"),
    ],
)  # fmt: skip
def test_what_is_most_likely_a_slip_is_named_by_charge_row_and_column(charge: dict[str, Any], says: str) -> None:
    (first, *_) = [finding for finding in findings(charge) if says in finding]
    assert first.startswith("charge 1: ")


def test_a_tariff_without_postage_and_one_with_many_slips_are_told_in_few_words() -> None:
    assert "never gives a price" in findings({"kind": "residential", "amount": "3.00"})[-1]
    rows = [[f"{n} lb", f"{90 - n}.00", f"{95 + n}.00"] for n in range(1, 40)]
    found = findings(grid(*rows))
    assert len(found) == 4
    assert found[-1] == "charge 1: and 35 more like it"


@pytest.mark.parametrize(
    ("first", "second", "overlap"),
    [
        (("2026-01-01", "2026-06-30"), ("2026-07-01", None), False),
        (("2026-01-01", "2026-07-01"), ("2026-07-01", None), True),
        ((None, None), ("2026-07-01", None), True),
        ((None, "2025-12-31"), ("2026-01-01", "2026-12-31"), False),
    ],
)
def test_price_lists_of_one_service_may_not_hold_on_the_same_day(first, second, overlap: bool) -> None:
    lists = [
        tariff(GOOD, **{k: v for k, v in (("valid_from", a), ("valid_to", b)) if v}).to_core()[0]
        for a, b in (first, second)
    ]
    assert bool(overlapping(lists)) == overlap


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"charges": [grid(["1 lb", "4.00", "five"])]}, "charges[0].rows[0][2]"),
        ({"charges": [grid(["1 lb", "-4.00", "5.00"])]}, "charges[0].rows[0][1]"),
        ({"charges": [grid(["heavy", "4.00", "5.00"])]}, "charges[0].rows[0][0]"),
        ({"charges": [grid(["1 lb", "4.00"])]}, "charges[0].rows[0]"),
        ({"charges": [{**GOOD, "tail": {"step": "1 lb", "prices": ["0.40"]}}]}, "charges[0].tail.prices"),
        ({"charges": [{**GOOD, "when": {"longest_side_over": "long"}}]}, "charges[0].when.longest_side_over"),
        ({"charges": [GOOD, {"kind": "surcharge", "code": "x", "what": "x", "why": "x"}]}, "charges[1].prices"),
        ({"charges": [{"kind": "freight", "minimum": "1.00", "rows": [["51", "2.00"]]}]}, "charges[0].rows[0][0]"),
        ({"charges": [GOOD], "valid_from": "2026-02-01", "valid_to": "2026-01-01"}, "valid_to"),
        ({"charges": [GOOD], "bulky": {"length_and_girth_over": "84", "length_and_girth_to": "x",
                                       "weight_under": "20 lb", "billed": "20 lb"}}, "bulky.length_and_girth_to"),
        ({"charges": [GOOD, grid(["1 lb", "4.00"], zones=("near",))]}, "charges[1].zones"),
        ({"charges": [GOOD, {"kind": "surcharge", "code": "x", "what": "x", "why": "x", "zones": ["far"],
                             "prices": ["1.00"]}]}, "charges[1].zones"),
        ({"charges": [{"kind": "residential", "amount": "some"}]}, "charges[0].amount"),
        *(
            ({"charges": [GOOD], "zones": [{"from": "1", "to": ["1-9"], "zone": "near", "days": [1, 2], **wrong}]},
             f"zones[0].{field}")
            for wrong, field in (({"days": [3, 2]}, "days"), ({"days": [-1, 2]}, "days[0]"), ({"to": ["9-1"]}, "to[0]"),
                                 ({"to": ["1", "73-7"]}, "to[1]"), ({"to": [""]}, "to[0]"))
        ),
        ({"charges": [{"kind": "cover", "free": "1", "step": "1", "price": "-1", "most": "9"}]}, "charges[0].price"),
        ({"charges": [GOOD], "dimensional": {"divisor": "0", "unit": "in3/lb", "sides": "up"}}, "dimensional.divisor"),
    ],
)  # fmt: skip
def test_what_is_broken_is_refused_by_row_and_column(change: dict[str, Any], field: str) -> None:
    charges = change.pop("charges")
    with pytest.raises(BadInput) as refused:
        tariff(*charges, **change)
    assert refused.value.field == f"services[0].{field}"


@pytest.mark.parametrize(
    ("first", "second", "taken"),
    [
        (("2026-01-01", "2026-06-30"), ("2026-07-01", "2026-12-31"), True),
        (("2026-01-01", "2026-07-01"), ("2026-07-01", "2026-12-31"), False),
    ],
)
def test_a_tariff_with_two_prices_for_one_day_is_refused(first, second, taken: bool) -> None:
    lists = [
        {"name": "Cart", "weight_step": "1 lb", "charges": [GOOD], "valid_from": a, "valid_to": b,
         "zones": [{"from": "1", "to": ["1-4"], "zone": "near", "days": [1, 2]}]}
        for a, b in (first, second)
    ]  # fmt: skip
    file = {"format": "fardo-tariff/1", "carrier": "Fennick Carts", "currency": "USD", "services": lists}
    if taken:
        assert len(read_tariff(json.dumps(file)).services) == 2
        return
    with pytest.raises(BadInput, match="two price lists hold on the same day") as refused:
        read_tariff(json.dumps(file))
    assert refused.value.field == "services[1].valid_from"

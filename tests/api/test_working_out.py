"""What the screens are told about a job as it is typed."""

from __future__ import annotations

from dataclasses import replace
from decimal import Decimal
from typing import Any

import pytest
from fastapi.testclient import TestClient

from fardo.api.parts import cut_of
from fardo.core.protect.coat import Cut
from fardo.core.quantity import Length
from tests.made_up import box, job, part, shop


def work(client: TestClient, content: dict[str, Any], in_hand: str | None = None) -> dict[str, Any]:
    answer = client.post("/api/work-out", json={"job": content, "in_hand": in_hand})
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_a_measured_job_has_inside_ways_prices_and_docket(client: TestClient) -> None:
    told = work(client, job())
    # 9 1/2 and twice 2 in; the reeds (1 in) stand on a side.
    assert sorted(told["inside"]["sides"]) == ["12", "13 1/2", "14 1/2"]
    assert {way["way"] for way in told["ways"]} == {"tray", "slotted"}
    for name in ("tray", "slotted"):
        way = next(one for one in work(client, job(), name)["ways"] if one["way"] == name)
        totals = [float(quote["total"]) for quote in way["quotes"]]
        assert totals == sorted(totals)
        assert len(totals) >= 5
        assert way["total"] == way["quotes"][0]["total"]
    docket = told["docket"]
    cheapest = told["ways"][0]
    assert float(cheapest["total"]) <= float(told["ways"][1]["total"])
    assert docket["total"] == cheapest["total"]
    assert docket["outside"] == cheapest["outside"]
    assert docket["missing"] == []


def test_the_room_a_box_has_is_never_shown_larger_than_it_is(client: TestClient) -> None:
    """On C board (5/32) a panel for 14 1/2 is cut 14 11/16: 14 17/32 inside, which is shown as 14 1/2."""
    case = next(way for way in work(client, job())["ways"] if way["way"] == "slotted")
    assert case["inside"]["mm"][0] == pytest.approx((14 + 17 / 32) * 25.4)
    assert case["inside"]["figure"]["text"] == "14 1/2 x 13 1/2 x 12 in"
    assert (case["inside"]["figure"]["exact"], case["inside"]["figure"]["rounded"]) == (False, "down")
    assert case["outside"]["figure"]["rounded"] == "up"


def test_every_figure_says_why(client: TestClient) -> None:
    told = work(client, job())
    assert told["inside"]["figure"]["why"]["formula"] == "contents + 2 x gap, then the extras"
    assert ["gap on every side", "2 in"] in told["inside"]["figure"]["why"]["values"]
    docket = told["docket"]
    for why in (docket["outside"]["figure"]["why"], docket["weight"]["why"], docket["total_why"]):
        assert why["formula"]
        assert why["values"]
        assert why["rule"]
    for way in told["ways"]:
        for quote in way["quotes"]:
            assert all(charge["why"] for charge in quote["charges"])


def test_costs_of_a_quote_add_up_on_screen(client: TestClient) -> None:
    for way in work(client, job(value="640.00"))["ways"]:
        for quote in way["quotes"]:
            cents = {name: round(float(amount) * 100) for name, amount in quote["costs"].items()}
            assert sum(cents.values()) == round(float(quote["total"]) * 100)
            assert sum(round(float(c["amount"]) * 100) for c in quote["charges"]) == round(float(quote["amount"]) * 100)
            assert round(float(quote["own"]) * 100) + round(float(quote["amount"]) * 100) == round(
                float(quote["total"]) * 100
            )


def test_what_is_missing_is_named_and_nothing_else_fails(client: TestClient) -> None:
    told = work(client, {"format": "fardo-job/1"})
    assert told["missing"] == ["length", "width", "height", "weight", "postcode it goes to"]
    assert told["ways"] == []
    assert told["knots"][0]["state"] == "open"


def test_what_cannot_be_read_is_told_by_field_and_not_refused(client: TestClient) -> None:
    told = work(client, job(parts=[part(shape=box(length="ten", width="4 lb"), weight="5 in")]))
    sentences = {problem["field"]: problem["sentence"] for problem in told["problems"]}
    assert set(sentences) == {"parts[0].shape.length", "parts[0].shape.width", "parts[0].weight"}
    assert "read 'ten'" in sentences["parts[0].shape.length"]
    assert "a weight, where a length is wanted" in sentences["parts[0].shape.width"]


def test_drawings_come_for_the_way_that_is_asked_for(client: TestClient) -> None:
    told = work(client, job(), in_hand="tray")
    drawn = {blank["name"]: blank["svg"] for way in told["ways"] for blank in way["blanks"]}
    assert drawn["tray"].startswith("<svg")
    assert drawn["lid"].startswith("<svg")
    assert drawn["case"] is None


def test_both_schools_are_shown_and_the_job_says_which_is_used(client: TestClient) -> None:
    for school, other in (("exact", "thumb"), ("thumb", "exact")):
        tray = next(way for way in work(client, job(school=school))["ways"] if way["way"] == "tray")
        assert tray["school"] == school
        assert tray["other_school"]["school"] == other
        assert tray["other_school"]["blanks"][0]["size"] != tray["blanks"][0]["size"]


@pytest.mark.parametrize("typed", ["12", "12.00", "1 ft", "30.48 cm", "6 + 6", 304.8])
def test_a_foot_is_a_foot_on_the_docket_however_it_is_typed(client: TestClient, typed: str | float) -> None:
    told = work(client, job(parts=[part(shape=box(length=typed, width=typed, height=typed), gap="0")], extras=[]))
    assert told["inside"]["figure"]["text"] == "12 x 12 x 12 in"
    assert told["docket"]["outside"]["figure"]["text"] == "12 3/8 x 12 3/8 x 12 5/8 in"


def test_a_chosen_box_is_tied_until_the_inside_changes(client: TestClient) -> None:
    way = work(client, job())["ways"][0]
    chosen = {"box": {"way": way["way"], "school": way["school"], "board": way["board"], "inside_mm": way["needed_mm"]}}
    states = lambda told: [knot["state"] for knot in told["knots"]]  # noqa: E731
    assert states(work(client, job(chosen=chosen))) == ["tied", "tied", "tied", "tied", "open"]
    assert states(work(client, job(chosen=chosen, extras=[]))) == ["tied", "tied", "tied", "loose", "open"]


def test_a_chosen_service_is_tied_until_it_asks_something_else(client: TestClient) -> None:
    way = work(client, job())["ways"][0]
    quote = way["quotes"][1]
    chosen = {
        "box": {"way": way["way"], "school": way["school"], "board": way["board"], "inside_mm": way["needed_mm"]},
        "price": {
            key: quote[key] for key in ("carrier", "service", "programme", "amount", "currency", "billed_weight_g")
        },
    }
    told = work(client, job(chosen=chosen))
    assert [knot["state"] for knot in told["knots"]] == ["tied"] * 5
    assert told["next_move"] == "Pack it"
    assert told["docket"]["total"] == quote["total"]
    heavier = job(chosen=chosen, parts=[part(weight="40 lb")])
    knot = work(client, heavier)["knots"][4]
    assert knot["state"] == "loose"
    assert knot["says"].startswith(f"was {quote['amount']}, is ")


def test_the_bench_line_prices_a_parcel_and_finds_a_job(client: TestClient) -> None:
    priced = client.post("/api/line", json={"text": "24x12x8 9lb to 73120"}).json()
    assert priced["kind"] == "price"
    assert priced["read_as"] == "24 x 12 x 8 in, 9 lb, from 10440 to 73120"
    billed = {(quote["carrier"], quote["service"]): quote["billed"] for quote in priced["quotes"]}
    assert billed["Wendlefirth Post", "Parcel"] == "14 lb"
    assert billed["Oddbarrow", "Ground"] == "17 lb"
    found = client.post("/api/line", json={"text": "saddle"}).json()
    assert [row["title"] for row in found["jobs"]] == ["Stock saddle, stirrups off"]
    assert client.post("/api/line", json={"text": "24x12x8"}).status_code == 422


@pytest.mark.parametrize(
    ("line", "read_as"),
    [
        ("12x6x6 4.4lb soft to 73120", "soft pack 18 x 12 in flat"),
        ("12 x 6 x 6 in 4 lb flat 18x13 from 10440 to 73120 home", "soft pack 18 x 13 in flat"),
    ],
)
def test_a_soft_pack_is_priced_in_the_line(client: TestClient, line: str, read_as: str) -> None:
    """A closed box 12 x 6 x 6 needs a bag of l + h = 18 and w + h = 12 flat (common practice)."""
    priced = client.post("/api/line", json={"text": line}).json()
    assert read_as in priced["read_as"]
    assert "Soft Pack" in [quote["service"] for quote in priced["quotes"]]
    as_box = client.post("/api/line", json={"text": "12x6x6 4.4lb to 73120"}).json()
    assert "Soft Pack" not in [quote["service"] for quote in as_box["quotes"]]


def test_settings_change_what_every_job_is_worked_out_from(client: TestClient) -> None:
    view = client.get("/api/shop").json()
    shop = {**view["shop"], "units": "cm"}
    assert client.put("/api/shop", json={"revision": view["revision"], "shop": shop}).status_code == 200
    told = work(client, job())
    assert told["inside"]["figure"]["text"] == "34.3 x 36.9 x 30.5 cm"
    assert told["inside"]["figure"]["exact"] is False
    stale = client.put("/api/shop", json={"revision": view["revision"], "shop": shop})
    assert stale.status_code == 409
    broken = {**shop, "gap": "minus two"}
    answer = client.put("/api/shop", json={"revision": view["revision"] + 1, "shop": broken})
    assert answer.status_code == 422
    assert answer.json()["field"] == "gap"


def test_parcels_that_are_allowed_and_not_planned_are_said(client: TestClient) -> None:
    several = "Up to 3 parcels are allowed; these figures are of one."
    said = client.post("/api/work-out", json={"job": job(parcels_at_most=3)}).json()
    assert several in said["docket"]["cautions"]
    assert several not in client.post("/api/work-out", json={"job": job()}).json()["docket"]["cautions"]


def test_a_job_is_divided_among_the_parcels_it_allows(client: TestClient) -> None:
    heavy = part(name="anvil", shape={"kind": "box", "length": "14 in", "width": "8 in", "height": "8 in"},
                 weight="30 lb", count=2, gap="0")  # fmt: skip
    content = job(parts=[heavy], extras=[], parcels_at_most=2, wishes={"parcel_weight_at_most": "40 lb"})
    told = client.post("/api/parcels", json={"job": content}).json()
    assert told["one"] is None
    first = told["plans"][0]
    assert [one["holds"] for one in first["parcels"]] == [["anvil"], ["anvil"]]
    assert first["against"] == "no service takes it in one parcel"
    assert float(first["total"]) == pytest.approx(float(first["postage"]) + float(first["own"]))
    one = client.post("/api/parcels", json={"job": {**content, "parcels_at_most": 1}}).json()
    assert one["plans"] == []
    nowhere = client.post("/api/parcels", json={"job": {**content, "ship": {}}})
    assert nowhere.status_code == 422


def test_one_part_with_its_kinds_measures_is_named_and_several_are_counted(client: TestClient) -> None:
    parts = [part(name="reed", guessed=True), part(name="beater")]
    missing = client.post("/api/work-out", json={"job": job(parts=parts)}).json()["docket"]["missing"]
    assert "measure reed" in missing
    parts[1]["guessed"] = True
    missing = client.post("/api/work-out", json={"job": job(parts=parts)}).json()["docket"]["missing"]
    assert "measure 2 parts yourself" in missing


def test_what_stands_in_a_folded_box_has_its_own_sides(client: TestClient) -> None:
    one = part(shape=box(length="9 in", width="7 in", height="4 in"), gap="0")
    told = client.post("/api/fold", json={"job": job(parts=[one], extras=[]), "way": "tray"}).json()
    (thing,) = told["things"]
    assert sorted(thing["size_mm"]) == pytest.approx([4 * 25.4, 7 * 25.4, 9 * 25.4])


def test_the_docket_says_what_a_sale_leaves(client: TestClient) -> None:
    content = job(sale={"price": "640.00", "postage": "85.00"}, channel="Makers' market")
    docket = client.post("/api/work-out", json={"job": content}).json()["docket"]
    cost = Decimal(docket["total"])
    assert docket["sale"]["fees"] == "58.00"  # 8 % of both
    assert Decimal(docket["sale"]["left"]) == Decimal("725.00") - 58 - cost
    assert Decimal(docket["sale"]["postage_to_ask"]) * Decimal("0.92") >= cost
    assert docket["sale"]["fees_known"] is True
    content = job(sale={"price": "640.00"})
    docket = client.post("/api/work-out", json={"job": content}).json()["docket"]
    assert (docket["sale"]["fees"], docket["sale"]["fees_known"]) == ("0.00", False)
    wrong = client.post("/api/work-out", json={"job": job(sale={"price": "much"})}).json()
    assert [problem["field"] for problem in wrong["problems"]] == ["sale.price"]
    assert client.post("/api/work-out", json={"job": job()}).json()["docket"]["sale"] is None


@pytest.mark.parametrize(
    ("ship", "beside", "note"),
    [
        ({}, [], "Enter the destination postcode to see prices."),
        ({"to": "73120"}, [{"name": "stand", "size": "20 by"}], "Correct the marked fields to see prices."),
        ({"to": "73120"}, [{"name": "stand", "size": "20 x 14 x 9"}], "Enter what is missing to see prices."),
        ({"to": "nowhere!"}, [], "Correct the marked fields to see prices."),
    ],
)
def test_the_docket_says_what_the_price_waits_for(
    client: TestClient, ship: dict[str, str], beside: list[dict[str, str]], note: str
) -> None:
    block = {"kind": "box", "length": "3 in", "width": "2 in", "height": "2 in"}
    sized = {"name": "block", "weight": "6 oz", "gap": "0", "shape": block}
    docket = work(client, {"parts": [sized], "ship": ship, "beside": beside})["docket"]
    assert (docket["note"], docket["total"]) == (note, None)


def test_soft_wrap_is_cut_to_the_next_whole_inch_or_centimetre() -> None:
    bubble = shop().material("bubble-small")
    cut = Cut(2, Length.of_mm(253), Length.of_mm(201))
    assert cut_of(cut, replace(bubble, tears_every=None), "cm") == "2 of 26 x 21 cm"
    assert cut_of(cut, replace(bubble, tears_every=None), "in") == "2 of 10 x 8 in"


def test_every_price_but_the_first_says_how_much_more_it_is(client: TestClient) -> None:
    way = work(client, job(), "slotted")["ways"][0]
    first, *others = way["quotes"]
    assert first["more"] == ""
    assert others[0]["more"].endswith(f" more than {first['carrier']} {first['service']}")
    difference = Decimal(others[0]["total"]) - Decimal(first["total"])
    assert others[0]["more"].startswith(f"{difference} more than")

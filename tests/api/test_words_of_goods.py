"""What the screens are told of parts and wrap: words in the shop's units, sums that agree with the plan's."""

from __future__ import annotations

import re
from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.made_up import job, part


def work(client: TestClient, *parts: dict[str, Any], **changes: Any) -> dict[str, Any]:
    answer = client.post("/api/work-out", json={"job": job(parts=list(parts), **changes)})
    assert answer.status_code == 200, answer.text
    return answer.json()


def slab(**changes: Any) -> dict[str, Any]:
    return part(shape={"kind": "box", "length": "20 in", "width": "16 in", "height": "2 in"}, **changes)


def grows(client: TestClient, material: str, **asks: Any) -> str:
    told = work(client, slab(protect=[{"material": material, **asks}]))
    return told["parts"][0]["coats"][0]["grows"]


@pytest.mark.parametrize(
    ("material", "asks", "words"),
    [
        ("bubble-large", {}, "1/2 in on every side"),
        ("bubble-large", {"layers": 3}, "1 1/2 in on every side"),
        ("bubble-large", {"crossed": True}, "1/2 x 1/2 x 1 in on each side"),
        ("faces", {}, "3/16 in on two sides"),  # 5/32, up
        ("pad-foam", {}, "1/2 in on two sides"),
        ("stuffing", {"hollow": "4 x 3 x 2 in"}, ""),
    ],
)
def test_what_a_layer_adds_is_said_in_words(
    client: TestClient, material: str, asks: dict[str, Any], words: str
) -> None:
    assert grows(client, material, **asks) == words


@pytest.mark.parametrize(
    ("material", "asks", "amount"),
    [
        # 20 x 16 in of both sides: 2 x 320 / 144 sq ft, up at the last figure.
        ("faces", {}, "4.5 sq ft"),
        # Four edges: 20 + 20 + 16 + 16 in.
        ("edge-foam", {}, "6 ft"),
        ("sleeve", {"layers": 2}, "2 pieces"),
        # 24 cu in is 0.393 litres.
        ("stuffing", {"hollow": "4 x 3 x 2 in"}, "0.4 litres"),
    ],
)
def test_amounts_are_said_as_they_are_bought(
    client: TestClient, material: str, asks: dict[str, Any], amount: str
) -> None:
    told = work(client, slab(protect=[{"material": material, **asks}]))
    assert told["parts"][0]["coats"][0]["amount"] == amount


def test_a_metric_shop_is_told_metres_and_litres(client: TestClient) -> None:
    view = client.get("/api/shop").json()
    shop = {**view["shop"], "units": "cm"}
    client.put("/api/shop", json={"revision": view["revision"], "shop": shop})
    told = work(client, slab(protect=[{"material": "faces"}, {"material": "edge-foam"}]))
    assert [coat["amount"] for coat in told["parts"][0]["coats"]] == ["0.5 m²", "1.9 m"]
    assert told["parts"][0]["volume"] == "10.5 litres"
    assert told["parts"][0]["bare"]["figure"]["text"] == "50.8 x 40.7 x 5.1 cm"


@pytest.mark.parametrize("liner", [None, {"material": "liner-foam"}])
def test_the_wrap_list_adds_up_to_what_every_plan_says_of_wrap(client: TestClient, liner: Any) -> None:
    """A liner is cut to its box: with one the list is that of the box in hand, and others come to another sum."""
    wrap = [{"material": "tissue"}, {"material": "bubble-small", "layers": 2, "crossed": True}]
    told = work(
        client, slab(protect=wrap, count=3), part(protect=[{"material": "inner-box", "room": "1 in"}]), liner=liner
    )
    total = round(float(told["wrap"]["price"]) * 100)
    assert total == sum(round(float(one["price"]) * 100) for one in told["wrap"]["totals"])
    sums = [
        {round(float(quote["costs"]["wrap"]) * 100) for quote in way["quotes"]} for way in told["ways"] if way["quotes"]
    ]
    assert sums[0] == {total}
    assert (set.union(*sums) == {total}) is (liner is None)
    # Three slabs of two layers each, the inner box, the liner: two minutes a layer.
    assert told["wrap"]["minutes"] == 2 * (3 * 2 + 1 + (liner is not None))


def test_every_piece_to_cut_is_listed_with_what_it_is_for(client: TestClient) -> None:
    told = work(
        client,
        slab(name="panel", count=2, protect=[{"material": "corners"}]),
        slab(name="leaf", count=23, piles=3, protect=[{"material": "sleeve"}]),
    )
    listed = [(cut["pieces"], cut["what"]) for cut in told["wrap"]["cuts"]]
    assert listed == [("8 x", "panel"), ("2 x", "leaf, pile of 8"), ("1 x", "leaf, pile of 7")]


def test_the_weight_of_wrap_counts_in_the_parcel(client: TestClient) -> None:
    bare, wrapped = (work(client, slab(protect=layers)) for layers in ([], [{"material": "inner-box"}]))

    def values(told: dict[str, Any]) -> dict[str, str]:
        return dict(told["docket"]["weight"]["why"]["values"])

    assert "wrap" not in values(bare)
    # To a tenth of an ounce, so that what a weight is made of adds up to it.
    assert (values(wrapped)["wrap"], wrapped["wrap"]["weight"]) == ("1 lb 2.4 oz", "1 lb 3 oz")


def test_a_wrapped_size_says_why(client: TestClient) -> None:
    told = work(client, slab(protect=[{"material": "bubble-large", "layers": 2}]))
    why = told["parts"][0]["wrapped"]["why"]
    assert why["values"] == [["bare", "20 x 16 x 2 in"], ["large bubble, 1/2 in", "1 in on every side"]]
    cut = told["parts"][0]["coats"][0]["why"]
    assert dict(cut["values"])["girth"] == "36 in"
    assert "common practice" in cut["rule"]


def test_the_docket_names_each_part_whose_cushion_falls_short(client: TestClient) -> None:
    told = work(client, slab(name="panel", fragility="20 G", gap="1"), slab(name="lid", fragility="rugged", gap="2"))
    short = [caution for caution in told["docket"]["cautions"] if "of cushion" in caution]
    assert len(short) == 1
    assert re.fullmatch(r"panel: goods that bear 20 G need [\d /]+ in of cushion, there is 1 in", short[0])


def test_things_of_a_layout_are_as_large_as_they_are_wrapped(client: TestClient) -> None:
    told = work(client, slab(protect=[{"material": "bubble-large"}]), part(count=2))
    assert [thing["name"] for thing in told["layout"]["parts"]] == ["concertina in its case"] * 3
    assert sorted(told["layout"]["parts"][0]["size_mm"]) == pytest.approx([3 * 25.4, 17 * 25.4, 21 * 25.4])
    inside = told["layout"]["inside_mm"]
    for thing in (*told["layout"]["parts"], *told["layout"]["extras"]):
        assert all(at >= 0 for at in thing["at_mm"])
        assert all(a + s <= whole + 1e-6 for a, s, whole in zip(thing["at_mm"], thing["size_mm"], inside, strict=True))


def test_a_shape_half_measured_has_nothing_to_look_at_and_says_what_is_missing(client: TestClient) -> None:
    answer = client.post("/api/shape", json={"part": {"shape": {"kind": "ring", "outer_diameter": "9 in"}}})
    assert answer.status_code == 422
    assert answer.json()["field"] == "inside diameter"
    whole = {"kind": "ring", "outer_diameter": "9 in", "inner_diameter": "7 in", "thickness": "1 in"}
    shown = client.post("/api/shape", json={"part": {"shape": whole}}).json()
    assert [(line["name"], line["text"]) for line in shown["lines"]] == [
        ("outer_diameter", "9 in"), ("inner_diameter", "7 in"), ("thickness", "1 in"),
    ]  # fmt: skip
    assert max(shown["faces"]) == len(shown["vertices_mm"]) // 3 - 1


def test_the_line_finds_kinds_by_any_of_their_words(client: TestClient) -> None:
    def kinds(text: str) -> list[str]:
        return [row["code"] for row in client.post("/api/line", json={"text": text}).json()["kinds"]]

    assert kinds("squeezebox") == ["concertina"]
    assert kinds("spin wh") == ["spinning-wheel"]
    assert kinds("loom") == ["table-loom"]
    assert kinds("nothing of the kind") == []

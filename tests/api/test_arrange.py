"""A search that runs on its own and tells how far it is; things moved by hand; the knot it ties and loosens."""

from __future__ import annotations

import io
import json
from collections.abc import Iterable
from typing import Any

import pytest
from fastapi.testclient import TestClient
from pypdf import PdfReader

from fardo.api.routers.arrange import _there
from fardo.core.arrange.ask import all_turned
from fardo.core.arrange.initial_layout import initial_layout
from fardo.core.arrange.turn import TURNS
from fardo.core.plan.load import ask_of, bodies_of
from fardo.files.arrangement import write_arrangement
from fardo.files.job import JobFile
from tests.api.test_working_out import work
from tests.made_up import box, job, part, wheel_in_bubble

RIM = {"kind": "ring", "outer_diameter": "20 in", "inner_diameter": "16 in", "thickness": "2 in"}
HUB = {"kind": "cylinder", "diameter": "6 in", "length": "2 in"}


def wheel(**changes: Any) -> dict[str, Any]:
    parts = [part(name="rim", shape=RIM, gap="1/2 in"), part(name="hub", shape=HUB, gap="1/2 in", count=2)]
    return job(parts=parts, extras=[], **changes)


def events(client: TestClient, run: str) -> list[dict[str, Any]]:
    with client.stream("GET", f"/api/arrange/{run}/stream") as answer:
        assert answer.headers["content-type"].startswith("text/event-stream")
        return [json.loads(line[6:]) for line in answer.iter_lines() if line.startswith("data: ")]


def knot(told: dict[str, Any]) -> dict[str, Any]:
    return next(one for one in told["knots"] if one["name"] == "arrange")


def test_a_search_tells_how_far_it_is_and_its_best_ties_the_knot(client: TestClient) -> None:
    content = wheel()
    before = work(client, content)
    assert knot(before)["state"] == "open"
    assert before["next_move"] == "Arrange it"
    begun = client.post("/api/arrange", json={"job": content, "effort": "quick"})
    assert begun.status_code == 202
    told = events(client, begun.json()["run"])
    assert told[-1]["state"] == "done"
    assert [one["done"] for one in told] == sorted(one["done"] for one in told)
    totals = [float(answer["total"]) for answer in told[-1]["answers"]]
    assert totals == sorted(totals)
    best = told[-1]["answers"][0]
    assert best["faults"] == []
    # Both hubs are in the hole of the rim: the rim and half an inch on every side is all it takes.
    assert sorted(best["inside"]["sides"]) == ["21", "21", "3"]
    assert best["saves_percent"] > 0
    after = work(client, {**content, "arrangement": best["entry"]})
    assert knot(after)["state"] == "tied"
    assert sorted(after["inside"]["sides"]) == ["21", "21", "3"]
    assert {placed["name"] for placed in after["layout"]["parts"]} == {"rim", "hub"}
    looked = client.get(f"/api/arrange/{begun.json()['run']}").json()
    assert looked == told[-1]


def test_a_search_is_stopped_with_the_best_so_far(client: TestClient) -> None:
    begun = client.post("/api/arrange", json={"job": wheel(), "effort": "long"}).json()
    assert client.post(f"/api/arrange/{begun['run']}/stop").status_code == 200
    told = events(client, begun["run"])
    assert told[-1]["state"] == "stopped"
    assert told[-1]["done"] < told[-1]["of"] or told[-1]["of"] == 1


def test_a_part_that_changed_loosens_the_knot_and_nothing_false_is_promised(client: TestClient) -> None:
    content = wheel()
    beside = work(client, content)["layout"]
    entry = as_entry(beside)
    assert knot(work(client, {**content, "arrangement": entry}))["state"] == "tied"
    content["parts"][1]["shape"] = {**HUB, "length": "9 in"}
    told = work(client, {**content, "arrangement": entry})
    assert knot(told) == {"name": "arrange", "state": "loose", "says": "something changed since it was arranged"}
    assert told["next_move"] == "Arrange it again"


def test_a_hand_is_told_what_it_breaks_and_what_it_makes(client: TestClient) -> None:
    content = wheel()
    entry = as_entry(work(client, content)["layout"])
    rim, hub, _ = (one["at_mm"] for one in entry["placements"])
    kept = {**content, "arrangement": entry}

    def by_hand(**change: Any) -> dict[str, Any]:
        answer = client.post("/api/arrange/hand", json={"job": kept, "thing": 1, **change})
        answer.raise_for_status()
        return answer.json()

    def way_to(place: Iterable[float]) -> list[float]:
        return [there - here for there, here in zip(place, hub, strict=True)]

    told = by_hand(move_mm=way_to((150, 150, 300)))
    assert told["faults"] == []
    assert told["fill"], "a hub in the air has fill named under it"
    assert any("comes too near" in fault["says"] for fault in by_hand(move_mm=way_to(rim))["faults"])
    kept["arrangement"] = told["entry"]
    dropped = by_hand(drop=True)
    was, now = (view["layout"]["parts"][1]["at_mm"][2] for view in (told, dropped))
    assert now < was
    assert dropped["faults"] == []


def test_a_hand_turns_a_thing_about_its_own_middle_and_locks_it(client: TestClient) -> None:
    content = wheel()
    content["arrangement"] = as_entry(work(client, content)["layout"])

    def hub(**change: Any) -> dict[str, Any]:
        answer = client.post("/api/arrange/hand", json={"job": content, "thing": 1, **change})
        return answer.json()["layout"]["parts"][1]

    before = hub()
    tipped = hub(turn=0)
    assert tipped["turn"] == [[1, 0, 0], [0, 0, -1], [0, 1, 0]]
    length, width, height = before["size_mm"]
    assert tipped["size_mm"] == pytest.approx([length, height, width])
    four_times = content
    for _ in range(4):
        answer = client.post("/api/arrange/hand", json={"job": four_times, "thing": 1, "turn": 2}).json()
        four_times = {**content, "arrangement": answer["entry"]}
    assert answer["layout"]["parts"][1]["turn"] == before["turn"]
    assert hub(lock=True)["locked"]
    assert hub(lock=True)["at_mm"] == before["at_mm"]
    assert not hub(lock=False)["locked"]


def test_what_cannot_be_arranged_is_told_at_once(client: TestClient) -> None:
    content = wheel()
    for one in content["parts"]:
        one["rules"] = {"bundle": "wheel", "apart_from": ["rim", "hub"]}
    answer = client.post("/api/arrange", json={"job": content})
    assert answer.status_code == 422
    assert "rim and hub are to be held together and kept apart" in answer.json()["detail"]


def test_there_is_no_other_run(client: TestClient) -> None:
    assert client.get("/api/arrange/nothing").status_code == 404
    assert client.post("/api/arrange/nothing/stop").status_code == 404


def test_shapes_of_like_things_are_told_once(client: TestClient) -> None:
    told = client.post("/api/arrange/shapes", json={"job": wheel()}).json()
    assert told["of"] == [0, 1, 1]
    assert [len(shape["vertices_mm"]) > 0 for shape in told["shapes"]] == [True, True]


def test_the_packed_box_is_printed_with_its_sizes_and_the_order(client: TestClient) -> None:
    saved = client.post("/api/jobs", json=wheel()).json()
    answer = client.get(f"/api/jobs/{saved['id']}/packing.pdf")
    assert answer.headers["content-type"] == "application/pdf"
    words = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(answer.content)).pages)
    for said in ("plan", "front", "right side", "rim", "hub", "scale 1:", "Goes in, straight down"):
        assert said in words
    told = work(client, wheel())
    for side in told["ways"][0]["inside"]["sides"]:
        assert side in words


def test_the_heads_of_the_packing_sheets_tables_are_bold_and_their_rows_are_not(client: TestClient) -> None:
    parts = [part(name="hub", gap="1 in", rules={"this_side_up": True}), part(name="rim", gap="1 in")]
    key = client.post("/api/jobs", json=job(parts=parts, ways=["slotted"], extras=[])).json()["id"]
    page = PdfReader(io.BytesIO(client.get(f"/api/jobs/{key}/packing.pdf").content)).pages
    fonts: dict[str, set[str]] = {}

    def seen(text: str, _: object, __: object, font: dict[str, str] | None, ___: float) -> None:
        if text.strip() and font:
            fonts.setdefault(text.strip(), set()).add(font["/BaseFont"])

    for one in page:
        one.extract_text(visitor_text=seen)
    assert fonts["left"] == {"/Helvetica-Bold"}
    assert fonts["this side up"] == {"/Helvetica"}
    assert "flat" not in fonts


def test_what_stays_flat_says_so_on_the_packing_sheet_and_what_may_lie_anyhow_says_nothing(client: TestClient) -> None:
    parts = [part(name="hub", gap="1 in", rules={"keep_flat": True}), part(name="rim", gap="1 in")]
    words = " ".join(pages_of(client, job(parts=parts, ways=["slotted"], extras=[]))).split()
    assert words.count("flat") == 1


def test_each_view_of_the_packing_sheet_has_its_own_two_sides(client: TestClient) -> None:
    """Of a box 10 x 6 x 10: plan 10 by 6, front 10 by 10, right side 6 by 10."""
    block = box(length="10 in", width="6 in", height="5 in")
    blocks = [part(name=name, shape=block, gap="0", weight="2 lb") for name in ("lower", "upper")]
    key = client.post("/api/jobs", json=job(parts=blocks, extras=[])).json()["id"]
    page = PdfReader(io.BytesIO(client.get(f"/api/jobs/{key}/packing.pdf").content)).pages[0]
    lines = page.extract_text().splitlines()
    assert (lines.count("10 in"), lines.count("6 in")) == (4, 2)
    # From above the upper one hides the lower's number; from the front and the side both are seen.
    assert sorted(line for line in lines if line.isdigit()) == ["1", "1", "2", "2", "2"]


def pages_of(client: TestClient, content: dict[str, Any]) -> list[str]:
    key = client.post("/api/jobs", json=content).json()["id"]
    return [
        one.extract_text() for one in PdfReader(io.BytesIO(client.get(f"/api/jobs/{key}/packing.pdf").content)).pages
    ]


def test_each_layer_has_a_plan_with_what_is_in_it_by_name(client: TestClient) -> None:
    """One on the other is two layers, 5 in apart; flat things side by side are one, and one thing alone needs none."""
    block = box(length="10 in", width="6 in", height="5 in")
    stacked = [part(name=name, shape=block, gap="0", weight="2 lb") for name in ("lower", "upper")]
    pages = pages_of(client, job(parts=stacked, extras=[]))
    first, second = (next(page for page in pages if f"Layer {n} of 2" in page) for n in (1, 2))
    assert ("on the floor" in first, "from 5 in above the floor" in second) == (True, True)
    names = [[name for name in ("lower", "upper") if name in page] for page in (first, second)]
    assert sorted(names) == [["lower"], ["upper"]]
    flat = box(length="14 in", width="9 in", height="1/2 in")
    beside = [
        part(name=name, shape=flat, gap="0", weight="1 lb", rules={"no_load_on_top": True}) for name in ("a1", "b2")
    ]
    pages = pages_of(client, job(parts=beside, extras=[]))
    one = [page for page in pages if "One layer" in page]
    assert len(one) == 1
    assert "a1" in one[0]
    assert "b2" in one[0]
    assert not any("ayer" in page for page in pages_of(client, job(parts=stacked[:1], extras=[])))


def test_the_packing_sheet_is_ticked_from_the_top_down(client: TestClient) -> None:
    content = wheel() | {"extras": [{"name": "packing slip", "size": ["11 in", "8 1/2 in", "1/64 in"]}]}
    content["parts"][0]["protect"] = [{"material": "bubble-small", "layers": 2}]
    content["parts"][0]["gap"] = "2 in"
    content["parts"][1]["protect"] = [{"material": "tissue"}]
    key = client.post("/api/jobs", json=content).json()["id"]
    pages = PdfReader(io.BytesIO(client.get(f"/api/jobs/{key}/packing.pdf").content)).pages
    words = " ".join(page.extract_text() for page in pages[1:])
    order = ("Wrap", "small bubble", "Fill first", "Under", "Goes in", "On top", "Pack it", "packing slip, last")
    places = [words.index(said) for said in order]
    assert places == sorted(places)
    assert "hub, 2 of them" in words
    assert "rim, " not in words


def test_a_bag_closes_on_the_goods_and_nothing_is_filled(client: TestClient) -> None:
    reed = {"kind": "box", "length": "11 13/16 in", "width": "4 3/4 in", "height": "1/2 in"}
    content = job(
        parts=[part(name="reed", shape=reed, gap="0", fragility="does-not-break")], ways=["mailer"], extras=[]
    )
    told = work(client, content)
    assert told["ways"][0]["filling"]["places"] == []
    key = client.post("/api/jobs", json=content).json()["id"]
    sheet = PdfReader(io.BytesIO(client.get(f"/api/jobs/{key}/packing.pdf").content)).pages
    words = " ".join(page.extract_text() for page in sheet)
    assert "closed on the goods as wrapped, 11 13/16 x 4 3/4 x 1/2 in" in words
    assert "Fill" not in words
    cut = PdfReader(io.BytesIO(client.get(f"/api/jobs/{key}/cut-sheet.pdf?way=mailer").content)).pages[0]
    assert "no board" not in cut.extract_text()
    assert "score" not in cut.extract_text()


def test_the_trim_that_the_docket_names_is_tried(client: TestClient) -> None:
    def plate(name: str, size: str, count: int) -> dict[str, Any]:
        length, width, height = (f"{side} in" for side in size.split(" x "))
        shape = {"kind": "box", "length": length, "width": width, "height": height}
        return part(name=name, shape=shape, count=count, gap="0", weight="2 lb", fragility="does-not-break")

    loose = [plate("case", "15 x 11 x 4", 2), plate("horn", "7 x 8 x 4", 1), plate("bar", "18 x 4 x 3", 1),
             plate("plate", "13 x 7 x 3", 2)]  # fmt: skip
    content = job(parts=loose, extras=[], ways=["slotted"])
    told = work(client, content)
    before = float(told["docket"]["total"])
    assert told["docket"]["trim_may_be_tried"] is True
    found, *_ = client.post("/api/arrange/trim", json={"job": content}).json()
    after = work(client, found["job"])
    assert float(after["docket"]["total"]) <= before - float(found["saves"]) + 0.001
    assert float(found["saves"]) > 0
    assert found["says"].startswith("Arrange all of it in")
    alone = client.post("/api/arrange/trim", json={"job": job(parts=[plate("bar", "18 x 4 x 3", 1)], extras=[])})
    assert alone.status_code == 422
    assert "nothing holds that costs less" in alone.text


def test_one_thing_is_offered_a_layer_less_and_a_step_further_apart(client: TestClient) -> None:
    """Each saving is what the changed job costs less when it is worked out, the largest first."""
    step = {"id": "legs", "do": "Twist the legs out", "saves": {"height": "6 in"}, "frees": [
        part(name="leg", count=3, shape=box(length="12 in", width="2 in", height="2 in"), gap="0", weight="8 oz"),
    ]}  # fmt: skip
    content = job(parts=[wheel_in_bubble()], extras=[], take_apart=[step])
    before = float(work(client, content)["docket"]["total"])
    found = client.post("/api/arrange/trim", json={"job": content}).json()
    told = [one["says"].split(",")[0] for one in found]
    assert "Twist the legs out: one step further apart" in told
    assert "Put one layer less of small bubble" in told
    saves = [float(one["saves"]) for one in found]
    assert saves == sorted(saves, reverse=True)
    for one, saved in zip(found, saves, strict=True):
        assert float(work(client, one["job"])["docket"]["total"]) == pytest.approx(before - saved)


def as_entry(layout: dict[str, Any]) -> dict[str, Any]:
    """A layout as a job keeps it."""
    counts: dict[str, int] = {}
    placements = []
    for placed in layout["parts"]:
        counts[placed["name"]] = counts.get(placed["name"], 0) + 1
        placements.append(
            {"name": placed["name"], "number": counts[placed["name"]], "at_mm": placed["origin_mm"],
             "turn": placed["turn"], "goes_in": placed["goes_in"]}
        )  # fmt: skip
    return {"inside_mm": layout["inside_mm"], "placements": placements, "extras": []}


def asked(client: TestClient, content: dict[str, Any], inside: str) -> dict[str, Any]:
    begun = client.post("/api/arrange", json={"job": content, "effort": "quick", "inside": inside})
    assert begun.status_code == 202, begun.json()
    return events(client, begun.json()["run"])[-1]


def test_a_box_that_is_there_takes_it_all_and_keeps_its_own_sides(client: TestClient) -> None:
    best = asked(client, wheel(), "24 x 22 x 5")["answers"][0]
    assert best["lacks"] == []
    assert best["inside"]["sides"] == ["24", "22", "5"]
    assert best["total"] is not None
    after = work(client, {**wheel(), "arrangement": best["entry"]})
    assert after["inside"]["sides"] == ["24", "22", "5"]


def test_a_box_that_is_too_small_says_what_is_left_out_or_by_how_much(client: TestClient) -> None:
    bars = {"kind": "box", "length": "10 in", "width": "4 in", "height": "3 in"}
    content = job(parts=[part(name="sley bar", shape=bars, gap="1/2 in", count=4)], extras=[])
    # Two side by side are 9 1/2 in with the gap between and to the walls; 15 in high takes one layer of 4 in.
    best = asked(client, content, "11 x 9 1/2 x 6")["answers"][0]
    assert best["lacks"]
    assert all("sley bar" in line or "too small" in line for line in best["lacks"])
    assert best["total"] is None or not best["lacks"][0].startswith("no place")


def test_what_can_never_go_into_a_box_is_said_at_once(client: TestClient) -> None:
    for inside, words in (("19 x 19 x 3", "rim with its gap is larger than the box"), ("a big one", "not a size")):
        told = client.post("/api/arrange", json={"job": wheel(), "effort": "quick", "inside": inside})
        assert told.status_code == 422
        assert words in told.json()["detail"] or told.json()["field"] == "inside"


def test_a_liner_takes_its_room_from_a_box_that_is_there(client: TestClient) -> None:
    lined = wheel(liner={"material": "liner-foam", "layers": 1})
    told = client.post("/api/arrange", json={"job": lined, "effort": "quick", "inside": "21 x 21 x 3"})
    assert told.status_code == 422
    assert "short" in told.json()["detail"]
    best = asked(client, lined, "22 x 22 x 4")["answers"][0]
    assert best["lacks"] == []
    after = work(client, {**lined, "arrangement": best["entry"]})
    assert after["inside"]["sides"] == ["22", "22", "4"]


def test_fill_goes_where_nothing_is(client: TestClient) -> None:
    content = wheel()
    best = asked(client, content, "24 x 22 x 5")["answers"][0]
    fill = client.post("/api/arrange/fill", json={"job": {**content, "arrangement": best["entry"]}}).json()
    points = fill["points_mm"]
    assert len(points) % 3 == 0
    heights = points[2::3]
    assert heights == sorted(heights)
    # In the box, and never in the board of the rim, whose axis is that of the ring.
    rim = next(p for p in best["entry"]["placements"] if p["name"] == "rim")
    assert [abs(c) for c in rim["turn"][2]] == [0, 0, 1]
    low = rim["at_mm"][2] - (50.8 if rim["turn"][2][2] < 0 else 0)
    middle = [at + sum(row[axis] * 254 for axis in (0, 1)) for at, row in zip(rim["at_mm"], rim["turn"], strict=True)]
    for x, y, z in zip(points[::3], points[1::3], heights, strict=True):
        assert all(0 < c < side * 25.4 for c, side in zip((x, y, z), (24, 22, 5), strict=True))
        from_axis = ((x - middle[0]) ** 2 + (y - middle[1]) ** 2) ** 0.5
        assert not (203.2 < from_axis < 254 and low < z < low + 50.8)


def test_a_search_goes_on_from_what_was_arranged_before(client: TestClient) -> None:
    """What is arranged and still holds is one of the answers that are there; nothing dearer takes its place."""
    read = JobFile.model_validate(wheel())
    today = client.app.state.context.today  # type: ignore[attr-defined]
    load = today.understand(read).must_load()
    ask = ask_of(load)
    assert len(_there(read, ask, load)) == 1
    turned = all_turned(bodies_of(load), initial_layout(ask), TURNS[3])
    before = read.model_copy(update={"arrangement": write_arrangement(load, turned)})
    found = _there(before, ask, load)
    assert [one.inside for one in found] == [found[0].inside, turned.inside]
    larger = today.understand(read.model_copy(update={"parts": [
        one.model_copy(update={"gap": "6 in"}) for one in read.parts
    ]})).must_load()  # fmt: skip
    assert len(_there(before, ask_of(larger), larger)) == 1

"""What is added to an open family is in the formats, the API, the settings, the plans and the command, with no list to
be kept elsewhere. `tests/browser/test_making.py` finds it on the page.
"""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import jsonschema
import pytest
from fastapi.testclient import TestClient

from fardo.files.job import JobFile
from fardo.files.kind import KindFile
from fardo.files.tariff import EXAMPLE, TariffFile
from tests.added import add_one_of_each
from tests.api.test_command import answer, fardo
from tests.api.test_working_out import work
from tests.made_up import job, part
from tests.served import close_app, open_app

JOB = job(
    parts=[part(gap="1 in", protect=[{"material": "felt", "layers": 2}])],
    inserts=[{"kind": "wedge", "length": "3 in", "count": 4}],
    ways=["hooped", "slotted"], questions=["scent"], answers={"scent": "strong"},
)  # fmt: skip
TARIFF = json.loads(json.dumps(EXAMPLE))
TARIFF["services"][0]["charges"].append({"kind": "toll", "amount": "2.25"})
SCENTLESS = {**TARIFF, "carrier": "Plumwick", "services": [{**TARIFF["services"][0], "refuses": ["strong-scent"]}]}


@pytest.fixture
def opened(shop_file: Path, monkeypatch: pytest.MonkeyPatch):
    """The made-up shop with one more of each family, a material of the new form and the new allowance measured."""
    add_one_of_each(monkeypatch)
    app = open_app(shop_file)
    with TestClient(app, base_url="http://127.0.0.1:8740", raise_server_exceptions=False) as client:
        view = client.get("/api/shop").json()
        felt = {**view["shop"]["materials"][0], "code": "felt", "name": "felt", "form": "felt"}
        shop = {
            **view["shop"], "materials": [*view["shop"]["materials"], felt], "minutes": {"hooped": 9},
            "allowances": {**view["shop"]["allowances"], "seat": "5 in"},
        }  # fmt: skip
        client.put("/api/shop", json={"revision": view["revision"], "shop": shop}).raise_for_status()
        for tariff in (TARIFF, SCENTLESS):
            client.post("/api/tariffs/file", json=tariff).raise_for_status()
        yield client
    close_app(app)


def accepts(schema: dict[str, Any], content: dict[str, Any]) -> bool:
    return jsonschema.Draft202012Validator(schema).is_valid(content)


def test_the_formats_describe_what_is_in_the_registers(monkeypatch: pytest.MonkeyPatch) -> None:
    kind = {"format": "fardo-kind/1", "code": "reel", "title": "Reel", "about": "", "questions": ["scent"],
            "parts": [{"name": "reel"}]}  # fmt: skip
    for model, content in ((JobFile, JOB), (TariffFile, TARIFF), (TariffFile, SCENTLESS), (KindFile, kind)):
        assert not accepts(model.model_json_schema(by_alias=True), content)
    add_one_of_each(monkeypatch)
    for model, content in ((JobFile, JOB), (TariffFile, TARIFF), (TariffFile, SCENTLESS), (KindFile, kind)):
        assert accepts(model.model_json_schema(by_alias=True), content)
        again = model.model_validate(content).model_dump(mode="json", by_alias=True, exclude_none=True)
        assert model.model_validate(again) == model.model_validate(content)


def test_the_settings_offer_and_keep_them(opened: TestClient) -> None:
    view = opened.get("/api/shop").json()
    assert {"way": "hooped", "title": "Hooped case", "minutes": 7, "cut": True} in view["ways"]
    assert {"name": "seat", "title": "Seat of a hooped case", "starts": "3 in"} in view["allowances"]
    felt = next(one for one in view["forms"] if one["form"] == "felt")
    assert felt["title"] == "felt wound around"
    assert (felt["asks"], felt["laps"], felt["on_walls"]) == (["layers"], False, False)
    assert (felt["around_several"], felt["of_stock"]) == (False, "")
    wedge = {"kind": "wedge", "title": "Wedge", "count": 3,
             "asks": [{"field": "count", "label": "how many"}, {"field": "length", "label": "long"}]}  # fmt: skip
    assert wedge in view["inserts"]
    assert {"value": "strong-scent", "says": "what smells"} in view["tags"]
    assert {"value": "scent", "says": "Does it smell?"} in view["questions"]
    assert view["shop"]["allowances"]["seat"] == "5 in"
    bad = {**view["shop"], "allowances": {"sea": "1 in"}}
    refused = opened.put("/api/shop", json={"revision": view["revision"], "shop": bad})
    assert refused.status_code == 422
    assert refused.json()["field"] == "shop.allowances.sea"
    assert "seat" in refused.json()["allowed"]


def test_the_api_describes_them(opened: TestClient) -> None:
    described = json.dumps(opened.app.openapi())  # type: ignore[attr-defined]
    for name in ("hooped", "seat", "felt", "wedge", "toll", "strong-scent", "scent"):
        assert f'"{name}"' in described, name


def test_a_job_is_worked_out_with_them(opened: TestClient) -> None:
    told = work(opened, JOB, "hooped")
    assert told["problems"] == []
    ways = {one["way"]: one for one in told["ways"]}
    assert ways["hooped"]["title"] == "Hooped case"
    taller = ways["hooped"]["outside"]["mm"][2] - ways["slotted"]["outside"]["mm"][2]
    assert taller == pytest.approx(5 * 25.4)
    assert ways["hooped"]["minutes"] == ways["slotted"]["minutes"] - 12 + 9
    assert [blank["name"] for blank in ways["hooped"]["blanks"]] == ["case", "wedge"]
    assert [one["kind"] for one in JOB["inserts"]] == ["wedge"]
    assert told["parts"][0]["coats"][0]["material"] == "felt"
    quotes = {one["carrier"]: one for one in ways["hooped"]["quotes"]}
    assert quotes["Fennick Carts"]["charges"][-1] == {
        "kind": "toll", "what": "bridge toll", "amount": "2.25", "why": "the bridge is crossed", "parcel": 0,
    }  # fmt: skip
    refused = {one["carrier"]: one["why"] for one in ways["hooped"]["refused"]}
    assert refused["Plumwick"] == "does not take what smells"
    chosen = ways["hooped"]["cut_by"]
    assert chosen["allowances_mm"]["seat"] == 127


def test_the_command_plans_and_draws_with_them(opened: TestClient, shop_file: Path, tmp_path: Path) -> None:
    path = tmp_path / "scent.job.json"
    path.write_text(json.dumps(JOB))
    # In this process: those beside it know nothing of what was added here.
    plans = answer("plan", str(path), "--effort", "quick", "--db", str(shop_file))["plans"]
    assert "hooped" in {plan["parcels"][0]["way"] for plan in plans}
    drawn = answer("blank", "--way", "hooped", "--inside", "10x8x2in", "--allow", "seat=1in")
    assert drawn["outside_mm"][2] > 3 * 25.4
    said = fardo("blank", "--way", "hooped", "--inside", "10x8x2in", "--allow", "sea=1in", code=2)
    assert "seat" in said.stderr


def test_an_allowance_of_nothing_is_taken_where_nothing_can_be_allowed(client: TestClient) -> None:
    view = client.get("/api/shop").json()
    for name, status in (("slip", 200), ("thumb", 200), ("tab", 422), ("overlap", 422), ("floated", 422)):
        shop = {**view["shop"], "allowances": {**view["shop"]["allowances"], name: "0 in"}}
        answer = client.put("/api/shop", json={"revision": client.get("/api/shop").json()["revision"], "shop": shop})
        assert answer.status_code == status, name

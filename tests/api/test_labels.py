"""Labels bought over the network: written down before the carrier is asked, paid for once, never forgotten."""

from __future__ import annotations

import asyncio
import json
import re
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

import httpx
import pytest
from fastapi.testclient import TestClient

from fardo.api.purchases import Purchases
from fardo.demo import CARRIER
from fardo.files.job import JobFile
from fardo.files.shop import WireEntry
from fardo.store.database import Database
from fardo.store.jobs import Jobs
from fardo.store.labels import GivenQuote, Label, Labels
from fardo.wire.call import Wire
from fardo.wire.labels import buy_label, void_label
from fardo.wire.messages import LabelAsked
from tests.earlier import shop_of_version
from tests.made_up import job
from tests.simulated_carrier import BRIEF, fault, ground

SOLD = {"tracking": "T0000000001", "amount": "9.10", "currency": "USD"}


class OneRound(Labels):
    """Ends who asks for what is not settled a second time."""

    rounds = 0

    def unsettled(self) -> list[Label]:
        self.rounds += 1
        if self.rounds > 1:
            raise asyncio.CancelledError
        return super().unsettled()


@pytest.fixture
def shop(asking: TestClient, monkeypatch: pytest.MonkeyPatch) -> TestClient:
    """A shop that asks about a purchase when it is told to, and not every two seconds besides."""
    monkeypatch.setattr(asking.app.state.context.labels, "unsettled", list)  # type: ignore[attr-defined]
    return asking


def a_job(shop: TestClient, **changes: Any) -> str:
    return shop.post("/api/jobs", json=job(**changes)).json()["id"]


def quoted(shop: TestClient, key: str) -> Any:
    (told,) = shop.post("/api/ask", json={"job": job(), "way": "tray", "id": key}).json()
    return ground(told)


def buy(shop: TestClient, key: str, quote: Any, **changes: Any) -> Any:
    body = {"carrier": CARRIER, "service": quote["service"], "programme": quote["programme"], "quote": quote["quote"],
            "amount": quote["asks"], "currency": quote["currency"]}  # fmt: skip
    return shop.post(f"/api/jobs/{key}/label", json={**body, **changes})


def label(shop: TestClient, key: str) -> Any:
    return shop.get(f"/api/jobs/{key}/label").json()


def sold_by(carrier: str) -> int:
    """How many labels the carrier has sold that are not void."""
    return httpx.get(carrier, trust_env=False).text.count("<li>")


def asked_of(carrier: str) -> int:
    """How many questions the carrier has had."""
    said = re.search(r"Asked (\d+) times", httpx.get(carrier, trust_env=False).text)
    assert said is not None
    return int(said[1])


def test_a_label_is_bought_once_and_tracked(shop: TestClient, carrier: str) -> None:
    key = a_job(shop)
    assert shop.get(f"/api/jobs/{key}/tracking").status_code == 422
    quote, before = quoted(shop, key), sold_by(carrier)
    # Twice it has trouble; the third try sells one, and only one.
    fault(carrier, "error", times=2)
    answer = buy(shop, key, quote)
    assert answer.status_code == 200, answer.text
    bought = answer.json()["label"]
    assert (bought["state"], bought["amount"], bought["service"]) == ("sold", quote["asks"], "Ground")
    again = buy(shop, key, quoted(shop, key))
    assert again.status_code == 422
    assert bought["tracking"] in again.json()["detail"]
    assert sold_by(carrier) == before + 1
    told = shop.get(f"/api/jobs/{key}/tracking").json()
    assert (told["tracking"], told["state"]) == (bought["tracking"], "label sold")
    assert shop.get(f"/api/jobs/{key}").json()["label"] == bought
    for _ in range(2):
        httpx.post(f"{carrier}/move").raise_for_status()
    told = shop.get(f"/api/jobs/{key}/tracking").json()
    assert told["state"] == "on the way"
    events = [event["what"] for event in told["events"]]
    assert events == ["label sold; waiting for the parcel", "accepted at the counter", "left the sorting centre"]


@pytest.mark.parametrize(
    "name", ["sold, then silent", "sold, then nonsense", "sold, then drops", "key refused", "slow", "nonsense", "error"]
)
def test_what_is_not_known_blocks_a_second_purchase_until_the_carrier_says(
    shop: TestClient, carrier: str, name: str
) -> None:
    key, before = a_job(shop), sold_by(carrier)
    quote, other = quoted(shop, key), quoted(shop, key)
    fault(carrier, name)
    answer = buy(shop, key, quote)
    assert answer.status_code == 200, answer.text
    told = answer.json()["label"]
    assert told["state"] in ("asking", "sold")
    refused = buy(shop, key, other)
    assert refused.status_code == 422
    assert "label" in refused.json()["detail"]
    fault(carrier, "")
    known = shop.post(f"/api/jobs/{key}/label/ask-again").json()["label"]
    assert (known["state"], known["says"]) == ("sold", "")
    assert known["tracking"] == label(shop, key)["tracking"]
    assert sold_by(carrier) == before + 1


def test_a_carrier_that_asks_more_by_now_sells_nothing_and_says_so(shop: TestClient, carrier: str) -> None:
    key, before = a_job(shop), sold_by(carrier)
    quote = quoted(shop, key)
    fault(carrier, "changed")
    questions = asked_of(carrier)
    refused = buy(shop, key, quote)
    assert asked_of(carrier) == questions + 1  # it was refused for certain: nothing is looked up
    assert refused.status_code == 422
    assert refused.json()["detail"].startswith(f"No label was bought: {CARRIER} asks")
    assert label(shop, key)["state"] == "unsold"
    assert sold_by(carrier) == before
    # That is settled: another may be bought.
    fault(carrier, "")
    assert buy(shop, key, quoted(shop, key)).json()["label"]["state"] == "sold"


def test_one_that_was_sold_for_more_is_kept_and_said(shop: TestClient, carrier: str) -> None:
    key = a_job(shop)
    quote = quoted(shop, key)
    fault(carrier, "sold dearer")
    told = buy(shop, key, quote).json()["label"]
    assert told["state"] == "sold"
    assert float(told["amount"]) > float(quote["asks"])
    assert f"not for the {quote['asks']} USD agreed to" in told["says"]


def test_a_label_is_voided_and_another_bought(shop: TestClient, carrier: str) -> None:
    key, before = a_job(shop), sold_by(carrier)
    assert shop.delete(f"/api/jobs/{key}/label").status_code == 422
    first = buy(shop, key, quoted(shop, key)).json()["label"]
    assert shop.delete(f"/api/jobs/{key}/label").json()["label"]["state"] == "void"
    assert sold_by(carrier) == before
    second = buy(shop, key, quoted(shop, key)).json()["label"]
    assert second["tracking"] != first["tracking"]
    assert sold_by(carrier) == before + 1


def test_a_purchase_that_is_not_known_can_be_called_off(shop: TestClient, carrier: str) -> None:
    key, before = a_job(shop), sold_by(carrier)
    quote, another = quoted(shop, key), quoted(shop, key)
    fault(carrier, "slow")
    assert buy(shop, key, quote).json()["label"]["state"] == "asking"
    assert shop.delete(f"/api/jobs/{key}/label").json()["label"]["state"] == "voiding"
    assert buy(shop, key, another).status_code == 422
    fault(carrier, "")
    known = shop.post(f"/api/jobs/{key}/label/ask-again").json()["label"]
    assert known["state"] == "void"
    assert sold_by(carrier) == before


def test_a_quote_is_spent_once_by_the_job_it_was_given_for(shop: TestClient, carrier: str) -> None:
    one, other, before = a_job(shop), a_job(shop), sold_by(carrier)
    quote = quoted(shop, one)
    stolen = buy(shop, other, quote)
    assert (stolen.status_code, stolen.json()["field"]) == (422, "quote")
    assert buy(shop, one, quote, amount="0.01").json()["field"] == "quote"
    assert buy(shop, one, quote, carrier="Wendlefirth Post").json()["field"] == "carrier"
    assert buy(shop, one, {**quote, "quote": "none"}).json()["field"] == "quote"
    assert sold_by(carrier) == before
    assert buy(shop, one, quote).status_code == 200
    assert buy(shop, "nothing", quote).status_code == 404


def test_two_windows_that_buy_at_once_buy_one(shop: TestClient, carrier: str) -> None:
    key, before = a_job(shop), sold_by(carrier)
    quotes = [quoted(shop, key) for _ in range(4)]
    with ThreadPoolExecutor(4) as windows:
        answers = list(windows.map(lambda quote: buy(shop, key, quote), quotes))
    assert sorted(answer.status_code for answer in answers) == [200, 422, 422, 422]
    assert sold_by(carrier) == before + 1


def test_no_save_and_no_copy_of_a_job_touches_its_label(shop: TestClient) -> None:
    key = a_job(shop)
    bought = buy(shop, key, quoted(shop, key)).json()["label"]
    made_up = {"carrier": CARRIER, "service": "Ground", "amount": "1.00", "currency": "USD", "tracking": "T1234567890"}
    for content in (job(title="without"), job(title="another", chosen={"label": made_up})):
        view = shop.get(f"/api/jobs/{key}").json()
        saved = shop.put(f"/api/jobs/{key}", json={"revision": view["revision"], "job": content}).json()
        assert saved["label"] == bought
    file = shop.get(f"/api/jobs/{key}/file")
    copies = [
        shop.post("/api/jobs", json=job(chosen={"label": made_up})),
        shop.post("/api/jobs", json=shop.get(f"/api/jobs/{key}").json()["job"]),
        shop.post("/api/jobs/file", content=file.content),
    ]
    for copy in copies:
        assert copy.status_code == 201
        assert copy.json()["label"] is None
        assert copy.json()["job"]["chosen"]["label"] is None
        assert label(shop, copy.json()["id"]) is None


def test_cut_off_between_selling_and_saving_it_is_found_again(shop: TestClient, carrier: str, shop_file: Path) -> None:
    """What a kill leaves: the purchase is written down, the carrier has sold, and nobody has noted it."""
    key, before = a_job(shop), sold_by(carrier)
    quote = quoted(shop, key)
    labels = Labels(shop.app.state.context.database)  # type: ignore[attr-defined]
    wanted = GivenQuote(CARRIER, quote["quote"], "Ground", quote["programme"], quote["asks"], quote["currency"])
    meant = labels.intend(key, wanted)
    asked = LabelAsked(quote=quote["quote"], at_most=quote["asks"], currency=quote["currency"])
    asyncio.run(buy_label(Wire(CARRIER, carrier), asked, meant.key, patience=BRIEF))
    assert labels.get(meant.key).state == "asking"
    said = buy(shop, key, quoted(shop, key)).json()["detail"]
    assert said.startswith(f"A label may have been bought: {CARRIER} has not answered yet. It is asked again")
    assert shop.post(f"/api/jobs/{key}/label/ask-again").json()["label"]["state"] == "sold"
    assert sold_by(carrier) == before + 1


def test_the_shop_asks_about_a_purchase_by_itself(shop: TestClient, carrier: str) -> None:
    key, before = a_job(shop), sold_by(carrier)
    quote = quoted(shop, key)
    fault(carrier, "slow")
    assert buy(shop, key, quote).json()["label"]["state"] == "asking"
    fault(carrier, "")
    labels = OneRound(shop.app.state.context.database)  # type: ignore[attr-defined]
    asking = Purchases(labels, lambda: [WireEntry(carrier=CARRIER, address=carrier)], BRIEF)
    with pytest.raises(asyncio.CancelledError):
        asyncio.run(asking.keep_asking())
    assert label(shop, key)["state"] == "sold"
    assert sold_by(carrier) == before + 1


def answering(*answers: httpx.Response | Exception) -> httpx.MockTransport:
    waiting = list(answers)

    def answer(_: httpx.Request) -> httpx.Response:
        found = waiting.pop(0) if len(waiting) > 1 else waiting[0]
        if isinstance(found, Exception):
            raise found
        return httpx.Response(found.status_code, content=found.content)

    return httpx.MockTransport(answer)


def bought_from(*answers: httpx.Response | Exception, asked_before: bool = False) -> Any:
    asked = LabelAsked(quote="a", at_most="9.10", currency="USD")
    wire = Wire(CARRIER, "https://carrier.invalid")
    brief = BRIEF.__class__(connect=1, read=0.2, tries=1, in_all=1)
    return asyncio.run(
        buy_label(wire, asked, "key", asked_before=asked_before, patience=brief, transport=answering(*answers))
    )


def test_only_what_the_carrier_says_is_certain() -> None:
    sold, none = httpx.Response(201, json=SOLD), httpx.Response(404, json={"why": "nothing"})
    away = httpx.ConnectError("nobody there")
    late, trouble = httpx.ReadTimeout("late"), httpx.Response(502)
    assert bought_from(sold).state == "sold"
    assert bought_from(none).state == "unsold"
    assert bought_from(away).state == "unsold"
    # It may be selling at this moment, whatever it says of the key.
    assert bought_from(late, none).state == "unknown"
    assert bought_from(trouble, none).state == "unknown"
    assert bought_from(late, sold).state == "sold"
    # Asked before, one that cannot be reached now has not said anything.
    assert bought_from(away, asked_before=True).state == "unknown"
    assert bought_from(none, none, asked_before=True).state == "unsold"
    assert bought_from(none, sold, asked_before=True).state == "sold"
    other = httpx.Response(201, json={**SOLD, "currency": "EUR"})
    assert "agreed to" in bought_from(other).says


def test_a_carrier_that_will_not_void_keeps_its_label_live() -> None:
    wire = Wire(CARRIER, "https://carrier.invalid")
    refused, sold = httpx.Response(409, json={"why": "handed over"}), httpx.Response(200, json=SOLD)
    answer = asyncio.run(void_label(wire, "key", BRIEF, answering(refused, sold)))
    assert (answer.state, answer.label.tracking if answer.label else None) == ("sold", "T0000000001")


def test_labels_that_jobs_carried_themselves_are_kept_and_a_copy_has_none(tmp_path: Path) -> None:
    """As the version before left it: two jobs with one number, one of them a copy."""
    path = tmp_path / "old.db"
    connection = shop_of_version(path, 3)
    carried = {"carrier": CARRIER, "service": "Ground", "programme": "account", **SOLD}
    content = json.dumps(JobFile.model_validate(job(chosen={"label": carried})).model_dump(mode="json", by_alias=True))
    for key, day in (("copy", "2026-01-02"), ("first", "2026-01-01")):
        connection.execute(
            "INSERT INTO job (id, revision, title, destination, content, created_at, saved_at)"
            " VALUES (?, 1, 'one', '73120', ?, ?, ?)",
            (key, content, day, day),
        )
        connection.execute("INSERT INTO job_revision VALUES (?, 1, ?, ?)", (key, content, day))
    connection.commit()
    connection.close()
    database = Database(path)
    labels, jobs = Labels(database), Jobs(database)
    kept = labels.of_job("first")
    assert kept is not None
    assert (kept.state, kept.tracking, kept.amount) == ("sold", "T0000000001", "9.10")
    assert labels.of_job("copy") is None
    assert jobs.get("first").job.chosen.label is None
    assert [line.id for line in jobs.page().jobs] == ["copy", "first"]
    database.close()

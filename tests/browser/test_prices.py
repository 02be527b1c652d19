"""Prices on the screen: side by side, other ways, parcels beside, a kept tariff, a carrier asked."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import httpx
import pytest
from selenium.webdriver.common.keys import Keys

from fardo.demo import CARRIER
from tests.browser.driver import Page
from tests.browser.test_making import job_of
from tests.made_up import job as made_up_job
from tests.made_up import wheel_in_bubble
from tests.simulated_carrier import fault, served_carrier, wired


def priced(page: Page, title: str = "Concertina for Ostwick") -> str:
    page.open("/", ".bench li")
    job = job_of(page, title)
    page.open(f"{job}/price", "tr.plan")
    return job


def row(page: Page, label: str) -> Any:
    return page.one(f'tr[data-plan="{label}"]')


def unfolded(page: Page, label: str) -> Any:
    """The lines of a plan, by its row."""
    button = row(page, label).find_element("css selector", "button.open")
    if button.get_attribute("aria-expanded") == "false":
        page.driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", button)
        button.send_keys(Keys.ENTER)
    return page.one(f'article[aria-label="{label}"] .top').find_element("xpath", "..")


def total(page: Page, label: str) -> float:
    return float(row(page, label).find_element("css selector", ".sum").text)


def beside(page: Page, label: str) -> None:
    box = unfolded(page, label).find_element("css selector", ".beside input")
    page.driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", box)
    box.send_keys(Keys.SPACE)


def test_up_to_four_plans_are_laid_side_by_side_and_one_taken_away(page: Page) -> None:
    priced(page)
    for label in ("Wendlefirth Post Parcel, counter", "Oddbarrow Ground, account"):
        beside(page, label)
    page.shows("[aria-label='Compare plans'] h2", "2 of at most 4")
    table = "[aria-label='Compare plans'] table"
    sums = [total(page, label) for label in ("Wendlefirth Post Parcel, counter", "Oddbarrow Ground, account")]
    page.shows(table, f"{abs(sums[0] - sums[1]):.2f} more")
    assert "lowest" in page.text(table)
    # Down to the box and the parts: what differs is told, what does not is not.
    assert "Tray with a part-depth lid" in page.text(table)
    assert "outside" in page.text(table)
    assert page.axe() == []
    beside(page, "Oddbarrow Express, account")
    beside(page, "Passenger's luggage, one checked bag, counter")
    page.shows("[aria-label='Compare plans'] h2", "4 of at most 4")
    fifth = unfolded(page, "Quillmere Courier Standard, account").find_element("css selector", ".beside input")
    assert not fifth.is_enabled()
    page.one("[aria-label='Remove Oddbarrow Express, account']").send_keys(Keys.ENTER)
    page.until(lambda: fifth.is_enabled())
    page.one("[aria-label='Compare plans'] .open").send_keys(Keys.ENTER)
    page.until(lambda: not page.all(table))


def test_the_table_is_sorted_filtered_and_gone_through_by_keys(page: Page) -> None:
    priced(page)
    rows = "tr.plan"
    services = len(page.all(rows))

    assert page.axe() == []
    page.choose("plans-shown", "all")
    page.until(lambda: len(page.all(rows)) > services)
    page.choose("plans-shown", "best of each box")
    page.until(lambda: "Slotted case" in page.text("table.plans"))
    names = page.until(lambda: [one.text for one in page.all("tr.plan .box")])
    # In other ways the selected box stands there again.
    assert len(set(names)) >= len(names) - 5
    page.choose("plans-shown", "all")
    page.fill("plans-words", "slotted express")
    page.until(lambda: {one.text for one in page.all("tr.plan .service")} >= {"Oddbarrow Express"})
    page.until(lambda: all("lotted" in one.text for one in page.all("tr.plan .box")[:2]))
    page.fill("plans-words", "no such box")
    page.shows("table.plans", "No plan is like that.")
    page.fill("plans-words", "")
    page.until(lambda: len(page.all(rows)) > services)
    page.fill("plans-days", "3")
    page.until(lambda: "Wendlefirth Post Parcel" not in page.text("table.plans").split("Other ways to send it")[0])
    page.fill("plans-days", "")
    page.choose("plans-shown", "best of each service")
    page.until(lambda: len(page.all(rows)) == services)
    page.shows("table.plans", "Wendlefirth Post Parcel")
    days = page.one("thead th:nth-child(4)")
    days.find_element("css selector", "button").send_keys(Keys.ENTER)
    page.until(lambda: page.one("thead th:nth-child(4)").get_attribute("aria-sort") == "ascending")
    page.until(lambda: "Express" in page.one("tr.plan .service").text)
    first, second = page.all("tr.plan button.open")[:2]
    first.send_keys(Keys.ARROW_DOWN)
    page.until(lambda: page.driver.switch_to.active_element == second)


def test_an_alternative_is_chosen_with_its_box_and_undone(page: Page) -> None:
    job = priced(page)
    page.shows("[aria-label=Alternatives]", "Usual practice, the next ready box")
    uncut = next(one for one in page.all("[aria-label=Alternatives] li") if one.text.lower().startswith("no cutting"))
    saved = uncut.find_element("css selector", ".figure").text
    uncut.find_element("css selector", "button").send_keys(Keys.ENTER)
    page.shows(".toast", "is chosen.")
    page.shows("aside .total", saved)
    page.until(lambda: page.all("[aria-label=Alternatives] li.chosen"))
    page.saved()
    chosen = page.api(f"/api{job}")["job"]["chosen"]
    assert chosen["box"]["way"] == "shelf"
    assert chosen["price"]["carrier"] == "Wendlefirth Post"
    page.fill("orders", "50")
    page.shows("[aria-label=Alternatives]", "on 50 orders")
    page.button("Undo").send_keys(Keys.ENTER)
    page.until(lambda: not page.all("[aria-label=Alternatives] li.chosen"))
    page.saved()
    assert page.api(f"/api{job}")["job"]["chosen"]["price"] is None


def test_a_house_rule_is_set_named_on_the_price_page_and_left_out_by_a_job(page: Page) -> None:
    page.open("/settings", "#shop-gap")
    page.button("Add a house rule").send_keys(Keys.ENTER)
    page.fill("rule-2-name", "Dear goods")
    page.fill("rule-2-value_from", "six hundred")
    page.choose("rule-2-ways", "box in a box")
    page.button("Save the settings").send_keys(Keys.ENTER)
    page.shows("#shop-faults", "six hundred")
    page.fill("rule-2-value_from", "600")
    page.button("Save the settings").send_keys(Keys.ENTER)
    page.shows("#shop-faults", "Saved")
    assert page.axe() == []
    job = priced(page)
    page.shows(".rules", "Dear goods only box in a box, floated")
    page.until(lambda: {one.text for one in page.all("tr.plan .box")} == {"Box in a box, floated"})
    page.one(".rules input").send_keys(Keys.SPACE)
    page.until(lambda: "Tray with a part-depth lid" in page.text("table.plans"))
    page.saved()
    assert page.api(f"/api{job}")["job"]["rules_left_out"] == ["Dear goods"]
    assert page.axe() == []


def test_the_ladder_is_worked_out_on_the_price_page(page: Page) -> None:
    priced(page)
    page.fill("ladder-most", "3")
    page.button("Work out the ladder").send_keys(Keys.ENTER)
    page.until(lambda: page.all(".ladder tbody tr"))
    assert page.all(".ladder tbody tr .count")[-1].text.endswith("3")
    assert page.axe() == []


def test_another_way_and_a_parcel_beside_are_typed_and_chosen(page: Page) -> None:
    page.open("/", ".bench li")
    job = job_of(page, "Concertina for Ostwick")
    page.open(f"{job}/measure", "#distance")
    page.fill("distance", "12 mls")
    page.press(Keys.TAB)
    page.until(lambda: page.one("#distance").get_attribute("aria-invalid") == "true")
    page.fill("distance", "12 mi")
    page.one("#add-parcel").send_keys(Keys.ENTER)
    page.until(lambda: page.focus == "parcel-0-name")
    for name, said in (("name", "stand"), ("size", "20 x 14 x 9"), ("weight", "21 lb"), ("value", "900")):
        page.fill(f"parcel-0-{name}", said)
    page.shows("#ship-faults", "parcels worth more than all of it")
    page.fill("parcel-0-value", "150")
    page.saved()
    assert page.axe() == []
    page.one(".twine a[href$='/price']").click()
    label = "The workshop's own van, there and back, own"
    van = unfolded(page, label)
    # 2 x 12 miles at 0.68 and at 0.45, once for both parcels.
    assert "16.32" in van.text
    assert "10.80" in van.text
    assert "2 parcels" in van.text
    parcel = unfolded(page, "Wendlefirth Post Parcel, counter").text
    assert "1: postage" in parcel
    assert "2: postage" in parcel
    choose = unfolded(page, label).find_element("css selector", ".top button")
    page.driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", choose)
    choose.send_keys(Keys.ENTER)
    page.shows("aside", "The workshop's own van")
    page.saved()
    chosen = page.api(f"/api{job}")["job"]["chosen"]["price"]
    assert (chosen["carrier"], chosen["tariff"]) == ("The workshop's own van", 1)


def test_the_map_is_of_the_sides_and_the_reach_that_are_asked_for(page: Page) -> None:
    priced(page)
    unfolded(page, "Oddbarrow Ground, account")
    page.choose("map-axes", "second and third")
    page.shows(".steps svg", "second side")
    before = page.text(".steps svg")
    page.choose("map-reach", "12 in")
    page.until(lambda: page.text(".steps svg") != before)
    assert page.axe() == []


def test_a_chosen_price_keeps_its_tariff_until_todays_is_asked_for(page: Page) -> None:
    job = priced(page)
    label = "Wendlefirth Post Parcel, counter"
    unfolded(page, label).find_element("css selector", ".top button").send_keys(Keys.ENTER)
    page.until(lambda: page.all("tr.plan.chosen"))
    page.saved()
    asked = unfolded(page, label).find_element("css selector", ".carrier .figure").text
    carrier = "Wendlefirth Post"
    whole = httpx.get(f"{page.url}/api/tariffs/{carrier}").json()
    for service in whole["tariff"]["services"]:
        for charge in service["charges"]:
            for row in charge.get("rows", []) if charge["kind"] == "grid" else []:
                row[1:] = [f"{float(price) + 3:.2f}" for price in row[1:]]
    assert httpx.put(f"{page.url}/api/tariffs/{carrier}", json=whole).status_code == 200
    page.open(f"{job}/price", "tr.plan.chosen")
    unfolded(page, label)
    page.shows(".kept", f"Today's asks {float(asked) + 3:.2f}, not {asked}.")
    assert page.one("article .carrier .figure").text == asked
    assert page.axe() == []
    page.button("Price by today's").send_keys(Keys.ENTER)
    page.until(lambda: not page.all(".kept"))
    page.saved()
    assert page.api(f"/api{job}")["job"]["chosen"]["price"]["tariff"] == 2
    page.button("Undo").send_keys(Keys.ENTER)
    page.one("article .kept")


@pytest.fixture(scope="module")
def carrier() -> Iterator[str]:
    with served_carrier(slow_seconds=60) as served:
        yield served.url


def test_a_carrier_is_asked_beside_its_tariff_and_its_faults_leave_the_screen_alone(page: Page, carrier: str) -> None:
    with httpx.Client(base_url=page.url) as client:
        wired(client, carrier).raise_for_status()
    fault(carrier, "slow")
    job = priced(page)
    section = "[aria-label='Live quotes']"
    page.button("Get live quote").send_keys(Keys.ENTER)
    page.button("Waiting for the carrier…")
    # While it is slow, all else goes on.
    beside(page, "Oddbarrow Ground, account")
    page.one("article .beside input:checked")
    page.shows(section, f"{CARRIER} does not answer in time, asked")
    for name, says in (("error", "has trouble of its own"), ("nonsense", "answers what cannot be read"),
                       ("wrong sum", "its lines for Ground come to"), ("drops", "cannot be reached")):  # fmt: skip
        fault(carrier, name)
        page.button("Get it again").send_keys(Keys.ENTER)
        page.shows(section, f"{CARRIER} {says}")
        assert row(page, "Oddbarrow Ground, account").is_displayed()
    fault(carrier, "")
    page.button("Get it again").send_keys(Keys.ENTER)
    account = f"[aria-label='{CARRIER} Ground, account, live quote']"
    page.one(account)
    assert page.one(f"{account} .differs th").text == "fuel"
    assert page.axe() == []
    # A price that has changed buys nothing; as quoted, it buys one label, and the job keeps it.
    page.saved()  # a label is bought for what is saved
    fault(carrier, "changed")
    page.one(f"{account} button").send_keys(Keys.ENTER)
    page.shows(f"{section} .status", "No label was bought")
    fault(carrier, "")
    page.one(f"{account} button").send_keys(Keys.ENTER)
    page.shows(f"{section} .label", "Label bought: T")
    page.button("Track it").send_keys(Keys.ENTER)
    page.shows(f"{section} .label", "label sold")
    assert not page.all(f"{account} button")
    page.open(f"{job}/price", ".label")
    page.shows(".label", "Label bought: T")


def test_a_saving_that_was_found_is_taken_and_undone(page: Page) -> None:
    key = httpx.post(f"{page.url}/api/jobs", json=made_up_job(parts=[wheel_in_bubble()], extras=[])).json()["id"]
    page.open(f"/jobs/{key}/box", "#pressed")
    before = float(page.text("aside .total b").split(":")[0])
    page.button("Find savings").send_keys(Keys.ENTER)
    page.shows(".savings", "Put one layer less of small bubble")
    saves = float(page.one(".savings p .figure").text)
    page.button("Take it").send_keys(Keys.ENTER)
    page.until(lambda: float(page.text("aside .total b").split(":")[0]) == pytest.approx(before - saves))
    page.button("Undo").send_keys(Keys.ENTER)
    page.until(lambda: float(page.text("aside .total b").split(":")[0]) == pytest.approx(before))
    page.fill("pressed", "1 in")
    page.shows("#pressed-wrong", "what the wrap gives")
    page.fill("pressed", "")
    page.until(lambda: not page.all("#pressed-wrong"))
    page.saved()

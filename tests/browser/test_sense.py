"""Fill by place, a box made over and kept, a dearer box that says so, and where it was sold, on the screen."""

from __future__ import annotations

from typing import Any

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.driver import Page, first_job


def saved_job(page: Page, job: str) -> Any:
    page.saved()
    return page.api(f"/api/jobs/{job}")["job"]


def test_each_place_is_filled_with_what_is_chosen(page: Page) -> None:
    job = first_job(page, "arrange", ".fill table")
    page.shows(".fill", "Under")
    page.shows(".fill", "On top")
    page.shows(".fill .all", "crumpled paper")
    page.choose("[aria-label='Fill, under']", "folded bubble")
    page.shows(".fill .all", "pads of folded bubble")
    assert saved_job(page, job)["fill"]["places"] == {"under": "folded bubble"}
    page.choose("fill-all", "air pillows")
    page.shows(".fill .all", "air pillows")
    page.until(lambda: "paper" not in page.text(".fill .all"))
    assert saved_job(page, job)["fill"] == {"kind": "air pillows", "places": {}, "loose": None, "full": None}
    assert page.axe() == []


def test_a_box_made_over_is_drawn_told_and_kept_as_a_pattern(page: Page) -> None:
    loom = next(one for one in page.api("/api/jobs")["jobs"] if one["title"] == "Table loom, folded")
    page.open(f"/jobs/{loom['id']}/box", "input[name=way][value=recut]")
    page.one("input[name=way][value=recut]").find_element(By.XPATH, "..").click()
    page.shows(".steps", "Take the ")
    page.shows(".steps", "Tape over every cut edge")
    page.until(lambda: page.all(".cut .drawing svg"))
    page.shows(".cut .key", "slit right through")
    page.button("Save as a pattern").send_keys(Keys.ENTER)
    page.shows(".toast", "is kept as a pattern")
    (pattern,) = page.api("/api/shop")["shop"]["patterns"]
    assert pattern["name"].startswith(f"{pattern['box']} made ")
    page.until(lambda: any(pattern["name"] in one.text for one in page.all(".hand label, .way small")))
    assert page.axe() == []
    page.button("Undo").click()
    page.until(lambda: page.api("/api/shop")["shop"]["patterns"] == [])


def test_a_dearer_box_says_by_how_much(page: Page) -> None:
    first_job(page, "box", ".way")
    assert page.all(".cut .more") == []
    ways = page.all("input[name=way]")
    ways[-1].find_element(By.XPATH, "..").click()
    page.shows(".cut .more", " more than ")
    page.shows(".cut", "Choose this box")


def test_the_label_of_a_sale_stands_in_the_prices_once_it_is_said(page: Page) -> None:
    job = first_job(page, "measure", "#to")
    page.driver.execute_script("document.querySelector('#channel').closest('details').open = true")
    page.fill("label-carrier", "Wendlefirth Post")
    page.fill("label-most", "50 lb")
    assert saved_job(page, job)["label"] == {"carrier": "Wendlefirth Post", "most_weight": "50 lb"}
    page.fill("wish-days", "soon")
    page.shows("#sold-faults", "soon")
    page.fill("wish-days", "30")
    page.until(lambda: page.text("#sold-faults") == "")
    assert page.axe() == []
    page.open(f"/jobs/{job}/price", "tr.plan")
    listed = " ".join(one.text for one in page.all("tr.plan, li"))
    assert "label from the sale" in listed or "Prepaid Label, prepaid" in listed
    assert "no label came with the sale" not in listed


def test_a_job_is_divided_among_parcels_on_the_price_page(page: Page) -> None:
    treadle = next(one for one in page.api("/api/jobs")["jobs"] if one["title"] == "Treadle wheel, taken apart")
    page.open(f"/jobs/{treadle['id']}/price", ".parcels")
    assert not page.all(".parcels .btn")
    page.choose("parcels-at-most", "2")
    page.button("Divide it").send_keys(Keys.ENTER)
    page.until(lambda: page.all(".parcels article"))
    page.shows(".parcels article", "2 parcels")
    page.shows(".parcels article", "than in one parcel")
    assert "drive wheel" in page.text(".parcels article")
    assert saved_job(page, treadle["id"])["parcels_at_most"] == 2
    assert page.axe() == []
    page.until(lambda: not page.all(".parcels .btn[disabled]"))  # the better ones are there too
    page.button("Make a job of each parcel").send_keys(Keys.ENTER)
    page.shows("[role=status].toast, .toast", "2 jobs are on the bench")
    titles = [one["title"] for one in page.api("/api/jobs")["jobs"]]
    assert {f"Treadle wheel, taken apart, parcel {n} of 2" for n in (1, 2)} <= set(titles)
    page.button("Undo").send_keys(Keys.ENTER)
    page.until(lambda: not any("parcel 1 of 2" in one["title"] for one in page.api("/api/jobs")["jobs"]))
    page.choose("parcels-at-most", "3")
    page.shows(".parcels", "Something was typed since")

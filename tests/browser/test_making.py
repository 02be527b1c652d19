"""Making boxes on the screen: inserts, the blank folding up, the cutting plan, a measured cut, a drawing read in."""

from __future__ import annotations

from pathlib import Path

import pytest
from selenium.webdriver.common.keys import Keys

from fardo.core.make import make_box
from fardo.files.svg import svg
from tests.added import add_one_of_each
from tests.browser.driver import Page
from tests.made_up import allowances, shop, sizes


def job_of(page: Page, title: str) -> str:
    rows = page.api("/api/jobs")["jobs"]
    return next(f"/jobs/{row['id']}" for row in rows if row["title"] == title)


def take(page: Page, way: str) -> None:
    page.one(f"input[name=way][value={way}]").find_element("xpath", "..").click()


def test_an_insert_joins_the_cut_sheet_and_half_typed_takes_nothing_away(page: Page) -> None:
    page.open("/", ".bench li")
    page.open(f"{job_of(page, 'Concertina for Ostwick')}/box", ".cut")
    take(page, "slotted")
    page.shows(".tabs", "case")
    page.choose("insert-add", "divider")
    page.shows("aside", "cells of the divider")
    page.fill("insert-0-along", "3")
    page.fill("insert-0-across", "2")
    page.shows(".tabs", "long strip")
    page.shows(".cut", "Each cell is")
    page.shows(".tabs", "short strip × 2")
    page.choose("insert-add", "spacer")
    page.shows("aside", "depth of the spacer")
    assert "spacer" not in page.text(".tabs")
    page.fill("insert-1-length", "11 in")
    page.fill("insert-1-depth", "1 1/2 in")
    page.shows(".tabs", "spacer × 4")
    assert page.focus == "insert-1-depth"
    page.one("#hand-holes").click()
    page.shows(".cut", "Hand holes weaken")
    assert page.axe() == []
    page.saved()
    kept = page.api(f"/api{job_of(page, 'Concertina for Ostwick')}")["job"]
    assert [one["kind"] for one in kept["inserts"]] == ["divider", "spacer"]
    assert kept["hand_holes"]


def test_the_blank_folds_up_around_the_goods_by_keyboard(page: Page) -> None:
    page.open("/", ".bench li")
    page.open(f"{job_of(page, 'Concertina for Ostwick')}/box", ".cut")
    take(page, "tray")
    page.shows(".tabs", "lid")
    page.button("Fold up").send_keys(Keys.ENTER)
    page.until(lambda: page.one(".fold .view").get_attribute("data-panels") == "5")
    page.one("#folded").send_keys(Keys.END)
    page.until(lambda: page.one("#folded").get_attribute("aria-valuenow") == "100")
    page.one(".fold .view").send_keys(Keys.ARROW_LEFT)
    assert page.axe() == []
    page.one("#folded").send_keys(Keys.HOME)
    page.button("Flat").click()
    page.one(".drawing svg")


def test_the_days_cutting_is_laid_out_ticked_off_and_taken_back(page: Page) -> None:
    page.open("/cutting", ".boards article")
    jobs = len(page.all(".job"))
    assert jobs >= 2
    before = len(page.all("article"))
    page.all(".job input")[0].click()
    page.shows(".says", f"{jobs - 1} of {jobs} jobs")
    page.until(lambda: len(page.all("article")) < before)
    page.one("input[value=saw]").find_element("xpath", "..").click()
    page.until(lambda: "tool=saw" in (page.button("Print").get_attribute("href") or ""))
    page.shows(".says", "jobs")
    page.button("Mark as cut").click()
    page.shows(".toast", "off-cuts are kept")
    kept = [sheet for board in page.api("/api/shop")["shop"]["boards"] for sheet in board["sheets"] if sheet["offcut"]]
    assert kept
    page.button("Undo").click()
    page.until(lambda: not any(
        sheet["offcut"] for board in page.api("/api/shop")["shop"]["boards"] for sheet in board["sheets"]
    ))  # fmt: skip
    assert page.axe() == []


def test_a_box_that_was_cut_and_measured_corrects_the_next_and_not_the_chosen(page: Page) -> None:
    page.open("/", ".bench li")
    loom = job_of(page, "Table loom, folded")
    page.open(f"{loom}/box", ".cut")
    page.shows(".cut", "Chosen")
    size = page.text(".size")
    # Chosen before allowances were kept with a box: choosing it anew keeps today's.
    take(page, "tray")
    page.button("Choose this box").click()
    page.button("Chosen")
    take(page, "slotted")
    page.button("Choose this box").click()
    page.button("Chosen")
    page.saved()
    page.open("/settings", "#board-2-caliper")
    next(one for one in page.all("button") if one.text == "I cut a box of C and measured it").click()
    page.fill("board-2-cut-0-promised", "14 x 14 x 12 in")
    page.fill("board-2-cut-0-measured", "13 15/16 x 13 15/16 x 11 7/8 in")
    page.button("Save the settings").click()
    page.shows("#shop-faults", "Saved")
    page.open(f"{loom}/box", ".cut")
    page.shows(".cut", "keeps the allowances")
    assert page.text(".size") == size
    page.button("Cut by today's").click()
    page.until(lambda: "keeps the allowances" not in page.text(".cut"))
    assert page.text(".size") != size


def test_a_drawing_of_ones_own_becomes_a_way_and_a_hostile_one_is_refused(page: Page, tmp_path: Path) -> None:
    page.open("/settings", "#design-file")
    bad, good = tmp_path / "bad.svg", tmp_path / "deep tray.svg"
    bad.write_text('<!DOCTYPE svg [<!ENTITY a "b">]><svg/>')
    blank = make_box("tray", sizes("16 x 16 x 14"), shop().grade("C"), allowances()).blanks[0]
    good.write_text(svg(blank, "in"))
    page.one("#design-file").send_keys(str(bad))
    page.shows(".room", "not an SVG that is read")
    page.one("#design-file").send_keys(str(good))
    page.shows(".room", "5 panels")
    assert page.one("#design-0-name").get_attribute("value") == "deep tray"
    page.button("Save the settings").click()
    page.shows("#shop-faults", "Saved")
    page.open("/", ".bench li")
    page.open(f"{job_of(page, 'Concertina for Ostwick')}/box", ".cut")
    take(page, "design")
    page.shows(".tabs", "deep tray")


def test_a_tariff_is_looked_at_tried_and_archived_with_undo(page: Page, tmp_path: Path) -> None:
    page.open("/tariffs", ".carriers")
    next(one for one in page.all(".carrier") if "Quillmere" in one.text).click()
    page.shows(".one", "prices in EUR, at 1.08")
    page.fill("try-size", "40 x 30 x 20 cm")
    page.press(Keys.ENTER)
    page.shows(".tried", "Standard, account, billed as")
    page.button("Archive").click()
    page.shows(".toast", "archived")
    page.button("Undo").click()
    page.button("Archive")
    bad = tmp_path / "bad.tariff.json"
    bad.write_text('{"format": "fardo-tariff/1", "carrier": "Fennick"}')
    page.one("#tariff-file").send_keys(str(bad))
    page.shows(".says", "bad.tariff.json")
    assert page.axe() == []


def test_what_is_added_to_a_family_is_on_the_page(page: Page, monkeypatch: pytest.MonkeyPatch) -> None:
    """One more of each, put into the registers while the shop is open: no page has a list of its own."""
    add_one_of_each(monkeypatch)
    page.open("/settings", "#shop-seat")
    assert page.one("#shop-seat").get_attribute("value") == "3 in"
    page.one("summary").click()
    page.fill("shop-minutes-hooped", "9")
    page.fill("shop-seat", "5")
    page.button("I cut a box of B and measured it").click()
    page.choose("[aria-label='Box style of measured box 1 of B']", "Hooped case")
    page.button("Save the settings").click()
    page.shows("#shop-faults", "Saved")
    assert page.api("/api/shop")["shop"]["allowances"]["seat"] == "5 in"
    page.open("/", ".bench li")
    page.open(f"{job_of(page, 'Concertina for Ostwick')}/box", ".cut")
    page.choose("insert-add", "wedge")
    assert page.one("#insert-0-count").get_attribute("value") == "3"
    page.fill("insert-0-length", "3")
    page.shows(".tabs", "wedge × 3")
    page.button("Show all").click()
    page.shows(".ways", "Hooped case")
    page.open("/tariffs", ".carriers")
    next(one for one in page.all(".carrier") if "Quillmere" in one.text).click()
    page.button("Change it").click()
    page.choose(".add [role=combobox]", "toll")
    assert "strong scent" in page.text(".several")


def test_laying_out_is_stopped_and_only_what_is_shown_is_marked_as_cut(page: Page) -> None:
    page.open("/cutting", ".boards article")
    page.button("Mark as cut")
    page.driver.execute_cdp_cmd("Network.enable", {})
    slow = {"offline": False, "latency": 60_000, "downloadThroughput": -1, "uploadThroughput": -1}
    page.driver.execute_cdp_cmd("Network.emulateNetworkConditions", slow)
    page.all(".jobs input[type=checkbox]")[0].click()
    page.button("Stop").click()
    page.driver.execute_cdp_cmd("Network.emulateNetworkConditions", {**slow, "latency": 0})
    page.shows(".says", "The jobs ticked are not laid out")
    assert page.all(".boards article")
    assert not page.driver.find_elements("xpath", "//button[normalize-space()='Mark as cut']")
    page.button("Lay them out").click()
    page.button("Mark as cut")
    assert len(page.all(".jobs input:checked")) == 1

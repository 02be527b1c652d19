"""From nothing to a box that a packer would reach for, on the screen; boxes found, and boxes to arrange into."""

from __future__ import annotations

import pytest
from selenium.webdriver.common.keys import Keys

from tests.browser.driver import Page, first_job


@pytest.mark.parametrize(
    ("kind", "code", "box"),
    [("mug", "pottery", "shelf 7 x 4 x 4"), ("painting", "framed-picture", "flat 24 x 20 x 4"),
     ("notebook", "laptop", "flat 18 x 12 x 4")],
)  # fmt: skip
def test_from_an_empty_bench_to_the_box_that_packers_reach_for(
    empty_page: Page, kind: str, code: str, box: str
) -> None:
    """Common practice."""
    empty_page.open("/", "#bench-line")
    empty_page.fill("bench-line", kind)
    empty_page.shows("#line-answer", "Start:")
    empty_page.press(Keys.ENTER)
    empty_page.until(lambda: "/jobs/" in empty_page.driver.current_url)
    job = empty_page.driver.current_url.split("/jobs/")[1].split("/")[0]
    assert empty_page.api(f"/api/jobs/{job}")["job"]["kind"] == code
    empty_page.open(f"/jobs/{job}/measure", ".views button")
    empty_page.all(".views button")[1].click()
    empty_page.fill("to", "73120")
    empty_page.saved()
    empty_page.open(f"/jobs/{job}/box", ".way")
    empty_page.shows(".way", "Stock box")
    empty_page.shows(".way.picked small", box)
    assert empty_page.axe() == []


def test_a_found_box_stands_among_the_ways_and_is_kept_in_the_stash(page: Page) -> None:
    job = first_job(page, "box", ".way")
    page.one("#found-add").send_keys(Keys.ENTER)
    page.until(lambda: page.focus == "found-0-name")
    page.press("organ carton")
    page.fill("found-0-inside", "wide")
    page.shows(".found .wrong", "wide")
    page.fill("found-0-inside", "16 x 16 x 14")
    page.until(lambda: not page.all(".found .wrong"))
    page.one("input[name=way][value=stash]").find_element("xpath", "..").click()
    page.until(lambda: any("organ carton" in one.text for one in page.all(".hand label")))
    assert page.axe() == []
    page.button("Save to the stash").click()
    page.shows(".toast", "organ carton is in the stash")
    page.saved()
    assert "organ carton" in [one["name"] for one in page.api("/api/shop")["shop"]["boxes"]]
    assert page.api(f"/api/jobs/{job}")["job"]["found_boxes"] == []
    page.button("Undo").click()
    page.shows(".found .row", "Save to the stash")
    page.until(lambda: "organ carton" not in [one["name"] for one in page.api("/api/shop")["shop"]["boxes"]])


def test_boxes_there_are_listed_to_arrange_into_with_the_side_they_are_short_on(page: Page) -> None:
    first_job(page, "arrange", ".boxes li")
    page.shows(".boxes", "holds the goods as they lie")
    boxes = page.all(".boxes button")
    boxes[0].click()
    page.until(lambda: page.one(".into").get_attribute("value"))
    assert boxes[0].get_attribute("aria-pressed") == "true"
    page.one(".boxes + .link").click()
    page.shows(".boxes", "enough")
    assert page.axe() == []


def test_a_layer_goes_on_one_side_and_around_what_is_held_together(page: Page) -> None:
    first_job(page, "protect", ".grown b")
    page.one("#add-layer").click()
    last = len(page.all("[id^=layer-][id$=-on]")) - 1
    field = f"layer-{last}-on"
    page.choose(field, "On the top")
    page.shows(".says", "On the top only.")
    page.fill("bundle", "pair")
    page.one("#add-around").click()
    page.shows(".wrap table", "pair, together")
    assert page.axe() == []


def test_any_two_boxes_are_laid_side_by_side(page: Page) -> None:
    first_job(page, "box", ".way")
    page.one("input[name=way][value=shelf]").find_element("xpath", "..").click()
    page.one(".hand .compare").send_keys(Keys.SPACE)
    page.shows(".beside", "tick another to compare")
    page.one("[aria-label^='Compare Lid and tray']").send_keys(Keys.SPACE)
    page.shows(".beside table", "Room left")
    assert page.text(".beside thead").count("×") == 2
    page.until(lambda: len(page.all(".beside .least")) == 2)
    assert page.axe() == []
    page.one("[aria-label^='Compare Slotted case, cut']").send_keys(Keys.SPACE)
    page.shows(".beside thead", "Slotted case")
    assert len(page.all(".beside thead th")) == 2
    page.all(".beside .off")[0].click()
    page.shows(".beside", "tick another")

"""The Arrange station: a search that shows its best so far, steps of packing, things moved by keyboard."""

from __future__ import annotations

import httpx
import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement

from tests.browser.driver import Page
from tests.made_up import job, part

RIM = {"kind": "ring", "outer_diameter": "20 in", "inner_diameter": "16 in", "thickness": "2 in"}
HUB = {"kind": "cylinder", "diameter": "6 in", "length": "2 in"}
STRETCHER = {"kind": "box", "length": "15 in", "width": "2 in", "height": "1 in"}


@pytest.fixture
def wheel(page: Page) -> str:
    parts = [part(name="rim", shape=RIM, gap="1/2 in"), part(name="hub", shape=HUB, gap="1/2 in", count=2),
             part(name="stretcher", shape=STRETCHER, gap="1/2 in")]  # fmt: skip
    view = httpx.post(f"{page.url}/api/jobs", json=job(title="Wheel in parts", parts=parts, extras=[])).json()
    return f"/jobs/{view['id']}"


def shown(page: Page) -> int:
    return int(page.one(".packed").get_attribute("data-shown") or 0)


def arranged(page: Page, wheel: str) -> None:
    page.open(f"{wheel}/arrange", ".packed")
    page.until(lambda: shown(page) == 4)
    page.choose("effort", "quick")
    page.button("Arrange").click()
    page.until(lambda: page.one(".bar .says").text == "arranged", "the search does not end")
    page.saved()  # a better one may have come since the first was kept


def test_parts_are_arranged_with_a_click_and_the_docket_follows(page: Page, wheel: str) -> None:
    page.open(f"{wheel}/arrange", ".packed")
    page.until(lambda: shown(page) == 4)
    page.shows(".bar .says", "not arranged yet")
    before = page.text("aside .inside")
    arranged(page, wheel)
    assert page.text("aside .inside") != before
    page.shows(".answer[aria-pressed=true]", "less room")
    page.until(lambda: page.api(f"/api{wheel}")["job"].get("arrangement"))
    assert page.axe() == []


def test_a_search_is_found_again_after_its_screen_or_the_job_was_left(page: Page, wheel: str) -> None:
    """It is the job's and not its screen's: what it comes to is kept wherever one is, and told on coming back."""
    page.open(f"{wheel}/arrange", ".packed")
    page.until(lambda: shown(page) == 4)
    page.choose("effort", "long")
    page.button("Arrange").click()
    page.one("progress")
    page.one("nav a[href$='/box']").click()
    page.one(".cut")
    page.until(lambda: page.api(f"/api{wheel}")["job"].get("arrangement"))
    # Left altogether, and opened again by the page's own links: it is still the same search.
    page.one("header a[href='/']").click()
    page.one(f"a[href^='{wheel}/']").click()
    page.one("nav a[href$='/arrange']").click()
    page.button("Stop, keep the best").click()
    page.until(lambda: page.one(".bar .says").text == "arranged", "the search does not end")
    assert page.all(".answer")
    page.saved()


def test_it_is_stepped_through_in_the_order_it_goes_in(page: Page, wheel: str) -> None:
    arranged(page, wheel)
    slider = page.one("#packing-step")
    slider.send_keys(Keys.HOME)
    page.until(lambda: shown(page) == 0)
    slider.send_keys(Keys.ARROW_RIGHT)
    page.until(lambda: shown(page) == 1)
    page.shows(".step", "1 of 4")
    slider.send_keys(Keys.ARROW_RIGHT)
    page.until(lambda: shown(page) == 2)


def test_a_thing_is_moved_let_down_and_locked_by_keys(page: Page, wheel: str) -> None:
    arranged(page, wheel)
    address = f"/api{wheel}"
    page.until(lambda: page.api(address)["job"].get("arrangement"))
    kept = page.api(address)["job"]["arrangement"]
    first = next(one for one in page.all(".order button") if "stretcher" in one.text)
    first.click()
    page.driver.execute_script("document.querySelector('.packed').focus()")
    page.press(Keys.PAGE_UP)
    # A quarter of an inch up is either free and kept, or taken back and said.
    page.until(lambda: page.api(address)["job"]["arrangement"] != kept or "Put back" in page.text(".toast"))
    page.press("l")
    page.until(lambda: any(one["locked"] for one in page.api(address)["job"]["arrangement"]["placements"]))
    page.shows(".order", "locked")
    page.press("l")
    page.until(lambda: not any(one["locked"] for one in page.api(address)["job"]["arrangement"]["placements"]))


def test_a_thing_dragged_into_another_is_said_at_once_and_put_back(page: Page, wheel: str) -> None:
    arranged(page, wheel)
    address = f"/api{wheel}"
    page.until(lambda: page.api(address)["job"].get("arrangement"))
    kept = page.api(address)["job"]["arrangement"]
    page.one(".sides button:nth-child(2)").click()  # straight from above, so that the middle of a thing is where it is
    box = page.one(".packed canvas")
    page.until(lambda: _takes_hold(page, box))
    ActionChains(page.driver).move_by_offset(160, 0).perform()
    page.until(lambda: int(page.one(".packed").get_attribute("data-wrong")) > 0, "what is touched is not shown")
    page.until(lambda: "too near" in page.text(".no"))
    ActionChains(page.driver).release().perform()
    page.shows(".toast", "Put back")
    assert page.api(address)["job"]["arrangement"] == kept


def _takes_hold(page: Page, box: WebElement) -> bool:
    """Presses on what lies nearest to the middle of the picture, and keeps hold of it."""
    for x in range(-60, 61, 20):
        for y in (0, -40, 40):
            ActionChains(page.driver).move_to_element_with_offset(box, x, y).click_and_hold().perform()
            if page.all(".order button[aria-pressed=true]"):
                return True
            ActionChains(page.driver).release().perform()
    return False


def test_wrap_and_fill_are_shown_where_they_are(page: Page, wheel: str) -> None:
    arranged(page, wheel)
    for tick in page.all(".tick input"):
        tick.click()
    page.until(lambda: float(page.one(".packed").get_attribute("data-fill")) > 100, "there is no fill")
    assert page.axe() == []
    page.all(".tick input")[1].click()
    page.until(lambda: page.one(".packed").get_attribute("data-fill") == "0")


def test_a_box_one_has_takes_it_or_says_why_not(page: Page, wheel: str) -> None:
    page.open(f"{wheel}/arrange", ".packed")
    page.until(lambda: shown(page) == 4)
    into = page.one(".into")
    into.send_keys("20 x 20 x 3")
    page.choose("effort", "quick")
    page.button("Arrange").click()
    page.shows(".no", "rim with its gap is larger than the box")
    assert into.get_attribute("value") == "20 x 20 x 3"
    into.clear()
    into.send_keys("26 x 24 x 6")
    page.button("Arrange").click()
    page.until(lambda: page.one(".bar .says").text == "arranged", "it does not go in")
    page.until(lambda: page.api(f"/api{wheel}")["job"].get("arrangement"))
    assert page.api(f"/api{wheel}")["job"]["arrangement"]["inside_mm"] == [660.4, 609.6, 152.4]
    assert page.text(".no") == ""

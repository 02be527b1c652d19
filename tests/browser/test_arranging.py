"""The Arrange station: a search that shows its best so far, steps of packing, things moved by keyboard."""

from __future__ import annotations

import httpx
import pytest
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

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
    Select(page.one(".bar select")).select_by_value("quick")
    page.button("Arrange").click()
    page.until(lambda: page.one(".bar .says").text == "arranged", "the search does not end")


def test_parts_are_arranged_with_a_click_and_the_docket_follows(page: Page, wheel: str) -> None:
    page.open(f"{wheel}/arrange", ".packed")
    page.until(lambda: shown(page) == 4)
    page.shows(".bar .says", "side by side")
    before = page.text("aside .inside")
    arranged(page, wheel)
    assert page.text("aside .inside") != before
    page.shows(".answer[aria-pressed=true]", "less room")
    page.until(lambda: page.api(f"/api{wheel}")["job"].get("arrangement"))
    assert page.axe() == []


def test_it_is_stepped_through_in_the_order_it_goes_in(page: Page, wheel: str) -> None:
    arranged(page, wheel)
    slider = page.one("[aria-label='Step of packing']")
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

"""Every view at every size and in both themes: nothing runs off, is clipped or lies over other words; axe is clean."""

from __future__ import annotations

import httpx
import pytest
from selenium.webdriver.common.keys import Keys

from tests.browser.driver import Page, resize
from tests.browser.walk import does_not_hold

# Phone, tablet upright and lying, desk, large desk; and 1280 x 800 zoomed to 200 %.
SIZES = ((390, 844), (640, 400), (768, 1024), (1024, 768), (1280, 800), (1920, 1080))
VIEWS = {
    "bench": ("/", ".bench li"),
    "cutting": ("/cutting", ".boards article"),
    "tariffs": ("/tariffs", ".carriers"),
    "kinds": ("/kinds", "#kind-called"),
    "settings": ("/settings", "#shop-gap"),
    "first start": ("/start", "#start-units"),
    "nowhere": ("/nowhere", "h1"),
    "measure": ("JOB/measure", ".stated"),
    "protect": ("JOB/protect", ".grown b"),
    "arrange": ("JOB/arrange", ".packed"),
    "box": ("JOB/box", ".cut"),
    "price": ("JOB/price", "tr.plan"),
    "pack": ("JOB/pack", ".fetch"),
    "sent": ("JOB/sent", "#closed-weight"),
}


def opened(page: Page, view: str) -> None:
    path, ready = VIEWS[view]
    key = httpx.get(f"{page.url}/api/jobs").json()["jobs"][1]["id"]
    page.open(path.replace("JOB", f"/jobs/{key}"), ready)


@pytest.mark.parametrize("view", VIEWS)
def test_a_view_is_within_its_window_and_clean_in_both_themes(page: Page, view: str) -> None:
    opened(page, view)
    found = {"light": page.axe()}
    try:
        page.dark(True)
        found["dark"] = page.axe()
    finally:
        page.dark(False)
    for width, height in SIZES:
        resize(page.driver, width, height)
        wide = page.driver.execute_script("return document.documentElement.scrollWidth")
        found[f"at {width}"] = [f"{wide} wide"] if wide > width else []
    assert {where: faults for where, faults in found.items() if faults} == {}


@pytest.mark.parametrize("view", VIEWS)
def test_a_view_holds_at_every_size_and_on_a_phone_in_the_dark(page: Page, view: str) -> None:
    opened(page, view)
    found: dict[str, list[str]] = {}
    for width, height in SIZES:
        resize(page.driver, width, height)
        found[f"at {width}"] = does_not_hold(page)
    try:
        resize(page.driver, 390, 844)
        page.dark(True)
        found["axe"] = page.axe()
    finally:
        page.dark(False)
    assert {where: faults for where, faults in found.items() if faults} == {}


def test_a_fault_and_the_reason_of_a_sum_pass_axe(page: Page) -> None:
    key = httpx.get(f"{page.url}/api/jobs").json()["jobs"][0]["id"]
    page.open(f"/jobs/{key}/measure", ".stated")
    page.fill("part-0-length", "ten or so")
    page.press(Keys.TAB)
    page.shows("#part-0-faults.wrong", "ten or so")
    page.one("[data-why='this sum']").send_keys(Keys.ENTER)
    page.one(".why-slip")
    assert page.axe() == []

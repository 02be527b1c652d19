"""The first hour of an empty shop: by keys alone to a price by a tariff of its own, in inches and in centimetres."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import httpx
import pytest
from selenium import webdriver
from selenium.webdriver.common.keys import Keys

from tests.browser.conftest import _page
from tests.browser.driver import Page, resize
from tests.browser.walk import does_not_hold
from tests.served import ServedHere

MOST_KEYS = 120
OWN = {
    "in": ("up to\t2\t3\n10 lb\t8.10\t9.20\n70 lb\t30.00\t41.00", "0-4,2,1-2\n5-9,3,2-4\nA-Z,3"),
    "cm": ("up to\t2\t3\n5 kg\t8.10\t9.20\n30 kg\t30.00\t41.00", "0-4,2,1-2\n5-9,3,2-4\nA-Z,3"),
}
REEL = {"in": ("12", "9", "7", "3 lb"), "cm": ("30", "22", "18", "1.4 kg")}


@pytest.fixture
def new_page(browser: webdriver.Chrome, tmp_path: Path) -> Iterator[Page]:
    """A shop of which nobody has said anything."""
    with ServedHere(tmp_path / "new.db") as served:
        yield from _page(browser, served)  # type: ignore[arg-type]


class Typist:
    """Types on whatever has the focus, and counts the keys."""

    def __init__(self, page: Page) -> None:
        self.page, self.keys = page, 0

    def __call__(self, *keys: str) -> None:
        self.keys += sum(len(one) for one in keys)
        self.page.press(*keys)

    def tab_to(self, words: str) -> None:
        while not self.page.words_in_focus.startswith(words):
            assert self.keys < 10 * MOST_KEYS, f"Tab leads nowhere before {words!r}"
            self(Keys.TAB)

    def paste(self, text: str) -> None:
        """What a clipboard does, which is no key of its own."""
        self.page.driver.execute_script("document.execCommand('insertText', false, arguments[0])", text)


@pytest.mark.parametrize("units", ["in", "cm"])
def test_from_an_empty_shop_by_keys_to_a_chosen_price(new_page: Page, units: str) -> None:
    page, types = new_page, Typist(new_page)
    page.open("/", "#start-units")
    page.until(lambda: page.focus == "start-units")
    if units == "cm":
        types(Keys.ARROW_DOWN, Keys.ARROW_DOWN, Keys.ENTER)
        page.shows("#start-units", "centimetres")
        page.until(lambda: page.text("#start-paper").startswith("A4"))
    types(Keys.TAB, Keys.TAB, Keys.TAB, Keys.ENTER)
    page.until(lambda: page.focus == "shop-name")
    types(Keys.TAB, Keys.TAB, "10440", Keys.ENTER)
    page.one("#start-tool")
    types(Keys.ENTER)
    page.until(lambda: page.focus == "start-lines")
    types(Keys.TAB, Keys.TAB, Keys.ENTER)
    page.until(lambda: page.focus == "begin-carrier")
    types("Fennick", Keys.TAB, Keys.TAB, Keys.ENTER)
    page.until(lambda: page.focus == "own-table-0")
    assert page.axe() == []
    types.paste(OWN[units][0])
    types(Keys.TAB)
    types.paste(OWN[units][1])
    types(Keys.TAB, Keys.ENTER)
    page.until(lambda: not page.api("/api/tariffs")[0]["services"][0]["placeholder"])
    types.tab_to("Go on")
    types(Keys.ENTER)
    page.shows("h1", "The shop is ready")
    types(Keys.TAB)
    types.tab_to("Start a job")
    types(Keys.ENTER)
    page.until(lambda: page.focus == "title")
    types("Reel", Keys.TAB, "reel", Keys.TAB, Keys.TAB, Keys.TAB)
    for said in REEL[units]:
        types(said, Keys.TAB)
    types(Keys.ESCAPE, "d")
    page.until(lambda: page.focus == "to")
    types("73120")
    page.shows("aside .total", "Total cost")
    types(Keys.ESCAPE, "p")
    page.until(lambda: page.all("tr.plan"))
    types.tab_to("Choose")
    types(Keys.ENTER)
    page.until(lambda: page.all("tr.plan.chosen"))
    page.saved()
    (row,) = page.api("/api/jobs")["jobs"]
    chosen = page.api(f"/api/jobs/{row['id']}")["job"]["chosen"]["price"]
    assert (chosen["carrier"], chosen["amount"]) == ("Fennick", "9.20")
    shop = page.api("/api/shop")["shop"]
    assert (shop["units"], shop["postcode"], shop["boxes"]) == (units, "10440", [])
    assert types.keys < MOST_KEYS, f"{types.keys} keys"


def test_everything_skipped_still_leads_on_from_where_one_looks(new_page: Page) -> None:
    page = new_page
    page.open("/", "#start-units")
    for heading in ("#shop-name", "#start-tool", "#start-lines", "#begin-carrier"):
        page.button("Skip").send_keys(Keys.ENTER)
        page.one(heading)
    page.button("Skip").send_keys(Keys.ENTER)
    page.button("Start a job").send_keys(Keys.ENTER)
    page.one("#part-0-name")
    page.shows("aside", "postcode it goes to")
    for field, said in zip(("length", "width", "height", "weight"), REEL["in"], strict=True):
        page.fill(f"part-0-{field}", said)
    page.fill("to", "73120")
    page.saved()
    # The postcode that is missing leads to its field, from Price too.
    page.one(".twine a[href$='/price']").click()
    page.shows("main", "No price yet")
    page.button("postcode it leaves from").send_keys(Keys.ENTER)
    page.until(lambda: page.focus == "from")
    page.press("10440")
    page.shows("aside", "No carrier's tariff is here yet")
    page.saved()
    # And a tariff is begun right where the prices would stand.
    page.one(".twine a[href$='/price']").click()
    page.fill("begin-carrier", "Fennick Carts")
    page.button("Begin its tariff").send_keys(Keys.ENTER)
    page.until(lambda: page.all("tr.plan"))
    page.shows("tr.strip", "placeholder prices")
    page.shows("aside", "placeholder prices, not those of Fennick Carts")
    assert page.axe() == []


def test_the_first_screens_hold_at_every_width_and_say_what_is_wrong(new_page: Page) -> None:
    page = new_page
    page.open("/start", "#start-units")
    for n, field in enumerate(("#start-units", "#shop-name", "#start-tool", "#start-lines", "#begin-carrier")):
        page.one(field)
        for width in (390, 768, 1024, 1920):
            resize(page.driver, width, 800)
            assert does_not_hold(page) == [], f"screen {n + 1} at {width}"
        resize(page.driver, 1280, 800)
        assert page.axe() == []
        if field == "#shop-name":
            page.fill("shop-postcode", "?")
            page.button("Save and go on").send_keys(Keys.ENTER)
            page.shows("[role=alert]", "postcode")
            assert page.one("#shop-postcode").get_attribute("value") == "?"
            page.fill("shop-postcode", "10440")
        if field == "#start-lines":
            page.one("#start-lines").send_keys("14 x 10 x 6, 25\nlong carton")
            page.button("Save and go on").send_keys(Keys.ENTER)
            page.shows("[role=alert]", "line 2")
            page.one("#start-lines").send_keys(" 40 x 6 x 6")
        if field != "#begin-carrier":
            page.button("Save and go on").send_keys(Keys.ENTER)
    shop: Any = page.api("/api/shop")["shop"]
    assert [one["name"] for one in shop["boxes"]] == ["14 x 10 x 6", "long carton"]


@pytest.mark.parametrize("units", ["in", "cm"])
def test_a_new_shop_leads_to_the_practice_reel_with_tapes_in_its_units(new_page: Page, units: str) -> None:
    page = new_page
    page.open("/", "#start-units")
    if units == "cm":
        page.choose("start-units", "centimetres")
    page.button("Save and go on").click()
    page.fill("shop-postcode", "10440")
    page.button("Save and go on").click()
    for field in ("#start-tool", "#start-lines", "#begin-carrier"):
        page.one(field)
        page.button("Skip").click()
    page.button("Practise on a made-up reel").click()
    page.until(lambda: len(page.all(".practice svg")) == 3)
    page.shows(".practice figcaption", f"length, {units}")
    assert page.axe() == []


def test_practice_goes_from_the_tape_to_the_first_cut_and_the_price(page: Page) -> None:
    key = httpx.post(f"{page.url}/api/practice").json()["id"]

    def asked(title: str) -> None:
        page.until(lambda: page.one(".practice [aria-current]").text == title)

    page.open(f"/jobs/{key}/measure", ".practice svg")
    asked("Measure")
    page.fill("part-0-length", "17 1/2")
    page.shows(".practice", "Length: 1/8 in less than the tape shows.")
    for side, figure in (("length", "17 5/8"), ("width", "11 7/8"), ("height", "15 1/2")):
        page.fill(f"part-0-{side}", figure)
    asked("Weigh")
    page.fill("part-0-weight", "2 lb 14 oz")
    asked("Wrap")
    page.button("Go to Protect").click()
    page.button("Add a layer").click()
    asked("Destination")
    page.button("Go to Measure").click()
    page.fill("to", "73120")
    asked("Box")
    page.button("Go to Box").click()
    page.until(lambda: [one for one in page.all(".way") if "Lid and tray" in one.text])[0].click()
    page.one(".cut")
    page.button("Choose this box").click()
    asked("First cut")
    page.fill("practice-cut", "1")
    page.shows(".practice", "1 in is not the first setting")
    page.fill("practice-cut", page.text("td.figure.text-head"))
    asked("Price")
    page.button("Go to Price").click()
    page.until(lambda: [one for one in page.all("button") if one.text == "Choose"])[0].click()
    page.shows(".practice", "That is a whole job.")


def test_the_made_up_shop_is_tried_and_left_again(new_page: Page) -> None:
    page = new_page
    page.open("/", "#start-units")
    page.button("Try it with the made-up shop").click()
    page.shows(".made-up", "your own shop stays as it is")
    page.until(lambda: any("Concertina" in row.text for row in page.all(".bench li")))
    assert page.axe() == []
    page.button("Back to your shop").click()
    page.one("#start-units")  # nothing was set up in it yet
    assert page.all(".made-up") == []

"""A job from the bench line to handed over by keys alone; two people at the bench, on two jobs and on one."""

from __future__ import annotations

from decimal import Decimal
from typing import Any

import httpx
from selenium.webdriver.common.keys import Keys

from tests.browser.driver import Page
from tests.browser.test_pack_mode import PARTS, done, to_pack, told
from tests.browser.test_sent import sending
from tests.made_up import job
from tests.served import Served

_MOST_TABS = 120


def tab_to(page: Page, words: str) -> None:
    """Goes on by Tab until what has the focus begins with these words."""
    for _ in range(_MOST_TABS):
        if page.words_in_focus.startswith(words):
            return
        page.press(Keys.TAB)
    raise AssertionError(f"Tab leads nowhere before {words!r}")


def test_the_treadle_wheel_goes_from_the_bench_line_to_handed_over_by_keys(page: Page) -> None:
    page.open("/", ".bench li")
    (key,) = [row["id"] for row in page.api("/api/jobs")["jobs"] if row["title"].startswith("Treadle wheel")]
    page.press("/", "treadle")
    page.shows("[role=option]", "Treadle wheel")
    page.press(Keys.ENTER)
    page.until(lambda: key in page.driver.current_url)
    page.one("aside .total")
    page.press(Keys.ESCAPE, "b")
    page.until(lambda: page.all(".way") and page.button("Choose this box").is_enabled())
    tab_to(page, "Choose this box")
    page.press(Keys.ENTER)
    page.button("Chosen")
    page.press(Keys.ESCAPE, "p")
    page.until(lambda: page.all("tr.plan"))
    tab_to(page, "Choose")
    page.press(Keys.ENTER)
    page.until(lambda: page.all("tr.plan.chosen"))
    page.saved()

    page.press(Keys.ESCAPE, "k")
    page.one(".fetch")
    steps = told(page, key)["steps"]
    page.press(Keys.SPACE)
    for n, step in enumerate(steps):
        page.shows(".pack", f"step {n + 1} of {len(steps)}")
        if step["key"].startswith("weigh"):
            break
        page.press(Keys.SPACE)
    # On the scale it is heavier than planned, over a step: what that costs is said before a label is there.
    planned = sending(page, key)["closed"]
    pounds = int(planned["planned_weight"].split(" lb")[0]) + 6
    page.until(lambda: page.focus == "closed-weight")
    page.press(f"{pounds} lb 1 oz", Keys.ENTER)
    page.until(lambda: (sending(page, key)["closed"] or {}).get("weight") == f"{pounds} lb 1 oz")
    closed = sending(page, key)["closed"]
    assert Decimal(closed["price"]) > Decimal(closed["planned_price"])
    assert any(one["deed"] == "pay" for one in closed["advice"])
    page.until(lambda: page.focus == "closed-length")
    for side in planned["planned_sides"].removesuffix(" in").split(" x "):
        page.press(side, Keys.ENTER)
    page.shows(".do", "Label flat")
    page.one("#sending-number").send_keys("OB-4471-20")
    page.until(lambda: sending(page, key)["sending"]["number"] == "OB-4471-20")
    page.press(Keys.ESCAPE)
    while "Hand it over" not in page.text(".do"):
        page.press(Keys.SPACE)
    tab_to(page, "Handed over today")
    page.press(Keys.ENTER)
    page.until(lambda: sending(page, key)["sending"].get("handed_over"))
    page.press(Keys.ESCAPE, Keys.SPACE)
    page.shows(".do", "Packed and handed over.")
    page.until(lambda: [knot["state"] for knot in sending(page, key)["knots"]] == ["tied"] * 7)
    page.open("/", ".bench li")
    page.shows("ul[aria-label='On the way'] li", "Treadle wheel")


class Bench:
    """A second window beside the first, as another person's device."""

    def __init__(self, page: Page) -> None:
        self.page, self.driver = page, page.driver
        self.first = self.driver.current_window_handle
        self.driver.switch_to.new_window("window")
        self.second = self.driver.current_window_handle

    def by_first(self) -> None:
        self.driver.switch_to.window(self.first)

    def by_second(self) -> None:
        self.driver.switch_to.window(self.second)

    def __enter__(self) -> Bench:
        return self

    def __exit__(self, *_: object) -> None:
        self.by_second()
        self.driver.close()
        self.by_first()


def test_two_people_pack_two_jobs(page: Page) -> None:
    first = to_pack(page)
    with Bench(page) as bench:
        second = to_pack(page)
        for n in range(4):
            bench.by_first()
            page.press(Keys.SPACE)
            page.shows(".pack", f"step {n + 1} of")
            bench.by_second()
            page.press(Keys.SPACE)
            page.shows(".pack", f"step {n + 1} of")
        for key in (first, second):
            steps = [step["key"] for step in told(page, key)["steps"]]
            page.until(lambda key=key, steps=steps: done(page, key) - {"timer"} == set(steps[:3]))  # type: ignore[misc]


def test_two_people_pack_one_job_and_each_sees_the_others_ticks(page: Page) -> None:
    key = to_pack(page)
    steps = [step["key"] for step in told(page, key)["steps"]]
    page.press(Keys.SPACE)
    page.shows(".pack", "step 1 of")
    with Bench(page) as bench:
        page.open(f"/jobs/{key}/pack", ".pack")
        page.shows(".pack", "step 1 of")
        # The second skips what the first is at, and both tick one and the same step.
        page.press(Keys.ARROW_RIGHT, Keys.SPACE, Keys.SPACE)
        page.until(lambda: set(steps[1:3]) <= done(page, key))
        bench.by_first()
        page.press(Keys.SPACE)
        page.until(lambda: set(steps[:3]) <= done(page, key))
        page.until(lambda: page.text(".progress").startswith("3 of"))
        bench.by_second()
        page.until(lambda: page.text(".progress").startswith("3 of"))
    # Everything is there once, and what one ticked the other need not.
    page.press(Keys.ARROW_RIGHT)
    page.shows(".pack", "step 3 of")
    page.button("Not done after all")


def test_two_people_see_each_others_changes_as_they_are_made(page: Page) -> None:
    key = str(httpx.post(f"{page.url}/api/jobs", json=job(title="Wheel in two", parts=PARTS)).json()["id"])
    page.open("/", ".bench li")
    with Bench(page) as bench:
        page.open(f"/jobs/{key}/measure", "#part-0-length")
        page.fill("title", "Wheel in three")
        page.saved()
        bench.by_first()
        page.until(lambda: any("Wheel in three" in row.text for row in page.all(".bench li")))
        page.open(f"/jobs/{key}/measure", "#part-0-length")
        page.one("#part-0-weight").click()
        bench.by_second()
        page.fill("part-0-length", "7 1/2")
        page.saved()
        bench.by_first()
        page.until(lambda: page.one("#part-0-length").get_attribute("value").startswith("7 1/2"))
        page.shows(".toast", "changed in another window")
        assert page.focus == "part-0-weight"  # whoever types goes on where they are
        # What is half typed here stays; what the other changed elsewhere is taken over when it is saved.
        page.fill("part-0-weight", "heavy")
        page.shows(".state .words", "Not saved")
        bench.by_second()
        page.fill("part-0-length", "7 3/4")
        page.saved()
        bench.by_first()
        page.fill("part-0-weight", "3 lb")
        page.saved()
        page.until(lambda: page.one("#part-0-length").get_attribute("value").startswith("7 3/4"))
        kept = page.api(f"/api/jobs/{key}")["job"]["parts"][0]
        assert (kept["shape"]["length"], kept["weight"]) == ("7 3/4 in", "3 lb")


def test_what_is_said_of_a_parcel_on_one_device_is_on_the_other(page: Page) -> None:
    key = to_pack(page)
    page.open(f"/jobs/{key}/sent", "#closed-weight")
    with Bench(page) as bench:
        page.open(f"/jobs/{key}/sent", "#closed-weight")
        page.one("#closed-weight").send_keys("9 lb", Keys.TAB)
        page.until(lambda: sending(page, key)["revision"] == 1)
        bench.by_first()
        page.until(lambda: page.one("#closed-weight").get_attribute("value") == "9 lb")


def test_packing_goes_on_after_the_shop_was_killed_and_started_again(empty_page: Page, empty_server: Served) -> None:
    page = empty_page
    content: dict[str, Any] = job(title="Wheel in two", parts=PARTS)
    key = str(httpx.post(f"{page.url}/api/jobs", json=content).json()["id"])
    page.open(f"/jobs/{key}/pack", ".fetch")
    page.press(Keys.SPACE, Keys.SPACE, Keys.SPACE)
    steps = [step["key"] for step in told(page, key)["steps"]]
    page.until(lambda: set(steps[:2]) <= done(page, key))
    empty_server.kill()
    page.press(Keys.SPACE)
    page.shows(".pack", "Your ticks are kept in this browser and sent later.")
    empty_server.restart()
    page.until(lambda: set(steps[:3]) <= done(page, key))
    page.open(f"/jobs/{key}/pack", ".pack")
    page.shows(".pack", "step 4 of")

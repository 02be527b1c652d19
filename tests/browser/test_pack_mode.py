"""Pack mode in the browser: by keys alone, at phone size, after a reload, with two windows, while the shop is away."""

from __future__ import annotations

from typing import Any

import httpx
from selenium.webdriver.common.keys import Keys

from tests.browser.driver import Page, resize
from tests.made_up import box, job, part

PARTS = [
    part(name="hub", weight="2 lb", gap="1 in", shape=box(length="9 in", width="6 in", height="4 in")),
    part(name="rim", weight="31 lb", gap="1 in", shape=box(length="14 in", width="12 in", height="4 in"),
         protect=[{"material": "bubble-small", "layers": 2}]),
]  # fmt: skip


def to_pack(page: Page) -> str:
    key = str(httpx.post(f"{page.url}/api/jobs", json=job(title="Wheel in two", parts=PARTS)).json()["id"])
    page.open(f"/jobs/{key}/pack", ".fetch")
    return key


def told(page: Page, key: str) -> dict[str, Any]:
    answer: dict[str, Any] = page.api(f"/api/jobs/{key}/packing")
    return answer


def done(page: Page, key: str) -> set[str]:
    last = {one["step"]: one["done"] for one in told(page, key)["ticks"]}
    return {step for step, is_done in last.items() if is_done}


def test_a_job_is_packed_by_the_space_bar_alone(page: Page) -> None:
    key = to_pack(page)
    fetch = page.text(".fetch")
    assert "Board" in fetch
    assert "small bubble" in fetch
    page.shows(".pack", "No box is chosen yet")
    assert page.axe() == []
    steps = told(page, key)["steps"]
    page.press(Keys.SPACE)
    for n, step in enumerate(steps):
        page.shows(".pack", f"{step['section']}, step {n + 1} of {len(steps)}")
        if step["people"] == 2:
            page.shows(".pack", "Two people")
        if step["goes_in"] is not None:
            page.until(lambda step=step: len(page.all(".pack svg g")) == step["goes_in"])
        page.press(Keys.SPACE)
    page.shows(".do", "Packed and handed over.")
    page.until(lambda: done(page, key) == {step["key"] for step in steps})
    assert page.axe() == []


def test_it_goes_on_where_it_was_after_a_reload_and_back_takes_a_tick_back(page: Page) -> None:
    key = to_pack(page)
    page.press(Keys.SPACE, Keys.SPACE, Keys.SPACE)
    first, second, third = (step["key"] for step in told(page, key)["steps"][:3])
    page.until(lambda: {first, second} <= done(page, key))
    page.driver.refresh()
    page.shows(".pack", "step 3 of")
    page.press(Keys.ARROW_LEFT)
    page.shows(".pack", "step 2 of")
    page.button("Not done after all").send_keys(Keys.ENTER)
    page.until(lambda: second not in done(page, key))
    assert third not in done(page, key)


def test_ticks_made_while_the_shop_is_away_are_sent_after(page: Page) -> None:
    key = to_pack(page)
    page.press(Keys.SPACE)
    page.driver.execute_cdp_cmd("Network.enable", {})
    away = {"offline": True, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1}
    page.driver.execute_cdp_cmd("Network.emulateNetworkConditions", away)
    try:
        page.press(Keys.SPACE, Keys.SPACE)
        page.shows(".pack", "Your ticks are kept in this browser and sent later.")
    finally:
        page.driver.execute_cdp_cmd("Network.emulateNetworkConditions", {**away, "offline": False})
    # Another device ticked the third step meanwhile.
    steps = [step["key"] for step in told(page, key)["steps"]]
    other = {"id": "other-device-1", "step": steps[2], "done": True, "at": "2026-03-02T10:00:00Z"}
    httpx.post(f"{page.url}/api/jobs/{key}/packing/ticks", json={"ticks": [other]}).raise_for_status()
    page.until(lambda: set(steps[:3]) <= done(page, key))
    page.until(lambda: "3 of" in page.text(".progress"))


def test_a_note_at_a_step_is_kept_with_it(page: Page) -> None:
    key = to_pack(page)
    page.press(Keys.SPACE)
    first, second = (step["key"] for step in told(page, key)["steps"][:2])
    page.button("Note").click()
    page.one("#step-note").send_keys("left pedal is scratched")
    page.button("Keep the note").click()
    page.shows(".pack", "left pedal is scratched")
    page.press(Keys.SPACE)
    page.until(lambda: first in done(page, key))
    assert "left pedal is scratched" not in page.text(".pack")
    page.driver.refresh()
    page.shows(".pack", "step 2 of")
    page.press(Keys.ARROW_LEFT)
    page.shows(".pack", "left pedal is scratched")
    assert second not in done(page, key)
    assert page.axe() == []


def test_pack_mode_at_phone_size_runs_off_nowhere_and_its_buttons_are_for_gloves(page: Page) -> None:
    to_pack(page)
    resize(page.driver, 390, 800)
    for _ in range(6):
        assert page.driver.execute_script("return document.documentElement.scrollWidth") <= 390
        assert all(one.size["height"] >= 44 for one in page.all(".pack .big"))
        page.press(Keys.SPACE)
    assert page.axe() == []


def test_from_a_chosen_box_one_press_leads_to_packing_and_another_box_opens_its_steps_again(page: Page) -> None:
    key = str(httpx.post(f"{page.url}/api/jobs", json=job(title="Wheel in two", parts=PARTS)).json()["id"])
    page.open(f"/jobs/{key}/box", ".way")
    page.button("Choose this box").send_keys(Keys.ENTER)
    page.button("Pack").send_keys(Keys.ENTER)
    page.one(".fetch")
    assert "No box is chosen" not in page.text(".pack")
    first = [step["key"] for step in told(page, key)["steps"]]
    page.press(*[Keys.SPACE] * 5)
    page.until(lambda: set(first[:3]) <= done(page, key))
    page.open(f"/jobs/{key}/box", ".way")
    other = next(one for one in page.all("input[name=way]") if not one.is_selected())
    other.find_element("xpath", "..").click()
    page.until(lambda: page.one("#board, .from") and page.button("Choose this box").is_enabled())
    page.button("Choose this box").send_keys(Keys.ENTER)
    page.saved()
    second = {step["key"]: step["section"] for step in told(page, key)["steps"]}
    kept = done(page, key) & set(second)
    assert {second[step] for step in kept} <= {"Take apart", "Wrap"}
    assert kept

"""The end of a job in the browser: weighed and measured, priced again, numbered, handed over."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import httpx
from PIL import Image
from selenium.webdriver.common.keys import Keys

from tests.browser.driver import Page, resize
from tests.browser.walk import does_not_hold
from tests.made_up import box, job, part

PARTS = [part(name="hub", weight="2 lb", gap="1 in", shape=box(length="9 in", width="6 in", height="4 in"))]


def chosen(page: Page, title: str = "Hub") -> str:
    """A job whose box and service are chosen, as the plan table has them first; its id."""
    content = job(title=title, parts=PARTS, ways=["slotted"], extras=[])
    table = httpx.post(f"{page.url}/api/plans", json={"job": content}, timeout=None).json()
    plan = {"job": content, "plan": table["rows"][0]["key"]}
    content["chosen"] = httpx.post(f"{page.url}/api/plans/chosen", json=plan, timeout=None).raise_for_status().json()
    return str(httpx.post(f"{page.url}/api/jobs", json=content).raise_for_status().json()["id"])


def sending(page: Page, key: str) -> dict[str, Any]:
    told: dict[str, Any] = page.api(f"/api/jobs/{key}/sending")
    return told


def test_a_parcel_is_weighed_priced_again_numbered_and_handed_over_by_keys(page: Page) -> None:
    key = chosen(page)
    page.open(f"/jobs/{key}/sent", "#closed-weight")
    assert page.axe() == []
    page.one("#closed-weight").send_keys("50 lb 1 oz", Keys.ENTER, "13", Keys.ENTER, "10", Keys.ENTER, "8", Keys.ENTER)
    page.shows("[aria-label='What can be done']", "Take out 1 oz, down to 50 lb")
    page.shows("[aria-label='What can be done']", "more than planned")
    page.shows("[aria-label='Closed parcel']", "far from the plan")
    assert page.axe() == []
    page.one("#sending-number").send_keys("ob 4471-20")
    page.until(lambda: sending(page, key)["sending"]["number"] == "ob 4471-20")
    page.button("Handed over today").send_keys(Keys.ENTER)
    page.until(lambda: sending(page, key)["next_move"] == "On the way")
    page.one(".twine a[aria-current] .sr-only")
    page.until(lambda: "tied" in page.one(".twine a[aria-current] .sr-only").get_attribute("textContent"))
    page.open("/", ".bench li")
    page.shows("ul[aria-label='On the way'] li", "Hub")
    page.open(f"/jobs/{key}/sent", "#over-on")
    assert page.one("#closed-weight").get_attribute("value") == "50 lb 1 oz"
    page.one("#over-expected")


HOLD_A_SAVE = """
  const ask = window.fetch;
  window.fetch = async (...all) => {
    const answer = await ask(...all);
    if ((all[0].method ?? all[1]?.method) === 'PUT' && !window.letGo)
      await new Promise((go) => (window.letGo = go));
    return answer;
  };
"""


def test_handed_over_is_kept_though_an_earlier_save_answers_after_the_press(page: Page) -> None:
    """The answer to the number's save put the empty day back before it was saved."""
    key = chosen(page)
    script = page.driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": HOLD_A_SAVE})
    try:
        page.open(f"/jobs/{key}/sent", "#over-on")
        page.one("#sending-number").send_keys("ob 4471-20", Keys.TAB)
        page.until(lambda: page.driver.execute_script("return Boolean(window.letGo)"))
        page.button("Handed over today").click()
        page.driver.execute_script("window.letGo()")
        page.until(lambda: sending(page, key)["sending"].get("handed_over"))
        assert page.one("#over-on").get_attribute("value")
        assert sending(page, key)["sending"]["number"] == "ob 4471-20"
    finally:
        page.driver.execute_cdp_cmd("Page.removeScriptToEvaluateOnNewDocument", script)


def test_undo_takes_the_hand_over_back(page: Page) -> None:
    key = chosen(page)
    page.open(f"/jobs/{key}/sent", "#over-on")
    page.button("Handed over today").click()
    page.until(lambda: sending(page, key)["sending"].get("handed_over"))
    page.button("Undo").click()
    page.until(lambda: not sending(page, key)["sending"].get("handed_over"))


def test_what_cannot_be_read_is_told_and_stays_typed(page: Page) -> None:
    key = chosen(page)
    page.open(f"/jobs/{key}/sent", "#closed-weight")
    page.one("#closed-weight").send_keys("heavy", Keys.TAB)
    page.shows("#sending-faults", "Weight by the scale: ")
    assert page.one("#closed-weight").get_attribute("value") == "heavy"
    assert sending(page, key)["revision"] == 0


def test_two_windows_that_differ_say_so_and_keep_what_is_typed(page: Page) -> None:
    key = chosen(page)
    with page.told_nothing():
        page.open(f"/jobs/{key}/sent", "#closed-weight")
        other = {"revision": 0, "sending": {"closed": {"weight": "3 lb"}}}
        httpx.put(f"{page.url}/api/jobs/{key}/sending", json=other).raise_for_status()
        page.one("#closed-weight").send_keys("4 lb", Keys.TAB)
    page.shows("[role=alert]", "changed in another window")
    assert page.one("#closed-weight").get_attribute("value") == "4 lb"
    page.button("Keep what is typed here").click()
    page.until(lambda: sending(page, key)["sending"]["closed"]["weight"] == "4 lb")


def test_the_scale_is_read_in_pack_mode_and_the_step_is_ticked(page: Page) -> None:
    key = chosen(page)
    page.open(f"/jobs/{key}/pack", ".fetch")
    page.press(Keys.SPACE)
    while "Weigh it" not in page.text(".do"):
        page.press(Keys.ARROW_RIGHT)
    page.until(lambda: page.driver.switch_to.active_element.get_attribute("id") == "closed-weight")
    reading = {"device": "scale", "reading": "4 lb 2 oz"}
    page.until(lambda: httpx.post(f"{page.url}/api/devices/readings", json=reading).json()["heard"] > 0)
    page.shows(".do", "Measure length")
    page.until(lambda: (sending(page, key)["sending"].get("closed") or {}).get("weight") == "4 lb 2 oz")
    assert sending(page, key)["knots"][5]["state"] == "tied"


def test_a_pasted_address_fills_the_fields_prints_a_label_and_is_forgotten(page: Page) -> None:
    key = chosen(page)
    page.open(f"/jobs/{key}/sent", "#pasted")
    page.one("#pasted").send_keys("Isolde Marran", Keys.ENTER, "14 Ropewalk Lane", Keys.ENTER, "Ostwick, PM 97201")
    page.button("Fill the fields").send_keys(Keys.ENTER)
    page.until(lambda: page.one("#recipient-postcode").get_attribute("value") == "97201")
    assert page.one("#recipient-name").get_attribute("value") == "Isolde Marran"
    assert page.one("#recipient-lines").get_attribute("value") == "14 Ropewalk Lane"
    page.shows("[aria-label=Recipient]", "The job is priced to 73120; this address is in 97201.")
    assert page.axe() == []
    page.until(lambda: httpx.get(f"{page.url}/api/jobs/{key}/label.pdf", timeout=None).status_code == 200)
    page.button("Price it to 97201").click()
    page.saved()
    assert page.api(f"/api/jobs/{key}")["job"]["ship"]["to"] == "97201"
    page.button("Hide").click()
    assert "Isolde" not in page.text("main")
    page.button("Show").click()
    page.button("Forget this person…").click()
    page.button("Forget this person").click()
    page.shows("[aria-label=Recipient]", "forgotten on")
    assert page.api(f"/api/jobs/{key}/recipient")["recipient"]["address"]["name"] == ""


def test_ticking_the_last_step_hands_it_over_today(page: Page) -> None:
    key = chosen(page)
    page.open(f"/jobs/{key}/pack", ".fetch")
    assert "knife and straightedge" in page.text(".fetch")
    page.press(Keys.SPACE)
    steps = len(page.api(f"/api/jobs/{key}/packing")["steps"])
    for n in range(steps):
        page.shows(".pack", f"step {n + 1} of {steps}")
        if "Label flat" in page.text(".do"):
            page.one("#sending-number").send_keys("OB-4471-20", Keys.ESCAPE)
            page.until(lambda: sending(page, key)["sending"]["number"] == "OB-4471-20")
        page.press(Keys.SPACE)
    page.shows(".do", "Packed and handed over.")
    page.until(lambda: sending(page, key)["next_move"] == "On the way")


def test_a_receipt_and_a_photograph_at_a_step_are_kept_and_shown(page: Page, tmp_path: Path) -> None:
    photo, letter = tmp_path / "receipt.png", tmp_path / "letter.txt"
    Image.new("RGB", (40, 30), "grey").save(photo)
    letter.write_text("no photograph")
    key = chosen(page)
    page.open(f"/jobs/{key}/sent", "#over-on")
    page.one("input[aria-label='Photograph of the receipt']").send_keys(str(photo))
    page.until(lambda: len((sending(page, key)["sending"].get("handed_over") or {}).get("receipts", [])) == 1)
    page.one("img[alt='Receipt 1']")
    page.one("[aria-label='Remove receipt 1']").click()
    page.until(lambda: sending(page, key)["sending"]["handed_over"]["receipts"] == [])
    page.one("input[aria-label='Photograph of the receipt']").send_keys(str(letter))
    page.until(lambda: page.text(".toast") != "")
    assert sending(page, key)["sending"]["handed_over"]["receipts"] == []
    page.open(f"/jobs/{key}/pack", ".fetch")
    page.press(Keys.SPACE)
    page.one("input[aria-label='Photograph at this step']").send_keys(str(photo))
    page.one("img[alt='Photograph 1 at this step']")
    page.until(lambda: any(tick["photo"] for tick in page.api(f"/api/jobs/{key}/packing/ticks")))


def test_sent_holds_at_every_width(page: Page) -> None:
    key = chosen(page, title="A name of a job that is as long as a careful person makes it, with all that is in it")
    page.open(f"/jobs/{key}/sent", "#closed-weight")
    for width in (390, 1024, 1280):
        resize(page.driver, width, 800)
        assert does_not_hold(page) == []

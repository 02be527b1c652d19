"""The manner of every screen: by keyboard, readable, nothing jumps, nothing typed is lost."""

from __future__ import annotations

import json
from pathlib import Path
from urllib.parse import urlsplit

import httpx
from selenium.webdriver.common.keys import Keys

from tests.browser.driver import Page, first_job
from tests.made_up import job, part


def test_tab_goes_in_the_order_of_measuring_and_enter_opens_the_next_extra(page: Page) -> None:
    first_job(page)
    page.one("#part-0-length").click()
    order = ["length"]
    for _ in range(3):
        page.press(Keys.TAB)
        order.append(page.focus.removeprefix("part-0-"))
    assert order == ["length", "width", "height", "weight"]
    page.one("#extra-0-name").click()
    page.press(Keys.TAB)
    assert page.focus == "extra-0-size"
    page.press(Keys.TAB)
    assert page.focus == "extra-0-weight"
    page.one("#extra-1-weight").click()
    page.press(Keys.ENTER)
    page.until(lambda: page.focus == "extra-2-name")


def test_one_key_a_knot_and_a_list_of_them(page: Page) -> None:
    key = first_job(page)
    page.press("w")
    page.until(lambda: page.driver.current_url.endswith(f"/jobs/{key}/protect"))
    page.press("b")
    page.until(lambda: page.driver.current_url.endswith(f"/jobs/{key}/box"))
    page.press("p")
    page.until(lambda: page.driver.current_url.endswith("/price"))
    page.press("?")
    page.shows(".slip", "to measure")
    page.press(Keys.ESCAPE)
    page.until(lambda: not page.all(".slip"))
    page.press("h")
    page.until(lambda: page.driver.current_url == page.url + "/")
    # In a field letters are letters; Escape leaves it.
    first_job(page)
    page.one("#part-0-name").send_keys("bp")
    assert page.driver.current_url.endswith("/measure")
    page.press(Keys.ESCAPE)
    page.press("b")
    page.until(lambda: page.driver.current_url.endswith("/box"))


def test_help_says_what_each_room_and_knot_is_for_in_two_sentences(page: Page) -> None:
    first_job(page)
    told = set()
    rooms = ["/", "/cutting", "/tariffs", "/kinds", "/settings", "/start"]
    here = page.driver.current_url.removeprefix(page.url)
    knots = [
        here.replace("measure", knot) for knot in ("measure", "protect", "arrange", "box", "price", "pack", "sent")
    ]
    for place in (*rooms, *knots):
        page.open(place, "main")
        page.one("[aria-label=Help]").click()
        says = page.text("[data-dialog-description]")
        assert says.count(". ") == 1, says
        assert says.endswith("."), says
        told.add(says)
    assert len(told) == len(rooms) + len(knots)
    assert page.axe() == []


def test_arrow_keys_go_through_the_ways(page: Page) -> None:
    first_job(page, "box", ".way")
    first, second = (way.get_attribute("value") for way in page.all("input[name=way]")[:2])
    checked = page.one("input[name=way]:checked")
    assert checked.get_attribute("value") == first
    checked.send_keys(Keys.ARROW_DOWN)
    page.until(lambda: page.one("input[name=way]:checked").get_attribute("value") == second)
    page.until(lambda: not page.all("aside .awaits"))  # the list stands still once the answer is there
    page.one("input[name=way][value=tray]").find_element("xpath", "..").click()
    page.shows(".tabs", "lid")


def test_ways_from_stock_show_their_steps_and_the_others_why_not(page: Page) -> None:
    first_job(page, "box", ".way")
    page.one("input[name=way][value=stash]").find_element("xpath", "..").click()
    page.shows(".from", "Made from")
    page.shows(".steps", "old label")
    assert not page.all(".drawing svg")
    assert "way=stash%2F" in page.button("Print").get_attribute("href")
    page.shows(".station dl", "Equal boxes telescoped")
    page.button("Choose this box").click()
    page.button("Chosen")
    page.shows("aside", "Used box, as it is")
    assert page.axe() == []


def test_boxes_that_are_there_are_entered_in_the_settings(page: Page) -> None:
    page.open("/settings", "#box-0-name")
    count = len(page.all(".box"))
    page.button("Add a box").click()
    page.until(lambda: len(page.all(".box")) == count + 1)
    page.fill(f"box-{count}-name", "tea chest")
    page.fill(f"box-{count}-inside", "20 x 16")
    page.button("Save the settings").click()
    page.until(lambda: page.one(f"#box-{count}-inside").get_attribute("aria-invalid") == "true")
    page.fill(f"box-{count}-inside", "20 x 16 x 18 in")
    page.button("Save the settings").click()
    page.until(lambda: page.api("/api/shop")["shop"]["boxes"][-1]["inside"] == "20 x 16 x 18 in")
    assert page.api("/api/shop")["shop"]["boxes"][-1]["name"] == "tea chest"


def test_a_figure_answers_why_by_keyboard(page: Page) -> None:
    first_job(page)
    why = page.one("[data-why='this inside size']")
    why.send_keys(Keys.ENTER)
    page.shows(".why-slip", "contents + 2 x gap, then the extras")
    page.shows(".why-slip", "gap on every side")
    page.press(Keys.ESCAPE)
    page.until(lambda: not page.all(".why-slip"))
    assert page.driver.switch_to.active_element == why
    page.one("[data-why='this sum']").send_keys(Keys.ENTER)
    page.shows(".why-slip", "postage")


def test_a_fault_says_what_was_read_keeps_it_and_saves_nothing(page: Page) -> None:
    key = first_job(page)
    page.fill("part-0-length", "ten or so")
    page.press(Keys.TAB)
    page.shows("#part-0-faults.wrong", "Length: read 'ten or so'")
    page.shows("#part-0-faults", "Allowed: a length such as 10 1/2")
    assert page.one("#part-0-length").get_attribute("aria-invalid") == "true"
    page.shows(".state .words", "Not saved")
    # The docket keeps the last figures and says so.
    page.shows("aside", "from before your last change")
    page.fill("part-0-width", "8 in")
    assert page.api(f"/api/jobs/{key}")["job"]["parts"][0]["shape"]["length"] == "9 1/2 in"
    assert page.api(f"/api/jobs/{key}")["job"]["parts"][0]["shape"]["width"] == "9 1/2 in"
    # Closed and opened again, what was typed is still there; mended, all of it is saved.
    page.driver.refresh()
    page.until(lambda: page.one("#part-0-length").get_attribute("value") == "ten or so")
    assert page.one("#part-0-width").get_attribute("value") == "8 in"
    page.fill("part-0-length", "10 1/4")
    page.saved()
    shape = page.api(f"/api/jobs/{key}")["job"]["parts"][0]["shape"]
    assert (shape["length"], shape["width"]) == ("10 1/4 in", "8 in")


FAULTS = [
    ("part-0-count", "0", "not a count"),
    ("part-0-length", "0", "nothing at all"),
    ("part-0-width", "-4", "below zero"),
    ("part-0-height", "11 m", "more than fits any parcel"),
    ("part-0-length", "3 cm 2 in", "mixed in one measure"),
    ("part-0-length", "NaN", "not a number"),
    ("part-0-weight", "4 in", "a length"),
    ("part-0-height", "1/3", "cannot be kept exactly"),
    ("extra-0-size", "4 x 3", "sides where three are needed"),
    ("to", "??", "not a postcode"),
    ("value", "a lot", "not an amount of money"),
]
LABELS = {"to": "destination postcode", "value": "declared value", "extra-0-size": "size of spare reeds, boxed"}


def test_each_fault_is_told_by_the_label_of_its_field(page: Page) -> None:
    first_job(page)
    for field, typed, says in FAULTS:
        before = page.one(f"#{field}").get_attribute("value")
        page.fill(field, typed)
        page.press(Keys.TAB)
        element = page.one(f"#{field}[aria-invalid=true]")
        line = next(name for name in element.get_attribute("aria-describedby").split() if name.endswith("-faults"))
        page.shows(f"#{line}.wrong", says)
        assert page.text(f"#{line}").lower().startswith(LABELS.get(field, field.removeprefix("part-0-")))
        assert element.get_attribute("value") == typed
        page.fill(field, before or "")
        page.until(lambda field=field: not page.all(f"#{field}[aria-invalid=true]"))
    page.saved()


def test_nothing_moves_while_typing(page: Page) -> None:
    first_job(page)
    places = (
        "return ['part-0-width', 'part-0-weight', 'extra-0-size', 'to', 'day'].map((id) => {"
        "  const r = document.getElementById(id).getBoundingClientRect(); return [r.x, r.y, r.width] })"
    )
    before = page.driver.execute_script(places)
    page.fill("part-0-length", "about nine")
    page.press(Keys.TAB)
    page.shows("#part-0-faults.wrong", "about nine")
    assert page.driver.execute_script(places) == before
    page.fill("part-0-length", "26.7 cm")
    page.shows("#part-0-faults", "Length = 10 9/16 in")
    assert page.driver.execute_script(places) == before


def test_an_extra_taken_off_comes_back_by_undo(page: Page) -> None:
    first_job(page)
    before = page.text(".stated")
    page.one("button[aria-label='Remove spare reeds, boxed']").click()
    page.until(lambda: page.text(".stated") != before)
    page.button("Undo").click()
    page.shows(".stated", before)
    assert page.one("#extra-0-name").get_attribute("value") == "spare reeds, boxed"


def test_a_metric_shop_types_and_reads_centimetres_and_kilos(page: Page) -> None:
    view = httpx.get(f"{page.url}/api/shop").json()
    metric = {**view["shop"], "units": "cm", "fence_step": "1 mm", "gap": "5 cm"}
    httpx.put(f"{page.url}/api/shop", json={"revision": view["revision"], "shop": metric}).raise_for_status()
    page.open("/", ".bench li")
    page.press("n")
    page.until(lambda: page.focus == "title")
    page.press("Dulcimer", Keys.TAB)
    page.shows(".heads", "Measures, cm")
    page.fill("part-0-length", "40")
    page.press(Keys.TAB, "30", Keys.TAB, "10", Keys.TAB, "2.5")
    page.one("button[aria-label^='Remove packing slip']").click()
    page.shows(".stated", "50 x 40 x 20 cm")
    page.fill("part-0-length", "15 3/4 in")
    page.shows("#part-0-faults", "Length = 40.1 cm")
    page.fill("to", "73120")
    page.shows("aside .size", "cm")
    page.shows("aside dl", "kg")
    page.press(Keys.ESCAPE, "b")
    page.shows(".cut thead", "Fence or mark, cm")


def test_a_whole_job_without_the_mouse(page: Page) -> None:
    page.open("/", ".bench li")
    page.press("/")
    page.until(lambda: page.focus == "bench-line")
    page.press("Raddle and reeds", Keys.ENTER)
    page.until(lambda: page.focus == "part-0-name")
    page.press("raddle", Keys.ENTER, Keys.ENTER, Keys.ENTER)
    for typed in ("24", "4 1/2", "2", "1 lb 12 oz"):
        page.press(typed, Keys.ENTER)
    # A name left empty says that there are no more parts.
    page.until(lambda: page.focus == "part-1-name")
    page.press(Keys.ENTER)
    page.until(lambda: page.focus == "add-extra")
    page.press(Keys.ENTER)
    page.until(lambda: page.focus == "extra-1-name")
    page.press("card", Keys.ENTER, "6 x 4 x 1/8", Keys.ENTER, "1 oz")
    page.until(lambda: page.focus == "extra-1-weight")
    page.press(Keys.ESCAPE, "d")
    page.until(lambda: page.focus == "to")
    page.press("73120")
    page.shows("aside .total", "Total cost")
    page.press(Keys.ESCAPE, "w")
    page.one("#gap").send_keys("1")
    page.saved()
    page.press(Keys.ESCAPE, "b")
    page.one(".way")
    choose = page.button("Choose this box")
    page.one("input[name=way]:checked").send_keys("")
    for _ in range(12):
        if page.driver.switch_to.active_element == choose:
            break
        page.press(Keys.TAB)
    page.press(Keys.ENTER)
    page.button("Chosen")
    page.press("p")
    page.one("tr.plan button.open").send_keys(Keys.ENTER)
    page.one("tr.lines .top button").send_keys(Keys.ENTER)
    page.until(lambda: page.all("tr.plan.chosen"))
    page.saved()
    page.press(Keys.ESCAPE, "h")
    page.shows("ul[aria-label='No ship date'] li", "Pack it")


def test_more_jobs_are_fetched_when_asked_for(page: Page) -> None:
    for n in range(50):
        httpx.post(f"{page.url}/api/jobs", json=job(title=f"job {n}")).raise_for_status()
    page.open("/", ".bench li")
    assert len(page.all(".bench li")) == 50
    page.button("More jobs").click()
    page.until(lambda: len(page.all(".bench li")) == 58)


def test_a_crowded_job_still_has_room(page: Page) -> None:
    extras = [
        {"name": f"bobbin {n}, in a sleeve of its own", "size": "5 x 2 x 2 in", "weight": "3 oz"} for n in range(14)
    ]
    key = httpx.post(f"{page.url}/api/jobs", json=job(title="w" * 200, extras=extras)).json()["id"]
    page.open(f"/jobs/{key}/measure", ".stated")
    assert len(page.all(".inside svg g")) == 15
    assert page.driver.execute_script("return document.documentElement.scrollWidth") <= 1280
    assert page.axe() == []


def test_a_job_file_is_opened_and_a_broken_one_refused_in_words(page: Page, tmp_path: Path) -> None:
    page.open("/", ".bench li")
    broken = tmp_path / "broken.job.json"
    broken.write_text(json.dumps(job(parts=[part(weight="heavy")])))
    page.one("input[type=file]").send_keys(str(broken))
    page.shows(".bench > .trouble", "broken.job.json: parts[0].weight: read 'heavy'")
    good = tmp_path / "good.job.json"
    good.write_text(json.dumps(job(title="From a file")))
    page.one("input[type=file]").send_keys(str(good))
    page.until(lambda: page.one("#title").get_attribute("value") == "From a file")


def test_settings_are_saved_and_a_fault_in_them_is_told(page: Page) -> None:
    page.open("/settings", "#shop-gap")
    page.fill("shop-gap", "wide")
    page.button("Save the settings").click()
    page.shows(".end", "gap: read 'wide'")
    page.fill("shop-gap", "1 1/2 in")
    page.button("Save the settings").click()
    page.shows(".end", "Saved")
    assert page.api("/api/shop")["shop"]["gap"] == "1 1/2 in"


def test_everything_comes_from_the_shop_itself(page: Page) -> None:
    first_job(page, "box", ".cut")
    names = page.driver.execute_script("return performance.getEntriesByType('resource').map((entry) => entry.name)")
    assert {urlsplit(name).netloc for name in names} == {urlsplit(page.url).netloc}
    assert any(name.endswith(".woff2") for name in names)


def test_the_theme_that_was_chosen_stays(page: Page) -> None:
    page.open("/", ".bench li")
    ground = "return getComputedStyle(document.body).backgroundColor"
    light = page.driver.execute_script(ground)
    page.one("button[aria-label='Use the dark theme']").click()
    page.until(lambda: page.driver.execute_script(ground) != light)
    dark = page.driver.execute_script(ground)
    page.open("/settings", "#shop-gap")
    assert page.driver.execute_script(ground) == dark


def test_a_kind_is_found_in_a_long_list_by_a_part_of_its_name(page: Page) -> None:
    page.open("/", ".bench li")
    page.one("#start-kind").click()
    page.until(lambda: len(page.all("[role=option]")) > 20)
    page.press("no such thing")
    page.until(lambda: not page.all("[role=option]"))
    page.press(Keys.CONTROL, "a")
    page.press("loom tab")
    page.until(lambda: [one.text for one in page.all("[role=option]")] == ["Table loom"])
    page.press(Keys.ARROW_DOWN, Keys.ENTER)
    page.shows("h1", "Table loom")
    page.until(lambda: page.api("/api/jobs")["jobs"][0]["title"] == "Table loom")


def test_a_change_of_room_takes_the_focus_and_is_said(page: Page) -> None:
    page.open("/", ".bench li")
    page.driver.find_element("link text", "Tariffs").send_keys(Keys.ENTER)
    page.one(".carriers")
    page.until(lambda: page.focus == "work")
    page.shows("[aria-live=polite]", "Tariffs")
    first_job(page)
    page.one("#title").send_keys(Keys.TAB)
    page.until(lambda: page.focus == "part-0-name")


def test_every_field_that_cannot_be_read_is_listed_and_one_key_goes_to_the_next(page: Page) -> None:
    first_job(page)
    page.fill("part-0-length", "ten or so")
    page.fill("part-0-weight", "heavy")
    page.press(Keys.ESCAPE)
    page.shows(".faults", "2 fields cannot be read")
    page.press("e")
    page.until(lambda: page.focus == "part-0-length")
    page.press(Keys.ESCAPE, "e")
    page.until(lambda: page.focus == "part-0-weight")
    page.open(page.driver.current_url.removeprefix(page.url).replace("measure", "price"), ".faults")
    page.button("length of concertina in its case").click()
    page.until(lambda: page.focus == "part-0-length")


def test_what_differs_from_another_window_is_told(page: Page) -> None:
    with page.told_nothing():
        key = first_job(page)
        stored = page.api(f"/api/jobs/{key}")
        changed = {**stored["job"], "value": "910.00"}
        body = {"revision": stored["revision"], "job": changed, "change": "other"}
        assert httpx.put(f"{page.url}/api/jobs/{key}", json=body).status_code == 200
        page.fill("part-0-weight", "5 lb")
        page.fill("value", "700.00")
        page.shows(".state .words", "Changed in another window: value")
    page.button("What differs").click()
    page.shows("[role=dialog] tbody", "910.00")
    page.shows("[role=dialog] tbody", "5 lb")
    # What is typed bare has its unit once it is saved: that is no difference.
    assert [row.text.split()[0] for row in page.all("[role=dialog] tbody tr")] == ["value", "parts"]


def test_a_used_box_that_is_chosen_leaves_what_is_cut_in_its_board(page: Page) -> None:
    key = first_job(page, "box", ".drawing svg")
    board = page.api(f"/api/jobs/{key}")["job"].get("board")
    for way in ("shelf", "stash"):
        page.driver.execute_script(f"document.querySelector(\"input[name=way][value='{way}']\").click()")
        page.button("Choose this box").click()
        page.button("Chosen")
        page.saved()
        assert page.api(f"/api/jobs/{key}")["job"]["chosen"]["box"]["way"] == way
        assert page.api(f"/api/jobs/{key}")["job"].get("board") == board


def test_a_job_that_is_found_opens_where_its_work_goes_on(page: Page) -> None:
    key = httpx.post(f"{page.url}/api/jobs", json=job(title="Nyckel for Ostwick", extras=[])).json()["id"]
    page.open("/", ".bench li")
    page.one("#bench-line").send_keys("nyckel")
    page.shows("#line-answer", "Nyckel for Ostwick")
    page.one("#bench-line").send_keys(Keys.ENTER)
    page.until(lambda: page.driver.current_url.startswith(f"{page.url}/jobs/{key}/"))
    row = next(one for one in httpx.get(f"{page.url}/api/jobs").json()["jobs"] if one["id"] == key)
    goes_on = next(knot["name"] for knot in row["knots"] if knot["state"] != "tied")
    page.until(lambda: page.driver.current_url == f"{page.url}/jobs/{key}/{goes_on}")


def test_a_name_that_is_typed_is_kept_by_the_job_of_a_kind(page: Page) -> None:
    page.open("/", ".bench li")
    page.one("#bench-line").send_keys("saddle")
    page.shows("#line-answer", "Start: ")
    kind = next(one for one in page.all("#line-answer [role=option]") if one.text.startswith("Start: "))
    called = kind.text.splitlines()[0].removeprefix("Start: ")
    assert "saddle" in called.lower()
    kind.click()
    page.until(lambda: page.one("#title").get_attribute("value") == called)

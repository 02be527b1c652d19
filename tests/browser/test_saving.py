"""Nothing typed is lost: archived jobs, two windows, the shop away, an earlier version."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import date, timedelta
from pathlib import Path

import httpx
import pytest
from selenium.webdriver.common.keys import Keys

from tests.browser.driver import Page, first_job
from tests.made_up import job
from tests.served import Served


def test_an_archived_job_comes_back_by_undo_and_from_the_list(page: Page) -> None:
    page.open("/", ".bench li")
    count = len(page.all(".bench li"))
    page.one("button[aria-label='Archive: Concertina for Ostwick']").click()
    page.until(lambda: len(page.all(".bench li")) == count - 1)
    page.button("Undo").click()
    page.until(lambda: len(page.all(".bench li")) == count)
    page.one("button[aria-label='Archive: Concertina for Ostwick']").click()
    page.until(lambda: len(page.all(".bench li")) == count - 1)
    page.button("Archived jobs").click()
    page.one("button[aria-label='Restore: Concertina for Ostwick']").click()
    page.button("Back to the bench").click()
    page.until(lambda: len(page.all(".bench li")) == count)


def test_the_bench_is_in_groups_by_when_jobs_leave(page: Page) -> None:
    today = date.today()
    for title, day in (("now", today), ("next", today + timedelta(days=1)), ("then", today + timedelta(days=9))):
        httpx.post(f"{page.url}/api/jobs", json=job(title=title, day=day.isoformat()))
    httpx.post(f"{page.url}/api/jobs", json=job(title="some day", day=None))
    page.open("/", ".bench li")
    groups = page.driver.execute_script(
        "return [...document.querySelectorAll('.bench .group')].map((head) =>"
        " [head.textContent.trim(), head.nextElementSibling.querySelectorAll('li').length])"
    )
    assert [title for title, _ in groups] == ["Late", "Today", "Tomorrow", "No ship date", "Later"]
    assert dict(groups)["Late"] > 5  # the demo's days are long past
    for title, name in (("Today", "now"), ("Tomorrow", "next"), ("Later", "then"), ("No ship date", "some day")):
        assert name in page.text(f"ul[aria-label='{title}']")
    assert page.axe() == []


@pytest.mark.parametrize(
    ("choice", "kept"),
    [
        ("Save my version", ["mine"]),
        ("Load the other", ["theirs"]),
        ("Save mine as a copy", ["mine (this window's)", "theirs"]),
    ],
)
def test_changed_in_another_window_either_or_both_are_kept(page: Page, choice: str, kept: list[str]) -> None:
    with open_while_changed_elsewhere(page) as key:
        httpx.put(f"{page.url}/api/jobs/{key}", json={"revision": 1, "job": job(title="theirs")}).raise_for_status()
        page.fill("title", "mine")
        page.button(choice).click()
    page.until(lambda: not page.all(".state .btn"))
    page.saved()
    titles = [row["title"] for row in httpx.get(f"{page.url}/api/jobs").json()["jobs"]]
    assert sorted(title for title in titles if "mine" in title or title in ("both", "theirs")) == kept


def changed_elsewhere(page: Page, key: str, **changes: object) -> None:
    """Another window changes a job that lies open here, which has not heard of it yet."""
    view = page.api(f"/api/jobs/{key}")
    change = {"revision": view["revision"], "job": view["job"] | changes}
    httpx.put(f"{page.url}/api/jobs/{key}", json=change).raise_for_status()


@contextmanager
def open_while_changed_elsewhere(page: Page) -> Iterator[str]:
    """A job that lies open here, and hears of nothing that is changed meanwhile."""
    key = httpx.post(f"{page.url}/api/jobs", json=job(title="both")).json()["id"]
    with page.told_nothing():
        page.open(f"/jobs/{key}/measure", "#part-0-length")
        page.one("aside .total")
        yield key


def test_what_two_windows_changed_in_different_fields_is_brought_together(page: Page) -> None:
    with open_while_changed_elsewhere(page) as key:
        changed_elsewhere(page, key, title="named elsewhere", checklist=["bellows strap"])
        page.fill("part-0-weight", "7 lb")
        page.shows(".toast", "Changed in another window, and taken over here: title")
        page.until(lambda: page.one("#title").get_attribute("value") == "named elsewhere")
        page.saved()
        kept = page.api(f"/api/jobs/{key}")["job"]
        assert (kept["title"], kept["checklist"], kept["parts"][0]["weight"]) == (
            "named elsewhere", ["bellows strap"], "7 lb",
        )  # fmt: skip
        page.button("Undo").click()
        page.until(lambda: page.api(f"/api/jobs/{key}")["job"]["title"] == "both")
        assert page.api(f"/api/jobs/{key}")["job"]["parts"][0]["weight"] == "7 lb"


def test_only_the_field_that_both_changed_is_asked_about_and_saving_mine_keeps_the_rest(page: Page) -> None:
    with open_while_changed_elsewhere(page) as key:
        changed_elsewhere(page, key, title="theirs", checklist=["bellows strap"])
        page.fill("title", "mine")
        page.shows(".state .words", "Changed in another window: title")
        page.button("Save my version").click()
        page.shows(".toast", "Your version is saved over the other: title.")
        page.saved()
        kept = page.api(f"/api/jobs/{key}")["job"]
        assert (kept["title"], kept["checklist"]) == ("mine", ["bellows strap"])
        page.button("Undo").click()
        page.until(lambda: page.api(f"/api/jobs/{key}")["job"]["title"] == "theirs")
        assert page.api(f"/api/jobs/{key}")["job"]["checklist"] == ["bellows strap"]


def test_a_choice_made_while_the_shop_was_away_is_kept_over_a_reload(empty_page: Page, empty_server: Served) -> None:
    page = empty_page
    httpx.post(f"{page.url}/api/jobs", json=job()).raise_for_status()
    key = first_job(page, "box", ".drawing svg")
    choose = page.button("Choose this box")
    empty_server.kill()
    choose.click()
    page.shows(".state .words", "server is not responding")
    empty_server.restart()
    page.driver.refresh()
    page.button("Chosen")
    page.saved()
    assert page.api(f"/api/jobs/{key}")["job"]["chosen"]["box"]["way"] == "slotted"


def test_a_page_closed_while_it_saves_finds_its_own_change_and_speaks_of_no_other_window(page: Page) -> None:
    key, driver = first_job(page), page.driver
    first = driver.current_window_handle
    # The change reaches the shop; its answer never reaches the page.
    held = {"patterns": [{"urlPattern": f"*/api/jobs/{key}", "requestStage": "Response"}]}
    driver.execute_cdp_cmd("Fetch.enable", held)
    try:
        page.fill("title", "closed too soon")
        page.until(lambda: httpx.get(f"{page.url}/api/jobs/{key}").json()["job"]["title"] == "closed too soon")
        driver.switch_to.new_window("tab")
        page.open(f"/jobs/{key}/measure", "#part-0-length")
        page.shows(".state .words", "Saved")
        assert page.all(".state .restored") == []
        assert page.one("#title").get_attribute("value") == "closed too soon"
        driver.close()
    finally:
        driver.switch_to.window(first)
        driver.execute_cdp_cmd("Fetch.disable", {})


def test_an_earlier_version_is_looked_at_restored_and_that_undone(page: Page) -> None:
    key = first_job(page)
    page.fill("part-0-length", "11")
    page.saved()
    page.button("Earlier versions").send_keys(Keys.ENTER)
    page.one("button[aria-label='What differs in version 1']").send_keys(Keys.ENTER)
    page.shows("[role=dialog] table", "parts 1, length")
    assert page.axe() == []
    page.one("button[aria-label='Restore version 1']").send_keys(Keys.ENTER)
    page.shows(".toast", "Version 1 is back")

    def length() -> str:
        text: str = page.api(f"/api/jobs/{key}")["job"]["parts"][0]["shape"]["length"]
        return text

    assert length() == "9 1/2 in"
    page.button("Undo").click()
    page.until(lambda: length() == "11 in")
    page.open("/settings", "form")
    page.fill("shop-town", "Fellmarch")
    page.button("Save the settings").click()
    page.until(lambda: page.api("/api/shop")["shop"]["town"] == "Fellmarch")
    page.button("Earlier versions").click()
    page.all("button[aria-label^='Restore']")[0].click()
    page.until(lambda: page.api("/api/shop")["shop"]["town"] != "Fellmarch")


def test_while_the_shop_is_away_typing_goes_on_and_is_saved_after(empty_page: Page, empty_server: Served) -> None:
    page = empty_page
    httpx.post(f"{page.url}/api/jobs", json=job()).raise_for_status()
    key = first_job(page)
    empty_server.kill()
    page.fill("title", "typed in the dark")
    page.shows(".state .words", "server is not responding")
    # It comes back, and what was typed is saved with no further stroke.
    empty_server.restart()
    page.saved()
    assert page.api(f"/api/jobs/{key}")["job"]["title"] == "typed in the dark"


def test_typed_over_a_job_that_was_changed_elsewhere_meanwhile_is_not_saved_over_it(page: Page) -> None:
    key = first_job(page)
    page.fill("part-0-length", "ten or so")
    page.shows(".state .words", "Not saved")
    kept = page.api(f"/api/jobs/{key}")
    page.open("/", ".bench li")
    change = {"revision": kept["revision"], "job": {**kept["job"], "title": "changed elsewhere"}}
    httpx.put(f"{page.url}/api/jobs/{key}", json=change).raise_for_status()
    page.open(f"/jobs/{key}/measure", "#part-0-length")
    page.until(lambda: page.one("#title").get_attribute("value") == "changed elsewhere")
    assert page.one("#part-0-length").get_attribute("value") == "ten or so"
    page.shows(".state .words", "Not saved")
    # The same field changed by both is asked about.
    with page.told_nothing():
        page.open("/", ".bench li")
        change = {"revision": kept["revision"] + 1, "job": {**kept["job"], "title": "and again"}}
        change["job"]["parts"][0]["shape"]["length"] = "12 in"
        httpx.put(f"{page.url}/api/jobs/{key}", json=change).raise_for_status()
        page.open(f"/jobs/{key}/measure", "#part-0-length")
        page.shows(".state .words", "Changed in another window: parts 1, length")
        page.button("Load the other").click()
        page.until(lambda: page.one("#title").get_attribute("value") == "and again")
    page.saved()
    assert page.one("#part-0-length").get_attribute("value") == "12"


def test_a_sheet_of_what_cannot_be_saved_is_not_printed_and_says_so(page: Page) -> None:
    first_job(page)
    page.fill("value", "a lot")
    page.shows(".state .words", "Not saved")
    page.press(Keys.ESCAPE, "b")
    page.one(".cut")
    windows = len(page.driver.window_handles)
    page.until(lambda: page.button("Print").click() or True)
    page.shows(".toast", "this job cannot be saved yet")
    assert len(page.driver.window_handles) == windows


def test_an_answer_that_is_lost_makes_no_other_window_of_the_page_itself(page: Page) -> None:
    """The shop has the change, the page never hears of it and sends it again."""
    lost = """
        const ask = window.fetch;
        let lose = true;
        window.fetch = async (...all) => {
          const answer = await ask(...all);
          if (lose && (all[0].method ?? all[1]?.method) === 'PUT') {
            lose = false;
            window.lost = true;
            throw new TypeError('the connection broke');
          }
          return answer;
        };
    """
    script = page.driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": lost})
    try:
        key = first_job(page)
        page.fill("title", "heard of late")
        page.until(lambda: page.driver.execute_script("return window.lost === true"))
        page.fill("title", "heard of late, and more")
        page.saved()
        page.until(lambda: page.api(f"/api/jobs/{key}")["job"]["title"] == "heard of late, and more")
        page.saved()
        assert page.all(".state .restored") == []
    finally:
        page.driver.execute_cdp_cmd("Page.removeScriptToEvaluateOnNewDocument", script)


def test_a_shop_is_exported_imported_looked_at_and_put_back(page: Page, tmp_path: Path) -> None:
    archive = tmp_path / "shop.zip"
    archive.write_bytes(httpx.get(f"{page.url}/api/keeping/archive").content)
    httpx.post(f"{page.url}/api/jobs", json={"title": "Begun since"}).raise_for_status()
    page.open("/settings", "#shop-gap")
    page.driver.find_element("id", "shop-archive").send_keys(str(archive))
    page.shows("[aria-label=Copies]", "jobs that are not in it and would be gone: Begun since")
    assert page.axe() == []
    page.until(lambda: [one for one in page.all("button") if one.text.startswith("Restore")])[0].send_keys(Keys.ENTER)
    page.shows(".toast", "is the shop now")
    titles = lambda: {row["title"] for row in page.api("/api/jobs")["jobs"]}  # noqa: E731
    assert "Begun since" not in titles()
    page.button("Undo").click()
    page.until(lambda: "Begun since" in titles())

"""What went wrong stands on the screen with a way on: a label that is not known, a job that cannot be read."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from typing import Any

import httpx
import pytest
from selenium.webdriver.common.keys import Keys

from tests.browser.driver import Page
from tests.served import AppHere
from tests.simulated_carrier import BRIEF, fault, served_carrier, wired


@pytest.fixture
def carrier(server: AppHere) -> Iterator[str]:
    """The simulated carrier, wired to the shop: its address."""
    with served_carrier() as served, httpx.Client(base_url=server.url) as client:
        wired(client, served.url).raise_for_status()
        server.app.state.purchases.patience = BRIEF
        yield served.url


def job_called(server: AppHere, title: str) -> Any:
    return next(row for row in httpx.get(f"{server.url}/api/jobs").json()["jobs"] if row["title"] == title)


def test_a_label_that_is_not_known_blocks_another_until_the_carrier_says(
    page: Page, server: AppHere, carrier: str
) -> None:
    loom = job_called(server, "Table loom, folded")["id"]
    page.open(f"/jobs/{loom}/price", "section[aria-label='Live quotes']")
    page.button("Get live quote").send_keys(Keys.ENTER)
    page.one("article[aria-label*='live quote'] button")
    fault(carrier, "slow")
    page.all("article[aria-label*='live quote'] button")[0].send_keys(Keys.ENTER)
    page.shows(".label", "Label: unknown, asking")
    page.shows(".label", "does not answer in time")
    assert page.all("article[aria-label*='live quote'] button") == []
    assert page.axe() == []
    # It is known after a reload too.
    page.open(f"/jobs/{loom}/price", ".label.pending")
    fault(carrier, "")
    page.button("Ask now").send_keys(Keys.ENTER)
    page.shows(".label", "Label bought: T")
    page.button("Track it").send_keys(Keys.ENTER)
    page.shows(".label", "label sold; waiting for the parcel")
    page.button("Void the label").send_keys(Keys.ENTER)
    page.until(lambda: page.all(".label") == [])


def test_a_job_that_cannot_be_read_is_shown_and_its_text_can_be_saved(page: Page, server: AppHere) -> None:
    row = job_called(server, "Drive wheel for a treadle")
    connection = sqlite3.connect(server.app.state.context.path)
    connection.execute("UPDATE job SET content = '{\"parts\": 5}' WHERE id = ?", (row["id"],))
    connection.commit()
    connection.close()
    page.open("/", ".unreadable")
    page.shows(".unreadable", "Drive wheel for a treadle")
    link = page.button("Save its text").get_attribute("href")
    assert link == f"{server.url}/api/jobs/{row['id']}/text"
    assert len(page.all(".bench li")) > 4
    assert page.axe() == []
    page.one("button[aria-label='Archive: Drive wheel for a treadle']").send_keys(Keys.ENTER)
    page.until(lambda: page.all(".unreadable") == [])


def test_what_is_cut_stays_cut_after_a_reload_and_a_spoilt_blank_is_cut_again(page: Page) -> None:
    page.open("/cutting", ".boards article")
    page.button("Mark as cut").send_keys(Keys.ENTER)
    page.shows(".jobs", "Cut already")
    page.open("/cutting", ".jobs .done")
    assert page.all(".boards article") == []
    page.one("button[aria-label='Cut again: Table loom, folded']").send_keys(Keys.ENTER)
    page.shows(".boards", "Table loom, folded")
    page.shows(".says", "1 of 1 job")

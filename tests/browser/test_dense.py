"""A shop as full as one gets, at every width: nothing runs off the side, is clipped, or lies over other words."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date
from pathlib import Path

import pytest
from benchmarks.dense_shop import MANY_PARTS, WRONG, fill
from selenium import webdriver

from fardo.api.app import open_shop
from tests.browser.conftest import _page
from tests.browser.driver import Page, resize
from tests.browser.walk import does_not_hold
from tests.served import CREWS, AppHere

WIDTHS = (390, 1024, 1280, 1920)
VIEWS = {
    "bench": ("/", ".bench li"),
    "cutting": ("/cutting", ".job"),
    "tariffs": ("/tariffs", ".carriers"),
    "kinds": ("/kinds", "#kind-called"),
    "settings": ("/settings", "#shop-gap"),
    "measure": ("MANY/measure", ".stated"),
    "protect": ("MANY/protect", ".grown b"),
    "arrange": ("MANY/arrange", ".packed"),
    "box": ("MANY/box", ".way"),
    "price": ("MANY/price", "tr.plan"),
    "faults": ("WRONG/measure", ".faults"),
}


@pytest.fixture(scope="module")
def filled(tmp_path_factory: pytest.TempPathFactory) -> tuple[Path, dict[str, str]]:
    path = tmp_path_factory.mktemp("dense") / "dense.db"
    return path, fill(path, date(2026, 3, 2))


@pytest.fixture
def dense(standing: AppHere, browser: webdriver.Chrome, filled: tuple[Path, dict[str, str]]) -> Iterator[Page]:
    open_shop(standing.app, filled[0], CREWS)
    browser.get(f"{standing.url}/api/alive")
    browser.execute_script("localStorage.clear()")
    standing.app.state.shut = False
    yield from _page(browser, standing)
    standing.app.state.shut = True
    standing.app.state.context.database.close()


def test_every_view_holds_at_every_width(dense: Page, filled: tuple[Path, dict[str, str]]) -> None:
    jobs = filled[1]
    found = {}
    for name, (path, ready) in VIEWS.items():
        resize(dense.driver, 1280, 800)
        for short, title in (("MANY", MANY_PARTS), ("WRONG", WRONG)):
            path = path.replace(short, f"/jobs/{jobs[title]}")
        dense.open(path, ready)
        if name == "price":
            dense.driver.execute_script("arguments[0].click()", dense.one("tr.plan button.open"))
            dense.one("tr.lines .top")
        for width in WIDTHS:
            resize(dense.driver, width, 800)
            if faults := does_not_hold(dense):
                found[f"{name} at {width}"] = faults
    assert found == {}


def test_what_does_not_hold_is_found(dense: Page) -> None:
    """The check itself: a line that runs off the side, a measure too long for its field, words over words."""
    dense.open("/", ".bench li")
    assert does_not_hold(dense) == []
    dense.driver.execute_script(
        "const put = (html) => document.querySelector('main').insertAdjacentHTML('afterbegin', html);"
        "put('<p style=\"white-space: nowrap; width: 3000px\">a line that runs off</p>');"
        'put(\'<input class="figure" id="narrow" style="width: 40px" value="123 15/16 in">\');'
        'put(\'<div style="position: relative; height: 30px"><span style="position: absolute">one over</span>'
        '<span style="position: absolute; left: 8px">the other</span></div>\');'
    )
    says = " ".join(does_not_hold(dense))
    assert "runs off: p" in says
    assert "the measure narrow" in says
    assert 'over each other: "one over" and "the other"' in says

"""The main job, from an empty bench to a printed cut sheet, and found again after a restart."""

from __future__ import annotations

import io
import re

import ezdxf
import httpx
from pypdf import PdfReader
from selenium.webdriver.common.keys import Keys

from tests.browser.driver import Page
from tests.served import Served


def test_from_an_empty_bench_to_a_printed_cut_sheet(empty_page: Page, empty_server: Served) -> None:
    page = empty_page
    page.open("/", ".empty")
    page.shows(".empty", "The bench is clear")
    page.button("Start a job").click()

    # Measured by keyboard in measuring order; the docket follows.
    page.one("#title").send_keys("Psaltery for Ostwick", Keys.TAB)
    page.fill("part-0-name", "psaltery in its bag")
    page.press(Keys.TAB, Keys.TAB, Keys.TAB)
    page.press("10 1/2", Keys.TAB, "8 1/2", Keys.TAB, "1 1/2", Keys.TAB, "2 lb 3 oz")
    # The shop's habit is on the list already; here the slip is no larger than a card.
    assert page.one("#extra-0-name").get_attribute("value") == "packing slip and note"
    page.fill("extra-0-size", "6 x 4 x 1/8")
    page.fill("to", "73120")
    page.saved()
    page.one(".twine a[href$='/protect']").click()
    page.fill("gap", "0")
    # The slip is folded or lies on top; it never sizes the box.
    page.one(".twine a[href$='/measure']").click()
    page.shows(".stated", "10 1/2 x 8 1/2 x 1 1/2 in")
    page.shows("aside .total", "Total cost")
    page.saved()

    # The box: a tray by the rule of thumb on B board.
    page.one(".twine a[href$='/box']").click()
    page.one("input[name=way][value=tray]").find_element("xpath", "..").click()
    page.choose("board", "B ")
    page.one("input[name=school][value=thumb]").click()
    page.shows(".bar .size", "14 x 12 in")
    page.shows(".settle", "Choose this box")
    page.button("Choose this box").click()
    page.button("Chosen")

    # The price: two carriers, cheapest first, each line with its why.
    page.one(".twine a[href$='/price']").click()
    page.until(lambda: len(page.all("tr.plan")) > 2)
    others = page.all("tr.plan").index(page.one("th.other").find_element("xpath", "../following-sibling::tr[1]"))
    sums = [float(element.text) for element in page.all("tr.plan .sum")[:others]]
    assert sums == sorted(sums)
    assert {e.get_attribute("data-plan") for e in page.all("tr.plan")} >= {
        "Wendlefirth Post Parcel, counter",
        "Oddbarrow Ground, account",
    }
    page.one("tr.plan button.open").click()
    page.one("tr.lines .top button").click()
    page.until(lambda: page.all("tr.plan.chosen"))
    page.saved()

    # The cut sheet, printed and as a machine file.
    page.one(".twine a[href$='/box']").click()
    page.one(".drawing svg")
    pdf = httpx.get(page.button("Print").get_attribute("href"))
    assert pdf.headers["content-type"] == "application/pdf"
    words = "".join(sheet.extract_text() for sheet in PdfReader(io.BytesIO(pdf.content)).pages)
    for figure in ("Psaltery for Ostwick", "14", "12", "1 1/2", "1 5/8", "score, inner face", "second score"):
        assert figure in words
    full = PdfReader(io.BytesIO(httpx.get(page.one("a[href*='scale=full']").get_attribute("href")).content))
    assert "full size, row 1 of" in full.pages[0].extract_text()
    drawing = ezdxf.read(io.StringIO(httpx.get(page.button("DXF").get_attribute("href")).text))
    cuts = drawing.modelspace().query('LINE[layer=="CUT"]')
    assert max(line.dxf.end.y for line in cuts) - min(line.dxf.start.y for line in cuts) == 304.8  # 12 in
    assert len(drawing.modelspace().query('LINE[layer=="SECOND_SCORE"]')) == 4
    assert httpx.get(page.button("SVG").get_attribute("href")).text.startswith("<svg")

    # Killed and started again: the job is on the bench, all its knots tied.
    empty_server.restart()
    page.open("/", ".bench li")
    page.shows(".bench li", "Psaltery for Ostwick")
    page.shows(".bench li", "Pack it")
    tied = "measure tied, protect tied, arrange tied, box tied, price tied, pack open, sent open"
    page.until(lambda: page.one(".bench li svg").get_attribute("aria-label") == tied)
    page.one(".bench li a").click()
    page.shows(".fetch", "Fetch")
    page.button("To the job").click()
    page.shows(".bar .size", "14 x 12 in")
    page.one(".twine a[href$='/measure']").click()
    assert page.one("#part-0-length").get_attribute("value") == "10 1/2"
    assert page.one("#part-0-weight").get_attribute("value") == "2 lb 3 oz"


def test_values_follow_typing(page: Page) -> None:
    page.open("/", ".bench li")
    page.one(".bench li a").click()
    page.one(".twine a[href$='/measure']").click()
    page.shows(".stated", "13 1/2 x 14 1/2 x 12 in")
    before = page.text("aside .total")
    page.fill("part-0-height", "12")
    page.shows(".stated", "13 1/2 x 13 1/2 x 17 in")
    page.until(lambda: page.text("aside .total") != before)
    page.fill("part-0-height", "8")
    page.shows("aside .total", before)


def test_a_choice_that_no_longer_fits_is_loose_and_says_why(page: Page) -> None:
    page.open("/", ".bench li")
    page.one(".bench li a").click()
    page.one(".twine a[href$='/box']").click()
    page.button("Choose this box").click()
    page.button("Chosen")
    page.one(".twine a[href$='/measure']").click()
    page.fill("part-0-width", "10 1/4")
    page.shows(".twine a[href$='/box']", "the inside size changed")
    page.one(".twine a[href$='/box']").click()
    page.button("Choose this box").click()
    page.until(lambda: "changed" not in page.text(".twine"))


def test_board_and_school_change_the_sheet_and_the_sum(page: Page) -> None:
    page.open("/", ".bench li")
    page.one(".bench li a").click()
    page.one(".twine a[href$='/box']").click()
    page.one("input[name=way][value=tray]").find_element("xpath", "..").click()
    page.shows(".tabs", "lid")
    exact = page.text(".bar .size")
    page.button("Where they differ").click()
    page.shows(".why-slip", "Rule of thumb")
    page.press(Keys.ESCAPE)
    page.one("input[name=school][value=thumb]").click()
    page.until(lambda: page.text(".bar .size") != exact)
    board = page.text("aside .basis")
    page.choose("board", "BC")
    page.until(lambda: page.text("aside .basis") != board)
    page.one("[role=tab][data-value=lid]").click()
    page.until(lambda: page.one(".drawing:not([hidden]) .second-score"))
    dashes = {
        kind: page.one(f".drawing:not([hidden]) line.{kind}").get_attribute("stroke-dasharray") or ""
        for kind in ("cut", "score", "second-score")
    }
    assert len(set(dashes.values())) == 3


def test_the_price_shows_what_to_trim_on_a_map(page: Page) -> None:
    page.open("/", ".bench li")
    rows = page.api("/api/jobs")["jobs"]
    key = next(row["id"] for row in rows if row["title"] == "Concertina for Ostwick")
    page.open(f"/jobs/{key}/price", "tr.plan")
    page.one("tr.plan button.open").send_keys(Keys.ENTER)
    page.shows(".steps", ": reduce the")
    assert page.one(".steps svg .mark")
    assert page.all(".steps svg .arrow")
    assert page.axe() == []


def test_a_price_at_once_from_the_bench_line(page: Page) -> None:
    page.open("/", ".bench li")
    page.press("/")
    page.until(lambda: page.focus == "bench-line")
    page.press("24x12x8 9lb to 73120")
    page.shows(".answer", "24 x 12 x 8 in, 9 lb, from 10440 to 73120")
    prices = [float(price) for price in re.findall(r"\d+\.\d\d", page.text(".answer ul[aria-label=Prices]"))]
    assert len(prices) > 2
    assert prices == sorted(prices)
    # Enter starts a job with these goods, to that place.
    page.shows("#line-answer", "Start a job with these goods")
    page.press(Keys.ENTER)
    page.until(lambda: page.one("#part-0-length").get_attribute("value") == "24")
    assert page.one("#part-0-weight").get_attribute("value") == "9"
    assert page.one("#to").get_attribute("value") == "73120"
    page.press("/")
    page.until(lambda: page.focus == "bench-line")
    page.press("saddle")
    page.shows("#line-answer", "Stock saddle, stirrups off")
    page.press(Keys.ENTER)
    page.until(lambda: page.one("#title").get_attribute("value") == "Stock saddle, stirrups off")
    page.one("#bench-line").send_keys("harp stand", Keys.ENTER)
    page.until(lambda: page.one("#title").get_attribute("value") == "harp stand")

"""Makes the pictures of the README: each main view on the made-up shop, at 1280 x 800."""

from __future__ import annotations

import sys
import tempfile
from datetime import date
from pathlib import Path

import httpx
from selenium.webdriver.common.keys import Keys

from fardo.demo import open_demo
from tests.browser.driver import Page, start_browser
from tests.served import ServedHere


def take(page: Page, folder: Path, name: str) -> None:
    """Once fonts are in and nothing moves any more."""
    page.driver.execute_async_script(
        "const done = arguments[0];"
        "document.fonts.ready.then(() => Promise.all(document.getAnimations().map((a) => a.finished)))"
        ".then(() => requestAnimationFrame(() => requestAnimationFrame(done)))"
    )
    page.driver.save_screenshot(str(folder / f"{name}.png"))


def take_all(folder: Path) -> None:
    folder.mkdir(parents=True, exist_ok=True)
    driver = start_browser()
    with tempfile.TemporaryDirectory() as shop:
        path = Path(shop) / "demo.db"
        open_demo(path, date.today())
        with ServedHere(path) as server:
            page = Page(driver, server.url)
            page.until(lambda: not httpx.get(f"{server.url}/api/jobs").json()["renewing"])
            jobs = {row["title"]: row["id"] for row in httpx.get(f"{server.url}/api/jobs").json()["jobs"]}
            concertina = f"/jobs/{jobs['Concertina for Ostwick']}"
            wheel = f"/jobs/{jobs['Drive wheel for a treadle']}"
            loom = f"/jobs/{jobs['Table loom, folded']}"
            treadle = f"/jobs/{jobs['Treadle wheel, taken apart']}"

            page.open("/", ".bench li")
            take(page, folder, "bench")
            page.open(f"{treadle}/measure", ".stated")
            page.all(".views button")[0].click()
            page.one("[data-step=wheel]")
            take(page, folder, "take-apart")
            page.all(".views button")[1].click()
            page.one("#part-2-name").click()
            page.until(lambda: len(page.all(".turntable .word")) == 3)
            take(page, folder, "measure")
            page.open(f"{treadle}/protect", ".grown b")
            page.one("#wrap-2").click()
            page.shows(".edit h2", "drive wheel")
            take(page, folder, "protect")
            page.open(f"{treadle}/arrange", ".packed")
            page.until(lambda: int(page.one(".packed").get_attribute("data-shown") or 0) == 8)
            page.button("Arrange").click()
            page.until(lambda: page.one(".bar .says").text == "arranged")
            page.one(".toast .close").click()
            next(one for one in page.all(".order button") if "flyer" in one.text).send_keys(Keys.ENTER)
            page.driver.execute_script("scrollTo(0, 0)")
            take(page, folder, "arrange")
            page.open(f"{treadle}/pack", ".fetch")
            page.button("Start packing").click()
            while "Put in bench" not in page.text(".pack"):
                page.press(Keys.ARROW_RIGHT)
            take(page, folder, "pack")
            page.open(f"{loom}/price", ".plans, table")
            page.until(lambda: [one for one in page.all("button") if one.text == "Choose"])[0].send_keys(Keys.ENTER)
            page.until(lambda: [one for one in page.all("button") if one.text == "Chosen"])
            page.saved()
            page.open(f"{loom}/sent", "#closed-weight")
            planned = page.api(f"/api{loom}/sending")["closed"]["planned_sides"].split(" x ")
            typed = ("24 lb 3 oz", planned[0], planned[1])
            page.one("#closed-weight").send_keys(*(key for one in typed for key in (one, Keys.ENTER)))
            page.one("#closed-height").send_keys("14", Keys.TAB)
            page.shows("[aria-label='Closed parcel']", "than planned")
            take(page, folder, "sent")
            page.open(f"{concertina}/measure", ".stated")
            page.one("[data-why='this sum']").send_keys(Keys.ENTER)
            page.one(".why-slip")
            take(page, folder, "why")
            page.open(f"{wheel}/box", ".way")
            page.one("input[name=way][value=tray]").find_element("xpath", "..").click()
            page.one("[role=tab][data-value=lid]")
            page.one(".drawing:not([hidden]) svg")
            take(page, folder, "box-tray")
            page.dark(True)
            page.open(f"{concertina}/box", ".way")
            page.one("input[name=way][value=slotted]").find_element("xpath", "..").click()
            page.one(".drawing svg")
            take(page, folder, "box-slotted-dark")
            page.dark(False)
            page.open(f"{loom}/box", ".way")
            page.one("input[name=way][value=recut]").find_element("xpath", "..").click()
            page.one(".steps li")
            page.until(lambda: page.all(".cut .drawing svg"))
            take(page, folder, "box-recut")
            page.open(f"{concertina}/box", ".way")
            page.one("input[name=way][value=tray]").find_element("xpath", "..").click()
            page.button("Fold up").click()
            page.until(lambda: page.one(".fold .view").get_attribute("data-panels") == "5")
            take(page, folder, "box-fold")
            page.open("/cutting", ".boards article")
            take(page, folder, "cutting")
            page.open(f"{concertina}/price", "tr.plan")
            take(page, folder, "price")
            for name in ("Wendlefirth Post Parcel, counter", "Oddbarrow Ground, account", "Oddbarrow Express, account"):
                page.driver.execute_script("arguments[0].click()", page.one(f"tr[data-plan='{name}'] button.open"))
                page.driver.execute_script(
                    "arguments[0].click()", page.one(f"article[aria-label='{name}'] .beside input")
                )
            page.shows("[aria-label='Compare plans'] h2", "3 of at most 4")
            page.until(lambda: len(page.all("[aria-label='Compare plans'] thead th")) == 3)
            take(page, folder, "side-by-side")
            page.open("/tariffs", ".carriers")
            next(one for one in page.all(".carrier") if "Oddbarrow" in one.text).click()
            page.one("#try-size").send_keys(Keys.ENTER)
            page.one(".tried p")
            take(page, folder, "tariffs")
            page.button("Change it").click()
            page.one(".tabs")
            page.driver.execute_script(
                "document.querySelector('[aria-label=rows]').parentElement.scrollIntoView({block: 'center'})"
            )
            take(page, folder, "tariff-change")
            page.open("/settings", "#shop-gap")
            take(page, folder, "settings")
            page.open("/kinds", "#kind-called")
            page.button("Table loom").click()
            page.until(lambda: page.one("#kind-called").get_attribute("value") == "Table loom")
            take(page, folder, "kinds")
    driver.quit()


if __name__ == "__main__":
    take_all(Path(sys.argv[1]))

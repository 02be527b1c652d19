"""A headless Chromium, and what tests and pictures do with a page."""

from __future__ import annotations

import json
import shutil
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any, TypeVar

import httpx
from selenium import webdriver
from selenium.common.exceptions import TimeoutException
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

AXE = Path(__file__).resolve().parents[2] / "web/node_modules/axe-core/axe.min.js"
PATIENCE = 60  # seconds before a wait is given up as failed; nothing waits longer than it must

T = TypeVar("T")


def start_browser() -> webdriver.Chrome:
    options = webdriver.ChromeOptions()
    for argument in (
        "--headless=new", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--hide-scrollbars",
        "--disable-background-networking", "--disable-component-update", "--disable-sync", "--disable-dev-shm-usage",
        "--enable-unsafe-swiftshader",
    ):  # fmt: skip
        options.add_argument(argument)
    options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
    driver = webdriver.Chrome(options=options, service=webdriver.ChromeService(shutil.which("chromedriver")))
    resize(driver, 1280, 800)
    emulate(driver)
    return driver


def emulate(driver: webdriver.Chrome, *, dark: bool = False, motion: bool = False) -> None:
    """What a system would ask for. Without motion nothing draws by itself, and pictures are always the same."""
    features = [
        {"name": "prefers-color-scheme", "value": "dark" if dark else "light"},
        {"name": "prefers-reduced-motion", "value": "no-preference" if motion else "reduce"},
    ]
    driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": features})


def resize(driver: webdriver.Chrome, width: int, height: int) -> None:
    metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False}
    driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)


class Page:
    """One shop in the browser."""

    def __init__(self, driver: webdriver.Chrome, url: str) -> None:
        self.driver, self.url = driver, url

    def open(self, path: str, ready: str) -> None:
        """Goes to a room and waits until `ready` (a CSS selector) is there."""
        self.driver.get(self.url + path)
        self.one(ready)

    def until(self, condition: Callable[[], T], what: str = "") -> T:
        """Waits until `condition` gives something true; elements that are being replaced count as not yet."""

        def held(_: object) -> T | bool:
            try:
                return condition()
            except Exception:
                return False

        return WebDriverWait(self.driver, PATIENCE, poll_frequency=0.03).until(held, what)

    def one(self, selector: str) -> WebElement:
        return self.until(lambda: self.driver.find_element(By.CSS_SELECTOR, selector), f"{selector} is not there")

    def all(self, selector: str) -> list[WebElement]:
        return self.driver.find_elements(By.CSS_SELECTOR, selector)

    def text(self, selector: str) -> str:
        """The words of an element, fractions as they are typed."""
        script = (
            "const c = document.querySelector(arguments[0]).cloneNode(true);"
            "for (const m of c.querySelectorAll('[data-text]')) m.textContent = m.dataset.text;"
            "return c.textContent.replace(/\\s+/g, ' ').trim()"
        )
        self.one(selector)
        return str(self.driver.execute_script(script, selector))

    def shows(self, selector: str, words: str) -> None:
        """Waits until it does; what it shows instead is told."""
        try:
            self.until(lambda: words in self.text(selector))
        except TimeoutException:
            raise AssertionError(f"{selector} does not say {words!r} but {self.text(selector)!r}") from None

    def button(self, words: str) -> WebElement:
        path = f"//*[self::button or self::a][normalize-space()={json.dumps(words, ensure_ascii=False)}]"
        return self.until(lambda: self.driver.find_element(By.XPATH, path), f"no button {words!r}")

    def fill(self, field: str, words: str) -> None:
        """Puts words into a field in the place of what is there."""
        element = self.one(f"#{field}")
        element.send_keys(Keys.CONTROL, "a")
        element.send_keys(words or Keys.DELETE)

    def choose(self, field: str, starts: str) -> None:
        """Opens a list, by its id or a CSS selector, and picks the option whose words begin so."""
        self.one(field if field[0] in ".[#" else f"#{field}").send_keys(Keys.SPACE)

        def offered() -> WebElement:
            options = self.all("[role=option]")
            return next(one for one in options if one.text.strip(" •").lower().startswith(starts.lower()))

        self.until(offered, f"no option {starts!r}").click()
        self.until(lambda: not self.all("[role=option]"))

    def press(self, *keys: str) -> None:
        """Types on whatever has the focus."""
        self.driver.switch_to.active_element.send_keys(*keys)

    @property
    def focus(self) -> str:
        """The id of what has the focus."""
        return str(self.driver.execute_script("return document.activeElement.id"))

    @property
    def words_in_focus(self) -> str:
        """What stands on what has the focus, read at one go: a row may be drawn anew between two."""
        return str(self.driver.execute_script("return document.activeElement.innerText || ''")).strip()

    def saved(self) -> None:
        self.shows(".state .words", "Saved")

    def api(self, path: str) -> Any:
        """What the shop answers to a reading request, asked from the page."""
        script = "const done = arguments[1]; fetch(arguments[0]).then((r) => r.json()).then(done)"
        return self.driver.execute_async_script(script, path)

    @contextmanager
    def told_nothing(self) -> Iterator[None]:
        """While pages that are opened hear of no change from elsewhere, as on a network that drops."""
        self.driver.execute_cdp_cmd("Network.enable", {})
        self.driver.execute_cdp_cmd("Network.setBlockedURLs", {"urls": ["*/api/devices/stream"]})
        try:
            yield
        finally:
            self.driver.execute_cdp_cmd("Network.setBlockedURLs", {"urls": []})

    def dark(self, on: bool) -> None:
        emulate(self.driver, dark=on)

    def axe(self) -> list[str]:
        """What axe-core finds against WCAG 2.1 AA, a line a finding."""
        self.driver.execute_script(AXE.read_text("utf-8"))
        script = (
            "const done = arguments[0];"
            "const say = (v) => v.id + ': ' + v.nodes.map((n) => n.html + ' ' + n.failureSummary).join(' | ');"
            "axe.run(document, {runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'best-practice']})"
            ".then((r) => done(r.violations.map(say)))"
        )
        return list(self.driver.execute_async_script(script))


def first_job(page: Page, station: str = "measure", ready: str = "#part-0-length") -> str:
    """Opens the first job of the bench; returns its id."""
    key = httpx.get(f"{page.url}/api/jobs").json()["jobs"][0]["id"]
    page.open(f"/jobs/{key}/{station}", ready)
    page.one("aside .total, aside .first")
    return key

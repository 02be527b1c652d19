"""How smoothly a packed box of forty things turns: the time from one frame to the next while it is turned by keys.

Where a machine has no graphics card the browser draws by processor, and the figures are of that.
"""

from __future__ import annotations

import tempfile
from itertools import islice
from pathlib import Path

import httpx
from tests.browser.driver import Page, start_browser
from tests.made_up import job
from tests.served import ServedHere

from benchmarks.kits import KITS
from benchmarks.table import percentile, show

_THINGS = 40
_FRAMES = 120
_TURN = """
const [frames, done] = arguments, box = document.querySelector('.packed'), at = [];
box.focus();
const next = (now) => {
  at.push(now);
  if (at.length > frames) return done(at.slice(1).map((t, n) => t - at[n]));
  box.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowLeft', shiftKey: true, bubbles: true }));
  requestAnimationFrame(next);
};
requestAnimationFrame(next);
"""


def run() -> None:
    parts = list(islice((part for kit in KITS.values() for part in kit if part.get("count", 1) == 1), _THINGS))
    driver = start_browser()
    try:
        with tempfile.TemporaryDirectory() as shop, ServedHere(Path(shop) / "shop.db") as server:
            page = Page(driver, server.url)
            view = httpx.post(f"{server.url}/api/jobs", json=job(title="Forty", parts=parts, extras=[])).json()
            page.open(f"/jobs/{view['id']}/arrange", ".packed")
            page.until(lambda: page.one(".packed").get_attribute("data-shown") == str(_THINGS))
            frames = driver.execute_async_script(_TURN, _FRAMES)
    finally:
        driver.quit()
    row = [f"{value:.1f}" for value in (percentile(frames, 50), percentile(frames, 95), max(frames))]
    show(
        f"{_THINGS} things turned, time between frames in ms (60 a second is 16.7)",
        ("frames", "median", "95 %", "worst", "aim"), [(str(_FRAMES), *row, "under 33")],
    )  # fmt: skip

"""From a typed figure to the new docket on screen, and the server's part of it.

The browser's clock runs from the input event to the frame after the docket's size changed; the server's from the
request's arrival to the answer's last byte, over the same requests sent by themselves.
"""

from __future__ import annotations

import tempfile
import time
from datetime import date
from pathlib import Path
from typing import Any

import httpx
from tests.browser.driver import Page, start_browser
from tests.made_up import box, job, part
from tests.served import Served

from benchmarks.table import show, times_row
from fardo.demo import open_demo

_TYPE = """
const done = arguments[1];
const field = document.getElementById('part-0-height');
const size = () => document.querySelector('aside .size [data-text]').dataset.text;
const times = [];
const one = (n) => {
  if (n === arguments[0]) return done(times);
  const before = size();
  const begun = performance.now();
  const seen = () => {
    if (size() === before) return;
    watch.disconnect();
    requestAnimationFrame(() => {
      times.push((performance.now() - begun) / 1000);
      setTimeout(() => one(n + 1), 120);  // the next stroke, as fast as people type
    });
  };
  const watch = new MutationObserver(seen);
  watch.observe(document.querySelector('aside'), {subtree: true, attributes: true, childList: true});
  field.value = String(8 + (n * 7) % 23) + ' ' + String(1 + n % 15) + '/16';
  field.dispatchEvent(new Event('input', {bubbles: true}));
};
one(0);
"""


_MANY = 60


def run(strokes: int = 80) -> None:
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "demo.db"
        open_demo(path, date(2026, 3, 2))
        with Served(path) as server:
            _at_rest(server.url)
            rows = [times_row("server: figure to answer", _server(server.url, strokes), "95 % within 20 ms")]
            rows += [
                times_row(f"server: a part changed, {name}", _parts(server.url, strokes, content), "95 % within 40 ms")
                for name, content in _kits(server.url).items()
            ]
            rows += [
                times_row(f"screen: figure to new docket ({name})", seconds, "95 % within 60 ms")
                for name, seconds in _screen(server.url, strokes).items()
            ]
            count = _many_services(server.url)
            name = f"server: figure to answer, {count} services"
            rows.append(times_row(name, _server(server.url, strokes), "95 % within 60 ms"))
    show("Typing, in ms", ("what", "strokes", "median", "95 %", "worst", "aim"), rows)


def _at_rest(url: str) -> None:
    """Until what the bench shows is worked out: that is done beside when a shop is opened, and takes the processor."""
    while httpx.get(f"{url}/api/jobs").json()["renewing"]:
        time.sleep(0.05)


def _many_services(url: str) -> int:
    """Copies the shop's tariffs under other names until some sixty services are asked; how many that are."""
    carriers = [row["carrier"] for row in httpx.get(f"{url}/api/tariffs").json()]
    tariffs = [httpx.get(f"{url}/api/tariffs/{carrier}").json()["tariff"] for carrier in carriers]
    count, n = sum(len(tariff["services"]) for tariff in tariffs), 0
    while count < _MANY:
        tariff = tariffs[n % len(tariffs)]
        copied = {**tariff, "carrier": f"{tariff['carrier']} {n // len(tariffs) + 2}"}
        httpx.post(f"{url}/api/tariffs/file", json=copied).raise_for_status()
        count, n = count + len(tariff["services"]), n + 1
    return count


def _server(url: str, strokes: int) -> list[float]:
    seconds = []
    with httpx.Client(base_url=url) as client:
        for n in range(strokes + 5):
            content = job(parts=[part(shape=box(height=f"{8 + n % 23} {1 + n % 15}/16"))], value="640.00")
            begun = time.perf_counter()
            client.post("/api/work-out", json={"job": content, "in_hand": "slotted"}).raise_for_status()
            seconds.append(time.perf_counter() - begun)
    return seconds[5:]


def _kits(url: str) -> dict[str, dict[str, Any]]:
    """Jobs of several parts as they are begun from their kinds, and one of eight kinds of part with their wrap."""
    kits = {}
    for kind in ("spinning-wheel", "riding-saddle", "articulated-model"):
        content = httpx.post(f"{url}/api/jobs/begin", json={"kind": kind}).json()["job"]
        content["ship"] = {"to": "73120"}
        count = sum(one["count"] for one in content["parts"])
        kits[f"{len(content['parts'])} kinds of part, {count} things"] = content
    wrap = [{"material": "tissue"}, {"material": "bubble-small", "layers": 2}]
    shapes: list[dict[str, Any]] = [
        {"kind": "box", "length": "24 in", "width": "9 in", "height": "5 in"},
        {"kind": "box", "length": "24 in", "width": "8 in", "height": "3/4 in"},
        {"kind": "cylinder", "diameter": "2 1/2 in", "length": "26 in"},
        {"kind": "disc", "diameter": "5 in", "thickness": "1/2 in"},
        {"kind": "ring", "outer_diameter": "7 in", "inner_diameter": "5 in", "thickness": "1 in"},
        {"kind": "taper", "diameter_a": "2 in", "diameter_b": "1 in", "length": "18 in"},
        {"kind": "box", "length": "24 in", "width": "4 1/2 in", "height": "1/2 in"},
        {"kind": "ellipsoid", "length": "12 in", "width": "2 in", "height": "1 in"},
    ]
    eight = [part(name=f"part {n}", shape=shape, protect=wrap, gap="1 in") for n, shape in enumerate(shapes)]
    kits["8 kinds of part, 8 things"] = job(parts=eight)
    kits["8 kinds of part, 30 things"] = job(
        parts=[{**one, "count": c} for one, c in zip(eight, (1, 4, 1, 6, 4, 8, 2, 4), strict=True)]
    )
    return kits


def _parts(url: str, strokes: int, content: dict[str, Any]) -> list[float]:
    """The second part's gap and the first one's length change at every stroke, so that nothing is remembered."""
    seconds = []
    with httpx.Client(base_url=url) as client:
        for n in range(strokes + 5):
            length = f"{20 + n % 7} {1 + n % 15}/16 in"
            first = {**content["parts"][0], "shape": {**content["parts"][0]["shape"]}}
            if "length" in first["shape"]:
                first["shape"]["length"] = length
            second = {**content["parts"][1], "gap": f"1 {1 + n % 31}/32 in"}
            body = {"job": {**content, "parts": [first, second, *content["parts"][2:]]}, "in_hand": "slotted"}
            begun = time.perf_counter()
            client.post("/api/work-out", json=body).raise_for_status()
            seconds.append(time.perf_counter() - begun)
    return seconds[5:]


def _screen(url: str, strokes: int) -> dict[str, list[float]]:
    driver = start_browser()
    driver.set_script_timeout(120)
    page = Page(driver, url)
    try:
        jobs = {row["title"]: row["id"] for row in httpx.get(f"{url}/api/jobs").json()["jobs"]}
        key = jobs["Concertina for Ostwick"]
        page.open(f"/jobs/{key}/measure", "aside .size [data-text]")
        driver.execute_async_script(_TYPE, 5)
        return {"measure": driver.execute_async_script(_TYPE, strokes)}
    finally:
        driver.quit()

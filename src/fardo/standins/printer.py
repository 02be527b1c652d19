"""A printer, simulated: it takes PDF over HTTP, and its page shows what came out, page by page.

What it takes: ``POST /print`` with ``Content-Type: application/pdf``; it answers ``{"pages": 2}``, or with status 409
and ``{"detail": "out of paper"}``.
"""

from __future__ import annotations

import json
import threading
import time
from collections import deque
from dataclasses import dataclass
from html import escape
from io import BytesIO
from urllib.parse import parse_qs

from fardo.standins.device_page import Answer

FAULTS = {"": "none", "out of paper": "is out of paper", "jammed": "jams after the first page", "slow": "is slow"}
TITLE = "Label printer, simulated"
_MOST_PAGES = 60  # the oldest are thrown away
_MOST_OF_ONE = 40
_DOTS = 203 / 72  # of a label printer's head, to the point
_SLOW_SECONDS = 3


@dataclass(frozen=True, slots=True)
class PrintedPage:
    """A page that came out.

    Args:
        number: counted from 1 since it was switched on.
        size: width and height in points.
        png: what stands on it.
    """

    number: int
    size: tuple[float, float]
    png: bytes


class Printer:
    """A printer and the pages in its tray."""

    largest = 20_000_000

    def __init__(self) -> None:
        self.pages: deque[PrintedPage] = deque(maxlen=_MOST_PAGES)
        self._count, self._fault = 0, ""
        self._guard = threading.Lock()

    def got(self, path: str) -> Answer:
        number = path.removeprefix("/pages/").removesuffix(".png")
        if path.startswith("/pages/") and number.isascii() and number.isdigit():
            with self._guard:
                found = next((page for page in self.pages if page.number == int(number[:9])), None)
            return Answer(found.png, "image/png") if found else Answer(b"No such page.", "text/plain", 404)
        return Answer(self._page().encode())

    def sent(self, path: str, media_type: str, content: bytes) -> Answer:
        if path == "/print":
            return self._print(media_type, content)
        form = {name: values[0] for name, values in parse_qs(content.decode("utf-8", "replace")).items()}
        with self._guard:
            if form.get("deed") == "empty":
                self.pages.clear()
            else:
                self._fault = form.get("fault", "") if form.get("fault", "") in FAULTS else ""
        return Answer(self._page().encode())

    def _print(self, media_type: str, content: bytes) -> Answer:
        with self._guard:
            fault = self._fault
        if fault == "slow":
            time.sleep(_SLOW_SECONDS)
        if fault == "out of paper":
            return _refused(409, "out of paper")
        pages = _pages_of(content) if media_type == "application/pdf" else None
        if pages is None:
            return _refused(415, "it prints PDF, of at most 40 pages")
        if fault == "jammed":
            pages = pages[:1]
        with self._guard:
            for size, png in pages:
                self._count += 1
                self.pages.append(PrintedPage(self._count, size, png))
        if fault == "jammed":
            return _refused(409, "jammed after the first page")
        return Answer(json.dumps({"pages": len(pages)}).encode(), "application/json")

    def _page(self) -> str:
        with self._guard:
            pages, fault = list(self.pages)[::-1], self._fault
        options = "".join(
            f'<option value="{code}"{" selected" if code == fault else ""}>{escape(words)}</option>'
            for code, words in FAULTS.items()
        )
        came = "".join(
            f'<figure><img src="/pages/{page.number}.png" alt="Page {page.number}" style="width:{page.size[0]:g}pt">'
            f"<figcaption>Page {page.number}, {page.size[0] / 72:g} x {page.size[1] / 72:g} in</figcaption></figure>"
            for page in pages
        )
        return f"""<!doctype html><html lang="en"><meta charset="utf-8"><title>{TITLE}</title>
<style>body{{font:18px/1.5 sans-serif;margin:2em auto;max-width:46em}}label{{display:block;margin:.8em 0}}
select,button{{font:inherit;padding:.3em .5em}}
img{{max-width:100%;border:1px solid #888}}figure{{margin:1.5em 0}}</style>
<h1>{TITLE}</h1><form method="post"><label>Fault <select name="fault">{options}</select></label>
<p><button>Set</button> <button name="deed" value="empty">Empty the tray</button></p></form>
<h2>In the tray, the newest first</h2>{came or "<p>Nothing was printed yet.</p>"}</html>"""


def _refused(status: int, detail: str) -> Answer:
    return Answer(json.dumps({"detail": detail}).encode(), "application/json", status)


def _pages_of(content: bytes) -> list[tuple[tuple[float, float], bytes]] | None:
    """Size and picture of each page; None for what is no PDF, or has too many."""
    import pypdfium2 as pdfium

    try:
        document = pdfium.PdfDocument(content)
    except pdfium.PdfiumError:
        return None
    try:
        if not 1 <= len(document) <= _MOST_OF_ONE:
            return None
        found = []
        for page in document:
            out = BytesIO()
            page.render(scale=_DOTS).to_pil().save(out, "PNG")
            found.append((page.get_size(), out.getvalue()))
        return found
    finally:
        document.close()

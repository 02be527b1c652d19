"""Pages of print that belong together: each names its job, its box and its day, and how many there are."""

from __future__ import annotations

import io
from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from reportlab.lib.pagesizes import A4, LETTER
from reportlab.pdfgen.canvas import Canvas

from fardo.files.lettering import lines_of, set_words

mm = 72 / 25.4  # in the points of a PDF
MARGIN = 12 * mm
Paper = Literal["letter", "a4"]
PAPERS: dict[Paper, tuple[float, float]] = {"letter": LETTER, "a4": A4}

_RIGHT = 42 * mm  # kept for the day and the number of the page


@dataclass(frozen=True, slots=True)
class Heading:
    """What stands on every page.

    Args:
        title: of the job.
        lines: of figures that say what box this is.
        box: which it is, in words.
        day: it was printed.
    """

    title: str
    lines: tuple[str, ...] = ()
    box: str = ""
    day: str = ""


def open_page(title: str, size: tuple[float, float]) -> tuple[io.BytesIO, Canvas]:
    """A PDF to draw on, and where it comes out."""
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pagesize=size, invariant=1)
    canvas.setTitle(title)
    canvas.setCreator("Fardo")
    return buffer, canvas


class Pages:
    """Blocks set one under the other; a page ends where the next block has no room.

    Args:
        of: how many pages there are, once that is known. says: beside the number of the first page.
    """

    def __init__(self, canvas: Canvas, heading: Heading, size: tuple[float, float], of: int) -> None:
        self.canvas, self.heading, self.of = canvas, heading, of
        self.width, self.height = size
        self.number = 0
        self.y = 0.0
        self.begin()

    @property
    def inner(self) -> float:
        return self.width - 2 * MARGIN

    @property
    def room(self) -> float:
        """Left above the foot of the page."""
        return self.y - MARGIN

    def begin(self) -> None:
        """A new page with its heading."""
        if self.number:
            self.canvas.showPage()
        self.number += 1
        self.y = head(self.canvas, self.heading, self.width, self.height, f"page {self.number} of {self.of}")

    def need(self, height: float) -> None:
        """A new page unless there is so much room."""
        if self.room < height:
            self.begin()

    def end(self) -> None:
        self.canvas.showPage()


def print_pages(heading: Heading, size: tuple[float, float], fill: Callable[[Pages], None]) -> bytes:
    """A PDF of pages; set twice, as the first says how many there are."""
    pages = 0
    for _ in range(2):
        buffer, canvas = open_page(heading.title, size)
        flow = Pages(canvas, heading, size, pages)
        fill(flow)
        flow.end()
        pages = flow.number
        canvas.save()
    return buffer.getvalue()


def head(canvas: Canvas, heading: Heading, width: float, height: float, page: str) -> float:
    """Sets the heading, its words whole; gives back where what follows may begin."""
    y = height - MARGIN - 4 * mm
    set_words(canvas, width - MARGIN, y, heading.day, 9, align="right")
    set_words(canvas, width - MARGIN, y - 4.4 * mm, page, 9, align="right")
    for title in lines_of(heading.title, width - 2 * MARGIN - _RIGHT, 14, bold=True):
        set_words(canvas, MARGIN, y, title, 14, bold=True)
        y -= 6 * mm
    if heading.box:
        for says in lines_of(heading.box, width - 2 * MARGIN - _RIGHT, 11, bold=True):
            set_words(canvas, MARGIN, y, says, 11, bold=True)
            y -= 5 * mm
    for line in heading.lines:
        for says in lines_of(line, width - 2 * MARGIN, 10):
            set_words(canvas, MARGIN, y, says, 10)
            y -= 4.8 * mm
    y = min(y, height - MARGIN - 12 * mm)  # below the page's number
    canvas.setLineWidth(0.4)
    canvas.line(MARGIN, y + 1.6 * mm, width - MARGIN, y + 1.6 * mm)
    return y - 3 * mm


def tick_box(canvas: Canvas, x: float, y: float) -> None:
    """To be ticked with a pen, its lower left corner there."""
    canvas.setLineWidth(0.7)
    canvas.setDash([], 0)
    canvas.rect(x, y, 3.4 * mm, 3.4 * mm)

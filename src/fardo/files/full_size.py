"""Blanks on paper at real size, over as many pages as it takes."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from reportlab.pdfgen.canvas import Canvas

from fardo.core.cut.drawing import Blank
from fardo.core.quantity import Length, Units
from fardo.core.refusal import NoAnswer
from fardo.files.drawn import draw
from fardo.files.lettering import lines_of, set_words, width_of
from fardo.files.page import MARGIN, PAPERS, Heading, Paper, mm, open_page
from fardo.files.pdf import paint

MOST_PAGES = 300
_OVERLAP = 10 * mm
_EDGE = 6 * mm  # bare paper around a blank, so that its outermost cuts are on the page


@dataclass(frozen=True, slots=True)
class _Laid:
    """A blank on its pages.

    Args:
        columns, rows: of pages, laid together.
    """

    blank: Blank
    columns: int
    rows: int


def pages_at_full_size(blanks: Iterable[Blank], paper: Paper) -> int:
    """How many pages it takes."""
    return sum(one.columns * one.rows for one in _lay(blanks, paper))


def _lay(blanks: Iterable[Blank], paper: Paper) -> list[_Laid]:
    step_x, step_y = _steps(paper)

    def pages_for(size: Length, step: float) -> int:
        return max(1, math.ceil((size.mm * mm + 2 * _EDGE - _OVERLAP) / step))

    return [_Laid(blank, pages_for(blank.size[0], step_x), pages_for(blank.size[1], step_y)) for blank in blanks]


def _steps(paper: Paper) -> tuple[float, float]:
    """From one page to the next, points."""
    width, height = PAPERS[paper]
    return width - 2 * MARGIN - _OVERLAP, height - 2 * MARGIN - _OVERLAP


def full_size(heading: Heading, blanks: Sequence[Blank], units: Units, paper: Paper) -> bytes:
    """A PDF at 1:1 over as many pages as it takes, with register marks to lay them together.

    Neighbouring pages show the same marks: lay cross on cross. A ruler on each page must measure what it says, or the
    printer scaled it. Raises: NoAnswer where it would take more pages than `MOST_PAGES`.
    """
    width, height = PAPERS[paper]
    step_x, step_y = _steps(paper)
    pages = pages_at_full_size(blanks, paper)
    if pages > MOST_PAGES:
        raise NoAnswer(
            f"Full size takes {pages} pages; at most {MOST_PAGES} are printed. Use the scaled sheet or the DXF."
        )
    buffer, canvas = open_page(f"{heading.title}, full size", PAPERS[paper])
    number = 0
    for laid in _lay(blanks, paper):
        blank, columns, rows = laid.blank, laid.columns, laid.rows
        drawn = draw(replace(blank, dimensions=()), units, 6.0)  # at full size the drawing is its own measure
        for row in range(rows):
            for column in range(columns):
                canvas.saveState()
                frame = canvas.beginPath()
                frame.rect(MARGIN, MARGIN, width - 2 * MARGIN, height - 2 * MARGIN)
                canvas.clipPath(frame, stroke=0, fill=0)
                paint(canvas, drawn, MARGIN + _EDGE - column * step_x, MARGIN + _EDGE - row * step_y, mm)
                canvas.restoreState()
                _register_marks(canvas, step_x, step_y, column, row, columns, rows)
                _ruler(canvas, units)
                number += 1
                where = (
                    f"{blank.name} at full size, row {row + 1} of {rows} from below, column {column + 1} of {columns}. "
                    f"Print at 100 %. Page {number} of {pages}. {heading.day}"
                )
                room = width - 2 * MARGIN - width_of(where, 8.5) - 3 * mm
                title = lines_of(f"{heading.title}: ", room, 8.5)[0]
                wide = set_words(canvas, MARGIN, height - MARGIN + 3 * mm, title, 8.5)
                set_words(canvas, MARGIN + wide + 2 * mm, height - MARGIN + 3 * mm, where, 8.5)
                canvas.showPage()
    canvas.save()
    return buffer.getvalue()


def _register_marks(
    canvas: Canvas, step_x: float, step_y: float, column: int, row: int, columns: int, rows: int
) -> None:
    """A cross in the middle of every overlap corner; the same point of the blank on each page that shows it."""
    canvas.setLineWidth(0.4)
    canvas.setDash([], 0)
    xs = ([MARGIN + _OVERLAP / 2] if column else []) + (
        [MARGIN + step_x + _OVERLAP / 2] if column < columns - 1 else []
    )
    ys = ([MARGIN + _OVERLAP / 2] if row else []) + ([MARGIN + step_y + _OVERLAP / 2] if row < rows - 1 else [])
    # A single row or column of pages still needs two marks on each join.
    xs_marks = xs or [MARGIN + step_x * 0.25, MARGIN + step_x * 0.75]
    ys_marks = ys or [MARGIN + step_y * 0.25, MARGIN + step_y * 0.75]
    if not xs and not ys:
        return
    for x in xs_marks:
        for y in ys_marks:
            canvas.line(x - 4 * mm, y, x + 4 * mm, y)
            canvas.line(x, y - 4 * mm, x, y + 4 * mm)
            canvas.circle(x, y, 2 * mm)


def _ruler(canvas: Canvas, units: Units) -> None:
    length, says = (4 * 25.4 * mm, "4 in") if units == "in" else (100 * mm, "10 cm")
    x, y = MARGIN, MARGIN - 5 * mm
    canvas.setLineWidth(0.5)
    canvas.line(x, y, x + length, y)
    for end in (x, x + length):
        canvas.line(end, y - 1.5 * mm, end, y + 1.5 * mm)
    set_words(canvas, x + length + 3 * mm, y - 1 * mm, f"must measure {says}", 8)

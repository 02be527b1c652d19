"""The cut sheet on paper: each blank to scale with its fence settings, or at real size over several pages."""

from __future__ import annotations

import io
import math
import textwrap
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from reportlab.lib.pagesizes import A4, LETTER
from reportlab.pdfgen.canvas import Canvas

from fardo.core.cut.drawing import Blank
from fardo.core.cut.fence import FenceSetting
from fardo.core.quantity import Length, Units
from fardo.core.refusal import NoAnswer
from fardo.files.drawn import DASHES, MEANINGS, WIDTHS, Drawn, StrokeKind, draw, exact_text

mm = 72 / 25.4  # in the points of a PDF

Paper = Literal["letter", "a4"]
PAPERS: dict[Paper, tuple[float, float]] = {"letter": LETTER, "a4": A4}
_MARGIN = 12 * mm
_OVERLAP = 10 * mm
_EDGE = 6 * mm  # bare paper around a blank at full size, so that its outermost cuts are on the page
_MOST_PAGES = 300
_MOST_ROWS_BELOW = 16
_ROWS_A_PAGE = 30
_SCALES = (1, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10, 12, 15, 20, 25, 30, 40, 50, 75, 100, 150, 200, 300)
_WORDS_ON_PAPER = 3.1  # mm high, read at arm's length


@dataclass(frozen=True, slots=True)
class Heading:
    """What stands on every page: the job, and lines of figures that say what box this is."""

    title: str
    lines: tuple[str, ...]


def cut_sheet(
    heading: Heading,
    blanks: Sequence[Blank],
    fence: Sequence[FenceSetting],
    cautions: Sequence[str],
    units: Units,
    paper: Paper,
    steps: Sequence[str] = (),
) -> bytes:
    """A PDF with a page a blank, drawn to the largest usual scale that fits, the fence settings under each; steps in
    words on a page of their own."""
    buffer, canvas = open_page(heading.title, PAPERS[paper])
    width, height = PAPERS[paper]
    # A table that would leave the drawing too little room stands on pages of its own.
    apart = len(fence) > _MOST_ROWS_BELOW
    for page, blank in enumerate(blanks, 1):
        top = _head(canvas, heading, height, _page_says(blank, page, len(blanks)))
        caution_lines = sum(math.ceil(len(caution) / 110) for caution in cautions)
        rows = 0 if apart else len(fence) + 1
        table_height = ((rows + 1) * 7 + 9 + 4 * caution_lines) * mm
        room = (width - 2 * _MARGIN, top - _MARGIN - table_height - 8 * mm)
        scale, drawn = _to_scale(blank, units, room)
        drawn_height = (drawn.top - drawn.bottom) * mm / scale
        left = (width - (drawn.right - drawn.left) * mm / scale) / 2
        _paint(
            canvas, drawn, left - drawn.left * mm / scale, top - drawn_height - drawn.bottom * mm / scale, mm / scale
        )
        y = top - drawn_height - 6 * mm
        _key(canvas, y, f"scale 1:{scale:g}")
        y = y - 8 * mm if apart else _table(canvas, fence, units, y - 8 * mm, width)
        _cautions(canvas, cautions, y, width)
        canvas.showPage()
    for start in range(0, len(fence), _ROWS_A_PAGE) if apart else ():
        top = _head(canvas, heading, height, "fence settings, in this order")
        _table(canvas, fence[start : start + _ROWS_A_PAGE], units, top - 4 * mm, width)
        canvas.showPage()
    if steps:
        _cautions(canvas, cautions, _steps(canvas, steps, _head(canvas, heading, height, "step by step")), width)
        canvas.showPage()
    canvas.save()
    return buffer.getvalue()


def _page_says(blank: Blank, page: int, pages: int) -> str:
    number = f" x {blank.count}" if blank.count > 1 else ""
    return f"{blank.name}{number}, flutes {blank.flutes}, page {page} of {pages}"


def full_size(heading: Heading, blanks: Sequence[Blank], units: Units, paper: Paper) -> bytes:
    """A PDF at 1:1 over as many pages as it takes, with register marks to lay them together.

    Neighbouring pages show the same marks: lay cross on cross. A ruler on each page must measure what it says, or the
    printer scaled it. Raises: NoAnswer where it would take more than 300 pages.
    """
    buffer, canvas = open_page(f"{heading.title}, full size", PAPERS[paper])
    width, height = PAPERS[paper]
    step_x, step_y = width - 2 * _MARGIN - _OVERLAP, height - 2 * _MARGIN - _OVERLAP

    def pages_for(size: Length, step: float) -> int:
        return max(1, math.ceil((size.mm * mm + 2 * _EDGE - _OVERLAP) / step))

    grids = [(blank, pages_for(blank.size[0], step_x), pages_for(blank.size[1], step_y)) for blank in blanks]
    pages = sum(columns * rows for _, columns, rows in grids)
    if pages > _MOST_PAGES:
        raise NoAnswer(
            f"Full size takes {pages} pages; at most {_MOST_PAGES} are printed. Use the scaled sheet or the DXF."
        )
    for blank, columns, rows in grids:
        drawn = draw(replace(blank, dimensions=()), units, 6.0)  # at full size the drawing is its own measure
        for row in range(rows):
            for column in range(columns):
                canvas.saveState()
                frame = canvas.beginPath()
                frame.rect(_MARGIN, _MARGIN, width - 2 * _MARGIN, height - 2 * _MARGIN)
                canvas.clipPath(frame, stroke=0, fill=0)
                _paint(canvas, drawn, _MARGIN + _EDGE - column * step_x, _MARGIN + _EDGE - row * step_y, mm)
                canvas.restoreState()
                _register_marks(canvas, step_x, step_y, column, row, columns, rows)
                _ruler(canvas, units)
                canvas.setFont("Helvetica", 9)
                canvas.drawString(
                    _MARGIN, height - _MARGIN + 3 * mm,
                    f"{heading.title}: {blank.name} at full size, row {row + 1} of {rows} from below, "
                    f"column {column + 1} of {columns}. Print at 100 %.",
                )  # fmt: skip
                canvas.showPage()
    canvas.save()
    return buffer.getvalue()


def open_page(title: str, size: tuple[float, float]) -> tuple[io.BytesIO, Canvas]:
    """A PDF to draw on, and where it comes out."""
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pagesize=size, invariant=1)
    canvas.setTitle(title)
    canvas.setCreator("Fardo")
    return buffer, canvas


def _head(canvas: Canvas, heading: Heading, height: float, page: str) -> float:
    """Writes the heading; returns where the drawing may begin."""
    y = height - _MARGIN - 4 * mm
    canvas.setFont("Helvetica-Bold", 14)
    canvas.drawString(_MARGIN, y, heading.title[:70])
    canvas.setFont("Helvetica", 9)
    canvas.drawRightString(_page_width(canvas) - _MARGIN, y, page)
    for line in heading.lines:
        y -= 5 * mm
        canvas.setFont("Helvetica", 10)
        canvas.drawString(_MARGIN, y, line)
    return y - 5 * mm


def _page_width(canvas: Canvas) -> float:
    width: float = canvas._pagesize[0]
    return width


def _to_scale(blank: Blank, units: Units, room: tuple[float, float]) -> tuple[float, Drawn]:
    for scale in _SCALES:
        drawn = draw(blank, units, _WORDS_ON_PAPER * scale)
        if (drawn.right - drawn.left) * mm / scale <= room[0] and (drawn.top - drawn.bottom) * mm / scale <= room[1]:
            return scale, drawn
    return _SCALES[-1], draw(blank, units, _WORDS_ON_PAPER * _SCALES[-1])


def _paint(canvas: Canvas, drawn: Drawn, x: float, y: float, points_per_mm: float) -> None:
    for stroke in drawn.strokes:
        _pen(canvas, stroke.kind, drawn.height * points_per_mm)
        canvas.line(
            x + stroke.x1 * points_per_mm,
            y + stroke.y1 * points_per_mm,
            x + stroke.x2 * points_per_mm,
            y + stroke.y2 * points_per_mm,
        )
    size = drawn.height * points_per_mm
    for words in drawn.words:
        canvas.saveState()
        canvas.translate(x + words.x * points_per_mm, y + words.y * points_per_mm)
        canvas.rotate(words.angle)
        canvas.setFont("Helvetica-Bold" if words.role == "dimension" else "Helvetica", size)
        canvas.drawCentredString(0, -0.35 * size, words.text)
        canvas.restoreState()


def _pen(canvas: Canvas, kind: StrokeKind, words_points: float) -> None:
    canvas.setLineWidth(max(WIDTHS[kind] * words_points, 0.3))
    canvas.setDash([d * words_points for d in DASHES[kind]], 0)


def _key(canvas: Canvas, y: float, scale: str) -> None:
    """What each dash means; all in one ink."""
    x = _MARGIN
    canvas.setFont("Helvetica", 9)
    for kind, meaning in MEANINGS:
        _pen(canvas, kind, _WORDS_ON_PAPER * mm)
        canvas.line(x, y + 1 * mm, x + 14 * mm, y + 1 * mm)
        canvas.drawString(x + 16 * mm, y, meaning)
        x += 50 * mm
    canvas.setDash([], 0)
    canvas.drawRightString(_page_width(canvas) - _MARGIN, y, scale)


def _table(canvas: Canvas, fence: Sequence[FenceSetting], units: Units, y: float, width: float) -> float:
    columns = (_MARGIN, _MARGIN + 30 * mm, _MARGIN + 76 * mm)
    canvas.setFont("Helvetica", 8.5)
    for x, name in zip(columns, (f"Fence, {units}", "Blade", "Do, in this order"), strict=True):
        canvas.drawString(x, y, name)
    canvas.drawRightString(width - _MARGIN, y, "Cuts")
    canvas.setLineWidth(0.3)
    for setting in fence:
        canvas.line(_MARGIN, y - 2 * mm, width - _MARGIN, y - 2 * mm)
        y -= 7 * mm
        canvas.setFont("Helvetica-Bold", 13)
        canvas.drawString(columns[0], y, exact_text(setting.fence, units))
        canvas.setFont("Helvetica", 10)
        canvas.drawString(columns[1], y, setting.blade)
        canvas.drawString(columns[2], y, setting.do)
        canvas.drawRightString(width - _MARGIN, y, str(setting.cuts))
    return y - 8 * mm


def _steps(canvas: Canvas, steps: Sequence[str], top: float) -> float:
    """The steps, numbered, one under the other; gives back where they end."""
    y = top - 8 * mm
    canvas.setFont("Helvetica", 11)
    for n, step in enumerate(steps, 1):
        canvas.drawRightString(_MARGIN + 6 * mm, y, f"{n}.")
        for line in textwrap.wrap(step, 88):
            canvas.drawString(_MARGIN + 9 * mm, y, line)
            y -= 5.4 * mm
        y -= 1.6 * mm
    return y - 4 * mm


def _cautions(canvas: Canvas, cautions: Sequence[str], y: float, width: float) -> None:
    canvas.setFont("Helvetica", 8.5)
    for caution in cautions:
        line = ""
        for word in caution.split():
            if canvas.stringWidth(f"{line} {word}", "Helvetica", 8.5) > width - 2 * _MARGIN:
                canvas.drawString(_MARGIN, y, line)
                line, y = "", y - 4 * mm
            line = f"{line} {word}".strip()
        canvas.drawString(_MARGIN, y, line)
        y -= 4.5 * mm


def _register_marks(
    canvas: Canvas, step_x: float, step_y: float, column: int, row: int, columns: int, rows: int
) -> None:
    """A cross in the middle of every overlap corner; the same point of the blank on each page that shows it."""
    canvas.setLineWidth(0.4)
    canvas.setDash([], 0)
    xs = ([_MARGIN + _OVERLAP / 2] if column else []) + (
        [_MARGIN + step_x + _OVERLAP / 2] if column < columns - 1 else []
    )
    ys = ([_MARGIN + _OVERLAP / 2] if row else []) + ([_MARGIN + step_y + _OVERLAP / 2] if row < rows - 1 else [])
    # A single row or column of pages still needs two marks on each join.
    xs_marks = xs or [_MARGIN + step_x * 0.25, _MARGIN + step_x * 0.75]
    ys_marks = ys or [_MARGIN + step_y * 0.25, _MARGIN + step_y * 0.75]
    if not xs and not ys:
        return
    for x in xs_marks:
        for y in ys_marks:
            canvas.line(x - 4 * mm, y, x + 4 * mm, y)
            canvas.line(x, y - 4 * mm, x, y + 4 * mm)
            canvas.circle(x, y, 2 * mm)


def _ruler(canvas: Canvas, units: Units) -> None:
    length, says = (4 * 25.4 * mm, "4 in") if units == "in" else (100 * mm, "10 cm")
    x, y = _MARGIN, _MARGIN - 5 * mm
    canvas.setLineWidth(0.5)
    canvas.line(x, y, x + length, y)
    for end in (x, x + length):
        canvas.line(end, y - 1.5 * mm, end, y + 1.5 * mm)
    canvas.setFont("Helvetica", 8)
    canvas.drawString(x + length + 3 * mm, y - 1 * mm, f"must measure {says}")

"""The cut sheet on paper: each blank to scale, what the dashes mean, fence settings and steps to tick; or at real size
over several pages."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace

from reportlab.pdfgen.canvas import Canvas

from fardo.core.cut.drawing import Blank
from fardo.core.cut.fence import FenceSetting
from fardo.core.quantity import Length, Units
from fardo.core.refusal import NoAnswer
from fardo.files.drawn import DASHES, WIDTHS, Drawn, StrokeKind, draw, exact_text, key_of
from fardo.files.lettering import lines_of, set_words, width_of
from fardo.files.page import MARGIN, PAPERS, Heading, Pages, Paper, mm, open_page, print_pages, tick_box

_OVERLAP = 10 * mm
_EDGE = 6 * mm  # bare paper around a blank at full size, so that its outermost cuts are on the page
_MOST_PAGES = 300
_SCALES = (1, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10, 12, 15, 20, 25, 30, 40, 50, 75, 100, 150, 200, 300)
_WORDS_ON_PAPER = 3.1  # mm high, read at arm's length
_ALONE, _OF_SEVERAL = 0.56, 0.36  # how much of a page a drawing may take up
_RUNS = {"along the blank": "flutes along the blank ↔", "across the blank": "flutes across the blank ↕"}


def cut_sheet(
    heading: Heading,
    blanks: Sequence[Blank],
    fence: Sequence[FenceSetting],
    cautions: Sequence[str],
    units: Units,
    paper: Paper,
    steps: Sequence[str] = (),
    set_to: str = "Fence or mark",
) -> bytes:
    """A PDF of the blanks, each drawn to the largest usual scale that fits, then the fence settings and the steps in
    words, in order and each with a box to tick. Args: set_to: what is set, a saw's fence or a mark."""

    def fill(pages: Pages) -> None:
        for blank in blanks:
            _drawing(pages, blank, units, _ALONE if len(blanks) == 1 else _OF_SEVERAL)
        if blanks:
            _key(pages, blanks)
        _cautions(pages, cautions)
        if fence:
            _settings(pages, fence, f"{set_to}, {units}", units)
        if steps:
            _steps(pages, steps)

    return print_pages(heading, PAPERS[paper], fill)


def _drawing(pages: Pages, blank: Blank, units: Units, share: float) -> None:
    scale, drawn = _to_scale(blank, units, (pages.inner, pages.height * share))
    wide, high = ((far - near) * mm / scale for near, far in ((drawn.left, drawn.right), (drawn.bottom, drawn.top)))
    pages.need(high + 12 * mm)
    number = f" x {blank.count}" if blank.count > 1 else ""
    says = [f"{blank.name[0].upper()}{blank.name[1:]}{number}", f"scale 1:{scale:g}", _RUNS.get(blank.flutes, "")]
    set_words(pages.canvas, MARGIN, pages.y - 3 * mm, says[0], 10, bold=True)
    set_words(pages.canvas, pages.width - MARGIN, pages.y - 3 * mm, ", ".join(filter(None, says[1:])), 9, align="right")
    y = pages.y - 6 * mm - high
    _paint(pages.canvas, drawn, (pages.width - wide) / 2 - drawn.left * mm / scale, y - drawn.bottom * mm / scale,
           mm / scale)  # fmt: skip
    pages.y = y - 4 * mm


def _to_scale(blank: Blank, units: Units, room: tuple[float, float]) -> tuple[float, Drawn]:
    for scale in _SCALES:
        drawn = draw(blank, units, _WORDS_ON_PAPER * scale)
        if (drawn.right - drawn.left) * mm / scale <= room[0] and (drawn.top - drawn.bottom) * mm / scale <= room[1]:
            return scale, drawn
    return _SCALES[-1], draw(blank, units, _WORDS_ON_PAPER * _SCALES[-1])


def _key(pages: Pages, blanks: Sequence[Blank]) -> None:
    """What each dash means, on lines of its own; all in one ink."""
    entries = dict.fromkeys(entry for blank in blanks for entry in key_of(blank))
    pages.need(12 * mm)
    x, y = MARGIN, pages.y - 3 * mm
    for kind, meaning in entries:
        wide = 17 * mm + width_of(meaning, 9) + 7 * mm
        if x + wide > pages.width - MARGIN + 7 * mm:
            x, y = MARGIN, y - 5 * mm
        _pen(pages.canvas, kind, _WORDS_ON_PAPER * mm)
        pages.canvas.line(x, y + 1 * mm, x + 14 * mm, y + 1 * mm)
        set_words(pages.canvas, x + 16 * mm, y, meaning, 9)
        x += wide
    pages.canvas.setDash([], 0)
    pages.y = y - 6 * mm


def _settings(pages: Pages, fence: Sequence[FenceSetting], set_to: str, units: Units) -> None:
    columns = (MARGIN + 7 * mm, MARGIN + 34 * mm, MARGIN + 80 * mm)
    canvas = pages.canvas

    def top() -> None:
        for x, name in zip(columns, (set_to, "Blade", "Do, in this order"), strict=True):
            set_words(canvas, x, pages.y - 3 * mm, name, 8.5)
        set_words(canvas, pages.width - MARGIN, pages.y - 3 * mm, "Cuts", 8.5, align="right")
        pages.y -= 5 * mm

    pages.need(30 * mm)
    top()
    for setting in fence:
        does = lines_of(setting.do, pages.width - MARGIN - 12 * mm - columns[2], 10)
        if pages.room < 7 * mm + 4.4 * mm * (len(does) - 1):
            pages.begin()
            top()
        canvas.setLineWidth(0.3)
        canvas.line(MARGIN, pages.y, pages.width - MARGIN, pages.y)
        y = pages.y - 5 * mm
        tick_box(canvas, MARGIN, y - 0.4 * mm)
        set_words(canvas, columns[0], y, exact_text(setting.fence, units), 13, bold=True)
        set_words(canvas, columns[1], y, setting.blade, 10)
        for n, line in enumerate(does):
            set_words(canvas, columns[2], y - n * 4.4 * mm, line, 10)
        set_words(canvas, pages.width - MARGIN, y, str(setting.cuts), 10, align="right")
        pages.y = y - 2 * mm - 4.4 * mm * (len(does) - 1)
    pages.y -= 4 * mm


def _steps(pages: Pages, steps: Sequence[str]) -> None:
    """Numbered, one under the other."""
    for n, step in enumerate(steps, 1):
        lines = lines_of(step, pages.inner - 17 * mm, 10.5)
        pages.need(5.2 * mm * len(lines) + 2 * mm)
        tick_box(pages.canvas, MARGIN, pages.y - 4.4 * mm)
        set_words(pages.canvas, MARGIN + 13 * mm, pages.y - 4 * mm, f"{n}.", 10.5, align="right")
        for line in lines:
            set_words(pages.canvas, MARGIN + 16 * mm, pages.y - 4 * mm, line, 10.5)
            pages.y -= 5.2 * mm
        pages.y -= 1.8 * mm


def _cautions(pages: Pages, cautions: Sequence[str]) -> None:
    for caution in cautions:
        lines = lines_of(caution, pages.inner, 8.5)
        pages.need(4 * mm * len(lines) + 2 * mm)
        for line in lines:
            pages.y -= 4 * mm
            set_words(pages.canvas, MARGIN, pages.y, line, 8.5)
        pages.y -= 1 * mm
    pages.y -= 2 * mm if cautions else 0


def full_size(heading: Heading, blanks: Sequence[Blank], units: Units, paper: Paper) -> bytes:
    """A PDF at 1:1 over as many pages as it takes, with register marks to lay them together.

    Neighbouring pages show the same marks: lay cross on cross. A ruler on each page must measure what it says, or the
    printer scaled it. Raises: NoAnswer where it would take more than 300 pages.
    """
    buffer, canvas = open_page(f"{heading.title}, full size", PAPERS[paper])
    width, height = PAPERS[paper]
    step_x, step_y = width - 2 * MARGIN - _OVERLAP, height - 2 * MARGIN - _OVERLAP

    def pages_for(size: Length, step: float) -> int:
        return max(1, math.ceil((size.mm * mm + 2 * _EDGE - _OVERLAP) / step))

    grids = [(blank, pages_for(blank.size[0], step_x), pages_for(blank.size[1], step_y)) for blank in blanks]
    pages = sum(columns * rows for _, columns, rows in grids)
    if pages > _MOST_PAGES:
        raise NoAnswer(
            f"Full size takes {pages} pages; at most {_MOST_PAGES} are printed. Use the scaled sheet or the DXF."
        )
    number = 0
    for blank, columns, rows in grids:
        drawn = draw(replace(blank, dimensions=()), units, 6.0)  # at full size the drawing is its own measure
        for row in range(rows):
            for column in range(columns):
                canvas.saveState()
                frame = canvas.beginPath()
                frame.rect(MARGIN, MARGIN, width - 2 * MARGIN, height - 2 * MARGIN)
                canvas.clipPath(frame, stroke=0, fill=0)
                _paint(canvas, drawn, MARGIN + _EDGE - column * step_x, MARGIN + _EDGE - row * step_y, mm)
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


def _paint(canvas: Canvas, drawn: Drawn, x: float, y: float, points_per_mm: float) -> None:
    for stroke in drawn.strokes:
        _pen(canvas, stroke.kind, drawn.height * points_per_mm)
        canvas.line(
            x + stroke.x1 * points_per_mm,
            y + stroke.y1 * points_per_mm,
            x + stroke.x2 * points_per_mm,
            y + stroke.y2 * points_per_mm,
        )
    canvas.setDash([], 0)
    size = drawn.height * points_per_mm
    for words in drawn.words:
        canvas.saveState()
        canvas.translate(x + words.x * points_per_mm, y + words.y * points_per_mm)
        canvas.rotate(words.angle)
        set_words(canvas, 0, -0.35 * size, words.text, size, words.role == "dimension", "middle")
        canvas.restoreState()


def _pen(canvas: Canvas, kind: StrokeKind, words_points: float) -> None:
    canvas.setLineWidth(max(WIDTHS[kind] * words_points, 0.3))
    canvas.setDash([d * words_points for d in DASHES[kind]], 0)


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

"""The cut sheet on paper: each blank to scale, what the dashes mean, fence settings and steps to tick."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from reportlab.pdfgen.canvas import Canvas

from fardo.core.cut.drawing import Blank
from fardo.core.cut.fence import FenceSetting
from fardo.core.quantity import Units
from fardo.files.drawn import DASHES, WIDTHS, Drawn, StrokeKind, draw, exact_text, key_of
from fardo.files.lettering import lines_of, set_words, width_of
from fardo.files.page import MARGIN, PAPERS, Heading, Pages, Paper, mm, print_pages, tick_box

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
    before: int = 0,
) -> bytes:
    """A PDF of the blanks, each drawn to the largest usual scale that fits, then the fence settings and the steps in
    words, in order and each with a box to tick.

    Args:
        set_to: what is set, a saw's fence or a mark.
        before: so many of the steps come before the settings.
    """
    return cut_sheets(heading, (ToCut("", blanks, fence, steps, before),), cautions, units, paper, set_to)


@dataclass(frozen=True, slots=True)
class ToCut:
    """What is cut for one box.

    Args:
        title: nothing where it is the only one.
        steps: in words.
        before: so many of them come before the settings.
    """

    title: str
    blanks: Sequence[Blank]
    fence: Sequence[FenceSetting] = ()
    steps: Sequence[str] = ()
    before: int = 0


def cut_sheets(
    heading: Heading,
    boxes: Sequence[ToCut],
    cautions: Sequence[str],
    units: Units,
    paper: Paper,
    set_to: str = "Fence or mark",
) -> bytes:
    """The same for several boxes, each from the top of a page."""

    def fill(pages: Pages) -> None:
        for n, one in enumerate(boxes):
            if n:
                pages.begin()
            if one.title:
                set_words(pages.canvas, MARGIN, pages.y - 4 * mm, one.title, 11, bold=True)
                pages.y -= 8 * mm
            for blank in one.blanks:
                _drawing(pages, blank, units, _ALONE if len(one.blanks) == 1 else _OF_SEVERAL)
            if one.blanks:
                _key(pages, one.blanks)
            _cautions(pages, cautions)
            steps = tuple(enumerate(one.steps, 1))
            _steps(pages, steps[: one.before])
            if one.fence:
                _settings(pages, one.fence, f"{set_to}, {units}", units)
            _steps(pages, steps[one.before :])

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
    paint(pages.canvas, drawn, (pages.width - wide) / 2 - drawn.left * mm / scale, y - drawn.bottom * mm / scale,
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


def _steps(pages: Pages, steps: Iterable[tuple[int, str]]) -> None:
    """Numbered, one under the other."""
    for n, step in steps:
        lines = lines_of(step, pages.inner - 17 * mm, 10.5)
        pages.need(5.2 * mm * len(lines) + 2 * mm)
        tick_box(pages.canvas, MARGIN, pages.y - 4.4 * mm)
        set_words(pages.canvas, MARGIN + 13 * mm, pages.y - 4 * mm, f"{n}.", 10.5, align="right")
        for line in lines:
            set_words(pages.canvas, MARGIN + 16 * mm, pages.y - 4 * mm, line, 10.5)
            pages.y -= 5.2 * mm
        pages.y -= 1.8 * mm
    pages.y -= 2 * mm


def _cautions(pages: Pages, cautions: Sequence[str]) -> None:
    for caution in cautions:
        lines = lines_of(caution, pages.inner, 8.5)
        pages.need(4 * mm * len(lines) + 2 * mm)
        for line in lines:
            pages.y -= 4 * mm
            set_words(pages.canvas, MARGIN, pages.y, line, 8.5)
        pages.y -= 1 * mm
    pages.y -= 2 * mm if cautions else 0


def paint(canvas: Canvas, drawn: Drawn, x: float, y: float, points_per_mm: float) -> None:
    """A drawing on a page.

    Args:
        x, y: where its corner comes, points.
        points_per_mm: of the drawing.
    """
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
        if words.role == "note":  # it lies over lines, which must not be read as strokes of it
            reach = width_of(words.text, size) / 2 + size / 4
            canvas.setFillColorRGB(1, 1, 1)
            canvas.rect(-reach, -0.55 * size, 2 * reach, 1.1 * size, stroke=0, fill=1)
            canvas.setFillColorRGB(0, 0, 0)
        set_words(canvas, 0, -0.35 * size, words.text, size, words.role == "dimension", "middle")
        canvas.restoreState()


def _pen(canvas: Canvas, kind: StrokeKind, words_points: float) -> None:
    canvas.setLineWidth(max(WIDTHS[kind] * words_points, 0.3))
    canvas.setDash([d * words_points for d in DASHES[kind]], 0)

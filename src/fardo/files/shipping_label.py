"""The label of a parcel: where it goes and comes from, its service and its number, as words, barcode and QR code.

One page of 4 x 6 in for a label printer, or the upper half of a page of Letter or A4 with the fold marked below. The
bars are Code 128 (ISO/IEC 15417) with a quiet zone of ten modules, no module narrower than 0.25 mm; the square is a QR
code (ISO/IEC 18004).
"""

from __future__ import annotations

import io
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from pypdfium2 import PdfDocument
from reportlab.graphics import renderPDF
from reportlab.graphics.barcode.code128 import Code128
from reportlab.graphics.barcode.qr import QrCodeWidget
from reportlab.graphics.shapes import Drawing
from reportlab.lib.units import inch
from reportlab.pdfgen.canvas import Canvas

from fardo.files.lettering import lines_of, set_words
from fardo.files.page import PAPERS, Paper, mm, open_page

LabelSize = Literal["4x6", "half"]
NARROWEST = 0.25 * mm  # of a module: narrower ones are not read from a label printer of 203 dots to the inch
_WIDEST = 0.5 * mm
_QUIET = 10  # modules, on both sides
_PAD = 4 * mm


@dataclass(frozen=True, slots=True)
class LabelFacts:
    """What stands on a label.

    Args:
        to: whom it goes to, line by line.
        sender: where it comes back to.
        service: carrier and service.
        number: for tracking; empty where there is none yet.
        weighs, measures: of the closed parcel, in words.
        order: number of it.
        marks: such as *This side up*.
        day: it leaves.
    """

    to: Sequence[str]
    sender: Sequence[str]
    service: str
    number: str
    weighs: str = ""
    measures: str = ""
    order: str = ""
    marks: Sequence[str] = ()
    day: str = ""


def label_page(facts: LabelFacts, size: LabelSize, paper: Paper) -> bytes:
    """A PDF of one page.

    Args:
        paper: of the half page.
    """
    page = (4 * inch, 6 * inch) if size == "4x6" else PAPERS[paper]
    buffer, canvas = open_page("Shipping label", page)
    if size == "4x6":
        _label(canvas, facts, _PAD, _PAD, page[0] - 2 * _PAD, page[1] - 2 * _PAD)
    else:
        half = page[1] / 2
        margin = 12 * mm
        canvas.setDash(3, 3)
        canvas.setLineWidth(0.4)
        canvas.line(margin, half, page[0] - margin, half)
        canvas.setDash()
        set_words(canvas, margin, half - 5 * mm, "Cut or fold here. Tape the edges of the label down.", 8)
        _label(canvas, facts, margin, half + 6 * mm, page[0] - 2 * margin, half - 6 * mm - margin)
    canvas.showPage()
    canvas.save()
    return buffer.getvalue()


def label_picture(pdf: bytes, dots: int = 300) -> bytes:
    """The same as a PNG at true size, for a label printer.

    Args:
        dots: to the inch.
    """
    document = PdfDocument(pdf)
    try:
        page = document[0].render(scale=dots / 72, grayscale=True).to_pil()
    finally:
        document.close()
    out = io.BytesIO()
    page.save(out, "PNG", dpi=(dots, dots))
    return out.getvalue()


def _label(canvas: Canvas, facts: LabelFacts, x: float, y: float, wide: float, high: float) -> None:
    """Draws the label in that frame, its lower left corner there."""
    canvas.setLineWidth(0.8)
    canvas.rect(x, y, wide, high)
    inner, left = wide - 2 * _PAD, x + _PAD
    at = y + high - _PAD
    at = _lines(canvas, left, at, inner * 0.62, ("From", *facts.sender), 8)
    _lines(canvas, left + inner * 0.65, y + high - _PAD, inner * 0.35, _short(facts), 8)
    at -= 1.5 * mm
    canvas.line(x, at, x + wide, at)
    bars = 26 * mm if facts.number else 8 * mm
    room = at - (y + bars + 14 * mm)
    size = next((size for size in (17, 15, 13, 11, 9.5, 8) if _height(facts.to, inner, size) <= room - 6 * mm), 7)
    at = _lines(canvas, left, at - 2 * mm, inner, ("To",), 8)
    _lines(canvas, left, at - 1 * mm, inner, facts.to, size, bold=True)
    foot = y + bars + 11 * mm
    canvas.line(x, foot, x + wide, foot)
    set_words(canvas, left, foot - 6 * mm, _fit(facts.service, inner * (0.6 if facts.marks else 1), 12), 12, bold=True)
    for mark in facts.marks[:1]:
        set_words(canvas, left + inner, foot - 6 * mm, mark, 10, bold=True, align="right")
    if facts.number:
        _codes(canvas, facts.number, left, y + 3 * mm, inner, bars)
    else:
        set_words(canvas, left, y + 5 * mm, "No tracking number yet", 9)


def _codes(canvas: Canvas, number: str, x: float, y: float, wide: float, high: float) -> None:
    """The bars with their number below, and the square beside them; of a number too long for both the one that fits."""
    square = min(high - 2 * mm, 22 * mm)
    modules = Code128(number, barWidth=1, quiet=False).width + 2 * _QUIET
    module = min(_WIDEST, (wide - square - 2 * mm) / modules)
    beside = module >= NARROWEST
    if not beside:  # a long number takes all the width there is
        module = min(_WIDEST, wide / modules)
    if module < NARROWEST:
        _square(canvas, number, x, y + 3 * mm, square)
        _lines(canvas, x + square + 2 * mm, y + high - 4 * mm, wide - square - 2 * mm, (number,), 10)
        return
    bars = Code128(number, barWidth=module, barHeight=high - 8 * mm, quiet=False)
    bars.drawOn(canvas, x + _QUIET * module, y + 5 * mm)
    set_words(canvas, x + modules * module / 2, y + 1 * mm, number, 10, align="middle")
    if beside:
        _square(canvas, number, x + wide - square, y + 3 * mm, square)


def _square(canvas: Canvas, number: str, x: float, y: float, size: float) -> None:
    code = QrCodeWidget(number, barLevel="M", barBorder=4)
    a, b, c, d = code.getBounds()
    drawing = Drawing(size, size, transform=[size / (c - a), 0, 0, size / (d - b), 0, 0])
    drawing.add(code)
    renderPDF.draw(drawing, canvas, x, y)


def _short(facts: LabelFacts) -> list[str]:
    told = (facts.day, facts.weighs, facts.measures, f"Order {facts.order}" if facts.order else "")
    return [one for one in told if one]


def _lines(
    canvas: Canvas, x: float, y: float, wide: float, lines: Sequence[str], size: float, bold: bool = False
) -> float:
    """Sets lines from the top down, each broken where it is too wide; gives back where they end."""
    for line in lines:
        for one in lines_of(line, wide, size, bold):
            y -= size * 1.22
            set_words(canvas, x, y, one, size, bold)
    return y


def _height(lines: Sequence[str], wide: float, size: float) -> float:
    return sum(len(lines_of(line, wide, size, bold=True)) for line in lines) * size * 1.22


def _fit(words: str, wide: float, size: float) -> str:
    first, *rest = lines_of(words, wide, size, bold=True)
    return f"{first}…" if rest else first

"""Words on paper in whatever script they are typed.

The fonts that every PDF reader has cover the Latin letters of western Europe alone. Four that are shipped with the
application have the rest: DejaVu Sans Greek with its accents, Cyrillic, Hebrew and Arabic, three more Japanese, Chinese
and Korean. Right-to-left script is joined and set in its order (Unicode bidirectional algorithm).
"""

from __future__ import annotations

import unicodedata
from collections.abc import Iterator
from functools import cache
from html import escape
from importlib.resources import as_file, files
from itertools import groupby
from typing import Literal

import arabic_reshaper
from bidi import get_display
from reportlab.pdfbase.pdfmetrics import registerFont, stringWidth
from reportlab.pdfbase.ttfonts import TTFError, TTFont
from reportlab.pdfgen.canvas import Canvas

Align = Literal["left", "middle", "right"]

_SHIPPED = {
    "Words": "DejaVuSans.ttf", "Words-Bold": "DejaVuSans-Bold.ttf", "Japanese": "Kosugi_400Regular.ttf",
    "Chinese": "ZCOOLXiaoWei_400Regular.ttf", "Korean": "GowunDodum_400Regular.ttf",
}  # fmt: skip
_EASTERN = ("Japanese", "Chinese", "Korean")


def set_words(
    canvas: Canvas, x: float, y: float, text: str, size: float, bold: bool = False, align: Align = "left"
) -> float:
    """Sets a line of words; gives back how wide it is.

    Args:
        x, y: of its base line, in points: of its left end, its middle or its right end.
    """
    wide = width_of(text, size, bold)
    at = x if align == "left" else x - wide if align == "right" else x - wide / 2
    for font, run in _runs(_in_order(text), bold):
        canvas.setFont(font, size)
        canvas.drawString(at, y, run)
        at += stringWidth(run, font, size)
    return wide


def width_of(text: str, size: float, bold: bool = False) -> float:
    """How wide a line of words is set, in points."""
    return sum(float(stringWidth(run, font, size)) for font, run in _runs(_in_order(text), bold))


def lines_of(text: str, wide: float, size: float, bold: bool = False) -> list[str]:
    """Words broken into lines no wider than that, in points; one that is wider alone is broken where it must be."""
    lines: list[str] = []
    line = ""
    for word in text.split():
        longer = f"{line} {word}" if line else word
        if width_of(longer, size, bold) <= wide:
            line = longer
            continue
        if line:
            lines.append(line)
        while width_of(word, size, bold) > wide:
            fits = next((n for n in range(len(word) - 1, 1, -1) if width_of(word[:n], size, bold) <= wide), 1)
            lines.append(word[:fits])
            word = word[fits:]
        line = word
    return [*lines, line] if line or not lines else lines


def marked_up(text: str, bold: bool = False) -> str:
    """Words for a paragraph that sets its lines itself; their signs mean themselves."""
    runs = _runs(_in_order(text), bold)
    return "".join(f'<font name="{font}">{escape(run, quote=False)}</font>' for font, run in runs)


def _in_order(text: str) -> str:
    """As it is set from left to right."""
    if not any(unicodedata.bidirectional(letter) in ("R", "AL") for letter in text):
        return text
    return str(get_display(arabic_reshaper.reshape(text)))


def _runs(text: str, bold: bool) -> Iterator[tuple[str, str]]:
    """Parts of a line, each with the font it is set in."""
    everywhere, shipped = ("Helvetica-Bold", "Words-Bold") if bold else ("Helvetica", "Words")
    if _in_every_font(text):
        yield everywhere, text
        return
    eastern = {ord(letter) for letter in text} - _letters_of(shipped)
    # One font for all of them where one has them: a word is not set in two hands.
    fonts = sorted(_EASTERN, key=lambda font: len(eastern - _letters_of(font))) if eastern else []

    def font_of(letter: str) -> str:
        if ord(letter) not in eastern:
            return shipped
        return next((font for font in fonts if ord(letter) in _letters_of(font)), everywhere)

    for font, letters in groupby(text, font_of):
        yield font, "".join(letters)


def _in_every_font(text: str) -> bool:
    try:
        text.encode("cp1252")
    except UnicodeEncodeError:
        return False
    return True


@cache
def _letters_of(shipped: str) -> frozenset[int]:
    """The letters of a font that is shipped; none where the front end was not built."""
    try:
        with as_file(files("fardo").joinpath("static", "fonts", _SHIPPED[shipped])) as path:
            font = TTFont(shipped, str(path))
    except (FileNotFoundError, TTFError):
        return frozenset()
    registerFont(font)
    return frozenset(font.face.charToGlyph)

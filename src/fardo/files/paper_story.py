"""What papers that are set in paragraphs share: their styles, words that mean themselves, and the page."""

from __future__ import annotations

import io
from collections.abc import Sequence
from typing import Any

from reportlab.lib.styles import ParagraphStyle
from reportlab.platypus import PageBreak, Paragraph, SimpleDocTemplate

from fardo.files.lettering import marked_up
from fardo.files.page import PAPERS, Paper, mm

MARGIN = 14 * mm
TITLE = ParagraphStyle("title", fontName="Helvetica-Bold", fontSize=16, leading=20)
PLAIN = ParagraphStyle("plain", fontName="Helvetica", fontSize=11, leading=14.5)
SMALL = ParagraphStyle("small", fontName="Helvetica", fontSize=9, leading=11.5)
LARGE = ParagraphStyle("large", fontName="Helvetica-Bold", fontSize=15, leading=18)
CAUTION = ParagraphStyle("caution", parent=PLAIN, fontName="Helvetica-Oblique", leftIndent=3 * mm)
Story = list[Any]


def to_tick(words: str, most: int = 200) -> Paragraph:
    """A line with a box to tick with a pen."""
    return Paragraph(f"[&nbsp;&nbsp;] {text(words, most)}", PLAIN)


def build(title: str, stories: Sequence[Story], paper: Paper) -> bytes:
    """A PDF in which each story begins a page."""
    buffer = io.BytesIO()
    document = SimpleDocTemplate(
        buffer, pagesize=PAPERS[paper], leftMargin=MARGIN, rightMargin=MARGIN, topMargin=MARGIN,
        bottomMargin=MARGIN, title=title[:120], creator="Fardo", invariant=1,
    )  # fmt: skip
    whole: Story = []
    for n, story in enumerate(stories):
        whole += [*([PageBreak()] if n else []), *story]
    document.build(whole)
    return buffer.getvalue()


def text(words: str, most: int, bold: bool = False) -> str:
    """As much as the paper has room for; its signs mean themselves."""
    return marked_up(words if len(words) <= most else words[: most - 1] + "…", bold)


def title(words: str, most: int = 90) -> Paragraph:
    return Paragraph(text(words, most, bold=True), TITLE)


def large(words: str, most: int = 140) -> Paragraph:
    return Paragraph(text(words, most, bold=True), LARGE)

"""Papers that go with the goods: labels for bags of small hardware, and the receiver's sheet for putting together."""

from __future__ import annotations

import io
from collections.abc import Sequence
from typing import Any

from reportlab.lib import colors
from reportlab.lib.styles import ParagraphStyle
from reportlab.platypus import KeepTogether, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

from fardo.core.goods.take_apart import BackStep, BagLabel
from fardo.files.lettering import marked_up
from fardo.files.page import PAPERS, Paper, mm

_MARGIN = 14 * mm
_TITLE = ParagraphStyle("title", fontName="Helvetica-Bold", fontSize=16, leading=20)
_PLAIN = ParagraphStyle("plain", fontName="Helvetica", fontSize=11, leading=14.5)
_SMALL = ParagraphStyle("small", fontName="Helvetica", fontSize=9, leading=11.5)
_LARGE = ParagraphStyle("large", fontName="Helvetica-Bold", fontSize=15, leading=18)
_CAUTION = ParagraphStyle("caution", parent=_PLAIN, fontName="Helvetica-Oblique", leftIndent=3 * mm)
_LABEL_HEIGHT = 48 * mm
_COLUMNS = 2


def label_sheet(title: str, labels: Sequence[BagLabel], paper: Paper) -> bytes:
    """A PDF with one label a bag, to be cut apart: which bag of how many, what it holds, where it goes, which job."""
    width = PAPERS[paper][0] - 2 * _MARGIN
    cells: list[list[Any]] = [[] for _ in range(-(-len(labels) // _COLUMNS))]
    for n, label in enumerate(labels):
        cells[n // _COLUMNS].append(
            [
                Paragraph(f"Bag {label.number} of {label.of}", _LARGE),
                Paragraph(_text(label.holds, 140), _PLAIN),
                Paragraph(f"goes to: {_text(label.goes_to or title, 120)}", _SMALL),
                Paragraph(_text(title, 80), _SMALL),
            ]
        )
    if cells and len(cells[-1]) < _COLUMNS:
        cells[-1] += [""] * (_COLUMNS - len(cells[-1]))
    table = Table(cells, colWidths=[width / _COLUMNS] * _COLUMNS, rowHeights=[_LABEL_HEIGHT] * len(cells))
    table.setStyle(
        TableStyle(
            [
                ("INNERGRID", (0, 0), (-1, -1), 0.4, colors.black, None, (3, 3)),
                ("BOX", (0, 0), (-1, -1), 0.4, colors.black, None, (3, 3)),
                ("VALIGN", (0, 0), (-1, -1), "TOP"),
            ]
        )
    )
    return _build(f"{title}, bag labels", [table], paper)


def ladder_sheet(title: str, what: str, rows: Sequence[Sequence[str]], sender: str, paper: Paper) -> bytes:
    """A PDF to hang at the bench: how many of a thing go into what, by which service, at which sum in all.

    Args:
        what: the thing is.
        rows: a row a rung: how many, box, outside, weighs, service, in all.
    """
    head = ["How many", "Box", "Outside", "Weighs", "By", "Total"]
    width = PAPERS[paper][0] - 2 * _MARGIN
    cells = [[Paragraph(f"<b>{one}</b>", _SMALL) for one in head]]
    cells += [
        [Paragraph(_text(count, 20), _LARGE), *(Paragraph(_text(cell, 120), _PLAIN) for cell in others)]
        for count, *others in rows
    ]
    table = Table(cells, colWidths=[width * share for share in (0.12, 0.26, 0.2, 0.12, 0.17, 0.13)], repeatRows=1)
    table.setStyle(
        TableStyle([("LINEBELOW", (0, 0), (-1, -1), 0.4, colors.black), ("VALIGN", (0, 0), (-1, -1), "MIDDLE")])
    )
    made = f"Lowest total, as tariffs and stock stood. {_text(sender, 80)}"
    story: list[Any] = [
        Paragraph(f"What goes into what: {_text(what, 80)}", _TITLE), Paragraph(made, _PLAIN), Spacer(1, 4 * mm), table,
    ]  # fmt: skip
    return _build(f"{title}, ladder", story, paper)


def put_back_sheet(
    title: str, sender: str, steps: Sequence[BackStep], contents: Sequence[tuple[int, str]], paper: Paper
) -> bytes:
    """A PDF for the receiver: what is in the box, then the steps in the order of putting together.

    Args:
        contents: how many of each thing is in the box.
    """
    story: list[Any] = [
        Paragraph(_text(title, 90), _TITLE),
        Paragraph(f"Putting it together. Packed by {_text(sender, 80)}." if sender else "Putting it together.", _PLAIN),
        Spacer(1, 4 * mm),
        Paragraph("In the box", _LARGE),
    ]
    story += [Paragraph(f"[&nbsp;&nbsp;] {count} x {_text(name, 120)}", _PLAIN) for count, name in contents]
    story += [Spacer(1, 4 * mm), Paragraph("In this order", _LARGE)]
    for step in steps:
        lines = [Paragraph(f"<b>{step.number}.</b> {_text(step.do, 300)}", _PLAIN)]
        needs = [f"with: {step.tool}" if step.tool else "", f"bag {step.bag}" if step.bag else ""]
        if any(needs):
            lines.append(Paragraph(_text("; ".join(need for need in needs if need), 200), _SMALL))
        if step.turn:
            lines.append(Paragraph(f"Taken off it turned so: {_text(step.turn, 240)}", _SMALL))
        if step.caution:
            lines.append(Paragraph(_text(step.caution, 400), _CAUTION))
        story.append(KeepTogether([*lines, Spacer(1, 3 * mm)]))
    return _build(f"{title}, putting together", story, paper)


def _build(title: str, story: list[Any], paper: Paper) -> bytes:
    buffer = io.BytesIO()
    document = SimpleDocTemplate(
        buffer, pagesize=PAPERS[paper], leftMargin=_MARGIN, rightMargin=_MARGIN, topMargin=_MARGIN,
        bottomMargin=_MARGIN, title=title[:120], creator="Fardo", invariant=1,
    )  # fmt: skip
    document.build(story)
    return buffer.getvalue()


def _text(words: str, most: int) -> str:
    """As much as the paper has room for; its signs mean themselves."""
    return marked_up(words if len(words) <= most else words[: most - 1] + "…")

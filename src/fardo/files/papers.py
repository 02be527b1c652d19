"""Papers that go with the goods: labels for bags of small hardware, and the receiver's sheet for putting together."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from reportlab.lib import colors
from reportlab.platypus import KeepTogether, Paragraph, Spacer, Table, TableStyle

from fardo.core.goods.take_apart import BackStep, BagLabel
from fardo.files.page import PAPERS, Paper, mm
from fardo.files.paper_story import CAUTION, LARGE, MARGIN, PLAIN, SMALL, TITLE, Story, build, text, to_tick

_LABEL_HEIGHT = 48 * mm
_COLUMNS = 2


def label_sheet(title: str, labels: Sequence[BagLabel], paper: Paper) -> bytes:
    """A PDF with one label a bag, to be cut apart: which bag of how many, what it holds, where it goes, which job."""
    width = PAPERS[paper][0] - 2 * MARGIN
    cells: list[list[Any]] = [[] for _ in range(-(-len(labels) // _COLUMNS))]
    for n, label in enumerate(labels):
        cells[n // _COLUMNS].append(
            [
                Paragraph(f"Bag {label.number} of {label.of}", LARGE),
                Paragraph(text(label.holds, 140), PLAIN),
                Paragraph(f"goes to: {text(label.goes_to or title, 120)}", SMALL),
                Paragraph(text(title, 80), SMALL),
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
    return build(f"{title}, bag labels", [[table]], paper)


def ladder_sheet(title: str, what: str, rows: Sequence[Sequence[str]], sender: str, paper: Paper) -> bytes:
    """A PDF to hang at the bench: how many of a thing go into what, by which service, at which sum in all.

    Args:
        what: the thing is.
        rows: a row a rung: how many, box, outside, weighs, service, in all.
    """
    head = ["How many", "Box", "Outside", "Weighs", "By", "Total"]
    width = PAPERS[paper][0] - 2 * MARGIN
    cells = [[Paragraph(f"<b>{one}</b>", SMALL) for one in head]]
    cells += [
        [Paragraph(text(count, 20), LARGE), *(Paragraph(text(cell, 120), PLAIN) for cell in others)]
        for count, *others in rows
    ]
    table = Table(cells, colWidths=[width * share for share in (0.12, 0.26, 0.2, 0.12, 0.17, 0.13)], repeatRows=1)
    table.setStyle(
        TableStyle([("LINEBELOW", (0, 0), (-1, -1), 0.4, colors.black), ("VALIGN", (0, 0), (-1, -1), "MIDDLE")])
    )
    made = f"Lowest total, as tariffs and stock stood. {text(sender, 80)}"
    story: list[Any] = [
        Paragraph(f"What goes into what: {text(what, 80)}", TITLE), Paragraph(made, PLAIN), Spacer(1, 4 * mm), table,
    ]  # fmt: skip
    return build(f"{title}, ladder", [story], paper)


def put_back_sheet(
    title: str, sender: str, steps: Sequence[BackStep], contents: Sequence[tuple[int, str]], paper: Paper
) -> bytes:
    """A PDF for the receiver: what is in the box, then the steps in the order of putting together.

    Args:
        contents: how many of each thing is in the box.
    """
    return build(f"{title}, putting together", [put_back_story(title, sender, steps, contents)], paper)


def put_back_story(
    title: str, sender: str, steps: Sequence[BackStep], contents: Sequence[tuple[int, str]]
) -> Story:  # fmt: skip
    """The same as a part of other papers."""
    story: Story = [
        Paragraph(text(title, 90, bold=True), TITLE),
        Paragraph(f"Putting it together. Packed by {text(sender, 80)}." if sender else "Putting it together.", PLAIN),
        Spacer(1, 4 * mm),
        Paragraph("In the box", LARGE),
    ]
    story += [to_tick(f"{count} x {name}") for count, name in contents]
    story += [Spacer(1, 4 * mm), Paragraph("In this order", LARGE)]
    for step in steps:
        lines = [Paragraph(f"<b>{step.number}.</b> {text(step.do, 300)}", PLAIN)]
        needs = [f"with: {step.tool}" if step.tool else "", f"bag {step.bag}" if step.bag else ""]
        if any(needs):
            lines.append(Paragraph(text("; ".join(need for need in needs if need), 200), SMALL))
        if step.turn:
            lines.append(Paragraph(f"Taken off it turned so: {text(step.turn, 240)}", SMALL))
        if step.caution:
            lines.append(Paragraph(text(step.caution, 400), CAUTION))
        story.append(KeepTogether([*lines, Spacer(1, 3 * mm)]))
    return story

"""The packing sheet: plan, front and side of the packed box to scale, and a table of what goes in when and where.

The views stand as a drawing office lays them out in third angle: the plan above the front, the right side beside it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from reportlab.lib.pagesizes import landscape
from reportlab.pdfgen.canvas import FILL_EVEN_ODD, Canvas

from fardo.core.arrange.ask import Answer
from fardo.core.arrange.body import Body, stance
from fardo.core.goods.part import Sizes
from fardo.core.quantity import Length, Units, show_length
from fardo.files.page import PAPERS, Paper, mm, open_page

_MARGIN = 14 * mm
_BETWEEN = 15 * mm
_SCALES = (1, 2, 2.5, 3, 4, 5, 6, 8, 10, 12, 15, 20, 25, 30, 40, 50, 75, 100, 200)
_TABLE = 92 * mm
_ROW = 5.4 * mm
Flat = list[list[tuple[float, float]]]
# Of each view: its name, the axis that runs right, the axis that runs up, whether what runs right is seen from behind.
_VIEWS = (("plan", 0, 1), ("front", 0, 2), ("right side", 1, 2))


@dataclass(frozen=True, slots=True)
class Packing:
    """
    Args:
        box: what it is, in words. inside: of the box, the liner's room taken in. bodies and answer: what lies where in
        it. room: from the goods to each side of the box.
    """

    title: str
    box: str
    inside: Sizes
    bodies: tuple[Body, ...]
    answer: Answer
    room: tuple[tuple[str, Length], ...] = ()


def packing_sheet(packing: Packing, units: Units, paper: Paper) -> bytes:
    """A PDF page with the three views and the table; the table goes on over as many pages as it takes."""
    size = landscape(PAPERS[paper])
    buffer, canvas = open_page(f"{packing.title}, packing", size)
    width, height = size
    _head(canvas, packing, units, height)
    room = width - 2 * _MARGIN - _TABLE - _BETWEEN, height - 2 * _MARGIN - 20 * mm
    _views(canvas, packing, units, room)
    _table(canvas, packing, units, width - _MARGIN - _TABLE, height)
    canvas.save()
    return buffer.getvalue()


def _head(canvas: Canvas, packing: Packing, units: Units, height: float) -> None:
    canvas.setFont("Helvetica-Bold", 14)
    canvas.drawString(_MARGIN, height - _MARGIN, packing.title[:70])
    canvas.setFont("Helvetica", 9.5)
    words = " x ".join(_words(side, units).removesuffix(f" {units}") for side in packing.inside)
    said = f"{packing.box}, inside {words} {units}; each thing goes straight down, in this order"
    canvas.drawString(_MARGIN, height - _MARGIN - 5.5 * mm, said)
    if packing.room:
        free = ", ".join(f"{side} {_words(by, units).removesuffix(f' {units}')}" for side, by in packing.room)
        canvas.drawString(_MARGIN, height - _MARGIN - 10.5 * mm, f"free around the wrapped goods: {free} {units}")


def _views(canvas: Canvas, packing: Packing, units: Units, room: tuple[float, float]) -> None:
    x, y, z = (side.mm for side in packing.inside)
    scale = next(
        (s for s in _SCALES if (x + y) * mm / s + _BETWEEN <= room[0] and (y + z) * mm / s + _BETWEEN <= room[1]),
        _SCALES[-1],
    )
    unit = mm / scale
    front = _MARGIN + 8 * mm, _MARGIN + 8 * mm
    corners = {
        "front": front,
        "plan": (front[0], front[1] + z * unit + _BETWEEN),
        "right side": (front[0] + x * unit + _BETWEEN, front[1]),
    }
    for name, right, up in _VIEWS:
        _view(canvas, packing, units, name, (right, up), corners[name], unit)
    canvas.setFont("Helvetica", 8)
    canvas.drawString(_MARGIN, _MARGIN - 3 * mm, f"scale 1:{scale:g}")


def _view(
    canvas: Canvas, packing: Packing, units: Units, name: str, axes: tuple[int, int], corner: tuple[float, float],
    unit: float,
) -> None:  # fmt: skip
    right, up = axes
    width, height = (packing.inside[axis].mm * unit for axis in axes)
    canvas.setLineWidth(1.1)
    canvas.rect(*corner, width, height)
    canvas.setLineWidth(0.6)
    # What is nearer to the eye is drawn over what is behind it.
    depth = ({0, 1, 2} - set(axes)).pop()
    listed = _from_behind(packing, depth, near_is_low=name == "front")
    for _, which in listed:
        path = canvas.beginPath()
        for ring in silhouette(packing, which, axes):
            (a, b), *rest = [(corner[0] + x * unit, corner[1] + y * unit) for x, y in ring]
            path.moveTo(a, b)
            for x, y in rest:
                path.lineTo(x, y)
            path.close()
        canvas.setFillGray(0.94)
        canvas.drawPath(path, stroke=1, fill=1, fillMode=FILL_EVEN_ODD)  # an opening stays open
    for _, which in listed:
        if packing.bodies[which].boxed:
            (x, beyond_x), (y, beyond_y) = (_span(packing, which, axis) for axis in axes)
            canvas.rect(corner[0] + x * unit, corner[1] + y * unit, (beyond_x - x) * unit, (beyond_y - y) * unit)
    canvas.setFillGray(0)
    canvas.setFont("Helvetica-Bold", 8)
    for number, which in listed:
        across, along = _span(packing, which, right), _span(packing, which, up)
        canvas.drawCentredString(
            corner[0] + sum(across) / 2 * unit, corner[1] + sum(along) / 2 * unit - 2.6, str(number)
        )
    canvas.setFont("Helvetica", 8.5)
    canvas.drawString(corner[0], corner[1] + height + 1.6 * mm, name)
    canvas.drawCentredString(corner[0] + width / 2, corner[1] - 4 * mm, _words(packing.inside[right], units))
    canvas.saveState()
    canvas.translate(corner[0] - 2 * mm, corner[1] + height / 2)
    canvas.rotate(90)
    canvas.drawCentredString(0, 0, _words(packing.inside[up], units))
    canvas.restoreState()


def _from_behind(packing: Packing, depth: int, near_is_low: bool) -> list[tuple[int, int]]:
    """Each thing's place in the order of going in and its number, the furthest from the eye first."""
    listed = [(k + 1, which) for k, which in enumerate(packing.answer.order)]

    def nearness(entry: tuple[int, int]) -> float:
        low, high = _span(packing, entry[1], depth)
        return -low if near_is_low else high

    return sorted(listed, key=nearness)


def _span(packing: Packing, which: int, axis: int) -> tuple[float, float]:
    laid = packing.answer.laid[which]
    if laid is None:
        return 0.0, 0.0
    low = laid.at[axis].mm
    return low, low + stance(packing.bodies[which], laid.turn).sizes[axis].mm


def silhouette(packing: Packing, which: int, axes: tuple[int, int]) -> Flat:
    """The outline of a bare thing as it lies, seen along the third axis: rings of points, mm from the box's corner."""
    from fardo.core.goods.shape.solids import moved

    body, laid = packing.bodies[which], packing.answer.laid[which]
    if laid is None:
        return []
    stood = stance(body, laid.turn)
    at = [a.mm + inset.mm for a, inset in zip(laid.at, stood.inset, strict=True)]
    solid = moved(body.shape.solid(), laid.turn, at)
    # Seen from above after a turn that brings the two axes into the plane.
    rows = [[float(axis == k) for k in range(3)] for axis in (*axes, ({0, 1, 2} - set(axes)).pop())]
    if axes == (0, 2):
        rows[2] = [0.0, -1.0, 0.0]
    flat = moved(solid, rows, (0, 0, 0)).project().simplify(0.2)
    return [[(float(a), float(b)) for a, b in ring] for ring in flat.to_polygons()]


def _table(canvas: Canvas, packing: Packing, units: Units, x: float, height: float) -> None:
    y = height - _MARGIN - 14 * mm
    heads = ("", "goes in", "left", "front", "floor")
    columns = (0.0, 6 * mm, 44 * mm, 60 * mm, 76 * mm)

    def row(cells: Sequence[str], font: str) -> None:
        canvas.setFont(font, 8.5)
        for cell, column in zip(cells, columns, strict=True):
            canvas.drawString(x + column, y, cell)

    row(heads, "Helvetica-Bold")
    for k, which in enumerate(packing.answer.order):
        y -= _ROW
        if y < _MARGIN:
            canvas.showPage()
            y = height - _MARGIN
            row(heads, "Helvetica-Bold")
            y -= _ROW
        laid = packing.answer.laid[which]
        if laid is None:
            continue
        places = [_words(c, units).removesuffix(f" {units}") for c in laid.at]
        row((str(k + 1), packing.bodies[which].name[:24], *places), "Helvetica")
    canvas.setFont("Helvetica", 8)
    words = f"from the walls and the floor to the wrapped thing, {units}"
    canvas.drawString(x, max(y - 2 * _ROW, _MARGIN - 3 * mm), words)


def _words(length: Length, units: Units) -> str:
    return show_length(length, units, "nearest").text

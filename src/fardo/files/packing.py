"""The packing sheet: plan, front and side of the packed box as large as the page takes them, then all that is done, in
order and each with a box to tick: wrap, what goes under, what goes in where, what fills the rest.

The views stand as a drawing office lays them out in third angle: the plan above the front, the right side beside it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from reportlab.lib.pagesizes import landscape
from reportlab.pdfgen.canvas import FILL_EVEN_ODD, Canvas

from fardo.core.arrange.ask import Arrangement
from fardo.core.arrange.body import NO_WEIGHT, Body, stance
from fardo.core.goods.part import Sizes
from fardo.core.quantity import Length, Rounding, Units, show_length, show_mass, show_sizes
from fardo.files.lettering import lines_of, set_words
from fardo.files.page import MARGIN, PAPERS, Heading, Pages, Paper, mm, print_pages, tick_box

_BETWEEN = 13 * mm
_SCALES = (1, 1.5, 2, 2.5, 3, 3.5, 4, 5, 6, 7, 8, 10, 12, 15, 20, 25, 30, 40, 50, 75, 100, 200)
_LEAST_SPOT = 7.0  # points across, in which a number is readable
Flat = list[list[tuple[float, float]]]
# Of each view: its name, the axis that runs right, the axis that runs up, whether what runs right is seen from behind.
_VIEWS = (("plan", 0, 1), ("front", 0, 2), ("right side", 1, 2))


@dataclass(frozen=True, slots=True)
class PackingSheet:
    """The packing sheet of a job.

    Args:
        box: what it is, in words.
        inside: of the box.
        bodies and answer: what lies where in it.
        room: from the goods to each side of the box.
        soft: whether it closes on the goods.
        wrap: what is put on what, and how.
        under: how deep the place under the goods is, and what goes in.
        fill: each other place, how deep it is and what goes in.
        full: how full it is packed.
        last: what is folded or laid on top, last of all.
        day: it is printed.
    """

    title: str
    box: str
    inside: Sizes
    bodies: tuple[Body, ...]
    answer: Arrangement
    room: tuple[tuple[str, Length], ...] = ()
    soft: bool = False
    wrap: tuple[tuple[str, str], ...] = ()
    under: tuple[tuple[str, str, str], ...] = ()
    fill: tuple[tuple[str, str, str], ...] = ()
    full: str = ""
    last: tuple[str, ...] = ()
    day: str = ""


def packing_sheet(packing: PackingSheet, units: Units, paper: Paper) -> bytes:
    """A PDF page with the three views, then the tables; they go on over as many pages as they take."""
    lines = [f"inside {show_sizes(packing.inside, units, 'down')}"]
    if packing.soft:
        lines = [f"closed on the goods as wrapped, {show_sizes(packing.inside, units, 'up')}"]
    elif packing.room:
        free = ", ".join(f"{side} {_words(by, units, 'down')}" for side, by in packing.room)
        lines.append(f"free around the wrapped goods: {free} {units}")
    heading = Heading(packing.title, tuple(lines), packing.box, packing.day)

    def fill(pages: Pages) -> None:
        _views(pages, packing, units)
        pages.begin()
        if packing.wrap:
            _wrap(pages, packing)
        if packing.under:
            _fill(pages, "Fill first", packing.under)
        _goes_in(pages, packing, units)
        if packing.fill:
            _fill(pages, "Fill", packing.fill)
            _says(pages, packing.full)
        _last(pages, packing)

    return print_pages(heading, landscape(PAPERS[paper]), fill)


def _views(pages: Pages, packing: PackingSheet, units: Units) -> None:
    x, y, z = (side.mm for side in packing.inside)
    room = pages.inner - _BETWEEN - 8 * mm, pages.room - _BETWEEN - 12 * mm
    scale = next((s for s in _SCALES if (x + y) * mm / s <= room[0] and (y + z) * mm / s <= room[1]), _SCALES[-1])
    unit = mm / scale
    front = MARGIN + 8 * mm, MARGIN + 8 * mm
    corners = {
        "front": front,
        "plan": (front[0], front[1] + z * unit + _BETWEEN),
        "right side": (front[0] + x * unit + _BETWEEN, front[1]),
    }
    for name, right, up in _VIEWS:
        _view(pages.canvas, packing, units, name, (right, up), corners[name], unit)
    set_words(pages.canvas, pages.width - MARGIN, MARGIN - 3 * mm, f"scale 1:{scale:g}", 8, align="right")


def _view(
    canvas: Canvas, packing: PackingSheet, units: Units, name: str, axes: tuple[int, int], corner: tuple[float, float],
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
    taken: list[tuple[float, float]] = []
    # The nearest first: a number that would stand on another is left out of this view; the others show it.
    for number, which in reversed(listed):
        across, along = _span(packing, which, right), _span(packing, which, up)
        spot = corner[0] + sum(across) / 2 * unit, corner[1] + sum(along) / 2 * unit
        if all(abs(spot[0] - a) > 2 * _LEAST_SPOT or abs(spot[1] - b) > 1.4 * _LEAST_SPOT for a, b in taken):
            set_words(canvas, spot[0], spot[1] - 3, str(number), 9, bold=True, align="middle")
            taken.append(spot)
    set_words(canvas, corner[0], corner[1] + height + 1.6 * mm, name, 8.5)
    rounding: Rounding = "up" if packing.soft else "down"
    side = _words(packing.inside[right], units, rounding)
    set_words(canvas, corner[0] + width / 2, corner[1] - 4 * mm, f"{side} {units}", 8.5, align="middle")
    canvas.saveState()
    canvas.translate(corner[0] - 2 * mm, corner[1] + height / 2)
    canvas.rotate(90)
    set_words(canvas, 0, 0, f"{_words(packing.inside[up], units, rounding)} {units}", 8.5, align="middle")
    canvas.restoreState()


def _from_behind(packing: PackingSheet, depth: int, near_is_low: bool) -> list[tuple[int, int]]:
    """Each thing's place in the order of going in and its number, the furthest from the eye first."""
    listed = [(k + 1, which) for k, which in enumerate(packing.answer.order)]

    def nearness(entry: tuple[int, int]) -> float:
        low, high = _span(packing, entry[1], depth)
        return -low if near_is_low else high

    return sorted(listed, key=nearness)


def _span(packing: PackingSheet, which: int, axis: int) -> tuple[float, float]:
    laid = packing.answer.laid[which]
    if laid is None:
        return 0.0, 0.0
    low = laid.at[axis].mm
    return low, low + stance(packing.bodies[which], laid.turn).sizes[axis].mm


def silhouette(packing: PackingSheet, which: int, axes: tuple[int, int]) -> Flat:
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


def _wrap(pages: Pages, packing: PackingSheet) -> None:
    columns = [MARGIN + at * mm for at in (7, 60)]
    pages.need(14 * mm)
    _row(pages, ("Wrap", "in this order"), columns, bold=True)
    before = ""
    for what, how in packing.wrap:
        names = lines_of(what, columns[1] - columns[0] - 3 * mm, 9.5) if what != before else [""]
        lines = lines_of(how, pages.width - MARGIN - columns[1], 9.5)
        further = 4.4 * mm * (max(len(lines), len(names)) - 1)
        pages.need(6 * mm + further)
        tick_box(pages.canvas, MARGIN, pages.y - 4.2 * mm)
        for column, words in zip(columns, (names, lines), strict=True):
            for k, line in enumerate(words):
                set_words(pages.canvas, column, pages.y - 3.6 * mm - k * 4.4 * mm, line, 9.5)
        pages.y -= 5.8 * mm + further
        before = what
    pages.y -= 3 * mm


def _goes_in(pages: Pages, packing: PackingSheet, units: Units) -> None:
    """Each thing in the order in which it goes in, straight down."""
    heads = (
        "",
        "Goes in" if packing.soft else "Goes in, straight down",
        f"size, {units}",
        "weight",
        "way up",
        "left",
        "front",
        "floor",
    )
    columns = [MARGIN + at * mm for at in (7, 14, 106, 146, 168, 196, 214, 232)]
    _row(pages, heads, columns, bold=True)
    for k, which in enumerate(packing.answer.order):
        laid, body = packing.answer.laid[which], packing.bodies[which]
        if laid is None:
            continue
        names = lines_of(body.name, columns[2] - columns[1] - 3 * mm, 9.5)
        if pages.room < 6 * mm + 4.4 * mm * (len(names) - 1):
            pages.begin()
            _row(pages, heads, columns, bold=True)
        places = [_words(c, units, "down") for c in laid.at]
        size = show_sizes(stance(body, laid.turn).sizes, units, "up").text.removesuffix(f" {units}")
        weight = show_mass(body.weight, units, "up").text if body.weight > NO_WEIGHT else ""
        up = "this side up" if body.this_side_up else "flat" if body.keep_flat else ""
        tick_box(pages.canvas, MARGIN, pages.y - 4.2 * mm)
        _row(pages, (str(k + 1), names[0], size, weight, up, *places), columns)
        for line in names[1:]:
            set_words(pages.canvas, columns[1], pages.y - 2.6 * mm, line, 9.5)
            pages.y -= 4.4 * mm
    pages.need(6 * mm)
    says = f"from the left wall, the front wall and the floor to the wrapped thing, {units}; sizes as it lies, wrapped"
    set_words(pages.canvas, columns[1], pages.y - 4 * mm, says, 8)
    pages.y -= 9 * mm


def _fill(pages: Pages, title: str, places: Sequence[tuple[str, str, str]]) -> None:
    columns = [MARGIN + at * mm for at in (7, 60, 96)]
    pages.need(18 * mm)
    _row(pages, (title, "deep", "with"), columns, bold=True)
    for place, deep, fetch in places:
        pages.need(6 * mm)
        tick_box(pages.canvas, MARGIN, pages.y - 4.2 * mm)
        _row(pages, (place, deep, fetch), columns)
    pages.y -= 3 * mm


def _says(pages: Pages, sentence: str) -> None:
    for line in lines_of(sentence, pages.inner, 9.5):
        pages.need(6 * mm)
        set_words(pages.canvas, MARGIN, pages.y - 2 * mm, line, 9.5)
        pages.y -= 5 * mm
    pages.y -= 1 * mm


def _last(pages: Pages, packing: PackingSheet) -> None:
    for name in packing.last:
        pages.need(6 * mm)
        tick_box(pages.canvas, MARGIN, pages.y - 4.2 * mm)
        _row(pages, (f"{name}, last, on top",), [MARGIN + 7 * mm])


def _row(pages: Pages, cells: Sequence[str], columns: Sequence[float], bold: bool = False) -> None:
    for cell, x in zip(cells, columns, strict=True):
        set_words(pages.canvas, x, pages.y - 3.6 * mm, cell, 9.5, bold)
    pages.y -= 5.8 * mm


def _words(length: Length, units: Units, rounding: Rounding) -> str:
    return show_length(length, units, rounding).text.removesuffix(f" {units}")

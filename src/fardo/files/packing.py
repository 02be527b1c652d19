"""The packing sheet: views of the packed box, a plan of each layer, then all that is done in order, with boxes to tick:
wrap, what goes under, what goes in where, what fills the rest.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from reportlab.lib.pagesizes import landscape

from fardo.core.arrange.body import NO_WEIGHT, stance
from fardo.core.quantity import Length, Units, show_mass, show_sizes
from fardo.files.lettering import lines_of, set_words
from fardo.files.packing_views import PackedBox, layer_pages, plain_length, views
from fardo.files.page import MARGIN, PAPERS, Heading, Pages, Paper, mm, print_pages, tick_box


@dataclass(frozen=True, slots=True)
class PackingSheet:
    """The packing sheet of a job.

    Args:
        box: what it is, in words.
        packed: what lies where in it.
        room: from the goods to each side of the box.
        wrap: what is put on what, and how.
        under: how deep the place under the goods is, and what goes in.
        fill: each other place, how deep it is and what goes in.
        full: how full it is packed.
        last: what is folded or laid on top, last of all.
        day: it is printed.
    """

    title: str
    box: str
    packed: PackedBox
    room: tuple[tuple[str, Length], ...] = ()
    wrap: tuple[tuple[str, str], ...] = ()
    under: tuple[tuple[str, str, str], ...] = ()
    fill: tuple[tuple[str, str, str], ...] = ()
    full: str = ""
    last: tuple[str, ...] = ()
    day: str = ""


def packing_sheet(packing: PackingSheet, units: Units, paper: Paper) -> bytes:
    """A PDF page with the three views, one for each layer, then the tables over as many pages as they take."""
    lines = [f"inside {show_sizes(packing.packed.inside, units, 'down')}"]
    if packing.packed.soft:
        lines = [f"closed on the goods as wrapped, {show_sizes(packing.packed.inside, units, 'up')}"]
    elif packing.room:
        free = ", ".join(f"{side} {plain_length(by, units, 'down')}" for side, by in packing.room)
        lines.append(f"free around the wrapped goods: {free} {units}")
    heading = Heading(packing.title, tuple(lines), packing.box, packing.day)

    def fill(pages: Pages) -> None:
        views(pages, packing.packed, units)
        layer_pages(pages, packing.packed, units)
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
        "Goes in" if packing.packed.soft else "Goes in, straight down",
        f"size, {units}",
        "weight",
        "way up",
        "left",
        "front",
        "floor",
    )
    columns = [MARGIN + at * mm for at in (7, 14, 106, 146, 168, 196, 214, 232)]
    _row(pages, heads, columns, bold=True)
    for k, which in enumerate(packing.packed.answer.order):
        laid, body = packing.packed.answer.laid[which], packing.packed.bodies[which]
        if laid is None:
            continue
        names = lines_of(body.name, columns[2] - columns[1] - 3 * mm, 9.5)
        if pages.room < 6 * mm + 4.4 * mm * (len(names) - 1):
            pages.begin()
            _row(pages, heads, columns, bold=True)
        places = [plain_length(c, units, "down") for c in laid.at]
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

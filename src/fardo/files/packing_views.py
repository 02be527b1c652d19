"""What lies where in a packed box, drawn: plan, front and right side to one scale, then a large plan of each layer.

The three views stand as a drawing office lays them out in third angle: the plan above the front, the right side beside
it. Every number is the thing's place in the order of going in.
"""

from __future__ import annotations

from dataclasses import dataclass

from manifold3d import CrossSection
from reportlab.pdfgen.canvas import FILL_EVEN_ODD, Canvas

from fardo.core.arrange.ask import Arrangement
from fardo.core.arrange.body import Body, stance
from fardo.core.goods.part import Sizes
from fardo.core.quantity import ZERO, Length, Rounding, Units, show_length
from fardo.files.lettering import lines_of, set_words, width_of
from fardo.files.page import MARGIN, Pages, mm

_BETWEEN = 13 * mm
_SCALES = (1, 1.5, 2, 2.5, 3, 3.5, 4, 5, 6, 7, 8, 10, 12, 15, 20, 25, 30, 40, 50, 75, 100, 200)
_LEAST_SPOT = 7.0  # points across, in which a number is readable
_NAMES = 62 * mm  # beside the plan of a layer
_OVER_ANOTHER_MM2 = 1.0  # two outlines that share no more than this only touch
Flat = list[list[tuple[float, float]]]
# Of each view: its name, the axis that runs right, the axis that runs up, whether what runs right is seen from behind.
_VIEWS = (("plan", 0, 1), ("front", 0, 2), ("right side", 1, 2))


@dataclass(frozen=True, slots=True)
class PackedBox:
    """What lies where in a box.

    Args:
        inside: of the box.
        bodies and answer: what lies where in it.
        soft: whether it closes on the goods.
    """

    inside: Sizes
    bodies: tuple[Body, ...]
    answer: Arrangement
    soft: bool = False


def views(pages: Pages, packed: PackedBox, units: Units) -> None:
    """Plan, front and right side, as large as the rest of the page takes them together."""
    x, y, z = (side.mm for side in packed.inside)
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
        _view(pages.canvas, packed, units, name, (right, up), corners[name], unit)
    set_words(pages.canvas, pages.width - MARGIN, MARGIN - 3 * mm, f"scale 1:{scale:g}", 8, align="right")


def _view(
    canvas: Canvas, packed: PackedBox, units: Units, name: str, axes: tuple[int, int], corner: tuple[float, float],
    unit: float,
) -> None:  # fmt: skip
    right, up = axes
    width, height = (packed.inside[axis].mm * unit for axis in axes)
    canvas.setLineWidth(1.1)
    canvas.rect(*corner, width, height)
    canvas.setLineWidth(0.6)
    # What is nearer to the eye is drawn over what is behind it.
    depth = ({0, 1, 2} - set(axes)).pop()
    listed = _from_behind(packed, depth, near_is_low=name == "front")
    for _, which in listed:
        _outline(canvas, silhouette(packed, which, axes), corner, unit)
    for _, which in listed:
        if packed.bodies[which].boxed:
            _around(canvas, packed, which, axes, corner, unit)
    canvas.setFillGray(0)
    taken: list[tuple[float, float]] = []
    # The nearest first: a number that would stand on another is left out of this view; the others show it.
    for number, which in reversed(listed):
        across, along = _span(packed, which, right), _span(packed, which, up)
        spot = corner[0] + sum(across) / 2 * unit, corner[1] + sum(along) / 2 * unit
        if all(abs(spot[0] - a) > 2 * _LEAST_SPOT or abs(spot[1] - b) > 1.4 * _LEAST_SPOT for a, b in taken):
            set_words(canvas, spot[0], spot[1] - 3, str(number), 9, bold=True, align="middle")
            taken.append(spot)
    set_words(canvas, corner[0], corner[1] + height + 1.6 * mm, name, 8.5)
    _two_sides(canvas, packed, axes, corner, (width, height), units)


def _outline(canvas: Canvas, rings: Flat, corner: tuple[float, float], unit: float, filled: bool = True) -> None:
    path = canvas.beginPath()
    for ring in rings:
        (a, b), *rest = [(corner[0] + x * unit, corner[1] + y * unit) for x, y in ring]
        path.moveTo(a, b)
        for x, y in rest:
            path.lineTo(x, y)
        path.close()
    canvas.setFillGray(0.94)
    canvas.drawPath(path, stroke=1, fill=int(filled), fillMode=FILL_EVEN_ODD)  # an opening stays open


def _around(
    canvas: Canvas, packed: PackedBox, which: int, axes: tuple[int, int], corner: tuple[float, float], unit: float
) -> None:
    """The inner box that a thing lies in."""
    (x, beyond_x), (y, beyond_y) = (_span(packed, which, axis) for axis in axes)
    canvas.rect(corner[0] + x * unit, corner[1] + y * unit, (beyond_x - x) * unit, (beyond_y - y) * unit)


def _two_sides(
    canvas: Canvas, packed: PackedBox, axes: tuple[int, int], corner: tuple[float, float], size: tuple[float, float],
    units: Units,
) -> None:  # fmt: skip
    """How long the box is inside, along the foot of a view and up its left side."""
    (right, up), (width, height) = axes, size
    rounding: Rounding = "up" if packed.soft else "down"
    side = plain_length(packed.inside[right], units, rounding)
    set_words(canvas, corner[0] + width / 2, corner[1] - 4 * mm, f"{side} {units}", 8.5, align="middle")
    canvas.saveState()
    canvas.translate(corner[0] - 2 * mm, corner[1] + height / 2)
    canvas.rotate(90)
    set_words(canvas, 0, 0, f"{plain_length(packed.inside[up], units, rounding)} {units}", 8.5, align="middle")
    canvas.restoreState()


def _from_behind(packed: PackedBox, depth: int, near_is_low: bool) -> list[tuple[int, int]]:
    """Each thing's place in the order of going in and its number, the furthest from the eye first."""
    listed = [(k + 1, which) for k, which in enumerate(packed.answer.order)]

    def nearness(entry: tuple[int, int]) -> float:
        low, high = _span(packed, entry[1], depth)
        return -low if near_is_low else high

    return sorted(listed, key=nearness)


def _span(packed: PackedBox, which: int, axis: int) -> tuple[float, float]:
    laid = packed.answer.laid[which]
    if laid is None:
        return 0.0, 0.0
    low = laid.at[axis].mm
    return low, low + stance(packed.bodies[which], laid.turn).sizes[axis].mm


def silhouette(packed: PackedBox, which: int, axes: tuple[int, int]) -> Flat:
    """The outline of a bare thing as it lies, seen along the third axis: rings of points, mm from the box's corner."""
    seen = _seen(packed, which, axes)
    return [[(float(a), float(b)) for a, b in ring] for ring in seen.to_polygons()] if seen is not None else []


def _seen(packed: PackedBox, which: int, axes: tuple[int, int]) -> CrossSection | None:
    from fardo.core.goods.shape.solids import moved

    body, laid = packed.bodies[which], packed.answer.laid[which]
    if laid is None:
        return None
    stood = stance(body, laid.turn)
    at = [a.mm + inset.mm for a, inset in zip(laid.at, stood.inset, strict=True)]
    solid = moved(body.shape.solid(), laid.turn, at)
    # Seen from above after a turn that brings the two axes into the plane.
    rows = [[float(axis == k) for k in range(3)] for axis in (*axes, ({0, 1, 2} - set(axes)).pop())]
    if axes == (0, 2):
        rows[2] = [0.0, -1.0, 0.0]
    return moved(solid, rows, (0, 0, 0)).project().simplify(0.2)


def layers_packed(packed: PackedBox) -> list[list[int]]:
    """What goes in, in order, parted where a thing lies over one that went in since the last parting.

    Returns:
        Of each layer the places in the order of going in, from 0; seen from above none of a layer covers another.
    """
    found: list[list[int]] = []
    covered: list[CrossSection] = []
    for k, which in enumerate(packed.answer.order):
        seen = _seen(packed, which, (0, 1))
        if seen is None:
            continue
        if not found or any((seen ^ under).area() > _OVER_ANOTHER_MM2 for under in covered):
            found.append([])
            covered = []
        found[-1].append(k)
        covered.append(seen)
    return found


def layer_pages(pages: Pages, packed: PackedBox, units: Units) -> None:
    """A page for each layer of what goes in, with names: a single thing needs none."""
    layers = layers_packed(packed)
    if len(packed.answer.order) < 2:
        return
    for n, layer in enumerate(layers):
        pages.begin()
        low = min((_at(packed, k)[2] for k in layer), default=ZERO)
        title = f"Layer {n + 1} of {len(layers)}" if len(layers) > 1 else "One layer"
        where = f"from {show_length(low, units, 'down')} above the floor" if low > ZERO else "on the floor"
        set_words(pages.canvas, MARGIN, pages.y - 3.6 * mm, f"{title}, {where}, seen from above", 11, bold=True)
        pages.y -= 9 * mm
        _layer(pages, packed, layer, layers[n - 1] if n else [], units)


def _layer(pages: Pages, packed: PackedBox, layer: list[int], under: list[int], units: Units) -> None:
    """Plan of a layer, what lies right under it dashed; names stand in the things that have room, and all beside it."""
    canvas, axes = pages.canvas, (0, 1)
    x, y = (side.mm for side in packed.inside[:2])
    wide, high = pages.inner - _NAMES - 8 * mm, pages.room - 8 * mm
    scale = next((s for s in _SCALES if x * mm / s <= wide and y * mm / s <= high), _SCALES[-1])
    unit = mm / scale
    width, height = x * unit, y * unit
    corner = MARGIN + _NAMES + 8 * mm, pages.y - height
    canvas.setDash([2, 2], 0)
    canvas.setLineWidth(0.4)
    for k in under:
        _outline(canvas, silhouette(packed, packed.answer.order[k], axes), corner, unit, filled=False)
    canvas.setDash([], 0)
    canvas.setLineWidth(1.1)
    canvas.rect(*corner, width, height)
    canvas.setLineWidth(0.8)
    for k in layer:
        which = packed.answer.order[k]
        _outline(canvas, silhouette(packed, which, axes), corner, unit)
        if packed.bodies[which].boxed:
            _around(canvas, packed, which, axes, corner, unit)
    canvas.setFillGray(0)
    for k in layer:
        _named(canvas, packed, k, corner, unit)
    _two_sides(canvas, packed, axes, corner, (width, height), units)
    set_words(canvas, corner[0], corner[1] - 4 * mm, "front", 8.5)
    set_words(canvas, pages.width - MARGIN, MARGIN - 3 * mm, f"scale 1:{scale:g}", 8, align="right")
    for k in layer:
        lines = lines_of(packed.bodies[packed.answer.order[k]].name, _NAMES - 10 * mm, 9.5)
        if pages.y - MARGIN < 5 * mm * len(lines):
            break  # the table that follows names them all
        set_words(canvas, MARGIN + 6 * mm, pages.y - 3.6 * mm, str(k + 1), 9.5, bold=True, align="right")
        for line in lines:
            set_words(canvas, MARGIN + 9 * mm, pages.y - 3.6 * mm, line, 9.5)
            pages.y -= 4.6 * mm
        pages.y -= 1.2 * mm


def _named(canvas: Canvas, packed: PackedBox, k: int, corner: tuple[float, float], unit: float) -> None:
    """A thing's number in its middle, its name below where it has room in it."""
    which = packed.answer.order[k]
    (left, right), (low, high) = (_span(packed, which, axis) for axis in (0, 1))
    middle = corner[0] + (left + right) / 2 * unit, corner[1] + (low + high) / 2 * unit
    wide, tall = (right - left) * unit - 2 * mm, (high - low) * unit - 2 * mm
    lines = lines_of(packed.bodies[which].name, wide, 8) if wide > 12 * mm else []
    if len(lines) * 3.4 * mm + 5 * mm > tall or any(width_of(line, 8) > wide for line in lines):
        lines = []
    y = middle[1] - 4 + len(lines) * 1.7 * mm
    set_words(canvas, middle[0], y, str(k + 1), 11, bold=True, align="middle")
    for n, line in enumerate(lines):
        set_words(canvas, middle[0], y - (n + 1) * 3.4 * mm, line, 8, align="middle")


def _at(packed: PackedBox, k: int) -> tuple[Length, Length, Length]:
    laid = packed.answer.laid[packed.answer.order[k]]
    return laid.at if laid is not None else (ZERO, ZERO, ZERO)


def plain_length(length: Length, units: Units, rounding: Rounding) -> str:
    """A length in the shop's units without naming them."""
    return show_length(length, units, rounding).text.removesuffix(f" {units}")

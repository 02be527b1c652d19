"""The drawing of a telescoped stack from the side, with what goes inside and what stays outside at every joint."""

from __future__ import annotations

from fardo.core.cut.drawing import Blank, Line, Note, chain
from fardo.core.quantity import ZERO, Length


def draw_stack(across: Length, height: Length, flap: Length, caliper: Length, boxes: int, pull: Length) -> Blank:
    """Seen from its longer side, standing. Flaps inside the box below are dashed as what is hidden is.

    Args:
        across, height: inside of one box.
        pull: at each joint.
    """
    wide = caliper * 2  # the flaps that stay outside, over the walls
    left, right = wide, wide + across
    whole = across + wide * 2
    lines: list[Line] = []
    notes: list[Note] = []
    marks = [ZERO]
    for n in range(boxes):
        low = (height + pull) * n
        high = low + height
        corners = ((left, low), (right, low), (right, high), (left, high))
        lines += [Line("cut", a, b) for a, b in zip(corners, (*corners[1:], corners[0]), strict=True)]
        notes.append(Note((whole.half(), low + height.half()), f"box {n + 1}"))
        marks += [low, high]
        if n + 1 < boxes:
            top = high + flap
            lines += [Line("cut", (ZERO, high), (ZERO, top)), Line("cut", (whole, high), (whole, top)),
                      Line("cut", (ZERO, top), (left, top)), Line("cut", (right, top), (whole, top)),
                      Line("cut", (ZERO, high), (left, high)), Line("cut", (right, high), (whole, high))]  # fmt: skip
        if n:
            foot = low - flap
            inner = (left + caliper, right - caliper)
            lines += [Line("score", (x, foot), (x, low)) for x in inner]
            lines.append(Line("score", (inner[0], foot), (inner[1], foot)))
    top = marks[-1]
    outline = ((ZERO, ZERO), (whole, ZERO), (whole, top), (ZERO, top))
    dimensions = [*chain((left, right), "below", ZERO), *chain((ZERO, top), "left", ZERO),
                  *chain(tuple(dict.fromkeys(marks)), "right", whole)]  # fmt: skip
    if boxes > 1:
        # How much of the flaps outside lies over the upper box, at the lowest joint.
        dimensions += chain((height + pull, height + flap), "right", whole, 3)
    return Blank("stack", (whole, top), outline, tuple(lines), tuple(dimensions), tuple(notes), "either way")

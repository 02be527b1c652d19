"""A blank laid out for a page: strokes and words, from which screen, paper and print are all drawn.

Everything is in millimetres of the real blank, y upwards. Only the size of the words depends on how large the drawing
will be seen, and with it how far the dimension lines stand off.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fardo.core.cut.drawing import Blank, Dimension, Kind
from fardo.core.quantity import Length, Units, show_length

StrokeKind = Kind | Literal["thin"]

# Dash lengths in units of the words' height: drawing-office practice tells kinds by dash, never by colour.
DASHES: dict[StrokeKind, tuple[float, ...]] = {
    "cut": (), "slot": (), "score": (1.1, 0.45), "second-score": (1.1, 0.3, 0.2, 0.3), "thin": (),
}  # fmt: skip
WIDTHS: dict[StrokeKind, float] = {"cut": 0.16, "slot": 0.16, "score": 0.1, "second-score": 0.1, "thin": 0.05}
MEANINGS: tuple[tuple[StrokeKind, str], ...] = (
    ("cut", "cut"), ("score", "score, inner face"), ("second-score", "second score"),
)  # fmt: skip

_GLYPH = 0.6  # width of a figure against its height
_ROW = 2.3  # distance between rows of dimension lines, in heights


@dataclass(frozen=True, slots=True)
class Stroke:
    kind: StrokeKind
    x1: float
    y1: float
    x2: float
    y2: float


@dataclass(frozen=True, slots=True)
class Words:
    """Text centred at a point, turned `angle` degrees against the clock; `role` is dimension or note."""

    x: float
    y: float
    text: str
    angle: int
    role: Literal["dimension", "note"]


@dataclass(frozen=True, slots=True)
class Drawn:
    """
    Args:
        height: of the words. left, bottom, right, top: of everything drawn. outline: of the blank, for a fill.
    """

    height: float
    left: float
    bottom: float
    right: float
    top: float
    outline: tuple[tuple[float, float], ...]
    strokes: tuple[Stroke, ...]
    words: tuple[Words, ...]


def draw(blank: Blank, units: Units, words_height: float) -> Drawn:
    """Lays a blank out with words `words_height` mm high, measured on the blank.

    Dimensions are shown to a sixty-fourth or a tenth of a millimetre, so that nothing on the sheet is rounded away.
    """
    h = words_height
    x, y = blank.size[0].mm, blank.size[1].mm
    strokes = [
        Stroke(line.kind, line.start[0].mm, line.start[1].mm, line.end[0].mm, line.end[1].mm) for line in blank.lines
    ]
    words: list[Words] = [Words(note.at[0].mm, note.at[1].mm, note.text, 0, "note") for note in blank.notes]
    for dimension in blank.dimensions:
        thin, text = _dimension(dimension, units, h, x, y)
        strokes += thin
        words.append(text)
    margin = {side: _margin(row) * h for side, row in _rows(blank).items()}
    return Drawn(
        h, -margin["left"], -margin["below"], x + margin["right"], y + margin["above"],
        tuple((a.mm, b.mm) for a, b in blank.outline), tuple(strokes), tuple(words),
    )  # fmt: skip


@dataclass(frozen=True, slots=True)
class Seen:
    """How a drawing will be seen: the room it is fitted into, and how high its words should be there, in pixels."""

    width: int
    height: int
    words: int


ON_SCREEN = Seen(570, 330, 14)


def words_height_for(blank: Blank, seen: Seen = ON_SCREEN) -> float:
    """The height of words on the blank, in mm, that reads as asked once the drawing with its dimensions is fitted."""
    rows = _rows(blank)
    heights = []
    # Fitted to the width, a millimetre is seen.width / (x + margins) pixels, and the margins grow with the words.
    for size, room, sides in (
        (blank.size[0].mm, seen.width, ("left", "right")),
        (blank.size[1].mm, seen.height, ("above", "below")),
    ):
        margin = sum(_margin(rows[side]) for side in sides)
        heights.append(seen.words * size / (room - seen.words * margin))
    return max(heights)


def exact_text(length: Length, units: Units) -> str:
    """A figure of a cut sheet: without its unit, and fine enough that nothing is rounded away at the bench."""
    step = Length(396_875) if units == "in" else Length(100_000)
    return show_length(length, units, "nearest", step).text.removesuffix(f" {units}")


def _rows(blank: Blank) -> dict[str, int]:
    """How many rows of dimension lines stand on each side."""
    return {
        side: max((d.row for d in blank.dimensions if d.side == side), default=0)
        for side in ("left", "right", "above", "below")
    }


def _margin(rows: int) -> float:
    """How far the drawing reaches beyond the blank on a side, in heights of the words."""
    return rows * _ROW + 1.6 if rows else 1.0


def _dimension(d: Dimension, units: Units, h: float, x: float, y: float) -> tuple[list[Stroke], Words]:
    along_x = d.side in ("above", "below")
    sign = 1 if d.side in ("above", "right") else -1
    edge = {"above": y, "below": 0.0, "right": x, "left": 0.0}[d.side]
    at = edge + sign * d.row * _ROW * h
    a, b = sorted((d.start[0].mm, d.end[0].mm) if along_x else (d.start[1].mm, d.end[1].mm))
    text = exact_text(d.length, units)
    room = len(text) * _GLYPH * h + 0.8 * h
    fits = b - a > room
    middle = (a + b) / 2
    spans = [(a, middle - room / 2), (middle + room / 2, b)] if fits else [(a, b)]
    # Where the figure is wider than what it measures, it stands outside the line instead of in a gap of it.
    text_at = at if fits else at + sign * 0.95 * h
    tick = 0.45 * h
    strokes: list[Stroke] = []
    for start, end in spans:
        strokes.append(_across(along_x, start, at, end, at))
    for end in (a, b):
        strokes.append(_across(along_x, end, edge + sign * 0.35 * h, end, at + sign * tick))
    if along_x:
        return strokes, Words(middle, text_at, text, 0, "dimension")
    return strokes, Words(text_at, middle, text, 90, "dimension")


def _across(along_x: bool, u1: float, v1: float, u2: float, v2: float) -> Stroke:
    return Stroke("thin", u1, v1, u2, v2) if along_x else Stroke("thin", v1, u1, v2, u2)

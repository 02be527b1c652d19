"""A blank as SVG: real millimetres, kinds of line told apart by dash, colours left to the page it stands in."""

from __future__ import annotations

from xml.sax.saxutils import escape, quoteattr

from fardo.core.cut.drawing import Blank
from fardo.core.quantity import Units
from fardo.files.drawn import DASHES, WIDTHS, draw, words_height_for


def svg(blank: Blank, units: Units) -> str:
    """A whole SVG document; opened by itself it is drawn at real size.

    Presentation attributes carry the look, so that a strict page may show it and a style sheet may re-ink it by class.
    """
    drawn = draw(blank, units, words_height_for(blank, units))
    h = drawn.height
    width, height = drawn.right - drawn.left, drawn.top - drawn.bottom

    def at(x: float, y: float) -> tuple[str, str]:
        return f"{x - drawn.left:.4f}", f"{drawn.top - y:.4f}"

    points = " ".join(",".join(at(x, y)) for x, y in drawn.outline)
    body = [f'<polygon class="board" points="{points}" fill="#ecdcc3" stroke="none"/>']
    for stroke in drawn.strokes:
        (x1, y1), (x2, y2) = at(stroke.x1, stroke.y1), at(stroke.x2, stroke.y2)
        dashes = " ".join(f"{dash * h:.3f}" for dash in DASHES[stroke.kind])
        dashed = f' stroke-dasharray="{dashes}"' if dashes else ""
        body.append(
            f'<line class="{stroke.kind}" x1="{x1}" y1="{y1}" x2="{x2}" y2="{y2}" stroke="currentColor" '
            f'stroke-width="{WIDTHS[stroke.kind] * h:.3f}" stroke-linecap="butt"{dashed}/>'
        )
    for words in drawn.words:
        x, y = at(words.x, words.y)
        turn = f' transform="rotate(-{words.angle} {x} {y})"' if words.angle else ""
        body.append(
            f'<text class="{words.role}" x="{x}" y="{y}" dy="0.35em" font-size="{h:.3f}" text-anchor="middle" '
            f'fill="currentColor"{turn}>{escape(words.text)}</text>'
        )
    label = quoteattr(f"{blank.name}, drawn to scale")
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" role="img" aria-label={label} '
        f'width="{width:.4f}mm" height="{height:.4f}mm" '
        f'viewBox="0 0 {width:.4f} {height:.4f}" font-family="sans-serif">' + "".join(body) + "</svg>\n"
    )

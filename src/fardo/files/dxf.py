"""Blanks as DXF for a plotter or cutter: real millimetres, one layer a kind of line, one ink for all."""

from __future__ import annotations

import io
from collections.abc import Sequence

from ezdxf import units as dxf_units
from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment
from ezdxf.tools.standards import setup_linetypes

from fardo.core.cut.drawing import Blank
from fardo.core.quantity import Units
from fardo.files.drawn import draw, words_height_for

LAYERS = {
    "cut": "CUT",
    "score": "SCORE",
    "second-score": "SECOND_SCORE",
    "slot": "SLOT",
    "thin": "DIMENSION",
    "old-fold": "OLD_FOLD",
    "liner-cut": "LINER_CUT",
    "edge": "EDGE",
}
_LINETYPES = {
    "CUT": "CONTINUOUS",
    "SCORE": "DASHED",
    "SECOND_SCORE": "DASHDOT",
    "SLOT": "CONTINUOUS",
    "OLD_FOLD": "DOT",
    "LINER_CUT": "DASHDOT2",
    "EDGE": "CONTINUOUS",
    "DIMENSION": "CONTINUOUS",
}


def dxf(blanks: Sequence[Blank], units: Units) -> str:
    """All blanks in one drawing, side by side with a gap, each at its real size in millimetres."""
    document = Drawing.new("R2010")
    setup_linetypes(document)
    document.units = dxf_units.MM
    document.header["$MEASUREMENT"] = 1
    for layer, linetype in _LINETYPES.items():
        document.layers.add(layer, color=7, linetype=linetype)
    document.layers.add("NOTE", color=7)
    space = document.modelspace()
    shift = 0.0
    for blank in blanks:
        drawn = draw(blank, units, words_height_for(blank, units))
        shift -= drawn.left
        for stroke in drawn.strokes:
            start, end = (stroke.x1 + shift, stroke.y1), (stroke.x2 + shift, stroke.y2)
            space.add_line(start, end, dxfattribs={"layer": LAYERS[stroke.kind]})
        for words in drawn.words:
            text = space.add_text(
                words.text, height=drawn.height * 0.7, rotation=words.angle,
                dxfattribs={"layer": "DIMENSION" if words.role == "dimension" else "NOTE"},
            )  # fmt: skip
            text.set_placement((words.x + shift, words.y), align=TextEntityAlignment.MIDDLE_CENTER)
        shift += drawn.right + drawn.height * 4
    out = io.StringIO()
    document.write(out)
    return out.getvalue()

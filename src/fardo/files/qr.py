"""A QR code (ISO/IEC 18004) as SVG, for screens."""

from __future__ import annotations

import io

from reportlab.graphics import renderSVG
from reportlab.graphics.barcode.qr import QrCodeWidget
from reportlab.graphics.shapes import Drawing


def qr_svg(text: str) -> str:
    """The code of a text, with a quiet zone of four modules."""
    widget = QrCodeWidget(text, barLevel="M", barBorder=4)
    x, y, beyond_x, beyond_y = widget.getBounds()
    drawing = Drawing(beyond_x - x, beyond_y - y)
    drawing.add(widget)
    out = io.StringIO()
    renderSVG.drawToFile(drawing, out)
    return out.getvalue()

"""Inner box: a box of its own around a thing, made as every box is (`plan/wrapped`)."""

from __future__ import annotations

from fardo.core.protect.forms.asks import Ask, Held, OfStock

FORM = "box"
SHUTS = True  # loose fill does not get in
TITLE = "a box of its own"
ASKS: tuple[Ask, ...] = ("room", "item")
OF_STOCK: OfStock = "boxes"
HELD: Held = "block"

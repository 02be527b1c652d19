"""Liner: board or foam on all six walls of the box; no part wears it (`protect/liner`)."""

from __future__ import annotations

from fardo.core.protect.forms.asks import Ask

FORM = "liner"
TITLE = "on the walls of the box"
ASKS: tuple[Ask, ...] = ("layers",)
ON_WALLS = True

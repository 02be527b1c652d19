"""What a form can ask of a layer of it, and how what wears it lies beside other things."""

from __future__ import annotations

from typing import Literal

Ask = Literal["layers", "crossed", "bubbles", "room", "hollow", "lengths", "on", "item"]
Held = Literal["own", "hull", "block"]  # in its own shape, in its hull, or as the block around it
OfStock = Literal["", "boxes", "mailers"]  # what there is that a layer may be

"""Fence settings: what the fence of a saw or the mark of a straightedge is set to, in the order of cutting.

The order is common practice: first everything that goes through, so that all pieces are square to an edge; then the
scores, the fence still square; the short cuts last, when a slip can no longer spoil a whole sheet.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fardo.core.quantity import Length

Blade = Literal["through", "score, inner face", "second score, inner face", "slot", "knife"]


@dataclass(frozen=True, slots=True)
class FenceSetting:
    """
    Args:
        fence: distance from the edge that runs along the fence. blade: what the blade does.
        do: what is cut, in words. cuts: how many passes at this setting.
    """

    fence: Length
    blade: Blade
    do: str
    cuts: int

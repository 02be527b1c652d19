"""Cautions, each shown where its step is. They say what is usual and defer to local rules and trained people."""

from __future__ import annotations

from fardo.core.goods.take_apart import LIFTING
from fardo.core.quantity import POUND, Mass

# Over this weight two people lift: common practice; local rules may ask for less.
TWO_PEOPLE_OVER = POUND * 50

CUTTING = (
    "Knife: cut away from yourself, cut-proof glove on the other hand, blade in when it is put down.",
    "Table saw on board: blade low, push block, nothing to pinch the kerf, no gloves at the blade. A knife and a "
    "straightedge do it too. Follow your saw's manual and local rules.",
)  # fmt: skip


def lifting(weight: Mass) -> str | None:
    """What to say before a parcel of that weight is lifted."""
    if weight <= TWO_PEOPLE_OVER:
        return None
    return LIFTING

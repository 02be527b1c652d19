"""What is said of a parcel outside and on its papers: marks, the closing check, how it is opened again.

Marks are a habit and no protection; nothing outside a dear or plain parcel tells what is in it (common practice).
"""

from __future__ import annotations

from fardo.core.make import flaps_of
from fardo.core.make.made import Made
from fardo.core.plan.load import Load

FRAGILE_TO = 40  # g, delicate and less: starting value
_BOX_CHECKS = (
    "Nothing moves and nothing rattles when it is shaken",
    "Nothing shifts when it is shoved, end to end and side to side",
    "The middle of the lid gives a little and comes back",
    "No side bulges",
)
_EVERY_CHECK = ("The tape is rubbed down", "Old barcodes, addresses and hand-holes are covered")


def marks_of(load: Load) -> tuple[str, ...]:
    """The marks that belong on four sides of what holds the load."""
    parts = [unit.part for unit in load.units]
    up = ("This side up",) if any(part.rules.this_side_up for part in parts) else ()
    fragile = any(part.fragility is not None and part.fragility <= FRAGILE_TO for part in parts)
    opened = ("Open here",) if load.repacked else ()
    return (*up, *(("Fragile",) if fragile else ()), *opened)


def closing_checks(made: Made) -> tuple[str, ...]:
    """What is ticked on paper before it is closed, besides that everything is in."""
    return (*_EVERY_CHECK, "No hard edge can be felt") if made.soft else (*_BOX_CHECKS, *_EVERY_CHECK)


def opening(made: Made, load: Load) -> tuple[str, ...]:
    """How it is opened so that it can be packed again, in sentences."""
    up = ("Stand it with the arrows up.",) if "This side up" in marks_of(load) else ()
    if made.soft:
        return (*up, "Open the flap; keep it whole if it is to go back in it.")
    where = "along the seam on top" if flaps_of(made.way) == "both" else "where it closes"
    cut = f"Cut the tape {where}, blade short: what is packed lies close below."
    if load.repacked:
        cut = f"Pull off the one strip {where}."
    return (*up, cut, "Take out what fills it and keep it.")

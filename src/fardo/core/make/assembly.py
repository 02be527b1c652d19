"""How what is cut from sheet is scored, cut out and put together by hand (common practice)."""

from __future__ import annotations

from fardo.core.cut.drawing import Blank
from fardo.core.make.step import Step
from fardo.core.quantity import Length

_BEFORE = (
    Step("Lay the board with its printed face down: it comes out on the outside. The inner face is up.",
         before_cutting=True),
    Step("Score no deeper than half the board, and press every score flat with a blunt edge before it is folded.",
         before_cutting=True),
)  # fmt: skip
_CLOSE = "Close the flaps, the short walls' first, and tape the outer ones: three strips over the bottom."

_LID_ON = Step("Once the goods are in, set the lid on, and tape once around where it ends.", stage="close", tapes=True)

# Of a corner guard, from its square.
GUARD_STEPS = (
    Step("Cut four squares for each part, and mark the lines from two edges of each that meet."),
    Step("Cut out the square between their corner and the second lines.", knife=True),
    Step("Score the other lines on the inner face and fold them: the first makes the side wall, the second the back."),
    Step("Try it on a corner; tape it to the other guards or to a stiff face, never to the goods.", tapes=True),
)


def tray_and_lid(tray: Blank, lid: Blank) -> tuple[Step, ...]:
    """A tray, and a lid that is built around it."""
    both = "both blanks" if tray.size == lid.size else "two blanks of a size"
    return (
        *_BEFORE,
        Step("Cut the corners out with the knife, up to the scores.", knife=True),
        Step(
            f"On the saw: lay {both}, faces together, the blade up through them, and stop at the cross score; "
            "the knife does the rest."
        ),
        Step("Fold the tray's four walls up and tape its corners over their whole height, outside first.", tapes=True),
        Step(
            "Build the lid around the tray: lay it over, fold its walls down along the tray's, draw them up until it "
            "just slides, and tape its corners.",
            tapes=True,
        ),
        _LID_ON,
    )


def case_with_tab() -> tuple[Step, ...]:
    """A case in one piece, until its tab is on and its flaps are open."""
    return (
        *_BEFORE,
        Step("Cut the slots between the flaps and the waste beside the tab, up to the scores.", knife=True),
        Step(
            "Fold every score once over, then glue or tape the tab inside the last wall, along its whole height.",
            tapes=True,
        ),
    )


def glued_case(flaps: str = _CLOSE) -> tuple[Step, ...]:
    """A case in one piece with a tab.

    Args:
        flaps: how its bottom is closed.
    """
    return *case_with_tab(), Step(flaps, tapes=True)


def full_overlap() -> tuple[Step, ...]:
    """A case whose outer flaps lap over each other fully."""
    return glued_case("Close the inner flaps, the outer ones one over the other, and tape along the edge and across.")


def half_case_and_lid(deep: Length) -> tuple[Step, ...]:
    """A case open at the top, and a lid over it.

    Args:
        deep: the lid's walls.
    """
    return (
        *glued_case("Close the bottom flaps, the short walls' first, and tape them: three strips."),
        Step(
            "Fold the lid's walls, {} deep, down around the case until it slides, and tape its corners.",
            (deep,),
            tapes=True,
        ),
        _LID_ON,
    )

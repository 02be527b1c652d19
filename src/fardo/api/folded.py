"""A way's blanks for the picture in which they fold up around the goods."""

from __future__ import annotations

from pydantic import BaseModel, Field

from fardo.core.cut.drawing import Blank
from fardo.core.cut.fold import fold_panels, stands_in
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.load import placed
from fardo.core.refusal import NoAnswer

Pair = tuple[float, float]


class PanelView(BaseModel):
    """A panel on the flat blank, mm; `on` is the panel it hangs on, -1 for the one that lies still."""

    outline_mm: list[Pair]
    on: int
    hinge_mm: tuple[Pair, Pair]
    degrees: int


class StandingView(BaseModel):
    """A thing in the inside of the box, as the box around it."""

    name: str
    at_mm: tuple[float, float, float]
    size_mm: tuple[float, float, float]
    extra: bool


class FoldedBlank(BaseModel):
    name: str
    panels: list[PanelView]
    stands: list[list[float]] | None = Field(
        description="4 x 4, from the inside of the box to this blank folded; nothing where the goods do not stand in it"
    )
    why_not: str = ""


class FoldView(BaseModel):
    blanks: list[FoldedBlank]
    things: list[StandingView]


def view_fold(boxed: Boxed) -> FoldView:
    """Where the first blank holds the goods they stand in it; a half or a lid is folded empty."""
    things = [
        StandingView(
            name=one.body.name, at_mm=(one.at[0].mm, one.at[1].mm, one.at[2].mm),
            size_mm=(one.sizes[0].mm, one.sizes[1].mm, one.sizes[2].mm), extra=one.body.extra,
        )
        for one in placed(boxed.load, boxed.arrangement)
    ]  # fmt: skip
    inside = (boxed.made.inside[0].mm, boxed.made.inside[1].mm, boxed.made.inside[2].mm)
    return FoldView(
        blanks=[_view(blank, inside if n == 0 else None) for n, blank in enumerate(boxed.blanks)], things=things
    )


def _view(blank: Blank, inside: tuple[float, float, float] | None) -> FoldedBlank:
    try:
        panels = fold_panels(blank)
    except NoAnswer as none:
        return FoldedBlank(name=blank.name, panels=[], stands=None, why_not=str(none))
    place = None
    if inside is not None:
        stood = stands_in(panels, inside)
        place = None if stood is None else stood.tolist()
    return FoldedBlank(
        name=blank.name, stands=place,
        panels=[
            PanelView(outline_mm=list(one.outline), on=one.on, hinge_mm=one.hinge, degrees=one.degrees)
            for one in panels
        ],
    )  # fmt: skip

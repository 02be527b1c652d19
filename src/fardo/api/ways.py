"""A way to box a job in words: its box, what is cut, its strength, its prices, and it by the other school."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from fardo.api import figure_views, views
from fardo.api.quotes import view_plan, view_refused
from fardo.core.board.strength import Strength
from fardo.core.cut.drawing import Blank
from fardo.core.fill.filling import FULL, Filled
from fardo.core.fill.material import litres_said
from fardo.core.fill.voids import Where
from fardo.core.make import WAYS, Made
from fardo.core.make.inserts.wanted import Insert
from fardo.core.make.stock import Pouch, Taken
from fardo.core.plan.box import cut_from_sheet
from fardo.core.plan.boxed import Boxed, Weights
from fardo.core.plan.cut_out import OnSheet
from fardo.core.plan.cutting import one_sheet_for
from fardo.core.plan.picture import Picture, WayPriced, choice_of_box
from fardo.core.plan.shop import Shop
from fardo.core.quantity import Length, Units, show_length, show_mass, show_sizes
from fardo.files.cut_by import write_cut_by
from fardo.files.drawn import DASHES, WIDTHS, exact_text, in_words, key_of
from fardo.files.full_size import MOST_PAGES, pages_at_full_size
from fardo.files.page import PAPERS, Paper
from fardo.files.svg import svg


def view_way(way: WayPriced, picture: Picture) -> views.WayView:
    """The way in words; all of its quotes and its blanks drawn where it is looked at."""
    boxed, made, units = way.boxed, way.boxed.made, picture.shop.units
    looked, box = picture.looked_at, picture.job.box
    whole = way is picture.current or (looked is not None and made.way == looked.way)
    drawn = looked is not None and (made.way == looked.way or (not looked.way and whole))
    return views.WayView(
        way=made.way, title=WAYS[made.way].TITLE, school=made.school, schools=list(WAYS[made.way].SCHOOLS),
        board=made.grade.code, chosen=box is not None and box.is_met_by(choice_of_box(made)), too_large=boxed.too_large,
        needed_mm=(made.cut_to[0].mm, made.cut_to[1].mm, made.cut_to[2].mm),
        inside=figure_views.view_sizes(made.inside, units, made.whys["inside"], "down"),
        outside=figure_views.view_sizes(made.outside, units, made.whys["outside"]),
        weight=view_weight(boxed.weights, units),
        wall_mm=made.wall.mm,
        air_percent=round(boxed.air * 100),
        minutes=round(boxed.minutes),
        sheets=list(says_sheets(boxed, picture.shop, picture.job.board)) if whole else [],
        inserts=[_insert_says(one, units) for one in boxed.inserts if one.says],
        notes=list(made.notes),
        item=made.item,
        made_over=made.taken[0].item.name if made.condition == "re-cut" else "",
        at_hand=[_at_hand(one, way, picture) for one in picture.at_hand if one.way == way.way],
        from_stock=" and ".join(_item(one, units) for one in made.taken),
        steps=[views.StepView(do=step.told(in_words(units)), knife=step.knife) for step in made.steps],
        filling=view_filling(boxed, units) if whole else None,
        warnings=list(boxed.strength.warnings),
        suggested=boxed.suggested.code if boxed.suggested else None,
        own=str(boxed.own),
        compared=picture.beside(way),
        strength=_strength(boxed.made, boxed.strength),
        blank_why=figure_views.view_why(made.whys["blank"], units),
        blanks=[_view_blank(blank, units, drawn) for blank in boxed.blanks],
        full_size_pages=_full_size_pages(boxed.blanks),
        standing=svg(made.standing, units) if drawn and made.standing else None,
        fence=[
            views.FenceView(fence=exact_text(s.fence, units), blade=s.blade, do=s.do, cuts=s.cuts) for s in boxed.fence
        ],
        total=str(way.plans[0].costs.total) if way.plans else None,
        more=_more(way, picture),
        quotes=[view_plan(plan, way, picture) for plan in (way.plans if whole else way.plans[:1])],
        refused=view_refused(way.refused),
        others=[view_plan(plan, way, picture) for plan in way.others] if whole else [],
        others_refused=view_refused(way.not_so) if whole else [],
        cut_by=write_cut_by(way.cut_by) if way.cut_by else None,
        cut_by_others=way.cut_by_others,
        other_school=_other_school(way.other_school, units) if way.other_school else None,
    )  # fmt: skip


def _more(way: WayPriced, picture: Picture) -> str:
    """``3.29 more than box from the shelf``; nothing of the cheapest."""
    more = picture.more_than_cheapest(way)
    if more is None:
        return ""
    by, first = more
    return f"{by} more than {WAYS[first.way].TITLE.lower()}"


PLACES: dict[Where, str] = {
    "under": "Under", "between": "Between", "left": "Left", "right": "Right", "front": "Front", "back": "Back",
    "top": "On top",
}  # fmt: skip


def view_filling(boxed: Boxed, units: Units) -> views.FillingView:
    """What goes where, as deep as it is and in things one can fetch."""
    filling = boxed.filling
    places = [
        views.FillPlaceView(
            where=one.void.where, title=PLACES[one.void.where], depth=_depth(one, boxed, units),
            litres=litres_said(one.litres), kind=one.fill.name, fetch=one.fetched,
        )
        for one in filling.places
    ]  # fmt: skip
    in_all = [fill.fetched(stuffed) for fill, stuffed in filling.fetched]
    full = f"Pack it {FULL[filling.full]}."
    return views.FillingView(
        places=places, in_all=in_all, full=filling.full, says=f"{full} {filling.note}." if filling.note else full
    )


def _depth(one: Filled, boxed: Boxed, units: Units) -> str:
    if one.void.where != "between":
        return show_length(one.void.depth, units, "down").text
    return f"up to {show_length(boxed.widest_between, units, 'down').text}"


def _at_hand(one: WayPriced, way: WayPriced, picture: Picture) -> views.AtHand:
    made, units, chosen = one.boxed.made, picture.shop.units, picture.job.box
    return views.AtHand(
        item=one.item, inside=show_sizes(made.inside, units, "down").text,
        total=str(one.cheapest) if one.cheapest else None, own=str(one.boxed.own),
        service=one.plans[0].quote.service if one.plans else "",
        outside=show_sizes(made.outside, units, "up").text,
        weight=show_mass(one.boxed.weights.total, units, "up").text,
        air_percent=round(one.boxed.air * 100), minutes=round(one.boxed.minutes),
        takes=", ".join(f"{taken.count} of {taken.item.count}" for taken in made.taken),
        room="" if made.soft else _room(one.boxed.room_left, units),
        picked=one.item == way.item,
        chosen=chosen is not None and (chosen.way, chosen.item) == (one.way, one.item),
    )  # fmt: skip


def _room(left: Sequence[tuple[str, Length]], units: Units) -> str:
    """Sides across from each other together, where as much is free at both.

    >>> half, inch = Length.of_inches("0.5"), Length.of_inches(1)
    >>> _room([("left", inch), ("right", inch), ("below", half), ("above", inch)], "in")
    '1 in left and right, 1/2 in below, 1 in above'
    """
    said = []
    for (low, before), (high, beyond) in zip(left[::2], left[1::2], strict=True):
        first, other = (show_length(free, units, "down").text for free in (before, beyond))
        said += [f"{first} {low} and {high}"] if first == other else [f"{first} {low}", f"{other} {high}"]
    return ", ".join(said)


def _full_size_pages(blanks: Sequence[Blank]) -> dict[Paper, int]:
    taken = {paper: pages_at_full_size(blanks, paper) for paper in PAPERS}
    return {paper: pages for paper, pages in taken.items() if 0 < pages <= MOST_PAGES}


def view_weight(weights: Weights, units: Units) -> figure_views.Figure:
    shown = show_mass(weights.total, units, "up")
    return figure_views.Figure(text=shown.text, exact=shown.exact, why=figure_views.view_why(weights.why, units))


def _insert_says(insert: Insert, units: Units) -> str:
    show = in_words(units)
    return insert.says.format(*(show(measure) for measure in insert.measures))


def _item(taken: Taken, units: Units) -> str:
    each, item = "" if taken.count == 1 else f"{taken.count} of ", taken.item
    if isinstance(item, Pouch):
        width, length = (show_length(side, units, "down").text for side in (item.width, item.length))
        return f"{each}{item.name}, {width} x {length} flat"
    return f"{each}{item.name}, {show_sizes(item.inside, units, 'down').text}"


def _strength(made: Made, strength: Strength) -> str:
    """What the closed box is good for, in pounds as the certificate and the formula have it."""
    if made.soft:
        return "It closes on the goods; nothing may stand on it"
    stack = (
        f"about {strength.stack:.0f} lb may stand on it for long "
        f"(compression {strength.compression:.0f} lb, {made.condition}), in damp air {strength.damp:.0f} lb"
    )
    if strength.bulges:
        stack += "; its largest wall may bulge: measure the closed box at its middle, carriers do"
    if strength.limits is None:
        return stack
    gross, united = float(strength.limits.gross.pounds), strength.limits.united
    return f"{made.grade.name}: certified for {gross:g} lb and {united} united inches; {stack}"


def _view_blank(blank: Blank, units: Units, drawn: bool = False) -> views.BlankView:
    return views.BlankView(
        name=blank.name,
        size=_cross(blank.size, units),
        flutes=blank.flutes,
        count=blank.count,
        svg=svg(blank, units) if drawn else None,
        key=[views.KeyView(means=means, dash=list(DASHES[kind]), width=WIDTHS[kind]) for kind, means in key_of(blank)]
        if drawn
        else [],
        folds=not any(line.kind == "edge" for line in blank.lines),
    )


def _other_school(made: Made, units: Units) -> views.OtherSchool:
    return views.OtherSchool(
        school=made.school,
        blanks=[_view_blank(blank, units) for blank in made.blanks],
        outside=figure_views.view_sizes(made.outside, units).figure.text,
        inside=figure_views.view_sizes(made.inside, units, rounding="down").figure.text,
        notes=list(made.notes),
    )


def says_sheets(boxed: Boxed, shop: Shop, board: str | None) -> Iterator[str]:
    """From which sheets it is cut: the smallest that gives all of it, else blank by blank.

    Args:
        board: the job's.
    """
    grade, blanks = cut_from_sheet(boxed, shop.grade(board))
    count = sum(blank.count for blank in blanks)
    one = one_sheet_for(blanks, grade.sheets) if count > 1 else None
    if one is None:
        yield from (_sheet(on, shop.units) for on in boxed.sheets)
    else:
        what = "off-cut" if one.offcut else "sheet"
        of = "both" if count == 2 else f"all {count} pieces"
        yield f"one {_cross((one.length, one.width), shop.units)} {what} of {grade.code} board gives {of}"


def _sheet(on: OnSheet, units: Units) -> str:
    if on.sheet is None:
        return f"{on.blank}: larger than any sheet in stock"
    each = "one" if on.count == 1 else str(on.count)
    return f"{on.blank}: a {_cross((on.sheet.length, on.sheet.width), units)} sheet gives {each}"


def _cross(size: tuple[Length, Length], units: Units) -> str:
    return f"{exact_text(size[0], units)} x {exact_text(size[1], units)} {units}"

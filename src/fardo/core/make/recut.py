"""A used box or a carrier's free carton made over: which of those there are, and how it is done at the bench.

The box stays glued and lies flat as a tube, so its inner face cannot be reached: a new corner is cut through the outer
liner, one layer deep, in line on both faces, and folded away from the cut. Only a box opened at its seam is scored
inside. A carrier's carton stays that carrier's (common practice).
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import suppress
from dataclasses import replace
from fractions import Fraction

from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import REFOLD, Allowances
from fardo.core.make.contents import Contents
from fardo.core.make.made import Made, School, check_inside
from fardo.core.make.made_over import Recut, recuts
from fardo.core.make.step import Step
from fardo.core.make.stock import SIDES, Pattern, Stock, StockBox, Taken, closing_tape, nearest_of
from fardo.core.quantity import MM, SIXTEENTH, Length, both_units, volume_nm3
from fardo.core.refusal import NoAnswer
from fardo.core.why import Value, Why

NAME, TITLE = "recut", "Used box, re-cut"
FLAPS = "both"
NEEDS = "stock"
SCHOOLS: tuple[School, ...] = ("exact",)
# To mark, cut, slit, fold and tape both sides; opened at its seam it is glued again too: starting values.
MINUTES, _MINUTES_OPENED = Fraction(15), Fraction(20)

_PRACTICE = "flattened, a slotted box is a tube 2(l + w) around (common practice)"
# A lap is worth its work where the box comes out so much smaller: starting value.
_LAP_SAVES = Fraction(1, 10)
_MOST_ROOM = Fraction(3, 2)  # so many times the room that what breaks asks for: starting value


def take(contents: Contents, stock: Stock, allowances: Allowances) -> tuple[Made, ...]:
    """Every box that can be re-cut, counted as the bench does; what takes least room then first.

    Raises: NoAnswer, with the one that lacks least, where none can be.
    """
    inside, upright = contents.inside, contents.upright
    check_inside(inside)
    there = [box for box in stock.boxes_to_cut if box.count]
    found: list[tuple[int, str, Made]] = []
    whys: list[tuple[str, NoAnswer]] = []
    for box in there:
        try:
            refold, step = allowances[REFOLD], allowances.mark_step
            found_here = recuts(box.inside, box.grade.caliper, inside, refold, step, "bench", upright)
            best = _best(_not_opened(found_here) if contents.floats else found_here)
        except NoAnswer as none:
            whys.append((box.name, none))
            continue
        if best.moved or best.cut_down.nm:
            made = replace(_made(box, best), notes=_says(box, best, contents))
            found.append((volume_nm3(*best.outside), box.name, made))
    for pattern, made in _by_pattern(contents, stock, allowances):
        found.append((volume_nm3(*made.outside), pattern.name, made))
    if not found:
        raise nearest_of(whys, "one fits as it is" if there else "there is no used box")
    return tuple(made for _, _, made in sorted(found, key=lambda one: one[:2]))


def _by_pattern(contents: Contents, stock: Stock, allowances: Allowances) -> Iterator[tuple[Pattern, Made]]:
    """The shop's patterns that hold the goods, of boxes that are there."""
    there = {box.name: box for box in stock.boxes_to_cut if box.count}
    for pattern in stock.patterns:
        stands = [stood for stood in contents.ways_to_stand if _within(stood, pattern.inside)]
        if pattern.box not in there or not stands:
            continue
        box, refold = there[pattern.box], allowances[REFOLD]
        with suppress(NoAnswer):  # the box by that name is another one by now
            best = _best(recuts(box.inside, box.grade.caliper, pattern.inside, refold, allowances.mark_step,
                                "bench", True))  # fmt: skip
            made = _made(box, replace(best, needed=stands[0]))
            yield pattern, replace(made, pattern=pattern.name, notes=(f"Made from {box.name}, as the pattern says.",))


def _within(sizes: Sizes, inside: Sizes) -> bool:
    return all(size <= room for size, room in zip(sizes, inside, strict=True))


def _not_opened(found: list[Recut]) -> list[Recut]:
    """For what breaks: a box that stays glued, and is not far too large for it. Raises NoAnswer where none is."""
    kept = [
        made for made in found if not made.lap.nm and volume_nm3(*made.inside) <= volume_nm3(*made.needed) * _MOST_ROOM
    ]
    if not kept:
        raise NoAnswer("re-cut it would be far too large, or opened at its seam, which is not for what breaks")
    return kept


def _best(found: list[Recut]) -> Recut:
    """The smallest; one that laps only where it saves enough room for the work."""
    best = found[0]
    plain = next((made for made in found if not made.lap.nm), None)
    if plain is None or not best.lap.nm:
        return best
    return best if volume_nm3(*best.outside) < volume_nm3(*plain.outside) * (1 - _LAP_SAVES) else plain


def _made(box: StockBox, best: Recut) -> Made:
    told: tuple[tuple[str, Value], ...] = (
        ("old length", box.inside[0]), ("old width", box.inside[1]), ("old height", box.inside[2]),
        ("by the tape", best.nominal), ("the folds take of the width", best.lost), ("caliper t", best.caliper),
    )  # fmt: skip
    formula = (
        "length + width are taken in, what is over laps; width less what the folds take; height cut down" if best.lap.nm
        else "length + width stay as they were; width less what the folds take; height cut down"
    )  # fmt: skip
    why = Why(formula, told, _PRACTICE)
    return Made(
        way=NAME, school="exact", grade=box.grade, needed=best.needed, inside=best.inside, outside=best.outside,
        blanks=best.blanks, fence=(), tape=closing_tape(best.outside) + _taped(best),
        minutes=_MINUTES_OPENED if best.lap.nm else MINUTES,
        whys={"inside": why, "blank": why,
              "outside": Why("inside + 2t, + 2t, + 4t, a board more where flaps or walls lap", told, "closed")},
        notes=(), taken=(Taken(box),), condition="re-cut", steps=steps(best, box.name), carrier=box.carrier,
    )  # fmt: skip


def _says(box: StockBox, best: Recut, contents: Contents) -> tuple[str, ...]:
    """What it lacks as it comes, which is why it is made over."""
    short, axis = contents.shortest_by(box.inside)
    lacks = (f"As it comes it is {both_units(short)} not {SIDES[axis]} enough.",) if short.nm > 0 else ()
    turned = best.inside[0] < best.inside[1]
    return (*lacks, *(("Turned so that the goods stand as they were arranged.",) if turned else ()))


def _taped(made: Recut) -> Length:
    """Over every cut edge: new corners, new slits and old ones; or the four corners where it is only cut down."""
    if not made.moved:
        return made.cut_down * 8
    below, above = made.flaps
    return made.nominal[2] * (6 if made.lap.nm else 4) + (below + above) * 8


def steps(made: Recut, name: str = "") -> tuple[Step, ...]:
    """In order, for a knife and a straightedge on the bench.

    Args:
        name: of the box, nothing where it has none.
    """
    return (
        Step(f"Take the {name or 'box'}: take out tape and staples, cover old labels, barcodes and postage."),
        *(_opened(made) if made.lap.nm else _flat(made)),
        *_flaps_that_lie(made),
        *_pads(made),
        *_closed(made),
    )


def _flat(made: Recut) -> Iterator[Step]:
    """Of a box that stays glued."""
    yield Step("Leave it glued and lay it flat as a tube.")
    if made.corners is not None:
        between = made.length + made.width + made.caliper * 2 - made.corners * 2
        (at, mark), (leaves, rest) = (_by_the_tape(one, made.step) for one in (made.corners, between))
        yield Step(f"On the upper face mark the two new corners, {at} from either fold: that leaves {leaves} "
                   "between them. Without a tape: lay the wrapped goods on it, as far from one fold as from the other, "
                   "and mark along both their ends.", (mark, rest), tapes=True)  # fmt: skip
        yield Step("With knife and straightedge cut along both marks, from flap score to flap score, through the "
                   "outer liner only, one layer deep. With a creasing wheel the lines are pressed instead.",
                   knife=True)  # fmt: skip
        yield Step("Turn the box straight over and do the same on the other face, in line with the first.", knife=True)
    if made.cut_down.nm:
        yield Step("On both faces mark a line {} below the top flap score, from fold to fold, and cut it through the "
                   "outer liner only: the new top score.", (made.cut_down,), knife=True)  # fmt: skip
    if made.corners is not None:
        yield Step("Slit the flaps right through along the new corners, top and bottom, up to the flap scores.",
                   knife=True)  # fmt: skip
    elif made.cut_down.nm:
        yield Step("Slit the four corners right through, from the top edge down to the new score.", knife=True)
    yield from _cut_back(made)
    if made.corners is not None:
        yield Step("Fold every new corner away from its cut. The old corners and both folds lie flat in the walls now; "
                   "tape their old slits in the flaps shut.", tapes=True)  # fmt: skip
    if made.cut_down.nm:
        yield Step("Fold the top flaps away from the cut, at the new score.")


def _by_the_tape(length: Length, step: Length) -> tuple[str, Length]:
    """A mark as it is found on a tape, with {} for the figure, and that figure: where a mark lies between two steps it
    is said how, to a quarter of a step. A wall of the box is twice a mark: half a step lost here is one of the box.
    """
    steps, quarters = divmod(round(Fraction(4 * length.nm, step.nm)), 4)
    half = {SIXTEENTH: "half a sixteenth", MM: "half a millimetre"}.get(step, "half a step")
    said = ("{}", "a hair over {}", f"{{}} and {half}", "a hair under {}")[quarters]
    return said, step * (steps + (1 if quarters == 3 else 0))


def _opened(made: Recut) -> Iterator[Step]:
    """Of a box that is opened at its seam and taken in."""
    long, short = made.length + made.caliper, made.width + made.caliper
    yield Step("Cut it open along its seam, beside the glued tab, and lay it flat with its inner face up, the end "
               "without the tab to the left.", knife=True)  # fmt: skip
    yield Step("From that end mark {}, {}, {} and {}, each from the one before: the four new corners.",
               (long, short, long, short))  # fmt: skip
    yield Step("Score them on the inner face, from flap score to flap score, and slit the flaps right through along "
               "them.", knife=True)  # fmt: skip
    if made.cut_down.nm:
        yield Step("Score a line {} below the top flap score, inner face, and slit the corners down to it.",
                   (made.cut_down,), knife=True)  # fmt: skip
    yield Step("What is left beyond the last corner laps: cut its flaps off, and cut it to {} where it is longer.",
               (made.lap.to_step(made.step, "down"),), knife=True)  # fmt: skip
    yield from _cut_back(made)
    yield Step("Fold it around and lap the end over the outside of the first wall; glue or tape it along its whole "
               "edge. Tape the old slits in the flaps shut.", tapes=True)  # fmt: skip


_ENDS = ("bottom", "top")


def _cut_back(made: Recut) -> Iterator[Step]:
    """Flaps that would not lie."""
    for which, walls, backs in (("inner", "short", made.inner), ("outer", "long", made.outer)):
        for end, back in _at_the_ends(backs):
            longer = which == "inner" and any(
                flap > made.length for flap, one in zip(made.flaps, backs, strict=True) if one is not None
            )
            why = "as they are they are longer than the box" if longer else "else they ride on each other"
            why = why if which == "inner" else "so they lie"
            yield Step(f"Cut the {which} flaps at the {end}, on the {walls} walls, back to {{}}: {why}.", (back,),
                       knife=True)  # fmt: skip


def _at_the_ends(backs: tuple[Length | None, Length | None]) -> Iterator[tuple[str, Length]]:
    """Both ends at once where they are alike."""
    below, above = backs
    if below is not None and below == above:
        yield "bottom and the top", below
        return
    yield from ((end, back) for end, back in zip(_ENDS, backs, strict=True) if back is not None)


def _flaps_that_lie(made: Recut) -> Iterator[Step]:
    laps = [
        (f"{{}} at the {end}", lap) for end, lap in zip(_ENDS, _to_the_step(made, made.laps), strict=True) if lap.nm
    ]
    if laps:
        where = " and ".join(said for said, _ in laps)
        yield Step(f"The outer flaps lap over each other, {where}: leave them, it is stronger so.",
                   tuple(lap for _, lap in laps))  # fmt: skip


def _pads(made: Recut) -> Iterator[Step]:
    for end, gap in zip(_ENDS, made.open_between, strict=True):
        if gap.nm:
            pad = _to_the_step(made, made.inside[:2])
            yield Step(f"The outer flaps at the {end} leave {{}} open: cut a pad of {{}} x {{}} and lay it inside.",
                       (gap.to_step(made.step, "up"), *pad), knife=True)  # fmt: skip


def _closed(made: Recut) -> Iterator[Step]:
    yield Step("Tape over every cut edge, so that it holds and nobody cuts a finger.", tapes=True)
    a, b, c = _to_the_step(made, made.nominal)
    if made.moved and made.lost.nm:
        wide = made.inside[1].to_step(made.step, "down")
        yield Step("Set it up: by the tape it is {} inside, after the folds {} wide. Close and tape the bottom.",
                   ((a, b, c), wide), tapes=True)  # fmt: skip
    else:
        yield Step("Set it up: it is {} inside. Close and tape the bottom.", ((a, b, c),), tapes=True)


def _to_the_step(made: Recut, lengths: Sequence[Length]) -> list[Length]:
    """As the tape shows them, never more."""
    return [length.to_step(made.step, "down") for length in lengths]

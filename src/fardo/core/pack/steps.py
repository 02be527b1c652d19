"""The packing steps of a job in its box, from taking apart to handing over, each with what it takes.

The order is that of the bench (common practice): wrap, make or open the box, bottom tape, liner, fill below, each thing
in its place, fill around, top fill, slip and card last, is everything in, shake and press, close and tape, weigh and
measure, label, hand over. What the steps take adds up to what the plan counts.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Literal

from fardo.core.board.grade import Grade
from fardo.core.cut.drawing import Blank
from fardo.core.fill.filling import FULL
from fardo.core.goods.shape import Box
from fardo.core.goods.take_apart import BagLabel, TakeApartStep, bag_labels
from fardo.core.make import WAYS, called, opens_at_its_end
from fardo.core.make.inserts import goes_on_goods
from fardo.core.make.inserts.wanted import MINUTES_A_PIECE, Insert
from fardo.core.make.made import Made
from fardo.core.make.step import Step, by_stage
from fardo.core.make.stock import StockBox
from fardo.core.pack.marks import marks_of
from fardo.core.pack.packing_step import BoardUsed, BoxUsed, FillUsed, PackingStep, Section, WrapUsed
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.cautions import CUTTING, lifting
from fardo.core.plan.job import Job
from fardo.core.plan.load import PlacedBody, line_box, placed
from fardo.core.plan.parts import alike_units, named
from fardo.core.plan.shop import Shop
from fardo.core.plan.tape import HEAVY_FROM, TapePlan, TapeStrips
from fardo.core.plan.together import coats_together
from fardo.core.protect.coat import NONE, Coat, Wearer
from fardo.core.protect.forms import put_on
from fardo.core.quantity import Mass

# From this weight a second pair of hands helps: common practice; local rules may ask for less.
SECOND_PERSON_FROM = HEAVY_FROM
_CUTTER = "knife and straightedge, or the saw"
RUB_DOWN = "Rub the tape down."


@dataclass(frozen=True, slots=True)
class ToPack:
    """What is packed.

    Args:
        job: as it is read.
        boxed: it in its box.
        take_apart: the steps that are taken, in their order.
        plain: whether nothing outside may tell what is in it.
        checklist: lines of the job's own that are ticked before it is closed.
    """

    job: Job
    boxed: Boxed
    shop: Shop
    take_apart: Sequence[TakeApartStep] = ()
    plain: bool = False
    checklist: Sequence[str] = ()

    @property
    def tape(self) -> TapePlan:
        return self.boxed.taped

    @property
    def bags(self) -> tuple[BagLabel, ...]:
        return bag_labels(self.take_apart)


def packing_steps(to_pack: ToPack) -> tuple[PackingStep, ...]:
    """Every step of one parcel, in order, each with a key of its own.

    Args:
        to_pack: the job in the box that was chosen.
    """
    found = [
        *_take_apart(to_pack), *_wrap_and_what_goes_in_it(to_pack), *_make(to_pack), *_pack(to_pack), *_check(to_pack),
        *_close(to_pack), *_send(to_pack),
    ]  # fmt: skip
    minutes = to_pack.shop.packing_minutes(to_pack.boxed.load.pack_minutes)
    return tuple(_with_their_share(_told_apart(found, to_pack.boxed.made), minutes))


def _told_apart(steps: Iterable[PackingStep], made: Made) -> Iterator[PackingStep]:
    """Each with a key of its own, the second of a kind numbered, and with what it is done with."""
    seen: Counter[str] = Counter()
    box = f"{called(made)} {' x '.join(str(side.nm) for side in made.inside)}"
    for step in steps:
        seen[step.key] += 1
        key = step.key if seen[step.key] == 1 else f"{step.key} {seen[step.key]}"
        pieces = " ".join(str(one.amount) for one in step.used if isinstance(one, WrapUsed))
        of = "" if step.section == "Take apart" else pieces if step.section == "Wrap" else box
        yield replace(step, key=key, of=of)


_BY_THE_SHOP: tuple[Section, ...] = ("Pack", "Check", "Close", "Send")


def _with_their_share(steps: Iterable[PackingStep], minutes: Fraction) -> Iterator[PackingStep]:
    """To place, fill, close and label takes so many minutes, whatever the box: shared out among those steps."""
    every = list(steps)
    sharing = sum(step.section in _BY_THE_SHOP for step in every)
    for step in every:
        yield replace(step, minutes=step.minutes + minutes / sharing) if step.section in _BY_THE_SHOP else step


def _take_apart(to_pack: ToPack) -> Iterator[PackingStep]:
    hazards = to_pack.job.hazards
    if cautions := tuple(caution for _, caution in hazards.cautions):
        yield PackingStep("hazards", "Take apart", "Read the cautions before you begin.", cautions=cautions)
    number = 0
    for step in to_pack.take_apart:
        says = [step.turn] if step.turn else []
        if step.keep:
            number += 1
            says.append(f"Bag {number} of {len(to_pack.bags)}: {step.keep}. Label the bag.")
        cautions = (step.caution,) if step.caution else ()
        yield PackingStep(
            f"apart {step.id}", "Take apart", f"{step.do}.", says=tuple(says), tool=step.tool, cautions=cautions
        )
    if to_pack.take_apart:
        yield PackingStep("clean", "Take apart", "Wipe everything clean and dry: grit rubs through wrap.")


def _wrap(to_pack: ToPack) -> Iterator[PackingStep]:
    load, shop = to_pack.boxed.load, to_pack.shop
    for unit, times in alike_units(load.units):
        of = named(unit) if times == 1 else f"{named(unit)}, {times} of them"
        for coat in unit.coats:
            yield _layer(f"wrap {unit.part.name} {coat.material.code}", of, coat.times(times), shop)
    for name, coat in coats_together(load, to_pack.boxed.arrangement, shop):
        yield _layer(f"wrap {name} {coat.material.code}", f"{name}, together", coat, shop)
    for insert in _inserts(to_pack, "on the goods"):
        yield _insert(insert, "Wrap", f"Cut and put on: {_called(insert)}.", to_pack)


def _wrap_and_what_goes_in_it(to_pack: ToPack) -> Iterator[PackingStep]:
    """The wrap, and before the outermost what goes inside it; where nothing is wrapped, after all of it."""
    steps = list(_wrap(to_pack))
    layers = [n for n, step in enumerate(steps) if any(isinstance(one, WrapUsed) for one in step.used)]
    outer = layers[-1] if layers else len(steps)
    inside = [
        PackingStep(
            f"in the wrap {extra.name}", "Wrap", f"{_upper(extra.name)}, flat on the goods, before the outer wrap."
        )
        for extra in to_pack.boxed.load.extras_at("inside the wrap")
    ]
    yield from (*steps[:outer], *inside, *steps[outer:])


def _layer(key: str, of: str, coat: Coat, shop: Shop) -> PackingStep:
    taken = coat.taken.name if coat.taken is not None else ""
    used = WrapUsed(coat.material, coat.amount, coat.cuts, taken)
    name = taken or coat.material.name
    return PackingStep(
        key, "Wrap", f"{_upper(of)}: {name}.", says=coat.says, used=(used,), minutes=shop.minutes_for(coat)
    )


def _make(to_pack: ToPack) -> Iterator[PackingStep]:
    """Make or open the box, tape its bottom, line it."""
    boxed, made, tape = to_pack.boxed, to_pack.boxed.made, to_pack.tape
    title = WAYS[made.way].TITLE
    if made.taken:
        boxes = tuple(BoxUsed(one.item.name, one.count) for one in made.taken)
        do = f"Take {_listed(_so_many(one) for one in boxes)}. {title}."
        yield PackingStep("box", "Box", do, used=boxes, minutes=made.minutes)
    else:
        do = f"Cut the {_listed(one.name for one in made.blanks)} by the cut sheet. {title}."
        board = tuple(_board(made.grade, made.blanks))
        yield PackingStep("box", "Box", do, used=board, tool=_CUTTER, cautions=CUTTING, minutes=made.minutes)
    steps = by_stage(made.steps)["make"]
    yield from _bench_steps(steps, "make", "Box", tape.making + tape.bottom)
    if not any(step.tapes for step in steps):
        where = "the seams and the bottom" if tape.bottom else "the seams"
        yield from _taped("tape seams", "Box", f"Tape {where}.", tape.making + tape.bottom)
    if (liner := boxed.load.liner) is not None:
        coat = line_box(boxed.load, liner, made)
        yield replace(_layer("liner", "walls of the box", coat, to_pack.shop), section="Box")


def _bench_steps(
    steps: Sequence[Step], key: str, section: Section, tape: tuple[TapeStrips, ...] = ()
) -> list[PackingStep]:
    """Steps of making or closing a box; the tape goes on with the last that tapes, or in a step of its own after."""
    taping = max((n for n, step in enumerate(steps) if step.tapes), default=None)
    return [
        PackingStep(
            f"{key} {n + 1}", section, step.do, step.measures, (RUB_DOWN,) if n == taping and tape else (),
            tape if n == taping else (), cautions=CUTTING[:1] if step.knife else (),
        )
        for n, step in enumerate(steps)
    ]  # fmt: skip


def _taped(key: str, section: Section, do: str, tape: tuple[TapeStrips, ...]) -> Iterator[PackingStep]:
    if tape:
        yield PackingStep(key, section, do, says=(RUB_DOWN,), used=tape)


def _pack(to_pack: ToPack) -> Iterator[PackingStep]:
    """Fill below, each thing in its place, fill around it and on top, slip and card last."""
    boxed = to_pack.boxed
    for insert in _inserts(to_pack, "below"):
        yield _insert(insert, "Pack", f"Cut and put in: {_called(insert)}.", to_pack, goes_in=0)
    yield from _fill(to_pack, ("under",), 0)
    there = in_order(boxed)
    for n, one in enumerate(there, 1):
        yield _place(one, n, to_pack)
    if to_pack.bags:
        bags = "bag 1" if len(to_pack.bags) == 1 else f"bags 1 to {len(to_pack.bags)}"
        tied = "the part it belongs to" if len(to_pack.bags) == 1 else "the parts they belong to"
        yield PackingStep("bags", "Pack", f"Put in {bags}, tied to {tied}.", goes_in=len(there))
    yield from _fill(to_pack, ("between", "left", "right", "front", "back"), len(there))
    for insert in _inserts(to_pack, "above"):
        yield _insert(insert, "Pack", f"Cut and lay on top: {_called(insert)}.", to_pack, goes_in=len(there))
    yield from _fill(to_pack, ("top",), len(there))
    for extra in boxed.load.last_in:
        yield PackingStep(f"last {extra.name}", "Pack", f"{_upper(extra.name)}, on top.", goes_in=len(there))
    address = "A slip with both addresses on top, for when the label is lost."
    yield PackingStep("inside address", "Pack", address, goes_in=len(there))


def in_order(boxed: Boxed) -> list[PlacedBody]:
    """Everything that has a place, in the order in which it goes in."""
    return sorted(placed(boxed.load, boxed.arrangement), key=lambda one: one.goes_in)


def _place(one: PlacedBody, n: int, to_pack: ToPack) -> PackingStep:
    made, weight = to_pack.boxed.made, one.body.weight
    name = one.body.name.replace("{}", "{ }")  # a measure stands where {} does
    into = "Slide in" if opens_at_its_end(made.way) else "Put in"
    where = "" if made.soft else ": {} from the left wall, {} from the front, {} above the floor"
    says = [step.do for step in by_stage(made.steps)["pack"] if not step.measures] if n == 1 else []
    if n > 1 and where:
        says.append("Lower it straight down.")
    if one.body.this_side_up:
        says.append("This side up.")
    return PackingStep(
        f"place {one.number}", "Pack", f"{into} {name}{where}.", one.at if where else (), tuple(says),
        cautions=_lifting(weight) if weight else (), people=_people(weight) if weight else 1, goes_in=n,
    )  # fmt: skip


def _fill(to_pack: ToPack, places: tuple[str, ...], goes_in: int) -> Iterator[PackingStep]:
    filling = to_pack.boxed.filling
    for one in filling.places:
        if one.void.where in places:
            words = _FILL_AT[one.void.where]
            measures = (one.void.depth,) if "{}" in words else ()
            says = (f"Pack it {FULL[filling.full]}.",) if one is filling.places[-1] else ()
            yield PackingStep(
                f"fill {one.void.where}", "Pack", words, measures, says, (FillUsed(one.fill, one.stuffed),),
                goes_in=goes_in,
            )  # fmt: skip


_FILL_AT = {
    "under": "Fill under the goods, {} deep.", "between": "Fill between the things; work it down with your hand.",
    "left": "Fill at the left, {} deep.", "right": "Fill at the right, {} deep.", "front": "Fill in front, {} deep.",
    "back": "Fill behind, {} deep.", "top": "Fill on top, {} deep.",
}  # fmt: skip


def _check(to_pack: ToPack) -> Iterator[PackingStep]:
    """Stop: is everything in? And does anything move?"""
    load = to_pack.boxed.load
    there: Counter[str] = Counter()
    for unit in load.units:
        there[unit.part.name] += unit.pile
    for extra in load.extras:
        if extra.place != "outside":
            there[extra.name] += 1
    for label in to_pack.bags:
        there[f"bag {label.number}: {label.holds}"] += 1
    for insert in to_pack.boxed.inserts:
        there[_called(insert)] += sum(blank.count for blank in insert.blanks)
    yield PackingStep("all in", "Check", "Stop: is everything in?", count=tuple(there.items()))
    for n, line in enumerate(to_pack.checklist, 1):
        yield PackingStep(f"own check {n}", "Check", "Check for this job:", says=(line,))
    if to_pack.boxed.made.soft:
        yield PackingStep("press", "Check", "Press it all over: no hard edge may be felt.")
        return
    yield PackingStep("shake", "Check", "Hold the lid shut and shake it: nothing may move or rattle.",
                      people=_people(to_pack.boxed.weights.total))  # fmt: skip
    yield PackingStep("shove", "Check", "Shove it from end to end and from side to side: nothing may shift.")
    yield PackingStep("press", "Check", "Press the middle of the lid: it gives a little and comes back.")
    yield PackingStep("bulge", "Check", "Look along each side: where one bulges, pack it anew or take a bigger box.")


def _close(to_pack: ToPack) -> Iterator[PackingStep]:
    """Close and tape it, then what is done with the closed box: it goes in a bag, or is stood up."""
    made, tape, stages = to_pack.boxed.made, to_pack.tape.closing, by_stage(to_pack.boxed.made.steps)
    if to_pack.tape.lightly:
        yield PackingStep("lightly", "Close", "Tape the top lightly: others open it there and pack it again.")
    yield from _bench_steps(stages["close"], "close", "Close", tape)
    if not any(step.tapes for step in stages["close"]):
        yield from _taped("tape top", "Close", "Close it and tape it.", tape)
    if (over := to_pack.boxed.load.over_box) is not None and made.closed_box is not None:
        coat = put_on(Wearer(Box(*made.closed_box), NONE, to_pack.shop.bubbles), over)
        yield replace(_layer("over the box", "closed box", coat, to_pack.shop), section="Close")
    yield from _bench_steps(stages["closed"], "closed", "Close")


def _send(to_pack: ToPack) -> Iterator[PackingStep]:
    weight = to_pack.boxed.weights.total
    yield PackingStep("weigh", "Send", "Weigh it.", people=_people(weight), cautions=_lifting(weight))
    if not to_pack.boxed.made.bends:
        yield PackingStep("measure", "Send", "Measure length, width and height where each is largest.")
    yield PackingStep("label", "Send", "Label flat on the largest face, clear of seams, its edges taped down.")
    for extra in to_pack.boxed.load.extras_at("outside"):
        do = f"{_upper(extra.name)} on the outside, in a pouch beside the label."
        yield PackingStep(f"outside {extra.name}", "Send", do)
    if any(isinstance(one.item, StockBox) and one.item.used for one in to_pack.boxed.made.taken):
        yield PackingStep("old marks", "Send", "Cover old barcodes, addresses and hand-holes.")
    if to_pack.plain:
        yield PackingStep("marks", "Send", "Nothing outside tells what is in it.")
    elif marks := marks_of(to_pack.boxed.load):
        yield PackingStep("marks", "Send", f"Mark it on four sides: {_listed(one.lower() for one in marks)}.")
    yield PackingStep("hand over", "Send", "Hand it over and keep the receipt.", people=_people(weight))


def _upper(name: str) -> str:
    return f"{name[0].upper()}{name[1:]}"


def _people(weight: Mass) -> int:
    return 2 if weight >= SECOND_PERSON_FROM else 1


def _lifting(weight: Mass) -> tuple[str, ...]:
    caution = lifting(weight)
    return (caution,) if caution else ()


def _inserts(to_pack: ToPack, where: Literal["on the goods", "below", "above"]) -> Iterator[Insert]:
    """The inserts that go there; of one that lies under and over the goods half of it."""
    for insert, wanted in zip(to_pack.boxed.inserts, to_pack.boxed.load.inserts, strict=True):
        if goes_on_goods(insert.kind):
            if where == "on the goods":
                yield insert
        elif wanted.where == "both" and where != "on the goods":
            yield replace(insert, blanks=tuple(replace(one, count=one.count // 2) for one in insert.blanks))
        elif wanted.where == where:
            yield insert


def _called(insert: Insert) -> str:
    return insert.kind.replace("-", " ")


def _insert(insert: Insert, section: Section, do: str, to_pack: ToPack, goes_in: int | None = None) -> PackingStep:
    board = to_pack.boxed.insert_board or to_pack.boxed.made.grade
    count = sum(blank.count for blank in insert.blanks)
    return PackingStep(
        f"insert {insert.kind}", section, do, says=(insert.says,) if insert.says and not insert.measures else (),
        used=tuple(_board(board, insert.blanks)), tool=_CUTTER, cautions=CUTTING[:1], minutes=MINUTES_A_PIECE * count,
        goes_in=goes_in,
    )  # fmt: skip


def _board(grade: Grade, blanks: Iterable[Blank]) -> Iterator[BoardUsed]:
    return (BoardUsed(grade.name, one.name, one.size, one.count) for one in blanks)


def _so_many(one: BoxUsed) -> str:
    return f"{one.count} of {one.name}" if one.count > 1 else one.name


def _listed(names: Iterable[str]) -> str:
    *others, last = names
    return f"{', '.join(others)} and {last}" if others else last

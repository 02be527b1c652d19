"""A telescoped stack: equal slotted boxes, each pushed into the flaps of the one below, for what is long and slender.

The bottom box is closed below and the top one above; between, the lower flaps of each box go down inside the one under
it, whose upper flaps stay up outside. Pressed home a joint adds a box's height; pulled up it adds up to a flap less the
least overlap more. Inside a joint the lower flaps take a board at each side of the opening; outside it grows by two
boards at each side where flaps lie over walls (common practice).
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from fardo.core.cut.stacked import draw_stack
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import OVERLAP, Allowances
from fardo.core.make.contents import Contents, turned
from fardo.core.make.made import Made, School, check_inside
from fardo.core.make.step import Step
from fardo.core.make.stock import Stock, StockBox, Taken, TooSmall, closing_tape, nearest_of
from fardo.core.quantity import INCH, ZERO, Length, both_units, volume_nm3
from fardo.core.refusal import NoAnswer
from fardo.core.why import Value, Why

NAME, TITLE = "stack", "Equal boxes telescoped"
FLAPS = "both"
NEEDS = "stock"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(5)  # to open, push in, pull and tape around: starting value

MOST = 12
_BOARDS_AT_A_JOINT = 2
_LEAST_PULL = INCH.half()  # less is not pulled: a joint is pressed home, or pulled so far that it is seen
_PRACTICE = "common practice"


@dataclass(frozen=True, slots=True)
class Stack:
    """Equal boxes telescoped, one in another.

    Args:
        box: inside of one, its longer opening side first.
        caliper: of its board.
        boxes: how many.
        needed: what goes in, its height last.
        overlap: least at a joint.
    """

    box: Sizes
    caliper: Length
    boxes: int
    needed: Sizes
    overlap: Length

    @property
    def flap(self) -> Length:
        return self.box[1].half()

    @property
    def least(self) -> Length:
        """Inside height with every joint pressed home."""
        return self.box[2] * self.boxes

    @property
    def most(self) -> Length:
        """Inside height with every joint pulled up to the least overlap."""
        return self.least + (self.flap - self.overlap) * (self.boxes - 1)

    @property
    def height(self) -> Length:
        """What it is pulled to: as high as the goods, or pressed home."""
        return max(self.least, self.needed[2])

    @property
    def pull(self) -> Length:
        """At each joint."""
        more = self.height.nm - self.least.nm
        return Length(max(-(-more // (self.boxes - 1)), _LEAST_PULL.nm)) if more and self.boxes > 1 else ZERO

    @property
    def overlap_left(self) -> Length:
        return self.flap - self.pull

    @property
    def inside(self) -> Sizes:
        long, short = opening(self.box, self.caliper, self.boxes)
        return long, short, self.least + self.pull * (self.boxes - 1)

    @property
    def outside(self) -> Sizes:
        t = self.caliper
        across = t * 2 + (t * (2 * _BOARDS_AT_A_JOINT) if self.boxes > 1 else ZERO)
        return self.box[0] + across, self.box[1] + across, self.inside[2] + t * 4


def opening(box: Sizes, caliper: Length, boxes: int) -> tuple[Length, Length]:
    """What goes past the joints of so many boxes of that inside, its longer side first."""
    flaps = caliper * 2 if boxes > 1 else ZERO
    return max(box[:2]) - flaps, min(box[:2]) - flaps


def stack_up(box: Sizes, caliper: Length, goods: Sizes, overlap: Length, upright: bool = False) -> Stack:
    """The fewest boxes of that inside that hold the goods, stood on whichever end goes in, or as they are.

    Raises: NoAnswer where no number of them does.
    """
    one, several = opening(box, caliper, 1), opening(box, caliper, 2)
    flap = one[1].half()
    stood = list(turned(goods, upright))
    standing = [needed for needed in stood if needed[0] <= one[0] and needed[1] <= one[1]]
    found = []
    for needed in standing:
        past_joints = needed[0] <= several[0] and needed[1] <= several[1]
        for count in range(1, MOST + 1 if past_joints and flap > overlap else 2):
            stack = Stack((*one, box[2]), caliper, count, needed, overlap)
            if stack.most >= needed[2] and stack.overlap_left >= overlap:
                found.append(stack)
                break
    if found:
        return min(found, key=lambda stack: (stack.boxes, stack.inside[2]))
    if standing and flap <= overlap:
        raise NoAnswer(f"its flaps, {both_units(flap)}, are no more than the overlap a joint needs")
    lacks = Length(min(max(needed[0].nm - several[0].nm, needed[1].nm - several[1].nm) for needed in stood))
    if lacks.nm > 0 and standing:
        raise TooSmall(f"too thick by {both_units(lacks)} to go past the flaps at a joint", lacks)
    if standing:
        raise NoAnswer(f"longer than {MOST} of these boxes one in another")
    raise TooSmall(f"thicker than the opening at a joint by {both_units(lacks)}, whichever end it stands on", lacks)


_LONG = Fraction(3, 2)  # times as long as it is wide: starting value
_MOST_JOINED = 5  # that a packer would telescope: starting value


def take(contents: Contents, stock: Stock, allowances: Allowances) -> tuple[Made, ...]:
    """A stack of each box there is enough of, what takes least room closed first.

    Raises: NoAnswer where none does.
    """
    inside, upright = contents.inside, contents.upright
    check_inside(inside)
    _, second, longest = sorted(inside)
    is_long = longest.nm >= second.nm * _LONG
    found: list[tuple[int, str, StockBox, Stack]] = []
    whys: list[tuple[str, NoAnswer]] = []
    for box in stock.boxes_to_join:
        try:
            stack = stack_up(box.inside, box.grade.caliper, inside, allowances[OVERLAP], upright)
        except NoAnswer as none:
            whys.append((box.name, none))
            continue
        if stack.boxes > box.count:
            whys.append(
                (box.name, TooSmall(f"it takes {stack.boxes} of them, of which there is {box.count}", Length(0)))
            )
        elif stack.boxes > _MOST_JOINED:
            whys.append((box.name, NoAnswer(f"it takes {stack.boxes} of them: so many joints do not hold")))
        elif stack.boxes > 1 and (not is_long or stack.height < stack.box[0]):
            whys.append((box.name, NoAnswer("one in another they are for what is long, and these goods are not")))
        elif stack.boxes > 1:
            found.append((volume_nm3(*stack.outside), box.name, box, stack))
    if not found:
        raise nearest_of(whys, "one box holds it" if stock.boxes_to_join else "there are no boxes")
    return tuple(_made(box, stack) for _, _, box, stack in sorted(found, key=lambda one: one[:2]))


def _made(box: StockBox, stack: Stack) -> Made:
    told: tuple[tuple[str, Value], ...] = (
        ("box length", stack.box[0]), ("box width", stack.box[1]), ("box height", stack.box[2]),
        ("boxes", str(stack.boxes)), ("pulled up at each joint", stack.pull), ("caliper t", stack.caliper),
    )  # fmt: skip
    around = (stack.box[0] + stack.box[1]) * 2
    return Made(
        way=NAME, school="exact", grade=box.grade, needed=stack.needed, inside=stack.inside, outside=stack.outside,
        blanks=(), fence=(),
        tape=closing_tape(stack.outside) + around * (stack.boxes - 1) + (stack.outside[0] + stack.outside[2]) * 4,
        minutes=MINUTES * stack.boxes,
        whys={
            "inside": Why("boxes x height + pulls; across, box - 2t at the joints", told, _PRACTICE),
            "outside": Why("inside + 6t, + 6t, + 4t: two boards more at each side over a joint", told, _PRACTICE),
            "blank": Why("whole boxes, nothing is cut", told, _PRACTICE),
        },
        notes=(), taken=(Taken(box, stack.boxes),), condition="used" if box.used else "new", steps=steps(stack),
        standing=draw_stack(stack.box[0], stack.box[2], stack.flap, stack.caliper, stack.boxes, stack.pull),
    )  # fmt: skip


def steps(stack: Stack) -> tuple[Step, ...]:
    """In order."""
    if stack.boxes == 1:
        return (
            Step("One box is enough: close and tape the bottom.", tapes=True),
            Step("Stand the goods in and fill around them.", stage="pack"),
            Step("Close and tape the top.", tapes=True),
        )
    found = [
        Step("Close and tape the bottom of the first box; its upper flaps stay up.", tapes=True),
        Step("Stand the goods in, the heavy end down, and fill around them so that nothing shifts.", stage="pack"),
    ]
    for n in range(2, stack.boxes + 1):
        found.append(Step(f"Open box {n} at both ends and push its lower flaps down inside box {n - 1}, whose upper "
                          "flaps stay up outside it."))  # fmt: skip
        if stack.pull.nm:
            found.append(Step("Pull it up by {}, so that {} of the flaps overlap, and tape the joint all around.",
                              (stack.pull, stack.flap - stack.pull), tapes=True))  # fmt: skip
        else:
            found.append(Step("Press it home and tape the joint all around.", tapes=True))
    spare = stack.inside[2] - stack.needed[2]
    if spare.nm > 0:
        found.append(Step("Fill the {} left above the goods with a pad.", (spare,)))
    found += [
        Step("Close and tape the top, padded inside.", tapes=True),
        Step("Tape twice around lengthwise, so that three strips cross the top.", tapes=True),
    ]
    return tuple(found)

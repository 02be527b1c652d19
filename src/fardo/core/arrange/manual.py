"""An arrangement as a hand left it: what stands too near what, what goes past what, and where a thing comes to rest."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from fardo.core.arrange.ask import Arrangement, Ask
from fardo.core.arrange.body import Body, Laid, stance
from fardo.core.arrange.compact import Compactor
from fardo.core.arrange.load_on_top import overloaded
from fardo.core.arrange.turn import QUARTERS, after
from fardo.core.goods.part import Sizes
from fardo.core.goods.shape.cover import Floats
from fardo.core.quantity import INCH, Length

_SETTLES = INCH.half()  # less than that is taken up by the fill around it: starting value

_SLACK = 0.06  # mm, a seventh of a sixty-fourth of an inch: less than that is not seen
_STEPS = 40
_LEVEL = 1e-9
_UPWARD = 0.05  # a direction flatter than that holds nothing up


@dataclass(frozen=True, slots=True)
class Fault:
    """What an arrangement does not keep.

    Args:
        which: the thing by number.
        other: the thing it comes too near, None for a wall or a rule of its own.
        short: by how much.
        says: in words.
    """

    which: int
    other: int | None
    short: Length
    says: str


def faults(ask: Ask, answer: Arrangement) -> list[Fault]:
    """What is not kept; nothing where all is."""
    numbers = [n for n in answer.order if answer.laid[n] is not None]
    found = _too_near_walls(ask, answer, numbers)
    found += [
        Fault(n, None, Length(0), f"{ask.bodies[n].name} does not lie as it must")
        for n in numbers
        if not may_stand(ask.bodies[n], _laid(answer, n))
    ]
    if len(numbers) > 1:
        settler, at = settler_of(ask, answer, numbers)
        rows = settler.rows(at)
        short = rows.least - np.einsum("ki,ki->k", rows.directions, at[rows.a] - at[rows.b])
        worst: dict[tuple[int, int], float] = {}
        for a, b, by in zip(rows.a, rows.b, short, strict=True):
            if by > _SLACK:
                pair = numbers[a], numbers[b]
                worst[pair] = max(worst.get(pair, 0.0), float(by))
        for (later, earlier), by in worst.items():
            names = ask.bodies[later].name, ask.bodies[earlier].name
            found.append(Fault(later, earlier, Length.of_mm(round(by, 6)), f"{names[0]} comes too near {names[1]}"))
    found += [Fault(n, None, Length(0), f"more lies over {ask.bodies[n].name} than it bears")
              for n in overloaded(ask, answer)]  # fmt: skip
    return found


def _too_near_walls(ask: Ask, answer: Arrangement, numbers: Sequence[int]) -> list[Fault]:
    found = []
    for n in numbers:
        body, laid = ask.bodies[n], _laid(answer, n)
        stood = stance(body, laid.turn)
        short = max(
            max(before.nm - at.nm, at.nm + size.nm + beyond.nm - side.nm)
            for at, size, side, before, beyond in zip(
                laid.at, stood.sizes, answer.inside, stood.before, stood.beyond, strict=True
            )
        )
        if short > 1000:  # a micrometre
            found.append(Fault(n, None, Length(short), f"{body.name} comes too near a wall"))
    return found


def may_stand(body: Body, laid: Laid) -> bool:
    """Whether its rules leave that turn."""
    up = laid.turn[2][2]
    if body.this_side_up:
        return abs(up - 1) < _LEVEL
    return abs(abs(up) - 1) < _LEVEL if body.keep_flat else True


def settler_of(ask: Ask, answer: Arrangement, numbers: Sequence[int]) -> tuple[Compactor, Floats]:
    """Those things as they lie, in the order they go in."""
    bodies = [ask.bodies[n] for n in numbers]
    room = np.array([[ask.room(i, j).mm for j in numbers] for i in numbers])
    settler = Compactor(bodies, [stance(ask.bodies[n], _laid(answer, n).turn) for n in numbers], room)
    return settler, np.array([[c.mm for c in _laid(answer, n).at] for n in numbers])


def drop(ask: Ask, answer: Arrangement, which: int) -> Length:
    """How far a thing can go straight down before its gap to the floor or to what lies below it is used up."""
    others = [n for n in answer.order if n != which and answer.laid[n] is not None]
    one = _laid(answer, which)
    floor = one.at[2].mm - stance(ask.bodies[which], one.turn).before[2].mm
    if not others:
        return Length.of_mm(round(max(floor, 0.0), 6))
    settler, at = settler_of(ask, answer, [*others, which])
    gone = 0.0
    for _ in range(_STEPS):
        left = floor - gone
        rows = settler.rows(at)
        own = rows.a == len(others)
        spare = np.einsum("ki,ki->k", rows.directions, at[rows.a] - at[rows.b])[own] - rows.least[own]
        upward = rows.directions[own][:, 2]
        depths = np.where(upward > _LEVEL, spare / np.maximum(upward, _LEVEL), np.inf)
        step = float(np.clip(depths, 0, None).min(initial=left))
        step = min(step, left)
        if step < _SLACK / 2:
            break
        gone += step
        at[-1, 2] -= step
    return Length.of_mm(round(gone, 6))


def let_down(ask: Ask, answer: Arrangement, which: int) -> Arrangement:
    """The arrangement with one thing let down until something holds it; as it was where there is none such."""
    one = _there(answer, which)
    if one is None:
        return answer
    x, y, z = one.at
    let = _with(answer, which, replace(one, at=(x, y, z - drop(ask, answer, which))))
    return by_hand(ask, let.laid, answer.order)


def unsupported_depths(ask: Ask, answer: Arrangement) -> list[Length]:
    """Of each thing how far it could at least sink before something holds it: so much more fill goes under it."""
    numbers = [n for n in answer.order if answer.laid[n] is not None]
    found = [Length(0)] * len(ask.bodies)
    settler, at = settler_of(ask, answer, numbers)
    rows = settler.rows(at)
    spare = np.einsum("ki,ki->k", rows.directions, at[rows.a] - at[rows.b]) - rows.least
    upward = rows.directions[:, 2] > _UPWARD
    for k, n in enumerate(numbers):
        own = upward & (rows.a == k)
        floor = at[k, 2] - settler.before[k, 2]
        how_far = float((spare[own] / rows.directions[own, 2]).min(initial=floor))
        found[n] = Length.of_mm(round(max(how_far, 0.0), 6))
    return found


def hollow_under(ask: Ask, answer: Arrangement) -> list[tuple[Body, Length]]:
    """What needs more fill under it than settles by itself, and how much."""
    sinking = zip(ask.bodies, unsupported_depths(ask, answer), strict=True)
    return [(body, by) for body, by in sinking if by > _SETTLES]


def moved_by(answer: Arrangement, which: int, by: Sizes) -> Arrangement:
    """With one thing so much further along each axis; as it was where there is none such."""
    one = _there(answer, which)
    if one is None:
        return answer
    x, y, z = (at + more for at, more in zip(one.at, by, strict=True))
    return _with(answer, which, replace(one, at=(x, y, z)))


def turned_by_a_quarter(ask: Ask, answer: Arrangement, which: int, axis: int) -> Arrangement:
    """With one thing turned by a quarter about an axis, around its own middle; as it was where there is none such."""
    one = _there(answer, which)
    if one is None:
        return answer
    turn = after(QUARTERS[axis], one.turn)
    was, now = (stance(ask.bodies[which], t).sizes for t in (one.turn, turn))
    x, y, z = (at + (a - b).half() for at, a, b in zip(one.at, was, now, strict=True))
    return _with(answer, which, replace(one, turn=turn, at=(x, y, z)))


def locked_or_not(answer: Arrangement, which: int, locked: bool) -> Arrangement:
    """With one thing held where it lies, or let go."""
    one = _there(answer, which)
    return answer if one is None else _with(answer, which, replace(one, locked=locked))


def _there(answer: Arrangement, which: int) -> Laid | None:
    return answer.laid[which] if which < len(answer.laid) else None


def _with(answer: Arrangement, which: int, one: Laid) -> Arrangement:
    laid = list(answer.laid)
    laid[which] = one
    return replace(answer, laid=tuple(laid))


def by_hand(ask: Ask, laid: Sequence[Laid | None], order: Sequence[int]) -> Arrangement:
    """The arrangement once things were moved: pushed off the walls it went through, the box as small as holds it, going
    in in the old order or from the bottom up, whichever can be.
    """
    push = [0, 0, 0]
    for body, one in zip(ask.bodies, laid, strict=True):
        if one is not None:
            before = stance(body, one.turn).before
            push = [max(p, gap.nm - at.nm) for p, gap, at in zip(push, before, one.at, strict=True)]
    pushed: list[Laid | None] = []
    for one in laid:
        if one is None:
            pushed.append(None)
        else:
            x, y, z = (Length(at.nm + by) for at, by in zip(one.at, push, strict=True))
            pushed.append(replace(one, at=(x, y, z)))
    inside = ask.inside or smallest_around(ask, pushed)
    upwards = sorted(order, key=lambda n: _laid_of(pushed, n).at[2].nm)
    answers = [Arrangement(inside, tuple(pushed), tuple(goes_in)) for goes_in in (order, upwards)]
    return min(answers, key=lambda answer: len(faults(ask, answer)))


def smallest_around(ask: Ask, laid: Sequence[Laid | None]) -> Sizes:
    """The inside that holds them all with their gaps to the walls."""
    found = [0, 0, 0]
    for body, one in zip(ask.bodies, laid, strict=True):
        if one is not None:
            stood = stance(body, one.turn)
            for axis, (at, side, beyond) in enumerate(zip(one.at, stood.sizes, stood.beyond, strict=True)):
                found[axis] = max(found[axis], at.nm + side.nm + beyond.nm)
    return Length(found[0]), Length(found[1]), Length(found[2])


def _laid_of(laid: Sequence[Laid | None], n: int) -> Laid:
    one = laid[n]
    if one is None:
        raise ValueError(f"thing {n} lies nowhere")
    return one


def _laid(answer: Arrangement, n: int) -> Laid:
    return _laid_of(answer.laid, n)

"""What is held together: packed among itself first, then carried and laid as one thing.

It stays upright as it was tied, so that what lies in it keeps its own rules and comes out as it went in.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace

from fardo.core.arrange.ask import Arrangement, Ask
from fardo.core.arrange.body import Body, Laid, stance
from fardo.core.arrange.turn import after
from fardo.core.goods.gap import NO_GAP, Gap
from fardo.core.goods.part import Sizes
from fardo.core.goods.shape import Box, Piece, Shape, compound
from fardo.core.quantity import Length, Mass


@dataclass(frozen=True, slots=True)
class Tied:
    """A bundle.

    Args:
        members: by number.
        inner: how they lie in it.
        shift: from there to the bundle's own frame.
    """

    members: tuple[int, ...]
    inner: Arrangement
    body: Body
    shift: Sizes


@dataclass(frozen=True, slots=True)
class Bundled:
    """An ask with every bundle as one thing.

    Args:
        of: what each thing there is, a number or a bundle.
    """

    ask: Ask
    whole: Ask
    of: tuple[int | Tied, ...]

    def untied(self, answer: Arrangement) -> Arrangement:
        """The answer for all things, each by itself."""
        laid: list[Laid | None] = [None] * len(self.whole.bodies)
        order: list[int] = []
        for n in answer.order:
            one, what = answer.laid[n], self.of[n]
            assert one is not None
            if isinstance(what, int):
                laid[what] = one
                order.append(what)
                continue
            for member, place in _members(self.whole, what, one).items():
                laid[member] = place
                order.append(member)
        return Arrangement(answer.inside, tuple(laid), tuple(order))


def bundle_up(ask: Ask, pack: Callable[[Ask], Arrangement | None]) -> Bundled | None:
    """With each bundle as one thing, packed by `pack`; None where nothing is bundled, or something of it is locked."""
    held = {n for n, _ in ask.locked}
    members: dict[str, list[int]] = {}
    for n, body in enumerate(ask.bodies):
        if body.bundle:
            members.setdefault(body.bundle, []).append(n)
    tied: list[Tied] = []
    for numbers in members.values():
        if len(numbers) > 1 and not held & set(numbers):
            inner = Ask(tuple(replace(ask.bodies[n], gap=NO_GAP, bundle="") for n in numbers), apart_by=ask.apart_by)
            answer = pack(inner)
            if answer is not None:
                tied.append(_tie(ask, tuple(numbers), answer))
    if not tied:
        return None
    inside_one = {n for one in tied for n in one.members}
    alone = [n for n in range(len(ask.bodies)) if n not in inside_one]
    of: tuple[int | Tied, ...] = (*alone, *tied)
    bodies = tuple(ask.bodies[what] if isinstance(what, int) else what.body for what in of)
    locked = tuple((alone.index(n), laid) for n, laid in ask.locked)
    return Bundled(replace(ask, bodies=bodies, locked=locked), ask, of)


def _tie(ask: Ask, members: tuple[int, ...], answer: Arrangement) -> Tied:
    bodies = [ask.bodies[n] for n in members]
    pieces = []
    for body, laid in zip(bodies, answer.laid, strict=True):
        assert laid is not None
        stood = stance(body, laid.turn)
        shape: Shape = body.shape
        at = _plus(laid.at, stood.inset)
        if body.held == "block":  # as large as it is with its wrap
            shape, at = Box(*stood.sizes), laid.at
            pieces.append(Piece(shape, at))
            continue
        a, b, c = ((float(row[0]), float(row[1]), float(row[2])) for row in laid.turn)
        pieces.append(Piece(shape, at, (a, b, c)))
    whole = compound(pieces)
    shift = _minus(whole.pieces[0].at, pieces[0].at)
    thick = max(by for body in bodies for by in body.grown)
    bears = [body.bears for body in bodies if body.bears is not None]
    body = Body(
        bodies[0].bundle, whole, _widest(body.gap for body in bodies), (thick, thick, thick), "own",
        Mass(sum(body.weight.ng for body in bodies)), this_side_up=True, bears=min(bears, default=None),
        apart=frozenset[str]().union(*(body.apart for body in bodies)),
    )  # fmt: skip
    return Tied(members, answer, body, shift)


def _widest(gaps: Iterable[Gap]) -> Gap:
    """What is enough for each of them, however it lies in the bundle: at the walls the most that any asks there."""
    each = list(gaps)
    sides = [side for gap in each for side in gap.at_walls_slantwise()]
    level = max(side for one in sides for side in one[:2])
    below, above = (max(one[2] for one in sides[n::2]) for n in range(2))
    return Gap(level, max(gap.between for gap in each), below, above)


def _members(whole: Ask, tied: Tied, laid: Laid) -> dict[int, Laid]:
    """Where each member lies, in the order in which they went into the bundle."""
    begins = _plus(laid.at, stance(tied.body, laid.turn).inset)
    found = {}
    for k in tied.inner.order:
        inner, body = tied.inner.laid[k], whole.bodies[tied.members[k]]
        assert inner is not None
        inset = stance(body, inner.turn).inset
        bare = _plus(_plus(inner.at, inset), tied.shift)
        turned = [sum(row[axis] * bare[axis].nm for axis in range(3)) for row in laid.turn]
        turn = after(laid.turn, inner.turn)
        a, b, c = (begin + Length(round(by)) for begin, by in zip(begins, turned, strict=True))
        found[tied.members[k]] = Laid(turn, _minus((a, b, c), stance(body, turn).inset))
    return found


def _plus(one: Sizes, other: Sizes) -> Sizes:
    a, b, c = (x + y for x, y in zip(one, other, strict=True))
    return a, b, c


def _minus(one: Sizes, other: Sizes) -> Sizes:
    a, b, c = (x - y for x, y in zip(one, other, strict=True))
    return a, b, c


__all__ = ["Bundled", "Tied", "bundle_up"]

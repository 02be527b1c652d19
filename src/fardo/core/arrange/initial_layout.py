"""Everything side by side at once, before anybody has it arranged: what a packer would do without trying much.

Things alike stand in rows, columns and layers; what is held together touches; nothing lies on what bears it not, and
what must not lie beside each other is kept apart. Of what is found the most compact is taken.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from fardo.core.arrange.ask import Arrangement, Ask, keeps_apart
from fardo.core.arrange.body import Body, Laid, stance
from fardo.core.arrange.manual import smallest_around
from fardo.core.arrange.side_by_side import Block, compactness, lay_side_by_side, sizes_when_turned
from fardo.core.arrange.turn import UNTURNED, Turn, after
from fardo.core.goods.gap import NO_GAP
from fardo.core.goods.part import Sizes
from fardo.core.quantity import ZERO, Length

_ROWS_FROM = 3  # so many things alike are laid in rows and layers
_GRIDS, _MANY_GRIDS = 4, 10  # of the ways to do that, so many are looked at at once, and where each is priced


@dataclass(frozen=True, slots=True)
class _Group:
    """Things that are laid as one block.

    Args:
        members: by number.
        laid: how each lies in the block.
        sizes: of the block, without the room around it.
    """

    members: tuple[int, ...]
    laid: tuple[Laid, ...]
    sizes: Sizes
    upright: bool
    bears: int | None
    weight: int
    extra: bool = False


@lru_cache(maxsize=64)
def initial_layout(ask: Ask) -> Arrangement:
    """Everything beside each other with its gaps, in the smallest box for that.

    Two things next to each other need the larger of their gaps once, not both. Half of the least gap is therefore kept
    around each thing less, which leaves any two far enough apart. Where extras are many, each with all of its gap may
    make the smaller box.

    Args:
        ask: without a box that is there, and nothing locked.
    """
    return _every_layout(ask, _GRIDS)[0]


def initial_layouts(ask: Ask) -> tuple[Arrangement, ...]:
    """Several of different sizes, the most compact first: which of them costs least is for a price to say."""
    seen: dict[tuple[Length, ...], Arrangement] = {}
    for answer in _every_layout(ask, _MANY_GRIDS):
        seen.setdefault(tuple(sorted(answer.inside)), answer)
    return tuple(seen.values())


def _every_layout(ask: Ask, most_grids: int) -> list[Arrangement]:
    goods = [body for body in ask.bodies if not body.extra]
    least = min(body.gap.between for body in goods).half()
    shares = [least] if len(ask.bodies) - len(goods) <= len(goods) or not least.nm else [least, ZERO]
    answers = [_laid_out(ask, groups, shared) for groups in _groupings(ask, most_grids) for shared in shares]
    return sorted(answers, key=lambda answer: compactness(answer.inside))


def _groupings(ask: Ask, most_grids: int) -> list[list[_Group]]:
    """Each thing by itself, and things alike in rows and layers; what is held together is one either way."""
    bundles: dict[str, list[int]] = {}
    alike: dict[Body, list[int]] = {}
    for n, body in enumerate(ask.bodies):
        if body.bundle:
            bundles.setdefault(body.bundle, []).append(n)
        else:
            alike.setdefault(body, []).append(n)
    together = [_bundled(ask, numbers) for numbers in bundles.values()]
    alone = [*together, *(_alone(ask, n) for numbers in alike.values() for n in numbers)]
    many = [numbers for numbers in alike.values() if len(numbers) >= _ROWS_FROM]
    if not many:
        return [alone]
    few = [*together, *(_alone(ask, n) for numbers in alike.values() if len(numbers) < _ROWS_FROM for n in numbers)]
    grids = [_of_different_sizes(_grids(ask, numbers))[:most_grids] for numbers in many]
    if len(many) == 1:
        return [[*few, grid] for grid in grids[0]] + ([alone] if few else [])
    return [[*few, *(of_one[0] for of_one in grids)], alone]


def _of_different_sizes(groups: Sequence[_Group]) -> list[_Group]:
    """The first of each size; which side of it is its height counts only where it must stay up."""
    kept: dict[tuple[Length, ...], _Group] = {}
    for group in groups:
        a, b, c = group.sizes
        kept.setdefault((*sorted((a, b)), c) if group.upright else tuple(sorted((a, b, c))), group)
    return list(kept.values())


def _alone(ask: Ask, n: int) -> _Group:
    body = ask.bodies[n]
    bears = None if body.bears is None else body.bears.ng
    laid = Laid(UNTURNED, (ZERO, ZERO, ZERO))
    upright = body.this_side_up or body.keep_flat
    return _Group((n,), (laid,), body.sizes, upright, bears, body.weight.ng, body.extra)


def _bundled(ask: Ask, numbers: Sequence[int]) -> _Group:
    """Held together: they touch, and stay as they were tied."""
    bodies = tuple(replace(ask.bodies[n], gap=NO_GAP, bundle="") for n in numbers)
    inner = initial_layout(Ask(bodies, apart_by=ask.apart_by))
    laid = tuple(one for one in inner.laid if one is not None)
    limits = [body.bears.ng for body in bodies if body.bears is not None]
    weight = sum(body.weight.ng for body in bodies)
    return _Group(tuple(numbers), laid, inner.inside, True, min(limits, default=None), weight)


def _grids(ask: Ask, numbers: Sequence[int]) -> list[_Group]:
    """The ways to lay things that are alike in rows, columns and layers, the most compact first.

    Of equally compact ones what lies comes before what stands.
    """
    body, count = ask.bodies[numbers[0]], len(numbers)
    room = ask.room(numbers[0], numbers[1])
    bears = None if body.bears is None else body.bears.ng
    weight = max(body.weight.ng, 1)
    most_layers = count if bears is None else 1 + bears // weight
    found: list[tuple[int, tuple[int, int], _Group]] = []
    for turn, sizes in sizes_when_turned(body.sizes, body.this_side_up or body.keep_flat):
        for layers in range(1, min(count, most_layers) + 1):
            for rows in range(1, -(-count // layers) + 1):
                columns = -(-count // (layers * rows))
                if (rows - 1) * columns * layers >= count or rows * columns * (layers - 1) >= count:
                    continue  # a row or a layer of it would stay empty
                a, b, c = (
                    side * times + room * (times - 1)
                    for side, times in zip(sizes, (columns, rows, layers), strict=True)
                )
                group = _Group(
                    tuple(numbers), _in_rows(turn, sizes, room, (columns, rows), count), (a, b, c),
                    body.this_side_up or body.keep_flat or bears is not None,
                    None if bears is None else bears - (layers - 1) * weight, body.weight.ng * count,
                    body.extra,
                )  # fmt: skip
                found.append((compactness((a, b, c)), (-a.nm, -b.nm), group))
    found.sort(key=lambda one: one[:2])
    return [group for _, _, group in found]


def _in_rows(turn: Turn, sizes: Sizes, room: Length, of: tuple[int, int], count: int) -> tuple[Laid, ...]:
    """So many things of one size in rows.

    Args:
        of: how many in a row, and how many rows in a layer.
    """
    columns, rows = of
    laid = []
    for n in range(count):
        spot = n % columns, n // columns % rows, n // (columns * rows)
        x, y, z = ((side + room) * k for side, k in zip(sizes, spot, strict=True))
        laid.append(Laid(turn, (x, y, z)))
    return tuple(laid)


def _laid_out(ask: Ask, groups: Sequence[_Group], shared: Length) -> Arrangement:
    """Groups of equal things, each laid in rows, side by side.

    Args:
        shared: as much of its gap no thing keeps itself, as what lies beside it keeps the rest.
    """
    kept = [_kept(ask, group, shared) for group in groups]
    blocks = []
    for group, gap in zip(groups, kept, strict=True):
        a, b, c = (side + gap * 2 for side in group.sizes)
        apart = frozenset(
            k
            for k, other in enumerate(groups)
            if other is not group and _must_be_apart(ask, group.members, other.members)
        )
        name = ask.bodies[group.members[0]].name
        blocks.append(Block(name, (a, b, c), group.upright, group.extra, group.bears, group.weight, apart))
    found = lay_side_by_side(tuple(blocks), ask.apart_by)
    laid: list[Laid | None] = [None] * len(ask.bodies)
    for group, gap, placed in zip(groups, kept, found.placed, strict=True):
        begins = tuple(at + gap for at in placed.at)
        for n, one in zip(group.members, group.laid, strict=True):
            laid[n] = _carried(ask.bodies[n], one, placed.turn, group.sizes, begins)
    return _against_walls(ask, laid)


def _kept(ask: Ask, group: _Group, shared: Length) -> Length:
    if group.extra:
        return shared
    return max(max(ask.bodies[n].gap.between for n in group.members), shared) - shared


def _must_be_apart(ask: Ask, some: Iterable[int], others: Sequence[int]) -> bool:
    return any(keeps_apart(ask.bodies[a], ask.bodies[b]) for a in some for b in others)


def _carried(body: Body, one: Laid, turn: Turn, sizes: Sizes, begins: tuple[Length, ...]) -> Laid:
    """A thing of a block of those sizes, the block turned and its lowest corner where it begins."""
    own = stance(body, one.turn).sizes
    at = []
    for begin, row in zip(begins, turn, strict=True):
        k = next(k for k in range(3) if row[k])
        at.append(begin + (one.at[k] if row[k] > 0 else sizes[k] - one.at[k] - own[k]))
    return Laid(after(turn, one.turn), (at[0], at[1], at[2]))


def _against_walls(ask: Ask, laid: Sequence[Laid | None]) -> Arrangement:
    """All of it as near to the walls as the gaps there let it."""
    there = [(body, one, stance(body, one.turn)) for body, one in zip(ask.bodies, laid, strict=True) if one is not None]
    shift = [max(stood.before[axis].nm - one.at[axis].nm for _, one, stood in there) for axis in range(3)]
    moved: list[Laid | None] = []
    for _, one, _ in there:
        x, y, z = (Length(at.nm + by) for at, by in zip(one.at, shift, strict=True))
        moved.append(replace(one, at=(x, y, z)))
    upwards = sorted(range(len(moved)), key=lambda n: (there[n][1].at[2].nm, n))
    return Arrangement(smallest_around(ask, moved), tuple(moved), tuple(upwards))

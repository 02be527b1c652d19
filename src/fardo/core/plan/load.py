"""What goes into one parcel, as the arranging engine sees it, and where it lies until somebody has it arranged."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

from fardo.core.arrange.ask import Answer, Ask
from fardo.core.arrange.beside import Block, put_beside
from fardo.core.arrange.body import Body, Laid, stance
from fardo.core.arrange.hand import faults
from fardo.core.goods.part import Extra, Part, Sizes
from fardo.core.goods.shape import Box
from fardo.core.make.inserts.wanted import Wanted
from fardo.core.plan.hashed import HashedOnce
from fardo.core.plan.wrapped import Wrapped
from fardo.core.protect.forms import held_by
from fardo.core.protect.material import Layer
from fardo.core.quantity import ZERO, Length, Mass, show_sizes, volume_nm3
from fardo.core.refusal import BadInput

MOST_UNITS = 80
_BEARS_NOTHING, _BEARS_ITS_OWN = 25, 40  # g: extremely fragile, very delicate (common practice)
APART_BY = Length.of_mm(50.0)  # between what must not lie beside each other


@dataclass(frozen=True, slots=True)
class Load(HashedOnce):
    """What goes into one parcel: the wrapped things, the extras, what lines the walls, and how it was arranged if it
    was.

    Args:
        packed: an arrangement that holds for it; see `holds`. inserts: of board, cut with the box. holes: whether the
        box has hand holes.
    """

    units: tuple[Wrapped, ...]
    extras: tuple[Extra, ...]
    liner: Layer | None = None
    packed: Answer | None = None
    inserts: tuple[Wanted, ...] = ()
    holes: bool = False
    __hash__ = HashedOnce.__hash__

    @property
    def volume_nm3(self) -> int:
        """Goods and extras."""
        return _volume(self)

    @property
    def goods_weight(self) -> Mass:
        return Mass(sum(unit.goods_weight.ng for unit in self.units))


@lru_cache(maxsize=64)
def _volume(load: Load) -> int:
    goods = sum(unit.shape.volume_nm3 for unit in load.units)
    return goods + sum(volume_nm3(*extra.sizes) for extra in load.extras)


@lru_cache(maxsize=64)
def bodies_of(load: Load) -> tuple[Body, ...]:
    """The things of a load, then its extras."""
    return (*(_body(unit) for unit in load.units), *(_extra(extra) for extra in load.extras))


@dataclass(frozen=True, slots=True)
class Placed:
    """A thing where it lies in the inside.

    Args:
        number: among all there are, extras after parts. at, sizes: of the box around it, wrapped and turned.
        origin: of it bare: a point p of it is at turn x p + origin. goes_in: when it does, from above.
    """

    number: int
    body: Body
    laid: Laid
    at: Sizes
    sizes: Sizes
    origin: Sizes
    goes_in: int


def placed(load: Load, answer: Answer) -> tuple[Placed, ...]:
    """Everything that has a place."""
    goes_in = {n: k + 1 for k, n in enumerate(answer.order)}
    found = []
    for n, (body, laid) in enumerate(zip(bodies_of(load), answer.laid, strict=True)):
        if laid is not None:
            stood = stance(body, laid.turn)
            x, y, z = (at + inset for at, inset in zip(laid.at, stood.inset, strict=True))
            found.append(Placed(n, body, laid, laid.at, stood.sizes, (x, y, z), goes_in[n]))
    return tuple(found)


@lru_cache(maxsize=512)
def _body(unit: Wrapped) -> Body:
    held = held_by(coat.material.form for coat in unit.coats)
    part = unit.part
    return Body(
        part.name, unit.shape, part.gap, unit.grown, held, unit.weight, part.rules.this_side_up, part.rules.keep_flat,
        _bears(part, unit), part.fragility, part.rules.bundle, part.rules.apart,
    )  # fmt: skip


def _bears(part: Part, unit: Wrapped) -> Mass | None:
    """What may lie over it: as said, else by how fragile it is."""
    if part.rules.no_load_on_top:
        return Mass(0)
    if part.rules.bears is not None or part.fragility is None:
        return part.rules.bears
    if part.fragility < _BEARS_NOTHING:
        return Mass(0)
    return unit.weight if part.fragility < _BEARS_ITS_OWN else None


def _extra(extra: Extra) -> Body:
    return Body(extra.name, Box(*extra.sizes), weight=extra.weight, extra=True)


def ask_of(load: Load, inside: Sizes | None = None, locked: tuple[tuple[int, Laid], ...] = (), seed: int = 0) -> Ask:
    """What is asked of the engine. Args: inside: of a box that is there, within its liner."""
    return Ask(bodies_of(load), inside, locked, APART_BY, seed)


def with_packed(load: Load, answer: Answer) -> Load:
    """The load so arranged, where that holds for it as it is now; else as it was."""
    return replace(load, packed=answer) if holds(ask_of(load), answer) else load


@lru_cache(maxsize=256)
def holds(ask: Ask, answer: Answer) -> bool:
    """Whether an arrangement keeps everything it must."""
    return answer.whole and not faults(ask, answer)


# One picture of a job asks for it in every way to box it.
@lru_cache(maxsize=64)
def arrange(load: Load) -> Answer:
    """As it was arranged; until then everything side by side, inside the liner.

    Two things next to each other need the larger of their gaps once, not both. Half of the least gap is therefore kept
    along the walls instead of around each thing; then it is whole at a wall, and between any two. An extra keeps as
    much, so where there are more extras than goods, everything by itself may make the smaller box.
    """
    if load.packed is not None:
        return load.packed
    least = min(unit.part.gap for unit in load.units).half()
    if len(load.units) == 1 or not least.nm:
        return _side_by_side(load, ZERO)
    shared = _side_by_side(load, least)
    if len(load.extras) <= len(load.units):
        return shared
    return min(shared, _side_by_side(load, ZERO), key=lambda found: volume_nm3(*found.inside))


def side_by_side(ask: Ask, load: Load) -> Answer | None:
    """Everything side by side, where that answers what was asked."""
    lying = arrange(replace(load, packed=None))
    return lying if not ask.locked and ask.inside is None and holds(ask, lying) else None


def air_in(load: Load, answer: Answer) -> float:
    """The share of an arrangement's inside that is neither goods, extras nor wrap."""
    wrap = sum(coat.room_nm3 for unit in load.units for coat in unit.coats)
    return max(1 - (load.volume_nm3 + wrap) / answer.room_nm3, 0)


def saved_room(load: Load, answer: Answer) -> float:
    """The share of the room side by side that an arrangement does without; below 0 it takes more."""
    return 1 - answer.room_nm3 / arrange(replace(load, packed=None)).room_nm3


def liner_thickness(load: Load) -> Length:
    return load.liner.material.thickness * load.liner.layers if load.liner else ZERO


def within_liner(inside: Sizes, load: Load) -> Sizes:
    """What the liner leaves of a box's inside. Raises BadInput where that is nothing."""
    off = liner_thickness(load) * 2
    if any(side <= off for side in inside):
        raise BadInput("no room within the liner", read=show_sizes(inside, "in", "nearest").text, field="inside",
                       allowed="sides larger than the liner takes")  # fmt: skip
    a, b, c = (side - off for side in inside)
    return a, b, c


def _side_by_side(load: Load, shared: Length) -> Answer:
    bodies = bodies_of(load)
    kept = [max(body.gap, shared) - shared for body in bodies]
    kept = [shared if body.extra else gap for body, gap in zip(bodies, kept, strict=True)]
    blocks = []
    for body, gap in zip(bodies, kept, strict=True):
        length, width, height = (side + gap * 2 for side in body.sizes)
        blocks.append(Block(body.name, (length, width, height), body.this_side_up or body.keep_flat, body.extra))
    found = put_beside(tuple(blocks)).moved_in(shared)
    laid = []
    for placed, gap in zip(found.placed, kept, strict=True):
        x, y, z = (at + gap for at in placed.at)
        laid.append(Laid(placed.turn, (x, y, z)))
    order = sorted(range(len(laid)), key=lambda n: (laid[n].at[2].nm, n))
    return Answer(found.inside, tuple(laid), tuple(order))

"""What goes into one parcel, as the arranging engine sees it, and where it lies until somebody has it arranged."""

from __future__ import annotations

from dataclasses import dataclass, replace
from fractions import Fraction
from functools import lru_cache

from fardo.core.arrange.ask import Arrangement, Ask
from fardo.core.arrange.body import Body, Laid, stance
from fardo.core.arrange.initial_layout import initial_layout
from fardo.core.arrange.manual import faults
from fardo.core.fill.filling import NO_WISH, FillWish
from fardo.core.goods.gap import NO_GAP
from fardo.core.goods.part import Extra, ExtraPlace, Part, Sizes, sides_less
from fardo.core.goods.shape import Box
from fardo.core.hashed import HashedOnce
from fardo.core.make.inserts.wanted import Wanted
from fardo.core.make.made import Made
from fardo.core.make.stock import Pouch
from fardo.core.plan.wrapped import Wrapped
from fardo.core.protect.coat import NONE, Coat
from fardo.core.protect.forms import BOXED, held_by, shuts
from fardo.core.protect.liner import line_walls
from fardo.core.protect.material import Layer
from fardo.core.quantity import INCH, ZERO, Length, Mass, show_sizes, volume_nm3
from fardo.core.refusal import BadInput

MOST_UNITS = 80
_BEARS_NOTHING, _BEARS_ITS_OWN = 25, 40  # g: extremely fragile, very delicate (common practice)
_FLAT = 3  # times as thin as it is wide
_FLOATS_FROM, _FLOATS_UP_TO = INCH * 2, 59  # of gap; g, delicate things (common practice)
IN_INSERTS = "in the maker's own inserts"
APART_BY = Length.of_mm(50.0)  # between what must not lie beside each other


@dataclass(frozen=True, slots=True)
class Bundle:
    """Parts held together by that name, and what goes around all of them, from the goods outward."""

    name: str
    layers: tuple[Layer, ...]

    @property
    def growth(self) -> Length:
        """What that adds on each side: a layer that is wound, drawn over or lies next to the goods."""
        return sum((_added(layer) for layer in self.layers), start=ZERO)


def _added(layer: Layer) -> Length:
    if isinstance(layer.item, Pouch):
        return layer.item.wall
    return layer.material.thickness * max(layer.layers, layer.across or 1)


@dataclass(frozen=True, slots=True)
class Load(HashedOnce):
    """What goes into one parcel: the wrapped things, the extras, what lines the walls, and how it was arranged if it
    was.

    Args:
        packed: an arrangement that holds for it; see `holds`.
        inserts: of board, cut with the box.
        holes: whether the box has hand holes.
        over_box: wrap around a closed box that goes in a bag or an envelope.
        bundles: those that are wrapped together.
        fill: what the job says of it.
        tape: how many times the usual.
        wet: whether it may stand in rain on its way.
        repacked: whether others open it and pack it again.
        pack_minutes: to place, fill, close and label it, None where the shop's usual.
        pressed: by how much less than the wrapped goods a box that is cut is each way.
    """

    units: tuple[Wrapped, ...]
    extras: tuple[Extra, ...]
    liner: Layer | None = None
    packed: Arrangement | None = None
    inserts: tuple[Wanted, ...] = ()
    holes: bool = False
    over_box: Layer | None = None
    bundles: tuple[Bundle, ...] = ()
    fill: FillWish = NO_WISH
    tape: Fraction = Fraction(1)
    wet: bool = False
    repacked: bool = False
    pack_minutes: Fraction | None = None
    pressed: Length = ZERO
    __hash__ = HashedOnce.__hash__

    @property
    def volume_nm3(self) -> int:
        """Goods and extras."""
        return _volume(self)

    @property
    def goods_weight(self) -> Mass:
        return Mass(sum(unit.goods_weight.ng for unit in self.units))

    @property
    def gives(self) -> Length:
        """By how much all of it may be pressed in along each side of a box: what the least soft thing gives."""
        return min(unit.gives for unit in _alike(self.units))

    @property
    def floats(self) -> bool:
        """Whether it stands in the middle of its box, with fill all round: what is fragile, or has much gap."""
        return any(
            unit.part.gap.least >= _FLOATS_FROM
            or (unit.part.fragility is not None and unit.part.fragility <= _FLOATS_UP_TO)
            or any(coat.material.form == BOXED for coat in unit.coats)
            for unit in _alike(self.units)
        )

    @property
    def open_parts(self) -> tuple[str, ...]:
        """Those that are not wrapped shut, into which loose fill would get."""
        return tuple(
            dict.fromkeys(
                unit.part.name for unit in _alike(self.units)
                if not any(shuts(coat.material.form) and not coat.one_side for coat in unit.coats)
            )
        )  # fmt: skip

    @property
    def flat(self) -> bool:
        """Whether all of it is flat things, which go into a box from any side."""
        return all(sides[0] * _FLAT <= sides[1] for sides in (sorted(unit.sizes) for unit in _alike(self.units)))

    @property
    def from_above(self) -> bool:
        """Whether it is let down into a box, and not slid in at an end."""
        return self.floats or any(unit.part.rules.upright for unit in _alike(self.units))

    @property
    def without_gap(self) -> Load:
        """As it travels in a bag or a mailer, side by side."""
        units = tuple(replace(unit, part=replace(unit.part, gap=NO_GAP)) for unit in self.units)
        return replace(self, units=units, packed=None, liner=None)

    @property
    def unwrapped(self) -> Load:
        """As it lies in a maker's own inserts, with no wrap and no gap."""
        units = tuple(
            replace(unit, part=replace(unit.part, gap=NO_GAP, proven=IN_INSERTS), coats=(), grown=NONE, guards=())
            for unit in self.units
        )
        return replace(self, units=units, packed=None, liner=None)

    @property
    def over_box_thickness(self) -> Length:
        """What is wrapped around a closed box adds on each side."""
        return self.over_box.material.thickness * self.over_box.layers if self.over_box else ZERO

    @property
    def last_in(self) -> tuple[Extra, ...]:
        """The extras that are folded or laid on top, last of all; they size no box."""
        return self.extras_at("on top")

    def extras_at(self, place: ExtraPlace) -> tuple[Extra, ...]:
        """The extras that go there."""
        return tuple(extra for extra in self.extras if extra.place == place)


@lru_cache(maxsize=64)
def _alike(units: tuple[Wrapped, ...]) -> tuple[Wrapped, ...]:
    """Each that differs; what is asked of all of them is asked of many alike once."""
    return tuple(dict.fromkeys(units))


@lru_cache(maxsize=64)
def _volume(load: Load) -> int:
    goods = sum(unit.shape.volume_nm3 for unit in load.units)
    return goods + sum(volume_nm3(*extra.sizes) for extra in load.extras)


@lru_cache(maxsize=64)
def bodies_of(load: Load) -> tuple[Body, ...]:
    """The things of a load, then those extras that take up room of their own."""
    growth = {bundle.name: bundle.growth for bundle in load.bundles}
    return (
        *(_body(unit, growth.get(unit.part.rules.bundle, ZERO)) for unit in load.units),
        *(_extra(extra) for extra in load.extras if not extra.lies_flat),
    )


@dataclass(frozen=True, slots=True)
class PlacedBody:
    """A thing where it lies in the inside.

    Args:
        number: among all there are, extras after parts.
        at, sizes: of the box around it, wrapped and turned.
        origin: of it bare: a point p of it is at turn x p + origin.
        goes_in: when it does, from above.
        before, beyond: the gap it keeps to the walls.
    """

    number: int
    body: Body
    laid: Laid
    at: Sizes
    sizes: Sizes
    origin: Sizes
    goes_in: int
    before: Sizes
    beyond: Sizes


def placed(load: Load, answer: Arrangement) -> tuple[PlacedBody, ...]:
    """Everything that has a place."""
    goes_in = {n: k + 1 for k, n in enumerate(answer.order)}
    found = []
    for n, (body, laid) in enumerate(zip(bodies_of(load), answer.laid, strict=True)):
        if laid is not None:
            stood = stance(body, laid.turn)
            x, y, z = (at + inset for at, inset in zip(laid.at, stood.inset, strict=True))
            found.append(
                PlacedBody(n, body, laid, laid.at, stood.sizes, (x, y, z), goes_in[n], stood.before, stood.beyond)
            )
    return tuple(found)


@lru_cache(maxsize=512)
def _body(unit: Wrapped, around_bundle: Length) -> Body:
    held = held_by(coat.material.form for coat in unit.coats)
    part = unit.part
    return Body(
        part.name, unit.shape, part.gap.widened(around_bundle), unit.grown, held, unit.weight,
        part.rules.this_side_up, part.rules.keep_flat, _bears(part, unit), part.fragility, part.rules.bundle,
        part.rules.apart, around_bundle=around_bundle, boxed=any(coat.material.form == BOXED for coat in unit.coats),
    )  # fmt: skip


def _bears(part: Part, unit: Wrapped) -> Mass | None:
    """What may lie over it: as said, else by how fragile it is."""
    if part.rules.no_load_on_top:
        return Mass(0)
    if part.rules.bears is not None:
        return part.rules.bears
    if part.rules.this_side_up and _stands_on_edge(unit):
        return Mass(0)
    if part.fragility is None:
        return None
    if part.fragility < _BEARS_NOTHING:
        return Mass(0)
    return unit.weight if part.fragility < _BEARS_ITS_OWN else None


def _stands_on_edge(unit: Wrapped) -> bool:
    """Whether it is a flat thing that stands on one of its edges, as pictures do: nothing stands on it (common
    practice).
    """
    thin, *others = sorted(unit.sizes)
    return unit.shape.thin != 2 and thin * _FLAT <= others[0]


def _extra(extra: Extra) -> Body:
    return Body(extra.name, Box(*extra.sizes), weight=extra.weight, extra=True)


def ask_of(load: Load, inside: Sizes | None = None, locked: tuple[tuple[int, Laid], ...] = (), seed: int = 0) -> Ask:
    """What is asked of the engine.

    Args:
        inside: of a box that is there, within its liner.
    """
    return Ask(bodies_of(load), inside, locked, APART_BY, seed)


def not_in_one(load: Load) -> str:
    """Why it cannot go in one parcel; nothing where it can."""
    if len(load.units) > MOST_UNITS:
        return f"{len(load.units)} things; up to {MOST_UNITS} go in one parcel"
    names = {unit.part.name for unit in _alike(load.units)}
    for unit in _alike(load.units):
        if others := unit.part.rules.not_with & (names - {unit.part.name}):
            return f"{unit.part.name} goes in another parcel than {' and '.join(sorted(others))}"
    return ""


def with_packed(load: Load, answer: Arrangement) -> Load:
    """The load so arranged, where that holds for it as it is now; else as it was."""
    return replace(load, packed=answer) if holds(ask_of(load), answer) else load


@lru_cache(maxsize=256)
def holds(ask: Ask, answer: Arrangement) -> bool:
    """Whether an arrangement keeps everything it must."""
    return answer.whole and not faults(ask, answer)


def arrange(load: Load) -> Arrangement:
    """As it was arranged; until then everything side by side, inside the liner."""
    return load.packed or initial_layout(ask_of(load))


def side_by_side(ask: Ask, load: Load) -> Arrangement | None:
    """Everything side by side, where that answers what was asked."""
    lying = arrange(replace(load, packed=None))
    return lying if not ask.locked and ask.inside is None and holds(ask, lying) else None


def air_in(load: Load, answer: Arrangement) -> float:
    """The share of an arrangement's inside that is neither goods, extras nor wrap."""
    wrap = sum(coat.room_nm3 for unit in load.units for coat in unit.coats)
    return max(1 - (load.volume_nm3 + wrap) / answer.room_nm3, 0)


def saved_room(load: Load, answer: Arrangement) -> float:
    """The share of the room side by side that an arrangement does without; below 0 it takes more."""
    return 1 - answer.room_nm3 / arrange(replace(load, packed=None)).room_nm3


def liner_thickness(load: Load) -> Length:
    return load.liner.material.thickness * load.liner.layers if load.liner else ZERO


def line_box(load: Load, liner: Layer, made: Made | None) -> Coat:
    """The liner on the walls of the box in hand; around the goods as they lie where there is none, or it is soft."""
    if made is None or made.soft:
        return line_walls(arrange(load).inside, liner)
    return line_walls(within_liner(made.inside, load), liner)


def within_liner(inside: Sizes, load: Load) -> Sizes:
    """What the liner leaves of a box's inside. Raises BadInput where that is nothing."""
    off = liner_thickness(load) * 2
    if any(side <= off for side in inside):
        raise BadInput("no room within the liner", read=show_sizes(inside, "in", "nearest").text, field="inside",
                       allowed="sides larger than the liner takes")  # fmt: skip
    return sides_less(inside, off)

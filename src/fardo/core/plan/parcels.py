"""A job in several parcels that go together by one service.

Things that are alike are told apart by nobody: a parcel is how many of each kind it holds. Parts that are held together
stay together; the extras go with the first parcel. What each parcel costs in each box by each service is worked out
once and kept. Where there are few parcels that differ every division is looked at, so that the cheapest is found; else
even shares and kinds apart are begun with, and things are moved and exchanged while that costs less.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, field, replace
from itertools import combinations, pairwise, product

from fardo.core.arrange.ask import Arrangement
from fardo.core.arrange.initial_layout import initial_layouts
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.job import Job
from fardo.core.plan.load import Load, ask_of, not_in_one, with_packed
from fardo.core.plan.picture import price_ways, services_for
from fardo.core.plan.price import Plan, price_together
from fardo.core.plan.shop import Shop
from fardo.core.quantity import Money
from fardo.core.tariff.carriers import Carriers

_LAYOUTS = 3  # ways to lay each parcel side by side that are priced
_SERVICES = 5  # of those that would be cheapest, priced for all parcels together
_OFFERS = 5  # boxes that are kept of a parcel for a service: what is there once goes to one of them
_ARRANGED = 3  # divisions whose parcels are arranged at most
_MIXED = 4  # of so many parcels every mix of those is looked at
ENUMERATED = 48  # parcels that differ: of no more every division is looked at

Held = tuple[int, ...]  # how many of each kind a parcel holds
Division = tuple[Held, ...]  # the parcels, those that hold most first


@dataclass(frozen=True, slots=True)
class Offer:
    """A parcel in its best box for a service, and what that comes to alone, in the smallest coin."""

    boxed: Boxed
    alone: int

    @property
    def order(self) -> tuple[bool, int]:
        return self.boxed.strength.overloaded, self.alone


Called = tuple[str, str, str]
ArrangeOne = Callable[[Job], Iterable[Arrangement]]
Offers = dict[Called, list[Offer]]  # by service, the best first, each in another box


@dataclass
class Parcels:
    """Divides a job, and keeps what it has worked out.

    Args:
        looked_at: how many parcels may be worked out at most, where not every division is looked at.
        arrange_one: how what one parcel holds may lie, the best first, beside what is laid side by side; asked for the
            best divisions only.
    """

    job: Job
    shop: Shop
    carriers: Carriers
    looked_at: int = 60
    arrange_one: ArrangeOne | None = None
    _offers: dict[tuple[Held, bool], Offers] = field(default_factory=dict)
    _plans: dict[Division, Plan | None] = field(default_factory=dict)
    _arranged: set[tuple[Held, bool]] = field(default_factory=set)

    def __post_init__(self) -> None:
        load = self.job.must_load()
        tied: dict[str, list[int]] = {}
        for n, unit in enumerate(load.units):
            tied.setdefault(unit.part.rules.bundle or f"\0{n}", []).append(n)
        kinds: dict[tuple[object, ...], list[tuple[int, ...]]] = {}
        for numbers in tied.values():
            kinds.setdefault(tuple(load.units[n] for n in numbers), []).append(tuple(numbers))
        self._load, self._kinds = load, list(kinds.values())
        self.all: Held = tuple(len(of_kind) for of_kind in self._kinds)
        self._services, _ = services_for(self.job, self.carriers)

    def cheapest(self) -> list[Plan]:
        """Plans in two parcels or more, the best first; none where none is taken."""
        most = min(self.job.parcels_at_most, sum(self.all))
        if most < 2 or self.job.journey is None:
            return []
        differ = 1
        for count in self.all:
            differ *= count + 1
        if differ <= ENUMERATED:
            for division in divisions(self.all, most):
                if len(division) > 1:
                    self.plan(division)
        else:
            self._search(most)
        return self._each_arranged()

    def _each_arranged(self) -> list[Plan]:
        """The plans, the best first, once what is in the parcels of the best is arranged."""
        done: set[Division] = set()
        while True:
            ranked = sorted(
                (
                    (plan, division)
                    for division, plan in self._plans.items()
                    if plan is not None and len(division) > 1  # a search comes by one parcel too
                ),
                key=lambda one: (one[0].overloaded, *one[0].rank, len(one[0].boxes), _unevenness(one[0])),
            )
            if not ranked or self.arrange_one is None or ranked[0][1] in done or len(done) >= _ARRANGED:
                return [plan for plan, _ in ranked]
            division = ranked[0][1]
            done.add(division)
            for n, held in enumerate(division):
                self._arrange(held, n == 0)
            for other, plan in self._plans.items():
                if plan is not None and not set(other).isdisjoint(division):
                    self._plans[other] = self._planned(other)

    def _arrange(self, held: Held, first: bool) -> None:
        """Adds what a parcel costs with all of it arranged."""
        first = first and bool(self._load.extras)
        load = self._load_of(held, first)
        if (held, first) in self._arranged or self.arrange_one is None or len(load.units) + len(load.extras) < 2:
            return
        self._arranged.add((held, first))
        answers = self.arrange_one(replace(self._alone, load=load))
        merged: dict[Called, list[Offer]] = {}
        for offers in (self._offered(held, first), self._offers_of(load, answers)):
            for called, of_one in offers.items():
                merged[called] = _best_of_each([*merged.get(called, ()), *of_one])
        self._offers[held, first] = merged

    def _search(self, most: int) -> None:
        """From each start, moved and exchanged while it costs less and may be looked at."""
        for start in dict.fromkeys(_starts(self.all, most)):
            here = start
            while self.plan(here) is not None and len(self._offers) < self.looked_at:
                now = self._rank(here)
                better = next((one for one in _beside(here, most) if self._rank(one) < now), None)
                if better is None:
                    break
                here = better

    def _rank(self, division: Division) -> tuple[bool, bool, int]:
        plan = self.plan(division) if len(self._offers) < self.looked_at else self._plans.get(division)
        return (plan.overloaded, *plan.rank) if plan is not None else (True, True, 1 << 60)

    def plan(self, division: Division) -> Plan | None:
        """The best box for each parcel and the best service for all of them; None where none takes them."""
        if division not in self._plans:
            self._plans[division] = self._planned(division)
        return self._plans[division]

    def _planned(self, division: Division) -> Plan | None:
        offered = [self._offered(held, n == 0) for n, held in enumerate(division)]
        shared = set(offered[0]).intersection(*offered[1:])
        there = {called: _that_there_are([one[called] for one in offered]) for called in shared}
        taken = {called: offers for called, offers in there.items() if offers}
        by_sum = sorted(taken, key=lambda called: (sum(one.alone for one in taken[called]), called))
        plans = []
        for called in by_sum[:_SERVICES]:
            boxes = tuple(one.boxed for one in taken[called])
            service = [one for one in self._services if one.called == called]
            plans += price_together(boxes, self._shares(division), self.job.must_go(), service, self.shop.exchange)
        return min(plans, key=lambda plan: plan.rank, default=None)

    def _shares(self, division: Division) -> list[Money | None]:
        things = [sum(self._load.units[n].pile for n in of_kind[0]) for of_kind in self._kinds]
        held = [sum(count * of for count, of in zip(one, things, strict=True)) for one in division]
        return value_shares(self.job.must_go().own_value, held)

    def _offered(self, held: Held, first: bool) -> Offers:
        first = first and bool(self._load.extras)
        if (held, first) not in self._offers:
            self._offers[held, first] = self._worked_out(held, first)
        return self._offers[held, first]

    @property
    def _alone(self) -> Job:
        """The job as one of its parcels goes, without what goes beside it and with no value of its own."""
        journey = replace(self.job.must_go(), beside=(), value=None)
        return replace(self.job, journey=journey, box=None, price=None, parcels_at_most=1)

    def _worked_out(self, held: Held, first: bool) -> Offers:
        load = self._load_of(held, first)
        if not_in_one(load):
            return {}
        return self._offers_of(load, initial_layouts(ask_of(load))[:_LAYOUTS])

    def _offers_of(self, load: Load, layouts: Iterable[Arrangement]) -> Offers:
        """What a parcel comes to, laid in each of these ways."""
        found: dict[Called, list[Offer]] = {}
        for layout in layouts:
            job = replace(self._alone, load=with_packed(load, layout))
            for way in price_ways(job, self.shop, self.carriers).ways:
                boxed = way.boxed
                # A container of a carrier's goes at a price of its own, which is for one parcel.
                if boxed.too_large is not None or boxed.made.carrier:
                    continue
                for plan in way.plans:
                    found.setdefault(plan.quote.called, []).append(Offer(boxed, plan.costs.total.minor))
        return {called: _best_of_each(offers) for called, offers in found.items()}

    def _load_of(self, held: Held, first: bool) -> Load:
        """What a parcel holds, as a load of its own.

        Args:
            first: whether the extras go with it.
        """
        numbers = sorted(
            n for count, of_kind in zip(held, self._kinds, strict=True) for tied in of_kind[:count] for n in tied
        )
        units = tuple(self._load.units[n] for n in numbers)
        names = {unit.part.rules.bundle for unit in units}
        bundles = tuple(bundle for bundle in self._load.bundles if bundle.name in names)
        return replace(
            self._load, units=units, extras=self._load.extras if first else (), packed=None, bundles=bundles
        )  # fmt: skip


def value_shares(value: Money | None, held: Sequence[int]) -> list[Money | None]:
    """Of a declared value, by how many things each parcel holds; what cannot be shared is the first's.

    >>> [str(share) for share in value_shares(Money(1000, "USD"), [1, 1, 1])]
    ['3.34', '3.33', '3.33']
    """
    if value is None:
        return [None] * len(held)
    rest = [Money(value.minor * count // sum(held), value.currency) for count in held[1:]]
    first = Money(value.minor - sum(share.minor for share in rest), value.currency)
    return [first, *rest]


def _best_of_each(offers: Iterable[Offer]) -> list[Offer]:
    """The best for each box, the best first."""
    kept: dict[tuple[str, str], Offer] = {}
    for offer in sorted(offers, key=lambda offer: offer.order):
        kept.setdefault((offer.boxed.made.way, offer.boxed.made.item), offer)
    return list(kept.values())[:_OFFERS]


def _that_there_are(offered: Sequence[Sequence[Offer]]) -> tuple[Offer, ...]:
    """The best box for each parcel, none of them taken more often than it is there; nothing where that cannot be."""
    best = tuple(offers[0] for offers in offered)
    if _enough(best):
        return best
    if len(offered) <= _MIXED:
        mixed = (mix for mix in product(*offered) if _enough(mix))
        return min(mixed, key=lambda mix: (sum(one.order[0] for one in mix), sum(one.alone for one in mix)), default=())
    taken: tuple[Offer, ...] = ()
    for offers in offered:
        offer = next((one for one in offers if _enough((*taken, one))), None)
        if offer is None:
            return ()
        taken = (*taken, offer)
    return taken


def _enough(offers: Sequence[Offer]) -> bool:
    needed, there = Counter[str](), dict[str, int]()
    for taken in (taken for offer in offers for taken in offer.boxed.made.taken):
        needed[taken.item.name] += taken.count
        there[taken.item.name] = taken.item.count
    return all(count <= there[name] for name, count in needed.items())


def _unevenness(plan: Plan) -> int:
    weights = [boxed.weights.total.ng for boxed in plan.boxes]
    return max(weights) - min(weights)


def divisions(all_of: Held, most: int) -> Iterator[Division]:
    """Every way to divide so many of each kind into at most so many parcels, each once.

    >>> [len(one) for one in divisions((3,), 2)]
    [1, 2]
    >>> sorted(divisions((1, 1), 2))
    [((1, 0), (0, 1)), ((1, 1),)]
    """

    def rest(left: Held, at_most: Held, parcels: int) -> Iterator[Division]:
        if not any(left):
            yield ()
            return
        if not parcels:
            return
        for held in _held_by(left):
            if held <= at_most and any(held):
                further = tuple(a - b for a, b in zip(left, held, strict=True))
                yield from ((held, *others) for others in rest(further, held, parcels - 1))

    yield from rest(all_of, all_of, most)


def _held_by(left: Held) -> Iterator[Held]:
    if not left:
        yield ()
        return
    for count in range(left[0], -1, -1):
        yield from ((count, *others) for others in _held_by(left[1:]))


def _starts(all_of: Held, most: int) -> Iterator[Division]:
    """Even shares, each kind by itself, and one kind apart from all others."""
    for parcels in range(2, most + 1):
        shares = [tuple((count + parcels - 1 - n) // parcels for count in all_of) for n in range(parcels)]
        yield _sorted(shares)
        yield _sorted(_dealt(all_of, parcels))
    kinds = len(all_of)
    alone = [tuple(count if k == n else 0 for k, count in enumerate(all_of)) for n in range(kinds)]
    if 2 <= kinds <= most:
        yield _sorted(alone)
    for n in range(kinds):
        others = tuple(0 if k == n else count for k, count in enumerate(all_of))
        if any(others):
            yield _sorted([alone[n], others])


def _dealt(all_of: Held, parcels: int) -> list[Held]:
    """All things in a row, cut into even shares: kinds stay together."""
    row = [kind for kind, count in enumerate(all_of) for _ in range(count)]
    ends = [len(row) * n // parcels for n in range(parcels + 1)]
    shares = [Counter(row[begin:end]) for begin, end in pairwise(ends)]
    return [tuple(share[kind] for kind in range(len(all_of))) for share in shares]


def _beside(division: Division, most: int) -> Iterator[Division]:
    """What differs by one thing that moves, or by two that change places."""
    kinds = range(len(division[0]))
    empty = tuple(0 for _ in kinds)
    places: Sequence[Held] = (*division, empty) if len(division) < most else division
    for a, b in combinations(range(len(places)), 2):
        for giving, taking in ((a, b), (b, a)):
            for kind in kinds:
                if places[giving][kind]:
                    yield _moved(places, giving, taking, {kind: 1})
        for one, other in combinations(kinds, 2):
            for x, y in ((one, other), (other, one)):
                if places[a][x] and places[b][y]:
                    yield _moved(places, a, b, {x: 1, y: -1})


def _moved(places: Sequence[Held], giving: int, taking: int, counts: dict[int, int]) -> Division:
    changed = [list(held) for held in places]
    for kind, count in counts.items():
        changed[giving][kind] -= count
        changed[taking][kind] += count
    return _sorted([tuple(held) for held in changed])


def _sorted(parcels: Sequence[Held]) -> Division:
    return tuple(sorted((held for held in parcels if any(held)), reverse=True))


def plans_in_parcels(
    job: Job, shop: Shop, carriers: Carriers, looked_at: int = 60, arrange_one: ArrangeOne | None = None
) -> list[Plan]:
    """The plans for a job in two parcels or more, the best first; none where one only is allowed, or none is taken.

    Args:
        looked_at, arrange_one: as `Parcels` has them.

    Raises: as `Job.must_load` does.
    """
    return Parcels(job, shop, carriers, looked_at, arrange_one).cheapest()

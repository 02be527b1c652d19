"""What is worked out from a job: every way to box it with its prices, the current one, and the knots."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from functools import cached_property, partial
from itertools import chain

from fardo.api.desk import Today
from fardo.core.board.grade import Grade
from fardo.core.cut.drawing import Blank
from fardo.core.make import WAYS, Made, School
from fardo.core.plan.boxed import Boxed, box_up
from fardo.core.plan.load import Load
from fardo.core.plan.progress import BoxChoice, Knot, PriceChoice, State, tie_knots
from fardo.core.plan.search import Journey, Plan, parcel_of, price, price_other_ways
from fardo.core.quantity import Money
from fardo.core.refusal import BadInput, NoAnswer
from fardo.core.tariff.service import Quote, Refused, Service, compare, find_service
from fardo.files.cut_by import CutBy, by
from fardo.files.job import JobFile
from fardo.files.understood import Understood, understand


@dataclass(frozen=True)
class PricedWay:
    """A way worked out, and what services say to it.

    Args:
        weigh_up: works out the other ways to send it, which is only asked of the way looked at. today: what the chosen
        service asks by its tariff of today, where the job keeps an earlier one.
    """

    boxed: Boxed
    plans: list[Plan]
    refused: list[Refused]
    weigh_up: Callable[[], tuple[list[Plan], list[Refused]]] = lambda: ([], [])
    today: Quote | None = None

    @cached_property
    def _other_ways(self) -> tuple[list[Plan], list[Refused]]:
        return self.weigh_up()

    @property
    def others(self) -> list[Plan]:
        """What else people weigh up: a store that packs, luggage."""
        return self._other_ways[0]

    @property
    def not_so(self) -> list[Refused]:
        """Which of those do not, and why."""
        return self._other_ways[1]

    @property
    def cheapest(self) -> Money | None:
        return self.plans[0].costs.total if self.plans and not self.boxed.too_large else None


@dataclass(frozen=True, slots=True)
class Picture:
    """What was understood of a job and worked out from it; the ways cheapest in all first, those with no sum last.

    Args:
        cannot: the ways it cannot be boxed, and why.
    """

    job: JobFile
    said: Understood
    today: Today
    ways: list[PricedWay]
    in_hand: str | None
    cannot: list[tuple[str, str]] = field(default_factory=list)

    @property
    def current(self) -> PricedWay | None:
        """The way that was chosen, or the one looked at, or the cheapest in all, or any."""
        wanted = self.said.box.way if self.said.box else self.in_hand
        for way in self.ways:
            if way.boxed.made.way == wanted:
                return way
        return self.ways[0] if self.ways else None

    @property
    def asked(self) -> Plan | None:
        """What the chosen service asks for the current box; where none is chosen, the cheapest's."""
        if self.current is None:
            return None
        if self.said.price is None:
            return self.current.plans[0] if self.current.plans else None
        every = chain(self.current.plans, self._others())
        return next((plan for plan in every if same_service(plan.quote, self.said.price)), None)

    def _others(self) -> Iterator[Plan]:
        """The other ways of the current one, worked out only if they are come to."""
        if self.current is not None:
            yield from self.current.others

    def knots(self) -> tuple[tuple[Knot, ...], str]:
        said, plan = self.said, self.asked
        missing = list(said.missing)
        missing += [f"{problem.field.rpartition('.')[2]} again" for problem in said.problems]
        boxed = asked = None
        if self.current is not None:
            boxed = choice_of_box(self.current.boxed.made)
        if said.price is not None and plan is not None:
            asked = choice_of(plan.quote)
        return tie_knots(
            missing, boxed, said.box, asked, said.price,
            guessed=said.guessed, answers=[question.code for question in said.hazards.open],
            protection=_protection(self.job), arranged=_arranged(said),
        )  # fmt: skip


def _arranged(said: Understood) -> State | None:
    """Nothing is said of one thing: its extras find their corners by themselves."""
    if said.load is None:
        return "open"
    return said.arranged if len(said.load.units) > 1 else None


def _protection(job: JobFile) -> str:
    """How it is protected, in words; nothing where nothing was said of it."""
    parts = job.parts
    wrapped = sum(bool(part.protect) for part in parts)
    said = wrapped or job.liner or any(part.gap not in (None, "") for part in parts)
    if not said:
        return ""
    return f"{wrapped} of {len(parts)} wrapped" if len(parts) > 1 else "wrapped" if wrapped else "gap said, no wrap"


def draw_up(job: JobFile, today: Today, in_hand: str | None = None) -> Picture:
    """Works a job out as far as it can be read; never raises for what a person may type."""
    said = understand(job, today.shop, today.file.postcode, today.find_mesh)
    picture = Picture(job, said, today, [], in_hand)
    if said.load is not None:
        for name in WAYS:
            if name in job.ways:
                _work_out(name, said.load, picture)
        picture.ways.sort(key=lambda way: (way.cheapest is None, way.cheapest.minor if way.cheapest else 0))
    return picture


def box_for(way: str, job: JobFile, load: Load, today: Today) -> Boxed:
    """The load in a box of that way, on the job's board and by its school where the way has it."""
    if way not in WAYS:
        raise BadInput("not a way to get a box known here", read=way, allowed=", ".join(WAYS), field="way")
    school: School = job.school if job.school in WAYS[way].SCHOOLS else "exact"
    grade, shop = today.shop.grade(job.board), today.shop
    if (kept := allowances_kept(way, job, grade)) is not None:
        grade, shop = by(kept, way, grade, shop)
    return box_up(load, way, grade, shop, school)


def cut_from_sheet(boxed: Boxed, own: Grade) -> tuple[Grade, tuple[Blank, ...]]:
    """What is cut from sheet for a box and its inserts, and from which board.

    Args:
        own: the job's board, of which inserts are cut for a box that is there.
    """
    if not boxed.made.taken:
        return boxed.made.grade, boxed.blanks
    return own, tuple(blank for insert in boxed.inserts for blank in insert.blanks)


def allowances_kept(way: str, job: JobFile, grade: Grade) -> CutBy | None:
    """The allowances this way was chosen by, if it was."""
    box = job.chosen.box
    return box.cut_by if box is not None and (box.way, box.board) == (way, grade.code) else None


def _work_out(way: str, load: Load, picture: Picture) -> None:
    """Adds a way to the picture, or why it cannot be."""
    said, today = picture.said, picture.today
    try:
        boxed = box_for(way, picture.job, load, today)
    except BadInput as problem:
        said.problems.append(problem)
    except NoAnswer as none:
        picture.cannot.append((way, str(none)))
    else:
        if said.journey is None:
            picture.ways.append(PricedWay(boxed, [], []))
            return
        services, exchange = services_for(picture.job, today), today.shop.exchange
        plans, refused = price(boxed, said.journey, services, exchange)
        weigh_up = partial(price_other_ways, boxed, said.journey, services, exchange)
        by_today = _by_today(boxed, said.journey, kept_service(picture.job, today), today)
        picture.ways.append(PricedWay(boxed, plans, refused, weigh_up, by_today))


def kept_service(job: JobFile, today: Today) -> Service | None:
    """The chosen service by the version of its tariff that the job keeps, where that is not today's."""
    was = job.chosen.price
    if was is None or was.tariff is None or today.versions.get(was.carrier) == was.tariff:
        return None
    called, day = (was.carrier, was.service, was.programme), job.day.isoformat() if job.day else None
    return find_service(today.find_tariff(was.carrier, was.tariff), called, day)


def services_for(job: JobFile, today: Today) -> list[Service]:
    """Today's, the chosen one as it was when it was chosen."""
    kept = kept_service(job, today)
    if kept is None:
        return list(today.services)
    return [*(one for one in today.services if one.called != kept.called), kept]


def _by_today(boxed: Boxed, journey: Journey, kept: Service | None, today: Today) -> Quote | None:
    """What the chosen service asks by its tariff of today, where another version is kept."""
    if kept is None:
        return None
    listed = [one for one in today.services if one.called == kept.called]
    quotes, _ = compare(listed, parcel_of(boxed, journey), journey.day, today.shop.exchange)
    return quotes[0] if quotes else None


def choice_of_box(made: Made) -> BoxChoice:
    return BoxChoice(made.way, made.school, made.grade.code, made.needed)


def choice_of(quote: Quote) -> PriceChoice:
    return PriceChoice(quote.carrier, quote.service, quote.programme, quote.amount, quote.billing.billed)


def same_service(quote: Quote, choice: PriceChoice) -> bool:
    return quote.called == (choice.carrier, choice.service, choice.programme)

"""The whole picture of a job in words: inside size, ways, docket, knots."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from fardo.api import figure_views, goods, views
from fardo.api.parts import view_part, view_wrap
from fardo.api.price_steps import by_and_to
from fardo.api.quotes import view_quote
from fardo.api.ways import view_way, view_weight
from fardo.core.arrange.ask import Arrangement
from fardo.core.goods.hazard import QUESTIONS, Hazards
from fardo.core.make import WAYS
from fardo.core.plan.cautions import CUTTING
from fardo.core.plan.job import Job
from fardo.core.plan.load import Load, not_in_one, placed
from fardo.core.plan.not_here import NotHere
from fardo.core.plan.picture import Picture
from fardo.core.plan.price import Plan
from fardo.core.plan.progress import Knot
from fardo.core.plan.sale import Sale
from fardo.core.plan.savings import may_be_tried
from fardo.core.quantity import Length, Mass, Units, show_length, show_mass, show_sizes
from fardo.core.tariff.steps import Cheaper
from fardo.files.journey_reading import GOES_TO, LEAVES_FROM


def view_picture(picture: Picture, answers: Mapping[str, str]) -> views.WorkOut:
    """The picture in words, with the blanks of the way looked at drawn.

    Args:
        answers: to the job's questions, by their code.
    """
    job, units = picture.job, picture.shop.units
    inside = layout = None
    if picture.inside is not None and job.load is not None:
        arrangement, why = picture.inside
        inside = figure_views.view_sizes(arrangement.inside, units, why)
        layout = view_layout(job.load, arrangement)
    return views.WorkOut(
        problems=[views.FieldProblem(field=p.field, sentence=p.plain) for p in picture.problems],
        missing=list(job.missing),
        beyond=job.beyond,
        several=job.several,
        parcels_least=job.parcels_least,
        inside=inside,
        layout=layout,
        parts=[view_part(part, units) for part in picture.parts],
        wrap=_materials(picture),
        ways=[view_way(way, picture) for way in picture.ways],
        no_ways=[views.NoWayView(way=way, title=WAYS[way].TITLE, why=why) for way, why in picture.cannot],
        not_here=[_view_not_here(one, picture.shop.units) for one in picture.not_here],
        ways_left_out=sum(name not in job.ways for name in WAYS),
        docket=_docket(picture),
        rules=[
            views.HouseRuleView(name=rule.name, does=rule.does(units), left_out=rule in job.house.left_out)
            for rule in (*job.house.rules, *job.house.left_out)
        ],
        knots=view_knots(picture.knots),
        next_move=picture.next_move,
        cutting_cautions=list(CUTTING),
        hazards=_view_hazards(job.hazards, answers),
        last_in=[extra.name for extra in job.load.extras if extra.lies_flat] if job.load is not None else [],
        measured={path: _measure(value, units) for path, value in job.read},
    )


def read_knot(view: views.KnotView) -> Knot:
    return Knot(view.name, view.state, view.says)


def view_knots(knots: Sequence[Knot]) -> list[views.KnotView]:
    return [views.KnotView(name=knot.name, state=knot.state, says=knot.says) for knot in knots]


def _measure(value: Length | Mass, units: Units) -> str:
    return show_mass(value, units, "up").text if isinstance(value, Mass) else show_length(value, units, "up").text


def _view_not_here(one: NotHere, units: Units) -> views.NotHereView:
    if one.lacks:
        says = f"does not hold it: {one.lacks}"
    elif one.pays_below is not None:
        says = f"worth buying below {one.pays_below}"
    else:
        says = "no saving"
    return views.NotHereView(name=one.box.name, inside=show_sizes(one.box.inside, units, "down").text, says=says)


def _view_hazards(hazards: Hazards, answers: Mapping[str, str]) -> list[goods.HazardView]:
    """The questions of the job, each with its answers and what the given one cautions."""
    cautions = dict(hazards.cautions)
    return [
        goods.HazardView(
            code=code,
            asks=QUESTIONS[code].asks,
            answers=[goods.AnswerView(code=answer.code, says=answer.says) for answer in QUESTIONS[code].answers],
            given=answers.get(code),
            caution=cautions.get(code, ""),
            never=cautions.get(code, "") in hazards.never,
        )
        for code in hazards.asked
    ]


def _materials(picture: Picture) -> goods.WrapList:
    """Everything to cut for wrapping, and what is fetched to fill the selected box."""
    listed = view_wrap(picture.wrap, picture.shop.units)
    if picture.current is not None:
        listed.fill = [fill.fetched(stuffed) for fill, stuffed in picture.current.boxed.filling.fetched]
    return listed


def _docket(picture: Picture) -> views.Docket:
    job, way, plan, units = picture.job, picture.current, picture.plan, picture.shop.units
    docket = views.Docket(
        basis="",
        currency=picture.shop.currency,
        missing=[*job.missing, *_guesses(job), *(f"answer: {question.code}" for question in job.hazards.open)],
        stop=list(job.hazards.never),
        cautions=list(picture.cautions),
    )
    if way is None:
        if job.load is not None and (why := not_in_one(job.load)):
            docket.note = f"In one parcel it does not go: {why}. Price divides it."
        return docket
    made = way.boxed.made
    docket.basis = WAYS[made.way].TITLE if made.soft else f"{WAYS[made.way].TITLE}, {made.grade.code} board"
    docket.outside = figure_views.view_sizes(made.outside, units, made.whys["outside"])
    docket.weight = view_weight(way.boxed.weights, units)
    docket.air_percent = round(way.boxed.air * 100)
    if docket.stop:
        docket.note = "It does not ship as it is."
    elif job.journey is None:
        docket.note = _price_waits_for(job)
    elif not picture.carriers.services:
        docket.note, docket.way_on = "No carrier's tariff is here yet, so there is no price.", "tariffs"
    elif plan is None:
        docket.note = "No service takes it as it is. The reasons are under Price."
    else:
        docket.quote = view_quote(plan.quote, units, plan)
        docket.total = docket.quote.total
        docket.total_why = figure_views.view_why(plan.costs.why, units)
        docket.trim = _view_trim(picture.trim, units) if picture.trim else ""
        docket.trim_may_be_tried = may_be_tried(picture)
        docket.sale = _sale(job.sale, plan) if job.sale is not None else None
        if plan.quote.placeholder:
            docket.cautions.append(
                f"placeholder prices, not those of {plan.quote.carrier}: paste its own under Tariffs"
            )
        if plan.quote.uncovered:
            docket.cautions.append(f"not covered: {plan.quote.uncovered} at your risk")
    if way.boxed.too_large and not docket.stop:
        docket.note = f"Not from the sheets in stock: {way.boxed.too_large}."
    return docket


def _price_waits_for(job: Job) -> str:
    """What to type before a service can be asked."""
    if LEAVES_FROM in job.missing:
        return "Enter the postcode it leaves from to see prices."
    if GOES_TO in job.missing:
        return "Enter the destination postcode to see prices."
    if job.problems:
        return "Correct the marked fields to see prices."
    return "Enter what is missing to see prices."


def _sale(sale: Sale, plan: Plan) -> views.SaleView:
    cost = plan.costs.total
    return views.SaleView(
        left=str(sale.left(cost)), fees=str(sale.fee), postage_to_ask=str(sale.postage_to_ask(cost)),
        fees_known=sale.fees is not None,
    )  # fmt: skip


def _guesses(job: Job) -> list[str]:
    """One line for all that still has its kind's measures."""
    names = job.guessed
    if not names:
        return []
    return [f"measure {names[0]}" if len(names) == 1 else f"measure {len(names)} parts yourself"]


def _view_trim(trim: Cheaper, units: Units) -> str:
    by, _ = by_and_to(trim, units)
    return f"{by} off the {trim.what} saves {trim.saves}"


def view_layout(load: Load, answer: Arrangement) -> views.Layout:
    """Where things lie, each with its wrapped bounding box, its own place and turn, and when it goes in."""
    parts: list[views.Placement] = []
    extras: list[views.Placement] = []
    for one in placed(load, answer):
        (extras if one.body.extra else parts).append(
            views.Placement(
                thing=one.number, name=one.body.name, at_mm=_mm(one.at), size_mm=_mm(one.sizes),
                gap_before_mm=_mm(one.before),
                gap_beyond_mm=_mm(one.beyond), origin_mm=_mm(one.origin), turn=one.laid.turn, goes_in=one.goes_in,
                locked=one.laid.locked,
            )
        )  # fmt: skip
    return views.Layout(inside_mm=_mm(answer.inside), parts=parts, extras=extras)


def _mm(sizes: tuple[Length, Length, Length]) -> tuple[float, float, float]:
    return sizes[0].mm, sizes[1].mm, sizes[2].mm

"""The whole picture of a job in words: inside size, boxes, prices, docket and knots."""

from __future__ import annotations

from fardo.api import figures, goods, views
from fardo.api.parts import measured, view_parts, wrap_list
from fardo.api.worked import (
    Picture,
    PricedWay,
    allowances_kept,
    choice_of_box,
    kept_service,
    same_service,
    services_for,
)
from fardo.core.arrange.ask import Answer
from fardo.core.arrange.body import stance
from fardo.core.cut.drawing import Blank
from fardo.core.goods.hazard import QUESTIONS
from fardo.core.make import WAYS, Made, School, make_box
from fardo.core.make.insert import Insert
from fardo.core.make.stock import Pouch, Taken
from fardo.core.plan.boxed import Boxed, OnSheet, inside_needed
from fardo.core.plan.cautions import CUTTING, lifting
from fardo.core.plan.load import Load, bodies_of
from fardo.core.plan.progress import Knot
from fardo.core.plan.search import Plan, parcel_of
from fardo.core.quantity import Length, Mass, Money, Units, show_length, show_mass, show_sizes
from fardo.core.tariff.service import Quote, Refused, find_service
from fardo.core.tariff.steps import cheaper_points
from fardo.core.why import Value, Why
from fardo.files.cut_by import by, cut_by
from fardo.files.drawn import exact_text, in_words
from fardo.files.svg import svg
from fardo.files.understood import Understood

_COSTS = tuple(views.CostsView.model_fields)


def view_picture(picture: Picture) -> views.WorkOut:
    """The picture in words, with the blanks of the way in hand drawn."""
    units, said = picture.today.shop.units, picture.said
    knots, next_move = picture.knots()
    inside = layout = None
    if said.load is not None:
        arrangement, why = inside_needed(said.load)
        inside = figures.view_sizes(arrangement.inside, units, why)
        layout = view_layout(said.load, arrangement)
    dropped = picture.current.boxed.weights.total if picture.current else None
    parts = view_parts(picture.job, said, picture.today.shop, dropped)
    docket = _docket(picture)
    docket.cautions += [
        f"{part.name}: the cushion check asks for {part.cushion.asks}, there is {part.cushion.has}"
        for part in parts
        if part.cushion and not part.cushion.enough
    ]
    return views.WorkOut(
        problems=[views.FieldProblem(field=p.field, sentence=p.plain) for p in said.problems],
        missing=said.missing,
        beyond=said.beyond,
        inside=inside,
        layout=layout,
        parts=parts,
        wrap=wrap_list(said, picture.today.shop),
        ways=[_view_way(way, picture, way.boxed.made.way == picture.in_hand) for way in picture.ways],
        no_ways=[views.NoWayView(way=way, title=WAYS[way].TITLE, why=why) for way, why in picture.cannot],
        ways_left_out=sum(name not in picture.job.ways for name in WAYS),
        docket=docket,
        knots=view_knots(knots),
        next_move=next_move,
        cutting_cautions=list(CUTTING),
        hazards=_hazards(picture),
        measured=measured(picture.job, units),
    )


def _guesses(said: Understood) -> list[str]:
    """One line for all that still has its kind's measures."""
    names = said.guessed
    if not names:
        return []
    return [f"measure {names[0]}" if len(names) == 1 else f"measure {len(names)} parts yourself"]


def _hazards(picture: Picture) -> list[goods.HazardView]:
    """The questions of the job, each with its answers and what the given one cautions."""
    cautions = dict(picture.said.hazards.cautions)
    return [
        goods.HazardView(
            code=code,
            asks=QUESTIONS[code].asks,
            answers=[goods.AnswerView(code=answer.code, says=answer.says) for answer in QUESTIONS[code].answers],
            given=picture.job.answers.get(code),
            caution=cautions.get(code, ""),
            never=cautions.get(code, "") in picture.said.hazards.never,
        )
        for code in picture.job.questions
        if code in QUESTIONS
    ]


def view_knots(knots: tuple[Knot, ...]) -> list[views.KnotView]:
    return [views.KnotView(name=knot.name, state=knot.state, says=knot.says) for knot in knots]


def view_quote(
    quote: Quote,
    units: Units,
    costs: Plan | None = None,
    chosen: bool = False,
    version: int | None = None,
    kept: views.KeptView | None = None,
) -> views.QuoteView:
    """A quote in words; without a plan it stands for itself, all in being the quote.

    Args:
        version: of the tariff it is by. kept: where the job keeps that version, and it is not today's.
    """
    billing = quote.billing
    nothing = str(Money(0, quote.amount.currency))
    of = costs.costs if costs else None
    return views.QuoteView(
        carrier=quote.carrier, service=quote.service, programme=quote.programme,
        amount=str(quote.amount), currency=quote.amount.currency,
        actual=show_mass(billing.actual, units, "up").text,
        dimensional=show_mass(billing.dimensional, units, "up").text if billing.dimensional else None,
        billed=show_mass(billing.billed, units, "up").text,
        billed_weight_g=billing.billed.grams,
        weight_share=billing.actual.ng / billing.billed.ng,
        days=quote.days,
        charges=[
            views.ChargeView(kind=c.kind, what=c.what, amount=str(c.amount), why=c.why, parcel=c.parcel)
            for c in quote.lines
        ],
        own=str(of.total - quote.amount) if of else nothing,
        total=str(of.total if of else quote.amount),
        costs=views.CostsView(**{name: str(getattr(of, name)) if of else nothing for name in _COSTS}),
        chosen=chosen,
        tariff=version,
        kept=kept,
        packs=quote.packs,
        note=quote.note,
        beside=[show_mass(one.billed, units, "up").text for one in quote.beside],
    )  # fmt: skip


def view_refused(refused: list[Refused]) -> list[views.RefusedView]:
    return [views.RefusedView(carrier=r.carrier, service=r.service, programme=r.programme, why=r.why) for r in refused]


def _view_way(way: PricedWay, picture: Picture, drawn: bool) -> views.WayView:
    boxed, made, units, said = way.boxed, way.boxed.made, picture.today.shop.units, picture.said
    shop = picture.today.shop
    grade = shop.grades.get(made.grade.code, made.grade)
    now = cut_by(made.way, grade, shop.allowances) if WAYS[made.way].NEEDS == "sheet" else None
    return views.WayView(
        way=made.way, title=WAYS[made.way].TITLE, school=made.school, schools=list(WAYS[made.way].SCHOOLS),
        board=made.grade.code, chosen=said.box == choice_of_box(made), too_large=boxed.too_large,
        needed_mm=(made.needed[0].mm, made.needed[1].mm, made.needed[2].mm),
        inside=figures.view_sizes(made.inside, units, made.whys["inside"], "down"),
        outside=figures.view_sizes(made.outside, units, made.whys["outside"]),
        weight=_weight(boxed, units),
        air_percent=round(boxed.air * 100),
        minutes=round(boxed.minutes),
        sheets=[_sheet(on, units) for on in boxed.sheets],
        inserts=[_insert_says(one, units) for one in boxed.inserts if one.says],
        notes=list(made.notes),
        from_stock=_taken(made, units),
        steps=[views.StepView(do=step.told(in_words(units)), knife=step.knife) for step in made.steps],
        warnings=list(boxed.strength.warnings),
        suggested=boxed.suggested.code if boxed.suggested else None,
        own=str(boxed.own),
        compared=_compared(way, picture),
        strength=_strength(boxed),
        blank_why=figures.view_why(made.whys["blank"], units),
        blanks=[_view_blank(blank, units, drawn) for blank in boxed.blanks],
        standing=svg(made.standing, units) if drawn and made.standing else None,
        fence=[
            views.FenceView(fence=exact_text(s.fence, units), blade=s.blade, do=s.do, cuts=s.cuts) for s in boxed.fence
        ],
        total=str(way.cheapest) if way.cheapest else None,
        quotes=[
            _view_plan(plan, way, picture)
            for plan in (way.plans if drawn or way is picture.current else way.plans[:1])
        ],
        refused=view_refused(way.refused),
        others=[_view_plan(plan, way, picture) for plan in way.others] if drawn or way is picture.current else [],
        others_refused=view_refused(way.not_so) if drawn or way is picture.current else [],
        cut_by=now,
        cut_by_others=(kept := allowances_kept(made.way, picture.job, made.grade)) is not None and kept != now,
        other_school=_other_school(boxed, picture) if len(WAYS[made.way].SCHOOLS) > 1 else None,
    )  # fmt: skip


def _view_plan(plan: Plan, way: PricedWay, picture: Picture) -> views.QuoteView:
    """The quote of a plan, with the version of the tariff it is by."""
    quote, said, today = plan.quote, picture.said, picture.today
    chosen = said.price is not None and same_service(quote, said.price)
    version, kept = today.versions.get(quote.carrier), None
    was = picture.job.chosen.price
    if chosen and was is not None and was.tariff is not None and kept_service(picture.job, today) is not None:
        version = was.tariff
        kept = views.KeptView(version=version, amount_today=str(way.today.amount) if way.today else None)
    return view_quote(quote, today.shop.units, plan, chosen, version, kept)


def _compared(way: PricedWay, picture: Picture) -> str:
    """Whether it beats the other ways by what it costs in all, and its box the one that is bought."""
    said = []
    others = [one for one in picture.ways if one is not way and one.cheapest]
    if way.cheapest and others and way is picture.ways[0]:
        next_best = others[0]
        if next_best.cheapest and way.cheapest < next_best.cheapest:
            saved = next_best.cheapest - way.cheapest
            title = WAYS[next_best.boxed.made.way].TITLE.lower()
            said.append(f"{saved} less in all than the next, {title}")
    bought = next((one.boxed for one in picture.ways if one.boxed.made.way == "shelf"), None)
    if bought and bought is not way.boxed and way.boxed.own.currency == bought.own.currency:
        own, dear = way.boxed.own, bought.own
        less, more = own.saving_on(dear), dear.saving_on(own)
        against = f"with tape and time the box is {own}, the bought one {dear}"
        said.append(f"{against}: {less} % less" if less else f"{against}: that is {more} % less" if more else against)
    return "; ".join(said)


def _insert_says(insert: Insert, units: Units) -> str:
    show = in_words(units)
    return insert.says.format(*(show(measure) for measure in insert.measures))


def _taken(made: Made, units: Units) -> str:
    return " and ".join(_item(one, units) for one in made.taken)


def _item(taken: Taken, units: Units) -> str:
    each, item = "" if taken.count == 1 else f"{taken.count} of ", taken.item
    if isinstance(item, Pouch):
        width, length = (show_length(side, units, "down").text for side in (item.width, item.length))
        return f"{each}{item.name}, {width} x {length} flat"
    return f"{each}{item.name}, {show_sizes(item.inside, units, 'down').text}"


def _strength(boxed: Boxed) -> str:
    """What the closed box is good for, in pounds as the certificate and the formula have it."""
    if boxed.made.soft:
        return "It closes on the goods; nothing may stand on it"
    strength, of = boxed.strength, boxed.made.condition
    stack = f"about {strength.stack:.0f} lb may stand on it for long (compression {strength.compression:.0f} lb, {of})"
    stack += f", in damp air {strength.damp:.0f} lb"
    if strength.bulges:
        stack += "; its largest wall may bulge: measure the closed box at its middle, carriers do"
    if strength.limits is None:
        return stack
    gross, united = float(strength.limits.gross.pounds), strength.limits.united
    return f"{boxed.made.grade.name}: certified for {gross:g} lb and {united} united inches; {stack}"


def _view_blank(blank: Blank, units: Units, drawn: bool = False) -> views.BlankView:
    return views.BlankView(
        name=blank.name,
        size=_cross(blank.size, units),
        flutes=blank.flutes,
        count=blank.count,
        svg=svg(blank, units) if drawn else None,
    )


def _other_school(boxed: Boxed, picture: Picture) -> views.OtherSchool:
    made, units = boxed.made, picture.today.shop.units
    other: School = "thumb" if made.school == "exact" else "exact"
    allowances = picture.today.shop.allowances
    if (kept := allowances_kept(made.way, picture.job, made.grade)) is not None:
        allowances = by(kept, made.way, made.grade, picture.today.shop)[1].allowances
    compared = make_box(made.way, boxed.arrangement.inside, made.grade, allowances, other)
    return views.OtherSchool(
        school=other,
        blanks=[_view_blank(blank, units) for blank in compared.blanks],
        outside=figures.view_sizes(compared.outside, units).figure.text,
        inside=figures.view_sizes(compared.inside, units, rounding="down").figure.text,
        notes=list(compared.notes),
    )


def _docket(picture: Picture) -> views.Docket:
    said, way, plan, units = picture.said, picture.current, picture.asked, picture.today.shop.units
    docket = views.Docket(
        basis="",
        currency=picture.today.shop.currency,
        missing=[*said.missing, *_guesses(said), *(f"answer: {question.code}" for question in said.hazards.open)],
        stop=list(said.hazards.never),
        cautions=[caution for _, caution in said.hazards.cautions if caution not in said.hazards.never],
    )
    if way is None:
        return docket
    made = way.boxed.made
    docket.basis = WAYS[made.way].TITLE if made.soft else f"{WAYS[made.way].TITLE}, {made.grade.code} board"
    docket.cautions += [f"the box: {warning}" for warning in way.boxed.strength.warnings]
    docket.outside = figures.view_sizes(made.outside, units, made.whys["outside"])
    docket.weight = _weight(way.boxed, units)
    docket.air_percent = round(way.boxed.air * 100)
    docket.cautions = [*(caution for caution in (lifting(way.boxed.weights.total),) if caution), *docket.cautions]
    if docket.stop:
        docket.note = "It does not ship as it is."
    elif way.boxed.too_large:
        docket.note = f"Not from the sheets in stock: {way.boxed.too_large}."
    elif said.journey is None:
        docket.note = "The sum comes with the place it goes to."
    elif plan is None:
        docket.note = "No service takes it as it is; Price says why."
    else:
        docket.quote = view_quote(plan.quote, units, plan)
        docket.total = docket.quote.total
        docket.total_why = figures.view_why(_total_why(plan), units)
        docket.trim = _trim(picture, plan)
    return docket


def _total_why(plan: Plan) -> Why:
    costs = plan.costs
    names = ("postage", "surcharges", "cover", "box", "wrap", "fill", "tape", "labour")
    amounts: list[tuple[str, Value]] = [(name, getattr(costs, name)) for name in names if getattr(costs, name).minor]
    return Why(" + ".join(name for name, _ in amounts), tuple(amounts), "what the shop pays for this parcel in all")


def _trim(picture: Picture, plan: Plan) -> str:
    """The trim of a side or of the weight that would save most with the service the docket is of."""
    said, today, quote = picture.said, picture.today, plan.quote
    if said.journey is None:
        return ""
    service = find_service(services_for(picture.job, today), quote.called, said.journey.day)
    if service is None:
        return ""
    exchange = today.shop.exchange
    points = cheaper_points(service, exchange.declared(parcel_of(plan.boxed, said.journey), service.currency))
    if not points:
        return ""
    best, units = points[0], today.shop.units
    by = show_mass(best.by, units, "up") if isinstance(best.by, Mass) else show_length(best.by, units, "up")
    return f"{by.text} off the {best.what} saves {exchange.into(best.saves)}"


def _weight(boxed: Boxed, units: Units) -> figures.Figure:
    weights = boxed.weights
    shown = show_mass(weights.total, units, "up")
    parts: tuple[tuple[str, Value], ...] = (
        ("goods", weights.goods), ("wrap", weights.wrap), ("extras", weights.extras), ("board", weights.board),
        ("fill", weights.fill), ("tape", weights.tape),
    )  # fmt: skip
    why = Why(
        "goods + wrap + extras + board + fill + tape",
        tuple((name, weight) for name, weight in parts if isinstance(weight, Mass) and weight.ng),
        "estimated before packing; weigh it when it is closed",
    )
    return figures.Figure(text=shown.text, exact=shown.exact, why=figures.view_why(why, units))


def view_layout(load: Load, answer: Answer) -> views.Layout:
    """Where things lie, each with its wrapped bounding box, its own place and turn, and when it goes in."""
    count = len(load.units)
    goes_in = {n: k + 1 for k, n in enumerate(answer.order)}
    placements = []
    for n, (body, laid) in enumerate(zip(bodies_of(load), answer.laid, strict=True)):
        if laid is None:
            continue
        stood = stance(body, laid.turn)
        x, y, z = (at + inset for at, inset in zip(laid.at, stood.inset, strict=True))
        placement = views.Placement(
            thing=n, name=body.name, at_mm=_mm(laid.at), size_mm=_mm(stood.sizes), gap_mm=body.gap.mm,
            origin_mm=(x.mm, y.mm, z.mm), turn=laid.turn, goes_in=goes_in[n], locked=laid.locked,
        )  # fmt: skip
        placements.append(placement)
    return views.Layout(
        inside_mm=_mm(answer.inside),
        parts=[placed for placed in placements if placed.thing < count],
        extras=[placed for placed in placements if placed.thing >= count],
    )


def _sheet(on: OnSheet, units: Units) -> str:
    if on.sheet is None:
        return f"{on.blank}: larger than any sheet in stock"
    each = "one" if on.count == 1 else str(on.count)
    return f"{on.blank}: a {_cross((on.sheet.length, on.sheet.width), units)} sheet gives {each}"


def _cross(size: tuple[Length, Length], units: Units) -> str:
    return f"{exact_text(size[0], units)} x {exact_text(size[1], units)} {units}"


def _mm(sizes: tuple[Length, Length, Length]) -> tuple[float, float, float]:
    return sizes[0].mm, sizes[1].mm, sizes[2].mm

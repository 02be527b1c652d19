"""Quotes and refusals in words."""

from __future__ import annotations

from collections.abc import Iterable

from fardo.api import views
from fardo.core.plan.picture import Picture, WayPriced
from fardo.core.plan.price import Plan
from fardo.core.quantity import Money, Units, show_mass
from fardo.core.tariff.service import Quote, Refused

_COSTS = tuple(views.CostsView.model_fields)


def view_quote(
    quote: Quote,
    units: Units,
    plan: Plan | None = None,
    chosen: bool = False,
    version: int | None = None,
    kept: views.KeptView | None = None,
) -> views.QuoteView:
    """A quote in words; without a plan it stands for itself, its total being the quote.

    Args:
        version: of the tariff it is by.
        kept: where the job keeps that version, and it is not today's.
    """
    billing = quote.billing
    nothing = str(Money(0, quote.amount.currency))
    costs = dict(plan.costs.named) if plan else {}
    return views.QuoteView(
        carrier=quote.carrier, service=quote.service, programme=quote.rate_plan,
        amount=str(quote.amount), currency=quote.amount.currency,
        actual=show_mass(billing.actual, units, "up").text,
        dimensional=show_mass(billing.dimensional, units, "up").text if billing.dimensional else None,
        billed=show_mass(billing.billed, units, "up").text,
        billed_weight_g=billing.billed.grams,
        weight_share=billing.weight_share,
        rounding_share=billing.rounding_share,
        size_share=billing.size_share,
        days=quote.days,
        charges=[
            views.ChargeView(kind=c.kind, what=c.what, amount=str(c.amount), why=c.why, parcel=c.parcel)
            for c in quote.lines
        ],
        own=str(plan.own) if plan else nothing,
        total=str(plan.costs.total if plan else quote.amount),
        costs=views.CostsView(**{name: str(costs[name]) if costs else nothing for name in _COSTS}),
        chosen=chosen,
        tariff=version,
        kept=kept,
        packs=quote.packs,
        uncovered=f"{quote.uncovered} at your risk" if quote.uncovered else "",
        tracked=quote.tracked,
        form=quote.form,
        note=quote.note,
        placeholder=quote.placeholder,
        beside=[show_mass(one.billed, units, "up").text for one in quote.beside],
    )  # fmt: skip


def view_plan(plan: Plan, way: WayPriced, picture: Picture) -> views.QuoteView:
    """The quote of a plan, with the version of the tariff it is by."""
    quote, was = plan.quote, picture.job.price
    chosen = was is not None and quote.called == was.called
    version, kept = picture.version_of(quote), None
    if chosen and picture.earlier is not None and version is not None:
        kept = views.KeptView(version=version, amount_today=str(way.today.amount) if way.today else None)
    view = view_quote(quote, picture.shop.units, plan, chosen, version, kept)
    first = way.plans[0] if way.plans else plan
    if (more := plan.more_than(first)) is not None:
        view.more = f"{more} more than {first.quote.carrier} {first.quote.service}"
    return view


def view_refused(refused: Iterable[Refused]) -> list[views.RefusedView]:
    return [views.RefusedView(carrier=r.carrier, service=r.service, programme=r.rate_plan, why=r.why) for r in refused]

"""A comparison of prices as CSV: a row a charge of each service, so that any spreadsheet can sum and sort them."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence

from fardo.core.make import WAYS
from fardo.core.plan.price import Plan
from fardo.core.quantity import Units, show_mass
from fardo.core.tariff.service import Refused
from fardo.files.parts_csv import safe_cell

_COLUMNS = ("box", "carrier", "service", "programme", "days", "billed", "parcel", "what", "amount", "currency", "why")


def prices_csv(plans: Sequence[Plan], refused: Sequence[Refused], units: Units) -> str:
    """Every line of every quote, what the box costs the shop, and the sum in all; then who does not take it, and why.

    The lines of a service and its "own" rows add up to its "total".
    """
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\r\n")
    rows.writerow(_COLUMNS)
    for plan in plans:
        quote, costs = plan.quote, plan.costs
        head = [
            safe_cell(WAYS[plan.boxed.made.way].TITLE), safe_cell(quote.carrier), safe_cell(quote.service),
            safe_cell(quote.rate_plan), f"{quote.days[0]}-{quote.days[1]}",
            show_mass(quote.billing.billed, units, "up").text,
        ]  # fmt: skip
        currency = quote.amount.currency
        for line in quote.lines:
            of = str(line.parcel) if line.parcel else ""
            rows.writerow([*head, of, safe_cell(line.what), str(line.amount), currency, safe_cell(line.why)])
        for name in ("box", "wrap", "fill", "tape", "labour"):
            rows.writerow([*head, "", f"own: {name}", str(getattr(costs, name)), currency, ""])
        says = "placeholder prices, not the carrier's" if quote.placeholder else ""
        rows.writerow([*head, "", "total", str(costs.total), currency, says])
    for no in refused:
        rows.writerow(
            [
                "",
                safe_cell(no.carrier),
                safe_cell(no.service),
                safe_cell(no.rate_plan),
                "",
                "",
                "",
                "not taken",
                "",
                "",
                safe_cell(no.why),
            ]
        )
    return out.getvalue()

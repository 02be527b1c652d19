"""How a job is packed: its steps in order, and what is fetched before."""

from __future__ import annotations

from fardo.api.context import Context
from fardo.api.packing import PackingView, view_fetched, view_step
from fardo.api.resource import resource
from fardo.core.make import WAYS
from fardo.core.pack.fetch import to_fetch
from fardo.core.pack.steps import ToPack, packing_steps
from fardo.core.refusal import NoAnswer
from fardo.files.kind import steps_of

router = resource("/api/jobs/{key}/packing", "packing")


@router.get("")
def packing(key: str, context: Context) -> PackingView:
    """The packing steps of a job in the box that was chosen, or in the best there is while none is."""
    job, today = context.jobs.get(key).job, context.today
    picture = today.draw_up(job)
    picture.job.must_load()
    if picture.current is None:
        raise NoAnswer("No box holds it yet: there is nothing to pack it in.")
    boxed, shop = picture.current.boxed, today.shop
    steps = packing_steps(ToPack(picture.job, boxed, shop, steps_of(job), shop.dear(picture.job.value)))
    title = WAYS[boxed.made.way].TITLE
    return PackingView(
        box=f"{title}: {boxed.made.item}" if boxed.made.item else title,
        chosen=picture.job.box is not None,
        minutes=round(boxed.minutes),
        fetch=view_fetched(to_fetch(steps, picture.job.shop_for(shop).stock), shop.units),
        steps=[view_step(step, shop.units) for step in steps],
    )

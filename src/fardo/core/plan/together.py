"""What goes around several things that are held together, as around a pair of shoes: worked out on the block that they
make as they lie.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from fardo.core.arrange.ask import Arrangement
from fardo.core.goods.shape import Box
from fardo.core.plan.load import Load, placed
from fardo.core.plan.shop import Shop
from fardo.core.plan.wrapped import coat_of
from fardo.core.protect.coat import NONE, Coat, Wearer, grown
from fardo.core.refusal import BadInput, NoAnswer


def coats_together(load: Load, answer: Arrangement, shop: Shop) -> Iterator[tuple[str, Coat]]:
    """The name of each bundle that is wrapped, with a layer of it; from the goods outward.

    Raises: NoAnswer where a mailer in stock does not close on them as they lie.
    """
    there = placed(load, answer)
    for bundle in load.bundles:
        members = [one for one in there if one.body.bundle == bundle.name]
        if not members:
            continue
        low = [min(one.at[axis] for one in members) for axis in range(3)]
        high = [max(one.at[axis] + one.sizes[axis] for one in members) for axis in range(3)]
        a, b, c = (h - low_at for h, low_at in zip(high, low, strict=True))
        wearer = Wearer(Box(a, b, c), NONE, shop.bubbles)
        for layer in bundle.layers:
            try:
                coat = coat_of(wearer, layer, shop)
            except BadInput as why:
                raise NoAnswer(f"{why.read} around {bundle.name}: {why.why}") from why
            yield bundle.name, coat
            wearer = replace(wearer, grown=grown(wearer.grown, coat.growth))

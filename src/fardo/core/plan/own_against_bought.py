"""A box cut here against one that is bought: board, tape and time of the one; price, tape and time of the other.

Check: 0.77 against 1.38 is 0.61 less, which is 44 % of the dearer (arithmetic; people divide by the wrong one).
"""

from __future__ import annotations

from fardo.core.plan.boxed import Boxed


def own_against_bought(own: Boxed, bought: Boxed) -> str:
    """Both added up, and which of them costs less by how much.

    Args:
        bought: the box from the shelf that takes the same goods.
    """
    here = f"Cut here it costs {own.own}: board {own.box}, tape {own.tape}, time {own.making}"
    there = (
        f"bought, {bought.made.item} costs {bought.own}: {bought.box} each, tape {bought.tape}, time {bought.making}"
    )
    if own.own == bought.own:
        return f"{here}; {there}. Both cost the same."
    less, dear, what = (
        (own.own, bought.own, "Cutting it") if own.own < bought.own else (bought.own, own.own, "Buying it")
    )
    return f"{here}; {there}. {what} costs {dear - less} less, {less.saving_on(dear)} % of the dearer."

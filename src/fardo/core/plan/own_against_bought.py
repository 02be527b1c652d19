"""A box cut here against one that is bought: board, tape and time of the one; price, tape and time of the other.

Check: 0.77 against 1.38 is 0.61 less, which is 44 % of the dearer (arithmetic; people divide by the wrong one).
"""

from __future__ import annotations

from fardo.core.plan.boxed import Boxed
from fardo.core.quantity import Money


def own_against_bought(own: Boxed, bought: Boxed, in_all: tuple[Money, Money] | None = None) -> str:
    """Both added up, and which of them costs less by how much; where the postage turns that round, that too.

    Args:
        bought: the box from the shelf that takes the same goods.
        in_all: what each comes to with its cheapest service; None where one is not taken.
    """
    here = f"Cut here it costs {own.own}: board {own.box}, tape {own.tape}, time {own.making}"
    there = (
        f"bought, {bought.made.item} costs {bought.own}: {bought.box} each, tape {bought.tape}, time {bought.making}"
    )
    if own.own == bought.own:
        return f"{here}; {there}. Both cost the same."
    cut = own.own < bought.own
    less, dear, what = (own.own, bought.own, "Cutting it") if cut else (bought.own, own.own, "Buying it")
    says = f"{here}; {there}. {what} costs {dear - less} less, {less.saving_on(dear)} % of the dearer"
    if in_all is not None:
        mine, other = in_all if cut else in_all[::-1]
        if mine > other:
            return f"{says}; with its postage it is {mine - other} dearer in all."
    return f"{says}."

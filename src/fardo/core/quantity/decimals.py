"""Plain decimals with bounds: per cents, divisors, shares and rates of tariffs and settings.

Python's own readers of numbers also take exponents, underscores, fractions and digits of any script. A number of ten
characters with an exponent holds a machine for minutes, so that what is read here is matched before it is a number.
"""

from __future__ import annotations

import re
from fractions import Fraction

from fardo.core.refusal import BadInput

_DECIMAL = re.compile(r"[+-]?(?:[0-9]{1,12}(?:\.[0-9]{0,12})?|\.[0-9]{1,12})")


def read_decimal(
    text: str, *, least: int = 0, most: int, more_than_least: bool = False, example: str = "14.5", field: str = ""
) -> Fraction:
    """The number that `text` says, exactly.

    Args:
        text: what was typed: digits with one decimal point at most.
        least, most: the range allowed, both ends included.
        more_than_least: whether `least` itself is refused.
        example: a decimal as this field takes it, for a refusal.
        field: named in a refusal.

    Raises: BadInput, with a sentence, for anything that is no decimal in that range.

    >>> read_decimal("12.5", most=100)
    Fraction(25, 2)
    """
    above = f"more than {least}" if more_than_least else f"{least}"
    allowed = f"a decimal such as {example}, {above} to {most:,}"
    if not _DECIMAL.fullmatch(text.strip()):
        raise BadInput("not a number", read=text, allowed=allowed, field=field)
    value = Fraction(text.strip())
    if not least <= value <= most or (more_than_least and value == least):
        raise BadInput("out of range", read=text, allowed=allowed, field=field)
    return value

"""The gates before a bag or a mailer: starting values, the shop's own to change (see `plan/soft`)."""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.quantity import POUND, Mass


@dataclass(frozen=True, slots=True)
class SoftGates:
    """What goods may travel in a bag or mailer.

    Args:
        heaviest: all of it, in any bag or mailer.
        bears: in a mailer each thing bears at least so many g, in a bag it does not break at all.
    """

    heaviest: Mass = POUND * 10
    bears: int = 115


STARTING_GATES = SoftGates()

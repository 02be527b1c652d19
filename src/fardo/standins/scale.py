"""A bench scale, simulated: what stands on it settles, with a little noise, against its tare and up to its capacity.

Time is told to it, so that what it reads can be worked out for any moment. While it settles its readings go to the shop
too, marked as such; a real scale does the same over its line.
"""

from __future__ import annotations

import math
import random
from dataclasses import dataclass
from typing import Literal

from fardo.core.quantity import OUNCE, POUND, Mass, Units, show_mass

State = Literal["settled", "settling", "overload"]
CAPACITY = POUND * 150
SETTLES_IN_S = 0.35  # time constant
_NOISE_STEPS = 1.5  # while it settles
_STEPS: dict[Units, float] = {"in": OUNCE.grams, "cm": 10.0}


@dataclass(frozen=True, slots=True)
class ScaleReading:
    """What the scale shows at a moment.

    Args:
        text: with its unit; empty over its capacity.
    """

    text: str
    state: State


class Scale:
    """A scale and what stands on it.

    Args:
        units: it shows.
        seed: of its noise.
    """

    def __init__(self, units: Units = "in", seed: int = 1) -> None:
        self.units: Units = units
        self._noise = random.Random(seed)
        self._load, self._before, self._since, self._tare = 0.0, 0.0, 0.0, 0.0  # grams, but for the time

    def put(self, load: Mass, at: float) -> None:
        """Puts that on it in the place of whatever stood there.

        Args:
            at: seconds, by any clock that does not go back.
        """
        self._before, self._load, self._since = self._shown(at), load.grams, at

    def tare(self, at: float) -> None:
        """What stands on it now counts for nothing, as an empty box does."""
        if self.read(at).state == "settled":
            self._tare = self._load

    def read(self, at: float) -> ScaleReading:
        """What it shows then."""
        if self._load > CAPACITY.grams:
            return ScaleReading("", "overload")
        step, shown = _STEPS[self.units], self._shown(at)
        if abs(shown - self._load) * 2 <= step:
            return ScaleReading(self._told(self._load), "settled")
        trembling = self._noise.uniform(-_NOISE_STEPS, _NOISE_STEPS) * step
        return ScaleReading(self._told(shown + trembling), "settling")

    def _shown(self, at: float) -> float:
        """On the way from what stood on it to what stands there now."""
        return self._load + (self._before - self._load) * math.exp(-(at - self._since) / SETTLES_IN_S)

    def _told(self, gross: float) -> str:
        return show_mass(Mass.of_grams(max(gross - self._tare, 0.0)), self.units, "nearest").text

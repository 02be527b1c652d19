"""The published classes of container-loading problems BR1 to BR7, made by their published generator.

Source: Bischoff and Ratcliff, "Issues in the development of approaches to container loading" (Omega, 1995): container,
limits of the sides, numbers of kinds and the generator, all from memory.
"""

from __future__ import annotations

from fardo.core.arrange.ask import Ask
from fardo.core.arrange.body import Body
from fardo.core.goods.shape import Box
from fardo.core.quantity import Length

CONTAINER = (587, 233, 220)  # cm
_LEAST, _MOST = (30, 25, 20), (120, 100, 80)
CLASSES = {"BR1": 3, "BR2": 5, "BR3": 8, "BR4": 10, "BR5": 12, "BR6": 15, "BR7": 20}
# Mean per cent of the container that is filled: the heuristic published with the classes, and one of the best since.
LITERATURE = {
    "BR1": (83.8, 94.9), "BR2": (84.4, 95.2), "BR3": (83.9, 95.0), "BR4": (83.7, 94.7), "BR5": (83.8, 94.3),
    "BR6": (82.4, 94.0), "BR7": (82.0, 93.5),
}  # fmt: skip
_FIRST_SEED, _SEED_STEP = 2_502_505, 100
_MULTIPLIER, _MODULUS = 16807, 2**31 - 1


class _Random:
    """The generator's own: multiplicative congruential."""

    def __init__(self, seed: int) -> None:
        self._state = seed % _MODULUS
        for _ in range(10):
            self.next()

    def next(self) -> float:
        self._state = self._state * _MULTIPLIER % _MODULUS
        return self._state / _MODULUS


def container_ask(kinds: int, problem: int) -> Ask:
    """Boxes of so many kinds that would fill the container by volume, and the container."""
    random = _Random(_FIRST_SEED + _SEED_STEP * problem)
    sides = [
        tuple(low + int(random.next() * (high - low + 1)) for low, high in zip(_LEAST, _MOST, strict=True))
        for _ in range(kinds)
    ]
    counts = [1] * kinds
    room = CONTAINER[0] * CONTAINER[1] * CONTAINER[2]
    volumes = [a * b * c for a, b, c in sides]
    while True:
        kind = int(random.next() * kinds)
        taken = sum(count * volume for count, volume in zip(counts, volumes, strict=True))
        if taken + volumes[kind] > room:
            break
        counts[kind] += 1
    bodies = []
    for (a, b, c), count in zip(sides, counts, strict=True):
        body = Body("box", Box(Length.of_mm(a * 10), Length.of_mm(b * 10), Length.of_mm(c * 10)))
        bodies += [body] * count
    x, y, z = (Length.of_mm(side * 10) for side in CONTAINER)
    return Ask(tuple(bodies), inside=(x, y, z))

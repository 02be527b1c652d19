"""The made-up shop, tried beside the one that is served: a file of its own, filled when somebody first tries it.

Which of the two a browser works on is said by a cookie of that browser. So trying moves nobody else, touches nothing of
the shop, and what was changed in the made-up one is there the next time.
"""

from __future__ import annotations

import logging
import threading
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from fardo.api.bench import Bench
from fardo.api.context import AppContext, Crews
from fardo.api.purchases import Purchases
from fardo.store.faults import StoreError


@dataclass(frozen=True, slots=True)
class TriedShop:
    """What is open of the made-up shop, under the names it has of the shop that is served."""

    context: AppContext
    bench: Bench
    purchases: Purchases


class MadeUp:
    """Beside one shop.

    Args:
        own: file of the shop that is served.
        fill: makes the made-up shop in a file that is not there yet.
        crews: the processes beside the server.
    """

    def __init__(self, own: Path, fill: Callable[[Path], None], crews: Crews) -> None:
        self.path = own.with_name(f"{own.name}.made-up")
        self.opened: TriedShop | None = None
        self._fill, self._crews = fill, crews
        self._guard = threading.Lock()
        if self.path.exists():
            try:
                self.open()
            except StoreError as fault:  # the shop itself is served all the same; who tries this one is told
                logging.getLogger("fardo").warning("the made-up shop is not opened: %s", fault)

    def open(self) -> TriedShop:
        """Opens it, made new where it is not there yet. Raises StoreError where it cannot be written or read."""
        with self._guard:
            if self.opened is None:
                self._fill(self.path)
                context = AppContext(self.path, self._crews)
                context.made_up = "tried"
                purchases = Purchases(context.labels, lambda: context.today.file.wires)
                self.opened = TriedShop(context, Bench(context), purchases)
            return self.opened

    def close(self) -> None:
        with self._guard:
            if self.opened is not None:
                self.opened.context.database.close()
                self.opened = None

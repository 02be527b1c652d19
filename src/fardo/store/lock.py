"""Who has a shop open: everyone who opens it shares a lock, whoever puts another file in its place has it alone.

The lock is on a file beside the shop's (``shop.db.lock``), as the shop's own is swapped by a restore. The system lets
go of it when its process ends, however that ends, so that a lock is never left behind.
"""

from __future__ import annotations

import errno
import fcntl
import os
from pathlib import Path

from fardo.store.faults import StoreError

_CANNOT_BE_KEPT = (errno.EROFS, errno.EACCES, errno.EPERM)


class ShopLock:
    """A lock on a shop, held until it is released.

    Args:
        shop: the shop's database file, which need not be there.
        alone: whether nobody else may have it open.

    Raises:
        StoreError: where somebody else has it in a way that shuts this one out.
    """

    def __init__(self, shop: Path, *, alone: bool = False) -> None:
        self._shop = shop
        self._file: int | None = None
        try:
            self._file = os.open(shop.with_name(shop.name + ".lock"), os.O_RDWR | os.O_CREAT | os.O_CLOEXEC, 0o644)
        except OSError as error:
            if error.errno not in _CANNOT_BE_KEPT:
                raise StoreError(f"{shop} cannot be opened: {error.strerror}") from error
            # On a medium that cannot be written nobody can change the shop, so that there is nothing to lock.
            return
        try:
            self._take(fcntl.LOCK_EX if alone else fcntl.LOCK_SH)
        except StoreError:
            self.release()
            raise

    def take_alone(self) -> None:
        """From shared to alone. Raises StoreError where somebody else has it open too; the lock is then as it was."""
        try:
            self._take(fcntl.LOCK_EX)
        except StoreError:
            self._take(fcntl.LOCK_SH)  # a change of lock that fails lets go of the one there was
            raise

    def share(self) -> None:
        """From alone to shared."""
        self._take(fcntl.LOCK_SH)

    def release(self) -> None:
        if self._file is not None:
            os.close(self._file)
            self._file = None

    def _take(self, how: int) -> None:
        if self._file is None:
            return
        try:
            fcntl.flock(self._file, how | fcntl.LOCK_NB)
        except BlockingIOError as held:
            why = (
                "is open in another Fardo; stop serving it first"
                if how == fcntl.LOCK_EX
                else "is being restored or brought up to date at this moment; try again when that is done"
            )
            raise StoreError(f"{self._shop} {why}") from held

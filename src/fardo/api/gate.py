"""Who may open the shop: on its own machine everybody, from another device whoever has a session.

A session is begun with the passphrase, or with a code that a screen of the shop shows and that is good once, for a few
minutes. Wrong tries make the next wait, the more the longer, each address by itself and all together. An address that
signed in before waits for its own wrong tries alone, and a code, which nobody can guess, for none: so that whoever
tries from many addresses keeps none of the shop's own devices out.
"""

from __future__ import annotations

import asyncio
import secrets
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from http.cookies import CookieError, SimpleCookie
from ipaddress import ip_address

from starlette.datastructures import Headers
from starlette.types import Scope

from fardo.wire.hosts import is_own_host

COOKIE = "fardo_session"
CODE_LASTS_S = 300.0
_FREE_TRIES, _LONGEST_WAIT_S = 5, 300.0
_MOST_DOUBLINGS = 16
_FREE_OF_ALL = 30  # wrong tries of all addresses together, before each next waits
_FORGOTTEN_AFTER_S = 3600.0
OPEN_TO_ALL = ("/enter", "/enter.js", "/enter.css", "/bale.svg", "/api/access/enter", "/api/alive")
_MOST_ADDRESSES = 10_000


def is_loopback(address: str) -> bool:
    """Whether a request comes from this machine itself.

    >>> is_loopback("127.0.0.1"), is_loopback("::1"), is_loopback("192.168.1.20"), is_loopback("testclient")
    (True, True, False, False)
    """
    try:
        return ip_address(address).is_loopback
    except ValueError:
        return False


@dataclass(slots=True)
class _Tries:
    wrong: int = 0
    last: float = 0.0

    def waits(self, now: float, free: int) -> float:
        """Seconds until the next try."""
        if self.wrong < free or now - self.last > _FORGOTTEN_AFTER_S:
            return 0.0
        doublings = min(self.wrong - free, _MOST_DOUBLINGS)
        return max(0.0, self.last + min(2.0**doublings, _LONGEST_WAIT_S) - now)


@dataclass(slots=True)
class Gate:
    """Of one server.

    Args:
        names: that this machine goes by on the network, with those of its own; only these are answered to.
        clock: seconds that do not go back.
    """

    names: tuple[str, ...]
    clock: Callable[[], float] = time.monotonic
    _tries: dict[str, _Tries] = field(default_factory=dict)
    _all: _Tries = field(default_factory=_Tries)
    _known: set[str] = field(default_factory=set)  # addresses that signed in
    _codes: dict[str, float] = field(default_factory=dict)
    sessions_changed: int = 0  # grows whenever a session may have ended, so that what is being sent looks again
    one_at_a_time: asyncio.Lock = field(default_factory=asyncio.Lock)  # a passphrase takes time and memory to look at

    def waits(self, address: str) -> float:
        """Seconds until an address may try again."""
        now = self.clock()
        own = self._tries.get(address, _Tries()).waits(now, _FREE_TRIES)
        return own if address in self._known else max(own, self._all.waits(now, _FREE_OF_ALL))

    def know(self, address: str) -> None:
        """Keeps an address as one that signed in."""
        if len(self._known) < _MOST_ADDRESSES:
            self._known.add(address)

    def begin_try(self, address: str) -> None:
        """Counts a try as wrong until it is known to be right, so that many at once are no more than as many."""
        now = self.clock()
        if len(self._tries) >= _MOST_ADDRESSES:
            self._tries.clear()
        for tries in (self._tries.setdefault(address, _Tries()), self._all):
            if now - tries.last > _FORGOTTEN_AFTER_S:
                tries.wrong = 0
            tries.wrong, tries.last = tries.wrong + 1, now

    def was_right(self, address: str) -> None:
        self._tries.pop(address, None)
        self.know(address)
        self._all.wrong = max(self._all.wrong - 1, 0)

    def new_code(self) -> str:
        """A code that signs one device in."""
        now = self.clock()
        self._codes = {code: until for code, until in self._codes.items() if until > now}
        code = secrets.token_urlsafe(12)
        self._codes[code] = now + CODE_LASTS_S
        return code

    def take_code(self, code: str) -> bool:
        """Whether a code is good; it is so only once."""
        return self._codes.pop(code, 0.0) > self.clock()


def token_in(headers: Headers) -> str:
    """The token of the session cookie; nothing where there is none."""
    try:
        found = SimpleCookie(headers.get("cookie", "")[:4000]).get(COOKIE)
    except CookieError:
        return ""
    return found.value if found else ""


def client_of(scope: Scope) -> str:
    """The address a request comes from."""
    return scope["client"][0] if scope.get("client") else ""


def needs_no_session(scope: Scope, host: str) -> bool:
    """Whether a request is let through without one: from this machine to itself, or on the way in.

    Args:
        host: that is asked for.
    """
    is_here = is_loopback(client_of(scope)) and is_own_host(host)
    return is_here or scope["path"] in OPEN_TO_ALL

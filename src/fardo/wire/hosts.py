"""Who may speak to what is served on this machine: requests for this machine by name, and no other site's pages.

A page of another site can send a form to any port here; a name of another site can be made to point here. So the host
that is asked for must be one of this machine's own, and a page that says where it is from must be from here.
"""

from __future__ import annotations

import re
from collections.abc import Iterable

LOCAL_HOSTS = ("127.0.0.1", "localhost", "[::1]")
# A name or an address and a port, and nothing beside: no user, path, query or fragment (RFC 9110, section 7.2).
_HOST = re.compile(r"(?P<name>[A-Za-z0-9.-]+|\[[0-9A-Fa-f:.]+\])(?::\d{1,5})?", re.ASCII)


def is_own_host(host: str | None, names: Iterable[str] = LOCAL_HOSTS) -> bool:
    """Whether a request is for this machine.

    Args:
        host: its Host header.
        names: that this machine goes by, an IPv6 address in brackets.
    """
    found = _HOST.fullmatch(host or "")
    return found is not None and found["name"].lower() in names


def is_own_origin(origin: str | None, host: str | None, scheme: str = "http") -> bool:
    """Whether a page that says where it is from is one of ours; no origin at all is a program on this machine.

    Args:
        origin: the request's Origin header.
        host: its Host header.
        scheme: it came by.
    """
    return origin is None or origin == f"{scheme}://{host}"

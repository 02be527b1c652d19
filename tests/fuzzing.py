"""Requests made up from the shop's own description of its API: valid ones spoilt at random, and what is none at all.

They go on from each other: the jobs, kinds, tariffs and searches that answers speak of are asked about next. Seeded:
the same seed asks the same, as far as the answers are the same.
"""

from __future__ import annotations

import copy
import json
from collections.abc import Iterator
from dataclasses import dataclass, field
from random import Random
from typing import Any
from urllib.parse import quote

from tests.made_up import job, part

DEEP = "[" * 3000
VALUES: tuple[Any, ...] = (
    None, True, 0, -1, 1, 999, 1000, 2**31, 2**53 + 1, 2**63, -(2**63) - 1, 10**400, 0.5, -0.0, 1e-300, 1e300, "", " ",
    "x" * 401, "x" * 100_000, "10 1/2", "10 1/2 in", "5' 3\"", "4 lb 6 oz", "1e999", "NaN", "-3 in", "1/0", "²", "٣",
    "9" * 5000, "\x00", "\u202eabc", "<script>", "'; DROP TABLE job; --", "../../etc/passwd", "=1+1", "\t=1",
    [], {}, [[]],
    {"kind": "box"}, {"kind": "mesh", "file": "x.stl"}, ["1 in"] * 300, {"": ""}, "2026-02-30", "9999-12-31", "USD",
    "tray", "shelf", "C", "73120", "10440", "bubble-large", "delicate", "60 G", "999999999.99", "0.001", "0", "-5.00",
)  # fmt: skip
# What JSON's own reader takes beside JSON, and what no text may hold: put into the bytes.
RAW = (
    "NaN",
    "Infinity",
    "-Infinity",
    "1e999",
    '"\\ud800"',
    '"\\udc00\\ud800"',
    "1" * 5000,
    DEEP,
    '"\\u0000"',
    "01",
    "'x'",
)
_LARGEST_KEPT = 20_000  # of an answer that is gone on from; what is spoilt again and again grows
_MOST_SPOTS = 3000
_MOST_LETTERS = 300_000
_LARGEST_SENT = 60_000_000
METHODS = ("GET", "POST", "PUT", "DELETE", "PATCH", "OPTIONS", "HEAD", "TRACE")
# What is worked out in seconds, or goes on after its answer, is asked now and then.
_LONG = ("/api/arrange", "/api/cutting", "/api/steps", "/api/fold", "/api/jobs/{key}/cut-sheet", "/api/openapi")


@dataclass
class Asked:
    """A request.

    Args:
        described: whether the description knows this method at this address.
        answers: the statuses it describes there.
    """

    method: str
    url: str
    content: bytes
    headers: dict[str, str]
    described: bool
    answers: frozenset[str] = frozenset()


@dataclass
class Fuzz:
    """Makes requests up, and learns from the answers.

    Args:
        document: the OpenAPI document.
        draw: where chance comes from.
    """

    document: dict[str, Any]
    draw: Random
    known: dict[str, list[str]] = field(default_factory=dict)
    bodies: dict[str, list[Any]] = field(default_factory=dict)
    revision: int = 1

    def __post_init__(self) -> None:
        self._operations = [
            (path, method, operation)
            for path, operations in self.document["paths"].items()
            for method, operation in operations.items()
        ]
        self.known.setdefault("carrier", ["Oddbarrow", "Wendlefirth Post"])
        self.known.setdefault("code", ["bicycle", "concertina", "own"])

    def requests(self) -> Iterator[Asked]:
        """Without an end."""
        while True:
            yield self._anything() if self.draw.random() < 0.06 else self._described()

    def learn(self, asked: Asked, status: int, answer: Any) -> None:
        """Keeps what an answer names, to go on from it."""
        if status >= 400 or not isinstance(answer, dict):
            return
        for name in ("id", "run", "code", "carrier"):
            if isinstance(answer.get(name), str):
                self._keep("key" if name in ("id", "run") else name, answer[name])
        if isinstance(answer.get("revision"), int):
            self.revision = answer["revision"]
        for name in ("job", "shop", "kind", "tariff"):
            if isinstance(answer.get(name), dict) and len(json.dumps(answer[name])) < _LARGEST_KEPT:
                self.bodies.setdefault(name, []).append(answer[name])
                del self.bodies[name][:-12]

    def _keep(self, name: str, value: str) -> None:
        kept = self.known.setdefault(name, [])
        kept.append(value)
        del kept[:-40]

    def _described(self) -> Asked:
        path, method, operation = self.draw.choice(self._operations)
        if path.startswith(_LONG) and self.draw.random() < 0.9:
            return self._described()
        url = self._filled(path)
        query = [
            f"{quote(parameter['name'])}={quote(str(self._value())[:3000].encode('utf-8', 'replace'))}"
            for parameter in operation.get("parameters", ())
            if parameter["in"] == "query" and self.draw.random() < 0.6
        ]
        url += "?" + "&".join(query) if query else ""
        content, kind = self._body(operation)
        headers = {"Content-Type": kind} if kind else {}
        return Asked(method.upper(), url, content, headers, True, frozenset(operation["responses"]))

    def _filled(self, path: str) -> str:
        while "{" in path:
            name = path[path.index("{") + 1 : path.index("}")]
            hostile = self.draw.random() < 0.12 or not self.known.get(name)
            value = str(self._value())[:200] if hostile else self.draw.choice(self.known[name])
            path = path.replace("{" + name + "}", quote(value.encode("utf-8", "replace"), safe="") or "x", 1)
        return path

    def _body(self, operation: dict[str, Any]) -> tuple[bytes, str]:
        content = operation.get("requestBody", {}).get("content", {})
        if not content:
            return b"", ""
        kind, media = self.draw.choice(list(content.items()))
        if kind != "application/json":
            return self.draw.randbytes(self.draw.randrange(300)), kind
        body = copy.deepcopy(self._start(media))
        for _ in range(self.draw.choice((0, 0, 1, 1, 1, 2, 3, 6))):
            body = self._spoilt(body)
        text = _written(body)
        if self.draw.random() < 0.1:
            spots = [n for n, sign in enumerate(text) if sign in ":[,"]
            if spots:
                at = self.draw.choice(spots) + 1
                text = text[:at] + self.draw.choice(RAW) + text[at + self.draw.randrange(9) :]
        return text.encode("utf-8", "surrogatepass"), kind

    def _start(self, media: dict[str, Any]) -> Any:
        """A body that is right, of the description or of an answer."""
        if "example" in media:
            return media["example"]
        name = media["schema"].get("$ref", "").rpartition("/")[2]
        examples = self.document["components"]["schemas"].get(name, {}).get("examples") or [{}]
        body = copy.deepcopy(self.draw.choice(examples))
        if not isinstance(body, dict):
            return body
        for known, kept in self.bodies.items():
            if known in body and kept and self.draw.random() < 0.6:
                body[known] = copy.deepcopy(self.draw.choice(kept))
        if "job" in body and self.draw.random() < 0.3:
            body["job"] = job(parts=[part(count=self.draw.choice((1, 2, 40)))] * self.draw.choice((1, 2, 5)))
        if "revision" in body and self.draw.random() < 0.7:
            body["revision"] = self.revision
        return body

    def _spoilt(self, body: Any) -> Any:
        spots = list(_spots(body))
        if not spots:
            return self._value()
        holder, key = self.draw.choice(spots)
        deed = self.draw.random()
        if deed < 0.6 or len(spots) > _MOST_SPOTS or _letters(body) > _MOST_LETTERS:  # copies of copies have no end
            holder[key] = self._value()
        elif deed < 0.7:
            del holder[key]
        elif deed < 0.8 and isinstance(holder, dict):
            holder[self.draw.choice(("extra", "kind", "", "файл", "a" * 300))] = self._value()
        elif deed < 0.9 and isinstance(holder, list):
            holder.extend(copy.deepcopy(holder[:1]) * self.draw.choice((1, 50, 500)))
        else:
            holder[key] = copy.deepcopy(self.draw.choice(spots)[0])
        return body

    def _value(self) -> Any:
        return copy.deepcopy(self.draw.choice(VALUES))

    def _anything(self) -> Asked:
        """A method that may not be known at an address that may not be there, with bytes that may be anything."""
        path = self.draw.choice(
            [*(path for path, _, _ in self._operations), "/", "/jobs/x/box", "/api/", "/api/jobs/", "/x"]
        )
        content = self.draw.randbytes(self.draw.randrange(600)) if self.draw.random() < 0.5 else b""
        kinds = ("application/json", "text/plain", "multipart/form-data; boundary=x", "application/zip", "x", "")
        headers = {"Content-Type": self.draw.choice(kinds)} if content else {}
        return Asked(self.draw.choice(METHODS), self._filled(path), content, headers, False)


def _spots(body: Any) -> Iterator[tuple[Any, Any]]:
    """Every place in a body, as what holds it and where."""
    if isinstance(body, dict):
        for key, value in body.items():
            yield body, key
            yield from _spots(value)
    elif isinstance(body, list):
        for n, value in enumerate(body):
            yield body, n
            yield from _spots(value)


def _written(body: Any) -> str:
    """As JSON, broken off where it is larger than anything is read."""
    parts, size = [], 0
    for some in json.JSONEncoder().iterencode(body):
        parts.append(some)
        size += len(some)
        if size > _LARGEST_SENT:
            break
    return "".join(parts)


def _letters(body: Any) -> int:
    return sum(len(value) for holder, key in _spots(body) if isinstance(value := holder[key], str))


def fault_of(asked: Asked, status: int, content_type: str) -> str:
    """What is wrong with an answer; empty where nothing is."""
    if status >= 500:
        return f"answered {status}"
    if asked.described and status >= 400:
        if str(status) not in asked.answers:
            return f"status {status} is not described"
        if not content_type.startswith("application/problem+json"):
            return f"a refusal of type {content_type}"
    return ""

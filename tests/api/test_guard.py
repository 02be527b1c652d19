"""What the server lets in: its own hosts, its own pages, bodies of bearable size; and any request at all."""

from __future__ import annotations

import re
from functools import cache
from itertools import islice
from pathlib import Path
from random import Random
from typing import Any

import pytest
import schemathesis
from fastapi import FastAPI
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from starlette.datastructures import Headers

from fardo.api.app import create_app
from fardo.api.request_guard import _length
from tests.fuzzing import Fuzz, fault_of
from tests.made_up import job
from tests.served import CREWS


@pytest.mark.parametrize(
    "host",
    [
        "evil.example", "127.0.0.1.evil.example", "", "[::", "evil@127.0.0.1", "127.0.0.1#.evil", "127.0.0.1/evil",
        "127.0.0.1?", "127.0.0.1:8740:1", "127.0.0.1:x", "localhost.", "testserver", "[::1", "::1", " 127.0.0.1",
    ],
)  # fmt: skip
def test_an_unknown_host_is_turned_away(client: TestClient, host: str) -> None:
    answer = client.get("/api/jobs", headers={"Host": host})
    assert answer.status_code == 403


def test_another_sites_page_may_not_write(client: TestClient) -> None:
    answer = client.post("/api/jobs", json=job(), headers={"Origin": "https://evil.example"})
    assert answer.status_code == 403
    for origin in ("null", "https://127.0.0.1:8740", "http://127.0.0.1", "http://127.0.0.1:8740/", "//127.0.0.1:8740"):
        assert client.post("/api/jobs", json=job(), headers={"Origin": origin}).status_code == 403, origin
    assert client.post("/api/jobs", json=job(), headers={"Origin": "http://127.0.0.1:8740"}).status_code == 201
    for host in ("localhost:8740", "[::1]:8740", "127.0.0.1"):
        assert client.get("/api/alive", headers={"Host": host}).status_code == 200


def test_a_strict_policy_is_sent_with_every_answer(client: TestClient) -> None:
    for url in ("/", "/api/jobs", "/api/jobs/nothing", "/nowhere"):
        policy = client.get(url).headers["content-security-policy"]
        assert "default-src 'self'" in policy
        assert "unsafe-eval" not in policy
        assert "script-src" not in policy  # so default-src rules: only our own scripts
        assert client.get(url).headers["cross-origin-resource-policy"] == "same-origin"


def test_only_what_is_there_is_kept_for_a_year(client: TestClient) -> None:
    script = re.search(r"/assets/\S+?\.js", client.get("/").text)
    assert script
    assert "immutable" in client.get(script[0]).headers["cache-control"]
    gone = client.get("/assets/gone.js")
    assert gone.status_code == 404
    assert "immutable" not in gone.headers.get("cache-control", "")


def test_a_body_too_large_is_turned_away_whether_or_not_it_says_so(client: TestClient) -> None:
    assert client.post("/api/jobs/file", content=b"x" * 2_000_001).status_code == 413

    def chunks():
        for _ in range(30):
            yield b"x" * 100_000

    assert client.post("/api/jobs/file", content=chunks()).status_code == 413


def test_the_page_answers_for_each_of_its_rooms(client: TestClient) -> None:
    for url in ("/", "/settings", "/jobs/abc", "/jobs/abc/box"):
        answer = client.get(url)
        assert answer.status_code == 200
        assert '<div id="app">' in answer.text


# Bodies that are made by hand, in test_files_sent_in.
PATIENCE_S = 600  # a busy machine takes long for a division into parcels: the test is not of speed
_NOT_JSON = {"/api/jobs/bundle", "/api/files", "/api/keeping/archive"}


def test_requests_made_up_from_the_description_are_answered_by_it(client: TestClient) -> None:
    """A few hundred, going on from each other; `benchmarks/attack` asks a hundred thousand."""
    fuzz = Fuzz(client.get("/api/openapi.json").json(), Random(11))
    for asked in islice(fuzz.requests(), 250):
        if asked.url.endswith("/stream"):
            continue
        answer = client.request(asked.method, asked.url, content=asked.content, headers=asked.headers)
        kind = answer.headers.get("content-type", "")
        assert fault_of(asked, answer.status_code, kind) == "", asked
        fuzz.learn(asked, answer.status_code, answer.json() if kind.startswith("application/json") else None)
    assert client.get("/api/jobs").status_code == 200


@given(st.data())
@settings(suppress_health_check=list(HealthCheck), print_blob=False)
def test_any_request_within_the_description_is_answered(shop_file: Path, data: st.DataObject) -> None:
    """Requests made up from the OpenAPI document, on any of its operations."""
    case = data.draw(data.draw(st.sampled_from(_operations_on(shop_file))).as_strategy())
    answer = case.call(headers={"Host": "127.0.0.1"}, timeout=PATIENCE_S)
    assert answer.status_code < 500, answer.text
    if answer.status_code >= 400:
        assert answer.headers["content-type"][0] == "application/problem+json"
        assert answer.json()["detail"]


@cache
def _operations_on(path: Path) -> list[Any]:
    schema = schemathesis.openapi.from_asgi("/api/openapi.json", _app_on(path), headers={"Host": "127.0.0.1"})
    operations = [found.ok() for found in schema.get_all_operations()]
    return [one for one in operations if one.path not in _NOT_JSON and not one.path.endswith("/stream")]


@cache
def _app_on(path: Path) -> FastAPI:
    return create_app(path, CREWS)


@given(
    st.binary(max_size=400),
    st.sampled_from(
        [
            "/api/jobs",
            "/api/jobs/file",
            "/api/jobs/bundle",
            "/api/files",
            "/api/kinds",
            "/api/shape",
            "/api/take-apart",
            "/api/work-out",
            "/api/line",
            "/api/shop",
        ]
    ),
)
@settings(suppress_health_check=[HealthCheck.function_scoped_fixture])
def test_any_bytes_at_all_are_answered(client: TestClient, body: bytes, url: str) -> None:
    answer = client.request("PUT" if url in ("/api/shop", "/api/kinds") else "POST", url, content=body)
    assert answer.status_code == 422
    assert answer.json()["detail"]


@pytest.mark.parametrize(
    ("headers", "told"),
    [
        ({}, 0), ({"content-length": "12"}, 12), ({"transfer-encoding": "chunked"}, None),
        ({"content-length": "1e3"}, None), ({"content-length": "\u00b2"}, None),
        ({"content-length": "9" * 16}, None), ({"content-length": "-1"}, None),
    ],
)  # fmt: skip
def test_the_length_of_a_body_is_what_is_told_in_plain_digits(headers: dict[str, str], told: int | None) -> None:
    assert _length(Headers(headers)) == told


@pytest.mark.parametrize("site", ["cross-site", "same-site"])
def test_a_foreign_page_has_nothing_exported(client: TestClient, site: str) -> None:
    for path in ("/api/keeping/archive", "/api/jobs", "/api/shop"):
        assert client.get(path, headers={"Sec-Fetch-Site": site}).status_code == 403
    assert client.get("/", headers={"Sec-Fetch-Site": site}).status_code != 403
    for own in ("same-origin", "none"):
        assert client.get("/api/shop", headers={"Sec-Fetch-Site": own}).status_code == 200

"""What the server lets in: its own hosts, its own pages, bodies of bearable size; and any request at all."""

from __future__ import annotations

from functools import cache
from pathlib import Path
from typing import Any

import pytest
import schemathesis
from fastapi import FastAPI
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from fardo.api.app import create_app
from tests.made_up import job
from tests.served import CREWS


@pytest.mark.parametrize("host", ["evil.example", "127.0.0.1.evil.example", "", "[::"])
def test_an_unknown_host_is_turned_away(client: TestClient, host: str) -> None:
    answer = client.get("/api/jobs", headers={"Host": host})
    assert answer.status_code == 403


def test_another_sites_page_may_not_write(client: TestClient) -> None:
    answer = client.post("/api/jobs", json=job(), headers={"Origin": "https://evil.example"})
    assert answer.status_code == 403
    assert client.post("/api/jobs", json=job(), headers={"Origin": "http://127.0.0.1:8740"}).status_code == 201


def test_a_strict_policy_is_sent_with_every_answer(client: TestClient) -> None:
    for url in ("/", "/api/jobs", "/api/jobs/nothing", "/nowhere"):
        policy = client.get(url).headers["content-security-policy"]
        assert "default-src 'self'" in policy
        assert "unsafe-eval" not in policy
        assert "script-src" not in policy  # so default-src rules: only our own scripts


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
_NOT_JSON = {"/api/jobs/bundle", "/api/files"}


@given(st.data())
@settings(max_examples=60, suppress_health_check=list(HealthCheck), print_blob=False)
def test_any_request_within_the_description_is_answered(shop_file: Path, data: st.DataObject) -> None:
    """Requests made up from the OpenAPI document, on any of its operations."""
    case = data.draw(data.draw(st.sampled_from(_operations_on(shop_file))).as_strategy())
    answer = case.call(headers={"Host": "127.0.0.1"})
    assert answer.status_code < 500, answer.text
    if answer.status_code >= 400:
        assert answer.headers["content-type"][0] == "application/problem+json"
        assert answer.json()["detail"]


@cache
def _operations_on(path: Path) -> list[Any]:
    schema = schemathesis.openapi.from_asgi("/api/openapi.json", _app_on(path), headers={"Host": "127.0.0.1"})
    return [found.ok() for found in schema.get_all_operations() if found.ok().path not in _NOT_JSON]


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
@settings(max_examples=150, suppress_health_check=[HealthCheck.function_scoped_fixture])
def test_any_bytes_at_all_are_answered(client: TestClient, body: bytes, url: str) -> None:
    answer = client.request("PUT" if url in ("/api/shop", "/api/kinds") else "POST", url, content=body)
    assert answer.status_code == 422
    assert answer.json()["detail"]

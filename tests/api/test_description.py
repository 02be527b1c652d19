"""The OpenAPI document: every operation described, every body with an example that works."""

from __future__ import annotations

from typing import Any

from fastapi.testclient import TestClient

from tests.made_up import job

METHODS = ("get", "post", "put", "delete")


def operations(document: dict[str, Any]) -> list[tuple[str, str, dict[str, Any]]]:
    return [
        (path, method, body[method]) for path, body in document["paths"].items() for method in METHODS if method in body
    ]


def examples(document: dict[str, Any], operation: dict[str, Any]) -> list[Any]:
    content = operation["requestBody"]["content"]["application/json"]
    if "example" in content:
        return [content["example"]]
    name = content["schema"]["$ref"].rpartition("/")[2]
    return document["components"]["schemas"][name]["examples"]


def test_every_refusal_is_described_as_a_problem(client: TestClient) -> None:
    document = client.get("/api/openapi.json").json()
    for path, method, operation in operations(document):
        if path != "/api/alive":
            assert operation["tags"], f"{method} {path}"
            assert "application/problem+json" in operation["responses"]["422"]["content"], f"{method} {path}"


def test_every_example_is_answered(client: TestClient) -> None:
    document = client.get("/api/openapi.json").json()
    key = client.post("/api/jobs", json=job()).json()["id"]
    revisions = {
        "/api/shop": client.get("/api/shop").json()["revision"],
        f"/api/jobs/{key}": 1,
        "/api/kinds": 0,
    }
    tried = 0
    for path, method, operation in operations(document):
        if "application/json" not in operation.get("requestBody", {}).get("content", {}):
            continue
        for example in examples(document, operation):
            url = (
                path.replace("{key}", key)
                .replace("{carrier}", "Oddbarrow")
                .replace("{service}", "0")
                .replace("{charge}", "0")
            )
            needs_more = ("/api/jobs/{key}/label", "/api/jobs/{key}/print")
            if url in ("/api/cutting/done", "/api/cutting/undone") or path in needs_more:
                continue  # something to cut, a carrier that sells, a printer: they have their tests
            if url.startswith("/api/tariffs/Oddbarrow"):
                revisions[url] = client.get("/api/tariffs/Oddbarrow").json()["revision"]
            body = (
                {**example, "revision": revisions.get(url, example["revision"])} if "revision" in example else example
            )
            answer = client.request(method, url, json=body)
            assert answer.status_code in (200, 201, 202), f"{method} {path}: {answer.text}"
            tried += 1
    assert tried >= 6


def test_lengths_and_weights_on_the_wire_carry_their_unit(client: TestClient) -> None:
    schemas = client.get("/api/openapi.json").json()["components"]["schemas"]
    assert {"at_mm", "size_mm", "gap_before_mm"} <= set(schemas["Placement"]["properties"])
    assert "billed_weight_g" in schemas["QuoteView"]["properties"]


def test_an_address_of_the_api_that_is_none_answers_in_its_own_words_and_any_other_with_the_page(
    client: TestClient,
) -> None:
    none = client.get("/api/nothing-such")
    assert (none.status_code, none.headers["content-type"]) == (404, "application/problem+json")
    assert none.json()["detail"] == "There is nothing at this address."
    page = client.get("/nothing-such")
    assert (page.status_code, page.headers["content-type"].split(";")[0]) == (404, "text/html")
    assert client.get("/bale.svg").headers["content-type"].startswith("image/svg+xml")

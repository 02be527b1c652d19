"""Writes the descriptions that are made from the models: JSON Schemas of the files, and the OpenAPI document.

Used when the models change (`make schemas`) and to check that what is in the tree is current.
"""

from __future__ import annotations

import json
import sys
import tempfile
from pathlib import Path
from typing import Any

from fardo.api.app import create_app
from fardo.files.job import JobFile
from fardo.files.kind import KindFile
from fardo.files.tariff import TariffFile


def documents() -> dict[str, dict[str, Any]]:
    """Each document by its path in the tree."""
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Path(folder) / "empty.db")
        openapi = app.openapi()
        app.state.context.database.close()
    return {
        "docs/formats/fardo-job-1.schema.json": JobFile.model_json_schema(by_alias=True),
        "docs/formats/fardo-kind-1.schema.json": KindFile.model_json_schema(by_alias=True),
        "docs/formats/fardo-tariff-1.schema.json": TariffFile.model_json_schema(by_alias=True),
        "web/openapi.json": openapi,
    }


def text(document: dict[str, Any]) -> str:
    return json.dumps(document, indent=1, ensure_ascii=False, sort_keys=True) + "\n"


def write(tree: Path) -> None:
    for name, document in documents().items():
        path = tree / name
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(text(document), encoding="utf-8")


if __name__ == "__main__":
    write(Path(sys.argv[1]))

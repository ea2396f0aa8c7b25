"""Write the OpenAPI document: `python -m server.openapi FILE`. The front end's types are generated from it."""

import json
import os
import sys
from pathlib import Path

import django


def dump() -> str:
    """The document as text, the same whichever Python writes it."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.settings")
    os.environ.setdefault("YOISHO_SECRET", "only-for-the-schema")
    os.environ.setdefault("YOISHO_DATABASE", "postgresql://nobody@127.0.0.1:1/none")
    django.setup()
    from server.api import api

    return json.dumps(api.get_openapi_schema(), indent=1, sort_keys=True, ensure_ascii=False) + "\n"


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(dump(), encoding="utf-8")

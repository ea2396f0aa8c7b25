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
    from server.sessions.documents import with_definitions
    from yoisho.method.figures import FIGURES

    document = with_definitions(api.get_openapi_schema())
    # Answers tell figures by their ids; the front end asks for them by this type.
    document["components"]["schemas"]["FigureId"] = {"type": "string", "enum": sorted(FIGURES)}
    return json.dumps(document, indent=1, sort_keys=True, ensure_ascii=False) + "\n"


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(dump(), encoding="utf-8")

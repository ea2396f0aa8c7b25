"""Where made files are kept, through Django's STORAGES: speech, cue tracks and music. Another place for them (an object
store that every server reaches) is another entry there; this one is a folder of this machine."""

import os
import uuid
from pathlib import Path

from django.conf import settings
from django.core.files import File
from django.core.files.storage import FileSystemStorage


class Folder(FileSystemStorage):
    """Files that are whole or not there: written beside their place first, and what stands there already gives way."""

    def __init__(self, setting: str):
        super().__init__(allow_overwrite=True)
        self.setting = setting

    @property
    def base_location(self) -> str:
        return str(getattr(settings, self.setting))

    @property
    def location(self) -> str:
        return os.path.abspath(self.base_location)

    def _save(self, name: str, content: "File[bytes]") -> str:
        whole = Path(self.path(name))
        whole.parent.mkdir(parents=True, exist_ok=True)
        half = whole.with_name(f"{uuid.uuid4()}.part")
        try:
            with half.open("wb") as written:
                for chunk in content.chunks():
                    written.write(chunk)
            half.replace(whole)
        finally:
            half.unlink(missing_ok=True)
        return name

"""Addresses of what ships with the pages: they change when it does, so that no browser keeps it."""

import hashlib
from functools import lru_cache
from pathlib import Path

from django.contrib.staticfiles import finders
from django.contrib.staticfiles.storage import StaticFilesStorage


class VersionedStaticFilesStorage(StaticFilesStorage):
    """Serves from where the files lie; nothing has to be collected first."""

    def url(self, name: str | None) -> str:
        """The address of a file, with a digest of what is in it."""
        version = _version_of(name or "")
        return f"{super().url(name)}?{version}" if version else super().url(name)


@lru_cache
def _version_of(name: str) -> str:
    path = finders.find(name)
    return hashlib.sha256(Path(path).read_bytes()).hexdigest()[:12] if path else ""

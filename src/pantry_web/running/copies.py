"""Copies of the database: taken while it is used, verified, compressed, and put back."""

import gzip
import shutil
import sqlite3
import tempfile
from contextlib import closing
from pathlib import Path

PAGES_AT_ONCE = 256
MAGIC = b"SQLite format 3\x00"


class BadCopy(ValueError):
    """A copy that cannot be used; the message says why."""


def take_copy(database: Path, target: Path) -> dict[str, int]:
    """Copy a database that is in use, whole and of one moment, verified and compressed.

    Parameters: database; target, the file to be written, replaced only by a sound copy.
    Returns: the number of rows of each table.
    Raises: BadCopy when the copy is not sound; OSError when it cannot be written.
    Source: the online backup interface of SQLite.
    """
    with tempfile.TemporaryDirectory(dir=target.parent) as folder:
        plain, packed = Path(folder) / "plain", Path(folder) / "packed"
        with (
            closing(sqlite3.connect(f"file:{database}?mode=ro", uri=True)) as source,
            closing(sqlite3.connect(plain)) as copy,
        ):
            source.backup(copy, pages=PAGES_AT_ONCE)
            copy.execute("PRAGMA journal_mode=DELETE")
        counted = _verified(plain)
        with plain.open("rb") as read, gzip.open(packed, "wb") as written:
            shutil.copyfileobj(read, written)
        packed.chmod(0o600)
        packed.replace(target)
    return counted


def put_back(copy: Path, database: Path) -> dict[str, int]:
    """Put a copy in the place of a database that nobody uses meanwhile; the old one stays there.

    Parameters: copy, as `take_copy` wrote it; database.
    Returns: the number of rows of each table.
    Raises: BadCopy for a file that is no sound copy; the database stays as it was then.
    """
    with tempfile.TemporaryDirectory(dir=database.parent) as folder:
        plain = Path(folder) / "plain"
        try:
            with gzip.open(copy, "rb") as read, plain.open("wb") as written:
                shutil.copyfileobj(read, written)
        except (OSError, EOFError) as error:
            raise BadCopy(f"{copy} cannot be read: {error}") from None
        counted = _verified(plain)
        for ending in ("", "-wal", "-shm"):
            old = database.with_name(database.name + ending)
            if old.exists():
                old.replace(old.with_name(f"{database.name}.before{ending}"))
        plain.chmod(0o600)
        plain.replace(database)
    return counted


def _verified(path: Path) -> dict[str, int]:
    """The number of rows of each table of a database that holds together."""
    with path.open("rb") as begun:
        if begun.read(len(MAGIC)) != MAGIC:
            raise BadCopy("this is no copy of a Pantry Clock database")
    try:
        with closing(sqlite3.connect(f"file:{path}?mode=ro", uri=True)) as database:
            (told,) = database.execute("PRAGMA integrity_check").fetchone()
            broken = database.execute("PRAGMA foreign_key_check").fetchall()
            names = [
                name
                for (name,) in database.execute(
                    "SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name"
                )
            ]
            counted = {
                name: database.execute(f'SELECT count(*) FROM "{name}"').fetchone()[0]  # noqa: S608
                for name in names
            }
    except sqlite3.DatabaseError as error:
        raise BadCopy(f"the copy does not hold together: {error}") from None
    if told != "ok" or broken or "kitchens_kitchen" not in counted:
        raise BadCopy("the copy does not hold together, or is of another program")
    return counted

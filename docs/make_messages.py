"""Bring the catalogue of a language up to date with the sources, and compile it.

`make_messages.py nl` writes src/pantry_web/locale/nl: what was translated stays, what is new is
empty, what is gone is dropped. The language is offered from the next start on.
"""

import sys
from pathlib import Path

from babel.messages.catalog import Catalog
from babel.messages.mofile import write_mo
from babel.messages.pofile import read_po, write_po

from pantry_web.running.messages import SOURCE, messages

LOCALE = SOURCE / "pantry_web" / "locale"
FORMATS = '''"""Numbers are shown as they are typed: with a point."""

DECIMAL_SEPARATOR = "."
'''


def update(language: str, folder: Path = LOCALE) -> Path:
    """The catalogue of a language, with all that is in the sources; its path."""
    kept = folder / language / "LC_MESSAGES" / "django.po"
    kept.parent.mkdir(parents=True, exist_ok=True)
    catalogue = Catalog(locale=language, domain="django")
    if kept.exists():
        with kept.open("rb") as file:
            catalogue = read_po(file, locale=language, domain="django")
    template = Catalog(domain="django")
    for text, places in messages().items():
        template.add(text, locations=places)
    catalogue.update(template, no_fuzzy_matching=True)
    catalogue.obsolete.clear()
    with kept.open("wb") as file:
        write_po(file, catalogue, width=100, sort_by_file=True)
    with kept.with_suffix(".mo").open("wb") as file:
        write_mo(file, catalogue)
    for name, text in (("__init__.py", ""), ("formats.py", FORMATS)):
        (folder / language / name).write_text(text)
    return kept


if __name__ == "__main__":
    print(update(sys.argv[1]))

"""The core from the command line: `pantry OP FILE`, `-` for standard input, `--lines`."""

import argparse
import sys
from pathlib import Path

from pantry_core.formats.operations import OPERATIONS, answer_text

COMPUTED, WRONG_INPUT = 0, 2


def main(arguments: list[str] | None = None) -> int:
    """Answer one document, or one a line; returns 0 when all were computed, else 2."""
    parser = argparse.ArgumentParser(
        prog="pantry", description="Answer a Pantry Clock document (docs/formats.md)."
    )
    parser.add_argument("op", metavar="OP", help=" or ".join(OPERATIONS))
    parser.add_argument("file", metavar="FILE", help="a JSON document, - for standard input")
    parser.add_argument("--lines", action="store_true", help="one document a line, one answer each")
    options = parser.parse_args(arguments)
    if options.op not in OPERATIONS:
        parser.error(f"OP is {' or '.join(OPERATIONS)}, not {options.op!r}")
    try:
        documents = _documents(options.file, by_line=options.lines)
    except OSError as error:
        parser.error(f"{options.file}: {error.strerror}")
    all_computed = True
    for document in documents:
        answer, computed = answer_text(options.op, document)
        print(answer)
        all_computed = all_computed and computed
    return COMPUTED if all_computed else WRONG_INPUT


def _documents(file: str, *, by_line: bool) -> list[bytes]:
    """The documents of a file, or of standard input."""
    content = sys.stdin.buffer.read() if file == "-" else Path(file).read_bytes()
    return [line for line in content.splitlines() if line.strip()] if by_line else [content]


if __name__ == "__main__":
    sys.exit(main())

"""Write the table of rules at the end of docs/method.md anew from the rules themselves."""

from pathlib import Path

from pantry_core.rules.listing import all_rules, table

PAGE = Path(__file__).parent / "method.md"
HEADING = "## Rules\n\n"


def page() -> str:
    """The page with the table as the rules have it now."""
    head = PAGE.read_text().partition(HEADING)[0]
    return f"{head}{HEADING}{table(all_rules())}"


if __name__ == "__main__":
    PAGE.write_text(page())

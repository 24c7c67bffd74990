"""Write docs/verify.md, the list of what stands from memory, from the core's own list."""

from pathlib import Path

from pantry_core.rules.listing import all_rules
from pantry_core.rules.verify import TO_VERIFY, resting_on

PAGE = Path(__file__).parent / "verify.md"
HEAD = """# To be verified

These figures are published, and stand here from memory: their documents could not be reached when
they were written down. Whoever checks one against its document writes who, which edition and when
into the last three columns; then its rules get the mark *looked up*. Until then the pages say that
they stand from memory. The same list is a page of the app, to be printed.

"""
COLUMNS = ("document", "section", "what it says, in our words", "our figures",
           "the same by arithmetic", "checked by", "edition", "on")  # fmt: skip


def page() -> str:
    """The page as the rules have it now."""
    rules = all_rules()
    lines = [f"| {' | '.join(COLUMNS)} |", "|---" * len(COLUMNS) + "|"]
    for entry in TO_VERIFY:
        figures = ", ".join(f"{each.id} {each.value:g}" for each in resting_on(entry, rules)[:8])
        lines.append(
            f"| {entry.document} | {entry.section} | {entry.says} | {figures} | {entry.arithmetic} "
            "| | | |"
        )
    return HEAD + "\n".join(lines) + "\n"


if __name__ == "__main__":
    PAGE.write_text(page())

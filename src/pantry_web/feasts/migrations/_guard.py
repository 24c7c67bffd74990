"""The triggers that keep a table append-only; SQLite loses them when a table is made anew."""

TABLES = ("feasts_event", "feasts_weighsheet")
DEEDS = ("UPDATE", "DELETE")


def name(table: str, deed: str) -> str:
    """The name of a trigger."""
    return f"{table}_refuses_{deed.lower()}"


def guarding() -> list[str]:
    """Make every trigger, whether it was there or not."""
    return [
        statement
        for table in TABLES
        for deed in DEEDS
        for statement in (
            f"DROP TRIGGER IF EXISTS {name(table, deed)}",
            f"CREATE TRIGGER {name(table, deed)} BEFORE {deed} ON {table} "
            f"BEGIN SELECT RAISE(ABORT, '{table} is append-only'); END",
        )
    ]


def unguarding() -> list[str]:
    """Drop every trigger."""
    return [f"DROP TRIGGER IF EXISTS {name(table, deed)}" for table in TABLES for deed in DEEDS]

"""The database refuses to change or remove what has been written down."""

from django.db import migrations

TABLES = ("feasts_event", "feasts_weighsheet")
DEEDS = ("UPDATE", "DELETE")


def _name(table: str, deed: str) -> str:
    return f"{table}_refuses_{deed.lower()}"


class Migration(migrations.Migration):
    dependencies = [("feasts", "0001_initial")]

    operations = [
        migrations.RunSQL(
            f"CREATE TRIGGER {_name(table, deed)} BEFORE {deed} ON {table} "
            f"BEGIN SELECT RAISE(ABORT, '{table} is append-only'); END",
            f"DROP TRIGGER {_name(table, deed)}",
        )
        for table in TABLES
        for deed in DEEDS
    ]

"""The database refuses to change or remove what has been written down."""

from django.db import migrations

from pantry_web.feasts.migrations._guard import guarding, unguarding


class Migration(migrations.Migration):
    dependencies = [("feasts", "0001_initial")]

    operations = [migrations.RunSQL(guarding(), unguarding())]

"""The application as a server calls it."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "pantry_web.settings")
application = get_wsgi_application()

"""The application's settings over plain http, with data of their own and quick passwords."""

import os
import tempfile

os.environ.setdefault("PANTRY_DATA", tempfile.mkdtemp(prefix="pantry-test-"))
os.environ["PANTRY_PLAIN_HTTP"] = "1"

# The browser's tests leave a loop running in their process, and other tests may follow there.
os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "1"

from pantry_web.settings import *  # noqa: F403 - the environment comes first

PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]

TASKS = {"default": {"BACKEND": "django_tasks.backends.immediate.ImmediateBackend"}}

"""Settings, safe by default; PANTRY_PLAIN_HTTP=1 loosens what plain http on this machine needs."""

import os
from pathlib import Path

from csp.constants import NONE, SELF

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
"""The matrices of the models are small: more threads only take processors from other requests."""

ROOT = Path(__file__).resolve().parents[2]
DATA = Path(os.environ.get("PANTRY_DATA", ROOT / "var"))
PLAIN_HTTP = os.environ.get("PANTRY_PLAIN_HTTP") == "1"
BEHIND_PROXY = os.environ.get("PANTRY_BEHIND_PROXY") == "1"
"""Whether a proxy that is trusted says who asks, and whether it was over TLS."""


def _secret_key() -> str:
    """From the environment, else from a file beside the data that is made on first use."""
    if key := os.environ.get("PANTRY_SECRET_KEY"):
        return key
    DATA.mkdir(parents=True, exist_ok=True)
    kept = DATA / "secret-key"
    if not kept.exists():
        from django.core.management.utils import get_random_secret_key  # noqa: PLC0415

        kept.touch(mode=0o600)
        kept.write_text(get_random_secret_key() + get_random_secret_key())
    return kept.read_text()


SECRET_KEY = _secret_key()
DEBUG = False
ALLOWED_HOSTS = os.environ.get("PANTRY_HOSTS", "127.0.0.1,localhost").split(",")

INSTALLED_APPS = [
    "pantry_web.presses",
    "pantry_web.running",
    "pantry_web.members",
    "pantry_web.kitchens",
    "pantry_web.pantry",
    "pantry_web.background",
    "pantry_web.feasts",
    "pantry_web.planning",
    "pantry_web.weighup",
    "pantry_web.recipes",
    "pantry_web.shopping",
    "pantry_web.passage",
    "pantry_web.today",
    "pantry_web.ledger",
    "pantry_web.devices",
    "pantry_web.feeds",
    "pantry_web.fireday",
    "pantry_web.steps",
    "pantry_web.moving",
    "pantry_web.handbook",
    "pantry_web.demo",
    "axes",
    "csp",
    "django_htmx",
    "django_tasks",
    "django_tasks_db",
    "django.forms",
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.messages",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
]

MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.locale.LocaleMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django_htmx.middleware.HtmxMiddleware",
    "pantry_web.middleware.SignInMiddleware",
    "pantry_web.middleware.ClockFaceMiddleware",
    "pantry_web.middleware.PrivateMiddleware",
    "django.contrib.messages.middleware.MessageMiddleware",
    "pantry_web.middleware.PlanningMiddleware",
    "pantry_web.presses.middleware.OnceMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
    "pantry_web.middleware.BusyMiddleware",
]

ROOT_URLCONF = "pantry_web.urls"
WSGI_APPLICATION = "pantry_web.wsgi.application"

TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [Path(__file__).parent / "templates"],
        "APP_DIRS": True,
        "OPTIONS": {
            "context_processors": [
                "django.template.context_processors.request",
                "django.template.context_processors.i18n",
                "django.contrib.auth.context_processors.auth",
                "django.contrib.messages.context_processors.messages",
                "pantry_web.kitchens.context.kitchen",
                "pantry_web.fireday.lit.context",
            ],
            "builtins": [
                "django.templatetags.i18n",
                "pantry_web.kitchens.templatetags.measures",
                "pantry_web.presses.templatetags.once",
            ],
        },
    }
]

FORM_RENDERER = "django.forms.renderers.TemplatesSetting"

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATA / "pantry.sqlite3",
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            "timeout": 10,
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL;",
        },
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
TASKS = {"default": {"BACKEND": "django_tasks_db.DatabaseBackend"}}

CACHES = {
    "default": {
        "BACKEND": "django.core.cache.backends.locmem.LocMemCache",
        "OPTIONS": {"MAX_ENTRIES": 5000},
    }
}

AUTH_USER_MODEL = "kitchens.Cook"
AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "django.contrib.auth.backends.ModelBackend",
]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}"}
    for name in (
        "UserAttributeSimilarityValidator",
        "MinimumLengthValidator",
        "CommonPasswordValidator",
        "NumericPasswordValidator",
    )
]
PASSWORD_RESET_TIMEOUT = 3600
LOGIN_URL = "sign-in"
LOGIN_REDIRECT_URL = "today"
LOGOUT_REDIRECT_URL = "sign-in"

AXES_FAILURE_LIMIT = 5
AXES_COOLOFF_TIME = 0.25
AXES_HANDLER = "pantry_web.members.throttle.Throttle"
AXES_USERNAME_CALLABLE = "pantry_web.members.throttle.counted_name"
AXES_CLIENT_IP_CALLABLE = "pantry_web.members.throttle.address_of"
AXES_RESET_COOL_OFF_ON_FAILURE_DURING_LOCKOUT = False
AXES_DISABLE_ACCESS_LOG = True
AXES_LOCKOUT_TEMPLATE = "members/locked_out.html"
AXES_RESET_ON_SUCCESS = True
AXES_VERBOSE = False

LANGUAGE_CODE = "en-gb"
LOCALE_PATHS = [Path(__file__).parent / "locale"]
FORMAT_MODULE_PATH = "pantry_web.locale"
LANGUAGES = [
    ("en", "English"),
    *(
        (each.parent.name, each.parent.name)
        for each in sorted(LOCALE_PATHS[0].glob("*/LC_MESSAGES"))
    ),
]
TIME_ZONE = "UTC"
USE_TZ = True

STATIC_URL = "static/"
STATICFILES_DIRS = [Path(__file__).parent / "static"]
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "pantry_web.versioned.VersionedStaticFilesStorage"},
}
WHITENOISE_USE_FINDERS = True
WHITENOISE_MAX_AGE = 3600

CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF],
        "style-src": [SELF],
        "font-src": [SELF],
        # Bootstrap draws the arrow of a select as a data: picture.
        "img-src": [SELF, "data:"],
        "connect-src": [SELF],
        "worker-src": [SELF],
        "manifest-src": [SELF],
        "form-action": [SELF],
        "frame-ancestors": [NONE],
        "base-uri": [NONE],
    }
}

SECURE_SSL_REDIRECT = not PLAIN_HTTP
SECURE_REDIRECT_EXEMPT = [r"^health/$"]
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if BEHIND_PROXY else None
SESSION_COOKIE_SECURE = not PLAIN_HTTP
CSRF_COOKIE_SECURE = not PLAIN_HTTP
SECURE_HSTS_SECONDS = 0 if PLAIN_HTTP else 31_536_000
SECURE_HSTS_INCLUDE_SUBDOMAINS = not PLAIN_HTTP
SECURE_HSTS_PRELOAD = not PLAIN_HTTP
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
SESSION_COOKIE_HTTPONLY = True
DATA_UPLOAD_MAX_MEMORY_SIZE = 1_500_000
"""A form may hold a web page with a recipe in it."""

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {"json": {"()": "pantry_web.running.logs.AsJson"}},
    "handlers": {
        "console": {
            "class": "logging.StreamHandler",
            **({"formatter": "json"} if os.environ.get("PANTRY_LOGS") == "json" else {}),
        }
    },
    "root": {"handlers": ["console"], "level": "WARNING"},
}

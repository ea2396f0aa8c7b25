"""Settings. Everything that differs between places comes from the environment, which `scripts/` sets."""

import os
from pathlib import Path
from urllib.parse import unquote, urlsplit

from csp.constants import NONE, SELF

ROOT = Path(__file__).resolve().parent.parent


def _required(name: str) -> str:
    value = os.environ.get(name, "")
    if not value:
        raise SystemExit(f"{name} is not set. Start the app with `make demo`, or run the tests with `make test`.")
    return value


def _database(url: str) -> dict[str, object]:
    parts = urlsplit(url)
    return {
        "ENGINE": "django.db.backends.postgresql",
        "HOST": parts.hostname,
        "PORT": parts.port,
        "USER": unquote(parts.username or ""),
        "PASSWORD": unquote(parts.password or ""),
        "NAME": parts.path.lstrip("/"),
        "CONN_MAX_AGE": 600,
        "CONN_HEALTH_CHECKS": True,
    }


SECRET_KEY = _required("YOISHO_SECRET")
DATABASES = {"default": _database(_required("YOISHO_DATABASE"))}
DEBUG = False
DEMO = os.environ.get("YOISHO_DEMO") == "1"
"""Whether one click enters as the demo coach. Only `make demo` and the tests set it."""
ADDRESS = os.environ.get("YOISHO_ADDRESS", "").rstrip("/")
"""Where the hall finds it, such as https://hall.example; empty for this machine alone."""
_PUBLIC = urlsplit(ADDRESS)
ALLOWED_HOSTS = [
    *os.environ.get("YOISHO_HOSTS", "127.0.0.1,localhost").split(","),
    *([_PUBLIC.hostname] if _PUBLIC.hostname else []),
]
if _PUBLIC.scheme == "https":
    # A proxy stands before it, and says that what came was secure.
    SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")
    SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = True
    SECURE_HSTS_SECONDS = 60 * 60 * 24 * 365
    CSRF_TRUSTED_ORIGINS = [ADDRESS]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "axes",
    "procrastinate.contrib.django",
    "server.accounts",
    "server.roster",
    "server.jobs",
    "server.sessions",
    "server.combinations",
    "server.runs",
    "server.logbook",
    "server.today",
    "server.demo",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "csp.middleware.CSPMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
    "server.accounts.zone.ClubZone",
    "server.parsing.NoNul",
]
ROOT_URLCONF = "server.urls"
WSGI_APPLICATION = "server.wsgi.application"
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "accounts.User"
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "server.accounts.backend.CoachBackend"]
PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}"}
    for name in ("UserAttributeSimilarityValidator", "MinimumLengthValidator", "CommonPasswordValidator",
                 "NumericPasswordValidator")
]  # fmt: skip
AXES_FAILURE_LIMIT = 10
AXES_COOLOFF_TIME = 0.25
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_VERBOSE = False

USE_TZ = True
TIME_ZONE = "UTC"
USE_I18N = False

WEB_DIST = ROOT / "web" / "dist"
SPEECH = Path(os.environ.get("YOISHO_SPEECH") or ROOT / ".state" / "speech")
"""Where phrases of speech are kept; they are made again where they are gone."""
SPEAK_AHEAD = True
STATIC_URL = "/static/"
WHITENOISE_ROOT = WEB_DIST
WHITENOISE_AUTOREFRESH = False


def WHITENOISE_IMMUTABLE_FILE_TEST(path: str, url: str) -> bool:  # noqa: N802
    return url.startswith("/assets/")


CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "img-src": [SELF, "data:"],
        "style-src": [SELF],
        "object-src": [NONE],
        "base-uri": [NONE],
        "frame-ancestors": [NONE],
        "form-action": [SELF],
    }
}
SESSION_COOKIE_AGE = 60 * 60 * 24 * 30
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
SECURE_REFERRER_POLICY = "same-origin"
DATA_UPLOAD_MAX_MEMORY_SIZE = 1_000_000

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}

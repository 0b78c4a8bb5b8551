"""Settings. Where data lies, and whether visitors are signed in, comes from the environment.

STILEBLADE_DATA     folder of the database and the secret key (default: var)
STILEBLADE_DEMO     1: visitors are signed in as the demo designer
STILEBLADE_HOSTS    names that are answered to, with commas (default: this machine's own)
STILEBLADE_HTTPS    1: behind a proxy on this machine that speaks HTTPS; see docs/deploying.md
STILEBLADE_SIGN_UP  1: visitors may make accounts of their own
STILEBLADE_QUOTA_MB how much each person may keep (default: 500)
STILEBLADE_DEBUG    1: Django's debug mode, for development
"""

from __future__ import annotations

import os
from datetime import timedelta
from pathlib import Path

from server.config.data import DATABASE, place_of, prepared, secret_key
from server.config.limits import DESIGN, FILE

BASE_DIR = Path(__file__).resolve().parents[2]
DATA_DIR = Path(os.environ.get("STILEBLADE_DATA", BASE_DIR / "var")).resolve()
prepared(DATA_DIR)
DEMO = os.environ.get("STILEBLADE_DEMO") == "1"
DEBUG = os.environ.get("STILEBLADE_DEBUG") == "1"
HTTPS = os.environ.get("STILEBLADE_HTTPS") == "1"
SIGN_UP = os.environ.get("STILEBLADE_SIGN_UP") == "1"
QUOTA_BYTES = 1_000_000 * int(os.environ.get("STILEBLADE_QUOTA_MB", "500"))
SECRET_KEY = secret_key(DATA_DIR)
PLACE = place_of(DATA_DIR, SECRET_KEY)
"""Tells this data folder from others, to drafts that wait in a browser."""
ALLOWED_HOSTS = os.environ.get("STILEBLADE_HOSTS", "localhost,127.0.0.1,[::1]").split(",")
ROOT_URLCONF = "server.config.urls"
WSGI_APPLICATION = "server.config.wsgi.application"
INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "axes",
    "ninja",
    "server.accounts",
    "server.designs",
    "server.shelf",
    "server.jobs",
    "server.config",
]
MIDDLEWARE = [
    "django.middleware.locale.LocaleMiddleware",
    "server.config.speaking.Speaking",
    "server.config.security.Door",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "server.accounts.middleware.DemoVisitor",
    "axes.middleware.AxesMiddleware",
]
AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "django.contrib.auth.backends.ModelBackend",
]
TEMPLATES = [
    {"BACKEND": "django.template.backends.django.DjangoTemplates", "DIRS": [], "APP_DIRS": False}
]
DATABASES = {
    "default": {
        "ENGINE": "server.sqlite",
        "NAME": DATA_DIR / DATABASE,
        "CONN_MAX_AGE": None,
        "TEST": {"NAME": ":memory:"},
        "OPTIONS": {
            "timeout": 20,
            "transaction_mode": "IMMEDIATE",
            # commits are synced together: server/sqlite/log_sync.py
            "init_command": "PRAGMA journal_mode=WAL;PRAGMA synchronous=NORMAL;",
        },
    }
}
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator"},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
]
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
USE_I18N = True
LANGUAGE_CODE = "en"
LANGUAGES = [("en", "English"), ("de", "Deutsch")]
LANGUAGE_COOKIE_NAME = "language"  # chosen in the page: web/src/shared/words
USE_TZ = True
TIME_ZONE = "UTC"
STATIC_URL = "/static/"
WEB_DIST = BASE_DIR / "web" / "dist"
STATICFILES_DIRS = [WEB_DIST] if WEB_DIST.is_dir() else []
WHITENOISE_USE_FINDERS = True
WHITENOISE_AUTOREFRESH = False
WHITENOISE_ALLOW_ALL_ORIGINS = False
# what a route takes, the door says before
DATA_UPLOAD_MAX_MEMORY_SIZE = DESIGN
FILE_UPLOAD_MAX_MEMORY_SIZE = FILE
# one process: what it remembers of sessions is what there is
SESSION_ENGINE = "django.contrib.sessions.backends.cached_db"
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"
SECURE_REFERRER_POLICY = "same-origin"
SILENCED_SYSTEM_CHECKS = ["security.W002"]  # the door sets that header, for files as well
# after so many wrong passwords for one name from one address, that address waits
AXES_FAILURE_LIMIT = 8
AXES_COOLOFF_TIME = timedelta(minutes=15)
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_LOCKOUT_CALLABLE = "server.accounts.people.locked_out"
AXES_RESET_ON_SUCCESS = True
AXES_DISABLE_ACCESS_LOG = True
AXES_SENSITIVE_PARAMETERS: list[str] = []  # the log names who was tried, and from where
if HTTPS:
    SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")
    SECURE_SSL_REDIRECT = True
    SECURE_HSTS_SECONDS = 365 * 24 * 3600
    SECURE_HSTS_INCLUDE_SUBDOMAINS = True
    SECURE_HSTS_PRELOAD = True
    SESSION_COOKIE_SECURE = True
    CSRF_COOKIE_SECURE = True
    CSRF_TRUSTED_ORIGINS = [f"https://{host}" for host in ALLOWED_HOSTS]
NINJA_NUM_PROXIES = 0

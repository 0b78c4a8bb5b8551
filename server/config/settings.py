"""Settings. Where data lies, and whether visitors are signed in, comes from the environment.

STILEBLADE_DATA   folder of the database and the secret key (default: var)
STILEBLADE_DEMO   1: visitors are signed in as the demo designer
STILEBLADE_DEBUG  1: Django's debug mode, for development
"""

from __future__ import annotations

import os
import secrets
from pathlib import Path

BASE_DIR = Path(__file__).resolve().parents[2]
DATA_DIR = Path(os.environ.get("STILEBLADE_DATA", BASE_DIR / "var")).resolve()
DATA_DIR.mkdir(parents=True, exist_ok=True)
DEMO = os.environ.get("STILEBLADE_DEMO") == "1"
DEBUG = os.environ.get("STILEBLADE_DEBUG") == "1"


def _secret_key() -> str:
    """Made once for each data folder, readable by its owner alone."""
    path = DATA_DIR / "secret-key"
    try:
        with open(os.open(path, os.O_CREAT | os.O_EXCL | os.O_WRONLY, 0o600), "w") as file:
            file.write(secrets.token_urlsafe(50))
    except FileExistsError:
        pass
    return path.read_text()


SECRET_KEY = _secret_key()
ALLOWED_HOSTS = os.environ.get("STILEBLADE_HOSTS", "localhost,127.0.0.1,[::1]").split(",")
ROOT_URLCONF = "server.config.urls"
WSGI_APPLICATION = "server.config.wsgi.application"
INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "ninja",
    "server.accounts",
    "server.designs",
    "server.shelf",
    "server.config",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "server.accounts.middleware.DemoVisitor",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "server.config.security.ContentSecurityPolicy",
]
TEMPLATES = [
    {"BACKEND": "django.template.backends.django.DjangoTemplates", "DIRS": [], "APP_DIRS": False}
]
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATA_DIR / "stileblade.sqlite3",
        "CONN_MAX_AGE": None,
        "OPTIONS": {
            "timeout": 20,
            "transaction_mode": "IMMEDIATE",
            "init_command": "PRAGMA journal_mode=WAL;PRAGMA synchronous=FULL;",
        },
    }
}
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator"},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
]
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
USE_TZ = True
TIME_ZONE = "UTC"
STATIC_URL = "/static/"
WEB_DIST = BASE_DIR / "web" / "dist"
STATICFILES_DIRS = [WEB_DIST] if WEB_DIST.is_dir() else []
WHITENOISE_USE_FINDERS = True
WHITENOISE_AUTOREFRESH = False
DATA_UPLOAD_MAX_MEMORY_SIZE = 45_000_000
FILE_UPLOAD_MAX_MEMORY_SIZE = 16_000_000
# one process: what it remembers of sessions is what there is
SESSION_ENGINE = "django.contrib.sessions.backends.cached_db"
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"
SECURE_REFERRER_POLICY = "same-origin"
NINJA_NUM_PROXIES = 0

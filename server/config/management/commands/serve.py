"""Starts Stileblade: brings the database up to date and serves until SIGTERM or Ctrl+C."""

from __future__ import annotations

import os
import signal
import socket
import sys
from argparse import ArgumentParser
from types import FrameType
from typing import Any, NoReturn

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand
from django.db import DatabaseError
from django.db.migrations.loader import MigrationLoader
from waitress import create_server

from server.computing.asking import catalogue_in, end_pool, start_pool
from server.config.backups import Daily
from server.config.connections import limit
from server.config.data import DataTrouble, looked_over, taken
from server.config.demo import load_demo
from server.config.wsgi import application
from server.designs.summary import start_maker
from server.jobs.running import RUNNER

THREADS = 24
"""Most of them wait: for the disk, or for what is computed in other processes."""
REFUSED_UNREAD = 256_000_000
"""Bytes of a body beyond which it is not even taken in; up to there the door says what is too large."""
CONNECTIONS = 800
"""At once: those that have begun a request and send no more of it take no thread, but a place."""
SILENT = 30
"""Seconds after which a connection on which nothing comes is closed."""
PROXY = {"x-forwarded-for", "x-forwarded-proto"}


class Command(BaseCommand):
    help = __doc__ or ""

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("--host", default="127.0.0.1")
        parser.add_argument("--port", type=int, default=8123, help="0 takes a free one")

    def handle(self, *args: Any, **options: Any) -> None:
        signal.signal(signal.SIGTERM, _end)
        os.umask(0o077)
        self._try_port(options["host"], options["port"])
        taken(settings.DATA_DIR)
        looked_over(settings.DATA_DIR, set(MigrationLoader(None).disk_migrations))
        try:
            start_pool()
        except OSError as error:  # no room for what they need in the folder for passing files
            raise DataTrouble(f"The processes that compute cannot be started: {error}.") from error
        try:
            self._prepared()
        except DatabaseError as error:
            raise DataTrouble(
                f"The database in {settings.DATA_DIR} cannot be written: {error}. Mend that, or name"
                " another folder with STILEBLADE_DATA."
            ) from error
        catalogue_in("en", "the server")  # so that the first visitor does not wait for it
        summaries = start_maker()
        backups = Daily(settings.DATA_DIR)
        backups.start()
        try:
            listening: dict[int, Any] = {}
            server = create_server(
                application,
                map=listening,
                host=options["host"],
                port=options["port"],
                threads=THREADS,
                max_request_body_size=REFUSED_UNREAD,
                connection_limit=CONNECTIONS,
                channel_timeout=SILENT,
                cleanup_interval=5,
                asyncore_use_poll=True,  # or a thousand of them are too many to look at
                channel_request_lookahead=1,
                **(
                    {"trusted_proxy": "127.0.0.1", "trusted_proxy_headers": PROXY}
                    if settings.HTTPS
                    else {}
                ),
            )
        except OSError as error:
            self._without_port(options["port"], error)
        limit(listening, by_address=not settings.HTTPS)
        port = getattr(server, "effective_port", options["port"])
        self.stdout.write(f"Stileblade is at http://{options['host']}:{port}/  (Ctrl+C ends it)")
        if settings.DEMO:
            self.stdout.write("Visitors are signed in as the demo designer.")
        self.stdout.flush()
        try:
            server.run()
        finally:
            server.close()
            backups.end()
            summaries.end()
            RUNNER.end()
            end_pool()

    def _try_port(self, host: str, port: int) -> None:
        """Ends at once where the port is not free, before anything is prepared for it."""
        try:
            with socket.create_server((host, port), family=_family(host)):
                pass
        except OSError as error:
            self._without_port(port, error)

    def _without_port(self, port: int, error: OSError) -> NoReturn:
        self.stderr.write(
            f"Port {port} cannot be used: {error.strerror or error}. Choose another: make demo PORT=8124"
        )
        sys.exit(1)

    def _prepared(self) -> None:
        call_command("migrate", interactive=False, verbosity=0)
        call_command("clearsessions")
        if settings.DEMO:
            self.stdout.write("Preparing the demo data: some seconds, the first time.")
            self.stdout.flush()
            load_demo()


def _family(host: str) -> socket.AddressFamily:
    return socket.AF_INET6 if ":" in host else socket.AF_INET


def _end(signal_number: int, frame: FrameType | None) -> None:
    raise SystemExit(0)

"""Starts Stileblade: brings the database up to date and serves until SIGTERM or Ctrl+C."""

from __future__ import annotations

import signal
import sys
from argparse import ArgumentParser
from types import FrameType
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand
from waitress import create_server

from server.config.demo import load_demo
from server.config.wsgi import application
from stileblade.views.catalogue import catalogue


class Command(BaseCommand):
    help = __doc__ or ""

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("--host", default="127.0.0.1")
        parser.add_argument("--port", type=int, default=8123, help="0 takes a free one")

    def handle(self, *args: Any, **options: Any) -> None:
        signal.signal(signal.SIGTERM, _end)
        call_command("migrate", interactive=False, verbosity=0)
        if settings.DEMO:
            self.stdout.write("Preparing the demo data: some seconds, the first time.")
            self.stdout.flush()
            load_demo()
        catalogue()  # so that the first visitor does not wait for it
        try:
            server = create_server(
                application,
                host=options["host"],
                port=options["port"],
                threads=8,
                max_request_body_size=64_000_000,
            )
        except OSError as error:
            self.stderr.write(
                f"Port {options['port']} cannot be used: {error.strerror}. "
                "Choose another: make demo PORT=8124"
            )
            sys.exit(1)
        port = getattr(server, "effective_port", options["port"])
        self.stdout.write(f"Stileblade is at http://{options['host']}:{port}/  (Ctrl+C ends it)")
        if settings.DEMO:
            self.stdout.write("Visitors are signed in as the demo designer.")
        self.stdout.flush()
        try:
            server.run()
        finally:
            server.close()


def _end(signal_number: int, frame: FrameType | None) -> None:
    raise SystemExit(0)

"""Django's command line."""

import os
import sys

if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.config.settings")
    from django.core.management import execute_from_command_line

    from server.config.data import DataTrouble

    try:
        execute_from_command_line(sys.argv)
    except DataTrouble as trouble:
        print(trouble, file=sys.stderr)
        sys.exit(2)

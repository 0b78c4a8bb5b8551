"""What a file format is: one format, one file, which says its own title, what it holds, its ending and media type."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from stileblade.errors import StilebladeError
from stileblade.formats.options import FileOptions
from stileblade.formats.plan import Plan
from stileblade.registry import Registry, import_all
from stileblade.unexpected import SORRY, logger
from stileblade.words import say

Writer = Callable[[Plan, FileOptions], bytes]


@dataclass(frozen=True)
class Format:
    """A way to write a plan as a file. ``extension`` is its key, without a dot; ``speaks`` says whether
    words can be written into it, as what the checks found; ``runs``, whether it holds each run of the
    tool, so that what a paper wants cut twice is in it twice."""

    extension: str
    title: str
    about: str
    media_type: str
    writer: Writer
    speaks: bool = True
    runs: bool = False

    def write(self, plan: Plan, options: FileOptions | None = None) -> bytes:
        """The file's content. StilebladeError where it cannot be written."""
        try:
            return self.writer(plan, options or FileOptions())
        except StilebladeError:
            raise
        except Exception as error:
            logger.exception("%s could not be written", self.title)
            raise StilebladeError(
                say("The file could not be written as {title}.", title=self.title),
                hint=SORRY,
                code="format",
            ) from error


FORMATS: Registry[Format] = Registry("format")


def register_format(
    extension: str,
    *,
    title: str,
    about: str,
    media_type: str,
    speaks: bool = True,
    runs: bool = False,
) -> Callable[[Writer], Writer]:
    """A decorator for the function that writes the format."""

    def register(write: Writer) -> Writer:
        form = Format(extension, title, about, media_type, write, speaks, runs)
        FORMATS.add(extension, form)
        return write

    return register


def formats() -> Registry[Format]:
    """All file formats by their endings."""
    import_all("stileblade.formats")
    return FORMATS

"""The errors of the core.

    StilebladeError            a code, a message, a hint
      GeometryError            an outline that cannot be computed with
      ReadingError             a file that cannot be read
      DocumentError            a design document that is wrong or from a later version
      StepError                a build step that does not apply, with the field at fault
      UnknownKind              a name that no registry holds; lists the known ones
      MeasureError             text that is no length

A *finding* about somebody's card is not an error: see ``stileblade.checks``.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable

from stileblade import words


class StilebladeError(Exception):
    """Root of all errors of ours: ``code`` for programs, ``message`` and ``hint`` for people."""

    code = "error"

    def __init__(self, message: str, *, hint: str = "", code: str | None = None) -> None:
        self.message, self.hint = words.say(message), words.say(hint)
        super().__init__(self.message)
        if code is not None:
            self.code = code

    def __str__(self) -> str:
        return f"{self.message} {self.hint}".strip()


class GeometryError(StilebladeError):
    code = "geometry"


class ReadingError(StilebladeError):
    code = "reading"


class DocumentError(StilebladeError):
    code = "document"

    def __init__(self, message: str, *, hint: str = "", where: str = "") -> None:
        super().__init__(message, hint=hint)
        self.where = where


class MeasureError(StilebladeError):
    code = "measure"


class StepError(StilebladeError):
    """A step cannot do what its values ask for; ``field`` names the value to change."""

    code = "step"

    def __init__(
        self,
        message: str,
        *lengths: float,
        hint: str = "",
        field: str = "",
        would_do: float | None = None,
    ) -> None:
        """``{}`` in message and hint stand for ``lengths`` in mm, the message's first."""
        self._templates, self._lengths = (message, hint), lengths
        self.field = field
        self.would_do = would_do
        # as units.format_length has it, which stands above this module
        message, hint = self.said(
            lambda mm: words.decimal(f"{mm + 1e-9:.2f}".rstrip("0").rstrip(".")) + " mm"
        )
        super().__init__(message, hint=hint)

    def said(self, say: Callable[[float], str]) -> tuple[str, str]:
        """Message and hint with their lengths written by ``say``."""
        message, hint = map(words.say, self._templates)
        if not self._lengths:
            return message, hint
        lengths = [say(mm) for mm in self._lengths]
        used = message.count("{}")
        return message.format(*lengths), hint.format(*lengths[used:])


class UnknownKind(StilebladeError):
    code = "unknown-kind"

    def __init__(self, what: str, name: str, known: Iterable[str]) -> None:
        super().__init__(
            words.say("{what}={name!r} is not known.", what=what, name=name),
            hint=words.say("Known are: {list}.", list=", ".join(sorted(known))),
        )

"""All kinds of steps as one discriminated union, for documents and their schema."""

from __future__ import annotations

from functools import reduce
from operator import or_
from typing import TYPE_CHECKING, Annotated, Any

from pydantic import Field

from stileblade.build.step import STEPS, Step
from stileblade.registry import import_all

import_all("stileblade.build.steps")

if TYPE_CHECKING:
    AnyStep = Step
else:
    _members: Any = reduce(or_, STEPS)
    AnyStep = Annotated[_members, Field(discriminator="kind")]

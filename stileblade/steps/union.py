"""All kinds of steps as one discriminated union, for documents and their schema."""

from __future__ import annotations

from functools import reduce
from operator import or_
from typing import TYPE_CHECKING, Annotated, Any

from pydantic import Field

from stileblade.registry import import_all
from stileblade.steps.step import STEPS, Step

import_all("stileblade.steps.kinds")

if TYPE_CHECKING:
    AnyStep = Step
else:
    _members: Any = reduce(or_, STEPS)
    AnyStep = Annotated[_members, Field(discriminator="kind")]

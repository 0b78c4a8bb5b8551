"""Designs: list, open, save, copy, rename, template, bin."""

from __future__ import annotations

import json
from datetime import datetime
from typing import Annotated, Any

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from django.http.response import HttpResponseBase
from ninja import Router
from pydantic import AfterValidator, BaseModel, Field

from server.accounts.people import signed_in
from server.computing.asking import named
from server.computing.wishes import Document, Number
from server.designs import actions
from server.designs.models import Design, Revision, read_row
from server.designs.summary import (
    is_there,
    summary_of,
    summary_of_version,
    with_summaries,
    without_pictures,
)
from stileblade.design.document import Design as Kept
from stileblade.fields import PlainText
from stileblade.formats.files import zipped
from stileblade.views.summary import Summary
from stileblade.words import say

router = Router(tags=["designs"])
MOST_REVISIONS = 2**31 - 1
MOST_CHOSEN = 500
Name = Annotated[PlainText, Field(min_length=1, max_length=120)]


class DesignEntry(BaseModel):
    id: int
    name: str
    revision: int
    template: bool
    binned: bool
    folder: str
    modified: datetime
    summary: Summary
    waiting: bool
    """Whether the summary is still being made."""


class OpenDesign(BaseModel):
    id: int
    revision: int
    modified: datetime
    document: Document


class NewDesign(BaseModel):
    document: Document


class SaveDesign(BaseModel):
    document: Document
    revision: int = Field(ge=0, le=MOST_REVISIONS)


class Saved(BaseModel):
    id: int
    revision: int
    modified: datetime


class DesignMarks(BaseModel):
    template: bool | None = None
    binned: bool | None = None
    folder: Annotated[PlainText, Field(max_length=60)] | None = None
    """"" takes it out of its folder."""


class DesignChange(DesignMarks):
    name: Name | None = None


class Several(BaseModel):
    """Designs that are chosen together, each once."""

    designs: Annotated[
        list[Number], AfterValidator(lambda numbers: list(dict.fromkeys(numbers)))
    ] = Field(min_length=1, max_length=MOST_CHOSEN)


class SeveralMarked(Several):
    marks: DesignMarks


class SeveralCopied(Several):
    as_template: bool = False


class Done(BaseModel):
    count: int


class Version(BaseModel):
    """An earlier version of a design, or one that was refused because another came first."""

    kept: int
    number: int
    saved: datetime
    refused: bool
    name: str


class NamedVersion(BaseModel):
    """``name`` is empty to give one up."""

    name: Annotated[PlainText, Field(max_length=120)]


class KeptVersion(BaseModel):
    document: Document


def _entry(design: Design, *, drawn: bool = True) -> dict[str, Any]:
    """What ``DesignEntry`` says; one that is not ``drawn`` waits for its picture. Summaries were validated when
    they were made: of hundreds that would take longer than all the rest of the list."""
    return {
        "id": design.pk,
        "name": design.name,
        "revision": design.revision,
        "template": design.template,
        "binned": design.binned,
        "folder": design.folder,
        "modified": design.modified.isoformat(),
        "summary": _said(summary_of(design)),
        "waiting": not drawn or not is_there(design),
    }


def _said(summary: dict[str, Any]) -> dict[str, Any]:
    """A kept summary in the language that is spoken."""
    problem = " ".join(map(say, summary["problem"].splitlines()))
    return {**summary, "way": say(summary["way"]), "problem": problem}


def _version(row: Revision) -> Version:
    return Version(
        kept=row.pk, number=row.number, saved=row.saved, refused=row.conflicting, name=row.name
    )


def _saved(design: Design) -> Saved:
    return Saved(id=design.pk, revision=design.revision, modified=design.modified)


@router.get("/design-schema")
def design_schema(request: HttpRequest) -> HttpResponse:
    """The JSON Schema of a design as a file."""
    schema = {"$schema": "https://json-schema.org/draft/2020-12/schema", **Kept.model_json_schema()}
    return HttpResponse(json.dumps(schema), content_type="application/schema+json")


@router.get("/designs", response=list[DesignEntry])
def list_designs(
    request: HttpRequest, binned: bool = False, templates: bool = False, drawn: Number | None = None
) -> HttpResponse:
    """All designs that are not in the bin, or all that are; the templates among them alone. ``drawn``: how many of
    them have their pictures; the others wait for theirs."""
    rows = Design.objects.filter(owner=signed_in(request), binned=binned).defer("document")
    if templates:
        rows = rows.filter(template=True)
    listed = [_entry(d) for d in with_summaries(list(rows[:drawn]))]
    if drawn is not None:
        listed += [_entry(d, drawn=False) for d in without_pictures(rows, drawn)]
    return HttpResponse(json.dumps(listed), content_type="application/json")


@router.post("/designs/several/mark", response=Done)
def mark_several(request: HttpRequest, wish: SeveralMarked) -> Done:
    """Templates, bin or folder for all that are chosen, or for none."""
    actions.mark_several(signed_in(request), wish.designs, **wish.marks.model_dump())
    return Done(count=len(wish.designs))


@router.post("/designs/several/copy", response=Done)
def copy_several(request: HttpRequest, wish: SeveralCopied) -> Done:
    actions.copy_several(signed_in(request), wish.designs, as_template=wish.as_template)
    return Done(count=len(wish.designs))


@router.post("/designs/several/files")
def several_as_files(request: HttpRequest, wish: Several) -> HttpResponseBase:
    """The designs themselves as files, in a ZIP where there are several, sent as they are read."""
    files = actions.as_files(signed_in(request), wish.designs)
    if len(wish.designs) == 1:
        (name, content), *_ = files
        return named(HttpResponse(content, content_type="application/json"), name)
    stream = StreamingHttpResponse(zipped(files), content_type="application/zip")
    return named(stream, "designs.zip")


@router.post("/designs", response=Saved)
def create_design(request: HttpRequest, new: NewDesign) -> Saved:
    return _saved(actions.create(signed_in(request), new.document))


@router.get("/designs/{number}", response=OpenDesign)
def open_design(request: HttpRequest, number: Number) -> OpenDesign:
    design = actions.own(signed_in(request), number)
    return OpenDesign(
        id=design.pk,
        revision=design.revision,
        modified=design.modified,
        document=read_row(design.document),
    )


@router.put("/designs/{number}", response=Saved)
def save_design(request: HttpRequest, number: Number, save: SaveDesign) -> Saved:
    return _saved(actions.save(signed_in(request), number, save.document, save.revision))


@router.patch("/designs/{number}", response=DesignEntry)
def change_design(request: HttpRequest, number: Number, change: DesignChange) -> dict[str, Any]:
    user = signed_in(request)
    if change.name is not None:
        actions.rename(user, number, change.name)
    marked = actions.mark(user, number, **change.model_dump(exclude={"name"}))
    return _entry(with_summaries([marked])[0])


@router.post("/designs/{number}/copy", response=Saved)
def copy_design(
    request: HttpRequest, number: Number, from_template: bool = False, as_template: bool = False
) -> Saved:
    user = signed_in(request)
    made = actions.duplicate(user, number, from_template=from_template, as_template=as_template)
    return _saved(made)


@router.delete("/designs/{number}", response=Saved)
def delete_design(request: HttpRequest, number: Number) -> Saved:
    user = signed_in(request)
    design = actions.own(user, number)
    saved = _saved(design)
    actions.remove(user, number)
    return saved


@router.get("/designs/{number}/summary", response=Summary)
def design_summary(request: HttpRequest, number: Number) -> Summary:
    """How the design looks as it was last saved."""
    design = actions.own(signed_in(request), number)
    return Summary.model_validate(_said(summary_of(with_summaries([design])[0])))


@router.get("/designs/{number}/versions", response=list[Version])
def list_versions(request: HttpRequest, number: Number) -> list[Version]:
    """The design's history, the newest first."""
    rows = actions.own(signed_in(request), number).revisions.defer("document", "summary")
    return [_version(row) for row in rows]


@router.get("/designs/{number}/versions/{kept}", response=KeptVersion)
def kept_version(request: HttpRequest, number: Number, kept: Number) -> KeptVersion:
    row = actions.version(signed_in(request), number, kept)
    return KeptVersion(document=read_row(row.document))


@router.get("/designs/{number}/versions/{kept}/summary", response=Summary)
def version_summary(request: HttpRequest, number: Number, kept: Number) -> Summary:
    """How a version looks; computed when it is first asked for."""
    summary = summary_of_version(actions.version(signed_in(request), number, kept))
    return Summary.model_validate(_said(summary))


@router.patch("/designs/{number}/versions/{kept}", response=Version)
def name_version(
    request: HttpRequest, number: Number, kept: Number, change: NamedVersion
) -> Version:
    return _version(actions.name_version(signed_in(request), number, kept, change.name))


@router.post("/designs/{number}/versions/{kept}/design", response=Saved)
def design_of_version(request: HttpRequest, number: Number, kept: Number) -> Saved:
    """A design of its own, made of a version."""
    return _saved(actions.from_version(signed_in(request), number, kept))

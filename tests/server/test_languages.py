"""The language of answers: chosen in the browser, or else what it asks for; English is what is kept."""

from __future__ import annotations

from typing import Any

from server.designs.models import Design
from server.jobs.tasks import perform
from stileblade.unexpected import SORRY
from stileblade.views.summary import unseen
from stileblade.words import say, speaking, spoken
from tests.conftest import design_of
from tests.server.conftest import Api


def test_the_chosen_language_comes_before_what_the_browser_asks_for(designer: Api) -> None:
    def missing(asked: str = "") -> str:
        return str(designer("GET", "/designs/999999", HTTP_ACCEPT_LANGUAGE=asked)[1]["title"])

    assert missing() == "There is no such thing here, or it is not yours."
    german = "So etwas gibt es hier nicht, oder es gehört jemand anderem."
    assert missing("de-AT,de;q=0.9,en;q=0.5") == german
    assert designer.last["Content-Language"] == "de"
    assert missing("fr") == missing()
    designer.client.cookies["language"] = "en"
    assert missing("de") != german
    designer.client.cookies["language"] = "de"
    assert missing("en") == german
    designer.client.cookies["language"] = "xx" * 200
    assert missing() != german
    assert spoken() == "en", "a request leaves nothing behind"


def test_what_can_be_built_and_a_wrong_document(designer: Api) -> None:
    designer.client.cookies["language"] = "de"
    steps = designer("GET", "/catalogue")[1]["steps"]
    assert {"Fenster", "Spiegeln", "Ecken runden"} <= {s["title"] for s in steps}
    status, said = designer("POST", "/evaluate", {"document": {"format": "x"}, "piece": "base"})
    assert (status, said["title"]) == (422, "format=„x“: das ist kein Stileblade-Entwurf.")


def test_what_could_not_be_done_is_remembered_for_each_language(designer: Api) -> None:
    """One person's German leaves another's English as it is."""
    window = {"kind": "window", "id": "w", "target": "nowhere"}
    design = design_of({"kind": "blank", "id": "a"}, window).model_dump(mode="json")

    def problems(language: str) -> list[str]:
        designer.client.cookies["language"] = language
        seen: Any = designer("POST", "/evaluate", {"document": design, "piece": "base"})[1]
        return [s["problem"]["message"] for s in seen["rest"]["strip"] if s["problem"]]

    english = ["There is no panel 'nowhere'."]
    assert problems("en") == english
    assert problems("de") == ["Es gibt kein Feld „nowhere“."]
    assert problems("en") == english


def test_kept_summaries_are_english_and_said_to_whoever_looks(
    designer: Api, blank: dict[str, Any]
) -> None:
    made = designer("POST", "/designs", {"document": blank})[1]
    designer.client.cookies["language"] = "de"
    assert designer("GET", f"/designs/{made['id']}/summary")[1]["way"] == "Seitenfalz"
    assert [e["summary"]["way"] for e in designer("GET", "/designs")[1]] == ["Seitenfalz"]
    assert Design.objects.get(pk=made["id"]).summary["way"] == "Side fold"


def test_a_new_shelf_and_a_copy_are_named_in_the_language_of_their_owner(
    designer: Api, blank: dict[str, Any]
) -> None:
    designer.client.cookies["language"] = "de"
    assert {"Hafenblau", "Ziegel"} <= {p["paper"]["name"] for p in designer("GET", "/papers")[1]}
    made = designer("POST", "/designs", {"document": {**blank, "name": "Wal"}})[1]
    designer("POST", "/designs/several/copy", {"designs": [made["id"]], "as_template": False})
    assert "Wal Kopie" in {e["name"] for e in designer("GET", "/designs")[1]}


def test_why_a_design_is_not_shown_is_said_to_whoever_looks(
    designer: Api, blank: dict[str, Any]
) -> None:
    made = designer("POST", "/designs", {"document": blank})[1]
    why = unseen("The design could not be computed.", SORRY).model_dump(mode="json")
    Design.objects.filter(pk=made["id"]).update(summary=why, summary_revision=made["revision"])
    designer.client.cookies["language"] = "de"
    german = (
        "Der Entwurf konnte nicht berechnet werden. "
        "Das ist ein Fehler des Programms selbst und ist vermerkt."
    )
    assert designer("GET", f"/designs/{made['id']}/summary")[1]["problem"] == german
    assert [e["summary"]["problem"] for e in designer("GET", "/designs")[1]] == [german]


def test_what_goes_wrong_in_a_run_is_said_in_the_language_of_who_began_it() -> None:
    asked = {"language": "de", "options": {}, "designs": [], "machine": {}}
    assert perform("lay", asked, b"", lambda share, said: True)["said"] == (
        "In diesem Auftrag ist kein Stück aus Papier."
    )
    broken = perform("lay", {"language": "de"}, b"", lambda share, said: True)
    with speaking("de"):
        assert say(broken["hint"]).endswith("Nichts ging verloren.")

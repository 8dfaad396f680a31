"""Preferences of a person, kept as JSON in freedesktop's folder for settings."""

from __future__ import annotations

import contextlib
import json
import pathlib
from typing import Any, Literal

import platformdirs
from pydantic import Field, ValidationError
from PyQt6.QtCore import QObject, pyqtSignal

from ..errors import Trouble
from ..files import write_text
from ..names import ScopeKind, ScopeOf
from ..project.fields import number
from ..project.model import Colour, Frozen
from ..project.storage import read_json
from .background.guard import guarded
from .speech import Speech

Arrangement = Literal["twin", "inset", "single"]
Surround = Literal["dark", "mid", "light"]
Theme = Literal["dark", "light", "contrast"]
#: The language of the window; "" for that of the system. It is read before anything else
#: (`desk.translations`).
Language = Literal["", "en", "de"]


#: How many files are remembered.
LONGEST = 12


class Preferences(Frozen):
    """Settings of the window; none of them changes a picture."""

    surround: Surround = "dark"
    theme: Theme = "dark"
    language: Language = ""
    text_size: float = number(
        100, 100, 200, "Text size", "%", step=10, help="At 200 % letters are twice as large."
    )
    veil_colour: Colour | None = None
    veil_opacity: float = number(60, 5, 100, "Veil opacity", "%", help="How much the veil covers")
    arrangement: Arrangement = "twin"
    panels: bool = True
    panels_state: str = Field(
        default="",
        max_length=100_000,
        description="how the panels stand, as Qt keeps it, in base 64",
    )
    last_export: dict[str, str] = Field(
        default={},
        max_length=4,
        description="what was chosen of the last export of a still or clip, as JSON",
    )
    place: str = Field(
        default="",
        max_length=10_000,
        description="size and place of the window, as Qt keeps it, in base 64",
    )
    folded: dict[str, bool] = Field(
        default={},
        max_length=200,
        description="which groups of controls are folded, by page and group",
    )
    marks: bool = True
    surfaces: bool = True
    offers: bool = True
    inset_share: float = number(
        30, 12, 60, "Inset width", "%", help="Width of the inset mask, of the picture's pane"
    )
    inset_x: float = number(
        100, 0, 100, "Inset place", "%", help="Where the inset lies from left (0) to right (100)"
    )
    inset_y: float = number(
        100, 0, 100, "Inset height", "%", help="Where the inset lies from top (0) to bottom (100)"
    )
    cache_megabytes: float = number(
        800,
        100,
        16_000,
        "Cache",
        "MB",
        step=100,
        help=(
            "Memory for finished stages and pictures that stay open behind, so that changes show "
            "at once"
        ),
    )
    control_surface: bool = False
    control_surface_port: float = number(
        9010, 1024, 65535, "Port", help="Where control surfaces on this machine are listened to."
    )
    recent: tuple[str, ...] = Field(
        default=(), max_length=LONGEST, description="what was opened, the newest first"
    )
    exported: tuple[str, ...] = Field(
        default=(), max_length=LONGEST, description="what was exported, the newest first"
    )
    scopes: tuple[tuple[ScopeKind, ScopeOf], ...] = Field(
        default=(), max_length=8, description="the scopes that are seen, and of what"
    )
    batch_folder: str = Field(default="", max_length=4096, description="where a batch writes")
    screen_profile: str = Field(
        default="", max_length=4096, description="ICC profile of the screen"
    )


def preferences_file() -> pathlib.Path:
    """Return where they are kept."""
    return pathlib.Path(platformdirs.user_config_dir("amber-sieve")) / "preferences.json"


def load() -> Preferences:
    """The kept preferences; where there are none, or damaged ones, those that ship.

    What an older or newer version kept and this one does not know is left out; the rest stays.
    """
    try:
        held = read_json(preferences_file(), "preferences")
    except Trouble:
        return Preferences()
    return (
        _valid(held)
        or _valid({name: value for name, value in held.items() if _valid({name: value})})
        or Preferences()
    )


def _valid(held: dict[str, Any]) -> Preferences | None:
    """Preferences of some values, None where one of them does not fit."""
    try:
        return Preferences.model_validate_json(json.dumps(held))
    except ValidationError:
        return None


def save(preferences: Preferences) -> None:
    """Keep preferences; raises `Trouble` when that fails."""
    path = preferences_file()
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise Trouble(
            f"The preferences could not be kept in {path.parent} ({error.strerror}): check its "
            "permissions."
        ) from None
    write_text(path, preferences.model_dump_json(indent=1) + "\n")


@guarded
class PreferenceStore(QObject):
    """The preferences as they are now; `changed` when they are others."""

    changed = pyqtSignal()

    def __init__(self, speech: Speech) -> None:
        super().__init__()
        self.speech = speech
        self.values = load()

    def change(self, **changes: object) -> None:
        """Use other preferences from now on, and keep them."""
        changed = self.values.but(**changes)
        if changed != self.values:
            self.values = changed
            self.changed.emit()
            save(changed)

    def remember(self, path: pathlib.Path, among: Literal["recent", "exported"] = "recent") -> None:
        """Keep what was opened, or exported, among the recent files; that it could not be kept
        need not stop anybody.
        """
        name, held = str(path.absolute()), getattr(self.values, among)
        recent = (name, *(other for other in held if other != name))[:LONGEST]
        self.values = self.values.but(**{among: recent})
        with contextlib.suppress(Trouble):
            save(self.values)

"""Chooses the language of the window: the person's own, or that of the system.

Called before anything else of the program is imported, since text is translated where it stands,
much of it at import.
"""

from __future__ import annotations

import json
import pathlib
from typing import Any

import platformdirs
from PyQt6.QtCore import QLibraryInfo, QLocale, QTranslator

from ..language import speak

HERE = pathlib.Path(__file__).parent / "languages"
#: The languages there are, and what each calls itself.
LANGUAGES = {"en": "English", "de": "Deutsch"}


def preferred() -> str:
    """The language that is set in the preferences, "" for that of the system."""
    try:
        kept = json.loads(
            (
                pathlib.Path(platformdirs.user_config_dir("amber-sieve")) / "preferences.json"
            ).read_text()
        )
        return str(kept.get("language", ""))
    except (OSError, ValueError, AttributeError):
        return ""  # `workspace.preferences` says what is wrong with them


def translator(language: str, path: str, name: str) -> QTranslator | None:
    """The translations of a file, None where there is none."""
    found = QTranslator()
    return found if found.load(QLocale(language), name, "_", path) else None


def choose(language: str = "") -> list[QTranslator]:
    """Speak a language, or what is preferred; returns what the application must install so that
    Qt's own dialogs speak it too.
    """
    wanted = language or preferred() or QLocale.system().name()[:2]
    own = translator(wanted, str(HERE), "amber") if wanted in LANGUAGES and wanted != "en" else None
    if own is None:
        speak(None)
        return []
    locale = QLocale(wanted)
    QLocale.setDefault(locale)

    ask: Any = own.translate  # Qt takes UTF-8 here, PyQt turns a str into ASCII

    def translates(context: str, text: str, singular: str, n: int) -> str:
        return str(ask(context.encode(), text.encode(), singular.encode(), n) or "")

    speak(translates, locale.decimalPoint())
    qt = translator(wanted, QLibraryInfo.path(QLibraryInfo.LibraryPath.TranslationsPath), "qtbase")
    return [one for one in (own, qt) if one is not None]

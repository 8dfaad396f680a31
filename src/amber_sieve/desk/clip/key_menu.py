"""Commands for the keyframes of a field at the frame that is shown."""

from __future__ import annotations

from PyQt6.QtWidgets import QMenu

from ...language import translator
from ...names import BETWEENS
from ...project.tracks import keyed
from ...workspace.clip.clip import ClipController
from ...workspace.document.work import Work

translate = translator("clip")


def fill_key_menu(menu: QMenu, work: Work, clip: ClipController, path: str) -> None:
    """Keyframes of a field, by its way through the sieve."""
    track = keyed(work.document.sieve, path)
    here = next((key for key in track.keys if key.frame == work.number), None) if track else None
    for how in BETWEENS:
        action = menu.addAction(translate("Add keyframe, {how}", how=how))
        assert action is not None
        action.setCheckable(True)
        action.setChecked(here is not None and here.how == how)
        action.triggered.connect(lambda _, how=how: clip.set_key(path, how))
    menu.addSeparator()
    for title, everywhere, allowed in (
        (translate("Delete keyframe"), False, here is not None),
        (translate("Delete all keyframes"), True, track is not None),
    ):
        action = menu.addAction(title)
        assert action is not None
        action.setEnabled(allowed)
        action.triggered.connect(lambda _, everywhere=everywhere: clip.remove_key(path, everywhere))

"""After a crash: what was not saved is offered whole, stays until it is restored or discarded, and
little of it is lost.
"""

import json
import os
import pathlib
import signal
import subprocess
import sys
import time
import unittest
from unittest import mock

import numpy as np
from common import ROOT, FolderCase, WindowCase
from PIL import Image
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QMessageBox

from amber_sieve.desk.dialogs.unsaved_dialog import UnsavedDialog
from amber_sieve.project import open_tray, recovery, storage
from amber_sieve.project.model import Adjust, Light, Project, Sieve
from amber_sieve.workspace import preferences as kept
from amber_sieve.workspace.document.document import KEEP_AFTER


class ElevenTest(WindowCase):
    """Eleven pictures with unsaved work, whose program was killed."""

    def setUp(self):
        super().setUp()
        for left in recovery.left_behind():
            recovery.discard(left)
        self.paths = []
        for number in range(11):
            path = self.folder / f"{number}.png"
            Image.fromarray(np.full((24, 32, 3), 10 * number, np.uint8)).save(path)
            self.paths.append(path)
            project = Project(
                source=str(path),
                stack=(Sieve(name=f"Work {number}", adjust=Adjust(light=Light(exposure=1.0))),),
            )
            keeper = recovery.Recovery()
            keeper.keep(project, path.name, None)
            held = json.loads(keeper._file.read_text())
            held["owner"] = {"process": 2**22 + 1, "started": "never"}  # no such process
            held["when"] = time.time() - number
            keeper._file.write_text(json.dumps(held))
        self.addCleanup(lambda: [recovery.discard(left) for left in recovery.left_behind()])

    def dialog(self) -> UnsavedDialog:
        found = [one for one in self.window.findChildren(UnsavedDialog) if one.isVisible()]
        self.assertEqual(len(found), 1)
        return found[0]

    def sieves(self) -> dict[str, str]:
        return {
            pathlib.Path(entry.source).name: entry.document.sieve.name
            for entry in self.workspace.tray.entries
        }

    def test_all_are_ticked_and_restored_together_in_place_of_the_untouched_ones(self):
        self.workspace.pictures.open_many(self.paths)  # as the tray of the last time is put back
        self.settle()
        self.window.files.offer_unsaved()
        dialog = self.dialog()
        self.assertEqual((dialog.list.count(), len(dialog.ticked)), (11, 11))
        self.assertIn("0.png", dialog.list.item(0).text())
        self.assertIn("(11)", dialog.restore.text())
        self.wait(
            lambda: (
                dialog.list.item(10).icon().pixmap(24, 18).toImage().pixelColor(12, 9).red() > 90
            )
        )  # its picture's grey is 100
        dialog.restore.click()
        self.settle()
        self.assertEqual(self.sieves(), {f"{number}.png": f"Work {number}" for number in range(11)})
        self.assertEqual(len(self.workspace.saving.unsaved), 11)
        self.assertEqual(self.work.sieve.adjust.light.exposure, 1.0)
        self.assertFalse(self.window.menus.actions["unsaved"].isEnabled())
        self.assertEqual(self.workspace.unsaved.found, ())
        # Killed again at once, nothing would be lost: all of it is kept anew.
        mine = [json.loads(file.read_text()) for file in recovery.recovery_folder().glob("*.json")]
        self.assertEqual(sum(held["owner"]["process"] == os.getpid() for held in mine), 11)
        self.assertEqual(self.troubles, [])

    def test_what_is_left_stays_on_the_file_menu_and_discarding_asks_once(self):
        self.window.files.offer_unsaved()
        dialog = self.dialog()
        for row in range(1, 11):
            dialog.list.item(row).setCheckState(Qt.CheckState.Unchecked)
        dialog.restore.click()
        self.settle()
        self.assertEqual(self.sieves(), {"0.png": "Work 0"})
        self.assertEqual(len(self.workspace.unsaved.found), 10)
        action = self.window.menus.actions["unsaved"]
        self.window.menus.menus["file"].aboutToShow.emit()
        self.assertTrue(action.isEnabled())
        action.trigger()
        dialog = self.dialog()
        self.assertEqual(dialog.list.count(), 10)
        for row in range(2, 10):
            dialog.list.item(row).setCheckState(Qt.CheckState.Unchecked)
        for answer, left in (
            (QMessageBox.StandardButton.No, 10),
            (QMessageBox.StandardButton.Yes, 8),
        ):
            with mock.patch(
                "amber_sieve.desk.dialogs.unsaved_dialog.QMessageBox.question", return_value=answer
            ) as asked:
                dialog.discard.click()
            self.assertEqual(asked.call_count, 1)
            self.assertEqual((dialog.list.count(), len(recovery.left_behind())), (left, left))
        dialog.later.click()
        self.assertEqual(len(self.workspace.unsaved.found), 8)
        self.assertEqual(len(recovery.left_behind()), 8, "the next start offers them again")

    def test_nothing_left_offers_nothing(self):
        for left in recovery.left_behind():
            recovery.discard(left)
        self.window.files.offer_unsaved()
        self.assertEqual(self.window.findChildren(UnsavedDialog), [])


class LossTest(FolderCase):
    #: Edits twenty times a second, as a person at a slider, and says each.
    EDITS = """
from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QApplication
from amber_sieve.desk import app
def change():
    for widget in app.application().topLevelWidgets():
        if hasattr(widget, "workspace") and widget.workspace.work.opened:
            number = len(said)
            work = widget.workspace.work
            work.set_field("adjust.light.exposure", number / 1000, "Exposure", group="drag")
            said.append(number)
            print(number, flush=True)
said = []
running = app.application()
timer = QTimer()
timer.timeout.connect(change)
timer.start(50)
app.main([{!r}])
"""

    def edited(self, seconds: float, number: int) -> tuple[int, int]:
        """Edit for so long, send a signal; returns the last step that was said, and the last that
        was kept.
        """
        picture = self.folder / "a.png"
        Image.fromarray(np.full((24, 32, 3), 90, np.uint8)).save(picture)
        environment = os.environ | {"PYTHONPATH": str(ROOT / "src"), "QT_QPA_PLATFORM": "offscreen"}
        child = subprocess.Popen(
            [sys.executable, "-c", self.EDITS.format(str(picture))],
            stdout=subprocess.PIPE,
            text=True,
            env=environment,
        )
        child.stdout.readline()
        time.sleep(seconds)
        child.send_signal(number)
        said = child.stdout.read().split()
        child.wait(30)
        child.stdout.close()
        [left] = [one for one in recovery.left_behind() if one.project.source == str(picture)]
        recovery.discard(left)
        return int(said[-1]), round(1000 * left.project.stack[0].adjust.light.exposure)

    def test_a_kill_in_a_long_drag_costs_less_than_two_seconds(self):
        said, kept_step = self.edited(3 * KEEP_AFTER, signal.SIGKILL)
        print(f"\n    killed: {(said - kept_step) / 20:.2f} s of a drag lost")
        self.assertLess((said - kept_step) / 20, 2.0)

    def test_a_request_to_end_costs_nothing(self):
        said, kept_step = self.edited(0.6, signal.SIGTERM)
        self.assertEqual(said, kept_step)


class GoneTest(WindowCase):
    def last_time(self, *rows: open_tray.Row) -> None:
        """As if a window that no longer runs had left these."""
        with (
            mock.patch.object(open_tray.os, "getpid", return_value=2**22 + 1),
            mock.patch.object(open_tray, "start_of", return_value="never"),
        ):
            open_tray.note(open_tray.OpenTray(rows, 0))

    def test_what_has_gone_is_said_once_in_the_window_and_can_be_removed(self):
        there, gone = self.folder / "there.png", self.folder / "gone.png"
        Image.new("RGB", (32, 24), (90, 20, 10)).save(there)
        storage.save(Project(source=str(there)), self.folder / "moved.sieve")
        lost = self.folder / "lost.sieve"  # as of a temporary folder
        rows = (
            open_tray.Row(str(gone)),
            open_tray.Row(str(there)),
            open_tray.Row(str(there), str(lost)),
        )
        self.last_time(*rows)
        asked = []
        self.workspace.pictures.missing.connect(asked.append)
        self.assertTrue(self.workspace.last_tray.restore())
        self.settle()
        self.assertEqual((self.work.project.source, asked, self.troubles), (str(there), [], []))
        notice = self.window.notices.gone
        self.assertTrue(notice.isVisible())
        self.assertIn(
            "2 pictures of the tray are not where they were: gone.png, lost.sieve",
            notice.words.text(),
        )
        self.assertEqual(len(self.workspace.tray.entries), 3)
        notice.button.click()
        self.settle()
        self.assertFalse(notice.isVisible())
        self.assertEqual([entry.source for entry in self.workspace.tray.entries], [str(there)])
        self.assertEqual([row.source for row in self.workspace.tray.noted.rows], [str(there)])

    def test_when_all_has_gone_the_window_stays_empty_and_says_so(self):
        self.last_time(open_tray.Row(str(self.folder / "gone.png")))
        self.workspace.last_tray.restore()
        self.settle()
        self.assertIsNone(self.work.opened)
        self.assertIn("gone.png is not where it was", self.window.notices.gone.words.text())
        self.window.notices.gone.button.click()
        self.settle()
        self.assertEqual([entry.source for entry in self.workspace.tray.entries], [""])
        self.assertEqual(self.troubles, [])


class OlderPreferencesTest(unittest.TestCase):
    def test_a_setting_that_is_gone_or_wrong_costs_itself_only(self):
        file = kept.preferences_file()
        file.parent.mkdir(parents=True, exist_ok=True)
        self.addCleanup(file.unlink)
        file.write_text(
            json.dumps(
                {"theme": "light", "autosave_seconds": 5.0, "text_size": 9000, "recent": ["/a.png"]}
            )
        )
        held = kept.load()
        self.assertEqual((held.theme, held.text_size, held.recent), ("light", 100, ("/a.png",)))


if __name__ == "__main__":
    unittest.main()

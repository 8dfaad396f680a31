"""The tray: several pictures open, each with its own stack or a shared one; kept for the next
start; found again; one window.
"""

import gc
import json
import os
import pathlib
import shutil
import socket
import subprocess
import sys
import time
import unittest
import weakref
from unittest import mock

import numpy as np
from common import DEMO, FolderCase, WindowCase
from PIL import Image
from PyQt6.QtCore import QMimeData, QPointF, Qt, QUrl
from PyQt6.QtGui import QCloseEvent, QDropEvent, QGuiApplication
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QMenu, QMessageBox

from amber_sieve.desk.app import application
from amber_sieve.desk.dialogs.batch_dialog import BatchDialog
from amber_sieve.desk.dialogs.sieve_presets_dialog import SievePresetsDialog
from amber_sieve.desk.panels.stack_menu import copy_sieve
from amber_sieve.desk.start import one_window
from amber_sieve.media.stills.thumbnails import SIDE, thumbnail
from amber_sieve.project import open_tray, sieve_presets, storage
from amber_sieve.project.finding import found_near
from amber_sieve.project.model import Project
from amber_sieve.project.recovery import Left, left_behind


class TrayTest(WindowCase):
    def setUp(self):
        super().setUp()
        for number, box in enumerate(
            ((600, 600, 1000, 900), (100, 300, 500, 600), (1000, 200, 1400, 500))
        ):
            Image.open(DEMO / "yard.png").crop(box).save(self.folder / f"{'abc'[number]}.png")
        self.names = [self.folder / f"{name}.png" for name in "abc"]

    def open_all(self):
        self.workspace.pictures.open_many(self.names)
        self.settle()
        return self.workspace.tray.entries

    def test_each_picture_keeps_its_own_work_history_and_zoom_of_nobody_else(self):
        a, b, c = self.open_all()
        self.assertTrue(self.window.tray.isVisible())
        self.assertEqual(self.window.tray.count(), 3)
        self.click(140, 200)
        work = self.work.project
        QTest.mouseClick(
            self.window.tray.viewport(),
            Qt.MouseButton.LeftButton,
            pos=self.window.tray.visualItemRect(self.window.tray.item(1)).center(),
        )
        self.settle()
        self.assertIs(self.workspace.tray.current, b)
        self.assertEqual(
            self.work.project, Project(source=str(self.names[1])).but(stack=self.work.project.stack)
        )
        self.work.set_field("adjust.light.exposure", 1.0, "Exposure")
        self.settle()
        self.workspace.pictures.go_by(-1)
        self.settle()
        self.assertEqual(self.work.project, work)
        self.work.undo()
        self.assertEqual(self.work.sieve.pick.samples, ())
        self.assertIn("• b.png", self.window.tray.item(1).text())
        self.assertEqual([entry.name for entry in self.workspace.saving.unsaved], ["b.png"])
        self.assertEqual(max(c.thumbnail.shape), SIDE)

    def test_opening_what_is_open_shows_it_again(self):
        a, _, _ = self.open_all()
        self.click(140, 200)
        self.workspace.pictures.go_by(1)
        self.workspace.pictures.open(self.names[0])
        self.settle()
        self.assertIs(self.workspace.tray.current, a)
        self.assertEqual(len(self.work.sieve.pick.samples), 1)
        self.workspace.saving.start_over()
        self.assertEqual(self.work.sieve.pick.samples, ())
        self.work.undo()
        self.assertEqual(len(self.work.sieve.pick.samples), 1)

    def test_a_sieve_goes_to_all_chosen_with_tolerances_found_on_each(self):
        entries = self.open_all()
        self.click(140, 200)
        copy_sieve(self.workspace)
        tolerance = self.work.sieve.pick.samples[0].tolerance
        self.window.tray.selectAll()
        menu = QMenu()
        self.window.tray.fill_menu(menu)
        menu.actions()[1].trigger()
        self.settle()
        found = [entry.document.project.stack[-1].pick.samples[0].tolerance for entry in entries]
        self.assertEqual([len(entry.document.project.stack) for entry in entries], [2, 2, 2])
        self.assertEqual(
            len({sample.document.project.stack[-1].pick.samples[0].colour for sample in entries}), 1
        )
        self.assertGreater(len(set(found)), 1)
        self.assertIn(tolerance, (5.0, *found, tolerance))
        self.assertEqual(self.troubles, [])

    def test_a_stored_sieve_goes_to_all_chosen(self):
        entries = self.open_all()
        self.click(140, 200)
        self.workspace.presets.keep_sieve("Madder", b"")
        self.addCleanup(sieve_presets.STORE.remove, "Madder")
        self.window.tray.selectAll()
        menu = QMenu()
        self.window.tray.fill_menu(menu)
        presets = {action.text(): action for action in menu.actions()[-1].menu().actions()}
        presets["Madder"].trigger()
        self.settle()
        self.assertEqual([len(entry.document.project.stack) for entry in entries], [2, 2, 2])
        self.assertEqual(self.troubles, [])

    def test_a_shared_stack_follows(self):
        a, b, c = self.open_all()
        self.workspace.sharing.share([a, b], True)
        self.click(140, 200)
        self.workspace.pictures.go_by(1)
        self.settle()
        self.assertEqual(self.work.project.stack, a.document.project.stack)
        self.work.set_field("adjust.mono.mono", 100.0, "Grey")
        self.assertEqual(self.workspace.tray.project_of(a).stack, self.work.project.stack)
        self.workspace.pictures.go_to(c)
        self.settle()
        self.assertEqual(self.work.sieve.pick.samples, ())
        self.workspace.pictures.go_to(a)
        self.settle()
        self.assertEqual(self.work.sieve.adjust.mono.mono, 100.0)
        self.workspace.sharing.share([a], False)
        self.work.set_field("adjust.mono.mono", 0.0, "Grey")
        self.workspace.pictures.go_to(b)
        self.settle()
        self.assertEqual(self.work.sieve.adjust.mono.mono, 100.0)

    def test_what_was_open_comes_back(self):
        entries = self.open_all()
        self.workspace.sharing.share(entries[1:], True)
        self.workspace.saving.save(self.folder / "a.sieve")
        self.workspace.pictures.go_to(entries[2])
        self.settle()
        held = json.loads(open_tray.tray_file().read_text())["windows"]
        mine = next(one for one in held if one["process"] == os.getpid())
        self.assertEqual(
            [pathlib.Path(row["source"]).name for row in mine["entries"]],
            ["a.png", "b.png", "c.png"],
        )
        self.assertEqual(mine["current"], 2)
        self.workspace.pictures.close_all()
        open_tray.tray_file().write_text(
            json.dumps({"windows": [mine | {"started": "before this process"}]})
        )
        self.assertTrue(self.workspace.last_tray.restore())
        self.settle()
        self.assertEqual(
            [entry.name for entry in self.workspace.tray.entries], ["a.sieve", "b.png", "c.png"]
        )
        self.assertEqual(
            [entry.shared for entry in self.workspace.tray.entries], [False, True, True]
        )
        self.assertEqual(self.workspace.tray.current.name, "c.png")
        self.assertEqual(self.troubles, [])

    def test_unsaved_work_of_all_is_kept_and_saved_beside(self):
        entries = self.open_all()
        for entry in entries:
            entry.document.edit(lambda project: project.but(gamut="clip"), "Gamut")
        self.workspace.saving.keep_now()
        self.assertEqual(
            len(
                list(
                    (pathlib.Path(os.environ["XDG_STATE_HOME"]) / "amber-sieve" / "recovery").glob(
                        f"{os.getpid()}-*.json"
                    )
                )
            ),
            3,
        )
        self.assertEqual(left_behind(), [])  # this program still runs
        event = QCloseEvent()
        answers = {"question": mock.Mock(return_value=QMessageBox.StandardButton.SaveAll)}
        with (
            mock.patch.multiple("amber_sieve.desk.window.files.QMessageBox", **answers),
            mock.patch.object(self.workspace, "close"),
        ):
            self.window.closeEvent(event)
        self.assertTrue(event.isAccepted())
        self.assertEqual(
            [storage.load(self.folder / f"{name}.sieve").gamut for name in "abc"], ["clip"] * 3
        )
        self.assertEqual(self.workspace.saving.unsaved, [])

    def test_folders_and_many_files_are_dropped(self):
        (self.folder / "more").mkdir()
        shutil.copy(self.names[0], self.folder / "more" / "d.png")
        data = QMimeData()
        data.setUrls(
            [QUrl.fromLocalFile(str(self.folder / "more")), QUrl.fromLocalFile(str(self.names[1]))]
        )
        event = QDropEvent(
            QPointF(5, 5),
            Qt.DropAction.CopyAction,
            data,
            Qt.MouseButton.LeftButton,
            Qt.KeyboardModifier.NoModifier,
        )
        self.window.dropEvent(event)
        self.settle()
        self.assertEqual([entry.name for entry in self.workspace.tray.entries], ["d.png", "b.png"])
        (self.folder / "none").mkdir()
        self.window.files.open_dropped([self.folder / "none"])
        self.assertIn("holds no pictures", self.window.last_trouble)

    def batch_dialog(self) -> BatchDialog:
        self.window.exports.show_batch()
        self.settle()
        return self.window.findChildren(BatchDialog)[-1]

    def test_a_batch_of_the_tray_each_by_its_own_stack(self):
        a, _, _ = self.open_all()
        self.work.edit_sieve(
            lambda sieve: sieve.but(
                invert=True, adjust=sieve.adjust.but(mono=sieve.adjust.mono.but(mono=100))
            ),
            "Grey",
        )
        out = self.folder / "out"
        dialog = self.batch_dialog()
        self.assertEqual(
            (dialog.kind, dialog.list.count(), dialog.begin.isEnabled()), ("tray", 3, False)
        )
        with mock.patch(
            "amber_sieve.desk.dialogs.batch_dialog.QFileDialog.getExistingDirectory",
            return_value=str(out),
        ):
            dialog.into.click()
        self.settle()
        self.assertFalse(dialog.picture.pixmap().isNull())
        self.assertIn("3 pictures", dialog.said.text())
        dialog.begin.click()
        self.settle()
        pictures = [np.asarray(Image.open(out / f"{name}.png")).astype(int) for name in "abc"]
        self.assertEqual(np.ptp(pictures[0], axis=-1).max(), 0)
        self.assertGreater(np.ptp(pictures[1], axis=-1).max(), 20)
        asked = [str(self.folder), str(self.folder / "again")]
        dialog = self.batch_dialog()
        dialog.which.setCurrentIndex(2)
        self.assertFalse(dialog.begin.isEnabled())
        with mock.patch(
            "amber_sieve.desk.dialogs.batch_dialog.QFileDialog.getExistingDirectory",
            side_effect=asked,
        ):
            dialog.choose.click()
            dialog.into.click()
        dialog.begin.click()
        self.settle()
        self.assertEqual(
            np.ptp(
                np.asarray(Image.open(self.folder / "again" / "b.png")).astype(int), axis=-1
            ).max(),
            0,
        )
        self.assertEqual(self.troubles, [])

    def test_whole_sieves_are_stored_with_a_picture_and_used_elsewhere(self):
        self.open_all()
        self.click(140, 200)
        self.work.set_field("adjust.light.exposure", -1.0, "Exposure")
        self.settle()
        self.window.show_sieve_presets()
        dialog = next(child for child in self.window.findChildren(SievePresetsDialog))
        with mock.patch(
            "amber_sieve.desk.dialogs.sieve_presets_dialog.QInputDialog.getText",
            return_value=("Darker", True),
        ):
            dialog.store.click()
        self.assertEqual([preset.name for preset in sieve_presets.STORE.all()], ["Darker"])
        self.assertGreater(len(sieve_presets.STORE.all()[0].png), 500)
        self.workspace.pictures.go_by(1)
        self.settle()
        dialog.list.setCurrentRow(0)
        dialog.use.click()
        self.settle()
        self.assertEqual(
            (self.work.sieve.name, self.work.sieve.adjust.light.exposure), ("Darker", -1.0)
        )
        for ask, button, name in (
            ("getSaveFileName", dialog.give, "p.json"),
            ("getOpenFileName", dialog.bring, "p.json"),
        ):
            with mock.patch(
                f"amber_sieve.desk.dialogs.sieve_presets_dialog.QFileDialog.{ask}",
                return_value=(str(self.folder / name), ""),
            ):
                button.click()
            dialog.list.setCurrentRow(0)
        dialog.remove.click()
        self.assertEqual(sieve_presets.STORE.all(), [])
        (self.folder / "bad.json").write_text("{}")
        self.workspace.presets.read_sieve(self.folder / "bad.json")
        self.assertIn("not a preset", self.troubles[-1])
        dialog.close()

    def test_several_projects_at_once_and_kept_work_in_place_of_the_clean_one(self):
        for name in ("a", "b"):
            storage.save(
                Project(source=str(self.folder / f"{name}.png"), gamut="clip"),
                self.folder / f"{name}.sieve",
            )
        self.workspace.pictures.open_many([self.folder / "a.sieve", self.folder / "b.sieve"])
        self.settle()
        self.assertEqual(
            [entry.name for entry in self.workspace.tray.entries], ["a.sieve", "b.sieve"]
        )
        kept_file = self.folder / "left.json"
        left = Left(
            kept_file,
            "b.sieve",
            str(self.folder / "b.sieve"),
            0.0,
            Project(source=str(self.folder / "b.png")),
        )
        self.workspace.unsaved.restore([left])
        self.settle()
        self.assertEqual(
            [(entry.name, entry.document.history.changed) for entry in self.workspace.tray.entries],
            [("a.sieve", False), ("b.sieve", True)],
        )
        self.assertEqual(self.troubles, [])

    def test_a_shared_stack_reaches_pictures_that_were_not_shown_again_before_saving(self):
        a, b, _ = self.open_all()
        self.workspace.sharing.share([a, b], True)
        self.work.set_field("adjust.mono.mono", 100.0, "Grey")
        self.assertEqual(b.document.project.stack[0].adjust.mono.mono, 0)
        self.workspace.sharing.bring_shared()
        self.assertEqual(
            {entry.name for entry in self.workspace.saving.unsaved}, {"a.png", "b.png"}
        )
        self.workspace.saving.save_all()
        self.assertEqual(storage.load(self.folder / "b.sieve").stack[0].adjust.mono.mono, 100)

    def test_a_missing_picture_on_the_tray_goes_on_with_the_one_that_was_found(self):
        entries = self.open_all()
        self.names[1].rename(self.folder / "other.png")
        asked = []
        self.workspace.pictures.missing.disconnect()
        self.workspace.pictures.missing.connect(asked.append)
        self.workspace.pictures.go_to(entries[1])
        self.settle()
        self.workspace.pictures.open_with_source(asked[0], self.folder / "other.png")
        self.settle()
        self.assertEqual(len(self.workspace.tray.entries), 3)
        self.assertIs(self.workspace.tray.current, entries[1])
        self.assertEqual(self.work.size, (400, 300))
        self.assertEqual(self.troubles, [])

    def test_closing_pictures_one_by_one(self):
        self.open_all()
        self.click(140, 200)
        with mock.patch(
            "amber_sieve.desk.window.files.QMessageBox.question",
            return_value=QMessageBox.StandardButton.Cancel,
        ):
            self.window.files.close_picture()
        self.assertEqual(len(self.workspace.tray.entries), 3)
        with mock.patch(
            "amber_sieve.desk.window.files.QMessageBox.question",
            return_value=QMessageBox.StandardButton.Discard,
        ):
            for _ in range(3):
                self.window.files.close_picture()
                self.settle()
        self.assertTrue(self.workspace.tray.current.blank)
        self.assertFalse(self.window.tray.isVisible())
        self.workspace.pictures.open(self.names[2])
        self.settle()
        self.assertEqual(self.work.display_name(), "c.png")
        self.assertEqual(self.troubles, [])

    def test_what_was_closed_is_let_go_of(self):
        self.open_all()
        self.click(140, 200)
        self.settle()
        told = self.workspace.tolerance_hints._task
        self.wait(lambda: told.idle and told.key)
        current = self.workspace.tray.current
        others = [entry for entry in self.workspace.tray.entries if entry is not current]
        held = weakref.ref(current.opened)
        self.workspace.pictures.close([others.pop()])
        self.workspace.pictures.go_to(others.pop())
        self.settle()
        self.workspace.pictures.close([current])
        del current
        self.settle()
        self.assertEqual(len(self.workspace.tray.entries), 1)
        gc.collect()
        self.assertIsNone(held())

    def test_a_picture_that_cannot_be_read_does_not_take_the_others_along(self):
        (self.folder / "x.png").write_bytes(b"no picture")
        self.names.insert(1, self.folder / "x.png")
        self.open_all()
        self.workspace.pictures.go_by(1)
        self.settle()
        self.assertEqual(len(self.troubles), 1)
        self.assertIn("x.png", self.troubles[0])
        self.workspace.pictures.go_by(1)
        self.settle()
        self.assertEqual(self.work.size, (400, 300))

    def test_what_was_seen_last_is_shown_at_once(self):
        a, b, _ = self.open_all()
        self.click(140, 200)
        seen = self.viewing.last.pictures["result"]
        self.workspace.pictures.go_to(b)
        self.settle()
        a.opened.retire()
        a.opened = None  # as when memory was needed
        self.workspace.pictures.go_to(a)
        image = self.window.canvas.panes[0]
        self.assertTrue(np.array_equal(a.glimpse.pictures["result"], seen))
        self.assertIsNotNone(image)
        self.settle()
        self.assertTrue(np.array_equal(self.viewing.last.pictures["result"], seen))

    def test_clipboard_keeps_working_between_pictures(self):
        self.open_all()
        self.click(140, 200)
        copy_sieve(self.workspace)
        self.workspace.pictures.go_by(1)
        self.settle()
        self.workspace.stack.paste(QGuiApplication.clipboard().text())
        self.assertEqual(len(self.work.project.stack), 2)


class FoundAgainTest(FolderCase):
    def test_moved_folders(self):
        for old, new in (
            ("shoot/raw/a.png", "shoot/raw/a.png"),
            ("shoot/raw/b.png", "raw/b.png"),
            ("shoot/raw/c.png", "c.png"),
        ):
            with self.subTest(new=new):
                base = self.folder / new.replace("/", "-")
                (base / "work").mkdir(parents=True)
                there = base / new
                there.parent.mkdir(parents=True, exist_ok=True)
                there.write_bytes(b"x")
                self.assertEqual(
                    found_near(pathlib.Path("/elsewhere") / old, base / "work" / "p.sieve"), there
                )
        self.assertIsNone(found_near(pathlib.Path("/elsewhere/none.png"), self.folder / "p.sieve"))

    def test_small_pictures_of_files(self):
        Image.open(DEMO / "yard.png").convert("RGB").save(self.folder / "a.jpg", quality=95)
        one, other = thumbnail(self.folder / "a.jpg"), thumbnail(DEMO / "yard.png")
        self.assertEqual(one.shape, (75, 112))
        far = [
            np.abs((one >> shift & 255).astype(int) - (other >> shift & 255).astype(int)).mean()
            for shift in (0, 8, 16)
        ]
        self.assertLess(max(far), 6)


class MovedTest(WindowCase):
    def test_a_project_beside_its_moved_picture_opens_and_a_changed_one_is_said(self):
        first, second = self.folder / "first", self.folder / "second"
        first.mkdir()
        shutil.copy(DEMO / "close.png", first / "close.png")
        storage.save(Project(source=str(first / "close.png")), self.folder / "p.sieve")
        first.rename(second)
        said = []
        self.workspace.speech.said.connect(said.append)
        self.workspace.pictures.open(self.folder / "p.sieve")
        self.settle()
        self.assertEqual(self.work.project.source, str(second / "close.png"))
        self.assertEqual([words for words in said if "changed" in words], [])
        Image.open(DEMO / "yard.png").save(second / "close.png")
        self.workspace.pictures.close_all()
        self.workspace.pictures.open(self.folder / "p.sieve")
        self.settle()
        self.assertTrue(any("has changed since" in words for words in said))
        self.workspace.pictures.find_again(DEMO / "close.png")
        self.settle()
        self.assertEqual(self.work.project.source, str(DEMO / "close.png"))
        self.assertEqual(self.work.size, self.work.opened.source.about.size)
        self.assertEqual(self.troubles, [])


#: A window that says what it was handed, and ends.
RUNS = """
import sys
from amber_sieve.desk.app import application
from amber_sieve.desk.start.one_window import Door
running = application()
def take(paths):
    print(*paths, flush=True)
    running.exit(0)
door = Door(take)
print("ready", flush=True)
running.exec()
"""


class OneWindowTest(FolderCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.running = application()

    def test_a_second_start_hands_its_files_over(self):
        environment = os.environ | {
            "QT_QPA_PLATFORM": "offscreen",
            "PYTHONPATH": str(DEMO.parent / "src"),
            "WAYLAND_DISPLAY": f"test{os.getpid()}",
        }
        with subprocess.Popen(
            [sys.executable, "-c", RUNS], stdout=subprocess.PIPE, text=True, env=environment
        ) as first:
            self.assertEqual(first.stdout.readline(), "ready\n")
            second = subprocess.run(
                [sys.executable, "-m", "amber_sieve.terminal.main", "open", str(DEMO / "yard.png")],
                env=environment,
                timeout=60,
                capture_output=True,
                text=True,
            )
            self.assertEqual((second.returncode, second.stderr), (0, ""))
            self.assertEqual(first.stdout.readline().strip(), str(DEMO / "yard.png"))

    def test_the_door_lies_in_a_folder_of_ones_own(self):
        with mock.patch.dict(
            os.environ,
            {"XDG_RUNTIME_DIR": str(self.folder), "XDG_STATE_HOME": str(self.folder / "state")},
        ):
            self.folder.chmod(0o755)  # others may enter: it is not used
            self.assertEqual(
                one_window._folder(), self.folder / "state" / "amber-sieve" / "amber-sieve-door"
            )
            self.folder.chmod(0o700)
            self.assertEqual(one_window._folder(), self.folder / "amber-sieve-door")
            (self.folder / "amber-sieve-door").rmdir()
            (self.folder / "elsewhere").mkdir(mode=0o700)
            (self.folder / "amber-sieve-door").symlink_to(self.folder / "elsewhere")
            self.assertEqual(
                one_window._folder(), self.folder / "state" / "amber-sieve" / "amber-sieve-door"
            )

    def test_another_user_is_neither_believed_nor_served(self):
        taken: list[list[pathlib.Path]] = []
        with mock.patch.dict(
            os.environ, {"XDG_STATE_HOME": str(self.folder), "WAYLAND_DISPLAY": "other"}
        ):
            door = one_window.Door(taken.append)
            self.addCleanup(door.close)
            with (
                mock.patch.object(one_window.os, "getuid", return_value=os.getuid() + 1),
                mock.patch.object(one_window, "_is_private", return_value=True),
            ):
                self.assertFalse(one_window.handed_over([pathlib.Path("/a.png")]))
        self.assertEqual(taken, [])

    def test_messages_are_bounded(self):
        good = json.dumps(["/a [1].png", "/b.png"]).encode()
        self.assertEqual(
            one_window.paths_in(good), [pathlib.Path("/a [1].png"), pathlib.Path("/b.png")]
        )
        for bad in (
            b"",
            b"[]",
            b"{}",
            b"3",
            b'"/a"',
            b"[[" * 500_000,
            json.dumps(["/a"] * 10_001).encode(),
            json.dumps(["/" + "x" * 10_000_000]).encode(),
            b'["a.png"]',
            b"[3]",
            b'[""]',
            b'[["/a"]]',
            b"\xff",
            b'["/a\\u0000b.png"]',
            b'["/\\udcff.png"]',
            b'["/a.png", "/\\ud800"]',
        ):
            with self.assertRaises((ValueError, RecursionError), msg=bad[:20]):
                one_window.paths_in(bad)

    def test_a_flood_and_silence_are_cut_off(self):
        running, taken = self.running, []
        with (
            mock.patch.dict(
                os.environ, {"XDG_STATE_HOME": str(self.folder), "WAYLAND_DISPLAY": "flood"}
            ),
            mock.patch.object(one_window, "SLOWEST", 300),
        ):
            door = one_window.Door(taken.append)
            self.addCleanup(door.close)
            for send in (b"[" * 3_000_000, b"", b'["/a'):
                with socket.socket(socket.AF_UNIX) as peer:
                    peer.settimeout(0.01)
                    peer.connect(one_window._name())
                    end, left, gone = time.monotonic() + 5, send, False
                    while not gone and time.monotonic() < end:
                        running.processEvents()
                        try:
                            left = left[peer.send(left) :] if left else left
                            gone = peer.recv(10) == b""
                        except TimeoutError:
                            pass
                        except OSError:
                            gone = True
                    self.assertTrue(gone, send[:5])
            self.assertTrue(one_window._connected() is not None)
        self.assertEqual(taken, [])


if __name__ == "__main__":
    unittest.main()

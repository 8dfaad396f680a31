"""The door between widgets and the rest: threads, menus, files, what is asked and what is told."""

import os
import subprocess
import sys
import threading
import time
import unittest
from unittest import mock

import numpy as np
from common import DEMO, ROOT, WindowCase
from PyQt6.QtCore import QMimeData, QPointF, Qt, QUrl
from PyQt6.QtGui import QCloseEvent, QColor, QDropEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QMessageBox

from amber_sieve.core.edge.islands import Island
from amber_sieve.desk.dialogs.export_dialog import ExportDialog
from amber_sieve.desk.dialogs.small import Keys
from amber_sieve.errors import Trouble
from amber_sieve.media import stills
from amber_sieve.project.model import Adjust, Project, Recolour, Sieve
from amber_sieve.project.storage import load, save
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext
from amber_sieve.threads import LAST, Threads
from amber_sieve.workspace.background.jobs import Job
from amber_sieve.workspace.background.latest_only import LatestOnlyWorker
from amber_sieve.workspace.clip.watcher import Watcher


class HelperTest(unittest.TestCase):
    """The one helper that starts threads: in order, bounded, going on after an error, ended."""

    def test_pieces_are_done_in_order_by_as_many_threads_as_are_allowed(self):
        in_turn, done, at_once, names = [], [], [0, 0], set()
        lock, finished, threads = threading.Lock(), threading.Event(), Threads("two at most", 2)
        alone, last = Threads("one at most", 1), threading.Event()
        for number in range(12):
            alone.start(lambda number=number: in_turn.append(number))
        alone.start(last.set)
        self.assertTrue(last.wait(5))
        alone.end(5)
        self.assertEqual(in_turn, list(range(12)))

        def piece(number: int) -> None:
            with lock:
                at_once[0] += 1
                at_once[1] = max(at_once)
                names.add(threading.current_thread().name)
            time.sleep(0.01)
            with lock:
                at_once[0] -= 1
                done.append(number)
                if len(done) == 12:
                    finished.set()

        for number in range(12):
            threads.start(lambda number=number: piece(number))
        self.assertTrue(finished.wait(5))
        self.assertEqual((at_once[1], names), (2, {"two at most"}))
        threads.end(5)
        self.assertFalse(any(thread.name == "two at most" for thread in threading.enumerate()))

    @unittest.skipUnless(sys.platform == "linux", "a thread has no priority of its own")
    def test_those_that_nobody_waits_for_stand_behind_the_others(self):
        told = {}
        for name, last in (("first", False), ("last", True)):
            threads = Threads(name, last=last)
            threads.start(
                lambda name=name: told.update(
                    {name: os.getpriority(os.PRIO_PROCESS, threading.get_native_id())}
                )
            )
            while name not in told:
                time.sleep(0.001)
            threads.end(5)
        mine = os.getpriority(os.PRIO_PROCESS, 0)
        self.assertEqual(told, {"first": mine, "last": min(19, mine + LAST)})

    @unittest.skipUnless(sys.platform == "linux", "a thread has no priority of its own")
    def test_begun_with_a_low_priority_they_work_all_the_same(self):
        code = (
            "import os, threading; from amber_sieve.threads import Threads; done = "
            "threading.Event(); "
            "Threads('last', last=True).start(done.set); raise SystemExit(not done.wait(20))"
        )
        for nice in (10, 19):
            done = subprocess.run(
                ["nice", "-n", str(nice), sys.executable, "-c", code],
                cwd=ROOT / "src",
                capture_output=True,
                timeout=60,
            )
            self.assertEqual((done.returncode, done.stderr), (0, b""), nice)

    def test_an_error_stops_nothing_and_the_end_forgets_what_waits(self):
        told, done, gate = [], [], threading.Event()
        begun, threads = threading.Event(), Threads("one")
        with mock.patch("threading.excepthook", lambda held: told.append(held.exc_type)):
            threads.start(lambda: 1 / 0)
            threads.start(lambda: (begun.set(), gate.wait(5)))
            self.assertTrue(begun.wait(5))
            threads.start(lambda: done.append("never"))
            threads.end()
            threads.start(lambda: done.append("nor this"))
            gate.set()
            threads.end(5)
        self.assertEqual((told, done, threads.idle), ([ZeroDivisionError], [], True))


class ThreadsTest(WindowCase):
    def test_many_documents_keep_their_work_with_one_thread(self):
        for _ in range(6):
            self.workspace.pictures.open_many([DEMO / "yard.png", DEMO / "close.png"])
        for entry in self.workspace.tray.entries:
            entry.document._keep_after = 0.01
            entry.document.edit_sieve(lambda sieve: sieve.but(name="Changed"), "Rename")
        QTest.qWait(200)
        self.settle()
        self.assertEqual(
            sum(thread.name == "autosave" for thread in threading.enumerate() if thread.is_alive()),
            1,
        )

    def test_an_error_in_a_watched_frame_stops_no_later_watching(self):
        told, courses = [], []
        watcher = Watcher(lambda: True)
        watcher.found.connect(courses.append)
        with mock.patch("threading.excepthook", lambda held: told.append(held.exc_type)):
            watcher.watch(lambda: 1 / 0, None, None, "")  # what opens the clip is at fault
            end = time.monotonic() + 5
            while watcher.watching and time.monotonic() < end:
                QApplication.processEvents()
        self.assertEqual(
            (told, watcher.watching, watcher._busy), ([ZeroDivisionError], False, False)
        )
        watcher.close()

    def test_what_was_said_and_shown_of_one_picture_goes_with_it(self):
        self.open(DEMO / "yard.png")
        self.click(735, 830)
        self.workspace.areas.outline_island(Island(10, 10, 4, (8, 8, 4, 4)))
        self.assertTrue(self.window.canvas.answer.isVisible())
        self.workspace.pictures.open(DEMO / "close.png")
        self.settle()
        self.assertIsNone(self.workspace.areas.outlined)
        self.assertFalse(self.window.canvas.answer.isVisible())

    def test_only_the_newest_request_is_answered(self):
        renderer, answers, gate, begun = (
            LatestOnlyWorker("render"),
            [],
            threading.Event(),
            threading.Event(),
        )
        renderer.done.connect(answers.append)

        def first() -> str:
            begun.set()
            gate.wait(5)
            return "first"

        renderer.ask(first)
        self.assertTrue(begun.wait(5))
        for number in range(20):
            renderer.ask(lambda number=number: number)
        gate.set()
        end = time.monotonic() + 5
        while len(answers) < 2 and time.monotonic() < end:
            QApplication.processEvents()
        renderer.end()
        self.assertEqual(answers, ["first", 19])

    def test_no_memory_is_given_back_between_the_steps_of_a_drag(self):
        """The next step asks for the same again, and fresh memory takes as long as the work."""
        renderer, answers, back = LatestOnlyWorker("render", large=True), [], mock.Mock()
        renderer.done.connect(answers.append)
        renderer._gives_back = back
        for number, hurries in enumerate((True, True, False, True)):
            renderer.ask(lambda number=number: number, hurries=hurries)
            end = time.monotonic() + 5
            while not (len(answers) == number + 1 and renderer.idle) and time.monotonic() < end:
                QApplication.processEvents()
        renderer.end()
        self.assertEqual((answers, back.call_count), ([0, 1, 2, 3], 1))

    def test_the_fine_picture_of_a_drag_that_goes_on_is_given_up(self):
        """A drag that paused for a quarter of a second waited seconds for a fine picture of its
        last step.
        """
        renderer, answers, begun = LatestOnlyWorker("render"), [], threading.Event()
        renderer.done.connect(answers.append)
        context = RenderContext(Cache(10**6), cancelled=renderer.superseded)

        def fine() -> str:
            for stage in range(1000):
                context.get(("stage", stage), lambda: time.sleep(0.005))
                begun.set()
            return "fine"

        renderer.ask(fine)
        self.assertTrue(begun.wait(5))
        started = time.monotonic()
        renderer.ask(lambda: "step", hurries=True)
        while not answers and time.monotonic() < started + 8:
            QApplication.processEvents()
        self.assertEqual(answers, ["step"])
        self.assertLess(time.monotonic() - started, 1.5)
        # A step of a drag is seen to its end, whatever waits; so is a fine picture while only fine
        # ones wait.
        begun.clear()
        renderer.ask(
            lambda: (begun.set(), time.sleep(0.2), context.check(), "shown")[-1], hurries=True
        )
        self.assertTrue(begun.wait(5))
        renderer.ask(lambda: "next", hurries=True)
        while len(answers) < 3 and time.monotonic() < started + 8:
            QApplication.processEvents()
        renderer.end()
        self.assertEqual(answers, ["step", "shown", "next"])

    def test_what_nobody_looks_at_any_more_is_given_up(self):
        """A hundred heavy sieves kept the next picture waiting for two minutes."""
        stages, gets = [], RenderContext.get

        def slow(context, key, make):
            def made():
                stages.append(key)
                time.sleep(0.05)
                return make()

            return gets(context, key, made)

        heavy = Project(
            source=str(DEMO / "yard.png"),
            stack=tuple(
                Sieve(name=str(n), adjust=Adjust(recolour=Recolour(hue=n + 1))) for n in range(80)
            ),
        )
        save(heavy, self.folder / "heavy.sieve")
        self.open(DEMO / "close.png")
        with mock.patch.object(RenderContext, "get", slow):
            self.workspace.pictures.open(self.folder / "heavy.sieve")
            end = time.monotonic() + 30
            while len(stages) < 12 and time.monotonic() < end:
                QApplication.processEvents()
            self.workspace.pictures.go_to(self.workspace.tray.entries[0])
            self.settle()
            self.assertEqual(self.work.opened.source.about.path.name, "close.png")
            self.assertLess(len(stages), 160)  # all would be 320 and more
            self.workspace.pictures.go_to(self.workspace.tray.entries[1])
            while len(stages) < 40 and time.monotonic() < end:
                QApplication.processEvents()
            self.workspace.pictures.close_all()
            before = len(stages)
            self.settle()
            self.assertLess(len(stages) - before, 60)
        self.assertEqual(self.troubles, [])

    def test_a_failed_render_is_told_and_the_thread_lives_on(self):
        renderer, answers, failures = LatestOnlyWorker("render"), [], []
        renderer.done.connect(answers.append)
        renderer.failed.connect(lambda words, details: failures.append(words))
        for request in (
            self.fail_with(Trouble("The layer is gone: choose another.")),
            self.fail_with(MemoryError()),
        ):
            renderer.ask(request)
            end = time.monotonic() + 5
            count = len(failures)
            while len(failures) == count and time.monotonic() < end:
                QApplication.processEvents()
        renderer.ask(lambda: "alive")
        end = time.monotonic() + 5
        while not answers and time.monotonic() < end:
            QApplication.processEvents()
        renderer.end()
        self.assertEqual(failures[0], "The layer is gone: choose another.")
        self.assertIn("memory", failures[1])
        self.assertEqual(answers, ["alive"])

    @staticmethod
    def fail_with(error: Exception):
        def request() -> None:
            raise error

        return request

    def test_jobs_tell_progress_and_end_in_one_way(self):
        shares, ends = [], []
        job = Job("Counting", lambda progress: [progress.step(k / 4) for k in range(5)])
        job.progressed.connect(lambda share, left: shares.append(share))
        job.done.connect(lambda result: ends.append("done"))
        job.failed.connect(lambda words: ends.append(words))
        job.start()
        end = time.monotonic() + 5
        while not ends and time.monotonic() < end:
            QApplication.processEvents()
        job.end(5)
        self.assertEqual((shares, ends), ([0, 0.25, 0.5, 0.75, 1], ["done"]))

    def test_one_long_job_at_a_time(self):
        gate = threading.Event()
        self.workspace.workers.run("Waiting", lambda progress: gate.wait(5), lambda result: None)
        self.workspace.workers.run("Another", lambda progress: None, lambda result: None)
        self.assertIn("Waiting is still running", self.troubles[-1])
        gate.set()
        self.settle()


class FilesTest(WindowCase):
    def test_recent_work_is_read_only_while_it_is_seen(self):
        """One large picture after another would take a core from whoever works on something by
        now.
        """
        turns, read = threading.Semaphore(0), []

        def small(path):
            read.append(path.name)
            turns.acquire(timeout=20)
            return np.full((4, 6), 0xFF3366CC, np.uint32)

        names = [f"{number}.png" for number in range(4)]
        for name in names:
            (self.folder / name).write_bytes((DEMO / "close.png").read_bytes())
        self.workspace.preferences.change(recent=tuple(str(self.folder / name) for name in names))
        front, recents = self.window.front, self.workspace.workers.recents
        with mock.patch("amber_sieve.desk.start.start_view._small", side_effect=small):
            front.setCurrentIndex(0)
            front.setCurrentIndex(1)
            shown = front.currentWidget().recent

            def colour(row):
                return shown.item(row).icon().pixmap(40, 40).toImage().pixelColor(3, 2).name()

            turns.release()
            self.wait(lambda: len(read) == 2)
            self.wait(lambda: colour(0) == "#3366cc")  # each when it is there
            self.assertEqual(colour(1), "#000000")
            self.open(self.folder / names[0])
            turns.release(4)
            self.wait(lambda: recents.idle)
        self.assertEqual(read, names[:2])
        self.assertEqual(self.troubles, [])

    def test_saving_and_opening_through_the_dialogs(self):
        self.open(DEMO / "yard.png")
        self.click(735, 830)
        path, out, mask = self.folder / "jar", self.folder / "out.tif", self.folder / "mask.png"
        with mock.patch(
            "amber_sieve.desk.window.files.QFileDialog.getSaveFileName",
            return_value=(str(path), ""),
        ):
            self.assertTrue(self.window.files.save())
        self.assertFalse(self.work.history.changed)
        self.assertNotIn("•", self.window.windowTitle())
        saved = self.folder / "jar.sieve"
        self.assertEqual(load(saved).stack, self.work.project.stack)
        for what, target in (("", out), ("mask", mask)):
            self.window.exports.show_export(what)
            dialog = self.window.findChildren(ExportDialog)[-1]
            dialog.folder = self.folder
            QTest.keyClicks(dialog.search, target.suffix[1:])
            QTest.keyClick(dialog.search, Qt.Key.Key_Return)
            dialog.fields.pattern.setText(target.stem)
            QTest.keyClick(
                dialog.fields.pattern, Qt.Key.Key_Return
            )  # ends typing, and exports nothing
            self.assertFalse(target.exists())
            dialog.export.click()
            self.settle()
        self.assertEqual(stills.read(out).about.depth, "uint8")
        self.assertTrue(mask.exists())
        with mock.patch(
            "amber_sieve.desk.window.files.QFileDialog.getOpenFileNames",
            return_value=([str(saved)], ""),
        ):
            self.window.files.ask_open()
        self.settle()
        self.assertEqual(self.work.path, saved)

    def test_dropping_a_file_opens_it(self):
        data = QMimeData()
        data.setUrls([QUrl.fromLocalFile(str(DEMO / "close.png"))])
        event = QDropEvent(
            QPointF(5, 5),
            Qt.DropAction.CopyAction,
            data,
            Qt.MouseButton.LeftButton,
            Qt.KeyboardModifier.NoModifier,
        )
        self.window.dropEvent(event)
        self.settle()
        self.assertEqual(self.work.display_name(), "close.png")

    def test_unsaved_work_is_asked_about(self):
        self.open(DEMO / "yard.png")
        self.click(735, 830)
        self.assertIn("•", self.window.windowTitle())
        for answer, accepted in (
            (QMessageBox.StandardButton.Cancel, False),
            (QMessageBox.StandardButton.Discard, True),
        ):
            event = QCloseEvent()
            with (
                mock.patch(
                    "amber_sieve.desk.window.files.QMessageBox.question", return_value=answer
                ),
                mock.patch.object(self.workspace, "close"),
            ):
                self.window.closeEvent(event)
            self.assertEqual(event.isAccepted(), accepted)

    def test_exporting_nothing_is_said(self):
        self.window.exports.show_export()
        self.window.exports.export_again()
        self.assertIn("open a picture first", self.window.last_trouble)
        for box in self.window.findChildren(QMessageBox):
            box.close()


class LookingTest(WindowCase):
    def test_menus_set_veil_surround_and_keys(self):
        self.open(DEMO / "yard.sieve")
        self.window.canvas.set_view(1, "veil")
        self.settle()
        before = self.viewing.last.pictures["veil"].copy()
        with mock.patch(
            "amber_sieve.desk.dialogs.small.QColorDialog.getColor", return_value=QColor(0, 255, 0)
        ):
            self.window.colours.ask_veil_colour()
        self.settle()
        self.assertFalse(np.array_equal(before, self.viewing.last.pictures["veil"]))
        for name in ("mid", "light", "dark"):
            self.workspace.preferences.change(surround=name)
            self.assertEqual(self.window.canvas.panes[0].surround, name)
        self.window.help.show_keys()
        keys = self.window.findChild(Keys)
        rows = [keys.table.item(line, 1).text() for line in range(keys.table.rowCount())]
        self.assertTrue({"Shift+click", "Ctrl+S", "T"} <= set(rows))
        keys.search.setText("erase")
        self.assertEqual(sum(not keys.table.isRowHidden(line) for line in range(len(rows))), 1)
        keys.close()

    def test_undo_redo_and_their_names_in_the_menu(self):
        self.open(DEMO / "yard.sieve")
        self.work.edit_sieve(lambda s: s.but(adjust=Adjust(recolour=Recolour(hue=10.0))), "Hue")
        self.assertEqual(self.window.menus.actions["undo"].text(), "&Undo hue")
        self.window.menus.actions["undo"].trigger()
        self.assertEqual(self.window.menus.actions["redo"].text(), "&Redo hue")
        self.window.menus.actions["redo"].trigger()
        self.assertEqual(self.work.sieve.adjust.recolour.hue, 10)

    def test_a_large_picture_is_rendered_where_it_is_seen(self):
        self.open(DEMO / "yard.sieve")
        self.work.edit_sieve(
            lambda s: s.but(pick=s.pick.but(connected=True), edge=s.edge.but(follow=0.0)),
            "Connected only",
        )
        self.settle()
        self.assertEqual(self.viewing.last.origin, (0, 0))
        with (
            mock.patch("amber_sieve.desk.canvas.viewport.WHOLE", 100_000),
            mock.patch("amber_sieve.desk.canvas.viewport.GRAIN", 64),
        ):
            view = self.window.canvas.viewport
            self.work.edit_sieve(
                lambda s: s.but(pick=s.pick.but(connected=False)), "Connected only"
            )
            view.zoom_to(2.0, QPointF(100, 40))
            self.settle()
            self.assertGreater(self.viewing.last.origin[0], 0)
            self.assertLess(self.viewing.last.mask.size, 1800 * 1200 / 2)
            part = self.viewing.last
            left, top = (int(v) for v in part.origin)
            self.work.edit_sieve(lambda s: s.but(pick=s.pick.but(connected=True)), "Connected only")
            self.settle()
            self.assertEqual(self.viewing.last.mask.shape, part.mask.shape)
            self.assertEqual(self.viewing.last.frame.planes.shape[1:], (1200, 1800))
            same = np.abs(self.viewing.last.mask - part.mask)
            self.assertLess(same.mean(), 0.01)

"""What is shown is what is exported: previews of parts against whole renders, and the window around
them.
"""

import pathlib
import random
import signal
import subprocess
import sys
import threading
import time
import unittest
from unittest import mock

import numpy as np
from common import DEMO, ROOT, FolderCase, WindowCase, half_demo, rendered_whole, truth
from made import random_project
from PIL import Image
from PyQt6.QtCore import QMimeData, QPointF, Qt, QUrl, qInstallMessageHandler
from PyQt6.QtGui import QCloseEvent, QDropEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QDialog, QMessageBox
from robot import deepest

from amber_sieve.core.colour.gamut import lower_chroma
from amber_sieve.core.colour.screen import to_screen
from amber_sieve.core.frame import Frame
from amber_sieve.core.overlays import grey_pixels
from amber_sieve.desk.dialogs.finder import Finder
from amber_sieve.desk.dialogs.small import PreferencesDialog
from amber_sieve.desk.widgets.number import Number
from amber_sieve.errors import Trouble
from amber_sieve.export.frame import finished
from amber_sieve.live.clicking import clicked, looked_at
from amber_sieve.live.parts import Shown
from amber_sieve.live.preview import Opened, Wanted, preview
from amber_sieve.live.sampling import sample_at
from amber_sieve.media.opening import open_source
from amber_sieve.project import edits, recovery
from amber_sieve.project.history import History
from amber_sieve.project.model import Adjust, Edge, Pick, Project, Recolour, Sieve
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext
from amber_sieve.render.stack import sieve_mask
from amber_sieve.render.stages.edging import NO_EDGE
from amber_sieve.render.stages.every import stack_support_radius
from amber_sieve.resolve.layers import layers_in
from amber_sieve.workspace import preferences
from amber_sieve.workspace.background.guard import Mishaps

LEFT, NONE = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier


def levels_of_words(words: np.ndarray) -> np.ndarray:
    """Red, green and blue (3, H, W) of words for the screen, or of levels of grey."""
    words = grey_pixels(words) if words.dtype == np.uint8 else words
    return np.stack([(words >> shift) & 255 for shift in (16, 8, 0)]).astype(float)


class PreviewIsExportTest(unittest.TestCase):
    def compare(self, name: str, number: int, rounds: int, seed: int) -> None:
        chance = random.Random(seed)
        source = open_source(DEMO / "clip.mp4" if name == "clip" else half_demo() / f"{name}.png")
        self.addCleanup(source.close)
        opened = Opened(source)
        whole = opened.frame(number)
        worst = 0.0
        for _ in range(rounds):
            project = random_project(chance, name)
            sieve = project.stack[-1]
            factor = chance.choice((1, 1, 2))
            width, height = whole.width // factor, whole.height // factor
            left, top = chance.randrange(width - 200), chance.randrange(height - 150)
            box = (left, top, left + 200, top + 150)
            shown = preview(
                opened,
                Wanted(project, sieve.id, number, Shown(factor, box, ("mask", "result"))),
                RenderContext(Cache(10**9)),
            )
            self.assertEqual(shown.mask.shape, (150, 200))
            # The same picture without any part: at full size this is what the export renders.
            level = opened.frame(number, factor)
            cache = RenderContext(Cache(10**9))
            found = opened.resolver.resolve_frame(project, whole, number, cache)
            mask = sieve_mask(level, found, sieve.id, cache, layers_in(cache))[
                top : top + 150, left : left + 200
            ]
            apart = np.abs(shown.mask - mask)
            worst = max(worst, float(apart.max()))
            self.assertLess(apart.max(), 1e-3, project)
            if factor == 1:
                done = rendered_whole(whole, project, opened.resolver, number)
                alpha = (
                    None if done.alpha is None else done.alpha[top : top + 150, left : left + 200]
                )
                result = done.planes[:, top : top + 150, left : left + 200]
                self.alike(
                    shown.pictures["result"],
                    result,
                    alpha if alpha is None else alpha == 1,
                    project,
                )
        print(
            f"\n{name}: preview of a part against the whole, largest difference of the mask "
            f"{worst:.6f} in {rounds} projects"
        )

    def alike(
        self, words: np.ndarray, result: np.ndarray, where: np.ndarray | None, what: object
    ) -> None:
        """Every channel of what is shown lies within a level of what is exported (a hole, which
        shows a checkerboard, left out).
        """
        exported = levels_of_words(to_screen(lower_chroma(np.ascontiguousarray(result))))
        apart = np.abs(levels_of_words(words) - exported)
        apart = apart if where is None else apart[:, where]
        if apart.size:
            self.assertEqual(np.percentile(apart, 99.9), 0, what)
            self.assertLessEqual(apart.max(), 1, what)

    def test_stills_layers_and_stacks(self):
        self.compare("yard", 0, 14, 4)

    def test_frames_of_a_clip(self):
        self.compare("clip", 17, 6, 5)

    def test_72_parts_with_everything_automatic(self):
        """One click deepest inside each of six things, and what it finds by itself: parts of 640 x
        400 at full size.
        """
        chance, worst, seen = random.Random(72), 0.0, 0
        things = (
            ("yard", "cloth"),
            ("yard", "turquoise"),
            ("yard", "marigolds"),
            ("yard", "wall"),
            ("close", "leaf"),
            ("close", "honey"),
        )
        for picture, name in things:
            opened, cache = (
                Opened(open_source(DEMO / f"{picture}.png")),
                RenderContext(Cache(10**9)),
            )
            whole, sieve = opened.frame(0), Sieve(adjust=Adjust(recolour=Recolour(hue=100)))
            x, y, _ = deepest(truth(picture, name) > 0.99)
            small = whole.reduced(looked_at(whole.width, whole.height))
            stands = opened.resolver.resolve_frame(Project(stack=(sieve,)), whole, 0, cache).stack[
                0
            ]
            sieve = edits.with_sample(
                sieve, clicked(stands, sample_at(whole, x, y), small, cache).sample
            )
            project = Project(stack=(sieve,))
            made = finished(opened.source, project, masks=[sieve.id])
            for _ in range(12):
                left, top = (
                    chance.randrange(whole.width - 640),
                    chance.randrange(whole.height - 400),
                )
                part = np.s_[top : top + 400, left : left + 640]
                wanted = Wanted(
                    project,
                    sieve.id,
                    0,
                    Shown(1, (left, top, left + 640, top + 400), ("mask", "result")),
                )
                shown = preview(opened, wanted, cache)
                worst = max(worst, float(np.abs(shown.mask - made.masks[sieve.id][part]).max()))
                self.assertLess(worst, 1 / 255, (picture, name, left, top))
                self.alike(
                    shown.pictures["result"],
                    made.result.planes[:, *part],
                    None,
                    (picture, name, left, top),
                )
                seen += 1
        print(f"\n{seen} of 72 parts alike, largest difference of a mask {worst:.7f}")

    def test_stages_say_how_far_they_look(self):
        one = Sieve(edge=Edge(grow=4, feather=2))
        two = Sieve(edge=Edge(feather=5), pick=Pick(measure="result"))
        self.assertAlmostEqual(
            stack_support_radius(Project(stack=(one, two))),
            stack_support_radius(Project(stack=(one,)))
            + stack_support_radius(Project(stack=(two,))),
        )
        self.assertEqual(
            stack_support_radius(Project(stack=(Sieve(edge=Edge(fine=3)),))), float("inf")
        )
        self.assertEqual(
            stack_support_radius(Project(stack=(Sieve(edge=NO_EDGE),))), 0
        )  # what does nothing looks nowhere


class ClipGamutTest(FolderCase):
    def test_clips_follow_the_gamut_choice(self):
        from fractions import Fraction

        from amber_sieve.media.footage.clip import Footage
        from amber_sieve.media.footage.writing import ClipForm, ClipWriter

        planes = np.full((3, 32, 32), 0.05, np.float32)
        planes[0] = 2.0
        found = {}
        for gamut in ("clip", "lower chroma"):
            path = self.folder / f"{gamut.replace(' ', '')}.mov"
            writer = ClipWriter(
                path, None, ClipForm((32, 32), Fraction(24), "ProRes 422 HQ", gamut=gamut)
            )
            writer.add(0, writer.pictured(None, planes, np.zeros_like(planes)))
            writer.finish()
            clip = Footage(path)
            found[gamut] = clip.frame(0).planes[:, 16, 16]
            clip.close()
        self.assertGreater(found["lower chroma"][1], found["clip"][1] + 0.05)


class HistoryEmptyTest(unittest.TestCase):
    def test_a_drag_that_comes_back_leaves_no_step(self):
        history = History(Project())
        for gamut in ("clip", "lower chroma"):
            history.push(history.project.but(gamut=gamut), "Gamut", "gamut")
        self.assertIsNone(history.undoes)


class SafeWindowTest(WindowCase):
    own_window = True

    def answer(self, choice) -> mock._patch:
        return mock.patch("amber_sieve.desk.window.files.QMessageBox.question", return_value=choice)

    def test_what_a_drag_begins_with_is_there_before_it(self):
        renders, made = self.workspace.workers.renders, []
        self.window.resize(3000, 1800)  # in a smaller one a drag works on the same picture
        part = Frame.part
        with mock.patch.object(
            Frame,
            "part",
            lambda frame, *box: made.append(box[4] if len(box) > 4 else 1) or part(frame, *box),
        ):
            self.open(DEMO / "yard.sieve")
            self.wait(lambda: any(isinstance(share, float) for share in made))
            self.settle()
            made.clear()
            self.work.set_field("adjust.light.exposure", 0.5, "Exposure", "a drag")
            self.assertTrue(self.work.dragging)
            while not renders.idle:
                QTest.qWait(5)
            self.assertEqual(made, [])
            self.work.end_drag()
            self.settle()
            # What comes meanwhile takes its place.
            last = self.viewing.last
            self.workspace.drag_ready._task.want("again", now=True)
            self.assertFalse(renders.idle)
            self.work.set_field("adjust.light.exposure", 0.2, "Exposure")
            self.settle()
            self.assertIsNot(self.viewing.last, last)
            self.assertEqual(self.viewing.last.wanted, self.viewing.wanted())
        self.assertEqual(self.troubles, [])

    def test_band_ends_are_dragged_without_a_word(self):
        self.open(DEMO / "yard.png")
        self.click(735, 830)
        self.window.pages.setCurrentWidget(self.window.bands)
        QApplication.processEvents()
        key = Qt.KeyboardModifier
        for measure in ("hue", "saturation", "luminance"):
            editor = self.window.bands.editors[measure]
            for held in (
                NONE,
                key.ShiftModifier,
                key.ControlModifier,
                key.ShiftModifier | key.ControlModifier,
            ):
                for start in (editor.low, editor.high):
                    at = QPointF(editor.x_of(start), editor.height() / 2).toPoint()
                    QTest.mousePress(editor, LEFT, held, at)
                    for by in (3, -3, 40, -40):
                        QTest.mouseMove(editor, at + QPointF(by, 0).toPoint())
                    QTest.mouseRelease(editor, LEFT, held, at)
        self.settle()
        self.assertEqual(self.troubles, [])

    def test_opening_another_file_while_a_frame_decodes(self):
        for _ in range(4):
            self.workspace.pictures.open(DEMO / "clip.mp4")
            self.settle()
            self.workspace.clip.go_to(60)
            self.workspace.pictures.open(DEMO / "yard.png")
            self.settle()
        self.assertEqual(self.troubles, [])
        self.assertEqual(self.work.size, (1800, 1200))

    def test_a_mishap_keeps_the_work_and_says_one_sentence(self):
        kept, told = [], []
        mishaps = Mishaps(lambda: kept.append(True))
        mishaps.happened.connect(lambda words, details: told.append((words, details)))
        for error in (RuntimeError("inside"), Trouble("Choose another."), MemoryError()):
            try:
                raise error
            except Exception as caught:
                mishaps._caught(type(caught), caught, caught.__traceback__)
        self.assertIn("your work is kept", told[0][0])
        self.assertIn("RuntimeError: inside", told[0][1])
        self.assertEqual(told[1], ("Choose another.", ""))
        self.assertIn("memory", told[2][0])
        self.assertEqual(len(kept), 2)
        self.window.tell_trouble(*told[0])
        box = self.window.findChildren(QMessageBox)[-1]
        next(b for b in box.buttons() if "Copy" in b.text()).click()
        self.assertIn("RuntimeError: inside", QApplication.clipboard().text())
        box.close()

    def test_an_error_while_painting_leaves_no_painter_behind(self):
        # One that lives on, because a report holds the error, paints what is shown already: Qt ends
        # the program.
        self.open(DEMO / "yard.png")
        one, held, warned = self.window.canvas.panes[0], [], []
        self.addCleanup(
            qInstallMessageHandler,
            qInstallMessageHandler(lambda kind, where, words: warned.append(words)),
        )
        with mock.patch.object(sys, "excepthook", lambda kind, error, trace: held.append(error)):
            with (
                mock.patch.object(one, "overlay", side_effect=MemoryError),
                mock.patch.object(one, "has_tool", return_value=True),
            ):
                for _ in range(3):
                    one.repaint()
            one.repaint()
        self.assertEqual({type(error) for error in held}, {MemoryError})
        self.assertEqual([words for words in warned if "paint" in words.lower()], [])

    def test_closing_during_an_export_asks(self):
        gate = threading.Event()
        self.workspace.workers.run(
            "Exporting x.png", lambda progress: gate.wait(5), lambda result: None
        )
        event = QCloseEvent()
        with self.answer(QMessageBox.StandardButton.Cancel):
            self.window.closeEvent(event)
        self.assertFalse(event.isAccepted())
        gate.set()
        self.settle()

    def test_a_copy_of_the_demo_is_not_saved_over_it(self):
        self.workspace.pictures.open(DEMO / "yard.sieve", copy=True)
        self.settle()
        self.assertIsNone(self.work.path)
        with mock.patch(
            "amber_sieve.desk.window.files.QFileDialog.getSaveFileName", return_value=("", "")
        ) as asked:
            self.assertFalse(self.window.files.save())
        asked.assert_called_once()

    def test_a_missing_picture_can_be_found_by_hand(self):
        from amber_sieve.project import storage

        storage.save(Project(source=str(self.folder / "gone.png")), self.folder / "a.sieve")
        found = []
        self.window.files.ask_missing = found.append
        self.workspace.pictures.missing.disconnect()
        self.workspace.pictures.missing.connect(found.append)
        self.workspace.pictures.open(self.folder / "a.sieve")
        deadline = time.monotonic() + 10
        while not found and time.monotonic() < deadline:
            QApplication.processEvents()
        self.workspace.pictures.open_with_source(found[0], DEMO / "close.png")
        self.settle()
        self.assertEqual(self.work.path, self.folder / "a.sieve")
        self.assertTrue(self.work.project.source.endswith("close.png"))
        self.assertTrue(self.work.history.changed)

    def test_exports_presets_links_and_samples_that_cannot_be(self):
        self.open(DEMO / "yard.png")
        self.workspace.presets.keep("x" * 61)
        self.workspace.presets.write(self.folder / "missing" / "a.json")
        self.workspace.saving.save(self.folder / "missing" / "a.sieve")
        data = QMimeData()
        data.setUrls([QUrl("https://example.org/a.png")])
        event = QDropEvent(QPointF(5, 5), Qt.DropAction.CopyAction, data, LEFT, NONE)
        self.window.dropEvent(event)
        self.troubles.append(self.window.last_trouble)
        self.click(735, 830)
        sample = self.work.sieve.pick.samples[0]
        self.workspace.samples.edit({"x": 5000.0}, "Far away", ids=(sample.id,))
        self.workspace.samples.take_again()
        self.settle()
        layer = {"measure": "layer", "layer": str(self.folder / "none.png")}
        self.work.edit_sieve(lambda s: s.but(pick=s.pick.but(**layer)), "Layer")
        self.workspace.samples.fit()
        deadline = time.monotonic() + 20
        while not self.workspace.idle and time.monotonic() < deadline:
            QApplication.processEvents()
        words = "\n".join(self.troubles)
        for expected in (
            "60 characters",
            "does not exist",
            "is not a file on this computer",
            "lies outside the picture",
            "The layer",
        ):
            self.assertIn(expected, words)
        for box in self.window.findChildren(QMessageBox):
            box.close()

    def test_jobs_leave_no_threads_behind(self):
        self.open(DEMO / "clip.mp4")
        self.workspace.exports.write(self.folder / "a.png")
        self.settle()
        end = time.monotonic() + 20
        while (
            not self.workspace.quiet_frames.idle and time.monotonic() < end
        ):  # it begins a thread of its own
            QTest.qWait(20)
        before = threading.active_count()
        for number in range(3):
            self.workspace.exports.write(self.folder / f"{number}.png")
            self.settle()
        end = time.monotonic() + 10  # memory is given back in a thread for a moment
        while threading.active_count() > before and time.monotonic() < end:
            self.application.processEvents()
        self.assertLessEqual(threading.active_count(), before)
        self.assertLessEqual(len(list(pathlib.Path("/proc/self/fd").iterdir())), 80)

    def test_fine_does_not_hold_the_one_job_slot(self):
        part = np.asarray(Image.open(DEMO / "yard.png").convert("RGB"))[
            60:520, 960:1520
        ]  # the cloth with its fringe
        Image.fromarray(part).save(self.folder / "part.png")
        self.open(self.folder / "part.png")
        self.click(275, 360)
        self.work.set_field("edge.fine", 6.0, "Fine")
        deadline = time.monotonic() + 30
        while self.workspace.workers.jobs.quiet is None and time.monotonic() < deadline:
            QApplication.processEvents()
        self.workspace.exports.write_mask(self.folder / "m.png")
        self.settle()
        self.assertEqual(self.troubles, [])
        self.assertTrue((self.folder / "m.png").exists())

    def test_numbers_type_beyond_their_track_and_nudge_from_there(self):
        self.open(DEMO / "yard.sieve")
        grow: Number = self.window.edge.numbers["grow"]
        self.work.set_field("edge.grow", 150.0, "Grow")
        self.window.pages.setCurrentWidget(self.window.edge)
        QTest.keyClick(grow, Qt.Key.Key_Right)
        self.assertEqual(self.work.sieve.edge.grow, 150.5)
        grow.set(float("nan"))
        self.assertEqual(self.work.sieve.edge.grow, 150.5)

    def test_the_readout_follows_a_click(self):
        self.open(DEMO / "yard.png")
        pane, view = self.window.canvas.panes[0], self.window.canvas.viewport
        QTest.mouseMove(pane, view.to_pane(QPointF(735, 830)).toPoint())
        QApplication.processEvents()
        self.click(735, 830)
        self.assertIn("mask 100 %", self.window.canvas.readout.text())

    def test_arrangements_panels_and_the_large_field_are_remembered(self):
        self.open(DEMO / "yard.sieve")
        pane = self.window.canvas.panes[0]
        pane.setFocus()
        QTest.keyClick(pane, Qt.Key.Key_I)
        self.settle()
        inset = self.window.canvas.inset
        self.assertTrue(inset.isVisible())
        self.assertFalse(self.window.canvas.panes[1].isVisible())
        QTest.mousePress(inset, LEFT, NONE, inset.rect().center())
        QTest.mouseMove(inset, inset.rect().center() - QPointF(80, 50).toPoint())
        QTest.mouseRelease(inset, LEFT, NONE, inset.rect().center())
        self.assertLess(self.workspace.preferences.values.inset_x, 100)
        QTest.keyClick(pane, Qt.Key.Key_H)
        self.assertFalse(self.window.pages.isVisible())
        self.assertEqual(preferences.load().arrangement, "inset")
        self.workspace.preferences.change(panels=True, arrangement="twin")
        self.window.field.enlarged.emit()
        self.assertIsNotNone(self.window.canvas.field)
        self.window.canvas.field.enlarged.emit()
        self.assertIsNone(self.window.canvas.field)
        self.assertTrue(self.window.canvas.panes[1].isVisible())

    def test_commands_by_name_preferences_and_recovery(self):
        self.open(DEMO / "yard.sieve")
        self.window.menus.actions["find"].trigger()
        finder = self.window.findChild(Finder)
        finder.search.setText("add sie")
        QTest.keyClick(finder, Qt.Key.Key_Return)
        self.assertEqual(len(self.work.project.stack), 2)
        self.window.show_preferences()
        dialog = self.window.findChild(PreferencesDialog)
        dialog.numbers["cache_megabytes"].set(300)
        self.assertEqual(self.workspace.workers.cache.limit, 300_000_000)
        self.workspace.preferences.change(cache_megabytes=1200.0)
        for dialog in self.window.findChildren(QDialog):
            dialog.close()


class EndTest(FolderCase):
    def test_sigterm_keeps_the_work_for_the_next_start(self):
        code = f"""
import os, pathlib, threading, time, signal
from amber_sieve.desk import app
from amber_sieve.workspace.workspace import Workspace
from PyQt6.QtCore import QTimer
def change():
    for widget in running.topLevelWidgets():
        if hasattr(widget, "workspace") and widget.workspace.work.opened:
            widget.workspace.work.edit_sieve(lambda s: s.but(name="Kept"), "Rename")
            print("changed", flush=True)
            return
    QTimer.singleShot(200, change)
running = app.application()
QTimer.singleShot(200, change)
app.main([{str(DEMO / "yard.png")!r}])
"""
        import os

        environment = os.environ | {"PYTHONPATH": str(ROOT / "src"), "QT_QPA_PLATFORM": "offscreen"}
        child = subprocess.Popen(
            [sys.executable, "-c", code], stdout=subprocess.PIPE, text=True, env=environment
        )
        self.assertEqual(child.stdout.readline().strip(), "changed")
        child.send_signal(signal.SIGTERM)
        child.wait(30)
        child.stdout.close()
        left = [found for found in recovery.left_behind() if found.project.stack[0].name == "Kept"]
        self.assertEqual(len(left), 1)
        recovery.discard(left[0])

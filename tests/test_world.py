"""The world around the program changes: files vanish, disks fill, clocks jump, other windows save.

Short here; `tools/world.py` runs the same with a person's numbers (2,000 clicks on 24 megapixels,
2,000 dropped files) and prints what grew.
"""

import gc
import json
import os
import pathlib
import random
import shutil
import signal
import subprocess
import sys
import time
import unittest
from unittest import mock

import numpy as np
from common import DEMO, ROOT, FolderCase, WindowCase
from PIL import Image
from PyQt6.QtCore import QMimeData, QPointF, Qt, QTimer, QUrl
from PyQt6.QtGui import QDropEvent, QGuiApplication

from amber_sieve.errors import Trouble
from amber_sieve.export.clip import export_clip
from amber_sieve.media.opening import open_source
from amber_sieve.project import recovery, storage
from amber_sieve.project.model import VERSION, Project
from amber_sieve.workspace.workspace import Workspace

#: How much of each is done; `tools/world.py` asks for what a long day has.
CLICKS, MEGAPIXELS, DROPPED, STEPS, KILLS = 12, 2.16, 120, 60, 2
#: Megabytes by which a session may grow once it is warm, and the longest pause of the event loop,
#: seconds.
GROWS, PAUSE = 120.0, 1.0


def memory() -> float:
    """Return the megabytes that this process holds."""
    gc.collect()
    held = pathlib.Path("/proc/self/statm").read_text().split()[1]
    return int(held) * os.sysconf("SC_PAGE_SIZE") / 1e6


class Paused:
    """Turns the event loop and remembers its longest turn."""

    def __init__(self, application) -> None:
        self._application, self.worst = application, 0.0

    def turn(self, seconds: float = 0.0) -> None:
        end = time.monotonic() + seconds
        while True:
            started = time.monotonic()
            self._application.processEvents()
            self.worst = max(self.worst, time.monotonic() - started)
            if time.monotonic() >= end:
                return
            time.sleep(0.001)


class SourceTest(WindowCase):
    """The file that is open is deleted, replaced, or lies in a folder that goes away."""

    def setUp(self):
        super().setUp()
        self.picture = self.folder / "held" / "a.png"
        self.picture.parent.mkdir()
        shutil.copy(DEMO / "close.png", self.picture)
        self.open(self.picture)
        self.click(140, 200)

    def work_on(self) -> np.ndarray:
        """Go on working; returns the result's pixels."""
        self.work.set_field("adjust.recolour.hue", self.work.sieve.adjust.recolour.hue + 20, "Hue")
        self.settle()
        self.click(150, 210)
        return self.viewing.last.pictures["result"].copy()

    def test_deleted_it_is_worked_on_exported_and_saved_all_the_same(self):
        before = self.work_on()
        self.picture.unlink()
        self.assertEqual(self.work_on().shape, before.shape)
        for name in ("out.png", "out.exr"):
            self.workspace.exports.write(self.folder / name)
            self.settle()
            self.assertEqual(
                open_source(self.folder / name).about.size, self.work.opened.source.about.size
            )
        self.assertTrue(self.workspace.saving.save(self.folder / "p.sieve"))
        self.assertEqual(storage.load(self.folder / "p.sieve").stack, self.work.project.stack)
        self.assertEqual(self.troubles, [])

    def test_replaced_by_another_size_what_is_open_stays_and_the_next_opening_says_so(self):
        self.workspace.saving.save(self.folder / "p.sieve")
        Image.new("RGB", (50, 30), (200, 90, 10)).save(self.picture)
        size = self.work.opened.source.about.size
        self.work_on()
        self.workspace.exports.write(self.folder / "out.png")
        self.settle()
        self.assertEqual(open_source(self.folder / "out.png").about.size, size)
        self.workspace.saving.save(self.folder / "p.sieve")
        said = []
        self.workspace.speech.said.connect(said.append)
        self.open(self.folder / "p.sieve")
        self.assertEqual(self.work.opened.source.about.size, (50, 30))
        self.assertTrue(
            any("has changed since the project was saved" in words for words in said), said
        )
        self.assertEqual(self.troubles, [])

    def test_when_the_folder_goes_saving_says_so_and_nothing_is_lost(self):
        self.workspace.saving.save(self.picture.parent / "p.sieve")
        self.work_on()
        shutil.rmtree(self.picture.parent)
        self.work_on()
        self.workspace.saving.save(self.picture.parent / "p.sieve")
        self.assertEqual(len(self.troubles), 1)
        self.assertIn("does not exist", self.troubles[0])
        self.assertTrue(self.work.history.changed)
        self.workspace.saving.keep_now()
        self.assertTrue(self.workspace.saving.save(self.folder / "elsewhere.sieve"))
        self.assertEqual(
            storage.load(self.folder / "elsewhere.sieve").stack, self.work.project.stack
        )

    def test_a_clip_and_numbered_pictures_that_go_are_said_and_others_go_on(self):
        clip = self.folder / "clip.mp4"
        shutil.copy(DEMO / "clip.mp4", clip)
        source = open_source(clip)
        clip.unlink()
        self.assertEqual(source.frame(30).planes.shape[0], 3)  # what is open can be read
        try:
            export_clip(
                source, Project(), self.folder / "out.mp4", (0, 3)
            )  # its sound is read anew
        except Trouble as trouble:
            self.assertIn("clip.mp4", str(trouble))
            self.assertNotIn("\n", str(trouble))
        source.close()
        for number in range(4):
            Image.new("RGB", (8, 8), (number, 0, 0)).save(self.folder / f"s.{number:04}.png")
        pictures = open_source(self.folder / "s.####.png")
        (self.folder / "s.0002.png").unlink()
        with self.assertRaisesRegex(Trouble, "s.0002.png does not exist"):
            pictures.frame(2)
        self.assertEqual(pictures.frame(3).planes.shape, (3, 8, 8))


class FullDiskTest(WindowCase):
    def test_a_full_disk_under_autosave_is_said_once_and_work_is_kept_as_soon_as_there_is_room(
        self,
    ):
        self.open(DEMO / "close.png")
        self.work.document._keep_after = 0.001 * 20
        real, full = recovery.write_text, [True]

        def write(path, text):
            if full[0]:
                raise Trouble(
                    f"{path} could not be written (No space left on device): choose another place "
                    "or free some space."
                )
            real(path, text)

        with mock.patch.object(recovery, "write_text", write):
            for number in range(5):
                self.work.set_field("adjust.light.exposure", 0.1 * number + 0.1, "Exposure")
                self.settle()
                time.sleep(0.03)
            self.wait(lambda: len(self.troubles) > 0)
            self.assertEqual(len(self.troubles), 1)
            self.assertIn("No space left", self.troubles[0])
            full[0] = False  # nothing is changed any more: it is tried again by itself
            mine = f"{os.getpid()}-"
            self.wait(
                lambda: any(
                    file.name.startswith(mine) for file in recovery.recovery_folder().glob("*.json")
                )
            )
        kept = [
            json.loads(file.read_text())
            for file in recovery.recovery_folder().glob(f"{os.getpid()}-*.json")
        ]
        self.assertEqual(
            [round(one["project"]["stack"][0]["adjust"]["light"]["exposure"], 3) for one in kept],
            [0.5],
        )
        self.troubles.clear()


class TwoWindowsTest(WindowCase):
    def test_of_two_windows_on_one_project_neither_writes_over_the_other(self):
        path = self.folder / "p.sieve"
        storage.save(Project(source=str(DEMO / "close.png")), path)
        self.open(path)
        other = Workspace()
        self.addCleanup(other.close)
        other.pictures.open(path)
        from amber_sieve.desk.start.waiting import settle

        settle(other)
        said = []
        other.speech.trouble.connect(said.append)
        self.work.set_field("adjust.light.exposure", 1.0, "Exposure")
        other.work.set_field("adjust.light.exposure", -1.0, "Exposure")
        self.assertTrue(self.workspace.saving.save(path))
        self.assertIsNot(other.saving.save(path), True)
        self.assertEqual(len(said), 1)
        self.assertIn("was changed by another window", said[0])
        self.assertTrue(other.work.history.changed)
        self.assertTrue(other.saving.save_all())  # beside it
        self.assertEqual(storage.load(path).stack[0].adjust.light.exposure, 1.0)
        self.assertEqual(
            storage.load(self.folder / "p-2.sieve").stack[0].adjust.light.exposure, -1.0
        )


class ManyTest(WindowCase):
    def test_a_drop_of_very_many_files_is_taken_at_once(self):
        paths = []
        picture = Image.new("RGB", (32, 24), (90, 60, 30))
        for number in range(DROPPED):
            paths.append(self.folder / f"p{number:04}.png")
            picture.save(paths[-1])
        mime = QMimeData()
        mime.setUrls([QUrl.fromLocalFile(str(path)) for path in paths])
        paused, heart, beats = Paused(self.application), QTimer(), [time.monotonic()]
        heart.timeout.connect(lambda: beats.append(time.monotonic()))
        heart.start(5)
        paused.turn(0.05)
        started = time.monotonic()
        event = QDropEvent(
            QPointF(300, 300),
            Qt.DropAction.CopyAction,
            mime,
            Qt.MouseButton.LeftButton,
            Qt.KeyboardModifier.NoModifier,
        )
        self.window.dropEvent(event)
        dropped = time.monotonic() - started
        while not self.workspace.idle:
            paused.turn()
        self.settle()
        worst = max(np.diff(beats))
        print(
            f"\n    {DROPPED} files: taken in {dropped:.2f} s, longest pause of the window "
            f"{worst:.2f} s"
        )
        self.assertLess(worst, PAUSE)
        self.assertEqual(len(self.workspace.tray.entries), DROPPED)
        self.assertTrue(all(entry.thumbnail is not None for entry in self.workspace.tray.entries))
        self.assertEqual(len(self.workspace.tray.noted.rows), DROPPED)
        self.assertLess(dropped, 0.02 * DROPPED + 2)
        self.assertEqual(self.troubles, [])

    def test_a_hundred_megabytes_on_the_clipboard_are_refused_at_once(self):
        self.open(DEMO / "close.png")
        board = QGuiApplication.clipboard()
        self.addCleanup(board.clear)
        for text in ("x" * 100_000_000, '{"amber_sieve": 6, "sieves": [' + "[" * 1_000_000):
            board.setText(text)
            started = time.monotonic()
            self.window.menus.actions["paste sieve"].trigger()
            self.assertLess(time.monotonic() - started, 5)
            self.assertIn("holds no sieve", self.troubles.pop())
        self.assertEqual(len(self.work.project.stack), 1)


class ClockTest(WindowCase):
    def test_a_clock_set_back_and_forth_changes_nothing(self):
        self.open(DEMO / "close.png")
        self.work.document._keep_after = 0.001 * 10
        chance, real = random.Random(3), time.time

        def jumping() -> float:
            return real() + chance.choice((0, -86_400 * 3650, 86_400 * 3650, -5, 5, 3600))

        with mock.patch("time.time", jumping):
            for number in range(10):
                self.click(140 + number, 200)
                self.work.set_field("adjust.light.exposure", 0.1 * number, "Exposure")
                self.settle()
            self.workspace.saving.save(self.folder / "p.sieve")
            self.workspace.exports.write(self.folder / "out.png")
            self.settle()
        self.assertEqual(storage.load(self.folder / "p.sieve").stack, self.work.project.stack)
        self.assertEqual(
            open_source(self.folder / "out.png").about.size, self.work.opened.source.about.size
        )
        self.assertEqual(recovery.left_behind(), [])
        self.assertEqual(self.troubles, [])


class DuringADragTest(WindowCase):
    def test_theme_and_language_change_while_something_is_dragged(self):
        self.open(DEMO / "close.png")
        self.click(140, 200)
        self.window.pages.setCurrentIndex(4)
        before = self.work.history.at
        for number in range(12):
            self.work.set_field("adjust.recolour.hue", float(number * 3 + 3), "Hue", group="drag")
            theme = ("light", "contrast", "dark")[number % 3]
            self.workspace.preferences.change(
                theme=theme, language=("de", "en")[number % 2], text_size=100.0 + 10 * (number % 6)
            )
            self.application.processEvents()
        self.work.end_drag()
        self.workspace.preferences.change(theme="dark", language="", text_size=100.0)
        self.settle()
        self.assertEqual(self.work.sieve.adjust.recolour.hue, 36)
        self.assertEqual(self.work.history.at, before + 1)  # one drag is one step
        self.assertEqual(self.troubles, [])


class EndedWhileSavingTest(FolderCase):
    SAVES = """
import pathlib, sys
from PyQt6.QtCore import QTimer
from amber_sieve.desk import app
from amber_sieve.project.model import Stroke, Area
target = pathlib.Path(sys.argv[1])
def save():
    for widget in app.application().topLevelWidgets():
        if hasattr(widget, "workspace") and widget.workspace.work.opened:
            work = widget.workspace.work
            dabs = tuple((float(k % 300), float(k % 200), 1.0) for k in range(30_000))
            number = len(said)
            areas = (Area(kind="brush", strokes=(Stroke(points=dabs),)),)
            work.edit_sieve(lambda s: s.but(name=str(number), areas=areas), "Name")
            widget.workspace.saving.save(target)
            said.append(number)
            print(number, flush=True)
said = []
running = app.application()
timer = QTimer()
timer.timeout.connect(save)
timer.start(5)
app.main([sys.argv[2]])
"""

    def test_asked_to_end_while_it_saves_the_file_is_whole_and_nothing_is_lost(self):
        chance = random.Random(5)
        environment = os.environ | {"PYTHONPATH": str(ROOT / "src"), "QT_QPA_PLATFORM": "offscreen"}
        for number in range(KILLS):
            target = self.folder / f"p{number}.sieve"
            words = [sys.executable, "-c", self.SAVES, str(target), str(DEMO / "close.png")]
            child = subprocess.Popen(words, stdout=subprocess.PIPE, text=True, env=environment)
            child.stdout.readline()
            time.sleep(chance.uniform(0, 0.6))
            child.send_signal(signal.SIGTERM)
            said = child.stdout.read().split()
            self.assertEqual(child.wait(30), 0)
            child.stdout.close()
            name = storage.load(target).stack[0].name
            left = [one for one in recovery.left_behind() if one.path == str(target)]
            newest = left[0].project.stack[0].name if left else name
            self.assertGreaterEqual(int(newest), int(said[-1]) if said else 0)
            for one in left:
                recovery.discard(one)
            self.assertEqual(
                [path.name for path in self.folder.iterdir() if path.name.startswith(".")], []
            )


class LongSessionTest(WindowCase):
    def test_clicks_undo_and_redo_leave_memory_flat_and_come_back_bit_by_bit(self):
        yard = Image.open(DEMO / "yard.png")
        picture = self.folder / "large.png"
        share = (MEGAPIXELS * 1e6 / (yard.width * yard.height)) ** 0.5
        yard.resize((round(yard.width * share), round(yard.height * share))).save(picture)
        self.open(picture)
        size, chance, paused = (
            self.work.opened.source.about.size,
            random.Random(9),
            Paused(self.application),
        )
        states, held = [], []
        for number in range(CLICKS):
            x, y = chance.randrange(size[0]), chance.randrange(size[1])
            role = (
                Qt.KeyboardModifier.ShiftModifier if number % 3 else Qt.KeyboardModifier.NoModifier
            )
            if number % 3 == 2:
                role = Qt.KeyboardModifier.ControlModifier
            self.click(x, y, role)
            if number % 5 == 4:
                self.work.set_field("adjust.recolour.hue", chance.uniform(-90, 90), "Hue")
                self.settle()
            states.append(self.work.project)
            if number >= CLICKS // 3:
                held.append(memory())
            paused.turn()
        self.assertEqual(self.troubles, [])
        print(
            f"\n    {CLICKS} clicks on {size[0] * size[1] / 1e6:.0f} MP: memory {held[0]:.0f} to "
            f"{held[-1]:.0f} MB, pause {paused.worst:.2f} s"
        )
        self.assertLess(held[-1] - held[0], GROWS)
        seen = {}
        for at in range(self.work.history.at, -1, -1):
            seen[at] = self.work.project.model_dump_json()
            self.work.undo()
        self.settle()
        for at in range(self.work.history.at, max(seen) + 1):
            self.assertEqual(self.work.project.model_dump_json(), seen[at])
            if at % max(1, CLICKS // 6) == 0:
                self.settle()
            self.work.redo()
        self.settle()
        self.assertEqual(self.work.project, states[-1])
        self.assertEqual(self.troubles, [])

    def test_pixels_after_undo_and_redo_are_what_they_were(self):
        self.open(DEMO / "close.png")
        chance, pixels = random.Random(4), []
        for number in range(STEPS // 6):
            if number % 2:
                self.work.set_field("adjust.recolour.hue", chance.uniform(-90, 90), "Hue")
            else:
                self.click(chance.randrange(600), chance.randrange(380))
            self.settle()
            pixels.append(
                (
                    self.work.history.at,
                    {name: held.copy() for name, held in self.viewing.last.pictures.items()},
                )
            )
        for at, wanted in [*reversed(pixels), *pixels]:
            self.work.go_to_step(at)
            self.settle()
            for name, held in wanted.items():
                self.assertTrue(np.array_equal(self.viewing.last.pictures[name], held), (at, name))


class EarlierProjectsTest(FolderCase):
    def test_projects_of_every_earlier_version_are_read_and_mean_the_same(self):
        # Files as versions 1 to 5 wrote them, from this project's own history; what each must mean
        # is in `means`.
        files = sorted((ROOT / "tests" / "earlier").glob("*.sieve"))
        self.assertEqual(
            [json.loads(file.read_text())["version"] for file in files], list(range(1, VERSION))
        )
        for file in files:
            with self.subTest(file=file.name):
                held = json.loads(file.read_text())
                means = held.pop("means")
                (self.folder / file.name).write_text(json.dumps(held))
                project = storage.load(self.folder / file.name)
                for path, value in means.items():
                    found = project
                    for name in path.split("."):
                        found = found[int(name)] if name.isdigit() else getattr(found, name)
                    self.assertEqual(
                        found, tuple(value) if isinstance(value, list) else value, path
                    )
                storage.save(project, self.folder / "now.sieve")
                self.assertEqual(storage.load(self.folder / "now.sieve"), project)

    def test_a_newer_one_is_refused_in_a_sentence(self):
        (self.folder / "new.sieve").write_text(json.dumps({"version": VERSION + 1}))
        with self.assertRaisesRegex(Trouble, "newer"):
            storage.load(self.folder / "new.sieve")


if __name__ == "__main__":
    unittest.main()

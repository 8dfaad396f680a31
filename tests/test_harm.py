"""Nobody's file is harmed: what is read is not written over, what others changed is not either, and
damaged files of ours stop nothing.
"""

import json
import os
import pathlib
import shutil
import stat
import threading
import time
import unittest
from unittest import mock

import numpy as np
from common import DEMO, FolderCase, WindowCase, terminal
from PIL import Image
from PyQt6.QtWidgets import QMessageBox

from amber_sieve.errors import Trouble
from amber_sieve.export.clip import ClipExport, export_clip
from amber_sieve.files import digest_of
from amber_sieve.media import stills
from amber_sieve.media.opening import open_source
from amber_sieve.project import open_tray, presets, recovery, sieve_presets, storage, store
from amber_sieve.project.model import Adjust, Band, Bands, Light, Mono, Project, Sieve

ALL = Bands(luminance=Band(on=True, corners=(-1, 0, 100, 101)))


def small_picture(
    path: pathlib.Path, level: int = 120, size: tuple[int, int] = (48, 32)
) -> pathlib.Path:
    Image.new("RGB", size, (level, 90, 60)).save(path)
    return path


class OverTheInput(FolderCase):
    """In a terminal one line, exit 1, and the file is as it was; with --overwrite it is written."""

    def refused(self, kept: pathlib.Path, *words: object) -> None:
        before = kept.read_bytes()
        done = terminal(*words)
        self.assertEqual(done.returncode, 1, done.stdout)
        self.assertEqual(len(done.stderr.strip().splitlines()), 1, done.stderr)
        self.assertNotIn("inside the program", done.stderr)
        self.assertEqual(kept.read_bytes(), before)

    def test_stills_masks_projects_and_links(self):
        picture = small_picture(self.folder / "a.png")
        (self.folder / "link.png").symlink_to("a.png")
        os.link(picture, self.folder / "hard.png")
        for out in ("a.png", "link.png", "hard.png", "./a.png"):
            self.refused(
                picture,
                "recolour",
                picture,
                "-o",
                self.folder / out,
                "--keep",
                "5,5",
                "--hue",
                "40",
            )
        self.refused(picture, "mask", picture, "-o", picture, "--keep", "5,5")
        self.refused(
            picture,
            "mask",
            picture,
            "-o",
            self.folder / "m.png",
            "--keep",
            "5,5",
            "--save",
            picture,
        )
        self.assertFalse((self.folder / "m.png").exists())
        done = terminal(
            "recolour", picture, "-o", picture, "--keep", "5,5", "--hue", "90", "--overwrite"
        )
        self.assertEqual((done.returncode, done.stderr), (0, ""))
        self.assertNotEqual(Image.open(picture).getpixel((5, 5)), (120, 90, 60))

    def test_a_sequence_onto_its_own_numbers_and_a_layer(self):
        for number in range(3):
            small_picture(self.folder / f"s.{number:04}.png", 40 * number)
        held = [(self.folder / f"s.{number:04}.png").read_bytes() for number in range(3)]
        source, project = (
            open_source(self.folder / "s.####.png"),
            Project(stack=(Sieve(bands=ALL, adjust=Adjust(mono=Mono(mono=100))),)),
        )
        with self.assertRaisesRegex(Trouble, "being read"):
            export_clip(source, project, self.folder / "s.####.png", (1, 2))
        self.assertEqual(
            [(self.folder / f"s.{number:04}.png").read_bytes() for number in range(3)], held
        )
        export_clip(
            source, project, self.folder / "s.####.png", (1, 2), how=ClipExport(overwrite=True)
        )
        self.assertNotEqual((self.folder / "s.0001.png").read_bytes(), held[1])

    def test_a_clip_in_the_window(self):
        shutil.copy(DEMO / "clip.mp4", self.folder / "c.mp4")
        with self.assertRaisesRegex(Trouble, "being read"):
            export_clip(
                open_source(self.folder / "c.mp4"), Project(), self.folder / "c.mp4", (0, 1)
            )

    def test_targets_that_cannot_be_files(self):
        picture = small_picture(self.folder / "a.png")
        locked = small_picture(self.folder / "locked.png")
        locked.chmod(0o444)
        for out in (
            self.folder,
            "",
            locked,
            "/dev/null",
            self.folder / "none" / "a.png",
            self.folder / "a.xyz",
        ):
            self.refused(picture, "recolour", picture, "-o", out, "--keep", "5,5")
        self.assertEqual(stat.S_IMODE(locked.stat().st_mode), 0o444)
        project = self.folder / "p.sieve"
        storage.save(Project(source=str(picture)), project)
        self.refused(picture, "batch", project, picture, "-o", picture)
        self.refused(picture, "batch", project, picture, "-o", self.folder)

    def test_a_name_that_is_no_text_in_a_batch(self):
        odd = os.fsencode(self.folder) + b"/in/\xff\xfe.png"
        (self.folder / "in").mkdir()
        small_picture(self.folder / "in" / "a.png")
        shutil.copy(self.folder / "in" / "a.png", os.fsdecode(odd))
        project = self.folder / "p.sieve"
        storage.save(Project(source=str(self.folder / "in" / "a.png")), project)
        done = terminal("batch", project, self.folder / "in", "-o", self.folder / "out")
        self.assertEqual(done.returncode, 1)
        self.assertEqual(len(done.stderr.strip().splitlines()), 1, done.stderr)
        self.assertIn("not UTF-8", done.stderr)
        self.assertTrue((self.folder / "out" / "batch.html").is_file())
        self.assertTrue((self.folder / "out" / "a.png").is_file())

    def test_a_key_beyond_the_range_of_its_number_is_told(self):
        key = {"frame": 0, "value": [1e6], "how": "linear"}
        held = {
            "version": 6,
            "source": "a.png",
            "stack": [{"tracks": [{"path": "adjust.light.exposure", "keys": [key]}]}],
        }
        small_picture(self.folder / "a.png")
        (self.folder / "p.sieve").write_text(json.dumps(held))
        done = terminal("render", self.folder / "p.sieve", "-o", self.folder / "o.png")
        self.assertEqual(done.returncode, 1)
        self.assertNotIn("inside the program", done.stderr)


class ReplacedMeanwhile(FolderCase):
    def test_stored_samples_of_another_file_are_never_exported(self):
        from amber_sieve.media.colour import profiles

        def saved(level: int, size: tuple[int, int]) -> None:
            Image.new("RGB", size, (level, 200, 30)).save(
                self.folder / "p3.png", icc_profile=profiles.named("Display P3")
            )

        for other in ((48, 32), (20, 10)):
            saved(100, (48, 32))
            source = open_source(self.folder / "p3.png")
            frame = source.frame(0)
            os.utime(self.folder / "p3.png", ns=(1, 1))
            saved(10, other)
            target = self.folder / "out.png"
            stills.write(
                target, source.about, lambda frame=frame: iter([(0, frame.planes)]), original=frame
            )
            self.assertLessEqual(abs(Image.open(target).getpixel((3, 3))[0] - 100), 1)


class Names(FolderCase):
    def test_presets_whose_names_differ_have_files_of_their_own(self):
        names = ("a/b", "a-b", "A-b", "🙂", "🙃", "..", "preset", " a-b")
        folder = self.folder / "presets"
        with mock.patch.object(store, "folder_of_presets", lambda: folder):
            for name in names:
                presets.STORE.keep(presets.Preset(name=name, swatch=(0, 0, 0)))
                presets.STORE.keep(presets.Preset(name=name, swatch=(1, 0, 0)))
            self.assertEqual(sorted(preset.name for preset in presets.STORE.all()), sorted(names))
            self.assertTrue(all(preset.swatch == (1, 0, 0) for preset in presets.STORE.all()))
            for name in ("x/y", "x-y"):
                sieve_presets.STORE.keep(sieve_presets.preset_of(name, Sieve(), b""))
            self.assertEqual(
                sorted(preset.name for preset in sieve_presets.STORE.all()), ["x-y", "x/y"]
            )
        self.assertTrue(
            all(path.resolve().is_relative_to(folder) for path in folder.rglob("*.json"))
        )


class DamagedState(FolderCase):
    def setUp(self) -> None:
        super().setUp()
        patch = mock.patch.dict(os.environ, {"XDG_STATE_HOME": str(self.folder)})
        patch.start()
        self.addCleanup(patch.stop)

    def test_a_damaged_tray_is_set_aside_and_told(self):
        row = '{"source": %s, "project": "", "shared": false, "frame": %s}'
        for text in (
            '{"windows": [{"process": 1e999, "started": "", "entries": [], "current": 0}]}',
            '{"entries": [' + row % ('"a"', "Infinity") + '], "current": 0}',
            '{"entries": [' + row % ('"\\ud800"', "1") + '], "current": 0}',
            '{"entries": [' + row % ('"a"', "NaN") + '], "current": 0}',
            "no json",
            "[]",
            '{"windows": 3}',
        ):
            open_tray.tray_file().parent.mkdir(parents=True, exist_ok=True)
            open_tray.tray_file().write_text(text)
            said: list[str] = []
            self.assertEqual(open_tray.take_over(said.append).rows, (), text)
            self.assertEqual(len(said), 1, text)
            self.assertIn("damaged", said[0])
            open_tray.note(open_tray.OpenTray((open_tray.Row("/a.png"),)))
            self.assertIn("/a.png", open_tray.tray_file().read_text())

    def test_two_windows_keep_their_trays_and_both_come_back(self):
        one, two = (
            open_tray.OpenTray((open_tray.Row(f"/{name}.png"), open_tray.Row(f"/{name}2.png")), 1)
            for name in "ab"
        )
        with mock.patch.object(open_tray.os, "getpid", return_value=os.getppid()):
            open_tray.note(one)
        open_tray.note(two)
        self.assertEqual(open_tray.take_over().rows, ())  # both windows run
        with mock.patch.object(open_tray, "_lives", return_value=False):
            back = open_tray.take_over()
        self.assertEqual(
            [row.source for row in back.rows], ["/a.png", "/a2.png", "/b.png", "/b2.png"]
        )
        self.assertEqual(back.rows[back.current].source, "/b2.png")
        open_tray.note(open_tray.OpenTray())  # a start with nothing open throws nothing away
        with mock.patch.object(open_tray, "_lives", return_value=False):
            self.assertEqual(open_tray.take_over().rows, ())

    def test_damaged_work_is_set_aside_and_told(self):
        folder = recovery.recovery_folder()
        folder.mkdir(parents=True)
        owner = {"process": 999_999_999, "started": ""}
        good = {"owner": owner, "title": "t", "path": "", "when": 5.0, "project": {"version": 6}}
        rows = (
            json.dumps(good | {"when": float("nan")}),
            json.dumps(good | {"when": 1e300}),
            json.dumps(good).replace('"t"', '"\\ud800"'),
        )
        for text in (
            *rows,
            "x",
            json.dumps(good | {"owner": {"process": 1e999, "started": ""}}),
            json.dumps(good | {"project": 3}),
        ):
            file = folder / "damaged.json"
            file.write_text(text)
            said: list[str] = []
            self.assertEqual(recovery.left_behind(said.append), [], text)
            self.assertEqual(len(said), 1, text)
            self.assertFalse(file.exists())
        (folder / "good.json").write_text(json.dumps(good))
        self.assertEqual([left.title for left in recovery.left_behind()], ["t"])

    def test_work_that_brought_the_program_down_twice_comes_with_its_sieves_off(self):
        project = Project(stack=(Sieve(id="s", adjust=Adjust(light=Light(exposure=1))),), solo="s")
        keeper = recovery.Recovery()
        found = []
        for falls in range(3):
            keeper.falls = falls
            keeper.keep(project, "t", None)
            with mock.patch.object(recovery, "is_running", return_value=False):
                found.append(recovery.left_behind()[0])
        self.assertEqual([left.falls for left in found], [1, 2, 3])
        self.assertEqual(found[0].offered, project)
        self.assertEqual([sieve.on for sieve in found[1].offered.stack], [False])
        self.assertEqual(found[1].offered.solo, "")
        self.assertEqual(found[2].offered.takes[0].stack, project.stack)
        self.assertTrue(found[2].offered.stack[0].adjust.neutral)
        self.assertEqual([bool(left.words) for left in found], [False, True, True])


class ChangedElsewhere(WindowCase):
    def test_it_is_said_and_saved_beside(self):
        picture = small_picture(self.folder / "a.png")
        path = self.folder / "a.sieve"
        storage.save(Project(source=str(picture)), path)
        self.open(path)
        self.work.edit(lambda project: project.but(gamut="clip"), "Gamut")
        storage.save(Project(source=str(picture), solo=""), path)
        theirs = storage.load(path)
        storage.save(theirs.but(stack=(Sieve(name="Theirs"),)), path)
        before = digest_of(path)
        self.assertFalse(self.workspace.saving.save(path))
        self.assertIn("changed by another", self.troubles[-1])
        self.assertEqual(digest_of(path), before)

        def choose(word: str):
            def run(box: QMessageBox) -> int:
                button = next(
                    (one for one in box.buttons() if one.text().replace("&", "") == word), None
                )
                box.clickedButton = lambda: button
                return 0

            return mock.patch.object(QMessageBox, "exec", run)

        with choose("Cancel"):
            self.assertFalse(self.window.files.save())
        with choose("Save beside it"):
            self.assertTrue(self.window.files.save())
        self.assertEqual(storage.load(self.folder / "a-2.sieve").gamut, "clip")
        self.assertEqual(digest_of(path), before)
        self.assertEqual(self.work.path, self.folder / "a-2.sieve")
        # Saved where nobody else was, it is simply saved.
        self.work.edit(lambda project: project.but(gamut="lower chroma"), "Gamut")
        self.assertTrue(self.window.files.save())
        (self.folder / "a-2.sieve").write_text("{}")
        self.work.edit(lambda project: project.but(gamut="clip"), "Gamut")
        with choose("Overwrite it"):
            self.assertTrue(self.window.files.save())
        self.assertEqual(storage.load(self.folder / "a-2.sieve").gamut, "clip")

    def test_a_project_never_takes_another_ending(self):
        picture = small_picture(self.folder / "a.png")
        self.open(picture)
        held = picture.read_bytes()
        self.assertFalse(self.workspace.saving.save(picture))
        self.assertEqual(picture.read_bytes(), held)

    def test_a_file_opened_again_and_again_is_one_entry(self):
        picture = small_picture(self.folder / "a.png")
        self.workspace.pictures.close_all()
        for _ in range(10):
            self.workspace.pictures.open(picture)
        self.settle()
        self.assertEqual([entry.name for entry in self.workspace.tray.entries], ["a.png"])
        for _ in range(3):
            self.workspace.pictures.open_many([picture])
        self.settle()
        self.assertEqual(len(self.workspace.tray.entries), 1)

    def test_too_many_samples_get_a_sentence(self):
        from amber_sieve.live.sampling import sample_at

        self.open(DEMO / "yard.png")
        sample = sample_at(self.viewing.last.frame, 50, 50)
        many = tuple(sample.but(id=f"s{k}") for k in range(256))
        self.work.edit_sieve(lambda sieve: sieve.but(pick=sieve.pick.but(samples=many)), "Many")
        self.click(200, 200, pane=0, held=self.shift())
        self.assertEqual(len(self.work.sieve.pick.samples), 256)
        self.assertIn("at most 256", self.troubles[-1])

    @staticmethod
    def shift():
        from PyQt6.QtCore import Qt

        return Qt.KeyboardModifier.ShiftModifier

    def test_the_loupe_promises_what_a_click_takes(self):
        """At outlines the two were up to 70 levels apart."""
        self.open(DEMO / "yard.png")
        promises: dict[tuple[int, int], tuple[float, ...]] = {}
        self.workspace.readout.promised.connect(
            lambda held: promises.__setitem__(held[:2], held[2])
        )
        for x, y in ((1120, 420), (660, 700), (900, 612), (5, 5), (1799, 1199)):
            self.workspace.readout.promise(x, y)
            self.settle()
            self.workspace.samples.take(x, y, fresh=True)
            self.settle()
            self.assertEqual(promises[x, y], self.work.sieve.pick.samples[-1].colour)
        for x in range(300, 340):  # many moves in a row: the newest is answered
            self.workspace.readout.promise(x, 500)
        self.settle()
        self.assertIn((339, 500), promises)

    def test_a_decimal_comma_is_a_point(self):
        from PyQt6.QtCore import Qt
        from PyQt6.QtTest import QTest

        from amber_sieve.desk.widgets.number import Number
        from amber_sieve.project.controls import blocks
        from amber_sieve.project.fields import numbers_of

        specs = [
            spec
            for _, kind in blocks()
            for spec in numbers_of(kind)
            if spec.decimals and spec.low <= 1.5 <= spec.high
        ]
        self.assertGreater(len(specs), 20)
        for spec in specs:
            field = Number(spec)
            field.show()
            for typed, wanted in (("1,5", 1.5), ("1.5", 1.5), (",5", 0.5), ("1,25e0", 1.25)):
                if spec.low <= wanted <= spec.high:
                    field.set(spec.start)
                    QTest.keyClicks(field, typed[0])
                    QTest.keyClicks(field._entry, typed[1:])
                    QTest.keyClick(field._entry, Qt.Key.Key_Return)
                    self.assertAlmostEqual(field.value(), wanted, places=5, msg=(spec.name, typed))
            field.close()

    def test_a_colour_of_another_picture_while_something_is_exported(self):
        from amber_sieve.desk.dialogs.picture_colour import PictureColour, show_picture

        self.open(DEMO / "close.png")
        gate = threading.Event()
        self.workspace.workers.jobs.run("Exporting", lambda progress: gate.wait(20), lambda _: None)
        show_picture(self.window, self.workspace.workers, DEMO / "yard.png", lambda colour: None)
        end = time.monotonic() + 20
        while not self.window.findChildren(PictureColour) and time.monotonic() < end:
            self.application.processEvents()
        gate.set()
        self.settle()
        self.assertEqual(self.troubles, [])
        self.window.findChildren(PictureColour)[0].close()

    def test_the_first_picture_has_its_thumbnail_and_only_the_shown_one_is_chosen(self):
        self.workspace.pictures.close_all()
        for name in ("yard.png", "close.png"):
            self.workspace.pictures.open(DEMO / name)
            self.settle()
        first, second = self.workspace.tray.entries
        self.assertGreater(int((first.thumbnail & 0xFF).max()), 100)
        self.assertEqual(self.window.tray.chosen, [second])
        self.workspace.pictures.go_to(first)
        self.settle()
        self.assertEqual(self.window.tray.chosen, [first])

    def test_a_sample_beside_a_smaller_clip(self):
        from amber_sieve.media.opening import open_source
        from amber_sieve.project.model import Pick, Sample
        from amber_sieve.render.context import RenderContext
        from amber_sieve.resolve.resolver import Resolver

        source = open_source(DEMO / "clip.mp4")
        self.addCleanup(source.close)
        sample = Sample(x=1700, y=1100, colour=(0.1, 0.2, 0.3), reach="here")
        project = Project(stack=(Sieve(pick=Pick(samples=(sample,))),))
        resolver = Resolver(source)
        for number in (0, 1, 30):
            stands = resolver.resolve_frame(project, source.frame(number), number, RenderContext())
            self.assertEqual(len(stands.stack[0].pick.samples), 1)

    def test_300_000_samples_are_refused_before_they_are_looked_at(self):
        sample = {"x": 1, "y": 2, "colour": [0.1, 0.2, 0.3]}
        held = {"version": 6, "stack": [{"pick": {"samples": [sample] * 300_000}}]}
        (self.folder / "big.sieve").write_text(json.dumps(held))
        with self.assertRaisesRegex(Trouble, "at most 256 are possible, it has 300000"):
            storage.load(self.folder / "big.sieve")

    def test_large_projects_are_written_in_parts_that_read_the_same(self):
        from amber_sieve.project.model import Area, Stroke

        rng = np.random.default_rng(1)
        points = tuple(
            map(
                tuple,
                np.column_stack(
                    [rng.uniform(0, 900, (50_000, 2)), rng.uniform(0, 1, 50_000)]
                ).tolist(),
            )
        )
        area = Area(kind="brush", strokes=(Stroke(points=points), Stroke(points=points[:3])))
        project = Project(source="", stack=(Sieve(name='an "odd" name — é', areas=(area,)),))
        self.assertEqual(Project.model_validate_json(storage.text_of(project)), project)
        self.assertEqual(
            Project.model_validate_json(storage.json_of(Project())),
            Project(stack=Project.model_validate_json(storage.json_of(Project())).stack),
        )


if __name__ == "__main__":
    unittest.main()

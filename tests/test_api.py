"""The Python interface: its examples run, and it gives what the terminal gives."""

import contextlib
import io
import os
import pathlib
import re

import numpy as np
from common import DEMO, ROOT, FolderCase, beyond, overlap, terminal, truth
from PIL import Image

from amber_sieve import api

EXAMPLES = re.findall(
    r"```python\n(.*?)```", (ROOT / "docs" / "python.md").read_text(encoding="utf-8"), re.DOTALL
)


class ApiTest(FolderCase):
    def test_the_three_examples_run_as_they_stand(self):
        self.assertEqual(len(EXAMPLES), 3)
        before = pathlib.Path.cwd()
        (self.folder / "demo").symlink_to(DEMO)
        os.chdir(self.folder)
        self.addCleanup(os.chdir, before)
        for example in EXAMPLES:
            said = io.StringIO()
            with contextlib.redirect_stdout(said):
                exec(compile(example, "docs/python.md", "exec"), {})
            print(said.getvalue().strip())
        colours = [
            np.asarray(Image.open(self.folder / f"cloth-{turn}.png"))[400, 1205]
            for turn in (0, 72, 144, 216, 288)
        ]
        self.assertEqual(len({tuple(colour) for colour in colours}), 5)

    def test_a_mask_and_a_result_are_those_of_the_terminal(self):
        with api.open(DEMO / "yard.png") as picture:
            self.assertEqual((picture.size, picture.frames), ((1800, 1200), 1))
            jar = api.sieve(picture, keep=[(742, 790)], drop=[(1200, 400)], edge__grow=1.0)
            mask = api.mask(picture, jar)
            self.assertGreater(overlap(mask, truth("yard", "turquoise")), 0.8)
            api.write_mask(picture, jar, self.folder / "ours.png")
            red = api.adjusted(jar, recolour__hue=150.0)
            work = api.project(picture, red)
            api.write(picture, work, self.folder / "result.png")
            api.save(work, self.folder / "work.sieve")
            light = api.render(picture, work)
            same = light == picture.pixels()
            self.assertTrue(same[:, beyond(mask)].all())
        done = terminal(
            "mask",
            DEMO / "yard.png",
            "-o",
            self.folder / "theirs.png",
            "--keep",
            "742,790",
            "--drop",
            "1200,400",
            "--grow",
            "1",
        )
        self.assertEqual(done.returncode, 0, done.stderr)
        self.assertEqual(
            (self.folder / "ours.png").read_bytes(), (self.folder / "theirs.png").read_bytes()
        )
        self.assertEqual(
            terminal(
                "render", self.folder / "work.sieve", "-o", self.folder / "again.png"
            ).returncode,
            0,
        )
        ours, theirs = (
            np.asarray(Image.open(self.folder / name)) for name in ("result.png", "again.png")
        )
        self.assertTrue(np.array_equal(ours, theirs))
        self.assertEqual(api.read(self.folder / "work.sieve").stack, work.stack)

    def test_a_batch_and_troubles_in_a_sentence(self):
        for name in ("a.png", "b.png"):
            Image.fromarray(np.full((40, 60, 3), 120, np.uint8)).save(self.folder / name)
        with api.open(self.folder / "a.png") as picture:
            work = api.project(
                picture, api.adjusted(api.sieve(picture, keep=[(10, 10)]), light__exposure=1.0)
            )
            with self.assertRaises(api.Trouble):  # what is read is not written over
                api.write(picture, work, self.folder / "a.png")
        outcomes = api.batch(
            work, [self.folder / "a.png", self.folder / "b.png"], self.folder / "out"
        )
        self.assertEqual([outcome.trouble for outcome in outcomes], ["", ""])
        self.assertGreater(np.asarray(Image.open(self.folder / "out" / "b.png")).mean(), 150)
        with self.assertRaises(api.Trouble):
            api.open(self.folder / "nothing.png")
        for name in api.__all__:
            self.assertTrue(getattr(api, name).__doc__, name)

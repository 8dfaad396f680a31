"""The model, its history and its files."""

import json
import os
import unittest
from unittest import mock

from common import FolderCase
from pydantic import ValidationError

from amber_sieve.core.adjust.dye import Dye
from amber_sieve.errors import Trouble
from amber_sieve.project import storage
from amber_sieve.project.history import History
from amber_sieve.project.model import Adjust, Pick, Project, Recolour, Sample, Sieve
from amber_sieve.render.resolved import with_found


def sample(**changes) -> Sample:
    return Sample(**({"x": 3, "y": 4, "colour": (0.1, 0.2, 0.3)} | changes))


class ModelTest(unittest.TestCase):
    def test_values_are_frozen_and_checked(self):
        with self.assertRaises(ValidationError):
            Adjust().hue = 3  # type: ignore[misc]
        with self.assertRaises(ValidationError):
            Adjust().but(hue=400)
        with self.assertRaises(ValidationError):
            sample(colour=(float("nan"), 0, 0))
        with self.assertRaises(ValidationError):
            Project(stack=(Sieve(id="a"), Sieve(id="a")))

    def test_equal_values_are_one_key(self):
        one = Pick(samples=(sample(id="s"),))
        self.assertEqual(hash(one), hash(Pick(samples=(sample(id="s"),))))
        self.assertNotEqual(one, one.but(shading=10))

    def test_a_new_sieve_changes_nothing(self):
        self.assertTrue(Sieve().adjust.neutral)


class HistoryTest(unittest.TestCase):
    def test_undo_redo_and_branches(self):
        history = History(Project())
        first = history.project
        second = first.but(gamut="clip")
        history.push(second, "Gamut")
        self.assertEqual(history.undoes, "Gamut")
        self.assertTrue(history.undo())
        self.assertEqual(history.project, first)
        self.assertEqual(history.redoes, "Gamut")
        self.assertTrue(history.redo())
        self.assertIs(history.project, second)
        history.undo()
        history.push(first.but(source="other.png"), "Other")
        self.assertFalse(history.redo())

    def test_one_drag_is_one_step(self):
        history = History(Project())
        for degrees in range(1, 30):
            history.push(
                history.project.with_sieve(
                    history.project.stack[0].but(adjust=Adjust(recolour=Recolour(hue=degrees)))
                ),
                "Hue",
                "hue",
            )
        history.close_group()
        history.push(
            history.project.with_sieve(
                history.project.stack[0].but(adjust=Adjust(recolour=Recolour(hue=90)))
            ),
            "Hue",
            "hue",
        )
        history.undo()
        self.assertEqual(history.project.stack[0].adjust.recolour.hue, 29)
        history.undo()
        self.assertEqual(history.project.stack[0].adjust.recolour.hue, 0)

    def test_changed_follows_saving(self):
        history = History(Project())
        self.assertFalse(history.changed)
        history.push(history.project.but(gamut="clip"), "Gamut")
        self.assertTrue(history.changed)
        history.mark_saved()
        self.assertFalse(history.changed)
        history.undo()
        self.assertTrue(history.changed)
        history.push(history.project.but(source="x"), "Source")
        self.assertTrue(history.changed)


class StorageTest(FolderCase):
    def test_round_trip_and_relative_source(self):
        picture = self.folder / "picture.png"
        project = Project(source=str(picture), stack=(Sieve(pick=Pick(samples=(sample(),))),))
        path = self.folder / "work.sieve"
        storage.save(project, path)
        self.assertEqual(json.loads(path.read_text())["source"], "picture.png")
        self.assertEqual(storage.load(path), project)

    def test_schema_describes_what_is_written(self):
        schema = storage.schema()
        self.assertEqual(schema["title"], "Amber Sieve project")
        written = json.loads(Project().model_dump_json())
        self.assertEqual(set(written), set(schema["properties"]))
        self.assertFalse(schema["additionalProperties"])

    def check_trouble(self, text: str, *words: str) -> None:
        path = self.folder / "bad.sieve"
        path.write_text(text)
        with self.assertRaises(Trouble) as caught:
            storage.load(path)
        for word in ("bad.sieve", *words):
            self.assertIn(word, str(caught.exception))
        self.assertNotIn("\n", str(caught.exception))

    def test_what_was_found_on_a_picture_is_neither_saved_nor_asked_for(self):
        """Files of version 6 held it at first; they load, and it is not written again."""
        blocks = {
            "match": {"target": [0.3, 0.1, 0.1], "found": [1, 0, 0]},
            "even": {"even_hue": 20, "mean": [50, 40]},
            "detail": {"grain": 5, "frame": 7},
        }
        path = self.folder / "six.sieve"
        path.write_text(json.dumps({"version": 6, "stack": [{"name": "One", "adjust": blocks}]}))
        project = storage.load(path)
        self.assertEqual(
            (project.stack[0].adjust.match.target, project.stack[0].adjust.even.even_hue),
            ((0.3, 0.1, 0.1), 20),
        )
        learnt = with_found(project.stack[0], match=Dye(), even=(50.0, 40.0), frame=7)
        storage.save(project.with_sieve(learnt), path)
        adjust = json.loads(path.read_text())["stack"][0]["adjust"]
        self.assertEqual(
            [
                name
                for block in adjust.values()
                for name in block
                if name in ("found", "mean", "frame", "table")
            ],
            [],
        )
        self.assertNotIn("found", json.loads(path.read_text())["stack"][0])

    def test_what_is_wrong_is_said_in_one_sentence(self):
        self.check_trouble("hello", "not valid JSON")
        self.check_trouble("[1]", "JSON object")
        self.check_trouble("{}", "no version")
        self.check_trouble('{"version": 99}', "newer version", "99")
        self.check_trouble('{"version": 1, "colour": 3}', "wrong field", "colour")
        good = json.loads(Project().model_dump_json())
        good["stack"][0]["strength"] = "loud"
        self.check_trouble(json.dumps(good), "stack.0.strength")
        with self.assertRaises(Trouble):
            storage.load(self.folder / "none.sieve")

    def test_a_failed_save_leaves_the_earlier_file_whole(self):
        path = self.folder / "work.sieve"
        storage.save(Project(), path)
        before = path.read_bytes()
        with (
            mock.patch.object(os, "replace", side_effect=OSError(28, "No space left on device")),
            self.assertRaises(Trouble) as caught,
        ):
            storage.save(Project(gamut="clip"), path)
        self.assertIn("No space left", str(caught.exception))
        self.assertEqual(path.read_bytes(), before)
        self.assertEqual([p.name for p in self.folder.iterdir()], ["work.sieve"])
        for target in (self.folder / "missing" / "x.sieve", self.folder):
            with self.assertRaises(Trouble):
                storage.save(Project(), target)

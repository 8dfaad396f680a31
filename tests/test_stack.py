"""The stack: masks made from others', copies, takes, history; in the model, in renders, and in the
real window.
"""

import json
import unittest
from unittest import mock

import cv2
import numpy as np
from common import DEMO, FolderCase, WindowCase, demo_frame, rendered_whole, solid
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QGuiApplication
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QMenu, QMessageBox

from amber_sieve.core.colour.oklab import to_oklab
from amber_sieve.core.frame import Frame
from amber_sieve.core.pick.samples import SampleParams, distance_to
from amber_sieve.desk.panels.stack_menu import fill_groups_menu, fill_mask_menu, fill_takes_menu
from amber_sieve.errors import Trouble
from amber_sieve.live.sampling import sample_at
from amber_sieve.project import clippings, edits, storage
from amber_sieve.project.model import (
    Adjust,
    Area,
    Band,
    Bands,
    Edge,
    Joined,
    Light,
    Pick,
    Project,
    Sieve,
)
from amber_sieve.render import mask as mask_module
from amber_sieve.render.automatic import with_found_amounts
from amber_sieve.render.believable import believable_of
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext
from amber_sieve.render.resolved import found_of
from amber_sieve.render.stack import render, sieve_mask
from amber_sieve.render.why import why

BARE = Edge(specks=0, holes=0, follow=0, clean=0, level=0)


def sieve(name: str, low: float, high: float, **more) -> Sieve:
    """A sieve that masks a band of luminance, and darkens."""
    band = Band(on=True, corners=(low, low, high, high))
    return Sieve(
        id=name,
        name=name,
        bands=Bands(luminance=band),
        edge=BARE,
        adjust=Adjust(light=Light(exposure=-1)),
        **more,
    )


def ramp() -> Frame:
    """L* from 0 to 100 across."""
    lightness = np.linspace(0, 100, 200)
    light = np.where(lightness > 8, ((lightness + 16) / 116) ** 3, lightness * 27 / 24389)
    return Frame(np.broadcast_to(light.astype(np.float32), (3, 20, 200)).copy())


class LinksTest(unittest.TestCase):
    def mask(self, project: Project, name: str) -> np.ndarray:
        return sieve_mask(ramp(), project, name, RenderContext(Cache(10**8)))[10]

    def test_same_opposite_left_and_joined(self):
        dark, light = sieve("dark", 0, 30), sieve("light", 70, 100)
        project = Project(stack=(dark, light, Sieve(id="x", name="x")))
        own = {name: self.mask(project, name) for name in ("dark", "light")}
        for kind, of, opposite, wanted in (
            ("same", ("dark",), False, own["dark"]),
            ("same", ("dark",), True, 1 - own["dark"]),
            ("left", ("dark", "light"), False, 1 - np.maximum(own["dark"], own["light"])),
        ):
            np.testing.assert_allclose(
                self.mask(edits.with_mask_from(project, "x", kind, of, opposite), "x"),
                wanted,
                atol=1e-6,
            )
        for mode, wanted in (
            ("add", np.maximum(own["dark"], own["light"])),
            ("subtract", own["light"] * (1 - own["dark"])),
            ("intersect", own["light"] * own["dark"]),
        ):
            joined = edits.with_joined(project, "light", (Joined(mode=mode, of="dark"),))
            np.testing.assert_allclose(self.mask(joined, "light"), wanted, atol=1e-6)

    def test_links_are_live_through_chains(self):
        project = Project(
            stack=(sieve("a", 0, 30), Sieve(id="b", name="b"), Sieve(id="c", name="c"))
        )
        project = edits.with_mask_from(project, "b", "same", ("a",), True)
        project = edits.with_mask_from(project, "c", "same", ("b",))
        before = self.mask(project, "c")
        wider = project.with_sieve(
            project.sieve("a").but(bands=Bands(luminance=Band(on=True, corners=(0, 0, 60, 60))))
        )
        after = self.mask(wider, "c")
        np.testing.assert_allclose(after, 1 - self.mask(wider, "a"), atol=1e-6)
        self.assertGreater(before.sum(), after.sum() + 20)

    def test_circles_are_refused_and_said(self):
        project = Project(stack=(sieve("a", 0, 30), sieve("b", 40, 60), sieve("c", 70, 90)))
        project = edits.with_mask_from(project, "b", "same", ("a",))
        project = edits.with_mask_from(project, "c", "same", ("b",))
        for what in (
            lambda: edits.with_mask_from(project, "a", "same", ("c",)),
            lambda: edits.with_joined(project, "a", (Joined(of="c"),)),
            lambda: edits.with_mask_from(project, "a", "same", ("a",)),
        ):
            with self.assertRaisesRegex(Trouble, "circle"):
                what()
        # What measures the result leans on all that come before it.
        late = sieve("late", 0, 50).but(pick={"measure": "result"})
        with self.assertRaises(ValueError):
            Project(stack=(sieve("a", 0, 1).but(mask_from="same", of=("late",)), late))
        with self.assertRaises(ValueError):
            Project(stack=(sieve("a", 0, 1).but(mask_from="same", of=("nowhere",)),))

    def test_unlinking_keeps_the_mask(self):
        project = Project(stack=(sieve("a", 0, 30), Sieve(id="b", name="b"), sieve("c", 60, 80)))
        for kind, opposite in (("same", False), ("same", True), ("left", False)):
            linked = edits.with_joined(
                edits.with_mask_from(project, "b", kind, ("a",), opposite),
                "b",
                (Joined(mode="add", of="c"),),
            )
            without = linked.with_sieve(edits.unlinked(linked, linked.sieve("b"), "a"))
            np.testing.assert_allclose(self.mask(without, "b"), self.mask(linked, "b"), atol=1e-6)
            gone = edits.without_sieve(linked, "a")
            np.testing.assert_allclose(self.mask(gone, "b"), self.mask(linked, "b"), atol=1e-6)

    def test_a_mask_used_by_five_is_worked_out_once(self):
        stack = [sieve("a", 0, 30)]
        stack += [
            Sieve(
                id=f"s{k}",
                name=f"s{k}",
                mask_from="same",
                of=("a",),
                opposite=k % 2 == 0,
                adjust=Adjust(light=Light(exposure=0.1)),
            )
            for k in range(5)
        ]
        project = Project(stack=tuple(stack))
        with mock.patch.object(mask_module, "edge_of", wraps=mask_module.edge_of) as counted:
            render(ramp(), project, RenderContext(Cache(10**8)))
            self.assertEqual(counted.call_count, 1)
            rendered_whole(ramp(), project)
            self.assertEqual(counted.call_count, 2)

    def test_what_is_lent_follows_the_unmixed_outline(self):
        project = storage.load(DEMO / "yard.sieve")
        first = project.stack[0]
        linked = project.but(
            stack=(
                first.but(adjust=Adjust()),
                Sieve(
                    id="copy", name="copy", mask_from="same", of=(first.id,), adjust=first.adjust
                ),
            )
        )
        frame = demo_frame("yard").part(1150, 200, 1500, 700)
        one, other = (rendered_whole(frame, p).planes for p in (project, linked))
        self.assertEqual(one.tobytes(), other.tobytes())

    def test_leftovers_are_what_still_has_the_colour_after_a_sieve(self):
        """Two patches of red, one a little off: the first is recoloured, the sieve for leftovers
        takes the second and not what was made of the first.
        """
        planes = np.full((3, 40, 80), 0.4, np.float32)
        planes[:, 5:35, 5:35] = np.array((0.5, 0.05, 0.04), np.float32)[:, None, None]
        planes[:, 5:35, 45:75] = np.array((0.5, 0.062, 0.042), np.float32)[:, None, None]
        frame, cache = Frame(planes), RenderContext(Cache(10**8))
        near = float(distance_to(to_oklab(planes), [SampleParams((0.5, 0.05, 0.04))])[20, 60])
        first = Sieve(
            id="one",
            name="one",
            edge=BARE,
            pick=Pick(samples=(sample_at(frame, 20, 20, tolerance=near / 1.25, falloff=0),)),
            adjust=Adjust(recolour={"hue": 120}),
        )
        project, fresh = edits.with_leftovers_of(Project(stack=(first,)), "one")
        project = project.with_sieve(fresh.but(edge=BARE))
        mask = sieve_mask(frame, project, fresh.id, cache)
        self.assertEqual((mask[20, 20], mask[20, 60]), (0, 1))
        self.assertTrue(project.stack[1].adjust.neutral)

    def test_why_a_pixel_is_in_names_what_decided_at_every_stage(self):
        """A ramp of L* from 0 to 100: luminance bands, drops, areas, strength and inversion, by
        what is known of each.
        """
        frame = ramp()
        place = lambda lightness: (round(lightness / 100 * (frame.width - 1)), 10)  # noqa: E731
        one = sieve("one", 40, 60).but(
            strength=50,
            areas=(Area(kind="rect", mode="subtract", points=((120, 10), (140, 10), (120, 20))),),
        )

        def told(sieve: Sieve, lightness: float) -> str:
            return " ".join(
                why(
                    frame,
                    Project(stack=(sieve,)),
                    "one",
                    place(lightness),
                    RenderContext(Cache(10**7)),
                )
            )

        inside, outside = told(one, 55), told(one, 90)
        for words in (
            "inside the band from 40 to 60",
            "By colour it is 100 %",
            "takes away 100 % here",
            "is out",
        ):
            self.assertIn(words, inside)
        self.assertIn("outside the band", outside)
        self.assertIn("Strength is 50 %", told(one.but(areas=()), 50))
        self.assertIn("The mask is inverted: 100 %", told(one.but(areas=(), invert=True), 90))
        self.assertIn("No sample and no band is set", told(Sieve(id="one", name="one"), 50))
        # Of two keep samples the one whose tolerance reaches the pixel decides, not the nearer one.
        flat = Frame(np.full((3, 20, 20), 0.2, np.float32))
        near, far = (
            sample_at(
                Frame(np.full((3, 20, 20), light, np.float32)),
                5,
                5,
                compare="luminance",
                tolerance=tolerance,
            )
            for light, tolerance in ((0.21, 0.1), (0.3, 40.0))
        )
        both = Sieve(id="one", name="one", edge=BARE, pick=Pick(samples=(near, far)))
        said = " ".join(
            why(flat, Project(stack=(both,)), "one", (10, 10), RenderContext(Cache(10**7)))
        )
        self.assertIn("decides is keep 2", said)
        self.assertIn("so it keeps this pixel", said)
        lent = why(
            frame,
            Project(stack=(one, Sieve(id="two", name="two", mask_from="same", of=("one",)))),
            "two",
            place(50),
            RenderContext(Cache(10**7)),
        )
        self.assertIn("made from one: ask there", lent[-1])

    def test_what_is_found_of_a_lent_mask_follows_it(self):
        """Match, Believable? and haze of a sieve whose mask is another's, also one that comes later
        in the stack.
        """
        early = Sieve(
            id="early",
            name="early",
            mask_from="same",
            of=("late",),
            adjust=Adjust(match={"target": (0.2, 0.05, 0.05)}),
        )
        for low in (0, 50):
            project = Project(stack=(early, sieve("late", low, low + 30).but(adjust=Adjust())))
            cache = RenderContext(Cache(10**8))
            found = with_found_amounts(project, ramp(), cache)
            mask = (
                cv2.erode(
                    (sieve_mask(ramp(), found, "early", cache) >= 0.98).astype(np.uint8),
                    np.ones((3, 3), np.uint8),
                )
                > 0
            )
            out = render(ramp(), found, cache)[:, mask].mean(axis=1)
            np.testing.assert_allclose(out, (0.2, 0.05, 0.05), atol=2e-3)
            self.assertGreater(believable_of(ramp(), found, "early", cache).moved, 5)
        # One cache through both: nothing is taken for what the other mask was.
        cache = RenderContext(Cache(10**8))
        moved = []
        for low in (0, 50):
            project = Project(
                stack=(
                    early.but(adjust=Adjust(light=Light(exposure=1))),
                    sieve("late", low, low + 30).but(adjust=Adjust()),
                )
            )
            moved.append(believable_of(ramp(), project, "early", cache).moved)
        self.assertNotAlmostEqual(*moved, places=1)

    def test_a_sieve_that_is_off_works_alone_with_its_match(self):
        alone = sieve("a", 40, 100).but(on=False, adjust=Adjust(match={"target": (0.3, 0.1, 0.1)}))
        project = Project(stack=(alone, sieve("b", 0, 20)), solo="a")
        cache = RenderContext(Cache(10**8))
        self.assertIsNotNone(found_of(with_found_amounts(project, ramp(), cache).stack[0]).match)

    def test_solo(self):
        project = Project(stack=(sieve("a", 0, 30), sieve("b", 50, 100)))
        alone = render(ramp(), project.but(solo="b"), RenderContext())
        np.testing.assert_array_equal(
            alone, render(ramp(), Project(stack=(project.stack[1],)), RenderContext())
        )


class GroupsTest(unittest.TestCase):
    def test_a_group_switches_and_weakens_its_sieves(self):
        project = Project(stack=(sieve("a", 0, 40), sieve("b", 60, 100)))
        project = edits.with_group(edits.with_group(project, "a", "Both"), "b", "Both")
        (group,) = project.groups
        half = render(
            ramp(), edits.with_changed_group(project, group.id, strength=50.0), RenderContext()
        )
        alone = render(
            ramp(), Project(stack=tuple(s.but(strength=50) for s in project.stack)), RenderContext()
        )
        np.testing.assert_array_equal(half, alone)
        off = render(ramp(), edits.with_changed_group(project, group.id, on=False), RenderContext())
        np.testing.assert_array_equal(off, ramp().planes)
        self.assertEqual({s.group for s in edits.without_group(project, group.id).stack}, {""})


class ClippingsTest(FolderCase):
    def test_sieves_travel_as_json_and_keep_their_links(self):
        a, b = sieve("a", 0, 30), Sieve(id="b", name="b", mask_from="same", of=("a",))
        text = clippings.text_of((a, b))
        json.loads(text)
        project, copies = edits.with_pasted(Project(), clippings.sieves_in(text))
        self.assertEqual(copies[1].of, (copies[0].id,))
        self.assertNotIn(copies[0].id, ("a", "b"))
        self.assertEqual(len(project.stack), 3)
        for wrong in (
            "",
            "{}",
            "hello",
            '{"amber_sieve": 99, "sieves": [{"name": "x"}]}',
            "[" * 5000,
        ):
            with self.assertRaises(Trouble):
                clippings.sieves_in(wrong)

    def test_only_the_mask_or_only_the_adjustments(self):
        one, other = (
            sieve("a", 0, 30),
            sieve("b", 50, 60).but(
                adjust=Adjust(), areas=(Area(kind="rect", points=((1, 1), (2, 1), (1, 2))),)
            ),
        )
        masked, adjusted = (
            edits.with_part_of(one, other, "mask"),
            edits.with_part_of(other, one, "adjustments"),
        )
        self.assertEqual(
            (masked.bands, masked.areas, masked.adjust), (other.bands, other.areas, one.adjust)
        )
        self.assertEqual((adjusted.bands, adjusted.adjust), (other.bands, one.adjust))

    def test_takes_and_links_are_saved(self):
        project = Project(
            source=str(DEMO / "yard.png"),
            stack=(sieve("a", 0, 30), Sieve(id="b", name="b", mask_from="same", of=("a",))),
        )
        project = edits.with_take(project, "First").but(solo="a")
        fill = project.sieve("b").adjust.fill.but(
            fill="picture", fill_picture=str(self.folder / "sky.png")
        )
        project = project.with_sieve(project.sieve("b").but(adjust=Adjust(fill=fill)))
        storage.save(project, self.folder / "p.sieve")
        self.assertIn('"fill_picture": "sky.png"', (self.folder / "p.sieve").read_text())
        loaded = storage.load(self.folder / "p.sieve")
        self.assertEqual(loaded.but(source_mark=""), project)
        self.assertEqual(len(loaded.source_mark), 32)


class StackWindowTest(WindowCase):
    def setUp(self) -> None:
        super().setUp()
        self.open(DEMO / "yard.png")

    def choose(self, menu: QMenu, *names: str) -> None:
        """Choose an entry of a menu by the names on the way to it."""
        for name in names:
            action = next(
                action for action in menu.actions() if action.text().replace("&", "") == name
            )
            menu = action.menu() or menu
        action.trigger()
        self.settle()

    def test_a_mask_from_another_and_its_removal(self):
        self.click(742, 790)
        first = self.work.sieve.id
        self.workspace.stack.add()
        self.settle()
        menu = QMenu()
        fill_mask_menu(menu, self.workspace)
        self.choose(menu, "Opposite of", "Sieve 1")
        held = float(self.viewing.last.coverage.whole)
        self.assertGreater(held, 0.95)
        self.window.stack.follow()
        self.assertIn("opposite of Sieve 1", self.window.stack.list.item(1).text())
        self.assertIn("opposite of Sieve 1", self.window.stack.mask_from.toolTip())
        # A click in the picture would change a mask that is not looked at: it is said instead.
        samples = self.work.sieve.pick.samples
        self.click(300, 200)
        self.assertEqual(self.work.sieve.pick.samples, samples)
        self.work.select(first)
        with mock.patch.object(
            QMessageBox, "question", return_value=QMessageBox.StandardButton.Cancel
        ):
            self.window.stack.remove()
        self.assertEqual(len(self.work.project.stack), 2)
        with mock.patch.object(
            QMessageBox, "question", return_value=QMessageBox.StandardButton.Yes
        ) as asked:
            self.window.stack.remove()
        self.assertIn("Sieve 2", asked.call_args[0][2])
        self.settle()
        self.assertEqual(len(self.work.project.stack), 1)
        self.assertEqual(self.work.sieve.mask_from, "own")
        self.assertAlmostEqual(float(self.viewing.last.coverage.whole), held, places=3)
        self.work.undo()
        self.settle()
        self.assertEqual(len(self.work.project.stack), 2)
        self.assertEqual(self.troubles, [])

    def test_left_by_several_joined_and_unlinked(self):
        self.click(742, 790)
        self.workspace.stack.add()
        self.click(1205, 400)
        self.workspace.stack.add()
        self.settle()
        for name in ("Sieve 1", "Sieve 2"):
            menu = QMenu()
            fill_mask_menu(menu, self.workspace)
            self.choose(menu, "The rest of", name)
        self.assertEqual(len(self.work.sieve.of), 2)
        self.assertGreater(float(self.viewing.last.coverage.whole), 0.85)
        menu = QMenu()
        fill_mask_menu(menu, self.workspace)
        self.choose(menu, "Add to it", "Sieve 1")
        self.assertEqual(self.work.sieve.joined[0].mode, "add")
        menu = QMenu()
        fill_mask_menu(menu, self.workspace)
        self.choose(menu, "Own pick")
        self.assertEqual(self.work.sieve.of, ())

    def test_copy_paste_duplicate_solo_and_order(self):
        self.click(742, 790)
        self.work.set_field("adjust.light.exposure", 1.0, "Exposure")
        commands = self.window.menus.actions
        commands["copy sieve"].trigger()
        self.assertIn("samples", QGuiApplication.clipboard().text())
        commands["paste sieve"].trigger()
        commands["duplicate sieve"].trigger()
        self.settle()
        self.assertEqual(len(self.work.project.stack), 3)
        self.workspace.stack.add()
        commands["paste adjustments"].trigger()
        self.assertEqual(self.work.sieve.adjust.light.exposure, 1)
        self.assertEqual(self.work.sieve.pick.samples, ())
        commands["solo"].trigger()
        self.settle()
        self.assertEqual(self.work.project.solo, self.work.sieve.id)
        commands["sieve up"].trigger()
        ids = [s.id for s in self.work.project.stack]
        self.workspace.stack.order(ids[::-1])
        self.assertEqual([s.id for s in self.work.project.stack], ids[::-1])
        QGuiApplication.clipboard().setText("nothing of ours")
        commands["paste sieve"].trigger()
        self.assertEqual(len(self.troubles), 1)

    def test_groups(self):
        self.click(742, 790)
        self.work.set_field("adjust.light.exposure", 1.0, "Exposure")
        self.workspace.stack.put_into_group("Pots")
        self.settle()
        seen = self.viewing.last.pictures["result"].copy()
        menu = QMenu()
        fill_groups_menu(menu, self.workspace, self.window)
        self.choose(menu, "Pots", "On")
        self.assertFalse(self.work.project.groups[0].on)
        self.assertGreater(int((self.viewing.last.pictures["result"] != seen).sum()), 1000)
        self.window.stack.follow()
        self.assertIn("in Pots (off)", self.window.stack.list.item(0).text())
        menu = QMenu()
        fill_groups_menu(menu, self.workspace, self.window)
        self.choose(menu, "No group")
        self.settle()
        self.assertTrue(np.array_equal(self.viewing.last.pictures["result"], seen))
        self.assertEqual(self.troubles, [])

    def test_dragging_a_row_moves_its_sieve(self):
        self.workspace.stack.add()
        self.settle()
        rows = self.window.stack.list
        self.window.stack.follow()
        first = self.work.project.stack[0].id
        self.assertTrue(rows.model().moveRow(rows.rootIndex(), 0, rows.rootIndex(), 2))
        for _ in range(5):
            self.application.processEvents()
        self.settle()
        self.assertEqual(self.work.project.stack[1].id, first)

    def test_takes_and_history(self):
        self.click(742, 790)
        self.work.set_field("adjust.mono.mono", 100.0, "Grey")
        self.workspace.stack.keep_take("Grey jar")
        self.work.set_field("adjust.mono.mono", 0.0, "Grey")
        self.settle()
        self.work.set_field("adjust.match.target", (0.3, 0.1, 0.2), "Target")
        self.workspace.stack.keep_take("Matched")
        self.work.set_field("adjust.match.target", None, "Target")
        for name in ("Matched", "Grey jar"):
            self.viewing.look(take=name)
            self.window.canvas.set_view(1, "other take")
            self.settle()
            pictures = self.viewing.last.pictures
            self.assertGreater(int((pictures["other take"] != pictures["result"]).sum()), 1000)
            beside = pictures["other take"]
            self.workspace.stack.use_take(name)
            self.settle()
            # What was shown beside is what going on with it gives.
            self.assertTrue(np.array_equal(self.viewing.last.pictures["result"], beside), name)
            self.work.undo()
            self.settle()
        self.workspace.stack.remove_take("Matched")
        menu = QMenu()
        fill_takes_menu(
            menu,
            self.workspace,
            self.window,
            self.window.canvas.show_take_beside,
            self.window.canvas.wipe_take,
        )
        self.choose(menu, "Grey jar", "Compare by wipe")
        self.settle()
        pane, pictures = self.window.canvas.panes[0], self.viewing.last.pictures
        self.assertTrue(np.array_equal(pane._other_pixels, pictures["other take"]))
        self.assertFalse(np.array_equal(pictures["other take"], pictures["result"]))
        self.window.canvas.bar.wipe.setChecked(False)
        self.choose(menu, "Grey jar", "Compare side by side")
        self.settle()
        self.assertEqual(self.window.canvas.panes[1].view, "other take")
        self.choose(menu, "Grey jar", "Switch to this take")
        self.assertEqual(self.work.sieve.adjust.mono.mono, 100)
        self.window.show_history()
        dialog = next(
            child for child in self.window.children() if type(child).__name__ == "HistoryDialog"
        )
        self.assertEqual(dialog.list.count(), len(self.work.history.steps))
        dialog.list.setCurrentRow(0)
        self.settle()
        self.assertEqual(self.work.sieve.pick.samples, ())
        QTest.keyClick(dialog.list, Qt.Key.Key_End)
        self.settle()
        self.assertEqual(self.work.sieve.adjust.mono.mono, 100)
        dialog.close()
        menu = QMenu()
        fill_takes_menu(
            menu,
            self.workspace,
            self.window,
            self.window.canvas.show_take_beside,
            self.window.canvas.wipe_take,
        )
        self.choose(menu, "Grey jar", "Remove it")
        self.assertEqual(self.work.project.takes, ())
        self.assertEqual(self.troubles, [])


class RecentTest(WindowCase):
    def test_what_was_opened_can_be_opened_again(self):
        self.open(DEMO / "yard.png")
        self.open(DEMO / "close.png")
        self.window.menus.menus["recent"].aboutToShow.emit()
        actions = self.window.menus.menus["recent"].actions()
        self.assertEqual([action.text() for action in actions[:2]], ["close.png", "yard.png"])
        actions[1].trigger()
        self.settle()
        self.assertEqual(self.work.opened.source.about.path.name, "yard.png")
        self.assertEqual(self.troubles, [])


class OddTest(unittest.TestCase):
    def test_a_lent_empty_mask_changes_nothing(self):
        frame = Frame(solid((0.2, 0.3, 0.4)))
        project = Project(
            stack=(
                Sieve(id="a", name="a"),
                Sieve(
                    id="b",
                    name="b",
                    mask_from="same",
                    of=("a",),
                    adjust=Adjust(light=Light(exposure=2)),
                ),
            )
        )
        np.testing.assert_array_equal(render(frame, project, RenderContext()), frame.planes)


if __name__ == "__main__":
    unittest.main()

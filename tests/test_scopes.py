"""Scopes against published values and plain NumPy, and the panel that shows them."""

import time
import unittest

import numpy as np
from common import DEMO, WindowCase, demo_frame

from amber_sieve.core import scopes
from amber_sieve.core.colour.transfer import decode, encode
from amber_sieve.desk.panels.scopes_panel import BARS, MOST, SKIN, WIDTH, ScopesPanel
from amber_sieve.live.scoping import Scope, scope_pixels
from amber_sieve.names import SCOPE_KINDS, SCOPES_OF

#: Luma, and differences to blue and red, of the 75 % bars in 8-bit codes of Rec. 709 (SMPTE RP
#: 219-1; values from memory).
CODES = {
    "Y": (168, 44, 136),
    "C": (145, 147, 44),
    "G": (133, 63, 52),
    "M": (63, 193, 204),
    "R": (51, 109, 212),
    "B": (28, 212, 120),
}


class ScopesTest(unittest.TestCase):
    def test_bars_lie_where_the_standard_puts_them(self):
        for letter, code in CODES.items():
            values = np.array(BARS[letter], np.float32)[:, None]
            blue, red = scopes.differences(values)
            found = (16 + 219 * scopes.luma(values)[0], 128 + 224 * blue[0], 128 + 224 * red[0])
            np.testing.assert_allclose(found, code, atol=1.0, err_msg=letter)
            counts = scopes.vectorscope(np.repeat(values, 7, axis=1))
            row, column = np.unravel_index(np.argmax(counts), counts.shape)
            self.assertEqual(counts[row, column], 7)
            cell = 2 * scopes.RIM / scopes.CELLS
            self.assertLessEqual(
                abs(column * cell - scopes.RIM - (code[1] - 128) / 224), 2 * cell, letter
            )
            self.assertLessEqual(
                abs(scopes.RIM - row * cell - (code[2] - 128) / 224), 2 * cell, letter
            )

    def test_skin_lies_near_its_line(self):
        # Common practice, no source: skin of any shade lies near one line of the vectorscope.
        for code in ((232, 190, 172), (198, 134, 106), (141, 85, 61), (92, 58, 44)):
            blue, red = (
                float(value[0])
                for value in scopes.differences(np.array(code, np.float32)[:, None] / 255)
            )
            self.assertLess(
                abs((np.degrees(np.arctan2(red, blue)) - SKIN + 180) % 360 - 180), 8, code
            )

    def test_counts_are_those_of_plain_numpy(self):
        planes = demo_frame("close").planes
        values, across, _ = scopes.coded(planes)
        self.assertLessEqual(values.shape[1], scopes.COUNTED)
        step = round((planes[0].size / values.shape[1]) ** 0.5)
        np.testing.assert_allclose(
            values, encode(np.ascontiguousarray(planes[:, ::step, ::step])).reshape(3, -1)
        )
        edges = np.linspace(scopes.LOWEST, scopes.HIGHEST, scopes.CELLS + 1)
        inside = np.clip(scopes.luma(values).astype(np.float64), scopes.LOWEST, scopes.HIGHEST)
        plain, _, _ = np.histogram2d(inside, across, (edges, np.linspace(0, 1, scopes.CELLS + 1)))
        found = scopes.waveform(scopes.luma(values), across)
        self.assertEqual(found.sum(), values.shape[1])
        self.assertLess(
            np.abs(found - plain[::-1]).sum(), 0.002 * found.sum()
        )  # those that lie on the edge of a cell
        for channel, counts in zip(values, scopes.histogram(values), strict=True):
            plain, _ = np.histogram(np.clip(channel, scopes.LOWEST, scopes.HIGHEST), edges)
            self.assertLess(np.abs(counts - plain).sum(), 0.002 * counts.sum())

    def test_a_mask_weighs_and_beyond_the_ends_the_end_counts(self):
        planes = np.zeros((3, 4, 8), np.float32)
        planes[:, :, 4:] = float(decode(np.array([0.5], np.float32))[0])
        planes[:, 0, 0] = (65504, -3, 0)
        mask = np.zeros((4, 8), np.float32)
        mask[:, 4:] = 0.5
        values, across, weights = scopes.coded(planes, mask)
        counts = scopes.histogram(values, weights)
        self.assertEqual(counts.sum(), 3 * 16 * 0.5)
        at = int((0.5 - scopes.LOWEST) / (scopes.HIGHEST - scopes.LOWEST) * scopes.CELLS)
        self.assertEqual(counts[:, at - 1 : at + 2].sum(), counts.sum())
        for kind in SCOPE_KINDS:
            for held in (None, mask, np.zeros_like(mask)):
                self.assertEqual(scope_pixels(kind, planes, held).dtype, np.uint32)
        self.assertEqual(scopes.waveform(scopes.luma(values), across).sum(), 32)


class ScopesPanelTest(WindowCase):
    own_window = True

    def tearDown(self):
        self.workspace.preferences.change(scopes=())
        super().tearDown()

    def test_scopes_are_made_while_they_are_seen_and_follow_what_is_done(self):
        self.open(DEMO / "yard.png")
        self.click(742, 790)
        self.assertEqual(self.viewing.last.scopes, {})
        panel = self.window.scopes
        self.window.menus.actions["scopes"].trigger()
        self.settle()
        self.assertTrue(panel.isVisible())
        tile = panel.tiles[0]
        before = self.viewing.last.scopes[tile.scope].copy()
        self.work.set_field("adjust.light.exposure", 1.5, "Exposure")
        self.settle()
        self.assertGreater((self.viewing.last.scopes[tile.scope] != before).sum(), 20)
        for kind in range(len(SCOPE_KINDS)):
            tile.kind.setCurrentIndex(kind)
            for of in range(len(SCOPES_OF)):
                tile.of.setCurrentIndex(of)
                self.settle()
                wanted = Scope(SCOPE_KINDS[kind], SCOPES_OF[of])
                self.assertEqual(self.viewing.last.wanted.scopes, (wanted,))
                self.assertIs(tile.view.pixels, self.viewing.last.scopes[wanted])
                self.assertTrue(tile.view.grab().toImage().width())
        self.window.menus.actions["scopes"].trigger()
        self.settle()
        self.assertEqual(self.viewing.last.scopes, {})
        self.assertEqual(self.troubles, [])

    def test_several_at_once_in_a_window_of_their_own_and_remembered(self):
        self.open(DEMO / "yard.png")
        panel = self.window.scopes
        if not panel.isVisible():  # as the test before has left it
            self.window.menus.actions["scopes"].trigger()
        height = self.window.height()
        self.settle()
        for _ in range(5):
            panel.add.click()
        self.settle()
        self.assertEqual(self.window.height(), height)
        self.assertEqual(len(panel.tiles), MOST)
        self.assertFalse(panel.add.isEnabled())
        kinds = [tile.scope.kind for tile in panel.tiles]
        self.assertEqual(set(kinds), set(SCOPE_KINDS))
        for tile in panel.tiles:
            self.assertIs(tile.view.pixels, self.viewing.last.scopes[tile.scope])
        panel.float.click()
        self.settle()
        dock = self.window.panels.docks["scopes"]
        self.assertTrue(dock.isFloating())
        self.assertGreater(panel.width(), 3 * WIDTH)
        places = {(tile.x(), tile.y()) for tile in panel.tiles}
        self.assertEqual(len(places), MOST)  # beside and below each other
        self.assertEqual(len({x for x, _ in places}), 2)
        panel.codes.setCurrentIndex(1)
        self.assertTrue(all(tile.view.in_codes for tile in panel.tiles))
        panel.tiles[0].away.click()
        self.settle()
        self.assertEqual([tile.scope.kind for tile in panel.tiles], kinds[1:])
        again = ScopesPanel(self.workspace)
        self.assertEqual([tile.scope for tile in again.tiles], [tile.scope for tile in panel.tiles])
        panel.float.click()
        self.settle()
        self.assertFalse(dock.isFloating())
        self.assertEqual(self.troubles, [])

    def test_scopes_go_on_while_a_clip_plays(self):
        self.open(DEMO / "clip.mp4")
        self.window.menus.actions["scopes"].trigger()
        self.settle()
        tile, seen = self.window.scopes.tiles[0], set()
        self.workspace.playback.start()
        end = time.monotonic() + 20
        while len(seen) < 3 and time.monotonic() < end:
            self.application.processEvents()
            seen.add(tile.view.pixels.tobytes())
        self.workspace.playback.stop()
        self.settle()
        self.assertGreaterEqual(len(seen), 3)

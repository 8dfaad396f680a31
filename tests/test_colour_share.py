"""The share of the surface's colour along an outline: told from the picture's chroma, mixed apart
from luma, the same in a part as in the whole.
"""

import functools
import unittest

import cv2
import numpy as np
from common import demo_frame, truth

from amber_sieve.core.adjust import match
from amber_sieve.core.changed import no_runs
from amber_sieve.core.colour.difference import delta_e_2000, to_cielab
from amber_sieve.core.colour.transfer import decode, encode
from amber_sieve.core.edge.colour_share import (
    COLOUR_SUPPORT,
    ColourShare,
    chroma_of,
    colour_share,
    mix_chroma,
)
from amber_sieve.core.edge.follow_reach import follow_found
from amber_sieve.core.frame import Frame
from amber_sieve.core.mix import Mixture
from amber_sieve.project.model import Area, Edge, Project, Sieve
from amber_sieve.render.adjust import adjusted, adjusting
from amber_sieve.render.context import RenderContext
from amber_sieve.render.evaluate import changed_in
from amber_sieve.render.layers import no_layers
from amber_sieve.render.mask import final_mask

#: The lower part of the cloth, with its fringe.
FRINGE = np.s_[400:700, 950:1500]


def far(out: np.ndarray, wanted: np.ndarray, where: np.ndarray) -> float:
    """Mean ΔE2000 of some pixels (H, W) bool of two pictures."""
    one, other = (to_cielab(np.clip(planes[:, where], 0, 1).T) for planes in (out, wanted))
    return float(delta_e_2000(one, other).mean())


def both_sides(cover: np.ndarray, pixels: int = 4) -> np.ndarray:
    """Some pixels to both sides of an outline, (H, W) bool."""
    disc = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * pixels + 1, 2 * pixels + 1))
    inside = (cover > 0.5).astype(np.uint8)
    return cv2.dilate(inside, disc) > cv2.erode(inside, disc)


@functools.cache
def edge_between(blue: tuple[float, ...], beige: tuple[float, ...]) -> np.ndarray:
    """Codes (3, 80, 120) of two colours that meet at a sharp line, with chroma as soft as 4:2:0
    leaves it.
    """
    step = np.zeros((80, 120), np.float32)
    step[:, :60] = 1
    soft = cv2.GaussianBlur(step, (0, 0), 2)

    def mixed(share: np.ndarray) -> np.ndarray:
        return np.array(blue)[:, None, None] * share + np.array(beige)[:, None, None] * (1 - share)

    luma = np.array((0.2126, 0.7152, 0.0722))  # ITU-R BT.709
    return mixed(soft) + ((mixed(step) - mixed(soft)) * luma[:, None, None]).sum(0)


class MixedColoursTest(unittest.TestCase):
    def test_a_spread_of_chroma_is_found_and_dyed_with_the_surface(self):
        given = decode(edge_between((0.2, 0.25, 0.6), (0.7, 0.6, 0.5)))
        wanted = decode(edge_between((0.6, 0.25, 0.2), (0.7, 0.6, 0.5)))
        mask = np.zeros((80, 120), np.float32)
        mask[:, :60] = 1
        found = colour_share(given, mask)
        step = cv2.GaussianBlur(mask, (0, 0), 2)[found.rows, found.columns]
        certain = found.trust > 0.99
        np.testing.assert_allclose(found.share[certain], step[certain], atol=0.03)
        change = (chroma_of(wanted[:, :1, :1]) - chroma_of(given[:, :1, :1]))[:, 0]
        pixels = found.rows, found.columns
        out = mix_chroma(
            given[:, *pixels],
            np.repeat(change, found.rows.size, 1),
            found.share,
            found.trust,
            given[:, *pixels],
        )
        np.testing.assert_allclose(
            chroma_of(out)[:, certain], chroma_of(wanted[:, *pixels])[:, certain], atol=0.02
        )

    def test_luma_stays_what_the_mask_made_it(self):
        rng = np.random.default_rng(3)
        given, out = rng.uniform(0.01, 4, (2, 3, 500)).astype(np.float32)
        change = rng.uniform(-0.2, 0.2, (2, 500)).astype(np.float32)
        ones = np.ones(500, np.float32)
        mixed = mix_chroma(given, change, ones, ones, out.copy())
        weights = np.array([[0.2126, 0.7152, 0.0722]])
        np.testing.assert_allclose(weights @ encode(mixed), weights @ encode(out), atol=2e-4)
        np.testing.assert_allclose(chroma_of(mixed), chroma_of(given) + change, atol=2e-4)

    def test_nothing_to_tell_and_any_light_and_mask(self):
        rng = np.random.default_rng(7)
        alike = np.full((3, 60, 60), 0.4, np.float32)
        mask = np.zeros((60, 60), np.float32)
        self.assertIsNone(colour_share(alike, mask))
        mask[20:40, 20:40] = 1
        self.assertIsNone(colour_share(alike, mask))
        for light in (0.0, 1.0, 65504.0):
            for scale in (0.1, 1.0):
                planes = (rng.normal(size=(3, 60, 60)) * light).astype(np.float32)
                for one in (mask, np.ones_like(mask), rng.random((60, 60)).astype(np.float32)):
                    found = colour_share(planes, one, scale)
                    if found is not None:
                        for values in (found.share, found.trust, found.foreground):
                            self.assertTrue(np.isfinite(values).all())


class OnTheYardTest(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.cover = truth("yard", "cloth")
        cls.planes, cls.wanted = demo_frame("yard").planes, demo_frame("madder").planes

    def dyed(self, blur: float = 0.0) -> list[float]:
        """How far the the outline dyed is from that of a madder cloth (the demo
        renders both), with the colour mixed by the mask and by its own share.
        """
        box = np.s_[:, 150:700, 900:1560]
        cover, given, wanted = self.cover[box[1:]], self.planes[box], self.wanted[box]
        if blur:
            cover = cv2.GaussianBlur(cover, (0, 0), blur)
            given, wanted = (
                np.stack([cv2.GaussianBlur(plane, (0, 0), blur) for plane in one])
                for one in (given, wanted)
            )
        given, cover = np.ascontiguousarray(given), np.ascontiguousarray(cover)
        picked = (cover > 0.7).astype(np.float32)
        mask, unmixed = follow_found(given, picked)
        inside = cover > 0.95
        target = tuple(float(v) for v in wanted[:, inside].mean(1))
        light = np.ascontiguousarray(given[:, inside])[:, None]
        steps = match.steps(match.found_match(light, np.ones(inside.sum()), target, False))
        colour = colour_share(given, mask)
        self.assertIsNotNone(colour)
        plain, shared = (
            Mixture(given, mask, steps, unmixed, colour=one).whole() for one in (None, colour)
        )
        return [far(out, wanted, both_sides(cover)) for out in (plain, shared)]

    def test_the_fringe_comes_in_the_new_colour(self):
        plain, shared = self.dyed()
        print(f"\n    the outline dyed: {plain:.2f} by the mask, {shared:.2f} by share")
        self.assertLess(shared, 3.0)
        self.assertLess(shared, 0.9 * plain)

    def test_an_outline_out_of_focus_comes_in_the_new_colour(self):
        plain, shared = self.dyed(4.0)
        print(f"\n    the same out of focus: {plain:.2f} by the mask, {shared:.2f} by share")
        self.assertLess(shared, 0.7 * plain)

    def test_a_part_gives_what_the_whole_gives(self):
        whole = colour_share(self.planes, self.cover)
        top, left, room = 470, 1100, int(COLOUR_SUPPORT) + 1
        first, start = top - room, left - room
        part = np.s_[first : top + 100 + room, start : left + 150 + room]
        found = colour_share(
            np.ascontiguousarray(self.planes[:, *part]),
            np.ascontiguousarray(self.cover[part]),
            1.0,
            (first, start),
        )

        def planes(one: ColourShare, down: int, across: int) -> np.ndarray:
            out = np.zeros((5, *self.cover.shape), np.float32)
            at = one.rows + down, one.columns + across
            out[:, *at] = np.concatenate([one.share[None], one.trust[None], one.foreground[:, 0]])
            return out[:, top : top + 100, left : left + 150]

        np.testing.assert_allclose(
            planes(found, first, start), planes(whole, 0, 0), rtol=1e-4, atol=1e-5
        )

    def test_what_an_earlier_sieve_has_done_is_the_surfaces_colour(self):
        found = colour_share(self.planes, self.cover)
        np.testing.assert_array_equal(found.foreground_in(self.planes), found.foreground)
        brighter = found.foreground_in(2 * self.planes)
        near = np.abs(brighter - 2 * found.foreground).mean()
        self.assertLess(near, 0.35 * np.abs(brighter - found.foreground).mean())


class InASieveTest(unittest.TestCase):
    """What a sieve makes of it."""

    @classmethod
    def setUpClass(cls):
        rows, columns = FRINGE
        whole = demo_frame("yard").planes[:, rows, columns]
        cls.frame = Frame(np.ascontiguousarray(whole))

    def sieve(self, areas: tuple[Area, ...] = (), **edge: object) -> Sieve:
        """The cloth by its hue, dyed."""
        made = Sieve(areas=areas, edge=Edge(specks=0, holes=0, clean=0, level=0, **edge))
        bands = made.bands.but(hue={"on": True, "corners": (200.0, 220.0, 290.0, 310.0)})
        return made.but(bands=bands, adjust={"recolour": {"hue": 120.0}})

    def masked(self, sieve: Sieve):
        return final_mask(self.frame, sieve, RenderContext())

    def test_what_leaves_it_out(self):
        self.assertIsNotNone(self.masked(self.sieve()).colour)
        for edge in ({"feather": 8.0}, {"hard": True}, {"no_haze": False}, {"follow": 0.0}):
            self.assertIsNone(self.masked(self.sieve(**edge)).colour, edge)
        soft, sharp = self.masked(self.sieve(feather=1.0)).colour, self.masked(self.sieve()).colour
        self.assertAlmostEqual(soft.trust.max(), 0.5 * sharp.trust.max(), places=5)
        outside = self.sieve().but(outside=30.0)
        made, _ = adjusting(self.frame, self.masked(outside), outside)
        self.assertIsNone(made.colour)

    def test_areas_hold_it_back(self):
        cut = Area(kind="rect", mode="subtract", points=((100, 150), (200, 150), (100, 300)))
        limited = self.masked(self.sieve((cut,))).colour
        everywhere = self.masked(self.sieve()).colour
        self.assertLess(limited.rows.size, everywhere.rows.size)
        self.assertFalse((limited.columns < 190).any())
        add = self.masked(self.sieve((cut.but(mode="add"),)))
        self.assertIsNone(add.colour)

    def test_what_it_changes_beyond_the_mask_is_told_and_written_in_any_order(self):
        sieve = self.sieve()
        masked = self.masked(sieve)
        out, _ = adjusted(self.frame, masked, sieve)
        changed = (out != self.frame.planes).any(0)
        self.assertTrue((changed & (masked.mask == 0)).any())
        rows, columns = masked.box
        beyond = changed.copy()
        beyond[rows, columns] = False
        self.assertFalse(beyond.any())
        self.assertFalse((np.setdiff1d(np.flatnonzero(changed), masked.changed_pixels)).size)
        box = changed_in(self.frame, Project(stack=(sieve,)), RenderContext(), no_layers)
        self.assertTrue(box is None or not (changed.sum() - changed[box].sum()))
        made, _ = adjusting(self.frame, masked, sieve)
        top, bottom = made.changed_rows
        self.assertTrue(top <= np.flatnonzero(changed.any(1)).min())
        self.assertTrue(bottom > np.flatnonzero(changed.any(1)).max())
        strips = [made.rows(y, min(y + 77, made.height)) for y in range(0, made.height, 77)]
        np.testing.assert_allclose(np.concatenate(strips, 1), out, rtol=1e-5, atol=1e-6)
        runs = ~no_runs(*changed.shape)
        by_runs = np.zeros_like(out)
        made.write_runs(runs, by_runs)
        np.testing.assert_allclose(by_runs, out, rtol=1e-5, atol=1e-6)


if __name__ == "__main__":
    unittest.main()

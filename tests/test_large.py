"""Pictures too large to be worked on at once: in strips, in a file, in room taken on the disk;
small ones here, with the bounds brought down.
"""

import errno
import os
import pathlib
import random
import re
from unittest import mock

import cv2
import numpy as np
import OpenImageIO as oiio
import tifffile
from common import DEMO, FolderCase, demo_frame, half_demo
from made import random_project
from PIL import Image

from amber_sieve.core.edge.box import CroppedMask
from amber_sieve.core.edge.morphology import without_specks
from amber_sieve.core.frame import Frame
from amber_sieve.errors import Trouble
from amber_sieve.export.frame import finished, leaving, strips_of
from amber_sieve.export.still import export_still
from amber_sieve.files import state_folder
from amber_sieve.live.sampling import sample_at
from amber_sieve.media import memory, stills
from amber_sieve.media.colour import profiles
from amber_sieve.media.opening import open_source
from amber_sieve.media.source import About
from amber_sieve.media.stills import Still, encoding, reader
from amber_sieve.media.stills.stored import stored_in
from amber_sieve.progress import Cancelled
from amber_sieve.project.model import Adjust, Area, Edge, Fill, Pick, Project, Recolour, Sieve
from amber_sieve.render import strips
from amber_sieve.render.strips import Strips

#: The part of the yard with the cloth, the line it hangs on, and what lies behind: left, top,
#: right, bottom.
PART = (860, 60, 1660, 660)


def in_strips():
    """Every picture counts as large, and is worked a few rows and columns at a time."""
    return mock.patch.multiple(strips, LARGE=1, ROWS=250, COLUMNS=450)


def part_of_the_yard() -> Still:
    """A picture of the cloth by itself."""
    frame = demo_frame("yard").part(*PART)
    return Still(
        About(pathlib.Path("part.png"), "still", (frame.width, frame.height), "uint8"),
        Frame(frame.planes, key="part"),
    )


def cloth(**settings: object) -> Sieve:
    """A sieve that takes the cloth, dyed."""
    part = part_of_the_yard().frame(0)
    sample = sample_at(part, 1230 - PART[0], 330 - PART[1]).but(tolerance=9)
    return Sieve(
        **{"pick": Pick(samples=(sample,)), "adjust": Adjust(recolour=Recolour(hue=120, dyed=True))}
        | settings
    )


class Strip(FolderCase):
    def setUp(self) -> None:
        super().setUp()
        self.source = part_of_the_yard()

    def alike(self, project: Project) -> None:
        """In strips it comes out as whole, the masks too."""
        ids = [sieve.id for sieve in project.stack]
        whole = finished(self.source, project, masks=ids)
        with in_strips():
            parts = finished(self.source, project, result=False, masks=ids)
            left = leaving(self.source, project)
            self.assertIsInstance(left.result, Strips)
            rows = np.concatenate([planes for _, planes in strips_of(left.result)], axis=1)
        for one in ids:
            np.testing.assert_allclose(parts.masks[one], whole.masks[one], atol=1e-4)
        np.testing.assert_allclose(rows, whole.result.planes, rtol=1e-3, atol=1e-4)

    def test_strips_are_the_whole(self):
        found = cloth()
        area = Area(id="a", kind="ellipse", points=((340, 240), (640, 240), (340, 540)), feather=40)
        gradient = Fill(fill="gradient", fill_colour=(0.1, 0.2, 0.4), fill_opacity=40)
        detail = {"blur": 4, "sharpen": 30, "grain": 20, "noise": 30, "local_contrast": 30}
        for name, stack in {
            "all found": (found,),
            "several, one leaning on another": (found, cloth(mask_from="left", of=(found.id,))),
            "areas and detail": (cloth(areas=(area,), adjust=Adjust(detail=detail)),),
            "connected, edges by hand": (
                cloth(
                    pick=found.pick.but(connected=True, bridge=3),
                    edge=Edge(follow=20, grow=3, feather=4, smooth=2),
                ),
            ),
            "filled, and the rest a little": (
                cloth(adjust=Adjust(fill=gradient), outside=20, strength=70),
            ),
            "inverted": (cloth(invert=True),),
        }.items():
            with self.subTest(name):
                self.alike(Project(stack=stack))

    def test_random_projects_come_out_as_whole_where_they_can_be_cut(self):
        chance, cut, yard = random.Random(5), 0, open_source(half_demo() / "yard.png")
        for _ in range(4):
            project = random_project(chance, "yard")
            ids = [sieve.id for sieve in project.stack]
            whole = finished(yard, project, masks=ids)
            with mock.patch.multiple(strips, LARGE=1, ROWS=350, COLUMNS=500):
                cut += isinstance(leaving(yard, project).result, Strips)
                parts = finished(yard, project, masks=ids)
            np.testing.assert_allclose(
                parts.result.planes, whole.result.planes, rtol=1e-3, atol=1e-4
            )
            for one in ids:
                np.testing.assert_allclose(parts.masks[one], whole.masks[one], atol=1e-4)
        self.assertGreater(cut, 0)

    def test_what_must_be_seen_whole_is_not_cut(self):
        for sieve in (
            cloth(edge=Edge(fine=8)),
            cloth(adjust=Adjust(fill=Fill(fill="nothing"))),
            cloth(adjust=Adjust(fill=Fill(fill="colour", fill_where="behind"))),
            cloth(adjust=Adjust(fill=Fill(fill="surroundings"))),
            cloth(pick=cloth().pick.but(measure="result")),
        ):
            with in_strips():
                self.assertIsNone(
                    strips.in_strips(self.source.frame(0), Project(stack=(sieve,)), mock.Mock())
                )
        self.assertIsNone(
            strips.in_strips(self.source.frame(0), Project(stack=(cloth(),)), mock.Mock()),
            "it is not large",
        )

    def test_a_file_is_the_same_within_a_level(self):
        project = Project(stack=(cloth(),))
        export_still(self.source, project, self.folder / "whole.png")
        told: list[float] = []
        progress = mock.Mock(step=told.append)
        with in_strips():
            export_still(self.source, project, self.folder / "strips.png", progress=progress)
        one, other = (
            np.asarray(Image.open(self.folder / f"{name}.png"), np.int16)
            for name in ("whole", "strips")
        )
        self.assertLessEqual(np.abs(one - other).max(), 1)
        self.assertEqual(told, sorted(told), "progress runs on")
        self.assertAlmostEqual(told[-1], 1)

    def test_a_mask_tells_how_far_it_is_and_stops_between_its_parts(self):
        project, told = Project(stack=(cloth(),)), list[float]()

        def step(share: float) -> None:
            told.append(share)
            if share > 0.6:
                raise Cancelled

        with in_strips(), self.assertRaises(Cancelled):
            finished(self.source, project, result=False, masks=[project.stack[0].id], step=step)
        self.assertEqual(told, sorted(told))
        self.assertGreater(len({share for share in told if share >= 0.5}), 1)

    def test_a_mask_in_its_box_gives_every_part(self):
        mask = np.zeros((40, 60), np.float32)
        mask[10:20, 30:50] = np.random.default_rng(1).random((10, 20)).astype(np.float32)
        for held in (CroppedMask.of(mask), CroppedMask.of(np.zeros_like(mask))):
            whole = mask if held.mask.size else np.zeros_like(mask)
            for top, left, height, width in (
                (0, 0, 40, 60),
                (5, 35, 10, 25),
                (15, 0, 25, 40),
                (0, 55, 9, 5),
            ):
                np.testing.assert_array_equal(
                    held.part(top, left, height, width),
                    whole[top : top + height, left : left + width],
                )

    def test_specks_near_a_thing_do_not_hang_on_how_many_rows_are_looked_at(self):
        noise = cv2.GaussianBlur(
            np.random.default_rng(2).random((500, 400)).astype(np.float32), (0, 0), 2
        )
        mask = np.clip((noise - noise.mean()) / noise.std() * 0.5 - 0.3, 0, 1).astype(np.float32)
        for near in (7.0, 24.0, 60.0):
            whole = without_specks(mask, 150, (), near)
            with mock.patch("amber_sieve.core.edge.morphology.NEAR_ROWS", 90):
                np.testing.assert_array_equal(without_specks(mask, 150, (), near), whole)


class InAFile(FolderCase):
    def bounds(self):
        """Every picture is too large for memory."""
        return mock.patch.object(reader, "IN_MEMORY", 0), mock.patch.object(memory, "IN_MEMORY", 0)

    def test_what_lies_in_a_file_is_read_reduced_and_exported_as_what_lies_in_memory(self):
        sample = sample_at(demo_frame("yard"), 1230, 330).but(tolerance=9)
        project = Project(stack=(cloth(pick=Pick(samples=(sample,))),))
        held = open_source(DEMO / "yard.png")
        export_still(held, project, self.folder / "memory.png")
        with (
            self.bounds()[0],
            self.bounds()[1],
            mock.patch.multiple(strips, LARGE=1, ROWS=350, COLUMNS=500),
        ):
            large = open_source(DEMO / "yard.png")
            self.assertIsNotNone(large.frame(0).let_go)
            export_still(large, project, self.folder / "file.png")
        one, other = held.frame(0), large.frame(0)
        np.testing.assert_array_equal(one.planes, other.planes)
        np.testing.assert_array_equal(one.reduced(3).planes, other.reduced(3).planes)
        np.testing.assert_array_equal(
            one.part(10, 20, 300, 200).planes, other.part(10, 20, 300, 200).planes
        )
        self.assertIsNone(other.part(10, 20, 300, 200).let_go, "a part lies in memory")
        levels = [
            np.asarray(Image.open(self.folder / f"{name}.png"), np.int16)
            for name in ("memory", "file")
        ]
        self.assertLessEqual(np.abs(levels[0] - levels[1]).max(), 1)
        self.assertEqual(
            [path for path in state_folder().iterdir() if path.name.startswith("tmp")],
            [],
            "the file has no name",
        )

    def test_memory_is_given_back(self):
        with self.bounds()[0], self.bounds()[1]:
            frame = open_source(DEMO / "yard.png").frame(0)
        frame.planes.sum()
        self.assertAlmostEqual(in_memory(), frame.planes.nbytes, delta=4096)
        frame.part(0, 0, 10, 10)
        self.assertEqual(in_memory(), 0)

    def test_a_disk_without_room_is_said(self):
        full = OSError(errno.ENOSPC, os.strerror(errno.ENOSPC))
        with (
            self.bounds()[0],
            self.bounds()[1],
            mock.patch("os.posix_fallocate", side_effect=full),
            self.assertRaises(Trouble) as raised,
        ):
            open_source(DEMO / "yard.png")
        self.assertRegex(
            str(raised.exception),
            r"yard\.png needs 0\.0 GB on the disk of .* \(No space left on device\): free some "
            r"space",
        )


def in_memory() -> int:
    """Bytes of files without a name that this process has in memory (proc(5), smaps)."""
    blocks = re.split(
        r"(?m)^(?=[0-9a-f]+-[0-9a-f]+ )", pathlib.Path("/proc/self/smaps").read_text()
    )
    mine = [
        block
        for block in blocks
        if str(state_folder()) in block.split("\n", 1)[0] and "(deleted)" in block
    ]
    return sum(1024 * int(re.search(r"Rss:\s+(\d+)", block)[1]) for block in mine)


class OntoTheDisk(FolderCase):
    def test_what_is_encoded_on_the_disk_is_what_is_encoded_in_memory(self):
        held = part_of_the_yard()
        for ending, depth in (
            (".png", "uint16"),
            (".tif", "uint8"),
            (".tif", "uint16"),
            (".exr", "half"),
            (".jpg", "uint8"),
        ):
            one, other = self.folder / f"one{ending}", self.folder / f"other{ending}"
            export_still(held, Project(stack=(Sieve(),)), one, depth=depth)
            with mock.patch.object(encoding, "IN_MEMORY", 0):
                export_still(held, Project(stack=(Sieve(),)), other, depth=depth)
            pixels = [oiio.ImageBuf(str(path)).get_pixels() for path in (one, other)]
            np.testing.assert_array_equal(*pixels, err_msg=f"{ending} {depth}")
            self.assertEqual(one.stat().st_size, other.stat().st_size)
            self.assertLess(
                other.stat().st_blocks * 512,
                other.stat().st_size + 70_000,
                "room that was not used is given back",
            )
            one.unlink()
            other.unlink()

    def test_where_there_is_no_room_the_earlier_file_stays(self):
        held, target = part_of_the_yard(), self.folder / "out.tif"
        target.write_bytes(b"earlier")
        with (
            mock.patch.multiple(encoding, IN_MEMORY=0, GROWS=1e9),
            self.assertRaises(Trouble) as raised,
        ):
            export_still(held, Project(stack=(Sieve(),)), target, overwrite=True)
        self.assertIn("out.tif could not be written", str(raised.exception))
        self.assertEqual((target.read_bytes(), len(list(self.folder.iterdir()))), (b"earlier", 1))

    def test_a_disk_that_takes_no_room_beforehand_is_written_to_from_memory(self):
        held, target = part_of_the_yard(), self.folder / "out.tif"
        cannot = OSError(errno.EOPNOTSUPP, os.strerror(errno.EOPNOTSUPP))
        with (
            mock.patch.object(encoding, "IN_MEMORY", 0),
            mock.patch.object(encoding, "_room", side_effect=cannot),
        ):
            export_still(held, Project(stack=(Sieve(),)), target)
        self.assertEqual(stills.about(target).size, (800, 600))


class SomeRows(FolderCase):
    def test_rows_are_those_of_the_whole_however_the_file_stores_them(self):
        codes = (np.random.default_rng(4).random((700, 300, 3)) * 65535).astype(np.uint16)
        tifffile.imwrite(self.folder / "tiles.tif", codes, tile=(48, 64), photometric="rgb")
        tifffile.imwrite(
            self.folder / "rows.tif", codes, rowsperstrip=7, photometric="rgb", compression="zlib"
        )
        spec = oiio.ImageSpec(300, 700, 3, "uint16")
        for name in ("a.png", "tiled.exr"):
            if name == "tiled.exr":
                spec = oiio.ImageSpec(300, 700, 3, "float")
                spec.tile_width, spec.tile_height = 32, 32
            out = oiio.ImageOutput.create(str(self.folder / name))
            out.open(str(self.folder / name), spec)
            out.write_image(codes if name == "a.png" else (codes / 65535).astype(np.float32))
            out.close()
        for path in sorted(self.folder.iterdir()):
            with stored_in(path) as stored:
                self.assertEqual(stored.size, (300, 700))
                tops = range(0, 700, stored.rows_together)
                rows = np.concatenate(
                    [stored.rows(top, min(top + stored.rows_together, 700)) for top in tops]
                )
                odd = stored.rows(101, 333)
            np.testing.assert_allclose(
                rows / (1 if "exr" in path.name else 65535),
                codes / 65535,
                atol=1e-6,
                err_msg=path.name,
            )
            np.testing.assert_array_equal(odd, rows[101:333], err_msg=path.name)

    def test_a_picture_on_its_side_is_turned_upright(self):
        codes = np.random.default_rng(4).integers(0, 255, (500, 300, 3)).astype(np.uint8)
        for number, turned in {
            1: codes,
            3: codes[::-1, ::-1],
            6: np.rot90(codes, -1),
            8: np.rot90(codes),
        }.items():
            exif = Image.Exif()
            exif[274] = number  # Exif 2.3, table 4
            Image.fromarray(codes).save(self.folder / "side.png", exif=exif)
            with stored_in(self.folder / "side.png") as stored:
                np.testing.assert_array_equal(stored.rows(100, 120), turned[100:120])
            read = stills.read(self.folder / "side.png")
            self.assertEqual((read.frame(0).height, read.frame(0).width), turned.shape[:2])

    def test_a_file_cut_short_in_its_middle_is_damaged(self):
        codes = (np.random.default_rng(4).random((900, 400, 3)) * 255).astype(np.uint8)
        tifffile.imwrite(self.folder / "cut.tif", codes, rowsperstrip=16, photometric="rgb")
        whole = (self.folder / "cut.tif").read_bytes()
        Image.fromarray(codes).save(self.folder / "cut.png")
        png = (self.folder / "cut.png").read_bytes()
        for name, held in (("cut.tif", whole), ("cut.png", png)):
            (self.folder / name).write_bytes(held[: len(held) // 2])
            with self.assertRaises(Trouble) as raised:
                stills.read(self.folder / name)
            self.assertIn("cut short or damaged", str(raised.exception))

    def test_stored_samples_come_back_where_nothing_changes(self):
        codes = (np.random.default_rng(4).random((600, 400, 3)) * 255).astype(np.uint8)
        Image.fromarray(codes).save(
            self.folder / "p3.png", icc_profile=profiles.named("Display P3")
        )
        export_still(
            open_source(self.folder / "p3.png"), Project(stack=(Sieve(),)), self.folder / "out.png"
        )
        np.testing.assert_array_equal(np.asarray(Image.open(self.folder / "out.png")), codes)

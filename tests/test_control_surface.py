"""By hand: a control surface over Open Sound Control 1.0, the simulated one that ships, and a
simulated pen.
"""

import argparse
import random
import socket
import struct
import sys
import time
import unittest
from unittest import mock

import numpy as np
from common import ROOT, WindowCase
from packets import ENDLESS, bundle, spoilt
from PIL import Image
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtTest import QTest
from pythonosc.osc_message_builder import OscMessageBuilder

from amber_sieve.desk.control_surface.window import ControlSurfaceWindow
from amber_sieve.desk.start.control_port import ControlPort
from amber_sieve.project.controls import PAGES, address_of, path_of, paths, specs
from amber_sieve.terminal import surface
from amber_sieve.workspace.osc_packet import MAX_DEPTH, MAX_MESSAGES, DamagedPacket, messages_in

sys.path.insert(0, str(ROOT / "tools"))
import pen

#: A pen's two strokes over the yard: hard and soft.
STROKES = """
# x y pressure tilt_x tilt_y ms
stroke
400 300 0.2 0 0 0
500 320 0.6 20 -10 8
600 330 1.0 30 -20 8
stroke
400 600 0.5 0 0 0
560 640 0.5 0 0 8
"""


def free_port() -> int:
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as one:
        one.bind(("127.0.0.1", 0))
        return one.getsockname()[1]


class AddressTest(unittest.TestCase):
    def test_every_number_has_an_address_and_every_address_its_number(self):
        self.assertEqual(tuple(paths()), PAGES)
        for path in specs():
            self.assertEqual(path_of(address_of(path)), (path, ""))
            for how in ("by", "touch", "reset"):
                self.assertEqual(path_of(f"{address_of(path)}/{how}"), (path, how))
        for wrong in (
            "",
            "/",
            "/sieve",
            "/sieve/",
            "/sieve/adjust",
            "/sieve/adjust/light/nothing",
            "/sieve/adjust/light/exposure/by/by",
            "/sieve/edge.grow",
        ):
            self.assertEqual(path_of(wrong), ("", ""), wrong)


class PacketTest(unittest.TestCase):
    def test_messages_of_nested_bundles_come_in_the_order_they_stand_in(self):
        first, second, third = (
            OscMessageBuilder(f"/{word}").build().dgram for word in ("one", "two", "three")
        )
        packet = bundle(first, bundle(second), third)
        self.assertEqual(
            [address for address, _ in messages_in(packet)], ["/one", "/two", "/three"]
        )
        # Source: the examples of the Open Sound Control 1.0 specification, "OSC Message Examples",
        # from memory.
        example = bytes.fromhex("2f6f7363696c6c61746f722f342f6672657175656e6379002c66000043dc0000")
        self.assertEqual(messages_in(example), [("/oscillator/4/frequency", [440.0])])
        example = bytes.fromhex(
            "2f666f6f000000002c69697366660000000003e8ffffffff68656c6c6f0000003f9df3b640b5b22d"
        )
        [(address, values)] = messages_in(example)
        self.assertEqual((address, values[:3]), ("/foo", [1000, -1, "hello"]))
        np.testing.assert_allclose(values[3:], (1.234, 5.678), rtol=1e-6)

    def test_sizes_depths_and_counts_that_no_surface_sends_are_refused(self):
        one = OscMessageBuilder("/a").build().dgram
        deep = one
        for _ in range(MAX_DEPTH + 2):
            deep = bundle(deep)
        wrong = [
            bundle(one)[:-1],
            bundle() + struct.pack(">i", 0),
            bundle() + struct.pack(">i", 6) + b"/a\0\0\0\0",
            bundle() + b"\0\0",
        ]
        for packet in (
            ENDLESS,
            deep,
            bundle(*[one] * (MAX_MESSAGES + 1)),
            b"#bundle\0",
            b"/a\0\0,b\0\0\xff\xff\xff\xfc",
            *wrong,
        ):
            with self.assertRaises(DamagedPacket, msg=packet):
                messages_in(packet)

    def test_packets_spoilt_at_random_are_read_or_refused(self):
        chance, refused = random.Random(5), 0
        for _ in range(5000):
            packet = spoilt(chance)
            try:
                self.assertLessEqual(len(messages_in(packet)), MAX_MESSAGES)
            except DamagedPacket:
                refused += 1
        self.assertGreater(refused, 2000)


class SurfaceCase(WindowCase):
    own_window = True

    def setUp(self):
        super().setUp()
        picture = self.folder / "small.png"
        Image.fromarray(np.random.default_rng(1).integers(60, 200, (60, 90, 3), np.uint8)).save(
            picture
        )
        self.open(picture)
        self.port = free_port()
        self.workspace.preferences.change(
            control_surface=True, control_surface_port=float(self.port)
        )
        self.addCleanup(lambda: self.workspace.preferences.change(control_surface=False))
        self.out = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        self.out.bind(("127.0.0.1", 0))
        self.out.settimeout(5)
        self.addCleanup(self.out.close)
        self.surfaces = self.workspace.control_surfaces

    def send(self, address: str, *values) -> None:
        builder = OscMessageBuilder(address)
        for value in values:
            builder.add_arg(value)
        self.out.sendto(builder.build().dgram, ("127.0.0.1", self.port))

    @property
    def light(self):
        return self.workspace.work.sieve.adjust.light


class PortTest(SurfaceCase):
    def test_numbers_are_set_turned_touched_and_reset(self):
        self.send("/sieve/adjust/light/exposure", 1.25)
        self.wait(lambda: self.light.exposure == 1.25)
        self.send("/sieve/adjust/light/exposure/by", 3.0)
        self.wait(lambda: abs(self.light.exposure - 1.55) < 1e-6)
        self.send("/sieve/adjust/light/exposure/touch", 0)
        self.wait(lambda: not self.workspace.work.dragging)
        self.send("/sieve/adjust/light/exposure", 1e30)
        self.wait(lambda: self.light.exposure == 10)  # bounded, as in the window
        self.send("/sieve/adjust/light/exposure/touch", 0)
        self.send("/undo")
        self.wait(lambda: abs(self.light.exposure - 1.55) < 1e-6)
        self.send("/sieve/adjust/light/exposure/reset")
        self.wait(lambda: self.light.exposure == 0)

    def test_a_surface_that_says_nothing_of_touches_has_let_go_when_it_is_still(self):
        self.send("/sieve/adjust/light/exposure", 1.0)
        self.wait(lambda: self.light.exposure == 1.0)
        self.assertTrue(self.workspace.work.dragging)
        self.wait(lambda: not self.workspace.work.dragging)
        self.send("/sieve/edge/follow", 4.0)
        self.wait(lambda: self.workspace.work.sieve.edge.follow == 4.0)
        self.send("/sieve/edge/follow/reset")
        self.wait(lambda: self.workspace.work.sieve.edge.follow == "auto")  # as in the window
        self.workspace.pictures.close_all()
        dropped, blank = self.surfaces.dropped, self.workspace.work.project
        self.send("/sieve/adjust/light/exposure", 1.0)
        self.wait(lambda: self.surfaces.dropped > dropped)
        self.assertEqual(
            self.workspace.work.project, blank
        )  # nothing is open, so nothing is turned

    def test_pages_sieves_and_before(self):
        self.send("/page", 4)
        self.wait(lambda: self.window.pages.currentIndex() == 4)
        self.send("/page/by", 2)
        self.wait(lambda: self.window.pages.currentIndex() == 1)
        self.workspace.stack.add()
        first, second = (sieve.id for sieve in self.workspace.work.project.stack)
        before = self.workspace.work.sieve.id
        self.send("/sieves/by", 1)
        self.wait(lambda: self.workspace.work.sieve.id == (first if before == second else second))
        self.send("/before", 1)
        self.wait(lambda: self.window.canvas.bar.compare.isChecked())

    def test_it_answers_with_names_values_and_ranges(self):
        self.send("/page", 2)
        self.wait(lambda: self.surfaces.done == 1)
        heard = [self.out.recv(4096) for _ in range(3)]
        self.assertTrue(heard[0].startswith(b"/shown\x00"))
        self.assertIn(b"/sieve/edge/", heard[1])
        self.assertIn(b"Black point", heard[1])

    def test_unknown_damaged_and_flooding_messages_are_counted_and_dropped(self):
        said = []
        self.workspace.speech.said.connect(said.append)
        for packet in (
            ENDLESS,
            b"/x\0\0," + b"m" * 999 + b"\0\0\0",
            b"",
            b"\x00",
            b"#bundle\x00" + b"\xff" * 20,
            b"/sieve/edge/grow\x00\x00\x00,f\x00\x00",
            b"/x" * 400,
            struct.pack(">q", 7),
        ):
            self.out.sendto(packet, ("127.0.0.1", self.port))
        self.send("/no/such/thing", 1.0)
        self.send("/sieve/edge/grow", float("nan"))
        self.send("/sieve/edge/grow", "words")
        self.wait(lambda: self.surfaces.dropped >= 11)
        self.assertEqual(self.surfaces.damaged, 8)
        self.assertEqual(
            [words for words in said if "not Open Sound Control" in words], said[:1]
        )  # once, not one by one
        self.assertEqual(self.workspace.work.sieve.edge.grow, 0)
        for _ in range(3000):
            self.send("/sieve/edge/grow/by", 1.0)
        self.send("/sieve/edge/grow", 2.0)
        started, taken = time.monotonic(), self.surfaces.done
        while time.monotonic() < started + 1:
            self.application.processEvents()
        print(
            f"\na flood of 3000: {self.surfaces.done - taken} done, {self.surfaces.dropped} dropped"
        )
        self.settle()
        self.assertTrue(-200 <= self.workspace.work.sieve.edge.grow <= 200)

    def test_closed_where_nobody_asked_for_it(self):
        port = self.window.findChild(ControlPort)
        self.assertEqual(port.port, self.port)
        self.workspace.preferences.change(control_surface=False)
        self.assertEqual(port.port, 0)
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as other:
            other.bind(("127.0.0.1", 0))
            taken = other.getsockname()[1]
            said = []
            self.workspace.speech.trouble.connect(said.append)
            self.workspace.preferences.change(
                control_surface=True, control_surface_port=float(taken)
            )
            self.assertEqual(len(said), 1)
            self.assertIn("another program uses it", said[0])


class SimulatedSurfaceTest(SurfaceCase):
    def test_the_command_opens_it_dressed(self):
        self.application.setProperty("dressed", None)
        self.application.setStyleSheet("")
        seen = []

        def look() -> int:
            [window] = (
                one
                for one in self.application.topLevelWidgets()
                if isinstance(one, ControlSurfaceWindow)
            )
            seen.append(window.grab().toImage().pixelColor(1, 1).lightness())
            window.close()
            window.deleteLater()
            return 0

        with mock.patch.object(type(self.application), "exec", side_effect=look):
            surface._surface(argparse.Namespace(port=self.port))
        self.assertLess(seen[0], 80)  # as dark as the window beside it
        self.assertTrue(self.application.styleSheet())

    def test_the_simulated_surface_drives_the_real_window(self):
        surface = ControlSurfaceWindow(self.port)
        self.addCleanup(surface.deleteLater)
        surface.show()
        self.wait(lambda: len(surface.numbers) > 0)
        surface.pages[2].click()
        self.wait(
            lambda: (
                self.window.pages.currentIndex() == 2 and "Black point" in surface.strip[0].text()
            )
        )
        dial = next(k for k, label in enumerate(surface.strip) if label.text().startswith("Gamma"))
        for _ in range(4):
            QTest.keyClick(surface.dials[dial], Qt.Key.Key_Up)
        self.wait(lambda: self.workspace.work.sieve.edge.gamma != 1)
        self.wait(
            lambda: (
                surface.strip[dial].text().endswith(f"{self.workspace.work.sieve.edge.gamma:.2f}")
            )
        )
        QTest.mouseDClick(surface.dials[dial], Qt.MouseButton.LeftButton)
        self.wait(lambda: self.workspace.work.sieve.edge.gamma == 1)
        surface.pages[4].click()
        self.wait(lambda: surface.page == 4)
        surface.keys[1].click()
        first = surface.strip[0].text()
        surface.keys[0].click()
        self.assertNotEqual(surface.strip[0].text(), first)
        middle = QPointF(75, 75).toPoint()
        QTest.mousePress(
            surface.disc, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, middle
        )
        QTest.mouseMove(surface.disc, middle + QPointF(40, -24).toPoint())
        QTest.mouseRelease(surface.disc, Qt.MouseButton.LeftButton)
        adjust = self.workspace.work.sieve
        self.wait(lambda: self.workspace.work.sieve != adjust and not self.workspace.work.dragging)


class PenTest(WindowCase):
    def test_strokes_with_pressure_paint_as_wide_as_they_press(self):
        self.open(ROOT / "demo" / "yard.png")
        self.window.pages.setCurrentWidget(self.window.areas)
        self.window.canvas.areas.take("brush")
        self.window.areas.pressure.setCurrentIndex(1)
        self.window.areas.pressure.activated.emit(1)
        strokes = pen.strokes_of(STROKES)
        self.assertEqual([len(stroke) for stroke in strokes], [3, 2])
        self.assertEqual(pen.play(self.window, strokes), 7)
        self.settle()
        held = [stroke for area in self.workspace.work.sieve.areas for stroke in area.strokes]
        self.assertEqual(len(held), 2)
        self.assertAlmostEqual(held[0].points[0][2], 0.2, places=2)
        self.assertAlmostEqual(max(place[2] for place in held[0].points), 1.0, places=2)

    def test_a_damaged_recording_says_which_line(self):
        for text, line in (
            ("1 2 3", 1),
            ("stroke\n1 2 0.5\n1 2 oops", 3),
            ("stroke\n1 2 1.5", 2),
            ("stroke\n1 2 0.5 90", 2),
            ("stroke\n1 2 0.5 0 0 0 0", 2),
        ):
            with self.assertRaisesRegex(ValueError, f"line {line}"):
                pen.strokes_of(text)


if __name__ == "__main__":
    unittest.main()

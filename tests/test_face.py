"""The face of the window: how much of it is picture, that nothing is cut off, panels that come
back, themes that can be read.
"""

import itertools

import numpy as np
from common import WindowCase
from PIL import Image
from PyQt6.QtCore import QEvent, QRect, Qt
from PyQt6.QtGui import QColor
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QCheckBox, QComboBox, QLabel, QMenu, QPushButton

from amber_sieve.desk import style
from amber_sieve.desk.app import application
from amber_sieve.desk.style import themed
from amber_sieve.desk.widgets.block import Block
from amber_sieve.desk.widgets.number import Number
from amber_sieve.desk.window.open_window import open_window
from amber_sieve.workspace import preferences
from amber_sieve.workspace.workspace import Workspace

SIZES, TEXTS = ((1024, 640), (1280, 800), (3840, 2160)), (100, 150, 200)


def ratio(one: str, other: str) -> float:
    """Contrast of two colours, WCAG 2.2, definition of contrast ratio."""

    def luminance(colour: str) -> float:
        parts = (QColor(colour).redF(), QColor(colour).greenF(), QColor(colour).blueF())
        red, green, blue = (
            part / 12.92 if part <= 0.04045 else ((part + 0.055) / 1.055) ** 2.4 for part in parts
        )
        return 0.2126 * red + 0.7152 * green + 0.0722 * blue

    light, dark = sorted((luminance(one), luminance(other)), reverse=True)
    return (light + 0.05) / (dark + 0.05)


class FaceTest(WindowCase):
    def setUp(self):
        # Dressing the application anew dresses every window there still is.
        self.addCleanup(lambda: QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete))
        super().setUp()
        picture = self.folder / "small.png"
        Image.fromarray(np.random.default_rng(1).integers(60, 200, (60, 90, 3), np.uint8)).save(
            picture
        )
        self.open(picture)

    def tearDown(self):
        self.workspace.preferences.change(
            theme="dark", text_size=100.0, panels=True, panels_state="", folded={}
        )
        super().tearDown()

    def test_the_picture_has_two_thirds_of_the_window(self):
        self.window.resize(1280, 800)
        canvas = self.window.canvas
        self.assertGreaterEqual(canvas.width(), 880)
        self.assertGreaterEqual(canvas.width() * canvas.height(), 1280 * 800 * 2 / 3)
        self.assertLess(self.window.stack.width(), 100)

    def cut_off(self, page):
        """What of a page does not fit into it: words of buttons, boxes and lists, and widgets
        beyond its right side.
        """
        right = page.viewport().width()
        for widget in page.widget().findChildren(
            (QPushButton, QCheckBox, QComboBox, QLabel, Number)
        ):
            if not widget.isVisible() or (
                isinstance(widget, QLabel) and (widget.wordWrap() or not widget.text())
            ):
                continue
            place = widget.mapTo(page.widget(), widget.rect().topRight())
            if place.x() >= right + 1:
                yield (
                    f"{type(widget).__name__} {getattr(widget, 'text', lambda: '')()} ends at "
                    f"{place.x()} of {right}"
                )
            elif (
                isinstance(widget, (QPushButton, QCheckBox))
                and widget.width() < widget.minimumSizeHint().width()
            ):
                yield f"{widget.text()} has {widget.width()} of {widget.minimumSizeHint().width()}"

    def test_nothing_is_cut_off_from_small_to_large_windows_and_text(self):
        self.workspace.areas.add(self.area())
        pages = [self.window.pages.widget(number) for number in range(self.window.pages.count())]
        names = ("comparing", "limits", "noise", "levels", "islands", "presets", "project")
        for block in (block for page in pages for block in page.findChildren(Block)):
            block.set_open(True)
        self.assertTrue(
            all(
                f"EdgePage.{name}" in self.workspace.preferences.values.folded
                for name in names[2:5]
            )
        )
        for text, size in itertools.product(TEXTS, SIZES):
            self.workspace.preferences.change(text_size=float(text))
            self.window.resize(*size)
            self.application.processEvents()
            self.assertEqual((self.window.width(), self.window.height()), size, f"text {text}")
            for page in pages:
                self.window.pages.setCurrentWidget(page)
                self.application.processEvents()
                self.assertEqual(
                    list(self.cut_off(page)), [], f"{size}, text {text} %, {type(page).__name__}"
                )
            row = self.window.top
            self.assertTrue(row.menus.isVisible() != row.all_menus.isVisible())
            self.assertLessEqual(row.steps.geometry().right(), size[0])
            self.assertTrue(
                all(
                    row.steps.tabRect(k).right() <= row.steps.width()
                    for k in range(row.steps.count())
                )
            )
            self.assertGreater(self.window.canvas.width(), 300)
        self.settle()

    def test_no_block_is_wider_than_the_page_when_it_is_opened_alone(self):
        self.window.resize(1280, 800)
        page = self.window.adjust
        self.window.pages.setCurrentWidget(page)
        for name in page.blocks:
            for other, block in page.blocks.items():
                block.set_open(other == name)
            self.settle()
            self.assertLessEqual(page.widget().width(), page.viewport().width(), name)
            self.assertEqual(list(self.cut_off(page)), [], name)

    def area(self):
        from amber_sieve.desk.canvas.area_shape import boxed

        return boxed("ellipse", (10, 10), (60, 50), mode="intersect")

    def test_panels_move_float_go_and_come_back(self):
        panels = self.window.panels
        panels.docks["field"].setFloating(True)
        self.assertTrue(panels.docks["field"].isFloating())
        self.window.addDockWidget(Qt.DockWidgetArea.LeftDockWidgetArea, panels.docks["page"])
        panels.switch("scopes")
        QTest.keyClick(self.window.canvas.panes[0], Qt.Key.Key_H)
        self.assertFalse(any(dock.isVisible() for dock in panels.docks.values()))
        QTest.keyClick(self.window.canvas.panes[0], Qt.Key.Key_H)
        self.assertTrue(panels.docks["page"].isVisible())
        self.assertTrue(panels.docks["scopes"].isVisible())
        panels.keep()
        other = open_window(Workspace())
        other.show()
        application().processEvents()
        self.assertEqual(
            other.dockWidgetArea(other.panels.docks["page"]), Qt.DockWidgetArea.LeftDockWidgetArea
        )
        self.assertTrue(other.panels.docks["field"].isFloating())
        self.assertFalse(other.panels.docks["scopes"].isHidden())
        self.away_with(other)
        menu = QMenu()
        panels.fill_menu(menu)
        menu.actions()[-1].trigger()  # as in a new window
        self.assertEqual(
            self.window.dockWidgetArea(panels.docks["page"]), Qt.DockWidgetArea.RightDockWidgetArea
        )
        self.assertFalse(panels.docks["field"].isFloating())
        for damaged in ("not base 64!", "AAAA", "////"):
            self.workspace.preferences.change(panels_state=damaged, place=damaged)
            again = open_window(Workspace())
            again.show()
            self.assertTrue(again.panels.docks["page"].isVisible())
            self.away_with(again)
        self.assertEqual(self.troubles, [])

    def test_the_rail_widens_to_a_list_and_switches(self):
        rows = self.window.stack.list
        box = rows.visualItemRect(rows.item(0)).topLeft()
        QTest.mouseClick(rows.viewport(), Qt.MouseButton.LeftButton, pos=box + type(box)(8, 8))
        self.settle()
        self.assertFalse(self.work.project.stack[0].on)
        self.window.resizeDocks(
            [self.window.panels.docks["stack"]], [220], Qt.Orientation.Horizontal
        )
        self.application.processEvents()
        self.assertIn("Mask: own pick", self.window.stack.mask_from.text())
        self.assertTrue(self.window.stack.grab().toImage().width())

    def test_the_result_stands_alone_on_another_screen_and_follows(self):
        self.window.menus.actions["clean screen"].trigger()
        clean = self.window.colours.clean
        self.assertTrue(clean.isVisible())
        before = clean.grab().toImage()
        self.work.edit_sieve(lambda sieve: sieve.but(invert=True), "All of it")
        self.work.set_field("adjust.light.exposure", -2.0, "Exposure")
        self.settle()
        darker = clean.grab().toImage()
        self.assertNotEqual(darker, before)
        self.window.canvas.viewport.zoom_to(self.window.canvas.viewport.zoom * 3)
        self.settle()
        self.assertNotEqual(clean.grab().toImage(), darker)
        QTest.keyClick(clean, Qt.Key.Key_Escape)
        self.assertIsNone(self.window.colours.clean)
        self.window.menus.actions["clean screen"].trigger()
        self.assertIsNotNone(self.window.colours.clean)  # it closes with the window

    def test_everything_on_the_picture_goes_by_keys(self):
        pane, key = self.window.canvas.panes[0], Qt.Key
        pane.setFocus()

        def press(*keys):
            for one in keys:
                QTest.keyClick(pane, one)

        press(key.Key_X)
        cursor = self.window.canvas.key_cursor
        start = cursor.at.x(), cursor.at.y()
        press(*[key.Key_Left] * 4, *[key.Key_Down] * 5)
        self.assertLess(cursor.at.x(), start[0])
        press(key.Key_Return)
        self.settle()
        sample = self.work.sieve.pick.samples[0]
        self.assertLess(abs(sample.x - cursor.at.x()) + abs(sample.y - cursor.at.y()), 3)
        self.window.pages.setCurrentWidget(self.window.areas)
        for tool, kind in (("rect", "rect"), ("brush", "brush")):
            self.window.canvas.areas.take(tool)
            press(key.Key_Space, *[key.Key_Right] * 6, *[key.Key_Down] * 6, key.Key_Space)
            self.settle()
            self.assertEqual(self.work.sieve.areas[-1].kind, kind)
        self.window.canvas.areas.take("")
        press(key.Key_Escape)
        self.assertIsNone(cursor.at)
        self.assertTrue(pane.grab().toImage().width())

    def test_themes_can_be_read(self):
        for theme, least in (("dark", 4.5), ("light", 4.5), ("contrast", 7.0)):
            for ground in ("#2e2e2e", "#222222", "#262626", "#3c3c3c"):
                for ink in ("#e2e2e2", "#9e9e9e", "#bdbdbd", "#f2b64a"):
                    if ground == "#3c3c3c" and ink in ("#9e9e9e", "#bdbdbd"):
                        continue  # a button's words are never quiet
                    found = ratio(themed(ink, theme), themed(ground, theme))
                    self.assertGreaterEqual(
                        found,
                        least if theme != "contrast" or ink == "#e2e2e2" else 4.5,
                        f"{theme}: {ink} on {ground}",
                    )
        self.workspace.preferences.change(theme="light")
        self.application.processEvents()
        self.assertEqual(style.INK.name(), themed("#e2e2e2", "light"))
        self.assertEqual(preferences.load().theme, "light")
        page = self.window.pick.widget()
        self.assertGreater(page.grab().toImage().pixelColor(1, page.height() - 1).lightness(), 180)

    def test_words_below_keep_off_the_rim_in_every_theme(self):
        readout, message = self.window.canvas.readout, self.window.status.message
        for theme in ("dark", "light", "contrast"):
            self.workspace.preferences.change(theme=theme)
            readout.setText("1235, 420")
            self.window.status.say("Saved.")
            self.application.processEvents()
            for label, inner in (
                (readout, readout.grab(QRect(0, 0, 10, 16))),
                (message, message.grab(QRect(message.width() - 10, 0, 10, 16))),
            ):
                rim, whole = inner.toImage(), label.grab().toImage()
                ground = whole.pixelColor(0, 0)
                self.assertTrue(
                    all(
                        rim.pixelColor(x, y) == ground
                        for x in range(9)
                        for y in range(rim.height())
                    ),
                    (theme, label.text()),
                )
                self.assertTrue(
                    any(
                        whole.pixelColor(x, whole.height() // 2) != ground
                        for x in range(whole.width())
                    ),
                    theme,
                )

    def test_links_have_the_colour_of_the_theme(self):
        """A link that was there before the theme keeps to what can be read on it (WCAG 2.2, 1.4.3:
        4.5 to 1).
        """
        self.window.turn_to("adjust")
        page = self.window.adjust
        page.blocks["recolour"].set_open(True)
        link = next(
            label
            for label in page.findChildren(QLabel)
            if "<a " in label.text() and label.isVisible()
        )
        for theme in ("light", "dark", "contrast"):
            self.workspace.preferences.change(theme=theme)
            self.application.processEvents()
            shown = link.grab().toImage()
            ground = shown.pixelColor(shown.width() - 1, 0).name()
            seen = {
                shown.pixelColor(x, y).name()
                for x in range(shown.width())
                for y in range(shown.height())
            }
            self.assertGreaterEqual(max(ratio(colour, ground) for colour in seen), 4.5, theme)

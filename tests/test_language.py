"""The window in German: nothing is left in English, nothing is cut off, and numbers have a
comma.
"""

import ast
import json
import os
import pathlib
import re
import string
import sys
import tempfile
import unittest
import xml.etree.ElementTree as ElementTree

import common
import forked
from PyQt6.QtCore import QTranslator

from amber_sieve.language import decimals, speak, translate

sys.path.insert(0, str(common.ROOT / "tools"))
GERMAN = common.ROOT / "src" / "amber_sieve" / "desk" / "languages" / "amber_de"
#: Marks what went through `translate` in a language made for the test.
MARKED = re.compile(r"⟦[^⟦⟧]*⟧")
#: Visible words that are the same in every language: names of formats, spaces and keys, and what
#: stands in the demo's own files.
SAME = re.compile(
    r"BT\.\d+( \(\d+\))?|HLG|PQ|sRGB|opRGB|Display P3|Rec\. 2020|Linear|gamma "
    r"[\d.]+|limited|full|linear|(8|16) bit|(PNG|TIFF|JPEG( XL)?|OpenEXR|WebP|DPX)  .*"
    r"|#RRGGBB|Amber Sieve|Sieve 1( [\d.]+ %)?|yard(-sieved\.png| – Amber "
    r"Sieve)?|\{\w+\}(-sieved)?|/.*|Scroll (Left|Right)|Close|Cancel|Float|English|Deutsch"
    r"|(Ctrl|Shift|Alt|F\d|Return|Space|Right|Left|Up|Down|Pg|Del|\W|\b\w\b|\d)*"
)

#: What every window of these tests begins with; {begin} chooses the language before anything else
#: is imported.
OPEN = """
import pathlib, re
{begin}
from PyQt6.QtWidgets import *
from amber_sieve.desk.app import application
from amber_sieve.desk.start.waiting import settle
from amber_sieve.desk.window.open_window import open_window
from amber_sieve.desk.dialogs import (
    batch_dialog, export_dialog, history_dialog, jobs_dialog, reading_dialog, small,
)
from amber_sieve.desk.widgets.block import Block
from amber_sieve.desk.widgets.number import Number
from amber_sieve.workspace.workspace import Workspace
running = application()
window = open_window(Workspace())
window.resize(1280, 800)
window.show()
window.workspace.pictures.open(pathlib.Path({yard!r}), copy=True)
settle(window.workspace)
{work}
window.workspace.work.history.mark_saved()
import os, sys
sys.stdout.flush()
os._exit(0)
"""
#: Prints every text of the window and its dialogs, a line each.
TEXTS = """
def say(text):
    for line in (text or '').replace(chr(10), ' ').split(chr(13)):
        print('TEXT', re.sub('<[^>]*>', '', line))
def walk(root):
    for one in [root, *root.findChildren(QWidget)]:
        for name in (
            'text', 'toolTip', 'accessibleName', 'windowTitle', 'placeholderText', 'title',
            'statusTip',
        ):
            read = getattr(one, name, None)
            if callable(read):
                said = read()
                if isinstance(said, str):
                    say(said)
        if isinstance(one, QComboBox):
            [say(one.itemText(k)) for k in range(one.count())]
        if isinstance(one, QListWidget):
            [say(one.item(k).text()) for k in range(one.count())]
        if isinstance(one, Number):
            say(one.name)
walk(window)
for action in window.menus.actions.values():
    say(action.text())
    say(action.statusTip())
for kind in (
    history_dialog.HistoryDialog, export_dialog.ExportDialog,
    batch_dialog.BatchDialog, jobs_dialog.JobsDialog, reading_dialog.ReadingDialog,
):
    walk(kind(window, window.workspace))
walk(small.PreferencesDialog(window, window.workspace, print))
"""
#: Prints what is cut off on each page, and how the numbers look.
CUT = """
def look(where, inside):
    for one in inside.findChildren(QAbstractButton) + inside.findChildren(QLabel):
        if not (one.isVisible() and one.text() and one.window() is inside.window()):
            continue
        if not getattr(one, 'wordWrap', bool)():
            if one.width() < one.minimumSizeHint().width() - 1:
                print('CUT', where, repr(one.text()), one.width(), one.minimumSizeHint().width())
    for one in inside.findChildren(Number):
        if one.isVisible():
            metrics, room = one.fontMetrics(), one.width() - 22
            if metrics.horizontalAdvance(one.name + one.shown()) > room:
                print('CUT', where, repr(one.name), repr(one.shown()), one.width())
    for one in inside.findChildren(QComboBox):
        if one.isVisible() and not one.isEditable():
            metrics, room = one.fontMetrics(), one.width() - 30
            if metrics.horizontalAdvance(one.currentText()) > room:
                print('CUT', where, repr(one.currentText()), one.width())
    for one in inside.findChildren(QScrollArea):
        held = one.widget()
        if one.isVisible() and held.width() > one.viewport().width():
            print('CUT', where, 'behind the scroll bar', held.width(), one.viewport().width())
def settled():
    settle(window.workspace)
    running.processEvents()
def all_pages(size, large):
    window.workspace.preferences.change(text_size=large)
    window.resize(*size)
    settled()
    if (window.width(), window.height()) != size:
        print('CUT', large, 'the window takes', window.width(), window.height())
    for page in range(window.pages.count()):
        window.pages.setCurrentIndex(page)
        settled()
        held = window.pages.currentWidget()
        for block in held.findChildren(Block):
            block.set_open(True)
        settled()
        look((large, page), window)
        right = held.mapTo(window, held.rect().topRight()).x()
        if right > window.width():
            print('CUT', large, 'the page ends at', right)
    for name in ('preferences', 'history', 'export', 'batch', 'queue', 'reading', 'sieve presets'):
        window.menus.actions[name].trigger()
        settled()
        for dialog in window.findChildren(QDialog):
            if dialog.isVisible():
                look((large, name), dialog)
                dialog.close()
        settled()
all_pages((1280, 800), 100.0)
all_pages((1000, 700), 150.0)
window.workspace.preferences.change(text_size=100.0)
window.pages.setCurrentIndex(0)
number = window.pick.tolerance
number.set(7.25)
print('NUMBER', number.text_of(7.25))
number._type('8,5', select=False)
number._typed()
print('TYPED', number.value())
print('SIEVE', window.pick.coverage.text())
"""


def run(begin: str, work: str, **environment: str) -> list[str]:
    """What a window of its own prints."""
    with tempfile.TemporaryDirectory() as home:
        own = (
            {f"XDG_{kind}_HOME": home for kind in ("STATE", "CONFIG", "DATA")}
            | {"QT_QPA_PLATFORM": "offscreen"}
            | environment
        )
        text = OPEN.format(begin=begin, yard=str(common.DEMO / "yard.sieve"), work=work)
        done = forked.run(forked.code, text, environment=own)
    if done.returncode:
        raise AssertionError(done.stderr[-2000:])
    return done.stdout.splitlines()


class GermanTest(unittest.TestCase):
    def test_every_text_is_gathered_and_translated_with_its_places(self):
        import translations

        said = {(context, text) for context, text, *_ in translations.all_texts()}
        held = {}
        for context in ElementTree.parse(GERMAN.with_suffix(".ts")).iter("context"):
            for message in context.findall("message"):
                held[context.findtext("name"), message.findtext("source")] = message
        self.assertEqual(said - held.keys(), set())
        self.assertEqual(translations.missing(GERMAN.with_suffix(".ts")), [])
        compiled = QTranslator()
        self.assertTrue(compiled.load(str(GERMAN.with_suffix(".qm"))))
        for (context, source), message in held.items():
            made = message.find("translation")
            forms = [form.text for form in made.findall("numerusform")] or [made.text]
            for form in forms:
                self.assertEqual(
                    set(re.findall(r"\{[^{}]*\}", form)),
                    set(re.findall(r"\{[^{}]*\}", source)),
                    source,
                )
            words = (context, source, message.findtext("comment") or "")
            self.assertIn(
                compiled.translate(*(word.encode() for word in words), 2 if len(forms) > 1 else -1),
                forms,
                source,
            )

    def test_every_place_in_a_text_has_its_value(self):
        calls = 0
        for path in (common.ROOT / "src").rglob("*.py"):
            for node in ast.walk(ast.parse(path.read_text())):
                called = getattr(getattr(node, "func", None), "id", "")
                if not called.startswith("translate") or not isinstance(node.args[0], ast.Constant):
                    continue
                calls += 1
                given = {keyword.arg for keyword in node.keywords}
                given |= {"n"} if len(node.args) > 2 else set()
                text = node.args[0].value
                places = {name for _, name, _, _ in string.Formatter().parse(text) if name}
                where = f"{path.name}, line {node.lineno}"
                if given:  # without values the text stays as it is
                    self.assertEqual(places, given, where)
                else:
                    self.assertLessEqual(places, {"name", "sieve", "date", "frame"}, where)
        self.assertGreater(calls, 900)

    def test_all_that_is_seen_goes_through_translation(self):
        begin = (
            "from amber_sieve import language\nlanguage.speak(lambda context, text, singular, n: "
            "'⟦' + text + '⟧')"
        )
        left = set()
        for line in run(begin, TEXTS):
            if line.startswith("TEXT "):
                bare = line.removeprefix("TEXT ")
                while bare != (bare := MARKED.sub("", bare)):
                    pass
                if re.search("[A-Za-z]{2}", bare) and not SAME.fullmatch(bare.strip()):
                    left.add(bare.strip())
        self.assertEqual(left, set())

    def test_the_window_speaks_german_and_cuts_nothing_off(self):
        said = run(
            "from amber_sieve.desk.translations import choose\nchoose()",
            CUT,
            LC_ALL="de_DE.UTF-8",
            LANGUAGE="de",
        )
        self.assertEqual([line for line in said if line.startswith("CUT")], [])
        self.assertTrue(
            any(line.startswith("SIEVE Bedeckt ") and "," in line for line in said), said
        )
        self.assertIn("TYPED 8.5", said)
        self.assertTrue(any(line.startswith("NUMBER 7,2") for line in said), said)

    def test_english_is_not_cut_off_either(self):
        said = run("", CUT, LC_ALL="C.UTF-8")
        self.assertEqual([line for line in said if line.startswith("CUT")], [])

    def test_a_preference_goes_before_the_systems_language(self):
        begin = "from amber_sieve.desk.translations import choose\nprint('CHOSEN', len(choose()))"
        for language, chosen in (("de", True), ("en", False)):
            with tempfile.TemporaryDirectory() as home:
                (pathlib.Path(home) / "amber-sieve").mkdir()
                (pathlib.Path(home) / "amber-sieve" / "preferences.json").write_text(
                    json.dumps({"language": language})
                )
                done = forked.run(
                    forked.code,
                    begin,
                    environment={"XDG_CONFIG_HOME": home, "LC_ALL": "de_DE.UTF-8"},
                )
            self.assertEqual("CHOSEN 0" not in done.stdout, chosen, done.stdout + done.stderr)

    def test_a_terminal_speaks_english(self):
        done = forked.run(
            forked.command,
            "info",
            common.DEMO / "missing.png",
            environment={"LC_ALL": "de_DE.UTF-8"},
        )
        self.assertIn("does not exist: check the name", done.stderr)


class LanguageTest(unittest.TestCase):
    def tearDown(self):
        speak(None)

    def test_places_plurals_and_decimals(self):
        self.assertEqual(translate("x", "{n} pictures", "{n} picture", 1), "1 picture")
        self.assertEqual(translate("x", "{n} pictures", "{n} picture", 0), "0 pictures")
        self.assertEqual(translate("x", "covers {share:.1f} %", share=9.25), "covers 9.2 %")
        compiled = QTranslator()
        compiled.load(str(GERMAN.with_suffix(".qm")))
        speak(
            lambda context, text, singular, n: compiled.translate(
                *(word.encode() for word in (context, text, singular)), n
            ),
            ",",
        )
        words = (
            "dialogs",
            "{n} pictures, each written as it came",
            "{n} picture, written as it came",
        )
        self.assertEqual(translate(*words, 1), "1 Bild, geschrieben, wie es kam")
        self.assertEqual(translate(*words, 3), "3 Bilder, jedes geschrieben, wie es kam")
        self.assertEqual(
            translate("nowhere", "not translated {share:.2f}", share=0.5), "not translated 0,50"
        )
        self.assertEqual(decimals("9.25 px at 1.5"), "9,25 px at 1,5")


if __name__ == "__main__":
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    unittest.main()

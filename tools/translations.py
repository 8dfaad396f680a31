"""Gathers what the window says, and compiles what translators have made of it.

    tools/translations.py           brings desk/languages/*.ts up to date and compiles them
    tools/translations.py --check   says what is not translated yet

A translator edits the .ts files (with Qt Linguist, or any editor). `lrelease` comes from Debian's
qt6-l10n-tools. What stands in tables (numbers of the model, commands, gestures, words of `names`)
is gathered from the tables themselves.
"""

from __future__ import annotations

import ast
import pathlib
import re
import shutil
import subprocess
import sys
import tempfile
import xml.etree.ElementTree as ElementTree
from collections.abc import Iterator

ROOT = pathlib.Path(__file__).resolve().parent.parent
SOURCES = ROOT / "src" / "amber_sieve"
LANGUAGES = SOURCES / "desk" / "languages"
sys.path.insert(0, str(ROOT / "src"))

from amber_sieve import names  # noqa: E402
from amber_sieve.desk.pages.areas import SHAPE_NUMBERS  # noqa: E402
from amber_sieve.desk.window.commands import TABLE  # noqa: E402
from amber_sieve.desk.window.keys import GESTURES  # noqa: E402
from amber_sieve.export.still_options import FILTERS, WHATS  # noqa: E402
from amber_sieve.project import model  # noqa: E402
from amber_sieve.workspace.preferences import Preferences  # noqa: E402


def in_tables() -> Iterator[tuple[str, str]]:
    """Context and text of what stands in tables."""
    kinds = {
        kind
        for kind in vars(model).values()
        if isinstance(kind, type) and issubclass(kind, model.Frozen)
    } | {Preferences}
    for kind in sorted(kinds, key=lambda kind: kind.__name__):
        label = getattr(kind, "label", "")
        if label:
            yield "model", label
        for field in kind.model_fields.values():
            if field.title:
                yield "model", field.title
                yield "model", field.description or field.title
            extra = field.json_schema_extra
            unit = extra.get("number", {}).get("unit", "") if isinstance(extra, dict) else ""
            if len(unit) > 2:
                yield "model", unit
    for row in TABLE:
        for text in (getattr(row, "label", ""), getattr(row, "tip", "")):
            if re.search("[A-Za-z]{2}", text):
                yield "commands", text
    yield "commands", "&Undo"
    yield "commands", "&Redo"
    for gesture in GESTURES:
        yield from (("keys", word) for word in gesture if re.search("[A-Za-z]{2}", word))
    listed = (
        names.COMPARISONS,
        names.SHAPES,
        names.WAYS,
        names.MOVES,
        names.BLENDS,
        names.FILL_KINDS,
        names.FILL_WHERES,
        names.BETWEENS,
    )
    more = (
        *WHATS,
        *FILTERS,
        "every mask",
        "lookup table",
        "colour decision list",
        "matrix",
        "range",
        "curve",
        "primaries",
        "shadows",
        "midtones",
        "highlights",
    )
    for word in (
        *(word for words in listed for word in words),
        *more,
        "dark",
        "mid",
        "light",
        "add",
        "subtract",
        "intersect",
        "keep",
        "drop",
        "mask",
        "adjustments",
        *names.AREA_KINDS,
    ):
        yield "names", word.capitalize()
    for spec in SHAPE_NUMBERS:
        yield "pages", spec.name


def texts_of(path: pathlib.Path) -> Iterator[tuple[str, ...]]:
    """Context, text and, where there is one, singular of all that a source file says."""
    tree = ast.parse(path.read_text())
    rooms = {"translate": ""}  # by the name to which a module binds its translator
    for node in tree.body:
        if isinstance(node, ast.Assign) and ast.unparse(node.value).startswith("translator("):
            assert isinstance(node.value, ast.Call) and isinstance(node.targets[0], ast.Name)
            rooms[node.targets[0].id] = ast.literal_eval(node.value.args[0])
    calls = [node for node in ast.walk(tree) if isinstance(node, ast.Call)]
    for node in sorted(calls, key=lambda node: (node.lineno, node.col_offset)):
        if room := rooms.get(getattr(node.func, "id", "")):
            texts = [word.value for word in node.args[:2] if isinstance(word, ast.Constant)]
            if texts:
                yield room, *texts


def all_texts() -> list[tuple[str, ...]]:
    """All that the program says, each once: context, text and, where there is one, singular."""
    sources = sorted(SOURCES.rglob("*.py"))
    said = [*(text for path in sources for text in texts_of(path)), *in_tables()]
    return list(dict.fromkeys(said))


def refresh(ts: pathlib.Path) -> None:
    """Bring a .ts file up to date; what the program does not say any more goes."""
    with tempfile.TemporaryDirectory() as folder:
        from PyQt6.lupdate.lupdate import lupdate

        calls = pathlib.Path(folder) / "calls.py"
        with calls.open("w") as file:
            for context, text, *singular in all_texts():
                words = [repr(word) for word in (context, text, *singular)]
                file.write(f"translate({', '.join(words)}{', n' if singular else ''})\n")
        lupdate([str(calls)], [str(ts)], no_obsolete=True)
    tree = ElementTree.parse(ts)
    for message in tree.iter("message"):
        for location in message.findall("location"):  # where a text stands changes with every edit
            message.remove(location)
    tree.getroot().set("sourcelanguage", "en")
    ElementTree.indent(tree)
    tree.write(ts, encoding="utf-8", xml_declaration=True)


def missing(ts: pathlib.Path) -> list[str]:
    """What a .ts file leaves untranslated."""
    found = []
    for message in ElementTree.parse(ts).iter("message"):
        made = message.find("translation")
        forms = [form.text for form in made.findall("numerusform")] if made is not None else []
        if (
            made is None
            or made.get("type") == "unfinished"
            or not (forms or [made.text])[0]
            or not all(forms)
        ):
            found.append(message.findtext("source") or "")
    return found


def main() -> int:
    files = sorted(LANGUAGES.glob("*.ts"))
    if sys.argv[1:] != ["--check"]:
        for ts in files:
            refresh(ts)
        release = shutil.which("lrelease") or "/usr/lib/qt6/bin/lrelease"
        for ts in files:
            subprocess.run([release, "-silent", str(ts)], check=True)
    left = [f"{ts.name}: {text}" for ts in files for text in missing(ts)]
    print("\n".join(left) or "Everything is translated.")
    return 1 if left else 0


if __name__ == "__main__":
    sys.exit(main())

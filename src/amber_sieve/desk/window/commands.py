"""Every command of the window, in the order of the menus: id, label, key, when it can be chosen,
and what it does.

Menus, shortcuts, the finder of commands and the sheet of keys are made from this table
(`menus.py`). Code goes by ids, so a label may be reworded or translated.
"""

from __future__ import annotations

import functools
from collections.abc import Iterator

from PyQt6.QtCore import Qt

from ...language import mid_sentence, translator
from ...names import MOVES, Moves
from ..dialogs.alone import show_alone
from ..dialogs.finder import Finder
from ..dialogs.small import SURROUNDS
from ..panels.stack_menu import (
    copy_sieve,
    fill_groups_menu,
    fill_mask_menu,
    fill_takes_menu,
    paste_sieve,
)
from ..widgets.number import Number
from .finding import findable
from .menus import Command, Line, Menu
from .top_row import STEPS
from .window import Window

translate = translator("commands")


#: How opaque a veil can be made from the menu, per cent.
OPACITIES = (30, 60, 90)


#: A row of the table.
Row = Command[Window] | Menu[Window] | Line


def _file() -> Iterator[Row]:
    yield Menu("file", "&File")
    yield Command("open", "file", "&Open…", lambda w: w.files.ask_open(), "Ctrl+O")
    yield Menu("recent", "Open &recent", "file", lambda w, menu: w.files.fill_recent(menu))
    yield Command("save", "file", "&Save project", lambda w: w.files.save(), "Ctrl+S")
    yield Command(
        "save as", "file", "Save project &as…", lambda w: w.files.ask_save(), "Ctrl+Shift+S"
    )
    yield Command(
        "unsaved",
        "file",
        "&Unsaved work…",
        lambda w: w.files.show_unsaved(),
        enabled=lambda w: bool(w.workspace.unsaved.found),
        tip="Work that was not saved when the program ended: restore it, or discard it",
    )
    yield Command("find picture", "file", "&Locate the picture…", lambda w: w.files.ask_again())
    yield Command(
        "start over",
        "file",
        "&Reset the stack",
        lambda w: w.workspace.saving.start_over(),
        tip="All sieves of this picture go; undo brings them back",
    )
    yield Command(
        "close picture", "file", "&Close picture", lambda w: w.files.close_picture(), "Ctrl+W"
    )
    yield Command(
        "next picture",
        "file",
        "&Next picture",
        lambda w: w.workspace.pictures.go_by(1),
        "Ctrl+PgDown",
    )
    yield Command(
        "previous picture",
        "file",
        "&Previous picture",
        lambda w: w.workspace.pictures.go_by(-1),
        "Ctrl+PgUp",
    )
    yield Line("file")
    yield Command("export", "file", "&Export…", lambda w: w.exports.show_export(), "Ctrl+E")
    yield Command(
        "export again",
        "file",
        "Export ag&ain",
        lambda w: w.exports.export_again(),
        "Ctrl+Alt+E",
        "As it was chosen last",
    )
    yield Command(
        "export mask",
        "file",
        "Export &mask…",
        lambda w: w.exports.show_export("mask"),
        "Ctrl+Shift+E",
    )
    yield Command(
        "export lookup",
        "file",
        "Export &lookup table…",
        lambda w: w.exports.show_export("lookup table"),
    )
    yield Menu("exported", "Recent e&xports", "file", lambda w, menu: w.exports.fill_recent(menu))
    yield Command(
        "reading", "file", "&Input settings…", lambda w: w.colours.show_reading(), "Ctrl+Alt+R"
    )
    yield Command("batch", "file", "&Batch…", lambda w: w.exports.show_batch(), "Ctrl+Shift+B")
    yield Command("queue", "file", "Export &queue…", lambda w: w.exports.show_jobs(), "Ctrl+J")
    yield Line("file")
    yield Command("quit", "file", "&Quit", lambda w: w.close(), "Ctrl+Q")


def _after(word: str, step: str | None) -> str:
    return translate(word) + (f" {mid_sentence(step)}" if step else "")


def _edit() -> Iterator[Row]:
    yield Menu("edit", "&Edit")
    yield Command(
        "undo",
        "edit",
        "&Undo",
        lambda w: w.workspace.work.undo(),
        "Ctrl+Z",
        enabled=lambda w: w.workspace.work.history.undoes is not None,
        name=lambda w: _after("&Undo", w.workspace.work.history.undoes),
    )
    yield Command(
        "redo",
        "edit",
        "&Redo",
        lambda w: w.workspace.work.redo(),
        "Ctrl+Shift+Z",
        enabled=lambda w: w.workspace.work.history.redoes is not None,
        name=lambda w: _after("&Redo", w.workspace.work.history.redoes),
    )
    yield Command("history", "edit", "&History…", lambda w: w.show_history(), "Ctrl+H")
    yield Line("edit")
    yield Command(
        "reach here",
        "edit",
        "&Reach of the sample: here or everywhere",
        lambda w: w.pick.toggle_reach(),
        "R",
        "The chosen samples, or the last: here, or everywhere",
    )
    yield Line("edit")
    yield Command("preferences", "edit", "&Preferences…", lambda w: w.show_preferences(), "Ctrl+,")


def _stack() -> Iterator[Row]:
    yield Menu("stack", "&Stack")
    yield Command(
        "add sieve", "stack", "&Add sieve", lambda w: w.workspace.stack.add(), "Ctrl+Shift+N"
    )
    yield Command(
        "duplicate sieve",
        "stack",
        "&Duplicate sieve",
        lambda w: w.workspace.stack.duplicate(w.workspace.work.sieve.id),
        "Ctrl+D",
    )
    yield Command(
        "leftovers",
        "stack",
        "Add a sieve for &leftovers",
        lambda w: w.workspace.stack.add_leftovers(w.workspace.work.sieve.id),
        tip=(
            "What still has the colours of this sieve after it: draw an area round the spots, "
            "then recolour or fill them"
        ),
    )
    yield Command(
        "rest", "stack", "Add a sieve for the r&est", lambda w: w.workspace.stack.add_the_rest(),
        tip=(
            "All that the other sieves leave: for one colour in a grey picture, or all but some "
            "things"
        ),
    )  # fmt: skip
    yield Command("rename sieve", "stack", "Re&name sieve", lambda w: w.stack.rename())
    yield Command("remove sieve", "stack", "Remove sieve", lambda w: w.stack.remove())
    yield Command(
        "sieve up",
        "stack",
        "Move &up",
        lambda w: w.workspace.stack.move(w.workspace.work.sieve.id, -1),
        "Ctrl+Shift+Up",
    )
    yield Command(
        "sieve down",
        "stack",
        "Move d&own",
        lambda w: w.workspace.stack.move(w.workspace.work.sieve.id, 1),
        "Ctrl+Shift+Down",
    )
    yield Command(
        "solo",
        "stack",
        "&Solo",
        lambda w: w.workspace.stack.toggle_solo(w.workspace.work.sieve.id),
        "S",
        "Only this sieve works",
    )
    yield Line("stack")
    yield Command(
        "copy sieve", "stack", "&Copy sieve", lambda w: copy_sieve(w.workspace), "Ctrl+Shift+C"
    )
    yield Command(
        "copy stack", "stack", "Copy all sieves", lambda w: copy_sieve(w.workspace, everything=True)
    )
    yield Command(
        "paste sieve", "stack", "&Paste sieve", lambda w: paste_sieve(w.workspace), "Ctrl+Shift+V"
    )
    yield Command(
        "paste mask", "stack", "Paste only its &mask", lambda w: paste_sieve(w.workspace, "mask")
    )
    yield Command(
        "paste adjustments",
        "stack",
        "Paste only its ad&justments",
        lambda w: paste_sieve(w.workspace, "adjustments"),
    )
    yield Command(
        "sieve presets", "stack", "Sieve p&resets…", lambda w: w.show_sieve_presets(), "Ctrl+Alt+P"
    )
    yield Line("stack")
    yield Menu(
        "mask from", "Mask &from", "stack", lambda w, menu: fill_mask_menu(menu, w.workspace)
    )
    yield Menu("groups", "&Groups", "stack", lambda w, menu: fill_groups_menu(menu, w.workspace, w))
    yield Menu(
        "takes",
        "&Takes",
        "stack",
        lambda w, menu: fill_takes_menu(
            menu, w.workspace, w, w.canvas.show_take_beside, w.canvas.wipe_take
        ),
    )


def _clip() -> Iterator[Row]:
    yield Menu("clip", "&Clip")
    yield Command("play", "clip", "&Play or stop", lambda w: w.workspace.playback.toggle())
    yield Command("in point", "clip", "&In point here", lambda w: w.timeline.toggle_in())
    yield Command("out point", "clip", "&Out point here", lambda w: w.timeline.toggle_out())
    yield Line("clip")
    yield Command(
        "next jump", "clip", "Next coverage &jump", lambda w: w.workspace.clip.next_trouble(1)
    )
    yield Command(
        "previous jump",
        "clip",
        "Previous coverage jump",
        lambda w: w.workspace.clip.next_trouble(-1),
        "Shift+N",
    )
    yield Line("clip")
    yield Command(
        "next keyframe",
        "clip",
        "&Next keyframe",
        lambda w: w.workspace.clip.next_key(1),
        "Ctrl+Alt+Right",
    )
    yield Command(
        "previous keyframe",
        "clip",
        "&Previous keyframe",
        lambda w: w.workspace.clip.next_key(-1),
        "Ctrl+Alt+Left",
    )
    yield Command(
        "key samples",
        "clip",
        "Add &keyframe: samples",
        lambda w: w.workspace.clip.key_samples(),
        "Ctrl+Alt+K",
        "The colours as they are on this frame, from here on",
    )
    yield Command(
        "key area",
        "clip",
        "Add keyframe: &area",
        lambda w: w.key_area(),
        tip="The chosen area may lie elsewhere on other frames",
    )
    yield Command(
        "unkey area", "clip", "Remove the area's keyframes", lambda w: w.key_area(remove=True)
    )
    for way, label, number in (
        ("forwards", "Track the area &forwards", 1),
        ("backwards", "Track the area back&wards", -1),
    ):
        yield Menu(f"track {way}", label, "clip")
        for moves in MOVES:
            act = functools.partial(_track, way=number, moves=moves)
            yield Command(f"track {way} by {moves}", f"track {way}", moves.capitalize(), act)


def _track(window: Window, way: int, moves: Moves) -> None:
    window.track_area(way, moves)


def _view() -> Iterator[Row]:
    yield Menu("view", "&View")
    yield Command("fit", "view", "&Fit", lambda w: w.canvas.viewport.fit(), "Ctrl+0")
    yield Command(
        "zoom 100",
        "view",
        "&100 %",
        lambda w: w.canvas.viewport.zoom_to(1.0 / w.devicePixelRatioF()),
        "Ctrl+1",
    )
    yield Command(
        "zoom in",
        "view",
        "Zoom &in",
        lambda w: w.canvas.viewport.zoom_to(w.canvas.viewport.zoom * 2),
        "Ctrl++",
    )
    yield Command(
        "zoom out",
        "view",
        "Zoom &out",
        lambda w: w.canvas.viewport.zoom_to(w.canvas.viewport.zoom / 2),
        "Ctrl+-",
    )
    yield Line("view")
    yield Command(
        "twin",
        "view",
        "&Twin view",
        lambda w: w.canvas.toggle("twin"),
        "T",
        "Picture and mask side by side",
    )
    yield Command(
        "inset",
        "view",
        "&Inset mask",
        lambda w: w.canvas.toggle("inset"),
        "I",
        "The mask small in a corner of the picture",
    )
    yield Command(
        "panels",
        "view",
        "&Hide or show all panels",
        lambda w: w.panels.toggle(),
        "H",
        "Only the picture, or the panels again",
    )
    yield Command(
        "scopes",
        "view",
        "S&copes",
        lambda w: w.panels.switch("scopes"),
        "P",
        "Waveform, parade, vectorscope and histogram, live",
    )
    yield Menu("each panel", "&Panels", "view", lambda w, menu: w.panels.fill_menu(menu))
    yield Command(
        "wipe",
        "view",
        "&Wipe",
        lambda w: w.canvas.bar.wipe.toggle(),
        "W",
        "Before and after on either side of a line",
    )
    yield Command(
        "beside", "view", "&Before and after side by side", lambda w: w.canvas.toggle_beside(), "B",
        "The picture as it was and the result side by side",
    )  # fmt: skip
    yield Command(
        "loupe",
        "view",
        "&Loupe",
        lambda w: w.canvas.bar.loupe.toggle(),
        "L",
        "The pixels at the pointer",
    )
    yield Command(
        "marks",
        "view",
        "&Marks on the picture",
        lambda w: _prefer(w, marks=not w.workspace.preferences.values.marks),
        "M",
        "Samples and areas are drawn over the picture; they fade on Adjust, while something is "
        "dragged and in before and after",
        ticked=lambda w: w.workspace.preferences.values.marks,
    )
    yield Command(
        "look ahead",
        "view",
        "Loo&k before a click",
        lambda w: w.workspace.ahead.switch(not w.workspace.ahead.on),
        "",
        "Where the pointer rests, the mask shows what a click there would give; hold Q for as "
        "long as that",
        ticked=lambda w: w.workspace.ahead.on,
    )
    yield Command(
        "offers",
        "view",
        "Offer the &next click",
        lambda w: _prefer(w, offers=not w.workspace.preferences.values.offers),
        "",
        "A small ring where the mask is least sure: a click there is likely to change most",
        ticked=lambda w: w.workspace.preferences.values.offers,
    )
    yield Command(
        "why",
        "view",
        "Wh&y is this pixel in or out?",
        lambda w: w.workspace.readout.explain(),
        "Y",
        "What decided about the pixel under the pointer, and which control would change it",
    )
    yield Command(
        "clean screen",
        "view",
        "Result on another &screen",
        lambda w: w.colours.toggle_clean(),
        "F11",
        "The result alone, full-screen on another screen; it shows the part that the window shows",
        ticked=lambda w: w.colours.clean is not None,
    )
    yield Command(
        "key cursor",
        "view",
        "Keyboard &cursor on the picture",
        lambda w: w.canvas.key_cursor.toggle(),
        "X",
        "Arrow keys move it, Enter clicks, Space presses and lets go, Escape ends it",
        ticked=lambda w: w.canvas.key_cursor.at is not None,
    )
    yield Command("large field", "view", "&Large colour field", lambda w: w.toggle_large_field())
    yield Menu("proof", "Soft &proof", "view")
    yield Command("proof off", "proof", "Off", lambda w: w.workspace.viewing.proof(None))
    yield Command("proof profile", "proof", "ICC profile…", lambda w: w.colours.ask_proof())
    yield Command(
        "proof marks",
        "proof",
        "Mark what is outside its gamut",
        lambda w: w.workspace.viewing.look(proof_marks=not w.workspace.viewing.looking.proof_marks),
        "Ctrl+Shift+G",
    )
    yield Menu("screen", "S&creen profile", "view")
    yield Command(
        "screen none", "screen", "None", lambda w: w.workspace.viewing.use_screen_profile(None)
    )
    yield Command(
        "screen profile", "screen", "ICC profile…", lambda w: w.colours.ask_screen_profile()
    )
    yield Menu("surround", "&Surround", "view")
    for tone in SURROUNDS:
        yield Command(
            f"surround {tone}",
            "surround",
            tone.capitalize(),
            functools.partial(_prefer, surround=tone),
        )
    yield Menu("veil", "&Veil", "view")
    yield Command(
        "veil inside",
        "veil",
        "Over the mask",
        lambda w: w.workspace.viewing.look(veil_outside=False),
    )
    yield Command(
        "veil outside",
        "veil",
        "Over the rest",
        lambda w: w.workspace.viewing.look(veil_outside=True),
    )
    yield Line("veil")
    yield Command(
        "veil automatic",
        "veil",
        "Automatic colour, far from what it covers",
        lambda w: w.workspace.preferences.change(veil_colour=None),
    )
    yield Command("veil colour", "veil", "Choose a colour…", lambda w: w.colours.ask_veil_colour())
    yield Line("veil")
    for opacity in OPACITIES:
        yield Command(
            f"veil {opacity}",
            "veil",
            f"{opacity} % opaque",
            functools.partial(_prefer, veil_opacity=float(opacity)),
        )
    yield Command(
        "follow view",
        "view",
        "Colour field follows the view",
        lambda w: w.workspace.viewing.count_view(not w.workspace.viewing.counts_view),
        ticked=lambda w: w.workspace.viewing.counts_view,
    )


def _prefer(window: Window, **changes: object) -> None:
    window.workspace.preferences.change(**changes)


def _go() -> Iterator[Row]:
    yield Menu("go", "&Go")
    for number, (name, label) in enumerate(STEPS.items()):
        yield Command(
            f"go {name}",
            "go",
            f"&{label}",
            functools.partial(_turn_to, number=number),
            f"F{number + 2}",
        )


def _turn_to(window: Window, number: int) -> None:
    """Open a page, with the focus on its first number: keys go on from there."""
    window.pages.setCurrentIndex(number)
    page = window.pages.currentWidget()
    numbers = page.findChildren(Number) if page is not None else []
    for first in (one for one in numbers if one.isVisible() and one.isEnabled()):
        first.setFocus(Qt.FocusReason.ShortcutFocusReason)
        break


def _help() -> Iterator[Row]:
    yield Menu("help", "&Help")
    yield Command(
        "guide",
        "help",
        "&Guide",
        lambda w: w.help.show_guide(),
        "F1",
        "What each thing is for, page by page, without a network",
    )
    yield Command(
        "tour",
        "help",
        "Take the &tour",
        lambda w: w.help.tour.start(),
        tip="Six steps on the demo, each in your own hands",
    )
    yield Command("keys", "help", "&Keys and gestures", lambda w: w.help.show_keys(), "Shift+F1")
    yield Command(
        "find",
        "help",
        "&Find anything…",
        lambda w: show_alone(Finder, w, findable(w)),
        "Ctrl+K",
        "Commands, numbers, sieves, takes, presets, pictures and the guide, by name",
    )


#: Menus, commands and lines as they stand below each other; a menu stands before what is in it.
TABLE: tuple[Row, ...] = (*_file(), *_edit(), *_stack(), *_clip(), *_view(), *_go(), *_help())

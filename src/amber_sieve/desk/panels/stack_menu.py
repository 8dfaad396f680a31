"""The menu of the stack: sieves copied and linked, takes, history."""

from __future__ import annotations

import functools
from collections.abc import Callable

from PyQt6.QtGui import QAction, QGuiApplication
from PyQt6.QtWidgets import QCheckBox, QInputDialog, QMenu, QWidget, QWidgetAction

from ...language import translator
from ...names import AREA_MODES, MaskFrom
from ...project.edits import leaning_on
from ...project.model import Group, Sieve
from ...workspace.workspace import Workspace

translate = translator("panels")


JOINS = {
    "add": translate("Add to it"),
    "subtract": translate("Subtract from it"),
    "intersect": translate("Only where it is too"),
}


def copy_sieve(workspace: Workspace, everything: bool = False) -> None:
    """Put the current sieve on the clipboard, or the whole stack."""
    board = QGuiApplication.clipboard()
    if board is not None:
        board.setText(workspace.stack.clipping(everything))
        workspace.speech.said.emit(
            translate(
                "Copied {what}",
                what=translate("the whole stack") if everything else workspace.work.sieve.name,
            )
        )


def paste_sieve(workspace: Workspace, part: str = "") -> None:
    """Take what the clipboard holds into the stack, or a part of it into the current sieve."""
    board = QGuiApplication.clipboard()
    workspace.stack.paste(board.text() if board is not None else "", part)


def ask_take(parent: QWidget, workspace: Workspace) -> None:
    """Keep the stack as a take under a name."""
    name, sure = QInputDialog.getText(
        parent,
        translate("Save take"),
        translate("Name of this take:"),
        text=translate("Take {count}", count=len(workspace.work.project.takes) + 1),
    )
    if sure:
        workspace.stack.keep_take(name)


def _add(menu: QMenu, title: str, act: Callable[[], object], on: bool | None = None) -> QAction:
    """An entry of a menu, with a tick when ``on`` says whether it has one."""
    action = QAction(title, menu)
    action.setCheckable(on is not None)
    action.setChecked(bool(on))
    action.triggered.connect(lambda _: act())
    menu.addAction(action)
    return action


def _add_tick(menu: QMenu, title: str, on: bool, act: Callable[[], object]) -> None:
    """A tick that leaves the menu open, so that several can be chosen."""
    box = QCheckBox(title, menu)
    box.setChecked(on)
    box.setContentsMargins(12, 4, 12, 4)
    box.clicked.connect(lambda _: act())
    action = QWidgetAction(menu)
    action.setText(title)
    action.setDefaultWidget(box)
    action.triggered.connect(lambda _: box.click())  # by keyboard
    menu.addAction(action)


def _part(menu: QMenu, title: str) -> QMenu:
    part = menu.addMenu(title)
    assert part is not None
    return part


def _others(workspace: Workspace) -> list[Sieve]:
    """Sieves that the current one may lean on: not itself, and none that leans on it."""
    here = workspace.work.sieve.id
    leaning, open_ones = {here}, [here]
    while open_ones:
        found = [
            sieve.id
            for sieve in leaning_on(workspace.work.project, open_ones.pop())
            if sieve.id not in leaning
        ]
        leaning |= set(found)
        open_ones += found
    return [sieve for sieve in workspace.work.project.stack if sieve.id not in leaning]


def _tick_left(workspace: Workspace, other: str) -> None:
    """Put a sieve to those whose rest is taken, or take it away again; the last one stays."""
    sieve = workspace.work.sieve
    rest = tuple(name for name in sieve.of if name != other) if sieve.mask_from == "left" else ()
    there = sieve.mask_from == "left" and other in sieve.of
    workspace.stack.set_mask_from("left", rest if there and rest else (*rest, other))


def fill_mask_menu(menu: QMenu, workspace: Workspace) -> None:
    """Fill the menu of where the current sieve's mask comes from."""
    menu.clear()
    sieve, others = workspace.work.sieve, _others(workspace)
    _add(
        menu,
        translate("Own pick"),
        lambda: workspace.stack.set_mask_from("own"),
        sieve.mask_from == "own" and not sieve.opposite,
    )
    ways: tuple[tuple[str, MaskFrom, bool], ...] = (
        (translate("Same as"), "same", False),
        (translate("Opposite of"), "same", True),
        (translate("The rest of"), "left", False),
    )
    for title, kind, opposite in ways:
        part = _part(menu, title)
        part.setEnabled(bool(others))
        for other in others:
            chosen = sieve.mask_from == kind and sieve.opposite == opposite and other.id in sieve.of
            act = functools.partial(workspace.stack.set_mask_from, kind, (other.id,), opposite)
            if kind == "left":
                _add_tick(
                    part, other.name, chosen, functools.partial(_tick_left, workspace, other.id)
                )
            else:
                _add(part, other.name, act, chosen)
    menu.addSeparator()
    for mode in AREA_MODES:
        part = _part(menu, JOINS[mode])
        part.setEnabled(bool(others))
        for other in others:
            _add(part, other.name, functools.partial(workspace.stack.join_mask, mode, other.id))
    menu.addSeparator()
    _add(menu, translate("Unlink (keep a copy)"), workspace.stack.unlink_mask).setEnabled(
        bool(sieve.leans_on)
    )


def fill_takes_menu(
    menu: QMenu,
    workspace: Workspace,
    parent: QWidget,
    beside: Callable[[], object],
    wipe: Callable[[], object],
) -> None:
    """The takes of the project; ``beside`` and ``wipe`` show the other take with this one."""

    def compare(name: str, show: Callable[[], object]) -> None:
        workspace.viewing.look(take=name)
        show()

    menu.clear()
    _add(menu, translate("Save the stack as a take…"), lambda: ask_take(parent, workspace))
    menu.addSeparator()
    for take in workspace.work.project.takes:
        part = _part(menu, take.name)
        _add(
            part,
            translate("Switch to this take"),
            functools.partial(workspace.stack.use_take, take.name),
        )
        _add(
            part,
            translate("Compare side by side"),
            functools.partial(compare, take.name, beside),
        )
        _add(
            part,
            translate("Compare by wipe"),
            functools.partial(compare, take.name, wipe),
        )
        _add(
            part,
            translate("Remove it"),
            functools.partial(workspace.stack.remove_take, take.name),
        )


def _ask_group(parent: QWidget, workspace: Workspace) -> None:
    name, sure = QInputDialog.getText(
        parent,
        translate("New group"),
        translate("Name of the group:"),
        text=translate("Group {count}", count=len(workspace.work.project.groups) + 1),
    )
    if sure and name.strip():
        workspace.stack.put_into_group(name)


def _ask_strength(parent: QWidget, workspace: Workspace, group: Group) -> None:
    value, sure = QInputDialog.getDouble(
        parent,
        group.name,
        translate("Strength of the group, %:"),
        group.strength,
        0,
        100,
        0,
    )
    if sure:
        workspace.stack.change_group(group.id, strength=value)


def fill_groups_menu(menu: QMenu, workspace: Workspace, parent: QWidget) -> None:
    """The group of the current sieve, and what is done with groups."""
    menu.clear()
    here = workspace.work.sieve.group
    _add(menu, translate("No group"), lambda: workspace.stack.put_into_group(""), not here)
    for group in workspace.work.project.groups:
        _add(
            menu,
            translate("In {name}", name=group.name),
            functools.partial(workspace.stack.put_into_group, group.name),
            here == group.id,
        )
    _add(menu, translate("In a new group…"), lambda: _ask_group(parent, workspace))
    menu.addSeparator()
    for group in workspace.work.project.groups:
        part = _part(menu, group.name)
        _add(
            part,
            translate("On"),
            functools.partial(workspace.stack.change_group, group.id, on=not group.on),
            group.on,
        )
        _add(
            part,
            translate("Strength {strength:.0f} %…", strength=group.strength),
            functools.partial(_ask_strength, parent, workspace, group),
        )
        _add(
            part,
            translate("Dissolve"),
            functools.partial(workspace.stack.dissolve_group, group.id),
        )

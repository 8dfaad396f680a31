"""All that can be found by name: commands, numbers, blocks, sieves, takes, presets, pictures and
the guide.
"""

from __future__ import annotations

import functools
from collections.abc import Iterator

from ...language import translator
from ...project import sieve_presets
from ...project.fields import spec_at
from ...project.model import Sieve
from ..dialogs.finder import Findable
from ..dialogs.guide import title_of
from ..pages.page import Page
from ..start.places import guide
from .top_row import STEPS
from .window import Window

translate = translator("window")


def findable(window: Window) -> list[Findable]:
    """All that can be found now, in the order in which it is listed before anything is typed."""
    return [
        *_commands(window),
        *_numbers(window),
        *_blocks(window),
        *_of_the_project(window),
        *_pictures(window),
        *_guide(window),
    ]


def _commands(window: Window) -> Iterator[Findable]:
    for menu, name, action in window.menus.listed():
        if action.isEnabled():
            yield Findable(menu, name, action.trigger, action.shortcut().toString())


def _numbers(window: Window) -> Iterator[Findable]:
    def set_to(page: Page, path: str, value: float) -> None:
        window.go_to_control(path)
        page.set_number(path, value)

    for step, title in STEPS.items():
        page: Page = getattr(window, step)
        for path, number in page.numbers_by_path().items():
            way = path.split(".")
            block = window.adjust.blocks.get(way[1]) if way[0] == "adjust" else None
            yield Findable(
                f"{title}, {block.title}" if block is not None else title,
                spec_at(Sieve, path).label,
                functools.partial(window.go_to_control, path),
                number.shown(),
                functools.partial(set_to, page, path) if number.isEnabled() else None,
            )


def _blocks(window: Window) -> Iterator[Findable]:
    for name, block in window.adjust.blocks.items():
        yield Findable(STEPS["adjust"], block.title, functools.partial(window.go_to_block, name))


def _of_the_project(window: Window) -> Iterator[Findable]:
    work, stack = window.workspace.work, window.workspace.stack
    for sieve in work.project.stack:
        yield Findable(translate("Sieve"), sieve.name, functools.partial(work.select, sieve.id))
    for take in work.project.takes:
        yield Findable(translate("Take"), take.name, functools.partial(stack.use_take, take.name))
    for preset in sieve_presets.STORE.all():
        called = translate("Preset {name}", name=preset.name)
        yield Findable(
            translate("Sieve preset"),
            preset.name,
            functools.partial(stack.add_copies, (preset.sieve,), called),
        )


def _pictures(window: Window) -> Iterator[Findable]:
    for entry in window.workspace.tray.entries:
        if not entry.blank:
            yield Findable(
                translate("Picture"),
                entry.name,
                functools.partial(window.workspace.pictures.go_to, entry),
            )


def _guide(window: Window) -> Iterator[Findable]:
    folder = guide()
    for page in sorted(folder.glob("*.md")) if folder is not None else ():
        yield Findable(
            translate("Guide"), title_of(page), functools.partial(window.help.show_guide, page.stem)
        )

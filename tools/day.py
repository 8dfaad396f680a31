"""A working day in short: pictures opened, picked, adjusted, saved and exported, clips tracked and
rendered, random events in between.

QT_QPA_PLATFORM=offscreen .venv/bin/python tools/day.py [pictures] [events] [seed]

Five hundred pictures and forty thousand events are eight hours' worth. Prints memory, threads, open
files and temporary files ten times; ends with 1 when anything was raised, or when any of them grew
after the first third.
"""

from __future__ import annotations

import gc
import os
import pathlib
import sys
import threading
import time
import traceback
from dataclasses import dataclass

import monkey
import numpy as np
from PIL import Image
from PyQt6.QtCore import QEvent
from PyQt6.QtWidgets import QApplication

from amber_sieve.desk.start.waiting import settle
from amber_sieve.export.clip import ClipExport
from amber_sieve.project.model import Area
from amber_sieve.workspace.background.latest_only import QUIET

#: A clip is tracked and rendered after so many pictures.
A_CLIP_EVERY = 20
#: Pictures that stay on the tray.
ON_THE_TRAY = 12
#: Frames of a clip that are rendered.
FRAMES = (0, 11)


@dataclass(frozen=True)
class State:
    """What must not grow: megabytes, threads, open files, temporary files."""

    memory: float
    threads: int
    files: int
    temporary: int

    def grown(self, since: State) -> list[str]:
        """What has grown by more than what comes and goes."""
        room = {"memory": monkey.FLAT, "threads": 2, "files": 4, "temporary": 2}
        return [
            name for name, more in room.items() if getattr(self, name) > getattr(since, name) + more
        ]


class Day:
    """Does one picture after another."""

    def __init__(self, seed: int) -> None:
        self.hand = monkey.Monkey(seed)
        self.workspace, self.chance = self.hand.workspace, self.hand.chance
        self.workspace.preferences.change(
            cache_megabytes=200
        )  # so that it is full before the first third is over
        self.yard = np.asarray(
            Image.open(monkey.ROOT / "demo" / "yard.png").convert("RGB").resize((900, 600)),
            np.float32,
        )

    def state(self) -> State:
        settle(self.workspace, 300)
        gc.collect()
        time.sleep(2 * QUIET / 1000)
        temporary = sum(
            1
            for path in self.hand.folder.rglob("*")
            if path.is_file() and path.name.startswith(".")
        )
        return State(
            monkey.resident(),
            threading.active_count(),
            len(list(pathlib.Path("/proc/self/fd").iterdir())),
            temporary,
        )

    def picture(self, number: int) -> None:
        """Open one, pick, adjust, save, export."""
        path = self.hand.folder / f"day-{number:04}.png"
        light = self.yard * np.float32(self.chance.uniform(0.6, 1.0)) + np.float32(
            self.chance.uniform(0, 20)
        )
        Image.fromarray(np.clip(light, 0, 255).astype(np.uint8)).save(path, compress_level=1)
        self.workspace.pictures.open(path)
        settle(self.workspace, 300)
        self.hand.window.pages.setCurrentWidget(self.hand.window.pick)
        for _ in range(self.chance.randrange(1, 4)):
            self.hand.step()
        self.workspace.work.set_field("adjust.recolour.hue", self.chance.uniform(-180, 180), "Hue")
        self.workspace.work.set_field(
            "adjust.light.exposure", self.chance.uniform(-2, 2), "Exposure"
        )
        settle(self.workspace, 300)
        self.workspace.saving.save(path.with_suffix(".sieve"))
        self.workspace.exports.write(self.hand.folder / f"done-{number:04}.jpg")
        settle(self.workspace, 300)
        for one in ("day", "done"):  # a day's files would fill a small disk
            for old in sorted(self.hand.folder.glob(f"{one}-*"))[: -4 * ON_THE_TRAY]:
                old.unlink()

    def clip(self) -> None:
        """Track an area through a clip, and render some of it."""
        self.workspace.pictures.open(monkey.ROOT / "demo" / "clip.mp4")
        settle(self.workspace, 300)
        area = Area(id="day", kind="ellipse", points=((480, 270), (540, 270), (480, 330)))
        self.workspace.work.edit_sieve(lambda sieve: sieve.but(areas=(area,)), "Area")
        self.workspace.clip.track_area("day", 1, "position")
        settle(self.workspace, 300)
        self.workspace.exports.write_frames(self.hand.folder / "day.mp4", FRAMES, "", ClipExport())
        settle(self.workspace, 300)

    def close_old(self) -> None:
        old = [
            entry
            for entry in self.workspace.tray.entries
            if entry is not self.workspace.tray.current
        ][:-ON_THE_TRAY]
        for entry in self.workspace.tray.entries:
            entry.document.history.mark_saved()
        self.workspace.pictures.close(old)

    def events(self, count: int) -> None:
        for _ in range(count):
            self.hand.step()
            QApplication.processEvents()
            QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)


def run(pictures: int, events: int, seed: int) -> int:
    """A day of so many pictures and events; returns 1 when something was raised or grew."""
    day, states = Day(seed), list[State]()
    for number in range(pictures):
        try:
            day.picture(number)
            if number % A_CLIP_EVERY == A_CLIP_EVERY - 1:
                day.clip()
            day.close_old()
            day.events(events // pictures)
        except Exception:  # what a slot would have raised
            day.hand.raised.append(traceback.format_exc())
        if (number + 1) * 10 // pictures > number * 10 // pictures:
            states.append(now := day.state())
            print(
                f"{number + 1:5} pictures: {now.memory:6.0f} MB, {now.threads} threads, "
                f"{now.files} files, {now.temporary} temporary, "
                f"{len(day.hand.raised)} raised",
                flush=True,
            )
    grown = states[-1].grown(states[len(states) // 3])
    for words in dict.fromkeys(day.hand.raised):
        print(words)
    print(
        f"{pictures} pictures, {events} events: "
        + (f"{', '.join(grown)} grew" if grown else "nothing grew after the first third")
    )
    return 1 if grown or day.hand.raised else 0


if __name__ == "__main__":
    pictures, events, seed = (
        int(word) for word in (sys.argv[1:] + ["500", "40000", "1"][len(sys.argv) - 1 :])
    )
    code = run(pictures, events, seed)
    sys.stdout.flush()
    os._exit(code)

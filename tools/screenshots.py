"""Takes the pictures of the main views for docs/screenshots and, smaller, for the guide, and writes
the guide's page of keys.

PYTHONPATH=src QT_QPA_PLATFORM=offscreen .venv/bin/python tools/screenshots.py
"""

import pathlib
import sys
import tempfile
import time

ROOT = pathlib.Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT / "src"), str(ROOT / "tests")]
import own_home  # noqa: E402, F401  (as on a new machine: nobody's own preferences)
from PyQt6.QtCore import QPointF, Qt  # noqa: E402
from PyQt6.QtWidgets import QWidget  # noqa: E402

from amber_sieve.desk.app import application  # noqa: E402
from amber_sieve.desk.canvas.area_shape import boxed, turned  # noqa: E402
from amber_sieve.desk.dialogs.export_dialog import ExportDialog  # noqa: E402
from amber_sieve.desk.dialogs.jobs_dialog import JobsDialog  # noqa: E402
from amber_sieve.desk.dialogs.reading_dialog import ReadingDialog  # noqa: E402
from amber_sieve.desk.dialogs.small import Keys  # noqa: E402
from amber_sieve.desk.start.waiting import settle  # noqa: E402
from amber_sieve.desk.window.keys import GESTURES  # noqa: E402
from amber_sieve.desk.window.open_window import open_window  # noqa: E402
from amber_sieve.desk.window.window import Window  # noqa: E402
from amber_sieve.export.clip import ClipExport  # noqa: E402
from amber_sieve.project.model import Adjust, Area, Recolour  # noqa: E402
from amber_sieve.workspace.workspace import Workspace  # noqa: E402

DEMO, OUT, GUIDE = ROOT / "demo", ROOT / "docs" / "screenshots", ROOT / "docs" / "guide"
#: Pictures that the guide shows too, and their width there, pixels.
SHOWN, WIDE = (
    ("pick", "adjust", "areas", "stack", "edge", "believable", "clip", "tray", "reading", "views"),
    640,
)


def save(widget: QWidget, name: str) -> None:
    """A picture of a widget, and a smaller one for the guide."""
    whole = widget.grab()
    whole.save(str(OUT / f"{name}.png"))
    if name in SHOWN:
        small = (
            whole.scaledToWidth(WIDE, Qt.TransformationMode.SmoothTransformation)
            if whole.width() > WIDE
            else whole
        )
        small.save(str(GUIDE / "pictures" / f"{name}.png"))


def keys_page(window: Window) -> str:
    """Every key and gesture, as a page of the guide."""
    keyed = [
        (menu, action.shortcut().toString(), command)
        for menu, command, action in window.menus.listed()
    ]
    rows = [*GESTURES, *(row for row in keyed if row[1])]
    lines = ["# Every key", "", "| where | key or gesture | what it does |", "|---|---|---|"]
    return (
        "\n".join(
            [*lines, *(f"| {where} | {key} | {what} |" for where, key, what in rows)]
        ).replace("| |", "| \\| |")
        + "\n"
    )


class Photographer:
    """Opens the window at 1280 x 800 and takes pictures of it."""

    def __init__(self) -> None:
        self.application = application()
        self.window = open_window(Workspace())
        self.window.resize(1280, 800)
        self.window.show()
        self.workspace = self.window.workspace

    def open(self, name: str) -> None:
        self.workspace.pictures.close_all()
        self.workspace.pictures.open(DEMO / name)
        settle(self.workspace)

    def point(self, x: float, y: float, pane: int = 0) -> None:
        """As if the pointer were at this picture point."""
        held = self.window.canvas.panes[pane]
        held._inside, held._at = True, QPointF(x, y)
        self.window.canvas._hover(QPointF(x, y))
        held.update()

    def take(self, name: str, flash: bool = False) -> None:
        settle(self.workspace)
        self._quiet()
        if not flash:  # what the last click did is shown for a moment only
            self.window.canvas._flash(None)
            self.window.canvas.answer.hide()
        self.window.stack.follow()
        for _ in range(4):  # a layout inside another asks for the next
            self.application.processEvents()
        save(self.window, name)

    def _quiet(self) -> None:
        """Wait for what nobody waits for: surfaces, and the next click."""
        workers, end = self.workspace.workers, time.monotonic() + 20
        is_still = self.workspace.work.frames <= 1
        while time.monotonic() < end and not (
            workers.surfaces.idle
            and self.workspace.offers.idle
            and (self.window.pick.surfaces.chips or not is_still)
        ):
            self.application.processEvents()
            time.sleep(0.01)


def ahead(camera: Photographer) -> None:
    """A click that is only looked at: the pointer rests on the cloth while Q is held."""
    camera.open("yard.png")
    camera.workspace.samples.take(742, 790)
    settle(camera.workspace)
    camera.workspace.ahead.switch(True)
    camera.point(1205, 400)
    end = time.monotonic() + 3
    while time.monotonic() < end:
        camera.application.processEvents()
    camera.take("ahead")
    camera.workspace.ahead.switch(False)


def pick(camera: Photographer) -> None:
    camera.open("yard.png")
    for x, y, role in ((1398, 882, "keep"), (231, 945, "drop"), (1662, 1042, "keep")):
        camera.workspace.samples.take(x, y, role)
        settle(camera.workspace)
    camera.point(1380, 1000)
    camera.take("pick", flash=True)


def export(camera: Photographer) -> None:
    camera.open("yard.png")
    camera.workspace.samples.take(1205, 400)
    settle(camera.workspace)
    camera.workspace.work.set_field("adjust.recolour.hue", 110.0, "Hue")
    settle(camera.workspace)
    dialog = ExportDialog(camera.window, camera.workspace)
    dialog.place.setText("~/Pictures")
    dialog.show()
    settle(camera.workspace)
    save(dialog, "export")
    dialog.what.setCurrentIndex(4)
    settle(camera.workspace)
    save(dialog, "lookup")
    dialog.close()


def tray(camera: Photographer) -> None:
    camera.workspace.pictures.close_all()
    camera.workspace.pictures.open_many(
        [DEMO / name for name in ("yard.png", "close.png", "madder.png", "evening.png", "clip.mp4")]
    )
    settle(camera.workspace)
    camera.workspace.samples.take(1205, 400)
    settle(camera.workspace)
    camera.workspace.work.set_field("adjust.recolour.hue", 110.0, "Hue")
    entries = camera.workspace.tray.entries
    camera.workspace.sharing.share([entries[0], entries[2]], True)
    camera.take("tray")
    camera.workspace.pictures.close_all()


def stack(camera: Photographer) -> None:
    camera.open("yard.png")
    workspace = camera.workspace
    workspace.samples.take(742, 790)
    settle(workspace)
    workspace.work.edit_sieve(lambda s: s.but(name="Jar"), "Name")
    jar = workspace.work.sieve.id
    workspace.stack.add()
    workspace.samples.take(1205, 400)
    settle(workspace)
    workspace.work.edit_sieve(
        lambda s: s.but(name="Cloth", adjust=Adjust(recolour=Recolour(hue=110))), "Name"
    )
    cloth = workspace.work.sieve.id
    workspace.stack.add()
    workspace.work.edit_sieve(lambda s: s.but(name="All else"), "Name")
    workspace.stack.set_mask_from("left", (jar, cloth))
    workspace.work.set_field("adjust.mono.mono", 100.0, "Grey")
    camera.take("stack")


def adjust(camera: Photographer) -> None:
    camera.open("yard.png")
    window, workspace = camera.window, camera.workspace
    window.pages.setCurrentWidget(window.adjust)
    workspace.samples.take(300, 200)
    settle(workspace)
    sky = workspace.work.sieve.adjust.fill.but(
        fill="picture", fill_where="behind", fill_picture=str(DEMO / "evening.png")
    )
    workspace.work.edit_sieve(
        lambda s: s.but(name="Sky", invert=True, adjust=s.adjust.but(fill=sky)), "Another sky"
    )
    workspace.stack.add()
    workspace.samples.take(742, 790)
    settle(workspace)
    workspace.work.edit_sieve(
        lambda s: s.but(
            name="Jar", adjust=s.adjust.but(match=s.adjust.match.but(target=(0.27, 0.10, 0.34)))
        ),
        "Jar",
    )
    window.adjust.blocks["recolour"].set_open(True)
    window.adjust.blocks["white"].set_open(True)
    camera.take("adjust")


def believable(camera: Photographer) -> None:
    camera.open("yard.png")
    window, workspace = camera.window, camera.workspace
    window.pages.setCurrentWidget(window.adjust)
    window.canvas.set_view(1, "realism")
    workspace.samples.take(1205, 400)
    settle(workspace)
    balance = workspace.work.sieve.adjust.balance.but(
        shadows_hue=300.0, shadows_colour=40.0, highlights_hue=30.0, highlights_colour=60.0
    )
    curve = workspace.work.sieve.adjust.curve.but(curve=((0.2, 0.3), (0.45, 0.78)))
    workspace.work.edit_sieve(
        lambda s: s.but(adjust=s.adjust.but(balance=balance, curve=curve)), "Look"
    )
    window.adjust.believable.set_open(True)
    settle(workspace)
    workspace.adjust.judge()
    camera.take("believable")
    window.canvas.set_view(1, "mask")
    window.adjust.believable.set_open(False)


def bands(camera: Photographer) -> None:
    camera.open("yard.png")
    for x, y in ((1100, 180), (1235, 420), (1400, 450)):
        camera.workspace.samples.take(x, y)
        settle(camera.workspace)
    camera.workspace.samples.set_bands()
    settle(camera.workspace)
    camera.window.pages.setCurrentWidget(camera.window.bands)
    camera.window.canvas.set_view(1, "veil")
    settle(camera.workspace)
    camera.point(1235, 420)
    camera.take("bands")


def views(camera: Photographer) -> None:
    camera.open("close.png")
    camera.window.pages.setCurrentWidget(camera.window.pick)
    camera.workspace.samples.take(610, 976, fresh=True)
    settle(camera.workspace)
    camera.workspace.work.edit_sieve(
        lambda s: s.but(adjust=Adjust(recolour=Recolour(hue=-60.0))), "Hue"
    )
    camera.window.canvas.set_view(0, "isolate")
    camera.window.canvas.set_view(1, "weak spots")
    camera.take("views")
    camera.window.canvas.set_view(0, "result")


def edge(camera: Photographer) -> None:
    camera.open("yard.sieve")
    camera.window.pages.setCurrentWidget(camera.window.edge)
    camera.window.canvas.set_view(1, "mask")
    view = camera.window.canvas.viewport
    view.zoom_to(1.0)
    view.centre = QPointF(1230, 600)
    view.changed.emit()
    settle(camera.workspace)
    camera.window.edge.count.click()
    camera.window.edge.fringe_check.click()
    settle(camera.workspace)
    camera.take("edge")
    view.fit()


def areas(camera: Photographer) -> None:
    camera.open("yard.sieve")
    camera.window.pages.setCurrentWidget(camera.window.areas)
    tools = camera.window.canvas.areas
    tools.selected = camera.workspace.areas.add(
        turned(boxed("ellipse", (1000, 150), (1500, 700), mode="intersect", feather=12.0), 20)
    )
    tools.take("change")
    camera.take("areas")


def clip(camera: Photographer) -> None:
    camera.open("clip.mp4")
    camera.workspace.samples.take(290, 450, fresh=True)
    settle(camera.workspace)
    camera.workspace.work.edit_sieve(
        lambda s: s.but(adjust=Adjust(recolour=Recolour(hue=150.0))), "Hue"
    )
    camera.window.pages.setCurrentWidget(camera.window.adjust)
    camera.window.canvas.set_view(1, "mask")
    camera.workspace.clip.set_key("adjust.recolour.hue", "smooth")
    camera.workspace.clip.go_to(60)
    camera.workspace.work.set_field("adjust.recolour.hue", 60.0, "Hue")
    camera.workspace.clip.go_to(38)
    settle(camera.workspace)
    # What crosses before the jar is kept out of it.
    cup = Area(
        name="Cup", kind="ellipse", points=((504, 345), (541, 345), (504, 387)), mode="subtract"
    )
    camera.workspace.areas.add(cup)
    for way in (1, -1):
        camera.workspace.clip.track_area(cup.id, way, "position, size and rotation")
        settle(camera.workspace)
    camera.workspace.clip.go_to(46)
    camera.workspace.clip.set_between(8, 72)
    camera.window.timeline.watch.click()
    bar = camera.window.timeline.bar
    while bar.course is None or len(bar.course.seen) < camera.workspace.work.frames:
        camera.application.processEvents()
        time.sleep(0.01)
    camera.take("clip")
    camera.window.timeline.watch.click()


def reading(camera: Photographer) -> None:
    camera.open("clip.mp4")
    dialog = ReadingDialog(camera.window, camera.workspace)
    dialog.show()
    settle(camera.workspace)
    save(dialog, "reading")
    dialog.close()


def queue(camera: Photographer) -> None:
    camera.open("clip.mp4")
    with tempfile.TemporaryDirectory() as folder:
        dialog = JobsDialog(camera.window, camera.workspace)
        dialog.show()
        for name in ("clip-sieved.mov", "clip-mask.mov", "clip-sieved.mp4"):
            camera.workspace.exports.write_frames(
                pathlib.Path(folder) / name, (0, 30), "", ClipExport()
            )
        while dialog.bar.value() < 400:
            camera.application.processEvents()
            time.sleep(0.005)
        dialog.pause.click()
        camera.application.processEvents()
        save(dialog, "queue")
        for waiting in list(camera.workspace.workers.jobs.waiting):
            camera.workspace.workers.jobs.forget(waiting)
        camera.workspace.workers.stop_job()
        settle(camera.workspace)
        dialog.close()


def inset(camera: Photographer) -> None:
    camera.open("yard.sieve")
    camera.window.pages.setCurrentWidget(camera.window.adjust)
    camera.workspace.preferences.change(arrangement="inset")
    camera.take("inset")
    camera.workspace.preferences.change(arrangement="twin")


def start(camera: Photographer) -> None:
    """With nothing open: recent work, and ways to begin."""
    camera.workspace.pictures.close_all()
    camera.workspace.preferences.change(
        recent=tuple(
            str(DEMO / name) for name in ("yard.sieve", "close.png", "clip.mp4", "evening.png")
        )
    )
    view = camera.window.front.widget(1)
    view._list()
    end = time.monotonic() + 10
    while time.monotonic() < end and not camera.workspace.workers.recents.idle:
        camera.application.processEvents()
    camera.application.processEvents()
    save(camera.window, "start")


def scopes(camera: Photographer) -> None:
    camera.open("yard.sieve")
    camera.window.pages.setCurrentWidget(camera.window.adjust)
    camera.window.panels.switch("scopes")
    camera.window.scopes.tiles[0].kind.setCurrentIndex(1)
    camera.window.scopes.add.click()
    camera.window.scopes.tiles[1].kind.setCurrentIndex(2)
    camera.take("scopes")
    camera.window.panels.switch("scopes")


def keys(camera: Photographer) -> None:
    camera.window.help.show_keys()
    sheet = camera.window.findChild(Keys)
    camera.application.processEvents()
    save(sheet, "keys")
    sheet.close()


def main() -> None:
    OUT.mkdir(parents=True, exist_ok=True)
    (GUIDE / "pictures").mkdir(parents=True, exist_ok=True)
    camera = Photographer()
    for view in (
        pick,
        ahead,
        bands,
        views,
        edge,
        areas,
        adjust,
        believable,
        stack,
        export,
        tray,
        clip,
        reading,
        queue,
        inset,
        scopes,
        start,
        keys,
    ):
        view(camera)
    (GUIDE / "11-keys.md").write_text(keys_page(camera.window), encoding="utf-8")
    camera.workspace.work.history.mark_saved()
    camera.window.close()


if __name__ == "__main__":
    main()

"""The main window."""

from __future__ import annotations

import pathlib
from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QEvent, QObject, Qt
from PyQt6.QtGui import QAction, QCloseEvent, QColor, QDragEnterEvent, QDropEvent, QIcon, QKeyEvent, QKeySequence
from PyQt6.QtWidgets import (
    QAbstractButton,
    QApplication,
    QColorDialog,
    QFileDialog,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QMainWindow,
    QMessageBox,
    QProgressBar,
    QPushButton,
    QSplitter,
    QTabWidget,
    QVBoxLayout,
    QWidget,
)

from ..core.colour.transfer import decode
from ..media import source, stills
from .canvas import Canvas
from .colour_field import ColourField
from .pages.adjust import AdjustPage
from .pages.areas import AreasPage
from .pages.bands import BandsPage
from .pages.edge import EdgePage
from .pages.pick import PickPage
from .session import Session
from .stack_panel import StackPanel
from .style import HERE
from .timeline import Timeline
from .worker import Job

READABLE = " ".join(f"*{end}" for end in (*stills.READS, *source.CLIPS, ".sieve"))
PICTURES = "Pictures (*.png *.tif *.tiff *.jpg *.exr)"
CLIPS = "Clips (*.mp4 *.mov *.mkv)"


class Window(QMainWindow):
    """Stack on the left, picture and mask in the middle, the page of the current step on the right."""

    follow_view: QAction

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setWindowIcon(QIcon(str(HERE / "icons" / "amber-sieve.svg")))
        self.resize(1280, 800)
        self.setAcceptDrops(True)
        self.canvas = Canvas(session)
        self.timeline = Timeline(session)
        self.stack = StackPanel(session)
        self.pages = QTabWidget()
        self.pages.setDocumentMode(True)
        self.pages.tabBar().setDrawBase(False)  # type: ignore[union-attr]
        self.pick, self.bands, self.adjust = PickPage(session), BandsPage(session), AdjustPage(session)
        self.pages.addTab(self.pick, "Pick")
        self.pages.addTab(self.bands, "Bands")
        self.edge, self.areas = EdgePage(session), AreasPage(session, self.canvas.areas)
        self.pages.addTab(self.edge, "Edge")
        self.pages.addTab(self.areas, "Areas")
        self.pages.addTab(self.adjust, "Adjust")
        self.pages.currentChanged.connect(self._page_changed)
        middle = QWidget()
        column = QVBoxLayout(middle)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.canvas, 1)
        column.addWidget(self.timeline)
        self.field = ColourField(session)
        left = QWidget()
        left.setObjectName("panel")
        column = QVBoxLayout(left)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.stack, 1)
        column.addWidget(self.field)
        self.split = QSplitter(Qt.Orientation.Horizontal)
        for widget in (left, middle, self.pages):
            self.split.addWidget(widget)
        self.split.setStretchFactor(1, 1)
        self.split.setSizes([200, 810, 270])
        self.pages.setMinimumWidth(262)
        left.setMinimumWidth(190)
        self.setCentralWidget(self.split)
        self._build_status()
        self._build_menus()
        session.trouble.connect(self.tell_trouble)
        session.said.connect(lambda text: self.statusBar().showMessage(text, 6000))  # type: ignore[union-attr]
        session.job_changed.connect(self._job_changed)
        session.project_changed.connect(self._retitle)
        session.source_changed.connect(self._retitle)
        session.source_changed.connect(self.canvas.panes[0].setFocus)
        application = QApplication.instance()
        assert application is not None
        application.installEventFilter(self)
        self._retitle()

    def _page_changed(self) -> None:
        """The tools of a page are in hand only while it is open."""
        page = self.pages.currentWidget()
        self.canvas.areas.take("change" if page is self.areas else "")
        self.edge.click_islands.setChecked(False)
        self.session.outline_island(None)

    # Building

    def _build_status(self) -> None:
        bar = self.statusBar()
        assert bar is not None
        self.note = QLabel("")
        self.job_bar = QProgressBar()
        self.job_bar.setRange(0, 1000)
        self.job_bar.setFixedWidth(220)
        self.job_stop = QPushButton("Stop")
        self.job_stop.clicked.connect(self.session.stop_job)
        box = QWidget()
        row = QHBoxLayout(box)
        row.setContentsMargins(0, 0, 0, 0)
        for widget in (self.note, self.job_bar, self.job_stop):
            row.addWidget(widget)
        self.job_box = box
        bar.addPermanentWidget(box)
        box.hide()

    def _act(self, menu, name: str, keys: str, act, tip: str = "") -> QAction:  # type: ignore[no-untyped-def]
        action = QAction(name, self)
        if keys:
            action.setShortcut(QKeySequence(keys))
        action.triggered.connect(lambda _=False: act())
        action.setStatusTip(tip)
        menu.addAction(action)
        return action

    def _build_menus(self) -> None:
        bar = self.menuBar()
        assert bar is not None
        file = bar.addMenu("&File")
        self._act(file, "&Open…", "Ctrl+O", self.ask_open)
        self._act(file, "&Save project", "Ctrl+S", self.save)
        self._act(file, "Save project &as…", "Ctrl+Shift+S", self.ask_save)
        file.addSeparator()  # type: ignore[union-attr]
        self._act(file, "&Export result…", "Ctrl+E", self.ask_export)
        self._act(file, "Export &mask…", "Ctrl+Shift+E", self.ask_export_mask)
        file.addSeparator()  # type: ignore[union-attr]
        self._act(file, "&Quit", "Ctrl+Q", self.close)
        edit = bar.addMenu("&Edit")
        self.undo = self._act(edit, "&Undo", "Ctrl+Z", self.session.undo)
        self.redo = self._act(edit, "&Redo", "Ctrl+Shift+Z", self.session.redo)
        edit.addSeparator()  # type: ignore[union-attr]
        self._act(edit, "&Add sieve", "Ctrl+Shift+N", self.session.add_sieve)
        view = bar.addMenu("&View")
        self._act(view, "&Fit", "Ctrl+0", self.canvas.viewport.fit)
        self._act(view, "&100 %", "Ctrl+1", lambda: self.canvas.viewport.zoom_to(1.0 / self.devicePixelRatioF()))
        self._act(view, "Zoom &in", "Ctrl++", lambda: self.canvas.viewport.zoom_to(self.canvas.viewport.zoom * 2))
        self._act(view, "Zoom &out", "Ctrl+-", lambda: self.canvas.viewport.zoom_to(self.canvas.viewport.zoom / 2))
        self._act(view, "&Twin view", "", self.canvas.twin.toggle)
        surround = view.addMenu("&Surround")  # type: ignore[union-attr]
        for name in ("dark", "mid", "light"):
            self._act(surround, name.capitalize(), "", lambda name=name: self.canvas.set_surround(name))
        veil = view.addMenu("&Veil")  # type: ignore[union-attr]
        self._act(veil, "Over the inside", "", lambda: self.session.look(veil_outside=False))
        self._act(veil, "Over the outside", "", lambda: self.session.look(veil_outside=True))
        veil.addSeparator()  # type: ignore[union-attr]
        self._act(veil, "Colour by itself, far from what it covers", "", lambda: self.session.look(veil_colour=None))
        self._act(veil, "Choose a colour…", "", self.ask_veil_colour)
        veil.addSeparator()  # type: ignore[union-attr]
        for opacity in (30, 60, 90):
            self._act(veil, f"{opacity} % opaque", "", lambda opacity=opacity: self.session.look(veil_opacity=opacity / 100))
        self.follow_view = self._act(
            view, "Colour field follows the view", "", lambda: self.session.follow_view(self.follow_view.isChecked())
        )
        self.follow_view.setCheckable(True)
        help_menu = bar.addMenu("&Help")
        self._act(help_menu, "&Keys and gestures", "F1", self.show_keys)

    # Saying

    def tell_trouble(self, message: str) -> None:
        """Say what is wrong in one sentence, without stopping anything."""
        box = QMessageBox(QMessageBox.Icon.Warning, "Amber Sieve", message, QMessageBox.StandardButton.Ok, self)
        box.setModal(False)
        box.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        box.show()
        self.last_trouble = message

    def show_keys(self) -> None:
        """What can be done with mouse and keys."""
        QMessageBox.information(
            self, "Keys and gestures",
            "Click: start over with this colour.  Shift+click: keep it too.  Ctrl+click: drop it.\n"
            "Wheel: zoom at the pointer.  Middle button: pan.  Arrow keys on the picture: pan.  Enter: click in the middle.\n"
            "1 to 8: Result, Original, Mask, Veil, Isolate, Cut-out, Weak spots, Haze check in the pane under the pointer.  T: twin view.  W: wipe.  L: loupe.\n"
            "Press on a colour and drag outwards: its tolerance.\n"
            "Hold O: the picture as it was.  Space: play.  , and . step through frames.\n"
            "Numbers: drag, type, arrow keys (Shift ×10, Alt ÷10), double-click resets.",
        )  # fmt: skip

    def ask_veil_colour(self) -> None:
        colour = QColorDialog.getColor(QColor(40, 220, 90), self, "Veil colour")
        if colour.isValid():
            light = decode(np.array([colour.redF(), colour.greenF(), colour.blueF()]))
            self.session.look(veil_colour=(float(light[0]), float(light[1]), float(light[2])))

    def _retitle(self) -> None:
        history = self.session.history
        self.setWindowTitle(f"{self.session.display_name()}{' •' if history.changed else ''} – Amber Sieve")
        self.undo.setText(f"&Undo {history.undoes.lower()}" if history.undoes else "&Undo")
        self.redo.setText(f"&Redo {history.redoes.lower()}" if history.redoes else "&Redo")
        self.undo.setEnabled(history.undoes is not None)
        self.redo.setEnabled(history.redoes is not None)

    def _job_changed(self, job: Job | None) -> None:
        self.job_box.setVisible(job is not None)
        if job is not None:
            self.note.setText(job.title)
            self.job_bar.setValue(0)
            self.job_bar.setFormat("")
            job.progressed.connect(self._progress)

    def _progress(self, share: float, left: float | None) -> None:
        self.job_bar.setValue(round(share * 1000))
        self.job_bar.setFormat(f"{share * 100:.0f} %" + (f", {left:.0f} s left" if left is not None else ""))

    # Files

    def ask_open(self) -> None:
        if not self._may_leave():
            return
        name, _ = QFileDialog.getOpenFileName(
            self, "Open a picture, clip or project", "", f"Pictures, clips, projects ({READABLE});;All files (*)"
        )
        if name:
            self.session.open(pathlib.Path(name))

    def save(self) -> bool:
        return self.session.save(self.session.path) if self.session.path else self.ask_save()

    def ask_save(self) -> bool:
        start = str(pathlib.Path(self.session.project.source).with_suffix(".sieve")) if self.session.project.source else ""
        name, _ = QFileDialog.getSaveFileName(self, "Save project", start, "Projects (*.sieve)")
        if not name:
            return False
        return self.session.save(pathlib.Path(name if name.endswith(".sieve") else name + ".sieve"))

    def ask_export(self) -> None:
        if not self.session.opened:
            self.tell_trouble("There is nothing to export yet: open a picture first.")
            return
        about = self.session.opened.source.about
        ending = about.path.suffix if about.kind == "still" else ".mp4"
        start = str(about.path.with_name(f"{about.path.stem}-sieved{ending}"))
        name, _ = QFileDialog.getSaveFileName(
            self, "Export result", start, f"{PICTURES};;{CLIPS}" if about.kind == "still" else f"{CLIPS};;{PICTURES}"
        )
        if name:
            self.session.export(pathlib.Path(name))

    def ask_export_mask(self) -> None:
        if not self.session.opened:
            self.tell_trouble("There is no mask to export yet: open a picture first.")
            return
        path = self.session.opened.source.about.path
        name, _ = QFileDialog.getSaveFileName(
            self, "Export mask", str(path.with_name(f"{path.stem}-mask.png")), "Grey pictures (*.png *.tif *.exr)"
        )
        if name:
            self.session.export_mask(pathlib.Path(name))

    def _may_leave(self) -> bool:
        """Whether unsaved work may be left behind; asks when there is any."""
        if not self.session.history.changed:
            return True
        choice = QMessageBox.question(
            self, "Amber Sieve", "The project has changes that are not saved.",
            QMessageBox.StandardButton.Save | QMessageBox.StandardButton.Discard | QMessageBox.StandardButton.Cancel,
        )  # fmt: skip
        return self.save() if choice == QMessageBox.StandardButton.Save else choice == QMessageBox.StandardButton.Discard

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        if event is not None and event.mimeData() is not None and event.mimeData().hasUrls():  # type: ignore[union-attr]
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent | None) -> None:
        if event is not None and event.mimeData() is not None and self._may_leave():
            self.session.open(pathlib.Path(event.mimeData().urls()[0].toLocalFile()))  # type: ignore[union-attr]

    def closeEvent(self, event: QCloseEvent | None) -> None:
        if event is None:
            return
        if self._may_leave():
            self.session.close()
            event.accept()
        else:
            event.ignore()

    # Keys of the picture, wherever the focus is but in a text field

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(event, QKeyEvent) and event.type() in (QEvent.Type.KeyPress, QEvent.Type.KeyRelease) and self.isActiveWindow():
            pressed = event.type() == QEvent.Type.KeyPress
            focus = QApplication.focusWidget()
            if (
                not event.modifiers()
                and not isinstance(focus, QLineEdit)
                and watched is focus
                and self._key(event.key(), pressed, event.isAutoRepeat(), focus)
            ):
                return True
        return super().eventFilter(watched, event)

    def _key(self, key: int, pressed: bool, repeats: bool, focus: QWidget | None) -> bool:
        if key == Qt.Key.Key_O:
            if not repeats:
                self.canvas.show_before(pressed)
            return True
        on_picture = focus in self.canvas.panes
        if on_picture and pressed and self.canvas.areas.tool and self.canvas.areas.key(key):
            return True
        if Qt.Key.Key_1 <= key <= Qt.Key.Key_8 and on_picture:
            if pressed:
                self.canvas.set_active_view(key - Qt.Key.Key_1)
            return True
        acts: dict[int, Callable[[], object]] = {
            Qt.Key.Key_T: self.canvas.twin.toggle,
            Qt.Key.Key_W: self.canvas.wipe.toggle,
            Qt.Key.Key_L: self.canvas.loupe.toggle,
            Qt.Key.Key_Comma: lambda: self.session.go_to(self.session.number - 1),
            Qt.Key.Key_Period: lambda: self.session.go_to(self.session.number + 1),
        }
        if self.session.frames > 1 and not isinstance(focus, QAbstractButton):
            acts[Qt.Key.Key_Space] = self.timeline.play.toggle
        if on_picture:
            acts.update(self.canvas.keys())
        act = acts.get(key)
        if act is None:
            return False
        if pressed:
            act()
        return True

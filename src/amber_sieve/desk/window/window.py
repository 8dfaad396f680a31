"""The main window."""

from __future__ import annotations

import pathlib

from PyQt6.QtCore import QEvent, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QCloseEvent, QDragEnterEvent, QDropEvent, QIcon, QShowEvent
from PyQt6.QtWidgets import (
    QApplication,
    QMainWindow,
    QStackedWidget,
)

from ...language import translator
from ...names import Moves
from ...workspace.workspace import Workspace
from ..canvas.canvas import Canvas
from ..clip.timeline import Timeline
from ..dialogs.alone import show_alone
from ..dialogs.history_dialog import HistoryDialog
from ..dialogs.sieve_presets_dialog import SievePresetsDialog
from ..dialogs.small import PreferencesDialog, tell
from ..pages.adjust import AdjustPage
from ..pages.areas import AreasPage
from ..pages.bands import BandsPage
from ..pages.edge import EdgePage
from ..pages.page import Page, column_of
from ..pages.pick import PickPage
from ..panels.colour_field import ColourField
from ..panels.scopes_panel import ScopesPanel
from ..panels.stack_panel import StackPanel
from ..panels.tray_strip import TrayStrip
from ..start.start_view import StartView
from ..style import HERE, dress
from .colours import Colours
from .exports import Exports
from .files import Files
from .helping import Helping
from .menus import Menus
from .notices import Notices
from .panels import Panels
from .picture_keys import PictureKeys
from .place import keep_on_screen, keep_place, size_to_screen
from .status import Status
from .top_row import STEPS, TopRow

translate = translator("window")


#: Width of the rail of sieves in a new window, pixels.
RAIL = 74
#: Width of the pages in a new window, pixels.
PAGE = 280
#: How much of what letters grow by the pages do: their numbers and words can be cut in the middle,
#: not their buttons.
WIDER = 0.66


class Window(QMainWindow):
    """One row above; a rail of sieves, the picture and its mask, and the page of the current step
    below.
    """

    #: It closes from now on: nothing more may be handed to it.
    leaving = pyqtSignal()

    def __init__(self, workspace: Workspace) -> None:
        super().__init__()
        self.setAnimated(False)  # nothing in the window moves by itself
        running = QApplication.instance()
        assert isinstance(running, QApplication)
        self.workspace, self._application = workspace, running
        self.last_trouble = ""
        #: Another window opens once this one is closed.
        self.starts_again = False
        #: What is being said just now.
        self._told: set[str] = set()
        self.setWindowIcon(QIcon(str(HERE / "icons" / "amber-sieve.svg")))
        size_to_screen(self, workspace.preferences)
        self.setAcceptDrops(True)
        self.canvas, self.timeline = Canvas(workspace), Timeline(workspace)
        self.tray, self.stack = TrayStrip(workspace), StackPanel(workspace)
        self.pages = QStackedWidget()
        self.pick, self.bands, self.adjust = (
            PickPage(workspace),
            BandsPage(workspace),
            AdjustPage(workspace),
        )
        self.edge, self.areas = EdgePage(workspace), AreasPage(workspace, self.canvas.areas)
        for name in STEPS:
            self.pages.addWidget(getattr(self, name))
        self.pages.currentChanged.connect(self._page_changed)
        self.notices = Notices(
            workspace,
            lambda: self.files.close_everything(),
            lambda: self.colours.show_reading(),
        )
        self.help = Helping(self, workspace, self.turn_to, self.tell_trouble)
        self.front = QStackedWidget()
        self.front.addWidget(self.canvas)
        self.front.addWidget(
            StartView(
                workspace, lambda: self.files.ask_open(), self.help.show_guide, self.help.tour.start
            )
        )
        self.field = ColourField(workspace)
        self.scopes = ScopesPanel(workspace)
        self.field.enlarged.connect(self.toggle_large_field)
        middle = column_of(
            self.notices.gone,
            self.notices.opened,
            self.help.tour.notice,
            self.front,
            grows=self.front,
        )
        self.setCentralWidget(middle)
        self.top = TopRow(self.canvas.bar, self.canvas.bar.spare, self.pages)
        self.setMenuWidget(self.top)
        steps = column_of(self.notices.inverted, self.pages, grows=self.pages)
        self.panels = Panels(self, workspace.preferences)
        left, right = Qt.DockWidgetArea.LeftDockWidgetArea, Qt.DockWidgetArea.RightDockWidgetArea
        for name, title, widget, area in (
            ("stack", translate("Stack"), self.stack, left),
            ("page", translate("Step"), steps, right),
            ("field", translate("Colour field"), self.field, right),
            ("scopes", translate("Scopes"), self.scopes, right),
        ):
            self.panels.add(name, title, widget, area)
        column = middle.layout()
        assert column is not None
        for below in (self.timeline, self.tray):  # after the pages, so that Tab comes to them later
            column.addWidget(below)
        self.pages.setMinimumWidth(PAGE)
        self.panels.size({"stack": RAIL, "page": PAGE}, {"page": 560, "field": 150})
        self.status = Status(workspace, self.canvas.readout)
        self.setStatusBar(self.status)
        self.canvas.gestures.outlined = self.pick.plain_place
        self.files, self.exports = Files(self, workspace), Exports(self, workspace)
        self.colours = Colours(self, workspace, self.canvas.viewport)
        self._listen()
        PictureKeys(
            self,
            workspace,
            self.canvas,
            self.timeline,
            lambda: self.menus.letters,
            lambda: self.menus.actions.values(),
        )
        self.panels.docks["scopes"].hide()
        self.panels.restore()
        workspace.preferences.changed.connect(self._mark)
        workspace.preferences.changed.connect(self._dress)
        self._dress()
        self.canvas.follow_tool()

    def _listen(self) -> None:
        """Follow the work, and what is said."""
        workspace = self.workspace
        for wrong in (workspace.speech.trouble, workspace.speech.mishap):
            wrong.connect(self.tell_trouble)
        workspace.speech.said.connect(self.status.say)
        workspace.speech.wrote.connect(self.status.say_written)
        self.status.opened.connect(self.exports.open_outside)
        workspace.pictures.missing.connect(self.files.ask_missing)
        for changed in (workspace.work.changed, workspace.work.source_changed):
            changed.connect(self._retitle)
        workspace.work.source_changed.connect(self.canvas.panes[0].setFocus)
        workspace.work.source_changed.connect(lambda: self._show_front(""))
        workspace.pictures.opening.connect(self._show_front)
        self._show_front("")
        self.adjust.mend.connect(self.go_to_control)
        self.edge.click_islands.toggled.connect(self.canvas.follow_tool)

    def take_menus(self, menus: Menus[Window]) -> None:
        """Have these menus; the window is whole from now on."""
        self.menus = self.help.menus = menus
        self.stack.menu_wanted.connect(menus.menus["stack"].popup)
        self._retitle()

    def showEvent(self, event: QShowEvent | None) -> None:
        """Once the frame is known, nothing of the window lies beside the screen."""
        super().showEvent(event)
        QTimer.singleShot(0, self._keep_on_screen)

    def _keep_on_screen(
        self,
    ) -> None:  # a method, so that Qt forgets it when the window is gone first
        keep_on_screen(self)

    def _page_changed(self) -> None:
        """The tools of a page are in hand only while it is open."""
        page = self.pages.currentWidget()
        self.workspace.tools.picks = page is self.pick
        self.canvas.areas.take("change" if page is self.areas else "")
        self.edge.click_islands.setChecked(False)
        self.workspace.areas.outline_island(None)
        self.workspace.adjust.pick_colour(None)
        self._mark()

    def _dress(self) -> None:
        """In the theme and the size of text that are preferred."""
        held = self.workspace.preferences.values
        dress(self._application, held.theme, held.text_size)
        self.pages.setMinimumWidth(round(PAGE * (1 + WIDER * (held.text_size / 100 - 1))))
        self.top.fit()

    def _mark(self) -> None:
        """Samples and areas are drawn over the picture where they are worked on, not where it is
        judged.
        """
        self.canvas.set_marks(
            self.workspace.preferences.values.marks
            and self.pages.currentWidget() is not self.adjust
        )

    def _show_front(self, opening: str) -> None:
        """The picture, or while nothing is open and nothing comes, ways to begin."""
        self.front.setCurrentIndex(1 if self.workspace.tray.current.blank and not opening else 0)

    def turn_to(self, page: str) -> None:
        """Turn to the page of a step."""
        self.pages.setCurrentWidget(getattr(self, page))

    def go_to_control(self, path: str) -> None:
        """Show the number of a way through the sieve, as in "edge.follow", ready to be moved."""
        pages: list[Page] = [getattr(self, step) for step in STEPS]
        for page in (one for one in pages if path in one.numbers_by_path()):
            self.pages.setCurrentWidget(page)
            page.show_number(path)

    def go_to_block(self, name: str) -> None:
        """Show a block of adjustments."""
        self.turn_to("adjust")
        self.adjust.show_block(name)

    def tell_trouble(self, message: str, details: str = "") -> None:
        """Say what is wrong in one sentence, without stopping anything."""
        # A message on screen is not said again with every render.
        if message not in self._told:
            self._told.add(message)
            tell(self, message, details).finished.connect(lambda _: self._told.discard(message))
        self.last_trouble = message

    def show_history(self) -> None:
        """The steps of the work, to go back or on to any of them."""
        show_alone(HistoryDialog, self, self.workspace, beside=True)

    def show_sieve_presets(self) -> None:
        """Whole sieves that were stored, with a small picture each."""
        view = self.canvas.panes[0].picture()
        show_alone(SievePresetsDialog, self, self.workspace, view, beside=True)

    def show_preferences(self) -> None:
        """The settings of the window."""
        show_alone(PreferencesDialog, self, self.workspace, self.start_again)

    def start_again(self) -> None:
        """Close, as a person would, and open again with the same pictures."""
        self.starts_again = self.close()

    def toggle_large_field(self) -> None:
        """Show the colour field large in the second pane, or bring the pane back."""
        if self.canvas.field is not None:
            self.canvas.show_large(None)
            return
        large = ColourField(self.workspace)
        large.enlarged.connect(self.toggle_large_field)
        self.canvas.show_large(large)

    def _retitle(self) -> None:
        history = self.workspace.work.history
        self.setWindowTitle(
            f"{self.workspace.work.display_name()}{' •' if history.changed else ''} – Amber Sieve"
        )
        self.menus.refresh()

    @property
    def chosen_area(self) -> str:
        """Id of the area that is chosen, or the last one; "" for none."""
        areas = self.workspace.work.sieve.areas
        chosen = next((area.id for area in areas if area.id == self.canvas.areas.selected), "")
        return chosen or (areas[-1].id if areas else "")

    def key_area(self, remove: bool = False) -> None:
        """Give the chosen area a key at this frame, or take all its keys away."""
        area = next(
            (area for area in self.workspace.work.sieve.areas if area.id == self.chosen_area), None
        )
        if area is None:
            self.tell_trouble(
                translate("There is no area to be keyed: draw one first (page Areas).")
            )
            return
        path = f"areas.{area.id}.{'strokes' if area.kind == 'brush' else 'points'}"
        if remove:
            self.workspace.clip.remove_key(path, everywhere=True)
        else:
            self.workspace.clip.set_key(path)

    def track_area(self, way: int, moves: Moves) -> None:
        """Let the chosen area follow what it lies on."""
        self.workspace.clip.track_area(self.chosen_area, way, moves)

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        data = event.mimeData() if event is not None else None
        if event is not None and data is not None and data.hasUrls():
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent | None) -> None:
        data = event.mimeData() if event is not None else None
        urls = data.urls() if data is not None else []
        if not urls:
            return
        if not urls[0].isLocalFile():
            self.tell_trouble(
                translate(
                    "{url} is not a file on this computer: save it first, then drop the file.",
                    url=urls[0].toString()[:120],
                )
            )
            return
        self.files.open_dropped(
            [pathlib.Path(url.toLocalFile()) for url in urls if url.isLocalFile()]
        )

    def closeEvent(self, event: QCloseEvent | None) -> None:
        if event is None:
            return
        if self.exports.may_stop_job() and self.files.may_leave_all():
            self.status.be_quiet()
            self.panels.keep()
            keep_place(self, self.workspace.preferences)
            self.colours.close_clean()
            self.leaving.emit()
            self.workspace.close()
            event.accept()
        else:
            event.ignore()

    def changeEvent(self, event: QEvent | None) -> None:
        super().changeEvent(event)
        if (
            event is not None
            and event.type() == QEvent.Type.ActivationChange
            and not self.isActiveWindow()
        ):
            # A key that is let go over another window is not heard here.
            self.workspace.ahead.hold(False)
            self.canvas.show_before(False)

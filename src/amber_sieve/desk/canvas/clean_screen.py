"""The result alone on another screen, with nothing over it: it shows the part that the window
shows.
"""

from __future__ import annotations

from PyQt6.QtCore import QPointF, Qt, pyqtSignal
from PyQt6.QtGui import QCloseEvent, QGuiApplication, QKeyEvent, QPainter
from PyQt6.QtWidgets import QWidget

from ...language import translator
from ...live.preview import Rendered
from ...workspace.workspace import Workspace
from ..style import SURROUNDS
from ..widgets.painting import paints
from .scaled import Scaled
from .viewport import Viewport

translate = translator("canvas")


class CleanScreen(QWidget):
    """A window of its own, full-screen where there is another screen; Escape closes it, and
    `closed` says so.
    """

    closed = pyqtSignal()

    def __init__(self, workspace: Workspace, viewport: Viewport) -> None:
        super().__init__(None)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.setWindowTitle(translate("Result – Amber Sieve"))
        self.setAccessibleName(translate("The result alone"))
        self._preferences, self._viewport = workspace.preferences, viewport
        self._scaled, self._result = Scaled(), workspace.viewing.last
        self.resize(960, 600)
        for signal in (workspace.viewing.rendered, workspace.viewing.glimpsed):
            signal.connect(self._take)
        viewport.changed.connect(self.update)

    def show_beside(self, window: QWidget) -> None:
        """Fill another screen than the one a window is on; where there is none, stand beside it."""
        others = [screen for screen in QGuiApplication.screens() if screen is not window.screen()]
        if others:
            self.setGeometry(others[0].geometry())
            self.showFullScreen()
        else:
            self.show()

    def _take(self, result: Rendered) -> None:
        if "result" in result.pictures:
            self._result = result
            self.update()

    @paints
    def paintEvent(self, painter: QPainter) -> None:
        painter.fillRect(self.rect(), SURROUNDS[self._preferences.values.surround])
        result, viewport = self._result, self._viewport
        if result is None or "result" not in result.pictures:
            return
        zoom = viewport.zoom * min(
            self.width() / viewport.pane[0], self.height() / viewport.pane[1]
        )
        corner = (QPointF(*result.origin) - viewport.centre) * zoom + QPointF(
            self.width() / 2, self.height() / 2
        )
        self._scaled.draw(
            painter,
            result.pictures["result"],
            corner,
            zoom / result.scale,
            self.size(),
            self.devicePixelRatioF(),
        )

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() in (Qt.Key.Key_Escape, Qt.Key.Key_F11):
            self.close()
        else:
            super().keyPressEvent(event)

    def closeEvent(self, event: QCloseEvent | None) -> None:
        self.closed.emit()
        super().closeEvent(event)

"""A screen reader's way through the first five minutes: by names, roles and values alone, over
AT-SPI.

Run under a display and a message bus of its own (`test_accessible`): starts the program, and prints
a line for each step.
"""

import os
import pathlib
import subprocess
import sys
import time

from PyQt6.QtCore import QCoreApplication
from PyQt6.QtDBus import QDBusConnection, QDBusMessage, QDBusVariant

ROOT = pathlib.Path(__file__).parent.parent
ACCESSIBLE = "org.a11y.atspi.Accessible"
ACTION = "org.a11y.atspi.Action"
VALUE = "org.a11y.atspi.Value"
#: A node: the name of its program on the bus, and its path there.
Node = tuple[str, str]
#: Lets Qt answer screen readers although none was running when it began.
ALWAYS = "QT_LINUX_ACCESSIBILITY_ALWAYS_ON"
#: The bit of a node's state that says that it can be seen (AT-SPI, ATSPI_STATE_SHOWING).
SHOWING = 25
#: What a person can change must have a name.
ROLES = ("spin box", "push button", "check box", "combo box", "text", "slider")


class Reader:
    """Asks the registry of accessible programs."""

    def __init__(self) -> None:
        call = QDBusMessage.createMethodCall(
            "org.a11y.Bus", "/org/a11y/bus", "org.a11y.Bus", "GetAddress"
        )
        address = QDBusConnection.sessionBus().call(call).arguments()[0]
        self.bus = QDBusConnection.connectToBus(address, "accessibility")

    def ask(self, node: Node, interface: str, method: str, *given: object) -> list:
        message = QDBusMessage.createMethodCall(*node, interface, method)
        message.setArguments(list(given))
        return self.bus.call(message).arguments()

    def children(self, node: Node) -> list[Node]:
        found = self.ask(node, ACCESSIBLE, "GetChildren")
        return [tuple(one) for one in found[0]] if found and isinstance(found[0], list) else []

    def read(self, node: Node, interface: str, name: str) -> object:
        found = self.ask(node, "org.freedesktop.DBus.Properties", "Get", interface, name)
        return found[0] if found else None

    def role(self, node: Node) -> str:
        return self.ask(node, ACCESSIBLE, "GetRoleName")[0]

    def name(self, node: Node) -> str:
        return str(self.read(node, ACCESSIBLE, "Name") or "")

    def all(self, node: Node) -> list[tuple[str, str, Node]]:
        """Role and name of a node and everything in it; what stands in lists that fold out is left
        away.
        """
        role, found = self.role(node), []
        found.append((role, self.name(node), node))
        if role not in ("combo box", "list item"):
            for child in self.children(node):
                found += self.all(child)
        return found

    def program(self) -> Node | None:
        found = self.children(("org.a11y.atspi.Registry", "/org/a11y/atspi/accessible/root"))
        return found[0] if found else None

    def find(self, role: str, name: str, seconds: float = 30.0) -> Node:
        """The first node of a role whose name begins so, as soon as there is one."""
        end = time.monotonic() + seconds
        while time.monotonic() < end:
            program = self.program()
            found = (
                [
                    (called != name, node)
                    for one, called, node in self.all(program)
                    if one == role and called.startswith(name)
                ]
                if program
                else []
            )
            if found:
                return min(found)[
                    1
                ]  # one that is called just so goes before one that only begins so
            time.sleep(0.3)
        seen = [(one, called) for one, called, _ in self.all(program) if called] if program else []
        raise TimeoutError(f"no {role} is called {name}: {seen[:80]}")

    def press(self, role: str, name: str) -> None:
        """Do the first thing that can be done with it."""
        self.ask(self.find(role, name), ACTION, "DoAction", 0)

    def set(self, name: str, value: float) -> float:
        """Set a number by its name; returns what it says then."""
        node = self.find("spin box", name)
        self.ask(
            node,
            "org.freedesktop.DBus.Properties",
            "Set",
            VALUE,
            "CurrentValue",
            QDBusVariant(value),
        )
        time.sleep(0.5)
        return float(self.read(node, VALUE, "CurrentValue"))

    def described(self, view: str, holds: str, seconds: float = 30.0) -> str:
        """What a pane says of itself, as soon as it says what is waited for."""
        end, said = time.monotonic() + seconds, ""
        while time.monotonic() < end:
            said = str(self.read(self.find("filler", f"View: {view}"), ACCESSIBLE, "Description"))
            if holds in said:
                break
            time.sleep(0.3)
        return said


def first_five_minutes(reader: Reader) -> None:
    """Opens the demo, picks a surface, turns to the pages of edge and adjustments, moves a number
    on each, looks at before, and undoes.
    """
    reader.press("push button", "Open the demo")
    print("OPENED", reader.described("Mask", "covers"))
    reader.press("push button", "Surface 1,")
    print("PICKED", reader.described("Mask", "covers"))
    reader.press("page tab", "Edge")
    print("GROW", reader.set("Grow", 3.0))
    reader.press("page tab", "Adjust")
    print("HUE", reader.set("Hue", 40.0))
    reader.press("check box", "Before")
    print("BEFORE", reader.described("Original", "Zoom", 10.0))
    reader.press("check box", "Before")
    print("AFTER", reader.described("Result", "Zoom", 10.0))
    print("BAND", reader.read(reader.find("filler", "Hue band"), ACCESSIBLE, "Description"))
    reader.ask(reader.find("menu item", "Undo"), ACTION, "DoAction", 0)
    time.sleep(1.0)
    print("UNDONE", float(reader.read(reader.find("spin box", "Hue"), VALUE, "CurrentValue")))
    program = reader.program()
    assert program is not None
    for role, name, node in reader.all(program):
        if (
            role in ROLES
            and not name
            and reader.ask(node, ACCESSIBLE, "GetState")[0][0] >> SHOWING & 1
        ):
            print("UNNAMED", role)


def main() -> int:
    """Start the program, read it, end it."""
    _ = QCoreApplication(sys.argv)
    own = os.environ | {ALWAYS: "1", "QT_QPA_PLATFORM": "xcb", "PYTHONPATH": str(ROOT / "src")}
    running = subprocess.Popen(
        [sys.executable, "-m", "amber_sieve.terminal.main", "open"],
        env=own,
        stdout=subprocess.DEVNULL,
    )
    try:
        first_five_minutes(Reader())
    finally:
        running.kill()
        running.wait()
    return 0


if __name__ == "__main__":
    sys.exit(main())

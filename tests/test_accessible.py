"""The program for who does not see it: a real client of AT-SPI goes through the first five minutes
by names alone (AT-SPI 2, freedesktop).
"""

import os
import subprocess
import sys
import unittest

from common import ROOT, FolderCase


class ScreenReaderTest(FolderCase):
    def test_the_first_five_minutes_by_names_alone(self):
        own = {
            f"XDG_{kind}_HOME": str(self.folder) for kind in ("STATE", "CONFIG", "DATA", "CACHE")
        }
        own["NUMBA_CACHE_DIR"] = os.environ.get("NUMBA_CACHE_DIR", "")
        words = [
            "xvfb-run",
            "-a",
            "dbus-run-session",
            "--",
            sys.executable,
            str(ROOT / "tests" / "accessible.py"),
        ]
        environment = {
            name: value
            for name, value in (os.environ | own).items()
            if value and name != "QT_QPA_PLATFORM"
        }
        out, errors = self.folder / "out.txt", self.folder / "errors.txt"
        # Into files, not pipes: what the display or the bus leave running would hold a pipe open,
        # and be waited for without end.
        with out.open("w") as said_to, errors.open("w") as wrong_to:
            code = subprocess.run(
                words, stdout=said_to, stderr=wrong_to, env=environment, timeout=280
            ).returncode
        print(f"\n{out.read_text()}")
        said = dict(line.split(" ", 1) for line in out.read_text().splitlines() if " " in line)
        self.assertEqual(code, 0, errors.read_text()[-1500:])
        self.assertIn("the mask covers 9.3 %", said["OPENED"])  # the demo as it ships
        self.assertNotEqual(said["PICKED"], said["OPENED"])
        self.assertEqual((said["GROW"], said["HUE"]), ("3.0", "40.0"))
        self.assertTrue(said["BEFORE"].startswith("Zoom") and said["AFTER"].startswith("Zoom"))
        self.assertIn("full from 0 to 360", said["BAND"])
        self.assertEqual(said["UNDONE"], "110.0")
        self.assertNotIn("UNNAMED", said)


if __name__ == "__main__":
    unittest.main()

"""The world around the program changes, at the size of a long day: `tests/test_world.py` with a
person's numbers.

.venv/bin/python tools/world.py [clicks] [megapixels] [files] [ends]

By default 2,000 clicks and as many steps back and forth on 24 megapixels, a drop of 2,000 files, 25
requests to end while saving; files
deleted, replaced or gone with their folder; a full disk under autosave; two windows on one project;
a clipboard of 100 MB; a clock set back and forth; theme and language changed during a drag;
projects of every earlier version. Prints memory, pauses and what failed.
"""

import os
import pathlib
import sys
import unittest

ROOT = pathlib.Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT / "src"), str(ROOT / "tests")]
os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
import own_home  # noqa: E402, F401
import test_world  # noqa: E402


def main() -> int:
    clicks, megapixels, files, ends = (
        int(word) for word in (sys.argv[1:] + ["2000", "24", "2000", "25"][len(sys.argv) - 1 :])[:4]
    )
    test_world.CLICKS, test_world.DROPPED, test_world.KILLS = clicks, files, ends
    test_world.MEGAPIXELS = megapixels
    test_world.STEPS = 240
    suite = unittest.defaultTestLoader.loadTestsFromModule(test_world)
    result = unittest.TextTestRunner(verbosity=2).run(suite)
    sys.stdout.flush()
    sys.stderr.flush()
    os._exit(0 if result.wasSuccessful() else 1)


if __name__ == "__main__":
    main()

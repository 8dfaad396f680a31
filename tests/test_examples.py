"""The examples in the docstrings of the core, run as they stand."""

import doctest
import importlib
import pathlib
import unittest

import common  # noqa: F401  (folders of the tests' own)

import amber_sieve.core

CORE = pathlib.Path(amber_sieve.core.__file__).parent


class ExamplesTest(unittest.TestCase):
    def test_every_example_gives_what_it_says(self):
        tried = 0
        for path in sorted(CORE.rglob("*.py")):
            if ">>>" in path.read_text():
                name = ".".join(("amber_sieve.core", *path.relative_to(CORE).with_suffix("").parts))
                found = doctest.testmod(importlib.import_module(name))
                self.assertEqual(found.failed, 0, name)
                tried += found.attempted
        self.assertGreaterEqual(tried, 12)


if __name__ == "__main__":
    unittest.main()

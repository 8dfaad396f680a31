"""The same jobs from a terminal. Exit 0 when done, 2 for wrong usage, 1 with one line on stderr
when something is wrong.

A command is a file with ``add``, which adds its parser and names what runs it. The options for
numbers come from the model's
fields: label, range and help stand there.
"""

from __future__ import annotations

import argparse
import gc
import importlib
import os
import pathlib
import sys
import warnings
from collections.abc import Sequence

from .. import __version__
from ..errors import Trouble
from ..gc_pause import gc_pause

#: The commands, and the file that each stands in; only that of the command that is called is
#: loaded.
COMMANDS = {
    "mask": "pick",
    "recolour": "pick",
    "render": "render",
    "track": "track",
    "cdl": "cdl",
    "lookup": "lookup",
    "batch": "batch",
    "info": "info",
    "surface": "surface",
    "thumbnail": "thumbnail",
    "explain": "about",
    "schema": "about",
    "controls": "about",
}
#: Commands that write nothing.
ONLY_LOOKS = ("info", "surface", "schema", "controls", "open")


def parser(called: str = "") -> argparse.ArgumentParser:
    """The parser of the command line, with the command that is called, or with every one."""
    top = argparse.ArgumentParser(
        prog="amber-sieve",
        description="Masks from sampled colours, and adjustments only inside them.",
    )
    top.add_argument("--version", action="version", version=__version__)
    commands = top.add_subparsers(dest="command", required=True)
    files = [COMMANDS[called]] if called in COMMANDS else dict.fromkeys(COMMANDS.values())
    for name in files:
        importlib.import_module(f".{name}", __package__).add(commands)
    opened = commands.add_parser("open", help="open the window")
    opened.add_argument("file", type=pathlib.Path, nargs="?")
    opened.set_defaults(run=_open)
    return top


def _open(arguments: argparse.Namespace) -> int:
    from ..desk.translations import choose

    spoken = choose()
    # Importing makes many lasting objects; collecting garbage among them costs a tenth of the
    # start.
    with gc_pause():
        from ..desk.app import main as desk

        gc.freeze()
    code = desk([str(arguments.file)] if arguments.file else [], translators=spoken)
    gc.unfreeze()  # else libraries say at the end that something was left
    return code


def _prepare() -> None:
    """Compile what this computer has not compiled yet, and say how far it is: the first command
    would be silent for as long.
    """
    from ..warm import warm

    told = False

    def tell(share: float) -> None:
        nonlocal told
        told = True
        sys.stderr.write(f"\rPreparing for this computer, once: {100 * share:3.0f} %")
        sys.stderr.flush()

    warm(step=tell)
    if told:
        sys.stderr.write(f"\r{'':48}\r")


def _complain(words: str) -> int:
    print(f"amber-sieve: {' '.join(words.split())}", file=sys.stderr)
    return 1


def main(words: Sequence[str] | None = None) -> int:
    """Run one command; returns the exit code."""
    for stream in (sys.stdout, sys.stderr):
        if hasattr(stream, "reconfigure"):
            stream.reconfigure(errors="backslashreplace")  # names need not be text
    if not sys.warnoptions:
        warnings.simplefilter("ignore")
    given = list(sys.argv[1:] if words is None else words)
    arguments = parser(given[0] if given else "").parse_args(given)
    try:
        if arguments.command not in ONLY_LOOKS:
            from ..files import sweep_parts

            sweep_parts()
            if sys.stderr.isatty():
                _prepare()
        code: int = arguments.run(arguments)
        return code
    except Trouble as trouble:
        return _complain(str(trouble))
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    except KeyboardInterrupt:
        return _complain("stopped")
    except MemoryError:
        return _complain(
            "There is not enough memory for this: close other programs or work on a smaller "
            "picture."
        )
    except Exception as error:  # the last resort: a mistake of ours, told in one line
        return _complain(
            f"something went wrong inside the program ({type(error).__name__}: {error}). Please "
            "report it with this line."
        )


if __name__ == "__main__":
    sys.exit(main())

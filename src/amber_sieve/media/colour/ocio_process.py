"""OpenColorIO in a process of its own: while it reads a large table or configuration it holds
Python's lock, and the window would stand still.
"""

from __future__ import annotations

from typing import Any

import numpy as np

from ...errors import Trouble
from ...language import translator
from ..child import Child, ChildEnded, serve

translate = translator("colour")


_child = Child(__name__)


def ask(what: str, *given: Any) -> Any:
    """Return what a function of `ocio_functions` gives; only one is asked at a time.

    Raises
    ------
    Trouble: it could not be done; or the process was ended from outside.
    """
    try:
        words, answer = _child.ask((what, given))
    except ChildEnded:
        raise Trouble(
            translate("The process that reads colour tables was ended: try again.")
        ) from None
    if words:
        raise Trouble(words)
    return answer


def _answer(request: tuple[str, tuple[Any, ...]]) -> tuple[str, Any]:
    """Return what is wrong in a sentence, or "" and what was asked for."""
    from . import ocio_functions

    what, given = request
    try:
        return "", getattr(ocio_functions, what)(*given)
    except Trouble as trouble:
        return str(trouble), None
    except Exception as error:  # a mistake of ours, told on the other side
        words = translate(
            "A colour table could not be worked on ({name}: {error}): choose another.",
            name=type(error).__name__,
            error=error,
        )
        return words, None


if __name__ == "__main__":
    np.seterr(all="ignore")
    serve(_answer)

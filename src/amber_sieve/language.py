"""The language in which the window speaks. English stands in the code; another language comes from
Qt's translations.

Text is translated where it stands, much of it when its module is imported: so the language is
chosen first (`desk.speech`), and a change of it shows at the next start. A terminal, and files,
always speak English.
"""

from __future__ import annotations

import functools
import re
import string
from collections.abc import Callable
from typing import Any

#: Gives a text in another language by its context, its English, what tells it apart, and the number
#: that asks for a plural form (-1 for none); "" where there is none.
Translates = Callable[[str, str, str, int], str]

#: A point between digits.
DECIMAL = re.compile(r"(?<=\d)\.(?=\d)")


class _Spoken(string.Formatter):
    """Puts values into a text, with the decimal sign of the language."""

    def __init__(self) -> None:
        self.translates: Translates | None = None
        self.decimal = "."

    def format_field(self, value: Any, format_spec: str) -> Any:
        text = super().format_field(value, format_spec)
        return text.replace(".", self.decimal) if isinstance(value, float) else text


_spoken = _Spoken()


def speak(translates: Translates | None, decimal: str = ".") -> None:
    """Speak another language from here on, or English again (None)."""
    _spoken.translates, _spoken.decimal = translates, decimal


def translate(context: str, text: str, singular: str = "", n: int = -1, /, **values: Any) -> str:
    """A text in the language that is spoken, with its values put in.

    Parameters
    ----------
    context : the room of the code it stands in; Qt's translators see it.
    text : English, with places such as ``{name}`` or ``{share:.1f}``.
    singular : the same in English where ``n`` is 1; ``{n}`` stands for it in both.

    Example
    -------
    >>> plural, singular = "{n} pictures in {place}", "{n} picture in {place}"
    >>> translate("export", plural, singular, 1, place="the yard")
    '1 picture in the yard'
    """
    if n >= 0:
        values["n"] = n
    found = _spoken.translates(context, text, singular, n) if _spoken.translates else ""
    said = found or (singular if n == 1 and singular else text)
    return _spoken.vformat(said, (), values) if values else said


def translator(context: str) -> Callable[..., str]:
    """Return `translate` for one room of the code. A module binds it once, under its imports."""
    return functools.partial(translate, context)


def decimals(text: str) -> str:
    """Numbers and units with the decimal sign of the language."""
    return text if _spoken.decimal == "." else DECIMAL.sub(_spoken.decimal, text)


def mid_sentence(label: str) -> str:
    """A label as it stands inside a sentence: English begins it in lower case, German does not."""
    stays = (
        _spoken.translates is not None or label[1:2].isupper()
    )  # "CDL saturation" is one word of capitals
    return label if stays else label[:1].lower() + label[1:]


def named(word: str) -> str:
    """A word of `names` (a comparison, a blend mode, a falloff shape, …) as a label."""
    return translate("names", word.capitalize())

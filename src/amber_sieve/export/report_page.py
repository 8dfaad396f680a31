"""Pages on which a person reads what was done: of a batch, and who worked at it."""

from __future__ import annotations

import html
import pathlib
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from ..language import decimals

_STYLE = (
    "body{font:14px sans-serif;background:#2e2e2e;color:#e2e2e2}td,th{padding:4px "
    "10px;text-align:left}"
    ".odd td{color:#f2b64a}img{display:block}a{color:inherit}meter{width:12em}"
)


@dataclass(frozen=True)
class Worked:
    """The worker of a piece of work, machine and process, and how many seconds it took there."""

    what: str
    by: str
    seconds: float


def page(title: str, heading: str, *parts: str) -> str:
    """A page that needs nothing but itself; its parts are HTML already."""
    head = (
        "<!doctype html><meta "
        f'charset="utf-8"><title>{html.escape(title)}</title><style>{_STYLE}</style>'
    )
    return f"{head}<h1>{html.escape(heading)}</h1>{''.join(parts)}\n"


def linked(shown: str, path: pathlib.Path) -> str:
    """HTML that opens a file when it is clicked."""
    return f'<a href="{html.escape(path.absolute().as_uri())}">{shown}</a>'


def table(head: Sequence[str], rows: Iterable[tuple[bool, Sequence[str]]]) -> str:
    """A table; of a row is said whether it stands out, and its cells, which are HTML already."""
    cells = (
        f"<tr{' class=odd' if odd else ''}>" + "".join(f"<td>{cell}</td>" for cell in row) + "</tr>"
        for odd, row in rows
    )
    heads = "".join(f"<th>{html.escape(word)}</th>" for word in head)
    return f"<table><tr>{heads}</tr>{''.join(cells)}</table>"


def who_worked(worked: Sequence[Worked]) -> str:
    """Tables of who did how much, the busiest first, and of each piece of work."""
    seconds: dict[str, list[float]] = {}
    for one in worked:
        seconds.setdefault(one.by, []).append(one.seconds)
    most = max(map(sum, seconds.values()), default=0.0) or 1.0
    busiest = sorted(seconds.items(), key=lambda held: (-sum(held[1]), held[0]))
    workers = table(
        ("worker", "pieces", "seconds", ""),
        (
            (
                False,
                (
                    html.escape(by),
                    str(len(took)),
                    decimals(f"{sum(took):.1f}"),
                    f'<meter value="{sum(took) / most:.3f}"></meter>',
                ),
            )
            for by, took in busiest
        ),
    )
    pieces = table(
        ("piece", "worker", "seconds"),
        (
            (False, (html.escape(one.what), html.escape(one.by), decimals(f"{one.seconds:.1f}")))
            for one in worked
        ),
    )
    return f"<h2>Who worked</h2>{workers}{pieces}"

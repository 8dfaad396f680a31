"""A sieve from clicks at named places, each as a click in the window: the terminal and scripts ask
here.
"""

from __future__ import annotations

import functools
from collections.abc import Iterable
from typing import Any

from ..media.source import Source
from ..names import Reach
from ..project import edits
from ..project.model import Project
from ..render.cache import Cache
from ..render.context import RenderContext
from .preview import Opened
from .sampling import sample_at
from .sieve_context import SieveContext

#: Bytes that the steps of looking for what clicks propose may take.
CLICK_MEMORY = 200_000_000
#: A role ("keep" or "drop"), x, y in full-resolution pixels, and a reach of a person's own.
Click = tuple[str, float, float, Reach | None]


def with_clicks(
    project: Project,
    source: Source,
    clicks: Iterable[Click],
    number: int = 0,
    size: int = 5,
    tolerance: float | None = None,
    **settings: Any,
) -> Project:
    """The project with samples of its first sieve taken one after another on a frame.

    Parameters
    ----------
    size : side of the square whose mean is taken. tolerance : a person's own; None is found for
        each click.
    settings : other fields of the samples.

    Raises
    ------
    Trouble: the frame cannot be read. ValueError: a place lies outside the picture.
    """
    opened, context, sieve_id = (
        Opened(source),
        RenderContext(Cache(CLICK_MEMORY)),
        project.stack[0].id,
    )
    for role, x, y, reach in clicks:
        seen = SieveContext(opened, project, sieve_id, number, context)
        take = functools.partial(
            sample_at, x=x, y=y, size=size, number=number, role=role, **settings
        )
        came = seen.click(take, [(x, y)], size, reach=reach, tolerance=tolerance)
        project = project.with_sieve(
            edits.with_sample(project.sieve(sieve_id), came.sample, picked_on=came.picked_on)
        )
    return project

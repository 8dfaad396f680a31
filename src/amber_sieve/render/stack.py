"""The picture falling through the stack."""

from __future__ import annotations

import numpy as np

from ..core.frame import Frame
from ..project.model import Project
from .context import RenderContext
from .evaluate import after_sieves, sieve_masked, working
from .layers import Layers, no_layers


def rendered(
    frame: Frame, project: Project, context: RenderContext, layers: Layers = no_layers
) -> Frame:
    """The picture after all sieves, with its alpha. Read only: it is the frame itself when nothing
    changes.

    Every stage is held in ``context`` under its inputs, so a change to one sieve starts at that
    sieve.
    """
    return after_sieves(frame, project, working(project), context, layers)


def render(
    frame: Frame, project: Project, context: RenderContext, layers: Layers = no_layers
) -> np.ndarray:
    """The planes of the picture after all sieves, linear light (3, H, W). Read only."""
    return rendered(frame, project, context, layers).planes


def sieve_mask(
    frame: Frame,
    project: Project,
    sieve_id: str,
    context: RenderContext,
    layers: Layers = no_layers,
) -> np.ndarray:
    """The mask of one sieve of the stack, (H, W), before strength. Read only."""
    return sieve_masked(frame, project, sieve_id, context, layers).mask

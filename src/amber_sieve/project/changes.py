"""The numbers that differ between two projects, in words: what a step of the history changed."""

from __future__ import annotations

from collections.abc import Iterator

from pydantic import BaseModel

from ..language import decimals
from .controls import specs
from .edits import field_of
from .fields import Spec, numbers_of
from .model import Project, Sample, Sieve

#: More numbers than this are not read.
MOST = 3


def changed_numbers(before: Project, after: Project) -> list[str]:
    """Say from what to what the numbers of sieves that are in both were changed, at most ``MOST``
    of them.

    Example
    -------
    >>> one = Project(stack=(Sieve(id="a"),))
    >>> changed_numbers(one, one.but(stack=(Sieve(id="a", strength=40.0),)))
    ['Strength 100 → 40 %']
    """
    was = {sieve.id: sieve for sieve in before.stack}
    found: list[str] = []
    for sieve in after.stack:
        old = was.get(sieve.id)
        if old is not None and old is not sieve and len(found) <= MOST:
            found += _of_sieve(old, sieve)
    return found if len(found) <= MOST else [*found[:MOST], "…"]


def _of_sieve(old: Sieve, new: Sieve) -> Iterator[str]:
    for path, spec in specs().items():
        yield from _one(spec, field_of(old, path), field_of(new, path))
    samples = {sample.id: sample for sample in old.pick.samples}
    for sample in new.pick.samples:
        if sample.id in samples and sample is not samples[sample.id]:
            yield from _of_models(samples[sample.id], sample)


def _of_models(old: Sample, new: Sample) -> Iterator[str]:
    model: type[BaseModel] = type(new)
    for spec in numbers_of(model):
        yield from _one(spec, getattr(old, spec.name), getattr(new, spec.name))


def _one(spec: Spec, old: object, new: object) -> Iterator[str]:
    if old != new:
        unit = f" {spec.unit}" if spec.unit else ""
        yield f"{spec.label} {_text(spec, old)} → {_text(spec, new)}{unit}"


def _text(spec: Spec, value: object) -> str:
    return decimals(f"{value:.{spec.decimals}f}") if isinstance(value, float) else str(value)

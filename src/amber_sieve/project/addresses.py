"""The numbers of a sieve by the addresses that a control surface turns them with, page by page."""

from __future__ import annotations

import functools

from .controls import blocks
from .fields import Spec, numbers_of, spec_at
from .model import Edge, Pick, Sieve

#: The pages of a surface, in the order of work; "areas" has what is seen of a mask as a whole.
PAGES = ("pick", "bands", "edge", "areas", "adjust")


@functools.cache
def paths() -> dict[str, tuple[str, ...]]:
    """By page, where its numbers stand in a sieve, as in "adjust.light.exposure"."""
    return {
        "pick": tuple(f"pick.{spec.name}" for spec in numbers_of(Pick)),
        "bands": ("bands.ramp.black", "bands.ramp.white"),
        "edge": tuple(f"edge.{spec.name}" for spec in numbers_of(Edge)),
        "areas": ("strength", "outside"),
        "adjust": tuple(f"adjust.{block}.{spec.name}" for block, kind in blocks() for spec in numbers_of(kind)),
    }


@functools.cache
def specs() -> dict[str, Spec]:
    """Return the specs of all numbers that have an address, by path."""
    return {path: spec_at(Sieve, path) for page in PAGES for path in paths()[page]}


def address_of(path: str) -> str:
    """The address of a number.

    Example
    -------
    >>> address_of("adjust.light.exposure")
    '/sieve/adjust/light/exposure'
    """
    return "/sieve/" + path.replace(".", "/")


def path_of(address: str) -> tuple[str, str]:
    """The path of the number that an address stands for, and what is done to it ("" sets it); ("", "") where there is none.

    Example
    -------
    >>> path_of("/sieve/adjust/light/exposure/by")
    ('adjust.light.exposure', 'by')
    """
    words = address.removeprefix("/sieve/")
    if words == address or "." in words:
        return "", ""
    path, _, last = words.rpartition("/")
    if last in ("by", "touch", "reset") and path.replace("/", ".") in specs():
        return path.replace("/", "."), last
    return (words.replace("/", "."), "") if words.replace("/", ".") in specs() else ("", "")

"""Projects whose numbers lie at, near and beyond the ends of their ranges, and what must hold of
every one of them: finite light.

Kernels are compiled to believe that there is no NaN, so one that turns up may end the process:
whoever uses this does so in a process of its own (`test_ends.py`, `tools/ends.py`).
"""

import functools
import pathlib
import typing

import numpy as np
import own_home  # noqa: F401
from hypothesis import strategies as st

from amber_sieve.core.colour.gamut import lower_chroma
from amber_sieve.core.frame import BRIGHTEST, Frame
from amber_sieve.core.statistics import coverage_of, statistics_of
from amber_sieve.media.source import About, Source
from amber_sieve.names import AREA_KINDS, BOXED
from amber_sieve.project import fields
from amber_sieve.project.controls import words_of
from amber_sieve.project.model import (
    Adjust,
    Area,
    Bands,
    Edge,
    Key,
    Pick,
    Project,
    Ramp,
    Sample,
    Sieve,
    Stroke,
    Track,
)
from amber_sieve.render.believable import believable_of
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext
from amber_sieve.render.stack import rendered, sieve_mask
from amber_sieve.render.views import VIEWS, Looking, view
from amber_sieve.resolve.layers import layers_in
from amber_sieve.resolve.resolver import Resolver

SIZE = (44, 36)
#: Light as files may hold it: black, white, the darkest and the brightest there is, and below
#: nothing.
LIGHTS = (0.0, 1.0, 0.18, 1e-30, 1e-7, 2.0, 100.0, BRIGHTEST, -BRIGHTEST, -0.01, 0.9999999)


def number(spec: fields.Spec) -> st.SearchStrategy:
    """A number at, near, between and, one step, inside the ends of its range."""
    span = spec.high - spec.low
    near = [
        spec.low,
        spec.high,
        spec.start,
        spec.low + 1e-6 * span,
        spec.high - 1e-6 * span,
        spec.soft_low,
        spec.soft_high,
    ]
    near += [0.0] if spec.low <= 0 <= spec.high else []
    found = st.one_of(st.sampled_from(near), st.floats(spec.low, spec.high))
    return st.one_of(found, st.just("auto")) if spec.auto else found


#: sRGB levels as light, and light of a float picture up to what the model takes.
COLOUR = st.tuples(*[st.sampled_from((0.0, 1.0, 0.18, 1e-9, 0.7, 1e6, -1e6, BRIGHTEST))] * 3)
CURVE = st.lists(
    st.tuples(st.sampled_from((0.0, 1e-6, 0.25, 0.5, 0.75, 1.0)), st.sampled_from((0.0, 0.3, 1.0))),
    max_size=4,
    unique_by=lambda p: p[0],
)
HUES = st.lists(
    st.tuples(
        st.sampled_from((0.0, 1e-4, 90.0, 200.0, 359.9)),
        st.sampled_from((-180.0, -100.0, 0.0, 100.0, 180.0)),
    ),
    max_size=4,
    unique_by=lambda p: p[0],
)


def field_of(model: type, name: str) -> st.SearchStrategy | None:
    """What a field of a model may be; None for what is no setting."""
    field = model.model_fields[name]
    if fields.bounds_of(field):
        return number(fields.spec_of(model, name))
    kind = fields.kind_of(field)
    if kind == "curve":
        return CURVE.map(lambda points: tuple(sorted(points)))
    if kind == "hues":
        return HUES.map(lambda points: tuple(sorted(points)))
    if kind == "colour":
        return COLOUR if field.default is not None else st.one_of(st.none(), COLOUR)
    if kind == "words":
        return st.sampled_from([word for word in words_of(field) if word != "picture"])
    if kind == "switch" or field.annotation is bool:
        return st.booleans()
    if typing.get_origin(field.annotation) is typing.Literal:
        return st.sampled_from(typing.get_args(field.annotation))
    return None


@functools.cache
def filled(model: type, keep: tuple[str, ...] = ()) -> st.SearchStrategy:
    """A model with some of its settings, at most six, away from their start."""
    known = {
        name: field_of(model, name)
        for name in model.model_fields
        if name not in keep and name != "on"
    }
    choices = {name: strategy for name, strategy in known.items() if strategy is not None}
    some = (
        st.lists(st.sampled_from(sorted(choices)), max_size=6, unique=True)
        if choices
        else st.just([])
    )
    return some.flatmap(
        lambda names: st.fixed_dictionaries({name: choices[name] for name in names})
    )


@st.composite
def adjusts(draw: st.DrawFn) -> Adjust:
    names = draw(
        st.lists(
            st.sampled_from([name for name, _ in Adjust().blocks() if name != "lookup"]),
            max_size=5,
            unique=True,
        )
    )
    return Adjust(
        **{
            name: type(getattr(Adjust(), name))(
                **draw(filled(type(getattr(Adjust(), name)), ("frame",)))
            )
            for name in names
        }
    )


@st.composite
def samples(draw: st.DrawFn) -> Sample:
    given = draw(filled(Sample, ("size", "frame", "place", "role")))
    place = draw(st.tuples(*[st.sampled_from((0.0, 5.0, 20.0, 35.0, -3.0, 1e6))] * 2))
    return Sample(
        x=place[0],
        y=place[1],
        colour=draw(COLOUR),
        role=draw(st.sampled_from(("keep", "keep", "drop"))),
        **given,
    )


@st.composite
def areas(draw: st.DrawFn) -> Area:
    kind = draw(st.sampled_from(AREA_KINDS))
    count = 3 if kind in BOXED else 2 if kind == "gradient" else draw(st.integers(0, 5))
    point = st.tuples(*[st.sampled_from((0.0, 10.0, 30.0, -1e6, 1e6, 10.0001))] * 2)
    points = tuple(draw(point) for _ in range(count))
    strokes = ()
    if kind == "brush":
        dabs = st.lists(
            st.tuples(st.floats(-50, 90), st.floats(-50, 90), st.sampled_from((0.0, 0.5, 1.0))),
            max_size=4,
        )
        strokes = (Stroke(points=tuple(draw(dabs)), **draw(filled(Stroke))),)
    return Area(
        kind=kind,
        points=() if kind == "brush" else points,
        strokes=strokes,
        **draw(filled(Area, ("kind",))),
    )


@st.composite
def bands(draw: st.DrawFn) -> Bands:
    out = Bands()
    for name in draw(
        st.lists(
            st.sampled_from(("hue", "saturation", "luminance", "red", "green", "blue")),
            max_size=2,
            unique=True,
        )
    ):
        corners = sorted(
            draw(
                st.lists(
                    st.sampled_from((-1e4, -10.0, 0.0, 50.0, 50.0, 100.0, 359.0, 360.0, 1e4)),
                    min_size=4,
                    max_size=4,
                )
            )
        )
        band = getattr(out, name)
        out = out.but(
            **{name: band.but(on=True, corners=tuple(corners), **draw(filled(type(band))))}
        )
    return (
        out.but(ramp=Ramp(on=draw(st.booleans()), **draw(filled(Ramp))))
        if draw(st.integers(0, 4)) == 0
        else out
    )


@st.composite
def sieves(draw: st.DrawFn) -> Sieve:
    pick = Pick(
        samples=tuple(draw(st.lists(samples(), max_size=3))), **draw(filled(Pick, ("measure",)))
    )
    edge = (
        Edge(**draw(filled(Edge, ("steady",))))
        if draw(st.integers(0, 2))
        else Edge(specks=0, holes=0, follow=0, clean=0, level=0)
    )
    given = draw(filled(Sieve, ("mask_from", "opposite", "of")))
    made = Sieve(
        pick=pick.but(measure=draw(st.sampled_from(("original", "original", "result")))),
        bands=draw(bands()),
        edge=edge,
        areas=tuple(draw(st.lists(areas(), max_size=2))),
        adjust=draw(adjusts()),
        **given,
    )
    if draw(st.integers(0, 5)) == 0:
        low, high = -10.0, 10.0
        keys = (
            Key(frame=0, value=(low,), how=draw(st.sampled_from(("linear", "smooth", "hold")))),
            Key(frame=2, value=(high,)),
        )
        made = made.but(tracks=(Track(path="adjust.light.exposure", keys=keys),))
    return made


@st.composite
def projects(draw: st.DrawFn) -> Project:
    gamut = draw(st.sampled_from(("lower chroma", "clip")))
    return Project(stack=tuple(draw(st.lists(sieves(), min_size=1, max_size=3))), gamut=gamut)


@st.composite
def pictures(draw: st.DrawFn) -> np.ndarray:
    """Planes (3, H, W): a soft or a speckled picture, of plain or of impossible light."""
    rng = np.random.default_rng(draw(st.integers(0, 1 << 16)))
    width, height = SIZE
    kind = draw(st.sampled_from(("soft", "flat", "speckled", "impossible")))
    if kind == "flat":
        return np.broadcast_to(
            np.array(draw(st.tuples(*[st.sampled_from(LIGHTS)] * 3)), np.float32)[:, None, None],
            (3, height, width),
        ).copy()
    if kind == "soft":
        x, y = np.meshgrid(np.linspace(0, 1, width), np.linspace(0, 1, height))
        return np.stack([x, y, (x + y) / 2]).astype(np.float32) ** 2
    if kind == "speckled":
        return (rng.random((3, height, width)) ** 3).astype(np.float32)
    return rng.choice(np.array(LIGHTS, np.float32), (3, height, width))


class Made(Source):
    """A clip of three frames, or a still, in memory."""

    def __init__(self, planes: np.ndarray, frames: int) -> None:
        self._planes, self._frames = planes, frames
        self.about = About(
            pathlib.Path("made"),
            "clip" if frames > 1 else "still",
            (planes.shape[2], planes.shape[1]),
            "float",
            frames=frames,
        )

    @property
    def files(self) -> list[pathlib.Path]:
        return []

    def about_frame(self, number: int = 0) -> About:
        return self.about

    def quick_frame(self, number: int, factor: float) -> Frame:
        return self.frame(number)

    def frame(self, number: int = 0) -> Frame:
        return Frame(np.roll(self._planes, number, axis=2), key=("made", id(self), number))

    def close(self) -> None:
        pass


def finite(what: str, values: np.ndarray | None) -> None:
    """Complain of anything that is no finite number."""
    if values is not None and not np.isfinite(values).all():
        raise AssertionError(f"{what} is not finite")


def check(project: Project, planes: np.ndarray, frames: int, number: int) -> None:
    """Render the picture, a part of it and it reduced, every view of it, what is counted and what
    is judged; all of it must be finite.
    """
    source = Made(planes, frames)
    whole, cache = source.frame(number), RenderContext(Cache(50_000_000))
    stands = Resolver(source).resolve_frame(project, whole, number, cache)
    layers, last = layers_in(cache), project.stack[-1].id
    for frame in (whole, whole.part(8, 6, 36, 30), whole.reduced(2)):
        result = rendered(frame, stands, cache, layers)
        finite("the result", result.planes)
        if np.abs(result.planes).max() > BRIGHTEST * (
            1 + 1e-6
        ):  # what is mixed may be rounded beyond either side
            raise AssertionError(
                f"light of {np.abs(result.planes).max():g} is beyond what a half float holds"
            )
        finite("its alpha", result.alpha)
        finite("what is written", lower_chroma(result.planes))
        for sieve in stands.stack:
            mask = sieve_mask(frame, stands, sieve.id, cache, layers)
            finite("a mask", mask)
            if mask.min() < -1e-6 or mask.max() > 1 + 1e-6:
                raise AssertionError(f"a mask holds {mask.min():g} to {mask.max():g}")
        coverage_of(sieve_mask(frame, stands, last, cache, layers))
        finite("what is counted", statistics_of(result.planes).colours)
    for name in VIEWS:
        view(name, whole, stands, last, Looking(), cache, layers)
    judged = believable_of(whole, stands, last, cache, layers)
    for name in ("moved", "outside", "texture", "banded", "rim"):
        finite(name, np.array(getattr(judged, name)))

"""The whole: sieves, groups, takes, and the picture they are for."""

from __future__ import annotations

from typing import Literal, Self

from pydantic import Field, model_validator

from ...language import translator
from ...names import AreaMode, Blend, Gamut, MaskFrom
from ...read_settings import PLAIN, Reading
from ..fields import number
from .adjust import Adjust
from .area import Area
from .bands import Bands
from .clip import Track
from .edge import Edge
from .pick import Pick
from .values import NEAR, Frozen, Name, fresh_id

translate = translator("project")


#: Version of the file format; raised when an older program could not read what a newer one writes.
VERSION: Literal[6] = 6


class Joined(Frozen):
    """Another sieve's mask, laid on one's own like an area."""

    mode: AreaMode = "add"
    of: Name


class Sieve(Frozen):
    """One mask together with what is done inside it."""

    id: Name = Field(default_factory=fresh_id)
    name: Name = "Sieve"
    on: bool = True
    pick: Pick = Pick()
    bands: Bands = Bands()
    mask_from: MaskFrom = Field(
        default="own",
        description="its own pick and edge, the same as another sieve's, or what others leave",
    )
    of: tuple[Name, ...] = Field(
        default=(), max_length=64, description="ids of the sieves whose masks it is made from"
    )
    opposite: bool = Field(
        default=False, title="Opposite", description="The finished mask turned round"
    )
    joined: tuple[Joined, ...] = Field(
        default=(), max_length=64, description="other sieves' masks laid on it, from first to last"
    )
    invert: bool = Field(
        default=False,
        title="Invert the mask",
        description="What was masked is not, and what was not is",
    )
    edge: Edge = Edge()
    areas: tuple[Area, ...] = Field(
        default=(), max_length=1000, description="applied from first to last"
    )
    outside: float = number(
        0, 0, 100, "Effect outside the mask", "%",
        help=(
            "How much of the adjustment is also seen outside the mask: at 0 none, at 100 % the "
            "mask makes no difference."
        ),
    )  # fmt: skip
    strength: float = number(
        100,
        0,
        100,
        "Strength",
        "%",
        help="How much of the adjustment is seen: at 0 none, at 100 % all of it.",
    )
    blend: Blend = Field(
        default="normal",
        title="Blend mode",
        description="How what is done is laid over the picture that arrives",
    )
    group: Name = Field(default="", description='id of the group it belongs to, "" for none')
    tracks: tuple[Track, ...] = Field(
        default=(), max_length=1000, description="fields that change from frame to frame"
    )
    adjust: Adjust = Adjust()

    @property
    def picks(self) -> bool:
        """Return whether anything is set that a mask can be made from."""
        return bool(
            self.pick.samples
            or self.mask_from != "own"
            or self.invert
            or self.areas
            or self.joined
            or self.bands.active
        )

    @property
    def leans_on(self) -> tuple[str, ...]:
        """Ids of the sieves whose masks this one's is made from."""
        return (*(self.of if self.mask_from != "own" else ()), *(one.of for one in self.joined))


class Group(Frozen):
    """Sieves that are switched, and weakened, together."""

    id: Name = Field(default_factory=fresh_id)
    name: str = Field(min_length=1, max_length=200)
    on: bool = True
    strength: float = number(
        100, 0, 100, "Strength", "%", help="How much of what its sieves do the group gives"
    )


class Take(Frozen):
    """A named alternative of the whole stack."""

    name: str = Field(min_length=1, max_length=200)
    stack: tuple[Sieve, ...] = Field(min_length=1, max_length=256)


class Project(Frozen):
    """The whole work on one picture or clip."""

    version: Literal[6] = VERSION
    source: str = Field(
        default="",
        max_length=4096,
        description="the picture or clip: a path relative to the project file",
    )
    source_mark: str = Field(
        default="", max_length=64, description="what the picture was when the project was saved"
    )
    reading: Reading = PLAIN
    working: str = Field(
        default="",
        max_length=200,
        title="Working space",
        description=(
            'linear space of OpenColorIO in whose channels CDL and curves work; "" for Rec. 709'
        ),
    )
    display: str = Field(
        default="",
        max_length=400,
        title="Display",
        description='"display / view" of OpenColorIO it is seen and written through; "" for none',
    )
    stack: tuple[Sieve, ...] = Field(
        default=(Sieve(name=translate("Sieve {count}", count=1)),),
        min_length=1,
        max_length=256,
        description="the picture falls through these from first to last",
    )
    groups: tuple[Group, ...] = Field(
        default=(), max_length=64, description="sieves of one are switched and weakened together"
    )
    takes: tuple[Take, ...] = Field(
        default=(), max_length=64, description="named alternatives of the whole stack"
    )
    solo: Name = Field(
        default="", description='id of the one sieve that works, "" for all that are on'
    )
    gamut: Gamut = Field(
        default="lower chroma",
        title="Gamut",
        description="How colours outside the output gamut are brought back",
    )

    @model_validator(mode="after")
    def _white_lies_near(self) -> Self:
        if self.reading.white is not None and not all(
            abs(part) <= NEAR for part in self.reading.white
        ):
            raise ValueError(
                f"the place of white balance should lie within {NEAR:.0f} pixels of the picture"
            )
        return self

    @model_validator(mode="after")
    def _ids_differ(self) -> Self:
        if len({sieve.id for sieve in self.stack}) != len(self.stack):
            raise ValueError("two sieves have the same id")
        return self

    @model_validator(mode="after")
    def _links_hold(self) -> Self:
        """Masks lean on sieves that are there, and never in a circle; what is measured after others
        leans on them too.
        """
        leans: dict[str, list[str]] = {}
        for place, sieve in enumerate(self.stack):
            leans[sieve.id] = list(sieve.leans_on)
            if sieve.pick.measure == "result" and sieve.mask_from == "own":
                leans[sieve.id] += [other.id for other in self.stack[:place]]
            if not set(leans[sieve.id]) <= {other.id for other in self.stack}:
                raise ValueError(f"the mask of {sieve.name} leans on a sieve that is not there")
        if not any(sieve.leans_on for sieve in self.stack):
            return self
        done: set[str] = set()
        while len(done) < len(leans):
            free = {
                name for name, others in leans.items() if name not in done and set(others) <= done
            }
            if not free:
                raise ValueError("masks would lean on each other in a circle")
            done |= free
        return self

    def sieve(self, sieve_id: str) -> Sieve:
        """The sieve with this id."""
        return next(sieve for sieve in self.stack if sieve.id == sieve_id)

    def with_sieve(self, changed: Sieve) -> Project:
        """The project with the sieve of the same id replaced."""
        return self.but(
            stack=tuple(changed if sieve.id == changed.id else sieve for sieve in self.stack)
        )

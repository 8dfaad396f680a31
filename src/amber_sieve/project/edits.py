"""Edits: functions from a sieve to a sieve, or from a project to a project; window and terminal use
the same.
"""

from __future__ import annotations

from collections.abc import Collection
from typing import Any

from pydantic import ValidationError

from ..errors import Trouble
from ..language import translator
from ..names import MaskFrom, drop_rule_for
from .fields import spec_of
from .model import Adjust, Area, Edge, Group, Joined, Place, Project, Sample, Sieve, Take, fresh_id

translate = translator("project")


#: How far from a click an island is looked for at least, full-resolution pixels.
NEAREST = 6.0


# The stack


def with_new_sieve(project: Project) -> tuple[Project, Sieve]:
    """The project with an empty sieve at the end, and that sieve; it changes nothing until somebody
    moves something.
    """
    fresh = Sieve(name=translate("Sieve {count}", count=len(project.stack) + 1))
    return project.but(stack=(*project.stack, fresh)), fresh


def without_sieve(project: Project, sieve_id: str) -> Project:
    """The project without a sieve; the last one is replaced by an empty one. Those that lean on it
    keep a copy of what it masked.
    """
    for sieve in leaning_on(project, sieve_id):
        project = project.with_sieve(unlinked(project, sieve, sieve_id))
    rest = tuple(sieve for sieve in project.stack if sieve.id != sieve_id)
    return project.but(
        stack=rest or (Sieve(name=translate("Sieve 1")),),
        solo="" if project.solo == sieve_id else project.solo,
    )


def leaning_on(project: Project, sieve_id: str) -> list[Sieve]:
    """The sieves whose masks are made from another's."""
    return [sieve for sieve in project.stack if sieve_id in sieve.leans_on]


def unlinked(project: Project, sieve: Sieve, from_id: str = "") -> Sieve:
    """A sieve whose mask leans on no other (or not on one of them any more): what it took from it
    is copied where one mask can hold it.

    What is left by several, and masks laid on its own, cannot be copied: the one leant on is
    dropped from among them.
    """
    joined = tuple(one for one in sieve.joined if from_id and one.of != from_id)
    others = tuple(other for other in sieve.of if from_id and other != from_id)
    if sieve.mask_from == "own" or others:
        return sieve.but(joined=joined, of=others)
    held = project.sieve(sieve.of[0])
    turned = held.opposite != (sieve.opposite != (sieve.mask_from == "left"))
    return sieve.but(
        mask_from=held.mask_from,
        of=held.of,
        opposite=turned,
        joined=(*held.joined, *joined),
        pick=held.pick,
        bands=held.bands,
        invert=held.invert,
        edge=held.edge,
        areas=held.areas,
    )


def with_mask_from(
    project: Project, sieve_id: str, kind: MaskFrom, of: Collection[str], opposite: bool = False
) -> Project:
    """The project with a sieve's mask made from others'; raises `Trouble` when they would lean on
    each other in a circle.
    """
    sieve = project.sieve(sieve_id).but(
        mask_from=kind, of=tuple(of) if kind != "own" else (), opposite=opposite
    )
    return _without_circles(project, sieve)


def with_joined(project: Project, sieve_id: str, joined: Collection[Joined]) -> Project:
    """The project with other sieves' masks laid on a sieve's; raises `Trouble` when they would lean
    on each other in a circle.
    """
    return _without_circles(project, project.sieve(sieve_id).but(joined=tuple(joined)))


def _without_circles(project: Project, changed: Sieve) -> Project:
    try:
        return project.with_sieve(changed)
    except ValidationError:
        names = translate(" and ").join(project.sieve(other).name for other in changed.leans_on)
        raise Trouble(
            translate(
                "The mask of {name} cannot be made from {names}: they would lean on each other in "
                "a circle.",
                name=changed.name,
                names=names,
            )
        ) from None


def with_copy_of(project: Project, sieve_id: str) -> tuple[Project, Sieve]:
    """The project with a copy of a sieve after it, and the copy."""
    held = project.sieve(sieve_id)
    copy = held.but(id=fresh_id(), name=translate("{name} copy", name=held.name)[:200])
    at = project.stack.index(held) + 1
    return project.but(stack=(*project.stack[:at], copy, *project.stack[at:])), copy


#: How much wider a sieve for the rest of a colour takes it.
LEFTOVERS_WIDER = 1.5


def with_leftovers_of(project: Project, sieve_id: str) -> tuple[Project, Sieve]:
    """The project with a sieve after another one for what still has the colours picked there, and
    that sieve: it measures the result so far, takes them wider, and changes nothing yet. Areas come
    along, to hold it to where it belongs.
    """
    held = project.sieve(sieve_id)
    highest = spec_of(Sample, "tolerance").high
    samples = tuple(
        sample.but(id=fresh_id(), tolerance=min(sample.tolerance * LEFTOVERS_WIDER, highest))
        for sample in held.pick.samples
        if sample.role == "keep"
    )
    areas = tuple(area.but(id=fresh_id()) for area in held.areas)
    pick = held.pick.but(samples=samples, measure="result", connected=False, outline=())
    fresh = Sieve(name=translate("{name} leftovers", name=held.name)[:200], pick=pick, areas=areas)
    at = project.stack.index(held) + 1
    return project.but(stack=(*project.stack[:at], fresh, *project.stack[at:])), fresh


def with_the_rest(project: Project) -> tuple[Project, Sieve]:
    """The project with a sieve at its end for all that the others leave, and that sieve; it changes
    nothing yet.
    """
    fresh = Sieve(
        name=translate("The rest"),
        mask_from="left",
        of=tuple(sieve.id for sieve in project.stack)[:64],
    )
    return project.but(stack=(*project.stack, fresh)), fresh


def with_order(project: Project, ids: Collection[str]) -> Project:
    """The project with its sieves in another order."""
    return project.but(stack=tuple(project.sieve(sieve_id) for sieve_id in ids))


#: What of a sieve can be given to another by itself.
PARTS: dict[str, tuple[str, ...]] = {
    "mask": ("pick", "bands", "invert", "edge", "areas", "opposite"),
    "adjustments": ("adjust", "outside", "strength", "blend"),
}


def with_part_of(sieve: Sieve, other: Sieve, part: str) -> Sieve:
    """The sieve with the mask or the adjustments of another."""
    given = {name: getattr(other, name) for name in PARTS[part]}
    return sieve.but(**given, **({"mask_from": "own", "of": ()} if part == "mask" else {}))


def with_pasted(project: Project, sieves: Collection[Sieve]) -> tuple[Project, tuple[Sieve, ...]]:
    """The project with copies of some sieves of this or another project at the end, and the copies;
    links between them are kept.
    """
    fresh = {sieve.id: fresh_id() for sieve in sieves}

    def copied(sieve: Sieve) -> Sieve:
        joined = tuple(one.but(of=fresh[one.of]) for one in sieve.joined if one.of in fresh)
        of = tuple(fresh[other] for other in sieve.of if other in fresh)
        kind = sieve.mask_from if of else "own"
        return sieve.but(id=fresh[sieve.id], joined=joined, of=of, mask_from=kind)

    copies = tuple(copied(sieve) for sieve in sieves)
    return project.but(stack=(*project.stack, *copies)), copies


def with_sieve_moved(project: Project, sieve_id: str, by: int) -> Project:
    """The project with a sieve moved up (below 0) or down the stack."""
    return project.but(stack=_moved(project.stack, sieve_id, by))


def _moved(things: tuple[Any, ...], thing_id: str, by: int) -> tuple[Any, ...]:
    rows = list(things)
    at = next(k for k, thing in enumerate(rows) if thing.id == thing_id)
    rows.insert(min(max(at + by, 0), len(rows) - 1), rows.pop(at))
    return tuple(rows)


# Groups


def with_group(project: Project, sieve_id: str, name: str) -> Project:
    """The project with a sieve in a group of that name, which is made where there is none."""
    group = next((group for group in project.groups if group.name == name), None) or Group(
        name=name
    )
    groups = project.groups if group in project.groups else (*project.groups, group)
    return project.but(groups=groups).with_sieve(project.sieve(sieve_id).but(group=group.id))


def with_changed_group(project: Project, group_id: str, **changes: object) -> Project:
    """The project with a group's name, switch or strength changed."""
    return project.but(
        groups=tuple(
            group.but(**changes) if group.id == group_id else group for group in project.groups
        )
    )


def without_group(project: Project, group_id: str) -> Project:
    """The project with a group dissolved; its sieves stay."""
    stack = tuple(
        sieve.but(group="") if sieve.group == group_id else sieve for sieve in project.stack
    )
    return project.but(
        stack=stack, groups=tuple(group for group in project.groups if group.id != group_id)
    )


# Takes


def with_take(project: Project, name: str) -> Project:
    """The project with its stack kept as a take; one of the same name is replaced."""
    others = tuple(take for take in project.takes if take.name != name)
    return project.but(takes=(*others, Take(name=name, stack=project.stack)))


def without_take(project: Project, name: str) -> Project:
    """The project without a take."""
    return project.but(takes=tuple(take for take in project.takes if take.name != name))


def with_stack_of(project: Project, name: str) -> Project:
    """The project with the stack of one of its takes in place of its own."""
    stack = next(take.stack for take in project.takes if take.name == name)
    return project.but(stack=stack, solo="")


# Parts of a sieve


def with_field(sieve: Sieve, path: str, value: object) -> Sieve:
    """The sieve with one field changed, named by its way: "strength", "edge.follow",
    "adjust.recolour.hue".
    """
    name, _, rest = path.partition(".")
    if not rest:
        return sieve.but(**{name: value})
    return sieve.but(**{name: _with_field(getattr(sieve, name), rest, value)})


def _with_field(held: Any, path: str, value: object) -> Any:
    name, _, rest = path.partition(".")
    return held.but(**{name: _with_field(getattr(held, name), rest, value) if rest else value})


def with_field_everywhere(project: Project, path: str, value: Any) -> Project:
    """The project with a field of all its sieves at one value."""
    return project.but(stack=tuple(with_field(sieve, path, value) for sieve in project.stack))


def field_of(sieve: Sieve, path: str) -> Any:
    """The value of a field named by its way."""
    held: Any = sieve
    for name in path.split("."):
        held = getattr(held, name)
    return held


def without_adjustments(sieve: Sieve) -> Sieve:
    """The sieve with nothing done inside its mask."""
    return sieve.but(adjust=Adjust(), strength=100.0, outside=0.0)


def without_block(sieve: Sieve, block: str) -> Sieve:
    """The sieve with one block of its adjustments as it comes."""
    return sieve.but(adjust=sieve.adjust.but(**{block: Adjust.model_fields[block].default}))


def with_block_copied(project: Project, sieve_id: str, to: str, block: str) -> Project:
    """The project with one block of a sieve's adjustments given to another sieve too."""
    held, other = getattr(project.sieve(sieve_id).adjust, block), project.sieve(to)
    return project.with_sieve(other.but(adjust=other.adjust.but(**{block: held})))


def without_edge(sieve: Sieve) -> Sieve:
    """The sieve with its edge as it comes."""
    return sieve.but(edge=Edge())


# Samples


def with_samples(sieve: Sieve, samples: Collection[Sample]) -> Sieve:
    """The sieve with these samples in place of its own."""
    return sieve.but(pick=sieve.pick.but(samples=tuple(samples)))


def without_any_sample(sieve: Sieve) -> Sieve:
    """The sieve with no samples, and nothing of where they were taken from."""
    return sieve.but(pick=sieve.pick.but(samples=(), outline=(), picked_on=""))


def with_sample(sieve: Sieve, sample: Sample, alone: bool = False, picked_on: str = "") -> Sieve:
    """The sieve with one more sample; ``alone`` starts over with it, and with no outline.
    ``picked_on``: the colours of the picture, of a first sample.
    """
    if alone:
        sieve = without_any_sample(sieve)
    if picked_on:
        sieve = sieve.but(pick=sieve.pick.but(picked_on=picked_on))
    return with_samples(sieve, (*sieve.pick.samples, sample))


def with_changed_samples(
    sieve: Sieve, changes: dict[str, object], ids: Collection[str] = ()
) -> Sieve:
    """The sieve with some fields of some samples changed; of all of them when no ids are given.

    A drop sample compared otherwise from now on starts by the rule of its comparison.
    """
    if "compare" in changes:
        changes = {"rule": drop_rule_for(str(changes["compare"])), **changes}
    return with_samples(
        sieve, [s.but(**changes) if not ids or s.id in ids else s for s in sieve.pick.samples]
    )


def without_samples(sieve: Sieve, ids: Collection[str]) -> Sieve:
    """The sieve without some samples."""
    return with_samples(sieve, [s for s in sieve.pick.samples if s.id not in ids])


def with_roles_swapped(sieve: Sieve, ids: Collection[str] = ()) -> Sieve:
    """The sieve with keep samples made drop samples and the other way round; all of them when no
    ids are given.
    """
    other = {"keep": "drop", "drop": "keep"}
    return with_samples(
        sieve,
        [s.but(role=other[s.role]) if not ids or s.id in ids else s for s in sieve.pick.samples],
    )


# Islands


def place_of(x: float, y: float, pixels: float = 0.0) -> Place:
    """A place to know an island by; a larger one may have moved farther."""
    return Place(x=x, y=y, radius=min(max(NEAREST, pixels**0.5 / 2), 20_000))


def with_island_toggled(sieve: Sieve, x: float, y: float) -> Sieve:
    """The sieve with the island at a place taken out, or brought back."""
    out = sieve.edge.islands_out
    near = [
        place
        for place in out
        if (place.x - x) ** 2 + (place.y - y) ** 2 <= max(place.radius, 4) ** 2
    ]
    places = tuple(place for place in out if place not in near) if near else (*out, place_of(x, y))
    return sieve.but(edge=sieve.edge.but(islands_out=places))


def with_islands_out(sieve: Sieve, places: Collection[Place]) -> Sieve:
    """The sieve with the islands at some places taken out as well."""
    return sieve.but(edge=sieve.edge.but(islands_out=(*sieve.edge.islands_out, *places)))


def with_only_island(sieve: Sieve, x: float, y: float) -> Sieve:
    """The sieve with only the island at a place."""
    return sieve.but(edge=sieve.edge.but(islands_only=(place_of(x, y),), islands_out=()))


def with_all_islands(sieve: Sieve) -> Sieve:
    """The sieve with every island brought back."""
    return sieve.but(edge=sieve.edge.but(islands_only=(), islands_out=()))


# Areas


def with_area(sieve: Sieve, area: Area) -> Sieve:
    """The sieve with one more area, or with the one of the same id replaced."""
    if any(other.id == area.id for other in sieve.areas):
        return sieve.but(
            areas=tuple(area if other.id == area.id else other for other in sieve.areas)
        )
    return sieve.but(areas=(*sieve.areas, area))


def without_area(sieve: Sieve, area_id: str) -> Sieve:
    """The sieve without an area."""
    return sieve.but(areas=tuple(area for area in sieve.areas if area.id != area_id))


def duplicate_of(area: Area) -> Area:
    """The same area under an id of its own."""
    return area.but(id=fresh_id())


def with_area_moved(sieve: Sieve, area_id: str, by: int) -> Sieve:
    """The sieve with an area moved up (below 0) or down in the order of application."""
    return sieve.but(areas=_moved(sieve.areas, area_id, by))

"""What every sieve of a project does, in sentences."""

from __future__ import annotations

from ..project.model import Project, Sieve
from .stages.every import AREAS, BLOCKS, CONNECTED, EDGE, automatic


def _list(parts: list[str]) -> str:
    """Words with commas between them, and an "and" before the last."""
    return parts[0] if len(parts) == 1 else f"{', '.join(parts[:-1])} and {parts[-1]}"


def _picked(sieve: Sieve) -> str:
    """Where the mask comes from before its edge."""
    keeps = [s for s in sieve.pick.samples if s.on and s.role == "keep"]
    drops = [s for s in sieve.pick.samples if s.on and s.role == "drop"]
    parts = []
    if keeps:
        here = sum(s.reach == "here" for s in keeps)
        parts.append(
            f"what looks like {len(keeps)} sampled colour{'s' if len(keeps) > 1 else ''}"
            + (f" ({here} of them only where {'it was' if here == 1 else 'they were'} taken)" if here else "")
            + (f", without what looks like {len(drops)} dropped one{'s' if len(drops) > 1 else ''}" if drops else "")
        )
    bands = sieve.bands
    for name in ("hue", "saturation", "luminance", "red", "green", "blue"):
        band = getattr(bands, name)
        if band.on:
            away = "outside" if band.inverted else "of"
            parts.append(f"{name} {away} {band.corners[1]:g} to {band.corners[2]:g}")
    if bands.ramp.on:
        parts.append(f"as much as it is {'dark' if bands.ramp.inverse else 'light'}")
    words = " within ".join(parts) if parts else "nothing yet"
    words = ", ".join([words, *CONNECTED.words(sieve)])
    return f"everything but {words}" if sieve.invert else words


def sentence_of(project: Project, sieve: Sieve) -> str:
    """What a sieve does, in a few sentences."""

    def name_of(other: str) -> str:
        return f"«{project.sieve(other).name}»"

    others = _list([name_of(other) for other in sieve.of]) if sieve.of else ""
    source = {"own": _picked(sieve), "same": f"the same as {others}", "left": f"what {others} leave" + ("s" if len(sieve.of) == 1 else "")}
    working = (sieve.id == project.solo) if project.solo else sieve.on
    lines = [f"«{sieve.name}»{'' if working else ' (off)'} masks {source[sieve.mask_from]}{', turned round' if sieve.opposite else ''}."]
    if sieve.mask_from == "own":
        edge = [words for stage in EDGE for words in stage.words(sieve)]
        found = automatic(sieve.edge)
        edge += [f"{_list(found)} found on the picture"] if found else []
        if edge:
            lines.append(f"Its edge: {_list(edge)}.")
        areas = AREAS.words(sieve)
        if areas:
            lines.append(f"Areas: {_list(areas)}.")
    if sieve.joined:
        lines.append("Laid on it: " + _list([f"{name_of(one.of)} ({one.mode})" for one in sieve.joined]) + ".")
    done = [f"{block.of(sieve).label.lower()}: {_list(block.words(sieve))}" for block in BLOCKS if not block.idle(sieve)]
    lines.append("Inside it: " + "; ".join(done) + "." if done else "It changes nothing inside.")
    keyed = sorted({track.path.rpartition(".")[2].replace("_", " ") for track in sieve.tracks})
    if keyed:
        frames = sorted({key.frame for track in sieve.tracks for key in track.keys})
        lines.append(f"Keyed from frame {frames[0]} to {frames[-1]}: {_list(keyed)}.")
    rest = [] if sieve.blend == "normal" else [f"blended by {sieve.blend}"]
    rest += [f"at a strength of {sieve.strength:g} %"] if sieve.strength != 100 else []
    rest += [f"with {sieve.outside:g} % for the rest of the picture"] if sieve.outside else []
    if rest:
        lines.append(f"All of that {_list(rest)}.")
    return " ".join(lines)


def explained(project: Project) -> list[str]:
    """The project, a paragraph a sieve, in the order in which the picture falls through them."""
    return [sentence_of(project, sieve) for sieve in project.stack]

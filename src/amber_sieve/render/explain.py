"""Explain every sieve of a project, in sentences."""

from __future__ import annotations

from ..language import mid_sentence, translator
from ..project.model import Project, Sieve
from .stages.every import AREAS, BLOCKS, CONNECTED, EDGE, automatic

translate = translator("render")
translate_label = translator("model")


def _list(parts: list[str]) -> str:
    """Words with commas between them, and an "and" before the last."""
    return (
        parts[0]
        if len(parts) == 1
        else translate("{parts} and {parts2}", parts=", ".join(parts[:-1]), parts2=parts[-1])
    )


def _picked(sieve: Sieve) -> str:
    """Return where the mask comes from before its edge."""
    keeps = [s for s in sieve.pick.samples if s.on and s.role == "keep"]
    drops = [s for s in sieve.pick.samples if s.on and s.role == "drop"]
    parts = []
    if keeps:
        here = sum(s.reach == "here" for s in keeps)
        parts.append(
            translate(
                "what looks like {n} sampled colours",
                "what looks like {n} sampled colour",
                len(keeps),
            )
            + (
                translate(
                    " ({n} of them only where they were taken)",
                    " ({n} of them only where it was taken)",
                    here,
                )
                if here
                else ""
            )
            + (
                translate(
                    ", without what looks like {n} dropped ones",
                    ", without what looks like {n} dropped one",
                    len(drops),
                )
                if drops
                else ""
            )
        )
    bands = sieve.bands
    for name in ("hue", "saturation", "luminance", "red", "green", "blue"):
        band = getattr(bands, name)
        if band.on:
            away = "outside" if band.inverted else "of"
            parts.append(
                translate(
                    "{name} {away} {corners:g} to {corners2:g}",
                    name=name,
                    away=away,
                    corners=band.corners[1],
                    corners2=band.corners[2],
                )
            )
    if bands.ramp.on:
        parts.append(
            translate("as much as it is dark")
            if bands.ramp.inverse
            else translate("as much as it is light")
        )
    words = translate(" within ").join(parts) if parts else translate("nothing yet")
    words = ", ".join([words, *CONNECTED.words(sieve)])
    return translate("everything but {words}", words=words) if sieve.invert else words


def sentence_of(project: Project, sieve: Sieve) -> str:
    """Return a few sentences about a sieve."""

    def name_of(other: str) -> str:
        return f"«{project.sieve(other).name}»"

    others = _list([name_of(other) for other in sieve.of]) if sieve.of else ""
    source = {
        "own": _picked(sieve),
        "same": translate("the same as {others}", others=others),
        "left": translate("what {others} leave", others=others)
        + ("s" if len(sieve.of) == 1 else ""),
    }
    working = (sieve.id == project.solo) if project.solo else sieve.on
    lines = [
        translate(
            "«{name}»{off} masks {source}{turned}.",
            name=sieve.name,
            off="" if working else translate(" (off)"),
            source=source[sieve.mask_from],
            turned=translate(", turned round") if sieve.opposite else "",
        )
    ]
    if sieve.mask_from == "own":
        if not isinstance(sieve.pick.light, str):
            red, green, blue = sieve.pick.light
            lines.append(
                translate(
                    "Measured without this light: red {red:.2f}, green {green:.2f}, blue "
                    "{blue:.2f} times that of the picture picked on.",
                    red=red,
                    green=green,
                    blue=blue,
                )
            )
        if not isinstance(sieve.pick.flat, str):
            lines.append(translate("Measured without the log curve of a flat picture."))
        edge = [words for stage in EDGE for words in stage.words(sieve)]
        found = automatic(sieve.edge)
        edge += [translate("{list} found on the picture", list=_list(found))] if found else []
        if edge:
            lines.append(translate("Its edge: {list}.", list=_list(edge)))
        areas = AREAS.words(sieve)
        if areas:
            lines.append(translate("Areas: {list}.", list=_list(areas)))
    if sieve.joined:
        lines.append(
            translate("Laid on it: ")
            + _list([f"{name_of(one.of)} ({one.mode})" for one in sieve.joined])
            + "."
        )
    done = [
        f"{mid_sentence(translate_label(block.of(sieve).label))}: {_list(block.words(sieve))}"
        for block in BLOCKS
        if not block.is_noop(sieve)
    ]
    lines.append(
        translate("Inside it: ") + "; ".join(done) + "."
        if done
        else translate("It changes nothing inside.")
    )
    keyed = sorted({track.path.rpartition(".")[2].replace("_", " ") for track in sieve.tracks})
    if keyed:
        frames = sorted({key.frame for track in sieve.tracks for key in track.keys})
        lines.append(
            translate(
                "Keyed from frame {frames} to {frames2}: {list}.",
                frames=frames[0],
                frames2=frames[-1],
                list=_list(keyed),
            )
        )
    rest = [] if sieve.blend == "normal" else [translate("blended by {blend}", blend=sieve.blend)]
    rest += (
        [translate("at a strength of {strength:g} %", strength=sieve.strength)]
        if sieve.strength != 100
        else []
    )
    rest += (
        [translate("with {outside:g} % for the rest of the picture", outside=sieve.outside)]
        if sieve.outside
        else []
    )
    if rest:
        lines.append(translate("All of that {list}.", list=_list(rest)))
    return " ".join(lines)


def explained(project: Project) -> list[str]:
    """The project, a paragraph a sieve, in the order in which the picture falls through them."""
    return [sentence_of(project, sieve) for sieve in project.stack]

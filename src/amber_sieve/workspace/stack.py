"""The stack: sieves and where their masks come from, groups, takes and the clipboard."""

from __future__ import annotations

from ..errors import Trouble
from ..language import mid_sentence, named, translator
from ..names import AreaMode, MaskFrom
from ..project import clippings, edits
from ..project.model import Joined, Sieve
from .background.guard import guarded
from .document.work import Work
from .speech import Speech

translate = translator("workspace")


@guarded
class StackController:
    """The sieves of the current project, in order."""

    def __init__(self, work: Work, speech: Speech) -> None:
        self.speech = speech
        self._work = work

    def add(self) -> None:
        """A new sieve on the stack."""
        project, fresh = edits.with_new_sieve(self._work.project)
        self._work.edit(lambda _: project, translate("Add sieve"))
        self._work.document.select(fresh.id)

    def remove(self, sieve_id: str) -> None:
        """Take a sieve off the stack; the last one is replaced by an empty one."""
        self._work.edit(
            lambda project: edits.without_sieve(project, sieve_id),
            translate("Remove sieve"),
        )
        self._work.selection_changed.emit()

    def move(self, sieve_id: str, by: int) -> None:
        """Move a sieve up or down the stack."""
        self._work.edit(
            lambda project: edits.with_sieve_moved(project, sieve_id, by),
            translate("Move sieve"),
        )

    def duplicate(self, sieve_id: str) -> None:
        """Put a copy of a sieve after it, and work on that."""
        project, copy = edits.with_copy_of(self._work.project, sieve_id)
        self._work.edit(lambda _: project, translate("Duplicate sieve"))
        self._work.document.select(copy.id)

    def add_leftovers(self, sieve_id: str) -> None:
        """Put a sieve after another one for what still has its colours, and work on that."""
        project, fresh = edits.with_leftovers_of(self._work.project, sieve_id)
        self._work.edit(lambda _: project, translate("Add a sieve for leftovers"))
        self._work.document.select(fresh.id)

    def add_the_rest(self) -> None:
        """Put a sieve at the end for all that the others leave, and work on that."""
        project, fresh = edits.with_the_rest(self._work.project)
        self._work.edit(lambda _: project, translate("Add a sieve for the rest"))
        self._work.document.select(fresh.id)

    def order(self, ids: list[str]) -> None:
        """Put the sieves into another order."""
        if sorted(ids) == sorted(sieve.id for sieve in self._work.project.stack):
            self._work.edit(lambda project: edits.with_order(project, ids), translate("Move sieve"))

    def toggle_solo(self, sieve_id: str) -> None:
        """Let only this sieve work, or all that are on again."""
        self._work.edit(
            lambda project: project.but(solo="" if project.solo == sieve_id else sieve_id),
            translate("Solo"),
        )

    def set_mask_from(
        self, kind: MaskFrom, of: tuple[str, ...] = (), opposite: bool = False
    ) -> None:
        """Make the current sieve's mask from others', live."""
        sieve_id = self._work.sieve.id
        self._work.edit(
            lambda project: edits.with_mask_from(project, sieve_id, kind, of, opposite),
            translate("Mask from"),
        )

    def join_mask(self, mode: AreaMode, of: str) -> None:
        """Lay another sieve's mask on the current one's."""
        sieve = self._work.sieve
        self._work.edit(
            lambda project: edits.with_joined(
                project, sieve.id, (*sieve.joined, Joined(mode=mode, of=of))
            ),
            translate("{mode} a mask", mode=named(mode)),
        )

    def unlink_mask(self) -> None:
        """Give the current sieve a mask of its own, a copy of what it leans on."""
        sieve = self._work.sieve
        self._work.edit(
            lambda project: project.with_sieve(edits.unlinked(project, sieve)),
            translate("Unlink the mask"),
        )

    def clipping(self, everything: bool = False) -> str:
        """The current sieve as text, or the whole stack, for the clipboard."""
        project = self._work.project
        sieves = project.stack if everything else (self._work.sieve,)
        return clippings.text_of(
            tuple(edits.unlinked(project, sieve) if sieve.leans_on else sieve for sieve in sieves)
        )

    def paste(self, text: str, part: str = "") -> None:
        """Add the sieves of a text to the stack, or give the current one the mask or the
        adjustments of the first of them.
        """
        sieves = clippings.sieves_in(text)
        if part:
            self._work.edit_sieve(
                lambda sieve: edits.with_part_of(sieve, sieves[0], part),
                translate("Paste {part}", part=mid_sentence(named(part))),
            )
            return
        self.add_copies(sieves, translate("Paste sieve"))

    def add_copies(self, sieves: tuple[Sieve, ...], what: str) -> None:
        """Put copies of sieves on the stack, and work on the last."""
        project, copies = edits.with_pasted(self._work.project, sieves)
        self._work.edit(lambda _: project, what)
        self._work.document.select(copies[-1].id)

    def put_into_group(self, name: str) -> None:
        """Put the current sieve into a group of that name; "" takes it out of its own."""
        sieve_id = self._work.sieve.id
        if name.strip():
            self._work.edit(
                lambda project: edits.with_group(project, sieve_id, name.strip()[:200]),
                translate("Group"),
            )
        else:
            self._work.edit_sieve(lambda sieve: sieve.but(group=""), translate("No group"))

    def change_group(self, group_id: str, **changes: object) -> None:
        """Change a group's name, switch or strength."""
        self._work.edit(
            lambda project: edits.with_changed_group(project, group_id, **changes),
            translate("Change group"),
        )

    def dissolve_group(self, group_id: str) -> None:
        """Let the sieves of a group stand by themselves."""
        self._work.edit(
            lambda project: edits.without_group(project, group_id),
            translate("Dissolve group"),
        )

    def keep_take(self, name: str) -> None:
        """Keep the whole stack under a name."""
        if not 1 <= len(name.strip()) <= 200:
            raise Trouble(
                translate("The name of a take has 1 to 200 characters: give another name.")
            )
        self._work.edit(
            lambda project: edits.with_take(project, name.strip()),
            translate("Save take"),
        )

    def use_take(self, name: str) -> None:
        """Go on with the stack of a take."""
        self._work.edit(
            lambda project: edits.with_stack_of(project, name),
            translate("Take {name}", name=name),
        )
        self._work.selection_changed.emit()

    def remove_take(self, name: str) -> None:
        """Forget the take with this name; the stack stays as it is."""
        self._work.edit(lambda project: edits.without_take(project, name), translate("Remove take"))

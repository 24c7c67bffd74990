"""What a rule is asked about: the history of a piece, and what the piece is."""

from dataclasses import dataclass

from pantry_core.heat.choice import Doneness
from pantry_core.heat.inside import is_intact
from pantry_core.history.stays import History
from pantry_core.meat import Meat
from pantry_core.mixes.judged import Judged
from pantry_core.mixes.protection import Protection, cures_around, is_dry_salted, protection_of
from pantry_core.mixes.request import WeighRequest


@dataclass(frozen=True)
class Case:
    """A piece with its history.

    `judged` is what its mix comes to, `done` how hot it must be inside; `is_sealed`: bought in a
    pack that its maker closed; `is_said_frozen`: by the cook's word the fish was frozen against
    parasites, or is exempt; `has_mix`: it is cured; `needs_figure`: a probe is to tell that it is
    done.
    """

    history: History
    judged: Judged
    done: Doneness
    is_sealed: bool = False
    is_said_frozen: bool = False
    is_eaten_raw: bool = False
    has_mix: bool = True
    needs_figure: bool = True

    @property
    def meat(self) -> Meat:
        """The piece."""
        return self.judged.request.meat

    @property
    def request(self) -> WeighRequest:
        """What was weighed out for it."""
        return self.judged.request

    @property
    def keeps(self) -> Protection | None:
        """How long it keeps raw."""
        return protection_of(self.meat)

    @property
    def is_cured_around(self) -> bool:
        """Whether what lies around it cures it."""
        judged = self.judged
        return self.has_mix and cures_around(judged.request, judged.nitrite, judged.pickle)

    @property
    def is_dry_salted(self) -> bool:
        """Whether it lies in salt without a liquid."""
        return self.has_mix and is_dry_salted(self.request)

    @property
    def is_intact(self) -> bool:
        """Whether nothing has taken its outside to its inside."""
        return is_intact(self.request.treatments)

    @property
    def is_animal(self) -> bool:
        """Whether it is meat, a bird or a fish."""
        return self.meat.kind != "vegetable"

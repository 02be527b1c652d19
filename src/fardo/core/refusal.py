"""The two ways the rules say no: what was read is not usable, or no answer exists.

Both carry one sentence that a packer understands. The command turns them into exit codes 2 and 1, the web side
into problem documents; nothing in the core knows of either.
"""

from __future__ import annotations


class Refusal(Exception):
    """Anything the rules refuse, with a sentence that can be shown as it is."""


class BadInput(Refusal):
    """What was read cannot be used.

    Args:
        why: what is wrong, without the field's name ("a weight, where a length is wanted").
        read: what was read, as it was typed.
        allowed: what would be taken instead.
        field: where it was read, as a path such as ``parts[0].weight``; callers add what they know by `under`.
    """

    def __init__(self, why: str, *, read: object, allowed: str, field: str = "") -> None:
        self.why, self.read, self.allowed, self.field = why, _shortened(read), allowed, field
        super().__init__(self.sentence)

    @property
    def sentence(self) -> str:
        where = f"{self.field}: " if self.field else ""
        return where + self.plain

    @property
    def plain(self) -> str:
        """The sentence without the field's path, for a place that names the field itself."""
        return f"read {self.read!r}, {self.why}. Allowed: {self.allowed}."

    def under(self, field: str) -> BadInput:
        """The same refusal, with `field` put before the path it has."""
        joined = field if not self.field else f"{field}{'' if self.field.startswith('[') else '.'}{self.field}"
        return BadInput(self.why, read=self.read, allowed=self.allowed, field=joined)


class NoAnswer(Refusal):
    """The input is sound, but there is no answer to give; the sentence says why."""


def _shortened(read: object) -> str:
    text = read if isinstance(read, str) else repr(read)
    return text if len(text) <= 60 else text[:57] + "..."

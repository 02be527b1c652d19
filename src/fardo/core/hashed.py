"""What is frozen, large and asked for by the dozen: its hash is worked out once."""

from __future__ import annotations

from dataclasses import dataclass, field, fields


@dataclass(frozen=True, slots=True)
class HashedOnce:
    """A frozen class takes it by `__hash__ = HashedOnce.__hash__`, as it would be given one of its own otherwise."""

    _hash: int | None = field(default=None, init=False, repr=False, compare=False)

    def __hash__(self) -> int:
        if self._hash is None:
            own = tuple(getattr(self, one.name) for one in fields(self) if one.compare)
            object.__setattr__(self, "_hash", hash(own))
        assert self._hash is not None
        return self._hash

"""The words a job is found by."""

from __future__ import annotations

from fardo.files.job import JobFile


def words_of(job: JobFile) -> str:
    """Its title, where it goes, its parts and what goes with them."""
    return " ".join([job.title, job.ship.to or "", *(p.name for p in job.parts), *(e.name for e in job.extras)])

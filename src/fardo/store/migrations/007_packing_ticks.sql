-- What was ticked at the bench, under names that devices make up, so that two of them apart for a while merge.
CREATE TABLE packing_tick (
  id TEXT PRIMARY KEY,
  job_id TEXT NOT NULL REFERENCES job (id),
  step TEXT NOT NULL,
  done INTEGER NOT NULL CHECK (done IN (0, 1)),
  at TEXT NOT NULL,
  note TEXT NOT NULL DEFAULT ''
) STRICT;

CREATE INDEX packing_tick_of_job ON packing_tick (job_id, at, id);

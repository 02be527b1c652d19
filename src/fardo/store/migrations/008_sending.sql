-- What became of a parcel once it was closed: what it weighed and measured, its number, where it was handed over; and
-- what it took off the shop's stock, which goes back when it is undone.
CREATE TABLE sending (
  job_id TEXT PRIMARY KEY REFERENCES job (id),
  revision INTEGER NOT NULL,
  content TEXT NOT NULL CHECK (json_valid(content)),
  taken TEXT NOT NULL DEFAULT '{}' CHECK (json_valid(taken)),
  saved_at TEXT NOT NULL
) STRICT;

-- The day a job was handed over, drawn out of its sending for the bench.
ALTER TABLE job ADD COLUMN handed_over TEXT;

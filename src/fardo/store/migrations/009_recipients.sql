-- Who a parcel goes to. It stands here alone, and in no revision and no index, so that it can be forgotten whole.
CREATE TABLE recipient (
  job_id TEXT PRIMARY KEY REFERENCES job (id),
  revision INTEGER NOT NULL,
  content TEXT NOT NULL CHECK (json_valid(content)),
  words TEXT NOT NULL DEFAULT '',
  saved_at TEXT NOT NULL,
  forgotten_at TEXT
) STRICT;

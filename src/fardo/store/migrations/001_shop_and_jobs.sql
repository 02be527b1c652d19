-- Everything the shop has set, as one document with a revision.
CREATE TABLE shop (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  revision INTEGER NOT NULL,
  content TEXT NOT NULL CHECK (json_valid(content)),
  saved_at TEXT NOT NULL
) STRICT;

CREATE TABLE tariff (
  carrier TEXT PRIMARY KEY,
  revision INTEGER NOT NULL,
  content TEXT NOT NULL CHECK (json_valid(content)),
  saved_at TEXT NOT NULL
) STRICT;

-- A job as it is now. Its content is the job file; title, day and where to are drawn out of it for the bench.
CREATE TABLE job (
  number INTEGER PRIMARY KEY,
  id TEXT NOT NULL UNIQUE,
  revision INTEGER NOT NULL,
  title TEXT NOT NULL,
  day TEXT,
  destination TEXT NOT NULL,
  content TEXT NOT NULL CHECK (json_valid(content)),
  created_at TEXT NOT NULL,
  saved_at TEXT NOT NULL,
  put_away_at TEXT
) STRICT;

CREATE INDEX job_on_the_bench ON job (saved_at DESC, id) WHERE put_away_at IS NULL;

-- Every revision there ever was, so that nothing typed is lost.
CREATE TABLE job_revision (
  job_id TEXT NOT NULL REFERENCES job (id),
  revision INTEGER NOT NULL,
  content TEXT NOT NULL CHECK (json_valid(content)),
  saved_at TEXT NOT NULL,
  PRIMARY KEY (job_id, revision)
) STRICT;

-- Its rowid is the job's number.
CREATE VIRTUAL TABLE job_search USING fts5 (words, tokenize = 'unicode61 remove_diacritics 2');

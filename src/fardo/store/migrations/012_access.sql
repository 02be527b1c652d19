-- Who may open the shop from another device: the hash of its passphrase, and the sessions that were opened with it. Of a
-- session only the hash of its token is kept, so that a copy of the shop opens nothing.
CREATE TABLE passphrase (
  number INTEGER PRIMARY KEY CHECK (number = 1),
  hash TEXT NOT NULL,
  saved_at TEXT NOT NULL
) STRICT;

CREATE TABLE session (
  id TEXT PRIMARY KEY,
  token_hash TEXT NOT NULL UNIQUE,
  device TEXT NOT NULL,
  begun_at TEXT NOT NULL,
  seen_at TEXT NOT NULL
) STRICT;

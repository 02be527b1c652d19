-- Photographs and mesh files. A file is kept under a name made from its content, so the same one is kept once.
CREATE TABLE file (
  name TEXT PRIMARY KEY,
  called TEXT NOT NULL,
  media_type TEXT NOT NULL,
  content BLOB NOT NULL,
  kept_at TEXT NOT NULL
) STRICT;

-- The shop's own kinds of goods, also those that take the place of a kind that came with the product.
CREATE TABLE kind (
  code TEXT PRIMARY KEY,
  revision INTEGER NOT NULL,
  content TEXT NOT NULL CHECK (json_valid(content)),
  saved_at TEXT NOT NULL,
  put_away_at TEXT
) STRICT;

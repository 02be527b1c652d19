-- The name a page gave to the change that made a revision: whoever closed it before the answer came finds it again.
ALTER TABLE job ADD COLUMN change_id TEXT NOT NULL DEFAULT '';
ALTER TABLE job_revision ADD COLUMN change_id TEXT NOT NULL DEFAULT '';

-- Every shop there was, and every form of the shop's own kinds, as jobs and tariffs keep theirs.
CREATE TABLE shop_revision (
  revision INTEGER PRIMARY KEY,
  content TEXT NOT NULL CHECK (json_valid(content)),
  saved_at TEXT NOT NULL
) STRICT;

INSERT INTO shop_revision SELECT revision, content, saved_at FROM shop;

CREATE TABLE kind_revision (
  code TEXT NOT NULL REFERENCES kind (code),
  revision INTEGER NOT NULL,
  content TEXT NOT NULL CHECK (json_valid(content)),
  saved_at TEXT NOT NULL,
  PRIMARY KEY (code, revision)
) STRICT;

INSERT INTO kind_revision SELECT code, revision, content, saved_at FROM kind;

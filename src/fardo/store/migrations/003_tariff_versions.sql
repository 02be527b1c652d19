-- Every version of a tariff there ever was; one put away is not asked for prices and can be brought back.
ALTER TABLE tariff ADD COLUMN put_away_at TEXT;

CREATE TABLE tariff_revision (
  carrier TEXT NOT NULL REFERENCES tariff (carrier),
  revision INTEGER NOT NULL,
  content TEXT NOT NULL CHECK (json_valid(content)),
  saved_at TEXT NOT NULL,
  PRIMARY KEY (carrier, revision)
) STRICT;

INSERT INTO tariff_revision SELECT carrier, revision, content, saved_at FROM tariff;

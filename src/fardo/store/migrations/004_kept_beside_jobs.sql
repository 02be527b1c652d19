-- The order in which jobs were changed, counted and not told by a clock, which jumps.
ALTER TABLE job ADD COLUMN changed INTEGER NOT NULL DEFAULT 0;

-- The way of the box that was chosen, empty where none is: what has something to cut is found by it.
ALTER TABLE job ADD COLUMN box_way TEXT NOT NULL DEFAULT '';

UPDATE job SET changed = ranked.place
FROM (SELECT number, row_number() OVER (ORDER BY saved_at, id DESC) AS place FROM job) AS ranked
WHERE ranked.number = job.number;

UPDATE job SET box_way = coalesce(json_extract(content, '$.chosen.box.way'), '');

DROP INDEX job_on_the_bench;
CREATE UNIQUE INDEX job_changed ON job (changed);
CREATE INDEX job_in_hand ON job (changed) WHERE put_away_at IS NULL;
CREATE INDEX job_put_away ON job (changed) WHERE put_away_at IS NOT NULL;
CREATE INDEX job_with_box ON job (day, changed) WHERE put_away_at IS NULL AND box_way <> '';

-- Its rowid is `changed`, so that the newest come first without sorting; `place` is hand or away.
CREATE VIRTUAL TABLE job_words USING fts5 (words, place, prefix = '1 2 3', tokenize = 'unicode61 remove_diacritics 2');
INSERT INTO job_words (rowid, words, place)
SELECT job.changed, job_search.words, iif(job.put_away_at IS NULL, 'hand', 'away')
FROM job JOIN job_search ON job_search.rowid = job.number;
DROP TABLE job_search;
ALTER TABLE job_words RENAME TO job_search;

-- What the bench shows of a job, as it was last worked out: from which text of the job (`of_content`), and for the shop
-- and tariffs of which revisions (`stamp`).
CREATE TABLE job_bench (
  job_id TEXT PRIMARY KEY REFERENCES job (id),
  of_content TEXT NOT NULL,
  stamp TEXT NOT NULL,
  content TEXT NOT NULL CHECK (json_valid(content))
) STRICT;

-- Quotes that carriers gave over the network, each for one job: a label is bought by one of these, once.
CREATE TABLE quote_given (
  carrier TEXT NOT NULL,
  quote TEXT NOT NULL,
  job_id TEXT NOT NULL REFERENCES job (id),
  service TEXT NOT NULL,
  programme TEXT NOT NULL,
  amount TEXT NOT NULL,
  currency TEXT NOT NULL,
  given_at TEXT NOT NULL,
  PRIMARY KEY (carrier, quote)
) STRICT;

-- A label from the moment it is meant to be bought, before its carrier is asked, so that nothing that may have been paid
-- for is forgotten. `key` names the purchase to the carrier.
CREATE TABLE label (
  key TEXT PRIMARY KEY,
  number INTEGER NOT NULL UNIQUE,
  job_id TEXT NOT NULL REFERENCES job (id),
  carrier TEXT NOT NULL,
  service TEXT NOT NULL,
  programme TEXT NOT NULL,
  quote TEXT NOT NULL,
  at_most TEXT NOT NULL,
  currency TEXT NOT NULL,
  state TEXT NOT NULL CHECK (state IN ('asking', 'sold', 'unsold', 'voiding', 'void')),
  tracking TEXT CHECK (tracking IS NOT NULL OR state NOT IN ('sold')),
  amount TEXT,
  sold_currency TEXT,
  says TEXT NOT NULL,
  meant_at TEXT NOT NULL,
  settled_at TEXT
) STRICT;

-- One live label a job, and one purchase a quote.
CREATE UNIQUE INDEX label_live ON label (job_id) WHERE state IN ('asking', 'sold', 'voiding');
CREATE UNIQUE INDEX label_of_quote ON label (carrier, quote) WHERE state IN ('asking', 'sold', 'voiding') AND quote <> '';
CREATE INDEX label_of_job ON label (job_id, number);

-- Labels that jobs carried themselves: of copies that carry one number, the oldest job has bought it.
INSERT INTO label (key, number, job_id, carrier, service, programme, quote, at_most, currency, state, tracking, amount,
  sold_currency, says, meant_at, settled_at)
SELECT 'kept-' || id, row_number() OVER (ORDER BY created_at, id), id, label ->> 'carrier', label ->> 'service',
  coalesce(label ->> 'programme', ''), '', label ->> 'amount', label ->> 'currency', 'sold', label ->> 'tracking',
  label ->> 'amount', label ->> 'currency', '', saved_at, saved_at
FROM (
  SELECT id, created_at, saved_at, label,
    row_number() OVER (PARTITION BY label ->> 'carrier', label ->> 'tracking' ORDER BY created_at, id) AS copy
  FROM (SELECT id, created_at, saved_at, json_extract(content, '$.chosen.label') AS label FROM job)
  WHERE label ->> 'tracking' IS NOT NULL
)
WHERE copy = 1;

-- Blanks that are cut already: a job whose blanks are still these is not cut again.
CREATE TABLE job_cut (
  job_id TEXT PRIMARY KEY REFERENCES job (id),
  blanks TEXT NOT NULL CHECK (json_valid(blanks)),
  cut_at TEXT NOT NULL
) STRICT;

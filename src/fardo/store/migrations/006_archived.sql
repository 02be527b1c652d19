-- One word for one thing: what is off its list is archived.
ALTER TABLE job RENAME COLUMN put_away_at TO archived_at;
ALTER TABLE kind RENAME COLUMN put_away_at TO archived_at;
ALTER TABLE tariff RENAME COLUMN put_away_at TO archived_at;
DROP INDEX job_put_away;
CREATE INDEX job_archived ON job (changed) WHERE archived_at IS NOT NULL;

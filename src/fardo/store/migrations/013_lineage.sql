-- After which number revisions go on since a copy was put in this shop's place: above every one that the shop had given
-- out, so that a page opened before does not take what came back for what it has.
CREATE TABLE lineage (
  base INTEGER PRIMARY KEY,
  restored_at TEXT NOT NULL
) STRICT;

CREATE TABLE sounds (
  hash TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  frames INTEGER NOT NULL,
  sample_rate INTEGER NOT NULL,
  channels INTEGER NOT NULL,
  added_at TEXT NOT NULL
) STRICT;

CREATE TABLE pieces (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  revision INTEGER NOT NULL,
  document TEXT NOT NULL,
  history_cursor INTEGER NOT NULL DEFAULT 0,
  last_save TEXT NOT NULL DEFAULT '',
  updated_at TEXT NOT NULL
) STRICT;

CREATE TABLE revisions (
  piece_id TEXT NOT NULL REFERENCES pieces (id) ON DELETE CASCADE,
  revision INTEGER NOT NULL,
  document TEXT NOT NULL,
  saved_at TEXT NOT NULL,
  PRIMARY KEY (piece_id, revision)
) STRICT;

CREATE TABLE history (
  piece_id TEXT NOT NULL REFERENCES pieces (id) ON DELETE CASCADE,
  place INTEGER NOT NULL,
  entry TEXT NOT NULL,
  PRIMARY KEY (piece_id, place)
) STRICT;

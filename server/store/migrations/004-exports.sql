CREATE TABLE exports (
  id TEXT PRIMARY KEY,
  piece_id TEXT NOT NULL,
  made_at TEXT NOT NULL,
  state TEXT NOT NULL,
  message TEXT NOT NULL,
  document TEXT NOT NULL,
  files TEXT NOT NULL
) STRICT;

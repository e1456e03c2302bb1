-- The piece that this one is a kept copy of, after a conflict.
ALTER TABLE pieces ADD COLUMN copy_of TEXT;
-- When it was put into the bin.
ALTER TABLE pieces ADD COLUMN removed_at TEXT;
-- From which entry on the save that followed this revision replaced the history; null when it is not known.
ALTER TABLE revisions ADD COLUMN next_history_from INTEGER;

-- What was kept of saves that came after another: one copy for each window (or, of those that name none, each document) and base.
CREATE TABLE conflicts (
  piece_id TEXT NOT NULL REFERENCES pieces (id) ON DELETE CASCADE,
  base INTEGER NOT NULL,
  who TEXT NOT NULL,
  save_id TEXT NOT NULL,
  copy_id TEXT NOT NULL REFERENCES pieces (id) ON DELETE CASCADE,
  copy_revision INTEGER NOT NULL,
  PRIMARY KEY (piece_id, base, who)
) STRICT;

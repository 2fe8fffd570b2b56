-- When a session was last used, to the quarter of an hour: one that lies idle ends before its time.
ALTER TABLE session ADD COLUMN seen_at INTEGER NOT NULL DEFAULT 0;

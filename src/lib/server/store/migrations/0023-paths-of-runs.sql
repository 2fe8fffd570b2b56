-- The routines that led to a run, by name, the first of them first and its own last; instead of how many they were.
ALTER TABLE run ADD COLUMN path TEXT NOT NULL DEFAULT '[]';
ALTER TABLE run DROP COLUMN depth;

-- Values that a run holds by name, as JSON: a row by its number.
ALTER TABLE run ADD COLUMN held TEXT NOT NULL DEFAULT '{}';

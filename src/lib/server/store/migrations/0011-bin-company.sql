-- What went with a removed row: rows that were removed because of it, and references to it that became blank.
ALTER TABLE bin ADD COLUMN company TEXT NOT NULL DEFAULT '{"removed":[],"cleared":[]}';

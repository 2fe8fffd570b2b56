-- The word of its own by which an app is found: /to/quayside. It holds at once, and is no part of a release.
ALTER TABLE app ADD COLUMN word TEXT;
CREATE UNIQUE INDEX app_by_word ON app (word) WHERE word IS NOT NULL;

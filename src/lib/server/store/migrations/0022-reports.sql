-- What a report holds besides its words: rows as they are read, as JSON (null where there are none), and a file.
ALTER TABLE message ADD COLUMN report TEXT;
CREATE TABLE message_file (
	message INTEGER PRIMARY KEY REFERENCES message (id) ON DELETE CASCADE,
	name TEXT NOT NULL,
	media_type TEXT NOT NULL,
	bytes BLOB NOT NULL
) STRICT;
-- The same of what the stand-in for mail took in.
ALTER TABLE post_tray ADD COLUMN file_name TEXT NOT NULL DEFAULT '';
ALTER TABLE post_tray ADD COLUMN file_type TEXT NOT NULL DEFAULT '';
ALTER TABLE post_tray ADD COLUMN file_bytes BLOB;

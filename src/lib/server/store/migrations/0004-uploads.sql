-- Files that were given in for a cell: known by a token that only who gave them holds, until a change puts them there.
CREATE TABLE upload (
	token_hash TEXT PRIMARY KEY,
	person INTEGER NOT NULL,
	table_id INTEGER NOT NULL,
	column_id INTEGER NOT NULL,
	sha TEXT NOT NULL,
	name TEXT NOT NULL,
	type TEXT NOT NULL,
	size INTEGER NOT NULL,
	at INTEGER NOT NULL,
	attached INTEGER NOT NULL DEFAULT 0
) STRICT, WITHOUT ROWID;

CREATE INDEX upload_by_sha ON upload (sha);
CREATE INDEX upload_waiting ON upload (person, at) WHERE attached = 0;

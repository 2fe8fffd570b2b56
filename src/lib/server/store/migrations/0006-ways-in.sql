-- By which ways people may come into an app without being named one by one. Each puts them into a role or a team.
CREATE TABLE way_in (
	id INTEGER PRIMARY KEY,
	app INTEGER NOT NULL REFERENCES app (id),
	kind TEXT NOT NULL CHECK (kind IN ('domain', 'code', 'phrase', 'doorstep', 'visitors')),
	-- The domain, the code, or the hash of the phrase.
	word TEXT NOT NULL DEFAULT '',
	role INTEGER,
	team INTEGER REFERENCES team (id) ON DELETE CASCADE,
	uses_left INTEGER CHECK (uses_left >= 0),
	ends_at INTEGER,
	-- The doorstep: what is asked, and what is said to those who wait.
	asks TEXT NOT NULL DEFAULT '',
	words TEXT NOT NULL DEFAULT '',
	made_at INTEGER NOT NULL,
	made_by INTEGER NOT NULL,
	CHECK ((role IS NULL) <> (team IS NULL))
) STRICT;
CREATE INDEX way_of_app ON way_in (app, kind);

-- Somebody who gave an address at a door, until the link that was sent there is used.
CREATE TABLE arrival (
	token_hash TEXT PRIMARY KEY,
	way INTEGER NOT NULL REFERENCES way_in (id) ON DELETE CASCADE,
	name TEXT NOT NULL,
	email TEXT NOT NULL,
	answer TEXT NOT NULL DEFAULT '',
	made_at INTEGER NOT NULL,
	expires_at INTEGER NOT NULL,
	used_at INTEGER
) STRICT, WITHOUT ROWID;

-- Somebody who waits on the doorstep, or waited.
CREATE TABLE knock (
	id INTEGER PRIMARY KEY,
	app INTEGER NOT NULL REFERENCES app (id),
	way INTEGER REFERENCES way_in (id) ON DELETE SET NULL,
	person INTEGER NOT NULL,
	answer TEXT NOT NULL DEFAULT '',
	state TEXT NOT NULL CHECK (state IN ('waiting', 'let in', 'turned away')),
	at INTEGER NOT NULL,
	decided_at INTEGER,
	decided_by INTEGER
) STRICT;
CREATE UNIQUE INDEX knock_waiting ON knock (app, person) WHERE state = 'waiting';

-- The row of people that stands for all visitors of an app: it holds one role, and not what everyone holds.
CREATE TABLE visitor (
	person INTEGER PRIMARY KEY,
	app INTEGER NOT NULL UNIQUE REFERENCES app (id)
) STRICT;

-- To somebody who is nobody here yet.
ALTER TABLE message ADD COLUMN to_name TEXT;
ALTER TABLE message ADD COLUMN to_email TEXT;

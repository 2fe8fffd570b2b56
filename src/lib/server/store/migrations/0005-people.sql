-- Who may pass a role on, and who gave it.
ALTER TABLE role_held ADD COLUMN may_pass_on INTEGER NOT NULL DEFAULT 0;
ALTER TABLE role_held ADD COLUMN given_by INTEGER;
ALTER TABLE role_held ADD COLUMN given_at INTEGER;

CREATE TABLE team (
	id INTEGER PRIMARY KEY,
	name TEXT NOT NULL,
	name_key TEXT NOT NULL UNIQUE,
	made_at INTEGER NOT NULL,
	made_by INTEGER
) STRICT;

CREATE TABLE team_member (
	team INTEGER NOT NULL REFERENCES team (id) ON DELETE CASCADE,
	person INTEGER NOT NULL,
	PRIMARY KEY (team, person)
) STRICT, WITHOUT ROWID;
CREATE INDEX team_of_person ON team_member (person);

CREATE TABLE team_role (
	team INTEGER NOT NULL REFERENCES team (id) ON DELETE CASCADE,
	role INTEGER NOT NULL,
	PRIMARY KEY (team, role)
) STRICT, WITHOUT ROWID;

-- Whoever stands here holds nothing and cannot sign in.
CREATE TABLE suspended (
	person INTEGER PRIMARY KEY,
	at INTEGER NOT NULL,
	by INTEGER
) STRICT;

-- Links that let somebody in once: an invitation, a forgotten password, the first steward.
CREATE TABLE pass (
	token_hash TEXT PRIMARY KEY,
	kind TEXT NOT NULL CHECK (kind IN ('invitation', 'password', 'first steward')),
	person INTEGER NOT NULL,
	made_at INTEGER NOT NULL,
	made_by INTEGER,
	expires_at INTEGER NOT NULL,
	used_at INTEGER
) STRICT, WITHOUT ROWID;
CREATE INDEX pass_of_person ON pass (person, kind);

ALTER TABLE session ADD COLUMN through TEXT NOT NULL DEFAULT '';
ALTER TABLE session ADD COLUMN agent TEXT NOT NULL DEFAULT '';
CREATE INDEX session_of_person ON session (person);

-- The secret lies sealed under the workspace's key; the last step that was used is never taken again.
CREATE TABLE second_factor (
	person INTEGER PRIMARY KEY,
	sealed TEXT NOT NULL,
	confirmed_at INTEGER,
	last_step INTEGER NOT NULL DEFAULT 0
) STRICT;

ALTER TABLE account ADD COLUMN last_in INTEGER;

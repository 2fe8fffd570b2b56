-- Providers outside by which people may sign in (OpenID Connect). An issuer that is blank is the demo's stand-in.
CREATE TABLE provider (
	id INTEGER PRIMARY KEY,
	name TEXT NOT NULL,
	issuer TEXT NOT NULL UNIQUE,
	client_id TEXT NOT NULL,
	sealed_secret TEXT NOT NULL,
	made_at INTEGER NOT NULL,
	made_by INTEGER
) STRICT;

-- Who somebody is at a provider: its own name for them, which stays the same when their address does not.
CREATE TABLE identity (
	provider INTEGER NOT NULL REFERENCES provider (id) ON DELETE CASCADE,
	subject TEXT NOT NULL,
	person INTEGER NOT NULL,
	linked_at INTEGER NOT NULL,
	last_in INTEGER,
	PRIMARY KEY (provider, subject)
) STRICT, WITHOUT ROWID;
CREATE INDEX identity_of_person ON identity (person);

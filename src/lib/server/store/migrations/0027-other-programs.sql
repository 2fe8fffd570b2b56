-- Other programs that ask for something here, or are called: each with a secret that both hold.
CREATE TABLE program (
	id INTEGER PRIMARY KEY,
	name TEXT NOT NULL,
	name_key TEXT NOT NULL UNIQUE,
	-- Where it is called, https://…; blank where it only asks.
	address TEXT NOT NULL,
	key_id TEXT NOT NULL UNIQUE,
	sealed_secret TEXT NOT NULL,
	made_at INTEGER NOT NULL,
	made_by INTEGER NOT NULL
) STRICT;

-- Requests that came, so that one that comes again begins nothing.
CREATE TABLE request_seen (
	program INTEGER NOT NULL REFERENCES program (id) ON DELETE CASCADE,
	idempotency_key TEXT NOT NULL,
	-- Of what was asked for where.
	digest TEXT NOT NULL,
	run INTEGER NOT NULL,
	at INTEGER NOT NULL,
	PRIMARY KEY (program, idempotency_key)
) STRICT, WITHOUT ROWID;
CREATE INDEX request_seen_at ON request_seen (at);

-- Calls of other programs, each by its step of a run; the run waits for it.
CREATE TABLE call (
	id INTEGER PRIMARY KEY,
	cause TEXT NOT NULL UNIQUE,
	run INTEGER NOT NULL REFERENCES run (id) ON DELETE CASCADE,
	program TEXT NOT NULL,
	path TEXT NOT NULL,
	body TEXT NOT NULL,
	state TEXT NOT NULL CHECK (state IN ('waiting', 'done', 'failed')),
	attempts INTEGER NOT NULL DEFAULT 0,
	due_at INTEGER NOT NULL,
	-- After which it is not tried any more.
	ends_at INTEGER NOT NULL
) STRICT;
CREATE INDEX call_due ON call (due_at) WHERE state = 'waiting';
CREATE INDEX call_of_run ON call (run);

CREATE TABLE meta (
	key TEXT PRIMARY KEY,
	value TEXT NOT NULL
) STRICT;

-- Every saved version of the workspace document, and of each app's draft.
CREATE TABLE document (
	kind TEXT NOT NULL,
	version INTEGER NOT NULL,
	body TEXT NOT NULL CHECK (json_valid(body)),
	made_at INTEGER NOT NULL,
	made_by INTEGER,
	PRIMARY KEY (kind, version)
) STRICT, WITHOUT ROWID;

CREATE TABLE account (
	person INTEGER PRIMARY KEY,
	password_hash TEXT NOT NULL
) STRICT;

CREATE TABLE session (
	token_hash TEXT PRIMARY KEY,
	person INTEGER NOT NULL,
	made_at INTEGER NOT NULL,
	expires_at INTEGER NOT NULL
) STRICT, WITHOUT ROWID;

CREATE TABLE role_held (
	person INTEGER NOT NULL,
	role INTEGER NOT NULL,
	PRIMARY KEY (person, role)
) STRICT, WITHOUT ROWID;

-- What was asked of a person: a written right to see named columns of one row.
CREATE TABLE row_grant (
	person INTEGER NOT NULL,
	table_id INTEGER NOT NULL,
	row_n INTEGER NOT NULL,
	column_id INTEGER NOT NULL,
	case_id INTEGER NOT NULL,
	PRIMARY KEY (person, table_id, row_n, column_id, case_id)
) STRICT, WITHOUT ROWID;

-- What happened, sealed entry to entry: each seal covers the one before it.
CREATE TABLE history (
	seq INTEGER PRIMARY KEY,
	at INTEGER NOT NULL,
	person INTEGER,
	through TEXT NOT NULL,
	kind TEXT NOT NULL,
	table_id INTEGER,
	row_n INTEGER,
	body TEXT NOT NULL CHECK (json_valid(body)),
	seal TEXT NOT NULL
) STRICT;
CREATE INDEX history_of_row ON history (table_id, row_n, seq);

-- Removed rows wait here for thirty days, out of every read.
CREATE TABLE bin (
	table_id INTEGER NOT NULL,
	row_n INTEGER NOT NULL,
	body TEXT NOT NULL CHECK (json_valid(body)),
	removed_at INTEGER NOT NULL,
	removed_by INTEGER,
	PRIMARY KEY (table_id, row_n)
) STRICT, WITHOUT ROWID;

CREATE TABLE job (
	id INTEGER PRIMARY KEY,
	run_at INTEGER NOT NULL,
	task TEXT NOT NULL,
	payload TEXT NOT NULL CHECK (json_valid(payload)),
	attempts INTEGER NOT NULL DEFAULT 0,
	max_attempts INTEGER NOT NULL DEFAULT 8,
	locked_by TEXT,
	locked_until INTEGER,
	last_error TEXT,
	done_at INTEGER
) STRICT;
CREATE INDEX job_due ON job (run_at, id) WHERE done_at IS NULL;

-- Messages that are to leave, each with the Message-ID by which a repeat is known.
CREATE TABLE message (
	id INTEGER PRIMARY KEY,
	message_id TEXT NOT NULL UNIQUE,
	person INTEGER NOT NULL,
	subject TEXT NOT NULL,
	body TEXT NOT NULL,
	link TEXT,
	made_at INTEGER NOT NULL,
	sent_at INTEGER
) STRICT;

-- What the stand-in for mail has taken in.
CREATE TABLE post_tray (
	message_id TEXT PRIMARY KEY,
	sender TEXT NOT NULL,
	recipient TEXT NOT NULL,
	subject TEXT NOT NULL,
	body TEXT NOT NULL,
	taken_at INTEGER NOT NULL,
	repeats INTEGER NOT NULL DEFAULT 0
) STRICT;

CREATE TABLE app (
	id INTEGER PRIMARY KEY,
	name TEXT NOT NULL,
	colour TEXT NOT NULL,
	live_release INTEGER,
	made_at INTEGER NOT NULL,
	made_by INTEGER NOT NULL
) STRICT;

CREATE TABLE release (
	app INTEGER NOT NULL REFERENCES app (id),
	number INTEGER NOT NULL,
	body TEXT NOT NULL CHECK (json_valid(body)),
	made_at INTEGER NOT NULL,
	made_by INTEGER NOT NULL,
	note TEXT NOT NULL DEFAULT '',
	PRIMARY KEY (app, number)
) STRICT, WITHOUT ROWID;

-- One row that passes, or has passed, a sign-off; it keeps the words of the release it began with.
CREATE TABLE signoff_case (
	id INTEGER PRIMARY KEY,
	app INTEGER NOT NULL REFERENCES app (id),
	signoff TEXT NOT NULL CHECK (json_valid(signoff)),
	table_id INTEGER NOT NULL,
	row_n INTEGER NOT NULL,
	asked_by INTEGER NOT NULL,
	asked_at INTEGER NOT NULL,
	waits_on INTEGER NOT NULL,
	state TEXT NOT NULL CHECK (state IN ('waiting', 'approved', 'declined', 'withdrawn')),
	decided_at INTEGER,
	comment TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE INDEX signoff_case_row ON signoff_case (table_id, row_n);
CREATE INDEX signoff_case_waits ON signoff_case (waits_on, state);

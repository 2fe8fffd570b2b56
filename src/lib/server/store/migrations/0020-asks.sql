-- What somebody is asked to fill in, for a run that waits for it: which columns, and in which words, says the step of its release.
CREATE TABLE ask (
	id INTEGER PRIMARY KEY,
	-- By which one asking is the same asking: the run with the place in it.
	cause TEXT NOT NULL UNIQUE,
	run INTEGER NOT NULL REFERENCES run (id) ON DELETE CASCADE,
	step TEXT NOT NULL,
	person INTEGER NOT NULL,
	row_table INTEGER NOT NULL,
	row_n INTEGER NOT NULL,
	-- The row around that, as its words may name it.
	outer_table INTEGER,
	outer_n INTEGER,
	-- Whether something was missing when it was asked: then it is answered once nothing is, wherever that was filled in.
	was_missing INTEGER NOT NULL CHECK (was_missing IN (0, 1)),
	asked_at INTEGER NOT NULL,
	remind_at INTEGER,
	ends_at INTEGER,
	answered_at INTEGER,
	state TEXT NOT NULL CHECK (state IN ('open', 'answered', 'ended'))
) STRICT;
CREATE INDEX ask_of_person ON ask (person) WHERE state = 'open';
CREATE INDEX ask_on_row ON ask (row_table, row_n) WHERE state = 'open';
CREATE INDEX ask_of_run ON ask (run);

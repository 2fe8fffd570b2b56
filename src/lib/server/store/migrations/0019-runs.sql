-- A routine that was started: where it stands, so that it goes on from there after any stop, and what it came to.
CREATE TABLE run (
	id INTEGER PRIMARY KEY,
	app INTEGER NOT NULL,
	release INTEGER NOT NULL,
	routine TEXT NOT NULL,
	-- By which one start is the same start: a clock's instant, a row's date. Those of a press or a change happen once anyhow.
	cause TEXT UNIQUE,
	-- Whose doing started it; nobody's, for a clock.
	person INTEGER,
	row_table INTEGER,
	row_n INTEGER,
	-- How many routines led here, this one among them.
	depth INTEGER NOT NULL,
	state TEXT NOT NULL CHECK (state IN ('ready', 'waiting', 'given up', 'cancelled', 'done')),
	due_at INTEGER NOT NULL,
	stack TEXT NOT NULL CHECK (json_valid(stack)),
	attempts INTEGER NOT NULL DEFAULT 0,
	error TEXT,
	began_at INTEGER NOT NULL,
	ended_at INTEGER
) STRICT;
CREATE INDEX run_due ON run (due_at, id) WHERE state IN ('ready', 'waiting');
CREATE INDEX run_of_routine ON run (app, routine, id);
CREATE INDEX run_given_up ON run (app) WHERE state = 'given up';
CREATE INDEX run_ended ON run (ended_at) WHERE ended_at IS NOT NULL;

-- What each step of a run came to, without a value of any row: who reads it later sees of the row what is theirs to see.
CREATE TABLE run_step (
	run INTEGER NOT NULL REFERENCES run (id) ON DELETE CASCADE,
	nth INTEGER NOT NULL,
	step TEXT NOT NULL,
	row_table INTEGER,
	row_n INTEGER,
	came_to TEXT NOT NULL,
	person INTEGER,
	at INTEGER NOT NULL,
	PRIMARY KEY (run, nth)
) STRICT, WITHOUT ROWID;

-- When routines start next by the clock or by a date of a row. `since`: the day that their rule is counted from.
CREATE TABLE routine_clock (
	app INTEGER NOT NULL,
	routine TEXT NOT NULL,
	rule TEXT NOT NULL,
	since TEXT NOT NULL,
	next_at INTEGER,
	last_at INTEGER,
	PRIMARY KEY (app, routine)
) STRICT, WITHOUT ROWID;
CREATE INDEX routine_clock_due ON routine_clock (next_at) WHERE next_at IS NOT NULL;

-- Routines that do not start at present, and why.
CREATE TABLE routine_pause (
	app INTEGER NOT NULL,
	routine TEXT NOT NULL,
	why TEXT NOT NULL,
	by INTEGER,
	at INTEGER NOT NULL,
	PRIMARY KEY (app, routine)
) STRICT, WITHOUT ROWID;

-- Later steps of routines that were waiting in the queue become runs, from the first message on: what they set is set.
INSERT INTO run (app, release, routine, person, row_table, row_n, depth, state, due_at, stack, began_at)
SELECT
	payload ->> 'app', payload ->> 'release', payload ->> 'routine', payload ->> 'person', payload ->> 'table', payload ->> 'row',
	payload ->> 'depth', 'ready', run_at,
	json_array(json_object('row', payload ->> 'row', 'at', coalesce(
		(
			SELECT min(step.key)
			FROM release AS r, json_each(r.body, '$.routines') AS routine, json_each(routine.value, '$.steps') AS step
			WHERE r.app = job.payload ->> 'app' AND r.number = job.payload ->> 'release'
				AND routine.value ->> 'id' = job.payload ->> 'routine' AND step.value ->> 'kind' = 'send'
		), 0))),
	run_at
FROM job WHERE task = 'routine' AND done_at IS NULL;
DELETE FROM job WHERE task = 'routine';

-- Claims look neither at other tasks nor at what has been given up.
DROP INDEX job_due;
CREATE INDEX job_ready ON job (task, run_at, id) WHERE done_at IS NULL AND attempts < max_attempts;

-- A run that waits until something holds of a row: it looks again when that row changes, and now and then besides.
CREATE TABLE run_wait (
	cause TEXT PRIMARY KEY,
	run INTEGER NOT NULL REFERENCES run (id) ON DELETE CASCADE,
	row_table INTEGER NOT NULL,
	row_n INTEGER NOT NULL,
	ends_at INTEGER
) STRICT, WITHOUT ROWID;
CREATE INDEX run_wait_of_row ON run_wait (row_table, row_n);
CREATE INDEX run_wait_of_run ON run_wait (run);

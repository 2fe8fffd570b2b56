-- Pictures and films that apps show by themselves, not in a cell: known by what is in them, their bytes beside those of cells.
CREATE TABLE app_file (
	sha TEXT PRIMARY KEY,
	type TEXT NOT NULL,
	size INTEGER NOT NULL,
	made_at INTEGER NOT NULL,
	made_by INTEGER NOT NULL
) STRICT, WITHOUT ROWID;

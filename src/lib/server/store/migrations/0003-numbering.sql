-- How far each series of a numbering column has come: SR-2026- of column 17 stands at 41.
CREATE TABLE numbering (
	column_id INTEGER NOT NULL,
	series TEXT NOT NULL,
	last INTEGER NOT NULL,
	PRIMARY KEY (column_id, series)
) STRICT, WITHOUT ROWID;

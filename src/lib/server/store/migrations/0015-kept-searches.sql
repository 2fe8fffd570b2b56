-- What somebody looks for on a screen, kept under a name: the query of its address, and the words of its fragment.
CREATE TABLE kept_search (
	id INTEGER PRIMARY KEY,
	person INTEGER NOT NULL,
	app INTEGER NOT NULL REFERENCES app (id),
	screen TEXT NOT NULL,
	name TEXT NOT NULL,
	query TEXT NOT NULL,
	words TEXT NOT NULL,
	made_at INTEGER NOT NULL,
	UNIQUE (person, app, screen, name)
) STRICT;

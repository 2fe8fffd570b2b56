-- Lines of access that came with a bundle: they let nobody in until a keeper of the table takes and saves them.
CREATE TABLE proposed_line (
	table_id INTEGER NOT NULL,
	position INTEGER NOT NULL,
	role_name TEXT NOT NULL,
	body TEXT NOT NULL,
	PRIMARY KEY (table_id, position)
) STRICT, WITHOUT ROWID;

-- How far the text of a large table is indexed, row by row in the order of their numbers; past all numbers when it is whole.
CREATE TABLE text_index (
	table_id INTEGER PRIMARY KEY,
	upto INTEGER NOT NULL DEFAULT 0,
	-- The places whose text is in it: another list, and it is made anew.
	places TEXT NOT NULL
) STRICT;

-- How screens are used, week by week. Who it was is a number of that week alone, made with a salt that goes with the week: it tells
-- how many they were, and nobody's name.
CREATE TABLE screen_opening (
	week TEXT NOT NULL,
	app INTEGER NOT NULL,
	screen TEXT NOT NULL,
	who TEXT NOT NULL,
	times INTEGER NOT NULL,
	PRIMARY KEY (week, app, screen, who)
) STRICT, WITHOUT ROWID;
CREATE TABLE opening_salt (week TEXT PRIMARY KEY, salt TEXT NOT NULL) STRICT;

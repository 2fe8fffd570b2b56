-- Where somebody's clock hangs, if not where the workspace's does.
CREATE TABLE person_setting (
	person INTEGER PRIMARY KEY,
	time_zone TEXT NOT NULL
) STRICT;

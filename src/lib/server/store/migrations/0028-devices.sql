-- Browsers that show notices while they are closed: each ends with the session in which it was asked for.
CREATE TABLE device (
	id INTEGER PRIMARY KEY,
	person INTEGER NOT NULL,
	session TEXT NOT NULL REFERENCES session (token_hash) ON DELETE CASCADE,
	-- Of its push service (RFC 8030), and its keys (RFC 8291).
	endpoint TEXT NOT NULL UNIQUE,
	p256dh TEXT NOT NULL,
	auth TEXT NOT NULL,
	agent TEXT NOT NULL,
	made_at INTEGER NOT NULL
) STRICT;
CREATE INDEX device_of_person ON device (person);
CREATE INDEX device_of_session ON device (session);

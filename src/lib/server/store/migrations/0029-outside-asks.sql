-- Somebody outside is asked by links of their own: each message has one, of which the SHA-256 is kept.
ALTER TABLE ask ADD COLUMN email TEXT;
CREATE TABLE ask_link (
	token_hash TEXT PRIMARY KEY,
	ask INTEGER NOT NULL REFERENCES ask (id) ON DELETE CASCADE
) STRICT, WITHOUT ROWID;
CREATE INDEX ask_link_of_ask ON ask_link (ask);

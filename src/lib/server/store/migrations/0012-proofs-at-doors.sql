-- By what somebody new may not prove at an app's door who they are: a provider, or 0 for a link that is sent by mail.
CREATE TABLE shut_at_door (
	app INTEGER NOT NULL REFERENCES app (id),
	provider INTEGER NOT NULL,
	PRIMARY KEY (app, provider)
) STRICT, WITHOUT ROWID;
CREATE TRIGGER shut_provider_goes AFTER DELETE ON provider BEGIN
	DELETE FROM shut_at_door WHERE provider = OLD.id;
END;

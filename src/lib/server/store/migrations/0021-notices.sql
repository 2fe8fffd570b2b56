-- A message to somebody here is a notice of theirs as well, read or not; what an account needs (invitations, new passwords) is
-- mail alone, and so is what gathers the notices of a day.
ALTER TABLE message ADD COLUMN kind TEXT NOT NULL DEFAULT 'notice' CHECK (kind IN ('notice', 'account', 'digest'));
ALTER TABLE message ADD COLUMN read_at INTEGER;
-- 1 while it waits for the mail of the day.
ALTER TABLE message ADD COLUMN is_held INTEGER NOT NULL DEFAULT 0 CHECK (is_held IN (0, 1));
-- As HTML, of what the stand-in for mail took in.
ALTER TABLE post_tray ADD COLUMN html TEXT NOT NULL DEFAULT '';
-- Until now links that let in were messages as any other.
UPDATE message SET kind = 'account' WHERE person = 0 OR link LIKE '/join/%' OR link LIKE '/door/%/%' OR link = '/sign-in';
-- What was sent before there were notices is read.
UPDATE message SET read_at = made_at;
CREATE INDEX notice_of_person ON message (person, id) WHERE kind = 'notice';
CREATE INDEX notice_unread ON message (person) WHERE kind = 'notice' AND read_at IS NULL;

-- How somebody is told by mail, where that is not at once. Quiet hours are times of their own day; blank for none.
CREATE TABLE telling (
	person INTEGER PRIMARY KEY,
	mail TEXT NOT NULL CHECK (mail IN ('at once', 'once a day', 'never')),
	quiet_from TEXT NOT NULL,
	quiet_until TEXT NOT NULL
) STRICT;

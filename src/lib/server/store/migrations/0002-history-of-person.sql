-- "What did I do, and when" is asked of the Logbook by person; without this it reads the whole history.
CREATE INDEX history_of_person ON history (person, seq);

-- Messages are listed by whom they are for.
CREATE INDEX message_of_person ON message (person, made_at);

-- 1 once whoever read a notice put it away; the message itself stays, so that what caused it tells nobody twice.
ALTER TABLE message ADD COLUMN is_cleared INTEGER NOT NULL DEFAULT 0 CHECK (is_cleared IN (0, 1));

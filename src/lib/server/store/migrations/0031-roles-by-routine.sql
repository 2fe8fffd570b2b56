-- A routine may ask that somebody be given a role: it waits with those who may give it, but for who set it off or released it.
ALTER TABLE knock ADD COLUMN role INTEGER;
ALTER TABLE knock ADD COLUMN begun_by INTEGER;
ALTER TABLE knock ADD COLUMN released_by INTEGER;

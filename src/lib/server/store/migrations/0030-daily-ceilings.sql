-- How much went to one address outside, and to one program, within a day.
CREATE INDEX message_to ON message (to_email, made_at) WHERE to_email IS NOT NULL;
CREATE INDEX call_to ON call (program, ends_at);

-- Turns with whatever decides who may do what, beside the workspace document: whoever was found to hold something still does
-- while this number stands. It is drawn, not counted, so that a number is not met again after a change that was rolled back. The table of people has triggers of its own (people/access-epoch.ts).
CREATE TABLE access_epoch (n INTEGER NOT NULL) STRICT;
INSERT INTO access_epoch (n) VALUES (0);

CREATE TRIGGER epoch_role_held_insert AFTER INSERT ON role_held BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_role_held_update AFTER UPDATE ON role_held BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_role_held_delete AFTER DELETE ON role_held BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_team_member_insert AFTER INSERT ON team_member BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_team_member_update AFTER UPDATE ON team_member BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_team_member_delete AFTER DELETE ON team_member BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_team_role_insert AFTER INSERT ON team_role BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_team_role_update AFTER UPDATE ON team_role BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_team_role_delete AFTER DELETE ON team_role BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_suspended_insert AFTER INSERT ON suspended BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_suspended_update AFTER UPDATE ON suspended BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_suspended_delete AFTER DELETE ON suspended BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_visitor_insert AFTER INSERT ON visitor BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_visitor_update AFTER UPDATE ON visitor BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_visitor_delete AFTER DELETE ON visitor BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_person_setting_insert AFTER INSERT ON person_setting BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_person_setting_update AFTER UPDATE ON person_setting BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_person_setting_delete AFTER DELETE ON person_setting BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_row_grant_insert AFTER INSERT ON row_grant BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_row_grant_update AFTER UPDATE ON row_grant BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;
CREATE TRIGGER epoch_row_grant_delete AFTER DELETE ON row_grant BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END;

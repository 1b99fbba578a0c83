-- What is said is kept as a code with its values (core/messages/said.ts), which may be longer than the sentence was. Rows
-- from before keep their sentences, and are read as they were written; labels of edits that are known become codes.
ALTER TABLE device MODIFY COLUMN trouble VARCHAR(1000) NULL;
ALTER TABLE delivery MODIFY COLUMN error VARCHAR(1000) NULL;
ALTER TABLE delivery_attempt MODIFY COLUMN words VARCHAR(1000) NOT NULL;
ALTER TABLE endpoint MODIFY COLUMN test_error VARCHAR(1000) NULL;
ALTER TABLE edit MODIFY COLUMN label VARCHAR(500) NOT NULL;
UPDATE edit SET label = JSON_OBJECT('code', 'edits.editSchedule', 'values', JSON_ARRAY(SUBSTRING(label, 12))) WHERE label LIKE 'Edit hours _%';
UPDATE edit SET label = JSON_OBJECT('code', 'edits.edit', 'values', JSON_ARRAY(SUBSTRING(label, 6))) WHERE label LIKE 'Edit _%';
UPDATE edit SET label = JSON_OBJECT('code', 'edits.delete', 'values', JSON_ARRAY(SUBSTRING(label, 8))) WHERE label LIKE 'Delete _%' AND label NOT LIKE 'Delete % of %' AND label <> 'Delete hours';
UPDATE edit SET label = JSON_OBJECT('code', 'edits.delivered', 'values', JSON_ARRAY(LEFT(label, CHAR_LENGTH(label) - 14))) WHERE label LIKE '_%, as delivered';
UPDATE edit SET label = JSON_OBJECT('code', CASE label
  WHEN 'Delete hours' THEN 'edits.deleteSchedule'
  WHEN 'Change the scene' THEN 'edits.scene'
  WHEN 'Change what it sets off' THEN 'edits.actions'
  WHEN 'Change the contacts' THEN 'edits.contacts'
  WHEN 'Change the mail server' THEN 'edits.mailServer'
  WHEN 'Change the people of the site' THEN 'edits.people'
  WHEN 'Change the usual actions' THEN 'edits.defaultActions'
  ELSE 'edits.retention' END)
  WHERE label IN ('Delete hours', 'Change the scene', 'Change what it sets off', 'Change the contacts', 'Change the mail server', 'Change the people of the site', 'Change the usual actions', 'Change how long things are kept');
UPDATE device SET trouble = JSON_OBJECT('code', 'devices.hasNoAccountYet') WHERE trouble = 'it has no account yet';
UPDATE delivery SET error = JSON_OBJECT('code', 'actions.outsideSchedule') WHERE error = 'outside its own hours';
UPDATE delivery SET error = JSON_OBJECT('code', 'actions.noMailServer') WHERE error = 'there is no mail server yet';
UPDATE delivery SET error = JSON_OBJECT('code', 'actions.noRecipient') WHERE error = 'it has no recipient';
UPDATE delivery SET error = JSON_OBJECT('code', 'actions.noSuchOutput') WHERE error = 'no device has this output';
-- The host that stands for the simulators of the machine has the name that they have on screen.
UPDATE endpoint SET body = REPLACE(REPLACE(REPLACE(body, '"host": "stand-in"', '"host": "simulator"'), '"host":"stand-in"', '"host":"simulator"'), '//stand-in/', '//simulator/') WHERE body LIKE '%stand-in%';
UPDATE site_setting SET body = REPLACE(REPLACE(body, '"host": "stand-in"', '"host": "simulator"'), '"host":"stand-in"', '"host":"simulator"') WHERE name = 'mail' AND body LIKE '%stand-in%';

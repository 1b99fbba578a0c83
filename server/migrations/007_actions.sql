-- What triggers can set off (core/formats/actions.ts): outputs of devices with their settings and hours, messages, recordings.
CREATE TABLE endpoint (
  site_id VARCHAR(64) NOT NULL,
  id VARCHAR(64) NOT NULL,
  body JSON NOT NULL,
  version INT NOT NULL,
  changed_at BIGINT NOT NULL,
  deleted BOOLEAN NOT NULL DEFAULT FALSE,
  -- The last test, and what was wrong with it.
  tested_at BIGINT NULL,
  test_error VARCHAR(500) NULL,
  PRIMARY KEY (site_id, id),
  FOREIGN KEY (site_id) REFERENCES site (id)
);

-- Deleted ones stay, so that undo brings them back.
ALTER TABLE schedule ADD COLUMN deleted BOOLEAN NOT NULL DEFAULT FALSE;

-- What a detection sets off, and what becomes of its alarms.
CREATE TABLE detection_actions (
  camera_id VARCHAR(64) NOT NULL,
  detection_id VARCHAR(64) NOT NULL,
  body JSON NOT NULL,
  version INT NOT NULL,
  changed_at BIGINT NOT NULL,
  PRIMARY KEY (camera_id, detection_id),
  FOREIGN KEY (camera_id, detection_id) REFERENCES detection (camera_id, id)
);

-- Of the site: `mail` (the password sealed beside it), `people`, `usual` (usual actions).
CREATE TABLE site_setting (
  site_id VARCHAR(64) NOT NULL,
  name VARCHAR(20) NOT NULL,
  body JSON NOT NULL,
  sealed VARBINARY(600) NULL,
  version INT NOT NULL,
  changed_at BIGINT NOT NULL,
  PRIMARY KEY (site_id, name),
  FOREIGN KEY (site_id) REFERENCES site (id)
);

CREATE TABLE voice_file (
  site_id VARCHAR(64) NOT NULL,
  id VARCHAR(64) NOT NULL,
  name VARCHAR(80) NOT NULL,
  content MEDIUMBLOB NOT NULL,
  seconds DOUBLE NOT NULL,
  added_at BIGINT NOT NULL,
  PRIMARY KEY (site_id, id),
  FOREIGN KEY (site_id) REFERENCES site (id)
);

-- What an operator sees: one or several triggers of a detection. `actions` is as it was when it began.
CREATE TABLE alarm (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  site_id VARCHAR(64) NOT NULL,
  camera_id VARCHAR(64) NOT NULL,
  detection_id VARCHAR(64) NOT NULL,
  name VARCHAR(80) NOT NULL,
  severity VARCHAR(20) NOT NULL,
  priority VARCHAR(20) NOT NULL,
  state ENUM ('waiting', 'acknowledged') NOT NULL,
  actions JSON NOT NULL,
  first_at BIGINT NOT NULL,
  last_at BIGINT NOT NULL,
  -- When its actions were last set off.
  acted_at BIGINT NULL,
  triggers INT NOT NULL,
  acknowledged_at BIGINT NULL,
  acknowledged_by VARCHAR(80) NULL,
  comment VARCHAR(2000) NULL,
  -- The run of a clip that it is of; null: it is real.
  run_id VARCHAR(64) NULL,
  KEY (site_id, state, last_at),
  KEY (camera_id, detection_id, id),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (run_id) REFERENCES run (id) ON DELETE CASCADE
);

-- A trigger comes from a run of a clip, from a device, or from whoever sends one; a sender's key is taken once.
ALTER TABLE fired_trigger
  MODIFY COLUMN run_id VARCHAR(64) NULL,
  MODIFY COLUMN frame INT NULL,
  MODIFY COLUMN clip_seconds DOUBLE NULL,
  ADD COLUMN source ENUM ('run', 'device', 'sender') NOT NULL DEFAULT 'run',
  ADD COLUMN sender_key VARCHAR(100) NULL,
  ADD COLUMN device_id VARCHAR(64) NULL,
  ADD COLUMN alarm_id BIGINT NULL,
  ADD UNIQUE KEY (camera_id, sender_key),
  ADD KEY (alarm_id),
  ADD FOREIGN KEY (alarm_id) REFERENCES alarm (id) ON DELETE CASCADE;

-- `endpoint` is as it was set when the trigger fell. `held`: not made, `error` says why. `camera`: set off by the camera
-- itself; next_at is then until when it may say so.
ALTER TABLE delivery
  MODIFY COLUMN trigger_id BIGINT NULL,
  MODIFY COLUMN kind VARCHAR(20) NOT NULL,
  MODIFY COLUMN recipient VARCHAR(500) NOT NULL,
  MODIFY COLUMN state ENUM ('pending', 'sent', 'failed', 'held') NOT NULL,
  ADD COLUMN alarm_id BIGINT NULL,
  ADD COLUMN endpoint_id VARCHAR(64) NULL,
  ADD COLUMN endpoint JSON NULL,
  ADD COLUMN made_by ENUM ('server', 'camera') NOT NULL DEFAULT 'server',
  -- Outputs: what is switched.
  ADD COLUMN does ENUM ('on', 'off') NOT NULL DEFAULT 'on',
  ADD COLUMN created_at BIGINT NOT NULL DEFAULT 0,
  ADD COLUMN sent_at BIGINT NULL,
  -- What it left: files, a recording at a device.
  ADD COLUMN result JSON NULL,
  ADD KEY (trigger_id, id),
  ADD KEY (endpoint_id, state);

CREATE TABLE delivery_attempt (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  delivery_id BIGINT NOT NULL,
  made_at BIGINT NOT NULL,
  ok BOOLEAN NOT NULL,
  words VARCHAR(500) NOT NULL,
  KEY (delivery_id, id),
  FOREIGN KEY (delivery_id) REFERENCES delivery (id) ON DELETE CASCADE
);

ALTER TABLE edit MODIFY COLUMN thing VARCHAR(20) NOT NULL;

-- Each address that a detection was linked to becomes an e-mail, and the link one of its actions.
INSERT INTO endpoint (site_id, id, body, version, changed_at)
  SELECT DISTINCT site_id, CONCAT('mail-', LEFT(MD5(recipient), 12)), JSON_OBJECT('id', CONCAT('mail-', LEFT(MD5(recipient), 12)), 'name', LEFT(CONCAT('E-mail to ', recipient), 80), 'kind', 'email', 'recipients', JSON_ARRAY(recipient), 'people', JSON_ARRAY(), 'before', 0, 'after', 0, 'stepSeconds', 1), 1, 0
    FROM (SELECT camera.site_id, recipient FROM email_link JOIN camera ON camera.id = email_link.camera_id WHERE recipient IS NOT NULL
          UNION SELECT site_id, JSON_VALUE(body, '$.to') FROM edit WHERE thing = 'email' AND JSON_VALUE(body, '$.to') IS NOT NULL) AS linked;
INSERT INTO detection_actions (camera_id, detection_id, body, version, changed_at)
  SELECT camera_id, detection_id, JSON_OBJECT('links', JSON_ARRAY(CONCAT('mail-', LEFT(MD5(recipient), 12))), 'severity', 'major', 'priority', 'normal', 'for', JSON_ARRAY(), 'acknowledge', JSON_OBJECT('comment', FALSE, 'confirm', FALSE), 'groupSeconds', 60, 'accepted', JSON_ARRAY(), 'quietSeconds', 0), 1, changed_at
    FROM email_link WHERE recipient IS NOT NULL;
UPDATE edit SET thing = 'actions', body = IF(JSON_VALUE(body, '$.to') IS NULL, NULL, JSON_OBJECT('links', JSON_ARRAY(CONCAT('mail-', LEFT(MD5(JSON_VALUE(body, '$.to')), 12))), 'severity', 'major', 'priority', 'normal', 'for', JSON_ARRAY(), 'acknowledge', JSON_OBJECT('comment', FALSE, 'confirm', FALSE), 'groupSeconds', 60, 'accepted', JSON_ARRAY(), 'quietSeconds', 0))
  WHERE thing = 'email';
UPDATE delivery SET endpoint_id = CONCAT('mail-', LEFT(MD5(recipient), 12)), endpoint = JSON_OBJECT('id', CONCAT('mail-', LEFT(MD5(recipient), 12)), 'name', LEFT(CONCAT('E-mail to ', recipient), 80), 'kind', 'email', 'recipients', JSON_ARRAY(recipient), 'people', JSON_ARRAY(), 'before', 0, 'after', 0, 'stepSeconds', 1);
-- Their mails went to the mailbox that ships, and still do.
INSERT INTO site_setting (site_id, name, body, version, changed_at)
  SELECT DISTINCT site_id, 'mail', JSON_OBJECT('value', JSON_OBJECT('host', 'stand-in', 'port', 25, 'encryption', 'none', 'username', NULL, 'sender', 'wardoptic@localhost.example')), 1, 0 FROM endpoint;
DROP TABLE email_link;

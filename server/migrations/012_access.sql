-- What others give names to compares exactly: the collation of the other columns takes `key` and `key ` for the same.
-- Ids of the plan have no spaces (core/formats/detection.ts), and addresses that name them with one are refused.
ALTER TABLE fired_trigger MODIFY COLUMN sender_key VARCHAR(100) COLLATE utf8mb4_nopad_bin NULL;
ALTER TABLE device MODIFY COLUMN address VARCHAR(200) COLLATE utf8mb4_nopad_bin NOT NULL;
ALTER TABLE device_channel MODIFY COLUMN token VARCHAR(64) COLLATE utf8mb4_nopad_bin NOT NULL;
ALTER TABLE output_test MODIFY COLUMN token VARCHAR(64) COLLATE utf8mb4_nopad_bin NOT NULL;

-- A session ends when nothing was asked for a while, and at the latest at `expires_at`. Where it was opened is shown to
-- whom it belongs. Sessions from before have no such ends: everybody signs in again.
DELETE FROM session;
ALTER TABLE session
  ADD COLUMN id BIGINT NOT NULL AUTO_INCREMENT,
  ADD COLUMN used_at BIGINT NOT NULL,
  ADD COLUMN address VARCHAR(60) NOT NULL,
  ADD COLUMN agent VARCHAR(200) NOT NULL,
  ADD UNIQUE KEY (id),
  ADD KEY (account_id, id);

ALTER TABLE account ADD COLUMN password_changed_at BIGINT NOT NULL DEFAULT 0;
UPDATE account SET password_changed_at = created_at;

-- Sign-ins, and what accounts did. Names are as they were then: an account may be gone.
CREATE TABLE audit (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  at BIGINT NOT NULL,
  account_id BIGINT NULL,
  username VARCHAR(40) NOT NULL,
  address VARCHAR(60) NOT NULL,
  -- `signed-in`, `wrong-password` and the like, or the route that was asked for.
  what VARCHAR(120) NOT NULL,
  -- The parts of the address.
  detail VARCHAR(400) NOT NULL,
  status INT NOT NULL,
  KEY (at),
  KEY (account_id, id)
);

-- Who did something is kept by id beside the name: a name can be given to somebody else later.
ALTER TABLE edit ADD COLUMN made_by_id BIGINT NULL;
ALTER TABLE alarm_note ADD COLUMN made_by_id BIGINT NULL;
ALTER TABLE alarm ADD COLUMN acknowledged_by_id BIGINT NULL;
ALTER TABLE proof_run ADD COLUMN made_by_id BIGINT NULL;

-- Bytes of what the analysis has left, by file: one that was cut is seen.
ALTER TABLE clip ADD COLUMN file_sizes JSON NULL;

ALTER TABLE delivery ADD KEY of_alarm (alarm_id, id), ADD COLUMN begun_at BIGINT NULL;

-- What is due, endpoint by endpoint: one that does not answer keeps no other one waiting.
ALTER TABLE delivery
  ADD KEY due (state, endpoint_id, next_at),
  DROP KEY endpoint_id,
  ADD KEY of_endpoint (endpoint_id, state, next_at),
  ADD KEY by_age (created_at);
ALTER TABLE device_event ADD KEY by_age (received_at);
ALTER TABLE edit ADD KEY by_age (made_at);
ALTER TABLE alarm ADD KEY by_age (last_at);

-- How many triggers there were in each hour, by what is searched for: charts over years are added up from it.
CREATE TABLE trigger_tally (
  hour INT NOT NULL,
  camera_id VARCHAR(64) NOT NULL,
  detection_id VARCHAR(64) NOT NULL,
  kind VARCHAR(20) NOT NULL,
  class VARCHAR(10) NOT NULL,
  direction VARCHAR(20) NOT NULL,
  way VARCHAR(90) NOT NULL,
  acknowledged BOOLEAN NOT NULL,
  n INT NOT NULL,
  PRIMARY KEY (hour, camera_id, detection_id, kind, class, direction, way, acknowledged)
);
INSERT INTO trigger_tally
  SELECT fired_at DIV 3600000, camera_id, detection_id, kind, COALESCE(class, ''), COALESCE(direction, ''), COALESCE(way, ''), acknowledged, COUNT(*)
    FROM fired_trigger GROUP BY 1, 2, 3, 4, 5, 6, 7, 8;
CREATE TRIGGER tally_new AFTER INSERT ON fired_trigger FOR EACH ROW
  INSERT INTO trigger_tally VALUES (NEW.fired_at DIV 3600000, NEW.camera_id, NEW.detection_id, NEW.kind, COALESCE(NEW.class, ''), COALESCE(NEW.direction, ''), COALESCE(NEW.way, ''), NEW.acknowledged, 1)
    ON DUPLICATE KEY UPDATE n = n + 1;
CREATE TRIGGER tally_before AFTER UPDATE ON fired_trigger FOR EACH ROW
  UPDATE trigger_tally SET n = n - 1 WHERE hour = OLD.fired_at DIV 3600000 AND camera_id = OLD.camera_id AND detection_id = OLD.detection_id AND kind = OLD.kind AND class = COALESCE(OLD.class, '') AND direction = COALESCE(OLD.direction, '') AND way = COALESCE(OLD.way, '') AND acknowledged = OLD.acknowledged;
CREATE TRIGGER tally_after AFTER UPDATE ON fired_trigger FOR EACH ROW
  INSERT INTO trigger_tally VALUES (NEW.fired_at DIV 3600000, NEW.camera_id, NEW.detection_id, NEW.kind, COALESCE(NEW.class, ''), COALESCE(NEW.direction, ''), COALESCE(NEW.way, ''), NEW.acknowledged, 1)
    ON DUPLICATE KEY UPDATE n = n + 1;
CREATE TRIGGER tally_gone AFTER DELETE ON fired_trigger FOR EACH ROW
  UPDATE trigger_tally SET n = n - 1 WHERE hour = OLD.fired_at DIV 3600000 AND camera_id = OLD.camera_id AND detection_id = OLD.detection_id AND kind = OLD.kind AND class = COALESCE(OLD.class, '') AND direction = COALESCE(OLD.direction, '') AND way = COALESCE(OLD.way, '') AND acknowledged = OLD.acknowledged;

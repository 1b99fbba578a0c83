-- How many triggers there are over time, for charts that do not read each of them. The tally of each hour (012) held
-- nearly as many rows as there are triggers where these differ in everything: what they have in common stands once now,
-- and long times are added up from whole days.
DROP TRIGGER tally_new;
DROP TRIGGER tally_before;
DROP TRIGGER tally_after;
DROP TRIGGER tally_gone;

-- What triggers have in common that are counted together; '' for what is not there.
CREATE TABLE tally_group (
  id INT AUTO_INCREMENT PRIMARY KEY,
  camera_id VARCHAR(64) NOT NULL,
  detection_id VARCHAR(64) NOT NULL,
  kind VARCHAR(20) NOT NULL,
  class VARCHAR(10) NOT NULL,
  direction VARCHAR(20) NOT NULL,
  way VARCHAR(90) NOT NULL,
  UNIQUE KEY alike (detection_id, camera_id, kind, class, direction, way)
);
-- `period` counts spans of `hours` (1 or 24) since 1970.
CREATE TABLE tally (
  hours TINYINT NOT NULL,
  period INT NOT NULL,
  group_id INT NOT NULL,
  acknowledged BOOLEAN NOT NULL,
  n INT NOT NULL,
  PRIMARY KEY (hours, period, group_id, acknowledged)
);
-- Of each alarm, for what is looked for by its comments.
CREATE TABLE tally_of_alarm (
  alarm_id BIGINT NOT NULL,
  hour INT NOT NULL,
  n INT NOT NULL,
  PRIMARY KEY (alarm_id, hour),
  FOREIGN KEY (alarm_id) REFERENCES alarm (id) ON DELETE CASCADE
);

INSERT INTO tally_group (camera_id, detection_id, kind, class, direction, way)
  SELECT DISTINCT camera_id, detection_id, kind, class, direction, way FROM trigger_tally;
INSERT INTO tally
  SELECT 1, hour, g.id, acknowledged, SUM(n) FROM trigger_tally t JOIN tally_group g USING (detection_id, camera_id, kind, class, direction, way) WHERE n > 0 GROUP BY 2, 3, 4;
INSERT INTO tally
  SELECT 24, period DIV 24, group_id, acknowledged, SUM(n) FROM tally WHERE hours = 1 GROUP BY 2, 3, 4;
INSERT INTO tally_of_alarm
  SELECT alarm_id, fired_at DIV 3600000, COUNT(*) FROM fired_trigger WHERE alarm_id IS NOT NULL GROUP BY 1, 2;
DROP TABLE trigger_tally;

CREATE TRIGGER tally_new_group AFTER INSERT ON fired_trigger FOR EACH ROW
  INSERT IGNORE INTO tally_group (camera_id, detection_id, kind, class, direction, way)
    SELECT NEW.camera_id, NEW.detection_id, NEW.kind, COALESCE(NEW.class, ''), COALESCE(NEW.direction, ''), COALESCE(NEW.way, '') FROM DUAL
      WHERE NOT EXISTS (SELECT 1 FROM tally_group g WHERE g.detection_id = NEW.detection_id AND g.camera_id = NEW.camera_id AND g.kind = NEW.kind AND g.class = COALESCE(NEW.class, '') AND g.direction = COALESCE(NEW.direction, '') AND g.way = COALESCE(NEW.way, ''));
CREATE TRIGGER tally_new AFTER INSERT ON fired_trigger FOR EACH ROW FOLLOWS tally_new_group
  INSERT INTO tally
    SELECT span.hours, NEW.fired_at DIV (3600000 * span.hours), g.id, NEW.acknowledged, 1 FROM tally_group g, (SELECT 1 AS hours UNION ALL SELECT 24) span
      WHERE g.detection_id = NEW.detection_id AND g.camera_id = NEW.camera_id AND g.kind = NEW.kind AND g.class = COALESCE(NEW.class, '') AND g.direction = COALESCE(NEW.direction, '') AND g.way = COALESCE(NEW.way, '')
      ORDER BY span.hours
    ON DUPLICATE KEY UPDATE tally.n = tally.n + 1;
CREATE TRIGGER tally_new_of_alarm AFTER INSERT ON fired_trigger FOR EACH ROW
  INSERT INTO tally_of_alarm SELECT NEW.alarm_id, NEW.fired_at DIV 3600000, 1 FROM DUAL WHERE NEW.alarm_id IS NOT NULL
    ON DUPLICATE KEY UPDATE tally_of_alarm.n = tally_of_alarm.n + 1;

-- Of a trigger nothing changes but whether its alarm was acknowledged.
CREATE TRIGGER tally_acknowledged AFTER UPDATE ON fired_trigger FOR EACH ROW
  INSERT INTO tally
    SELECT span.hours, NEW.fired_at DIV (3600000 * span.hours), g.id, span.acknowledged, span.n
      FROM tally_group g, (SELECT 1 AS hours, OLD.acknowledged AS acknowledged, -1 AS n UNION ALL SELECT 1, NEW.acknowledged, 1 UNION ALL SELECT 24, OLD.acknowledged, -1 UNION ALL SELECT 24, NEW.acknowledged, 1) span
      WHERE OLD.acknowledged <> NEW.acknowledged AND g.detection_id = NEW.detection_id AND g.camera_id = NEW.camera_id AND g.kind = NEW.kind AND g.class = COALESCE(NEW.class, '') AND g.direction = COALESCE(NEW.direction, '') AND g.way = COALESCE(NEW.way, '')
      ORDER BY span.hours, span.acknowledged
    ON DUPLICATE KEY UPDATE tally.n = tally.n + span.n;

CREATE TRIGGER tally_gone AFTER DELETE ON fired_trigger FOR EACH ROW
  UPDATE tally JOIN tally_group g ON g.id = tally.group_id SET tally.n = tally.n - 1
    WHERE g.detection_id = OLD.detection_id AND g.camera_id = OLD.camera_id AND g.kind = OLD.kind AND g.class = COALESCE(OLD.class, '') AND g.direction = COALESCE(OLD.direction, '') AND g.way = COALESCE(OLD.way, '')
      AND ((tally.hours = 1 AND tally.period = OLD.fired_at DIV 3600000) OR (tally.hours = 24 AND tally.period = OLD.fired_at DIV 86400000)) AND tally.acknowledged = OLD.acknowledged;
CREATE TRIGGER tally_gone_of_alarm AFTER DELETE ON fired_trigger FOR EACH ROW
  UPDATE tally_of_alarm SET n = n - 1 WHERE alarm_id = OLD.alarm_id AND hour = OLD.fired_at DIV 3600000;

-- The words of what people wrote about alarms, each once an alarm, whatever their case and accents: what triggers are
-- looked for by. A full-text index has to gather all that a common word stands in before it gives the newest ones.
CREATE TABLE alarm_word (
  word VARCHAR(40) NOT NULL COLLATE utf8mb4_unicode_520_ci,
  alarm_id BIGINT NOT NULL,
  PRIMARY KEY (word, alarm_id),
  KEY of_alarm (alarm_id, word),
  FOREIGN KEY (alarm_id) REFERENCES alarm (id) ON DELETE CASCADE
);
ALTER TABLE alarm_note DROP KEY words;

-- Letters and digits make words; all that is between them makes a list of them. Notes are never changed.
CREATE TRIGGER words_of_note AFTER INSERT ON alarm_note FOR EACH ROW
  INSERT IGNORE INTO alarm_word (word, alarm_id)
    SELECT LEFT(found.word, 40), NEW.alarm_id
      FROM JSON_TABLE(CONCAT('["', REGEXP_REPLACE(NEW.words, '[^\\p{L}\\p{M}\\p{N}]+', '","'), '"]'), '$[*]' COLUMNS (word VARCHAR(2000) PATH '$')) found
      WHERE found.word <> '';
INSERT IGNORE INTO alarm_word (word, alarm_id)
  SELECT LEFT(found.word, 40), note.alarm_id
    FROM alarm_note note, JSON_TABLE(CONCAT('["', REGEXP_REPLACE(note.words, '[^\\p{L}\\p{M}\\p{N}]+', '","'), '"]'), '$[*]' COLUMNS (word VARCHAR(2000) PATH '$')) found
    WHERE found.word <> '';

-- All that is asked for stands in each index: no row has to be read to find out that it does not match.
ALTER TABLE fired_trigger
  DROP KEY by_time, ADD KEY by_time (fired_at, id, camera_id, kind, class, direction, acknowledged, way, detection_id, alarm_id),
  DROP KEY by_camera, ADD KEY by_camera (camera_id, fired_at, id, kind, class, direction, acknowledged, way, detection_id, alarm_id),
  DROP KEY by_kind, ADD KEY by_kind (kind, fired_at, id, camera_id, class, direction, acknowledged, way, detection_id, alarm_id),
  DROP KEY by_class, ADD KEY by_class (class, fired_at, id, camera_id, kind, direction, acknowledged, way, detection_id, alarm_id),
  DROP KEY by_direction, ADD KEY by_direction (direction, fired_at, id, camera_id, kind, class, acknowledged, way, detection_id, alarm_id),
  DROP KEY by_way, ADD KEY by_way (way, fired_at, id, camera_id, kind, class, direction, acknowledged, detection_id, alarm_id),
  DROP KEY by_acknowledged, ADD KEY by_acknowledged (acknowledged, fired_at, id, camera_id, kind, class, direction, way, detection_id, alarm_id),
  DROP KEY alarm_id, ADD KEY by_alarm (alarm_id, fired_at, id, camera_id, kind, class, direction, acknowledged, way, detection_id);

-- A camera's scene: its ignore areas, and the marks from which it was measured (null: not measured).
ALTER TABLE camera ADD COLUMN scene_marks JSON NULL, ADD COLUMN scene_version INT NOT NULL DEFAULT 1, ADD COLUMN scene_changed_at BIGINT NOT NULL DEFAULT 0;

-- What people edit, each time it was saved: how it was afterwards (null: deleted). The state at any entry is, of every
-- thing, the last entry up to there.
CREATE TABLE edit (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  site_id VARCHAR(64) NOT NULL,
  -- Null: a schedule, which belongs to the site.
  camera_id VARCHAR(64) NULL,
  thing ENUM ('detection', 'email', 'schedule', 'scene') NOT NULL,
  thing_id VARCHAR(64) NOT NULL,
  body JSON NULL,
  label VARCHAR(200) NOT NULL,
  made_by VARCHAR(80) NOT NULL,
  made_at BIGINT NOT NULL,
  KEY (site_id, camera_id, id),
  KEY (camera_id, thing, thing_id, id)
);

-- What was there before histories were kept is where they begin.
INSERT INTO edit (site_id, camera_id, thing, thing_id, body, label, made_by, made_at)
  SELECT site_id, NULL, 'schedule', id, body, 'As it was', 'Wardoptic', changed_at FROM schedule;
INSERT INTO edit (site_id, camera_id, thing, thing_id, body, label, made_by, made_at)
  SELECT camera.site_id, camera.id, 'scene', camera.id, JSON_OBJECT('ignore', JSON_COMPACT(ignore_areas), 'marks', NULL), 'As it was', 'Wardoptic', 0 FROM camera;
INSERT INTO edit (site_id, camera_id, thing, thing_id, body, label, made_by, made_at)
  SELECT camera.site_id, camera_id, 'detection', detection.id, JSON_OBJECT('detection', JSON_COMPACT(body), 'position', detection.position), 'As it was', 'Wardoptic', changed_at
    FROM detection JOIN camera ON camera.id = detection.camera_id WHERE NOT deleted;
INSERT INTO edit (site_id, camera_id, thing, thing_id, body, label, made_by, made_at)
  SELECT camera.site_id, camera_id, 'email', detection_id, JSON_OBJECT('to', recipient), 'As it was', 'Wardoptic', changed_at
    FROM email_link JOIN camera ON camera.id = email_link.camera_id WHERE recipient IS NOT NULL;

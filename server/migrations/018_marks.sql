-- What people say of triggers, or of targets that should have made one (core/marks/marks.ts). A mark belongs to a target and
-- its moment, so that it outlives the settings, and the trigger that it was made at.
CREATE TABLE mark (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  site_id VARCHAR(64) NOT NULL,
  camera_id VARCHAR(64) NOT NULL,
  detection_id VARCHAR(64) NOT NULL,
  -- The clip in which the target is; null: it is of the live camera.
  clip_id VARCHAR(64) NULL,
  -- Null: of what has no target, such as a covered lens.
  target INT NULL,
  -- Of a clip: ms from its start. Else ms of UTC.
  at BIGINT NOT NULL,
  mark VARCHAR(10) NOT NULL,
  reason VARCHAR(20) NULL,
  -- The trigger that it was made at; null: it was made at a target, or the trigger is not kept any more.
  trigger_id BIGINT NULL,
  made_by VARCHAR(80) NOT NULL,
  made_by_id BIGINT NULL,
  made_at BIGINT NOT NULL,
  FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  FOREIGN KEY (camera_id) REFERENCES camera (id) ON DELETE CASCADE,
  FOREIGN KEY (clip_id) REFERENCES clip (id) ON DELETE CASCADE,
  UNIQUE KEY one_of_a_trigger (trigger_id),
  KEY of_camera (camera_id, at),
  KEY of_site (site_id, made_at)
);

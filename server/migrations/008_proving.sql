-- Checks (core/formats/check.ts), how they were run, and what became of each. Deleted checks stay, so that undo brings them back.
CREATE TABLE proof_check (
  camera_id VARCHAR(64) NOT NULL,
  id VARCHAR(120) NOT NULL,
  body JSON NOT NULL,
  version INT NOT NULL,
  changed_at BIGINT NOT NULL,
  deleted BOOLEAN NOT NULL DEFAULT FALSE,
  PRIMARY KEY (camera_id, id),
  FOREIGN KEY (camera_id) REFERENCES camera (id)
);

CREATE TABLE proof_run (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  site_id VARCHAR(64) NOT NULL,
  state ENUM ('running', 'stopped', 'finished') NOT NULL,
  -- Pairs of camera and check.
  asked JSON NOT NULL,
  started_at BIGINT NOT NULL,
  ended_at BIGINT NULL,
  made_by VARCHAR(80) NOT NULL,
  FOREIGN KEY (site_id) REFERENCES site (id)
);

-- `settings` names the settings under which it was judged (core/proving/standing.ts).
CREATE TABLE proof_result (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  run_id BIGINT NOT NULL,
  camera_id VARCHAR(64) NOT NULL,
  check_id VARCHAR(120) NOT NULL,
  detection_id VARCHAR(64) NOT NULL,
  passed BOOLEAN NOT NULL,
  settings CHAR(64) NOT NULL,
  verdict JSON NOT NULL,
  made_at BIGINT NOT NULL,
  UNIQUE KEY (run_id, camera_id, check_id),
  KEY (camera_id, check_id, id),
  FOREIGN KEY (run_id) REFERENCES proof_run (id) ON DELETE CASCADE
);

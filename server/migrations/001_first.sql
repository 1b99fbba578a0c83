-- Instants are milliseconds of UTC. What people edit carries a version that a save must name.

CREATE TABLE site (
  id VARCHAR(64) PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  time_zone VARCHAR(64) NOT NULL,
  latitude DOUBLE NULL,
  longitude DOUBLE NULL
);

CREATE TABLE schedule (
  site_id VARCHAR(64) NOT NULL,
  id VARCHAR(64) NOT NULL,
  body JSON NOT NULL,
  version INT NOT NULL,
  changed_at BIGINT NOT NULL,
  PRIMARY KEY (site_id, id),
  FOREIGN KEY (site_id) REFERENCES site (id)
);

CREATE TABLE camera (
  id VARCHAR(64) PRIMARY KEY,
  site_id VARCHAR(64) NOT NULL,
  name VARCHAR(80) NOT NULL,
  position INT NOT NULL,
  ignore_areas JSON NOT NULL,
  FOREIGN KEY (site_id) REFERENCES site (id)
);

-- A deleted detection stays, so that undo brings it back with its links, and its triggers keep their name.
CREATE TABLE detection (
  camera_id VARCHAR(64) NOT NULL,
  id VARCHAR(64) NOT NULL,
  position INT NOT NULL,
  body JSON NOT NULL,
  version INT NOT NULL,
  changed_at BIGINT NOT NULL,
  deleted BOOLEAN NOT NULL DEFAULT FALSE,
  PRIMARY KEY (camera_id, id),
  FOREIGN KEY (camera_id) REFERENCES camera (id)
);

CREATE TABLE email_link (
  camera_id VARCHAR(64) NOT NULL,
  detection_id VARCHAR(64) NOT NULL,
  recipient VARCHAR(254) NULL,
  version INT NOT NULL,
  changed_at BIGINT NOT NULL,
  PRIMARY KEY (camera_id, detection_id),
  FOREIGN KEY (camera_id, detection_id) REFERENCES detection (camera_id, id)
);

CREATE TABLE clip (
  id VARCHAR(64) PRIMARY KEY,
  camera_id VARCHAR(64) NOT NULL,
  name VARCHAR(120) NOT NULL,
  state ENUM ('analysing', 'ready', 'stopped') NOT NULL,
  start_at BIGINT NOT NULL,
  fps DOUBLE NOT NULL,
  width INT NOT NULL,
  height INT NOT NULL,
  frames INT NOT NULL DEFAULT 0,
  target_count INT NOT NULL DEFAULT 0,
  row_count INT NOT NULL DEFAULT 0,
  bytes BIGINT NOT NULL,
  created_at BIGINT NOT NULL,
  KEY (camera_id, created_at),
  FOREIGN KEY (camera_id) REFERENCES camera (id)
);

CREATE TABLE run (
  id VARCHAR(64) PRIMARY KEY,
  clip_id VARCHAR(64) NOT NULL,
  state ENUM ('running', 'finished', 'stopped', 'failed') NOT NULL,
  started_at BIGINT NOT NULL,
  FOREIGN KEY (clip_id) REFERENCES clip (id) ON DELETE CASCADE
);

-- `fired_with` is the detection as it was when it fired: the mail must not change with a later edit.
CREATE TABLE fired_trigger (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  run_id VARCHAR(64) NOT NULL,
  camera_id VARCHAR(64) NOT NULL,
  detection_id VARCHAR(64) NOT NULL,
  kind VARCHAR(20) NOT NULL,
  target INT NOT NULL,
  frame INT NOT NULL,
  clip_seconds DOUBLE NOT NULL,
  direction VARCHAR(20) NULL,
  fired_at BIGINT NOT NULL,
  fired_with JSON NOT NULL,
  KEY (run_id, id),
  FOREIGN KEY (run_id) REFERENCES run (id) ON DELETE CASCADE
);

CREATE TABLE delivery (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  trigger_id BIGINT NOT NULL,
  kind ENUM ('email') NOT NULL,
  recipient VARCHAR(254) NOT NULL,
  state ENUM ('pending', 'sent', 'failed') NOT NULL,
  attempts INT NOT NULL DEFAULT 0,
  next_at BIGINT NOT NULL,
  error VARCHAR(500) NULL,
  KEY (state, next_at),
  FOREIGN KEY (trigger_id) REFERENCES fired_trigger (id) ON DELETE CASCADE
);

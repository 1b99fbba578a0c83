-- Devices. A password is kept sealed (AES-256-GCM, server/devices/seal.ts). What was read from the device last stands
-- beside when that was, so that the place can be shown without asking it.
CREATE TABLE device (
  id VARCHAR(64) PRIMARY KEY,
  site_id VARCHAR(64) NOT NULL,
  camera_id VARCHAR(64) NULL,
  name VARCHAR(80) NOT NULL,
  address VARCHAR(200) NOT NULL,
  username VARCHAR(80) NULL,
  password_sealed VARBINARY(400) NULL,
  state VARCHAR(20) NOT NULL,
  trouble VARCHAR(300) NULL,
  information JSON NULL,
  clock_ahead DOUBLE NULL,
  abilities JSON NULL,
  held_rules JSON NULL,
  read_at BIGINT NULL,
  added_at BIGINT NOT NULL,
  UNIQUE KEY (site_id, address),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (camera_id) REFERENCES camera (id)
);

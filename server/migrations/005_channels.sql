-- A device has channels: one picture each, and the analysis of it. A camera has one, a recorder several. What was sent
-- last is kept, so that what somebody changed on the device can be told from what changed in the plan.
CREATE TABLE device_channel (
  device_id VARCHAR(64) NOT NULL,
  token VARCHAR(64) NOT NULL,
  position INT NOT NULL,
  -- Of the media profile that its pictures are asked for with.
  profile VARCHAR(64) NOT NULL,
  name VARCHAR(80) NOT NULL,
  camera_id VARCHAR(64) NULL,
  -- Whether the plan is sent through this door.
  used BOOLEAN NOT NULL DEFAULT TRUE,
  abilities JSON NOT NULL,
  most_rules INT NULL,
  modes JSON NOT NULL,
  held_rules JSON NOT NULL,
  sent_rules JSON NULL,
  -- Types of rules that the last sending took off the device, and those that came back by themselves.
  removed_types JSON NOT NULL,
  switches_back JSON NOT NULL,
  PRIMARY KEY (device_id, token),
  FOREIGN KEY (device_id) REFERENCES device (id) ON DELETE CASCADE,
  FOREIGN KEY (camera_id) REFERENCES camera (id)
);
-- device.camera_id stays as what was said when the device was added; channels are known once it has been read.
ALTER TABLE device
  DROP COLUMN abilities,
  DROP COLUMN held_rules,
  ADD COLUMN inputs JSON NULL,
  ADD COLUMN outputs JSON NULL,
  -- Where it is listened to, and until when it has been: a server that starts again goes on there, or tells the gap.
  ADD COLUMN pull_point VARCHAR(300) NULL,
  ADD COLUMN heard_at BIGINT NULL;
UPDATE device SET read_at = NULL, state = 'unknown';
-- When each output was last tested from here, and what the device said.
CREATE TABLE output_test (
  device_id VARCHAR(64) NOT NULL,
  token VARCHAR(64) NOT NULL,
  tested_at BIGINT NOT NULL,
  PRIMARY KEY (device_id, token),
  FOREIGN KEY (device_id) REFERENCES device (id) ON DELETE CASCADE
);

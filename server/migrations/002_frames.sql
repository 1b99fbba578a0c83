-- Detections that look at whole frames, and clips made from a script of a simulated scene.

ALTER TABLE site ADD COLUMN inputs JSON NOT NULL DEFAULT '[]';

-- The simulated scene of a camera with its scripts; null where the camera is a real one.
ALTER TABLE camera ADD COLUMN world JSON NULL;

-- `script`: what a made clip was painted from. `inputs`: what contacts did while it ran. `learn_anew`: the seconds at
-- which the tamper reference is learned again.
ALTER TABLE clip ADD COLUMN script JSON NULL, ADD COLUMN inputs JSON NOT NULL DEFAULT '{}', ADD COLUMN learn_anew JSON NOT NULL DEFAULT '[]';

ALTER TABLE fired_trigger MODIFY COLUMN target INT NULL, ADD COLUMN cause VARCHAR(20) NULL, ADD COLUMN severity VARCHAR(20) NULL;

-- A site is set up by its first installer, and its cameras are added, ordered and deleted by people. A deleted camera
-- stays, so that undo brings it back with its detections, clips and checks, and its alarms keep its name.
ALTER TABLE site
  ADD COLUMN surroundings VARCHAR(10) NOT NULL DEFAULT 'outdoors',
  ADD COLUMN is_set_up BOOLEAN NOT NULL DEFAULT TRUE,
  ADD COLUMN version INT NOT NULL DEFAULT 1,
  ADD COLUMN changed_at BIGINT NOT NULL DEFAULT 0;
ALTER TABLE camera
  -- Null: as the site.
  ADD COLUMN surroundings VARCHAR(10) NULL,
  ADD COLUMN removed BOOLEAN NOT NULL DEFAULT FALSE,
  ADD COLUMN version INT NOT NULL DEFAULT 1,
  ADD COLUMN changed_at BIGINT NOT NULL DEFAULT 0;
-- Whether each of its channels becomes a camera when it is read for the first time.
ALTER TABLE device ADD COLUMN makes_cameras BOOLEAN NOT NULL DEFAULT FALSE;
-- The profile that live pictures are asked for with: the one with the fewest pixels that still fills the screen.
ALTER TABLE device_channel ADD COLUMN picture_profile VARCHAR(64) NULL;
-- Whether it says what its analysis sees. Those of before do; they are read again soon.
ALTER TABLE device_channel ADD COLUMN has_metadata BOOLEAN NOT NULL DEFAULT TRUE;

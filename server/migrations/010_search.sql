-- What triggers are looked for by. Each index begins with one thing that is asked for, goes on with the time, in which
-- results are ordered, and holds the others, so that rows that do not match are passed over without being read.
ALTER TABLE fired_trigger
  ADD COLUMN class VARCHAR(10) NULL,
  -- Of a line with named sides: `Water → Land`.
  ADD COLUMN way VARCHAR(90) NULL,
  ADD COLUMN acknowledged BOOLEAN NOT NULL DEFAULT FALSE,
  ADD KEY by_time (fired_at, id, camera_id, kind, class, direction, acknowledged),
  ADD KEY by_camera (camera_id, fired_at, id, kind, class, direction, acknowledged),
  ADD KEY by_kind (kind, fired_at, id, camera_id, class, direction, acknowledged),
  ADD KEY by_class (class, fired_at, id, camera_id, kind, direction, acknowledged),
  ADD KEY by_direction (direction, fired_at, id, camera_id, kind, class, acknowledged),
  ADD KEY by_way (way, fired_at, id, camera_id, kind, class, acknowledged),
  ADD KEY by_acknowledged (acknowledged, fired_at, id, camera_id, kind, class, direction);
UPDATE fired_trigger JOIN alarm ON alarm.id = fired_trigger.alarm_id SET fired_trigger.acknowledged = TRUE WHERE alarm.state <> 'waiting';

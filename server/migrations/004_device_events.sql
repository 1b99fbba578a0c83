-- What devices have said of themselves, as it came. A gap is a stretch in which nobody listened: `topic` is 'gap' then.
CREATE TABLE device_event (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  device_id VARCHAR(64) NOT NULL,
  topic VARCHAR(160) NOT NULL,
  rule VARCHAR(80) NOT NULL,
  data JSON NOT NULL,
  -- On the device's own clock, and when it was received.
  device_at BIGINT NOT NULL,
  received_at BIGINT NOT NULL,
  KEY (device_id, id),
  FOREIGN KEY (device_id) REFERENCES device (id) ON DELETE CASCADE
);

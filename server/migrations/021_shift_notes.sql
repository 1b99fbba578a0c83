-- What one shift leaves to the next, with how things stood then.
CREATE TABLE shift_note (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  site_id VARCHAR(64) NOT NULL,
  words VARCHAR(2000) NOT NULL,
  -- core/watch/shift.ts, ShiftCounts
  counts JSON NOT NULL,
  made_by VARCHAR(80) NOT NULL,
  made_by_id BIGINT NULL,
  made_at BIGINT NOT NULL,
  -- Who of the next shift has read it; null: nobody yet.
  read_by VARCHAR(80) NULL,
  read_at BIGINT NULL,
  FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  KEY (site_id, id)
);

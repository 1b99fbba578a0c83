-- Records of finished jobs (core/handover/record.ts). Their files are in the data folder, `records/<site>/<number>`; a record
-- never changes, and its digest names it.
CREATE TABLE handover_record (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  site_id VARCHAR(64) NOT NULL,
  -- Of the site, from 1.
  number INT NOT NULL,
  kind ENUM ('handover', 'service') NOT NULL,
  digest CHAR(64) NOT NULL,
  -- Issues that were open, deviations that were accepted.
  open_count INT NOT NULL,
  accepted_count INT NOT NULL,
  paper ENUM ('a4', 'letter') NOT NULL,
  made_at BIGINT NOT NULL,
  made_by VARCHAR(80) NOT NULL,
  made_by_id BIGINT NULL,
  UNIQUE KEY (site_id, number),
  FOREIGN KEY (site_id) REFERENCES site (id)
);

-- `digest` is what was signed; a signature under another digest than the record's is none of it.
CREATE TABLE record_signature (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  record_id BIGINT NOT NULL,
  digest CHAR(64) NOT NULL,
  role ENUM ('client', 'installer', 'station') NOT NULL,
  name VARCHAR(80) NOT NULL,
  -- Null: signed by hand on paper.
  strokes MEDIUMTEXT NULL,
  signed_at BIGINT NOT NULL,
  made_by VARCHAR(80) NOT NULL,
  made_by_id BIGINT NULL,
  FOREIGN KEY (record_id) REFERENCES handover_record (id) ON DELETE CASCADE
);

-- Issues that were accepted on purpose, by the key of the finding.
CREATE TABLE accepted_issue (
  site_id VARCHAR(64) NOT NULL,
  -- SHA-256 of the key: keys are longer than an index may be.
  key_digest CHAR(64) NOT NULL,
  finding_key VARCHAR(600) NOT NULL,
  sentence TEXT NOT NULL,
  reason VARCHAR(400) NOT NULL,
  made_by VARCHAR(80) NOT NULL,
  made_by_id BIGINT NULL,
  made_at BIGINT NOT NULL,
  PRIMARY KEY (site_id, key_digest),
  FOREIGN KEY (site_id) REFERENCES site (id)
);

-- A service visit that is going on: one a site.
CREATE TABLE service_visit (
  site_id VARCHAR(64) PRIMARY KEY,
  -- The record that the site is compared with.
  record_id BIGINT NOT NULL,
  started_at BIGINT NOT NULL,
  made_by VARCHAR(80) NOT NULL,
  made_by_id BIGINT NULL,
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (record_id) REFERENCES handover_record (id) ON DELETE CASCADE
);

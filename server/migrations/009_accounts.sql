-- Who signs in (core/accounts/accounts.ts). Passwords are kept as scrypt digests, sessions as digests of their tokens.
CREATE TABLE account (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  username VARCHAR(40) NOT NULL,
  name VARCHAR(80) NOT NULL,
  role ENUM ('installer', 'operator', 'viewer') NOT NULL,
  person_id VARCHAR(64) NULL,
  password VARCHAR(200) NOT NULL,
  created_at BIGINT NOT NULL,
  UNIQUE KEY (username)
);

CREATE TABLE session (
  token_hash CHAR(64) PRIMARY KEY,
  account_id BIGINT NOT NULL,
  created_at BIGINT NOT NULL,
  expires_at BIGINT NOT NULL,
  KEY (expires_at),
  FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
);

-- What people did about alarms, and when. An alarm that is closed waits for nobody.
ALTER TABLE alarm
  MODIFY COLUMN state ENUM ('waiting', 'acknowledged', 'closed') NOT NULL,
  ADD COLUMN handed_to VARCHAR(80) NULL,
  ADD COLUMN closed_at BIGINT NULL;

CREATE TABLE alarm_note (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  alarm_id BIGINT NOT NULL,
  what ENUM ('acknowledged', 'comment', 'handed', 'closed') NOT NULL,
  words VARCHAR(2000) NOT NULL,
  made_by VARCHAR(80) NOT NULL,
  made_at BIGINT NOT NULL,
  KEY (alarm_id, id),
  FULLTEXT KEY (words),
  FOREIGN KEY (alarm_id) REFERENCES alarm (id) ON DELETE CASCADE
);
INSERT INTO alarm_note (alarm_id, what, words, made_by, made_at)
  SELECT id, 'acknowledged', COALESCE(comment, ''), COALESCE(acknowledged_by, 'somebody'), acknowledged_at FROM alarm WHERE acknowledged_at IS NOT NULL;

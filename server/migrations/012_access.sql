-- What others give names to compares exactly: the collation of the other columns takes `key` and `key ` for the same.
-- Ids of the plan have no spaces (core/formats/detection.ts), and addresses that name them with one are refused.
ALTER TABLE fired_trigger MODIFY COLUMN sender_key VARCHAR(100) COLLATE utf8mb4_nopad_bin NULL;
ALTER TABLE device MODIFY COLUMN address VARCHAR(200) COLLATE utf8mb4_nopad_bin NOT NULL;
ALTER TABLE device_channel MODIFY COLUMN token VARCHAR(64) COLLATE utf8mb4_nopad_bin NOT NULL;
ALTER TABLE output_test MODIFY COLUMN token VARCHAR(64) COLLATE utf8mb4_nopad_bin NOT NULL;

-- A session ends when nothing was asked for a while, and at the latest at `expires_at`. Where it was opened is shown to
-- whom it belongs. Sessions from before have no such ends: everybody signs in again.
DELETE FROM session;
ALTER TABLE session
  ADD COLUMN id BIGINT NOT NULL AUTO_INCREMENT,
  ADD COLUMN used_at BIGINT NOT NULL,
  ADD COLUMN address VARCHAR(60) NOT NULL,
  ADD COLUMN agent VARCHAR(200) NOT NULL,
  ADD UNIQUE KEY (id),
  ADD KEY (account_id, id);

ALTER TABLE account ADD COLUMN password_changed_at BIGINT NOT NULL DEFAULT 0;
UPDATE account SET password_changed_at = created_at;

-- Sign-ins, and what accounts did. Names are as they were then: an account may be gone.
CREATE TABLE audit (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  at BIGINT NOT NULL,
  account_id BIGINT NULL,
  username VARCHAR(40) NOT NULL,
  address VARCHAR(60) NOT NULL,
  -- `signed-in`, `wrong-password` and the like, or the route that was asked for.
  what VARCHAR(120) NOT NULL,
  -- The parts of the address.
  detail VARCHAR(400) NOT NULL,
  status INT NOT NULL,
  KEY (at),
  KEY (account_id, id)
);

-- Who did something is kept by id beside the name: a name can be given to somebody else later.
ALTER TABLE edit ADD COLUMN made_by_id BIGINT NULL;
ALTER TABLE alarm_note ADD COLUMN made_by_id BIGINT NULL;
ALTER TABLE alarm ADD COLUMN acknowledged_by_id BIGINT NULL;
ALTER TABLE proof_run ADD COLUMN made_by_id BIGINT NULL;

ALTER TABLE delivery ADD KEY of_alarm (alarm_id, id);

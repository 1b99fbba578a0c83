-- A walk test that is opened on a phone: the code on the desk is good once; the session that it begins, for that walk
-- alone and no longer than the link. Both end with it.
CREATE TABLE phone_link (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  token_hash CHAR(64) NOT NULL,
  account_id BIGINT NOT NULL,
  camera_id VARCHAR(64) NOT NULL,
  -- What is walked (core/formats/check.ts), as it was when the link was made.
  body JSON NOT NULL,
  created_at BIGINT NOT NULL,
  expires_at BIGINT NOT NULL,
  -- When its code was used; null: it has not been.
  opened_at BIGINT NULL,
  UNIQUE KEY (token_hash),
  KEY (camera_id, expires_at),
  FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE,
  FOREIGN KEY (camera_id) REFERENCES camera (id) ON DELETE CASCADE
);
ALTER TABLE session
  ADD COLUMN link_id BIGINT NULL,
  ADD FOREIGN KEY (link_id) REFERENCES phone_link (id) ON DELETE CASCADE;

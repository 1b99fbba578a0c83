-- Several sites: an account has a role on every site, or one on each site that it has to do with. Which person of a site
-- an account was had no effect. A deleted site stays, so that it can be brought back; its devices are left alone.
ALTER TABLE site
  ADD COLUMN removed BOOLEAN NOT NULL DEFAULT FALSE,
  ADD COLUMN added_at BIGINT NOT NULL DEFAULT 0;
ALTER TABLE account
  DROP COLUMN person_id,
  -- Null: only on the sites that it has a role on.
  MODIFY role ENUM ('installer', 'operator', 'viewer') NULL;
CREATE TABLE site_role (
  account_id BIGINT NOT NULL,
  site_id VARCHAR(64) NOT NULL,
  role ENUM ('installer', 'operator', 'viewer') NOT NULL,
  PRIMARY KEY (account_id, site_id),
  FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE,
  FOREIGN KEY (site_id) REFERENCES site (id)
);
ALTER TABLE audit ADD COLUMN site_id VARCHAR(64) NULL;

-- Where a device records to, as it said when it was read last (core/devices/upkeep.ts); null: it does not say.
ALTER TABLE device ADD COLUMN storage LONGTEXT NULL CHECK (storage IS NULL OR json_valid(storage));
-- SHA-256 of the certificate that a device is known by over TLS, and of another one that it has shown instead.
ALTER TABLE device
  ADD COLUMN certificate VARCHAR(95) NULL,
  ADD COLUMN shown_certificate VARCHAR(95) NULL;
-- The device's switch for where a channel looks (core/sites/surroundings.ts); null: it has none.
ALTER TABLE device_channel
  ADD COLUMN surroundings TEXT NULL CHECK (surroundings IS NULL OR json_valid(surroundings));

-- Where a device records to, as it said when it was read last (core/devices/upkeep.ts); null: it does not say.
ALTER TABLE device ADD COLUMN storage LONGTEXT NULL CHECK (storage IS NULL OR json_valid(storage));

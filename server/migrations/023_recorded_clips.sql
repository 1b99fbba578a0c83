-- Whether a clip was recorded here from its camera's stream: its start is then the true one, by this clock.
ALTER TABLE clip ADD COLUMN recorded BOOLEAN NOT NULL DEFAULT FALSE;

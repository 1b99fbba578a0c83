-- A clip of what its camera reported: {"from":…,"to":…}, ms of UTC. There are no frame measures of it.
ALTER TABLE clip ADD COLUMN reported JSON NULL;

-- What a packet changes, and what has changed it.
ALTER TABLE packets ADD COLUMN amends TEXT;
ALTER TABLE packets ADD COLUMN amended_by TEXT;
CREATE INDEX packets_amending ON packets (amends, id) WHERE amends IS NOT NULL;

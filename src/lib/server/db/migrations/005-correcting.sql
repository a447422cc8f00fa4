-- Corrections of packets that are out: the packet that a draft corrects, one draft a packet.
ALTER TABLE drafts ADD COLUMN corrects TEXT REFERENCES packets (id);
CREATE UNIQUE INDEX drafts_correct ON drafts (corrects) WHERE corrects IS NOT NULL;
-- Until when a packet is shut to signers; null where it is not.
ALTER TABLE packets ADD COLUMN shut_until TEXT;

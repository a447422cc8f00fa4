-- Lists of packets are read in the order somebody wants, a page at a time from where the one before ended.
CREATE INDEX packets_open_title ON packets (title COLLATE NOCASE) WHERE ended_at IS NULL;
CREATE INDEX packets_open_until ON packets (coalesce(deadline, '9999')) WHERE ended_at IS NULL;
CREATE INDEX packets_open_sent ON packets (sent_at) WHERE ended_at IS NULL;
CREATE INDEX packets_ended_title ON packets (title COLLATE NOCASE) WHERE ended_at IS NOT NULL;
CREATE INDEX packets_ended_sent ON packets (sent_at) WHERE ended_at IS NOT NULL;

-- How an account has its lists: columns put away, order, named views (JSON).
CREATE TABLE list_settings (
	account TEXT NOT NULL REFERENCES accounts (id),
	list TEXT NOT NULL,
	settings TEXT NOT NULL,
	PRIMARY KEY (account, list)
) STRICT, WITHOUT ROWID;

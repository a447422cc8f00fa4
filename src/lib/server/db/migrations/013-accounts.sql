-- The office's own record: what was done to accounts, settings and keys, and what was refused. Chained like the packets'.
CREATE TABLE office_events (
	n INTEGER PRIMARY KEY,
	body TEXT NOT NULL,
	hash TEXT NOT NULL
) STRICT;
CREATE TRIGGER office_events_stay BEFORE UPDATE ON office_events BEGIN SELECT RAISE (ABORT, 'events are never changed'); END;
CREATE TRIGGER office_events_last BEFORE DELETE ON office_events BEGIN SELECT RAISE (ABORT, 'events are never deleted'); END;

-- A password of '' is none: invited, or signed in through the directory only.
ALTER TABLE accounts ADD COLUMN totp TEXT;
-- the last step of time whose code was taken, so that no code is taken twice
ALTER TABLE accounts ADD COLUMN totp_step INTEGER NOT NULL DEFAULT 0;
-- who they are in the office's directory
ALTER TABLE accounts ADD COLUMN subject TEXT;
CREATE UNIQUE INDEX accounts_by_subject ON accounts (subject) WHERE subject IS NOT NULL;

ALTER TABLE sessions ADD COLUMN id TEXT NOT NULL DEFAULT '';
ALTER TABLE sessions ADD COLUMN seen_at TEXT NOT NULL DEFAULT '';
ALTER TABLE sessions ADD COLUMN address TEXT NOT NULL DEFAULT '';
ALTER TABLE sessions ADD COLUMN device TEXT NOT NULL DEFAULT '';
-- when whoever has it last proved who they are
ALTER TABLE sessions ADD COLUMN proved_at TEXT NOT NULL DEFAULT '';
-- 1: the second factor is still to come
ALTER TABLE sessions ADD COLUMN half INTEGER NOT NULL DEFAULT 0;
UPDATE sessions SET id = lower(hex(randomblob(8))), seen_at = strftime('%Y-%m-%dT%H:%M:%fZ', 'now'),
	proved_at = '2000-01-01T00:00:00.000Z';

DROP INDEX sessions_by_account;
CREATE INDEX sessions_of ON sessions (account, seen_at);

-- Links in letters to somebody of the office, with which they choose a password.
CREATE TABLE account_links (
	token_hash TEXT PRIMARY KEY,
	account TEXT NOT NULL REFERENCES accounts (id),
	purpose TEXT NOT NULL CHECK (purpose IN ('invitation', 'reset')),
	expires_at TEXT NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX account_links_of ON account_links (account);

CREATE TABLE passkeys (
	id TEXT PRIMARY KEY,
	account TEXT NOT NULL REFERENCES accounts (id),
	name TEXT NOT NULL,
	public_key BLOB NOT NULL,
	counter INTEGER NOT NULL,
	created_at TEXT NOT NULL,
	used_at TEXT
) STRICT, WITHOUT ROWID;
CREATE INDEX passkeys_of ON passkeys (account, created_at);

-- Each good once, in place of a code from the device that is lost.
CREATE TABLE recovery_codes (
	account TEXT NOT NULL REFERENCES accounts (id),
	hash TEXT NOT NULL,
	PRIMARY KEY (account, hash)
) STRICT, WITHOUT ROWID;

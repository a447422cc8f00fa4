-- Words to one person alone: the record has their digest, and only the house keeps the salt and the words.
CREATE TABLE private_words (
	digest TEXT PRIMARY KEY,
	packet TEXT NOT NULL,
	person TEXT NOT NULL,
	salt TEXT NOT NULL,
	words TEXT NOT NULL
) STRICT;
CREATE INDEX private_words_of ON private_words (packet, person);

-- The row that a packet's follow-up has put into a sheet, for whoever is told of it.
CREATE INDEX IF NOT EXISTS intake_rows_packet ON intake_rows (packet, follow_up);

/** A row as the server lists it. */
export interface BatchRow {
	id: string;
	n: number;
	/** of the file, as its spreadsheet counts */
	line: number;
	cells: string[];
	is: string;
	said: string;
	/** taken out by hand */
	out: boolean;
	packet: string | null;
	/** since when that stands as it does, ISO 8601 */
	since: string | null;
	/** the cell that is faulty */
	column: number | null;
	/** what cells were before they were put right, by column */
	before: Record<number, string>;
	/** it went, and says something else now */
	changed: boolean;
}

/** What a column may be. */
export interface Wanted {
	id: string;
	name: string;
	needed: boolean;
	choices: string[];
	/** two columns may make it: a name */
	joins: boolean;
}

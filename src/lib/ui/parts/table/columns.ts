/** A column of a table. */
export interface Column<Row> {
	key: string;
	/** its head; `unseen`: for those who can't see, who else sees it from the rows */
	name: string;
	unseen?: true;
	/** by what its rows are put in order here; a list that comes page by page says `sorts` instead, and its server does it */
	by?: (row: Row) => string | number | null | undefined;
	sorts?: boolean;
	/** the first press puts what has most at the top: for what one looks for at that end */
	mostFirst?: true;
	/** classes of its cells */
	look?: string;
	/** it can't be put away: without it nobody would know what a row is */
	fixed?: boolean;
}

/** By which column the rows stand, and whether from the end. */
export interface Order {
	key: string;
	down: boolean;
}

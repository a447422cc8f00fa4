import type Database from 'better-sqlite3';

type Prepared = Database.Statement<unknown[]>;

/** So many statements are kept; there are fewer, but for those whose text is put together. */
const MOST = 1000;

/**
 * Makes a database keep its statements by their text, since making one takes longer than most of them run (SQLite, Prepared
 * Statements). Whoever goes through rows one by one gets a statement of their own: a kept one would be busy meanwhile.
 */
export function remember(db: Database.Database): void {
	const make = db.prepare.bind(db) as (sql: string) => Prepared;
	const kept = new Map<string, Prepared>();
	const keep = (key: string, made: () => Prepared): Prepared => {
		const known = kept.get(key);
		if (known) return known;
		if (kept.size >= MOST) kept.clear();
		const statement = made();
		kept.set(key, statement);
		return statement;
	};
	const ofOneColumn = (sql: string): Prepared => {
		const statement = make(sql).pluck();
		statement.iterate = (...given) =>
			make(sql)
				.pluck()
				.iterate(...given) as IterableIterator<unknown>;
		statement.pluck = () => statement;
		return statement;
	};
	const ofRows = (sql: string): Prepared => {
		const statement = make(sql);
		statement.iterate = (...given) => make(sql).iterate(...given) as IterableIterator<unknown>;
		// how a statement answers is a property of it, so that each way has one of its own
		statement.pluck = () => keep(`1 ${sql}`, () => ofOneColumn(sql));
		return statement;
	};
	db.prepare = ((sql: string) => keep(`* ${sql}`, () => ofRows(sql))) as typeof db.prepare;
}

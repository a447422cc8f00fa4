import { untrack } from 'svelte';
import type { Place } from '../../core/packet';

/** A page of a list as the server gives it; `next` is where the next one begins, null at the end. */
export interface Page<Row> {
	rows: Row[];
	next: Place | null;
}

/** A list that comes page by page, and is made new where it stands when the server says that something has changed. */
export class Paged<Row extends { id: string }> {
	rows = $state.raw<Row[]>([]);
	next = $state.raw<Place | null>(null);
	#query = '';
	#began = 0;

	/** @param url the address of the pages after the first */
	constructor(
		private readonly url: string,
		first: Page<Row>,
		query: string
	) {
		this.rows = first.rows;
		this.next = first.next;
		this.#query = query;
	}

	/** A first page, anew: of another question, or of the same with as many pages as were here fetched again behind it. */
	async begin(first: Page<Row>, query: string): Promise<void> {
		// how many are here now is no reason to begin anew
		const until = untrack(() => (query === this.#query ? this.rows.length : 0));
		this.#query = query;
		const turn = ++this.#began;
		let [rows, next] = [first.rows, first.next];
		while (next && rows.length < until) {
			const page = await this.#fetched(next);
			if (turn !== this.#began) return;
			if (!page) break;
			[rows, next] = [joined(rows, page.rows), page.next];
		}
		this.rows = rows;
		this.next = next;
	}

	/** The page after the last one; whoever filters for few is asked again until there is something, or the end. */
	async more(): Promise<void> {
		const turn = this.#began;
		const before = this.rows.length;
		while (this.next && this.rows.length === before) {
			const page = await this.#fetched(this.next);
			if (!page || turn !== this.#began) return;
			this.rows = joined(this.rows, page.rows);
			this.next = page.next;
		}
	}

	async #fetched({ at, n }: Place): Promise<Page<Row> | null> {
		try {
			const answer = await fetch(`${this.url}?${this.#query}&after=${encodeURIComponent(`${n} ${at}`)}`);
			return answer.ok ? ((await answer.json()) as Page<Row>) : null;
		} catch {
			return null;
		}
	}
}

/** What moved meanwhile may come twice: once is enough, where it stood first. */
function joined<Row extends { id: string }>(rows: Row[], more: Row[]): Row[] {
	const here = new Set(rows.map(({ id }) => id));
	return [...rows, ...more.filter(({ id }) => !here.has(id))];
}

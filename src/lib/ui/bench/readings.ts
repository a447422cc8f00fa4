import { wrap, type Remote } from 'comlink';
import type { Paper } from '../../core/packet';
import {
	shownPage,
	streamOf,
	type Fitting,
	type FoundPlace,
	type PaperReading,
	type ShownPage,
	type Stream,
	type ToFit
} from '../../core/page';
import type { Read, Reader } from './reading.worker';

/** What is printed on the documents: fetched once each, looked at page by page when it is needed. */
export class Readings {
	private readings = new Map<string, Promise<PaperReading>>();
	private pages = new Map<string, ShownPage>();
	private ready = new Map<string, PaperReading>();
	private worker: Worker | undefined;
	private reader: Remote<Reader> | undefined;
	private texts = new Map<string, Stream>();

	/** Fetches what is known of a document. A failure is forgotten, so that the next asks again. */
	load(digest: string): Promise<PaperReading> {
		let reading = this.readings.get(digest);
		if (!reading) {
			reading = fetch(`/papers/${digest}/reading`, { cache: 'no-cache' }).then(async (response) => {
				if (!response.ok) throw new Error('no reading');
				const body = (await response.json()) as PaperReading;
				this.ready.set(digest, body);
				return body;
			});
			reading.catch(() => this.readings.delete(digest));
			this.readings.set(digest, reading);
		}
		return reading;
	}

	/** Fetches all of these, and tells of each that is there; one that can't be fetched is left out. */
	loadAll(papers: readonly Paper[], there: () => void): void {
		for (const { digest } of papers) this.load(digest).then(there, () => undefined);
	}

	/** Forgets a document, of which more has been read, and fetches it anew. */
	async loadAgain(digest: string): Promise<void> {
		this.readings.delete(digest);
		await this.load(digest);
		for (const made of [this.pages, this.texts])
			for (const name of made.keys()) if (name.startsWith(`${digest} `)) made.delete(name);
	}

	/** One page as shown; null until its document has been fetched. */
	page(paper: Paper, number: number): ShownPage | null {
		return this.made(this.pages, paper, number, (reading, size) => shownPage(reading, number, size));
	}

	/** One page as a text of its own; null until its document has been fetched. */
	pageText(paper: Paper, number: number): Stream | null {
		return this.made(this.texts, paper, number, (reading, size) =>
			streamOf({ words: [reading.words[number] ?? []], drawn: [reading.drawn[number] ?? { lines: [], boxes: [] }] }, [
				size
			])
		);
	}

	/** A whole document as one text; null until it has been fetched. */
	text(paper: Paper): Stream | null {
		return this.made(this.texts, paper, 'whole', (reading) => streamOf(reading, paper.pages));
	}

	/** What is made of a document's reading, once. */
	private made<T>(
		known: Map<string, T>,
		paper: Paper,
		which: number | 'whole',
		make: (reading: PaperReading, size: Paper['pages'][0]) => T
	): T | null {
		const name = `${paper.digest} ${which}`;
		const there = known.get(name);
		if (there !== undefined) return there;
		const reading = this.ready.get(paper.digest);
		const size = paper.pages[which === 'whole' ? 0 : which];
		if (!reading || !size) return null;
		const made = make(reading, size);
		known.set(name, made);
		return made;
	}

	/** The places of a document, found in a worker. */
	async find(paper: Paper): Promise<FoundPlace[]> {
		return this.work.find(await this.read(paper));
	}

	/** Fields of one document laid on another, in a worker. Fails where one of them can't be read. */
	async fit(old: Omit<Paper, 'id'>, next: Omit<Paper, 'id'>, fields: ToFit[]): Promise<Fitting> {
		return this.work.fit(await this.read(old), await this.read(next), fields);
	}

	private async read(paper: Omit<Paper, 'id'>): Promise<Read> {
		return { reading: await this.load(paper.digest), pages: paper.pages };
	}

	private get work(): Remote<Reader> {
		this.worker ??= new Worker(new URL('./reading.worker.ts', import.meta.url), { type: 'module' });
		return (this.reader ??= wrap<Reader>(this.worker));
	}

	/** Ends the worker, when the Bench is left. */
	close(): void {
		this.worker?.terminate();
	}
}

import { wrap, type Remote } from 'comlink';
import type { Paper } from '../../core/packet';
import { shownPage, type FoundPlace, type PaperReading, type ShownPage } from '../../core/page';
import type { Finder } from './places.worker';

/** What is printed on the documents: fetched once each, looked at page by page when it is needed. */
export class Readings {
	private readings = new Map<string, Promise<PaperReading>>();
	private pages = new Map<string, ShownPage>();
	private ready = new Map<string, PaperReading>();
	private worker: Worker | undefined;
	private finder: Remote<Finder> | undefined;

	/** Fetches what is known of a document. A failure is forgotten, so that the next asks again. */
	load(digest: string): Promise<PaperReading> {
		let reading = this.readings.get(digest);
		if (!reading) {
			reading = fetch(`/papers/${digest}/reading`).then(async (response) => {
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

	/** One page as shown; null until its document has been fetched. */
	page(paper: Paper, number: number): ShownPage | null {
		const name = `${paper.digest} ${number}`;
		const known = this.pages.get(name);
		if (known) return known;
		const reading = this.ready.get(paper.digest);
		const size = paper.pages[number];
		if (!reading || !size) return null;
		const page = shownPage(reading, number, size);
		this.pages.set(name, page);
		return page;
	}

	/** The places of a document, found in a worker. */
	async find(paper: Paper): Promise<FoundPlace[]> {
		const reading = await this.load(paper.digest);
		this.worker ??= new Worker(new URL('./places.worker.ts', import.meta.url), { type: 'module' });
		this.finder ??= wrap<Finder>(this.worker);
		return this.finder.find(reading, paper.pages);
	}

	/** Ends the worker, when the Bench is left. */
	close(): void {
		this.worker?.terminate();
	}
}

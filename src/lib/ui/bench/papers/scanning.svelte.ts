import type { Paper } from '../../../core/packet';
import type { Scans } from '../../../core/page';
import type { Adding } from './adding.svelte';
import type { Bench } from '../bench.svelte';
import { pagesAsTheyAre, straightened } from '../../../core/plan';

/** How often it is asked how far a machine is with reading. */
const PAUSE = 2000;

/**
 * Follows the reading of pages that are pictures: how far it is, what to look for anew when more has been read, and which
 * pages could be put straight. The Bench is usable meanwhile.
 */
export class Scanning {
	/** by the digest of their document */
	private now = $state.raw<Record<string, Scans>>({});
	private readonly watched: string[] = [];
	private over = false;

	constructor(
		private readonly bench: Bench,
		private readonly adding: Adding
	) {}

	/** Documents that are still being read, with how far. */
	readonly underWay = $derived.by(() =>
		this.bench.plan.papers.flatMap((paper) => {
			const scans = this.now[paper.digest];
			return scans && scans.done < scans.pages.length ? [{ paper, ...scans }] : [];
		})
	);

	/** Begins to follow a document; does nothing where it is followed, or has no pictures. */
	async watch(paper: Paper): Promise<void> {
		if (this.watched.includes(paper.digest)) return;
		this.watched.push(paper.digest);
		const first = await this.ask(paper.digest);
		if (!first || first.done >= first.pages.length) return;
		for (let before = first.done; !this.over;) {
			await new Promise((go) => setTimeout(go, PAUSE));
			const scans = await this.ask(paper.digest);
			if (!scans || !this.bench.plan.papers.some((one) => one.digest === paper.digest)) return;
			if (scans.done > before) await this.bench.readAgain(paper);
			before = scans.done;
			if (scans.done >= scans.pages.length) return this.done(paper, scans);
		}
	}

	/** Ends it, when the Bench is left. */
	close(): void {
		this.over = true;
	}

	private async ask(digest: string): Promise<Scans | null> {
		try {
			const response = await fetch(`/papers/${digest}/reading?scans`);
			const scans = response.ok ? ((await response.json()) as Scans | null) : null;
			if (scans) this.now = { ...this.now, [digest]: scans };
			return scans;
		} catch {
			// asked again in a while
			return this.now[digest] ?? null;
		}
	}

	private done(paper: Paper, scans: Scans): void {
		const { read, pages } = scans;
		if (read.length === 0)
			return this.adding.say(
				`The pictures in “${paper.name}” could not be read. Fields can be placed by hand, as on any page.`
			);
		const sure = Math.round(read.reduce((sum, one) => sum + one.sure, 0) / read.length);
		const lost = pages.length - read.length;
		const what = read.length === 1 ? 'One page' : `${read.length} pages`;
		const crooked = read.filter((one) => one.turn !== 0 || one.lean !== 0);
		this.adding.say(
			`${what} of “${paper.name}” ${read.length === 1 ? 'is a picture and was' : 'are pictures and were'} read by a machine, ${sure} % sure.${lost > 0 ? ` ${lost} could not be read.` : ''} The pages themselves are untouched.${crooked.length > 0 ? ` ${crookedSaid(crooked)}` : ''}`,
			false,
			crooked.length > 0
				? [
						{
							say: crooked.length === 1 ? 'Put it straight' : 'Put them straight',
							go: () =>
								void this.adding.reorder(paper, straightened(pagesAsTheyAre(paper), crooked), 'put pages straight')
						}
					]
				: undefined
		);
		void this.adding.recognise(paper);
	}
}

function crookedSaid(crooked: Scans['read']): string {
	return crooked
		.slice(0, 4)
		.map(({ page, turn, lean }) =>
			turn === 180
				? `Page ${page + 1} stands on its head.`
				: turn !== 0
					? `Page ${page + 1} lies on its side.`
					: `Page ${page + 1} is askew by ${Math.abs(lean)}°.`
		)
		.join(' ');
}

import { localeOf, type Paper, type Plan } from '../../../core/packet';
import { isMarkerKnown, markerFields } from '../../../core/plan';
import { post } from '../../post';
import type { Bench } from '../bench.svelte';
import { addPapers, attach } from '../../../core/plan';
import { withTemplate } from '../../../core/plan';
import { reordered, type PagePlace } from '../../../core/plan';
import { follow, type Progress } from './taking';

export interface Note {
	say: string;
	bad: boolean;
	/** what may be done about it, each in a press */
	ways?: { say: string; go: () => void }[];
}

/** What a document that was added looks like, for a person to take or leave. */
export interface LooksLike {
	paper: Paper;
	verdict: 'sure' | 'ask';
	templates: { id: string; title: string; paper: string; share: number }[];
}

/** A fit that is wanted: the plan the fields are of, which of its documents, and its new version. */
export interface WantedFit {
	plan: Plan;
	paper: string;
	next: Omit<Paper, 'id'>;
}

interface Taken {
	name: string;
	digest: string;
	pages: Paper['pages'];
	stripped: string[];
	notes: string[];
	unlike?: number[];
	shaded?: string[];
	attached?: true;
	why: string;
}

/** How a Word document with tracked changes is wanted. */
type Changes = 'accepted' | 'before';

const isPicture = (file: File) => /^image\/(png|jpeg)$/.test(file.type);

/** A document as a plan holds it, but for its id. */
function paperOf({
	name,
	digest,
	pages,
	shaded
}: Pick<Taken, 'name' | 'digest' | 'pages' | 'shaded'>): Omit<Paper, 'id'> {
	return { name, digest, pages, ...(shaded && { shaded }) };
}

/** Documents on their way in: taken by the server, recognised, their markers made fields, or exchanged for others. */
export class Adding {
	/** the file that is on its way; '' where none is */
	busy = $state('');
	/** how far it is */
	progress = $state.raw<Progress>({ is: 'sent' });
	private ending: AbortController | null = null;
	notes = $state<Note[]>([]);
	/** pictures that come together are the pages of one document */
	together = $state(true);
	looksLike = $state.raw<LooksLike | null>(null);
	fit = $state.raw<WantedFit | null>(null);
	/** whether pages that look different from their file are looked at */
	looking = $state(false);

	constructor(private readonly bench: Bench) {}

	say(say: string, bad = false, ways?: Note['ways']): void {
		this.notes.push({ say, bad, ...(ways && { ways }) });
	}

	/** Calls off what is on its way in, and what comes after it. */
	cancel(): void {
		this.ending?.abort();
	}

	/** Adds documents, in their order. Pictures that come together are the pages of one, where that is wished. */
	async add(files: File[]): Promise<void> {
		this.notes = [];
		for (const group of this.grouped(files)) {
			await this.addOne(group);
			if (this.ending?.signal.aborted) return;
		}
	}

	private async addOne(files: File[], changes?: Changes): Promise<void> {
		const taken = await this.take(files, (wanted) => void this.addOne(files, wanted), changes);
		if (!taken) return;
		if (taken.attached) {
			this.bench.change('attach a file', attach(this.bench.plan, { name: taken.name, digest: taken.digest }));
			this.say(`“${taken.name}” goes along unchanged, as an attachment. ${taken.why}`);
			return;
		}
		const { digest } = taken;
		this.bench.change('add a document', addPapers(this.bench.plan, [paperOf(taken)]));
		const paper = this.bench.plan.papers.at(-1);
		// a lock of the template may have kept it out, which the Bench says
		if (paper?.digest !== digest) return;
		await this.mark(paper);
		await this.recognise(paper);
	}

	private grouped(files: File[]): File[][] {
		const groups: File[][] = [];
		for (const file of files) {
			const last = groups.at(-1);
			if (this.together && last && isPicture(file) && isPicture(last[0]!)) last.push(file);
			else groups.push([file]);
		}
		return groups;
	}

	/** Takes a file in for one that is there; its fields are then fitted. */
	async exchange(paper: Paper, files: File[], changes?: Changes): Promise<void> {
		this.notes = [];
		const taken = await this.take(files, (wanted) => void this.exchange(paper, files, wanted), changes);
		if (!taken) return;
		if (taken.attached) return this.say(`“${taken.name}” can only go along unchanged. ${taken.why}`, true);
		this.fit = { plan: this.bench.plan, paper: paper.id, next: paperOf(taken) };
	}

	/** Brings the pages of a document into another order, turns or leaves some out; fields go with their pages. */
	async reorder(paper: Paper, pages: PagePlace[], name: string): Promise<void> {
		this.busy = paper.name;
		const taken = await post<Taken>(
			`/bench/${this.bench.id}/pages`,
			{ digest: paper.digest, name: paper.name, pages, locale: localeOf(this.bench.plan) },
			'The pages are as they were.'
		);
		this.busy = '';
		if ('wrong' in taken) this.say(taken.wrong, true);
		else {
			this.told(taken);
			this.bench.change(name, reordered(this.bench.plan, paper.id, taken, pages));
		}
	}

	/** Lays a template over a document that was added: its people, route and letters come along. */
	async useTemplate(id: string, its: string, paper: Paper): Promise<void> {
		this.looksLike = null;
		try {
			const response = await fetch(`/templates/${id}/plan`);
			const body = (await response.json()) as { plan?: Plan; say?: string };
			if (!response.ok || !body.plan) return this.say(body.say ?? 'The template could not be read.', true);
			this.fit = { plan: withTemplate(this.bench.plan, body.plan, paper.id), paper: its, next: paperOf(paper) };
		} catch {
			this.say('No connection, so the template could not be read. The document is kept.', true);
		}
	}

	/** Markers of a document become fields, in a step of their own; those that can't be understood are named. */
	private async mark(paper: Paper): Promise<void> {
		try {
			await this.bench.readings.load(paper.digest);
		} catch {
			return;
		}
		const found = markerFields(this.bench.plan, paper, (number) => this.bench.readings.page(paper, number));
		const known = found.filter(isMarkerKnown);
		if (known.length > 0) {
			this.bench.change(`place ${known.length} markers`, {
				...this.bench.plan,
				fields: [...this.bench.plan.fields, ...known.map((one) => one.field)]
			});
			this.say(`${known.length} ${known.length === 1 ? 'marker' : 'markers'} of “${paper.name}” became fields.`);
		}
		for (const one of found)
			if (!isMarkerKnown(one))
				this.say(
					`The marker ${one.marker.text} on page ${one.marker.page + 1} names ${one.unknown}, which is not here.${one.nearest ? ` Did you mean “${one.nearest}”?` : ''}`,
					true
				);
	}

	/** Says which template a document looks like, where nothing has been made of it yet. */
	async recognise(paper: Paper): Promise<void> {
		const { plan } = this.bench;
		// a plan with fields is a piece of work already: there the document is exchanged, or templates are joined
		if (plan.fields.length > 0 || this.bench.asTemplate) return;
		try {
			const response = await fetch(`/bench/${this.bench.id}/recognise?digest=${paper.digest}`);
			if (!response.ok) return;
			const found = (await response.json()) as { verdict: 'sure' | 'ask' | 'none'; templates: LooksLike['templates'] };
			if (found.verdict !== 'none') this.looksLike = { paper, verdict: found.verdict, templates: found.templates };
		} catch {
			// not recognised: it is a document like any other
		}
	}

	/**
	 * Sends files to be taken in as one document; null where that was refused or called off, which is said. `again`: what
	 * does it once more, when somebody has said how tracked changes are wanted.
	 */
	private async take(files: File[], again: (changes: Changes) => void, changes?: Changes): Promise<Taken | null> {
		const name = files[0]!.name;
		this.busy = name;
		this.progress = { is: 'sent' };
		this.ending = new AbortController();
		try {
			const body = new FormData();
			for (const file of files) body.append('file', file);
			const wish = `&locale=${localeOf(this.bench.plan)}${changes ? `&changes=${changes}` : ''}`;
			const answered = await follow<Taken>(
				`/bench/${this.bench.id}/papers?name=${encodeURIComponent(name)}${wish}`,
				files.length === 1 ? files[0]! : body,
				files.length === 1 ? 'application/octet-stream' : null,
				(progress) => (this.progress = progress),
				this.ending.signal
			);
			if (answered.is === 'refused') {
				if (answered.code === 'docx-changes')
					this.say(answered.say, true, [
						{ say: 'All accepted', go: () => again('accepted') },
						{ say: 'As it was before', go: () => again('before') }
					]);
				else this.say(`${answered.say} Everything else is kept.`, true);
				return null;
			}
			this.told(answered);
			if (answered.stripped.length > 0)
				this.say(`Taken out of “${answered.name}”, since it could act by itself: ${answered.stripped.join(', ')}.`);
			for (const note of answered.notes) this.say(note);
			return answered;
		} catch {
			if (this.ending.signal.aborted) this.say(`“${name}” was called off. Nothing of it was added.`);
			else this.say(`“${name}” did not arrive: no connection. Add it again.`, true);
			return null;
		} finally {
			this.busy = '';
		}
	}

	/** Keeps which pages look different from their file, and offers to look at them. */
	private told({ name, digest, stripped, unlike = [] }: Taken): void {
		this.bench.leftOut = { ...this.bench.leftOut, [digest]: stripped };
		this.bench.unlike = { ...this.bench.unlike, [digest]: unlike };
		if (unlike.length === 0) return;
		const pages = unlike.slice(0, 8).map((page) => page + 1);
		const which = `${unlike.length === 1 ? 'Page' : 'Pages'} ${pages.join(', ')}${unlike.length > 8 ? ' and others' : ''}`;
		this.say(
			`${which} of “${name}” ${unlike.length === 1 ? 'looks' : 'look'} different from your file. Look at ${unlike.length === 1 ? 'it' : 'them'} before this goes.`,
			true,
			[{ say: 'Look at it', go: () => (this.looking = true) }]
		);
	}
}

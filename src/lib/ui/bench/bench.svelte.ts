import { patient } from '../post';
import { get, set } from 'idb-keyval';
import { provideAll } from '../../core/field/formats/all-checkers';
import { isoDay } from '../../core/calendar';
import {
	kindOf,
	live,
	questions,
	senderAnswers,
	spread,
	type Answers,
	type FieldContext,
	type Live
} from '../../core/field';
import {
	ASKED,
	localeOf,
	preflight,
	preflightTemplate,
	SENDER,
	type Correcting,
	type KindName,
	type Paper,
	type PersonLock,
	type Plan,
	type PlanLock
} from '../../core/packet';
import type { ActKind } from '../../core/notary';
import { isLocked, isPersonLocked, lockedChange } from '../../core/template';
import type { FoundPlace, ShownRect } from '../../core/page';
import { rightNow } from '../dates';
import { quiet } from '../pages/pdf';
import { post } from '../post';
import { actorsOf } from '../../core/route';
import { stillFree, type FreePlace } from '../../core/plan';
import { begin, changed, redone, undone, type History } from '../../core/plan';
import { faultIn, hasFinished, papersFixed } from './correcting';
import { historyOf, keptOf, type KeptHistory } from '../../core/plan';
import { Readings } from './readings';

export interface SavedDraft {
	id: string;
	revision: number;
	plan: Plan;
	savedAt: string;
}

export type Saving =
	{ is: 'saved'; at: string } | { is: 'saving' } | { is: 'failed'; say: string } | { is: 'elsewhere'; say: string };

provideAll();

const PAUSE = 500;
const AGAIN = 4000;
const BURST = 900;

/** Units in which exact positions are written, in points. */
export const UNITS = { mm: 72 / 25.4, pt: 1, in: 72 } as const;
export type Unit = keyof typeof UNITS;

/** A notary as the Bench has to know one. */
export interface NotaryToChoose {
	id: string;
	name: string;
	email: string;
	jurisdiction: string;
	/** why they can't act now; '' where they can */
	fault: string;
	hours: string;
	fees: Partial<Record<ActKind, string>>;
}

/** What the inspector is about. */
export type Chosen = { what: 'packet' } | { what: 'person'; id: string } | { what: 'fields'; ids: string[] };

/** The Bench's memory: the plan with its history, what is chosen, what is being placed, and how saving stands. */
export class Bench {
	readonly id: string;
	private history = $state.raw<History<Plan>>() as History<Plan>;
	private revision: number;
	private kept: Plan;
	private timer: ReturnType<typeof setTimeout> | undefined;
	private lastChange = 0;
	private running: Promise<void> | null = null;
	/** when what is kept was saved */
	private savedAt = '';

	chosen = $state<Chosen>({ what: 'packet' });
	/** whose the next placed field will be */
	person = $state<string | null>(null);
	/** the kind in hand, placed again and again until Esc */
	placing = $state<KindName | null>(null);
	saving = $state<Saving>() as Saving;
	unit = $state<Unit>('mm');
	/** whether the words are shown by which the chosen field is pinned */
	showPins = $state(false);
	/** takes the words of the next band, while a phrase is being marked on the page */
	marking = $state.raw<((words: string, paper: string, page: number, rect: ShownRect) => void) | null>(null);
	/** whether the last band had no words in it */
	missed = $state(false);
	/** the packet that is corrected here; null for one to be */
	correcting = $state.raw<Correcting | null>(null);
	/** why the last change was not made; '' where it was */
	refused = $state('');
	/** fields that were taken without the page saying whose they are, and for whom; another choice unmarks them */
	untold = $state.raw<Record<string, string | null>>({});
	/** whether found places are shown */
	showFound = $state(true);
	/** found places by the digest of their document */
	private found = $state.raw<Record<string, FoundPlace[]>>({});
	/** pages that look different from their file and nobody has accepted yet, by the digest of their document */
	unlike = $state.raw<Record<string, number[]>>({});
	/** what was taken out of a document, or set on its pages, by its digest */
	leftOut = $state.raw<Record<string, string[]>>({});
	readonly unlikeOf = (digest: string): number[] => this.unlike[digest] ?? [];
	readonly readings = new Readings();

	readonly plan = $derived.by(() => this.history.now);
	readonly findings = $derived.by(() =>
		this.asTemplate
			? preflightTemplate(this.history.now, this.unlikeOf)
			: preflight(this.history.now, this.office.sender, this.unlikeOf)
	);
	/** everybody who can be given a field */
	readonly actors = $derived.by(() => actorsOf(this.history.now));
	/** found places that no field stands on, by their document in the plan */
	readonly free = $derived.by(() =>
		Object.fromEntries(
			this.history.now.papers.map((paper): [string, FreePlace[]] => [
				paper.id,
				stillFree(this.history.now, paper.id, this.found[paper.digest] ?? [])
			])
		)
	);
	/** the plan with what its sender has answered so far */
	readonly asSender = $derived.by(() => this.look(this.senderAnswers));
	/** what the sender has answered, and what is known of them */
	readonly senderAnswers = $derived.by(() => senderAnswers(this.history.now, this.context));
	/** what must be put right before it can go, and what is only worth a look */
	readonly grave = $derived.by(() => this.findings.filter((f) => !f.mild));
	readonly undoName = $derived.by(() => this.history.past[this.history.past.length - 1]?.name ?? null);
	readonly redoName = $derived.by(() => this.history.future[0]?.name ?? null);
	readonly fieldIds = $derived.by(() => (this.chosen.what === 'fields' ? this.chosen.ids : []));

	constructor(
		draft: SavedDraft,
		readonly office: { zone: string; sender: FieldContext['person']; folders?: string[]; notaries?: NotaryToChoose[] },
		/** whether this is a template being made, and the plan whose locks hold where this was made from one */
		private readonly made: {
			asTemplate: boolean;
			base: Plan | null;
			correcting?: Correcting | null;
			unlike?: Record<string, number[]>;
			leftOut?: Record<string, string[]>;
		} = {
			asTemplate: false,
			base: null
		}
	) {
		this.correcting = made.correcting ?? null;
		this.unlike = made.unlike ?? {};
		this.leftOut = made.leftOut ?? {};
		this.id = draft.id;
		this.revision = draft.revision;
		this.history = begin(draft.plan);
		this.kept = draft.plan;
		this.savedAt = draft.savedAt;
		this.saving = { is: 'saved', at: draft.savedAt };
		this.person = actorsOf(draft.plan).find((p) => !hasFinished(this.correcting, p.id))?.id ?? null;
	}

	get asTemplate(): boolean {
		return this.made.asTemplate;
	}

	/** Whether the template this was made from has it locked. */
	isLocked(what: PlanLock): boolean {
		return (
			(this.made.base !== null && isLocked(this.made.base, what)) || (what === 'papers' && papersFixed(this.correcting))
		);
	}

	isPersonLocked(id: string, what: PersonLock): boolean {
		return isPersonLocked(
			this.made.base?.people.find((p) => p.id === id),
			what
		);
	}

	/** A phrase has been marked on a page: whoever asked for it has it, and bands choose fields again. Without words another is awaited. */
	marked(words: string, paper: string, page: number, rect: ShownRect): void {
		this.missed = words === '';
		if (this.missed) return;
		const take = this.marking;
		this.marking = null;
		take?.(words, paper, page, rect);
	}

	/** One named step. `burst` joins it to the step before when that has the same name and was just now. */
	change(name: string, plan: Plan, burst = false): void {
		const no = (this.made.base && lockedChange(this.made.base, plan)) ?? faultIn(this.correcting, plan);
		this.refused = no ? no.say : '';
		if (no) return;
		const soon = Date.now() - this.lastChange < BURST;
		this.lastChange = Date.now();
		this.history = changed(this.history, name, plan, burst && soon);
		this.person ??= actorsOf(plan)[0]?.id ?? null;
		this.later();
	}

	undo(): void {
		this.move(undone(this.history));
	}

	redo(): void {
		this.move(redone(this.history));
	}

	/** Takes up the undo steps of before the reload, where the plan is still the one they lead to. */
	async restore(): Promise<void> {
		try {
			const kept = await get<{ revision: number; history: KeptHistory }>(this.historyName);
			if (!kept || kept.revision !== this.revision || this.unsaved || this.history.past.length > 0) return;
			this.history = historyOf(kept.history, this.history.now);
		} catch {
			// a browser that keeps nothing: undo begins anew
		}
	}

	private keepHistory(): void {
		if (this.unsaved) return;
		set(this.historyName, { revision: this.revision, history: keptOf(this.history) }).catch(() => undefined);
	}

	private get historyName(): string {
		return `pellum-undo-${this.id}`;
	}

	/** Reads a document and looks for places in it, once; what fails is tried again when it is next asked for. */
	async read(paper: Paper): Promise<void> {
		if (this.found[paper.digest]) return;
		try {
			await quiet();
			const places = await this.readings.find(paper);
			this.found = { ...this.found, [paper.digest]: places };
		} catch {
			// without a reading there is nothing to snap to and nothing found; placing works all the same
		}
	}

	/** Looks for places anew in a document of which more has been read. */
	async readAgain(paper: Paper): Promise<void> {
		try {
			await this.readings.loadAgain(paper.digest);
			this.found = { ...this.found, [paper.digest]: await this.readings.find(paper) };
		} catch {
			// what was read before is still there
		}
	}

	/** Every place found on a document, taken or not. */
	foundOn(paper: Paper): FoundPlace[] {
		return this.found[paper.digest] ?? [];
	}

	/** What the kinds may know of the sender, here and now. */
	private get context(): FieldContext {
		const { sender, zone } = this.office;
		return { person: sender, now: rightNow(), zone, locale: localeOf(this.plan) };
	}

	/** The day it is in the organisation's zone, ISO 8601. */
	get today(): string {
		return isoDay(this.office.zone, rightNow());
	}

	private look(answers: Answers): Live {
		return live(this.plan, answers, this.today);
	}

	/** The plan as it may look one day: the sender's answers, and a sample from everybody else. */
	withSamples(): Live {
		const samples: Answers = {};
		for (const question of questions(this.plan.fields)) {
			const first = question[0]!;
			const kind = kindOf(first.kind);
			const sample = kind.filledBy === 'person' ? kind.sample(first, this.context, question) : null;
			if (sample) samples[first.id] = sample;
		}
		return this.look({ ...spread(this.plan.fields, samples), ...this.senderAnswers });
	}

	choosePerson(id: string): void {
		this.chosen = { what: 'person', id };
		if (this.actors.some((p) => p.id === id) && !hasFinished(this.correcting, id)) this.person = id;
	}

	/** Fields are chosen; what was asked before the document stands on no page, and can't be. */
	chooseFields(wanted: string[]): void {
		const ids = wanted.filter((id) => this.plan.fields.find((f) => f.id === id)?.paper !== ASKED);
		this.chosen = ids.length > 0 ? { what: 'fields', ids } : { what: 'packet' };
		const owner = this.plan.fields.find((f) => f.id === ids[0])?.person;
		const someone = owner === SENDER || this.plan.people.some((p) => p.id === owner);
		if (owner && someone && !hasFinished(this.correcting, owner)) this.person = owner;
	}

	/** Saves what there is to save; false when it could not be. */
	async flush(): Promise<boolean> {
		clearTimeout(this.timer);
		while (this.running) await this.running;
		// a save that failed may have arrived all the same, so it is asked again even where all has been taken back since
		const unsure = this.kept !== this.plan || this.saving.is === 'failed';
		if (unsure && this.saving.is !== 'elsewhere') await this.save(false);
		else if (this.saving.is === 'saving') this.saving = { is: 'saved', at: this.savedAt };
		return this.saving.is === 'saved';
	}

	/**
	 * Asks for something to be done with what stands here, saved first: `what` is the end of its address. Gives the answer, or
	 * the sentence that says why not and that all is kept.
	 */
	async ask<T extends object>(
		what: 'send' | 'schedule' | 'in-use' | 'correction' | 'changes',
		more: object = {}
	): Promise<T | { wrong: string }> {
		if (!(await this.flush())) return { wrong: 'The last change is not saved yet, so nothing was done.' };
		return post<T>(`/bench/${this.id}/${what}`, { revision: this.revision, ...more }, 'Everything is kept as it is.');
	}

	/** Makes this version stand over the one saved elsewhere. */
	async keepMine(): Promise<void> {
		await this.save(true);
	}

	get unsaved(): boolean {
		return this.kept !== this.plan;
	}

	private move(history: History<Plan>): void {
		this.history = history;
		const there = [...history.now.fields, ...history.now.people].map((one) => one.id);
		if (this.chosen.what === 'fields') this.chooseFields(this.chosen.ids.filter((id) => there.includes(id)));
		else if (this.chosen.what === 'person' && !there.includes(this.chosen.id)) this.chosen = { what: 'packet' };
		if (this.person && this.person !== SENDER && !there.includes(this.person)) this.person = null;
		this.later();
	}

	private later(pause = PAUSE): void {
		if (this.saving.is === 'elsewhere') return;
		if (this.saving.is === 'saved') this.saving = { is: 'saving' };
		clearTimeout(this.timer);
		this.timer = setTimeout(() => void this.flush(), pause);
	}

	private save(over: boolean): Promise<void> {
		this.running = this.put(over).finally(() => (this.running = null));
		return this.running;
	}

	private async put(over: boolean): Promise<void> {
		const plan = this.plan;
		try {
			const response = await patient(`/bench/${this.id}/save`, {
				method: 'PUT',
				headers: { 'Content-Type': 'application/json' },
				body: JSON.stringify({ revision: this.revision, plan, ...(over && { over }) })
			});
			const body = (await response.json()) as {
				revision: number;
				savedAt: string;
				/** how long a packet that is corrected stays shut */
				until?: string | null;
				code?: string;
				say?: string;
				message?: string;
			};
			if (response.ok) {
				this.revision = body.revision;
				this.kept = plan;
				this.savedAt = body.savedAt;
				this.saving = { is: 'saved', at: body.savedAt };
				if (this.correcting) this.correcting = { ...this.correcting, until: body.until ?? null };
				this.keepHistory();
				if (this.plan !== plan) this.later();
			} else if (body.code === 'changed-elsewhere') this.saving = { is: 'elsewhere', say: body.say ?? '' };
			else this.again(body.say ?? body.message ?? 'It could not be saved.');
		} catch {
			this.again('No connection. What you do here is kept in this tab and saved when it is back.');
		}
	}

	private again(say: string): void {
		this.saving = { is: 'failed', say };
		this.later(AGAIN);
	}
}

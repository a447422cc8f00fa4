import { isoDay } from '../../core/calendar';
import {
	askedFields,
	inTurn,
	inWords,
	kindOf,
	live,
	openFields,
	questionOf,
	spread,
	valueOf,
	type Answer,
	type Answers
} from '../../core/field';
import type { Refusal } from '../../core/refusal';
import { isAddress, type Field, type Names, type Paper, type Plan } from '../../core/packet';
import { opensBy } from '../../core/route';
import { ENGLISH, type Words } from '../../words/words';
import { wantCheckers } from './checkers';
import type { Keeper } from './keeper';

export interface Turn {
	papers: Paper[];
	fields: Field[];
	/** what others, and the sender, have answered */
	answers: Answers;
	saved: Answers;
	savedAt: string | null;
	me: { id: string; name: string };
	/** whom this person names on finishing */
	/** `when`: only where this rule holds */
	naming: { id: string; role: string; duty: string; when?: string | null }[];
	/** whom this person hosts */
	guests?: { id: string; name: string; done: boolean }[];
	locale: string;
	zone: string;
	/** ISO 8601 */
	now: string;
}

export type Keeping = { is: 'kept'; at: string | null } | { is: 'keeping' } | { is: 'not kept'; say: string };

const PAUSE = 600;

/** What a person has entered on the signing page: checked as it is typed, kept as it grows. */
export class Signing {
	/** every field of the packet that this page knows, in reading order */
	readonly fields: Field[];
	readonly me: string;
	readonly locale: string;
	private earlier: Answers;
	private today: string;
	answers = $state.raw<Answers>({});
	/** whom this person names, by the place they are named for */
	private places: Turn['naming'];
	readonly naming = $derived.by(() => this.places.filter(({ when }) => !when || opensBy(when, this.now)));
	names = $state<Names>({});
	/** how a host knows each guest */
	guests = $state<Record<string, string>>({});
	readonly hosted: NonNullable<Turn['guests']>;
	current = $state<string | null>(null);
	keeping = $state<Keeping>({ is: 'kept', at: null });
	private timer: ReturnType<typeof setTimeout> | undefined;

	/** the packet with what is entered so far */
	readonly now = $derived.by(() =>
		live(this.plan, { ...this.earlier, ...spread(this.fields, this.answers) }, this.today)
	);
	/** what there is to do: one field for each question that is shown, and what Pellum fills in by itself */
	readonly todo = $derived.by(() => {
		const asked = askedFields(this.plan, this.me, this.now, this.earlier);
		const seen: Field[][] = [];
		return this.fields.filter((field) => {
			const question = questionOf(this.fields, field);
			const mine = asked.includes(field) || (field.person === this.me && kindOf(field.kind).filledBy === 'finishing');
			if (!mine || !this.now.shown(field) || seen.includes(question)) return false;
			seen.push(question);
			return true;
		});
	});
	/** what is still to be done, by core's own rules */
	readonly open = $derived.by(() => openFields(this.plan, this.me, this.now, this.earlier));

	constructor(
		readonly keeper: Keeper,
		turn: Turn,
		readonly words: () => Words = () => ENGLISH
	) {
		this.me = turn.me.id;
		this.locale = turn.locale;
		this.places = turn.naming;
		this.names = Object.fromEntries(turn.naming.map(({ id }) => [id, { name: '', email: '', note: '' }]));
		this.hosted = turn.guests ?? [];
		this.guests = Object.fromEntries(this.hosted.map(({ id }) => [id, '']));
		this.earlier = turn.answers;
		this.today = isoDay(turn.zone, turn.now);
		this.fields = inTurn(turn.papers, turn.fields);
		wantCheckers(this.fields);
		const own = this.fields.filter((f) => f.person === this.me).map((f) => f.id);
		this.answers = Object.fromEntries(Object.entries(turn.saved).filter(([id]) => own.includes(id)));
		this.keeping = { is: 'kept', at: turn.savedAt };
		this.current = this.open[0]?.id ?? this.todo[0]?.id ?? null;
	}

	private get plan(): Pick<Plan, 'fields' | 'locale'> {
		return { fields: this.fields, locale: this.locale as NonNullable<Plan['locale']> };
	}

	/** Takes an answer under each field and its twins of this person; null takes it away. */
	give(ids: string[], answer: Answer | null): void {
		const next = { ...this.answers };
		for (const field of this.fields.filter((f) => ids.includes(f.id)))
			for (const twin of questionOf(this.fields, field)) {
				if (twin.person !== this.me) continue;
				if (answer === null) delete next[twin.id];
				else next[twin.id] = answer;
			}
		this.answers = next;
		this.keeping = { is: 'keeping' };
		clearTimeout(this.timer);
		this.timer = setTimeout(() => void this.keep(), PAUSE);
	}

	/** A place on the page was pressed: a button of a group is set or let go, anything else becomes current. */
	press(field: Field): void {
		const question = questionOf(this.fields, field);
		const answer = this.now.answer(field);
		const value = valueOf(field);
		if (this.todo.some((f) => question.includes(f))) this.current = this.todo.find((f) => question.includes(f))!.id;
		if (field.kind === 'pick-one')
			this.give(
				[field.id],
				answer && 'choice' in answer && answer.choice === value && !field.required ? null : { choice: value }
			);
		if (field.kind === 'ticks') {
			const ticked = answer && 'ticks' in answer ? answer.ticks : [];
			const ticks = ticked.includes(value) ? ticked.filter((v) => v !== value) : [...ticked, value];
			this.give([field.id], ticks.length === 0 ? null : { ticks });
		}
	}

	/** The sentence that says what is wrong with what stands there; '' where nothing is, or nothing does. */
	wrong(field: Field): string {
		const no = this.fault(field);
		return no ? this.words().refusal(no) : '';
	}

	/** What is wrong with what stands there; null where nothing is, or nothing does. */
	fault(field: Field): Refusal | null {
		const answer = this.now.answer(field);
		return answer === undefined ? null : this.now.check(field, answer);
	}

	isDone(field: Field): boolean {
		return this.now.answer(field) !== undefined && this.wrong(field) === '';
	}

	/** The answer as it is read; '' where there is none. */
	said(field: Field): string {
		const answer = this.now.answer(field);
		return answer === undefined ? '' : inWords({ fields: this.fields }, field, answer, this.locale);
	}

	/** Other places of this person that take the same kind of mark. */
	alike(field: Field): string[] {
		return this.todo.filter((f) => f.kind === field.kind).map((f) => f.id);
	}

	/** Whether everybody is named who is to be named, and every guest is done and known. */
	get ready(): boolean {
		const named = this.naming.every(({ id }) => {
			const { name, email } = this.names[id]!;
			return name.trim() !== '' && isAddress(email.trim());
		});
		return named && this.hosted.every(({ id, done }) => done && this.guests[id]!.trim() !== '');
	}

	/** The next place after the current one that still wants something. */
	next(): void {
		const at = this.todo.findIndex((f) => f.id === this.current);
		const open = this.open.map((f) => f.id);
		const after = [...this.todo.slice(at + 1), ...this.todo.slice(0, at + 1)].find((f) => open.includes(f.id));
		if (after) this.current = after.id;
	}

	async keep(): Promise<boolean> {
		clearTimeout(this.timer);
		const kept = await this.keeper.keep(this.answers);
		this.keeping = kept.ok ? { is: 'kept', at: kept.savedAt ?? '' } : { is: 'not kept', say: kept.say };
		if (!kept.ok) this.timer = setTimeout(() => void this.keep(), 5000);
		return kept.ok;
	}

	/** Finishes; null when done, or the sentence that says why not, with the field it is about made current. */
	async finish(): Promise<string | null> {
		clearTimeout(this.timer);
		const kept = await this.keeper.finish(this.answers, {
			names: $state.snapshot(this.names),
			guests: $state.snapshot(this.guests)
		});
		if (kept.ok) return null;
		// whatever stood in the way, the last letters typed are not to be lost by it
		await this.keeper.keep(this.answers);
		const field = this.fields.find((f) => f.id === kept.at);
		if (field) this.current = this.todo.find((f) => questionOf(this.fields, field).includes(f))?.id ?? this.current;
		return kept.say;
	}
}

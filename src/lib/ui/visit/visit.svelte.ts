import { isBlank, kindOf, questionOf, type Answer, type Answers } from '../../core/field';
import {
	answerAs,
	fieldsOfItem,
	walked,
	type Intake,
	type Item,
	type Named,
	type Passed,
	type Somebody
} from '../../core/intake';
import { isAddress, localeFor, localeOf, type Field, type Plan } from '../../core/packet';
import type { Words } from '../../words/words';
import { wantCheckers } from '../signing/checkers';

/** What a visitor's page is made from. */
export interface Visited {
	setting: Intake;
	plan: Plan;
	today: string;
	known: Answers;
}

/** What is kept of a visit, in the browser and, once the address is proved, on the server. */
export interface Kept {
	token: string | null;
	page: string;
	prepares: boolean;
	visitor: Somebody;
	them: Somebody;
	named: Named;
	answers: Answers;
}

const NOBODY = { name: '', email: '' };
const isNobody = ({ name, email }: Somebody): boolean => `${name}${email}`.trim() === '';
const fine = (who: Somebody): boolean => who.name.trim() !== '' && isAddress(who.email.trim());

/** Somebody on their way through an intake's questions: the same walk as the server's, at every key press. */
export class Visit {
	answers = $state.raw<Answers>({});
	/** the secret of the case, once it has begun */
	token = $state<string | null>(null);
	/** the visitor prepares it for somebody else */
	prepares = $state(false);
	visitor = $state<Somebody>({ ...NOBODY });
	them = $state<Somebody>({ ...NOBODY });
	named = $state<Named>({});
	/** where they are: before the first page (''), on a page by its id, or at the end */
	at = $state<string>('');
	/** the office goes on with somebody's case */
	byOffice = $state(false);
	/** somebody answers for another, as far as they may: what they leave out is asked on the document */
	readonly asFar = $derived(this.prepares || this.byOffice);
	/** whether what is missing on this page is said */
	tried = $state(false);

	readonly way = $derived.by(() =>
		walked(this.of.plan, this.of.setting, { ...this.of.known, ...this.answers }, this.of.today, this.of.known)
	);
	readonly passed = $derived<Passed | null>(this.way.pages.find(({ page }) => page.id === this.at) ?? null);
	/** the pages that are seen now: one, or all where they stand together */
	readonly seen = $derived.by(() => (this.of.setting.together ? this.way.pages : this.passed ? [this.passed] : []));
	/** the rule that closes the way at what is seen now: on a page before it one may still go on, to answer otherwise */
	readonly closedHere = $derived.by(() => {
		const last = (pages: Passed[]) => pages[pages.length - 1]?.page.id;
		return last(this.seen) === last(this.way.pages) ? this.way.closed : null;
	});
	/** numbers and dates are in the visitor's language here, whatever the document's is */
	readonly locale = $derived.by(() => localeFor(this.of.plan, this.words().language));
	/** the name of whom it is about */
	readonly about = $derived(this.prepares ? this.them.name : this.visitor.name);
	readonly index = $derived(this.way.pages.findIndex(({ page }) => page.id === this.at));

	constructor(
		readonly of: Visited,
		private readonly words: () => Words
	) {
		wantCheckers(of.plan.fields);
		this.prepares = of.setting.representative === 'must';
		for (const item of of.setting.pages.flatMap((page) => page.items))
			if (item.is === 'people') for (const role of item.roles) this.named[role] = { ...NOBODY, note: '' };
	}

	/** First answers by key, as a link gives them; what can't be one is left out. */
	start(first: Record<string, string>): void {
		for (const [key, text] of Object.entries(first)) {
			const field = this.of.plan.fields.find((one) => one.key === key && one.person === this.of.setting.starter);
			const answer = field && answerAs(field, text, localeOf(this.of.plan));
			if (field && answer && this.way.now.check(field, answer) === null) this.give(field, answer);
		}
	}

	/** What was kept before goes on. */
	resume(kept: Partial<Kept>): void {
		if (kept.token) this.token = kept.token;
		if (kept.prepares !== undefined && this.of.setting.representative === 'may') this.prepares = kept.prepares;
		Object.assign(this.visitor, kept.visitor);
		Object.assign(this.them, kept.them);
		for (const [role, who] of Object.entries(kept.named ?? {}))
			if (this.named[role]) Object.assign(this.named[role], who);
		this.answers = { ...this.answers, ...kept.answers };
		if (kept.page !== undefined && this.way.pages.some(({ page }) => page.id === kept.page)) this.at = kept.page;
	}

	get kept(): Kept {
		return {
			token: this.token,
			page: this.at,
			prepares: this.prepares,
			visitor: $state.snapshot(this.visitor),
			them: $state.snapshot(this.them),
			named: $state.snapshot(this.named),
			answers: this.answers
		};
	}

	/** What goes to the server. */
	get entered() {
		return {
			starting: {
				visitor: $state.snapshot(this.visitor),
				prepares: this.prepares ? $state.snapshot(this.them) : null,
				named: Object.fromEntries(
					Object.entries($state.snapshot(this.named))
						.filter(([, who]) => !isNobody(who))
						.map(([role, { name, email, ...more }]) => [
							role,
							{ name, email, ...Object.fromEntries(Object.entries(more).filter(([, one]) => one)) }
						])
				)
			},
			answers: this.answers
		};
	}

	/** Takes an answer under the field and its twins; null takes it away. */
	give(field: Field, answer: Answer | null): void {
		const next = { ...this.answers };
		for (const twin of questionOf(this.of.plan.fields, field)) {
			if (twin.person !== this.of.setting.starter) continue;
			if (answer === null) delete next[twin.id];
			else next[twin.id] = answer;
		}
		this.answers = next;
	}

	/** The field by which an item is asked; null where it asks none, or none that is shown. */
	fieldOf(item: Item): Field | null {
		return fieldsOfItem(this.of.plan, this.of.setting, item).find((field) => this.way.now.shown(field)) ?? null;
	}

	/** What is wrong with the answer to a field; what is missing only once they have tried to go on. */
	wrong(field: Field): string {
		const answer = this.way.now.answer(field);
		if (answer && !isBlank(answer)) {
			const no = this.way.now.check(field, answer);
			return no ? this.words().refusal(no) : '';
		}
		const missing = this.way.now.required(field) && kindOf(field.kind).filledBy === 'person';
		return missing && this.tried && !this.asFar
			? this.words().refusal({ code: 'answer-missing', say: '', values: { label: field.label } })
			: '';
	}

	/** What is wrong with somebody's name and address, said once they have tried to go on. */
	wrongWho(who: Somebody, own: boolean): string {
		if (!this.tried) return '';
		if (who.name.trim() === '') return this.words()(own ? 'error.own-name-missing' : 'error.name-missing');
		return isAddress(who.email.trim()) ? '' : this.words()('error.bad-address');
	}

	/** Whether what is seen now has all that it needs. */
	get complete(): boolean {
		if (this.at === '') return fine(this.visitor) && (!this.prepares || fine(this.them));
		return this.seen.length > 0 && !this.closedHere && this.seen.every((one) => this.isComplete(one));
	}

	private isComplete({ items, roles }: Passed): boolean {
		return items.every((item) => {
			if (item.is === 'people')
				return roles[item.id]!.every((role) => {
					const who = this.named[role]!;
					return fine(who) || (this.mayStayEmpty(role) && isNobody(who));
				});
			const field = this.fieldOf(item);
			if (!field || field.kind === 'computed') return true;
			const answer = this.way.now.answer(field);
			if (!answer || isBlank(answer)) return this.asFar || !this.way.now.required(field);
			return this.way.now.check(field, answer) === null;
		});
	}

	/** Whether nobody has to be named for a role here. */
	mayStayEmpty(role: string): boolean {
		return this.asFar || this.of.plan.people.find(({ id }) => id === role)?.optional === true;
	}

	/** What is wrong with whoever is named for a role, said once they have tried to go on. */
	wrongNamed(role: string): string {
		const who = this.named[role]!;
		return this.mayStayEmpty(role) && isNobody(who) ? '' : this.wrongWho(who, false);
	}

	/** To the next page of this way; false where something is still missing here. */
	next(): boolean {
		this.tried = !this.complete;
		if (this.tried) return false;
		const there = this.of.setting.together && this.at !== '';
		this.at = (there ? undefined : this.way.pages[this.index + 1]?.page.id) ?? END;
		return true;
	}

	back(): void {
		this.tried = false;
		const last = this.of.setting.together ? 0 : this.way.pages.length - 1;
		const before = this.at === END ? last : this.index - 1;
		this.at = this.way.pages[before]?.page.id ?? '';
	}

	/** To where an error lies. */
	show(at: string): void {
		const passed = this.way.pages.find(
			({ items, roles }) =>
				Object.values(roles).some((list) => list.includes(at)) ||
				items.some((item) => fieldsOfItem(this.of.plan, this.of.setting, item).some(({ id }) => id === at))
		);
		if (passed) this.at = this.of.setting.together ? this.way.pages[0]!.page.id : passed.page.id;
		else if (at === 'name' || at === 'email') this.at = '';
		this.tried = true;
	}
}

/** After the last page: to confirm the address and go to the document. */
export const END = 'end';

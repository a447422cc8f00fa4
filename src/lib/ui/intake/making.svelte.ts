import { keyTypes, kindOf, live, questions, type Answers, type Live } from '../../core/field';
import {
	askedPlan,
	keyOf,
	type Intake,
	type IntakeFinding,
	type IntakePage,
	type Item,
	type Ways
} from '../../core/intake';
import { SENDER, type Plan } from '../../core/packet';
import { begin, changed, redone, undone, type History } from '../../core/plan';
import { checkRule, isFault, type RuleFault } from '../../core/rule';
import { patient } from '../post';
import { judgeBeside } from './judging';

const PAUSE = 700;

/** An intake being made: what is worked on, kept as it grows, with steps to undo; judged beside, in a worker. */
export class Making {
	#history = $state.raw<History<Intake>>(begin({} as Intake));
	readonly setting = $derived(this.#history.now);
	/** the template's plan, of the version that the intake is made from */
	template = $state.raw<Plan>({} as Plan);
	readonly plan: Plan = $derived.by(() => askedPlan(this.template, this.setting));
	revision = $state(0);
	keeping = $state<'kept' | 'keeping' | 'not kept'>('kept');
	/** why it could not be kept */
	wrong = $state('');
	found = $state.raw<IntakeFinding[]>([]);
	ways = $state.raw<Ways | null>(null);
	/** the page that is open, by its id */
	page = $state<string | null>(null);
	/** the item, rule or follow-up that is open */
	open = $state<string | null>(null);
	readonly canUndo = $derived(this.#history.past.length > 0);
	readonly canRedo = $derived(this.#history.future.length > 0);
	#timer: ReturnType<typeof setTimeout> | undefined;
	#judging: ReturnType<typeof setTimeout> | undefined;
	#judge: ReturnType<typeof judgeBeside> | undefined;
	#last = 0;
	/** as it is kept on the server */
	#kept: Intake;
	#running: Promise<boolean> | null = null;

	constructor(
		readonly id: string,
		template: Plan,
		setting: Intake,
		revision: number,
		readonly today: string
	) {
		this.template = template;
		this.#history = begin(setting);
		this.#kept = setting;
		this.revision = revision;
		this.page = setting.pages[0]?.id ?? null;
	}

	readonly shown = $derived<IntakePage | null>(this.setting.pages.find(({ id }) => id === this.page) ?? null);

	/** The plan with a sample under every question, to show what a rule gives. */
	withSamples(): Live {
		const samples: Answers = {};
		const context = {
			person: { name: 'Maren Lindqvist', email: 'maren@post.example' },
			now: `${this.today}T12:00:00Z`,
			zone: 'UTC',
			locale: 'en-GB'
		};
		for (const question of questions(this.plan.fields)) {
			const first = question[0]!;
			const kind = kindOf(first.kind);
			const sample =
				kind.filledBy === 'person' && first.person !== SENDER ? kind.sample(first, context, question) : null;
			if (sample) samples[first.id] = sample;
		}
		return live(this.plan, samples, this.today);
	}

	/** What is wrong with a condition. */
	check = (source: string): RuleFault | null => {
		const checked = checkRule(source, keyTypes(this.plan), 'truth');
		return isFault(checked) ? checked : null;
	};

	/** Changes the whole; changes of one name within a second are one step. */
	change(name: string, to: (now: Intake) => Intake): void {
		const at = Date.now();
		this.#history = changed(this.#history, name, to(this.#history.now), at - this.#last < 1000);
		this.#last = at;
		this.#soon();
	}
	set(change: Partial<Intake>): void {
		this.change(Object.keys(change).join(' '), (now) => without({ ...now, ...change }));
	}
	setPage(id: string, change: Partial<IntakePage>): void {
		this.change(`page ${id} ${Object.keys(change).join(' ')}`, (now) => ({
			...now,
			pages: now.pages.map((page) => (page.id === id ? without({ ...page, ...change }) : page))
		}));
	}
	setItem(id: string, to: (item: Item) => Item): void {
		this.change(`item ${id}`, (now) => ({
			...now,
			pages: now.pages.map((page) => ({
				...page,
				items: page.items.map((item) => (item.id === id ? without(to(item)) : item))
			}))
		}));
	}
	addItem(item: Item): void {
		if (!this.shown) return;
		this.setPage(this.shown.id, { items: [...this.shown.items, item] });
		this.open = item.id;
	}
	removeItem(id: string): void {
		if (this.shown) this.setPage(this.shown.id, { items: this.shown.items.filter((item) => item.id !== id) });
	}
	addPage(): void {
		const id = this.freshId('page');
		this.change('add page', (now) => ({
			...now,
			pages: [...now.pages, { id, title: `Page ${now.pages.length + 1}`, items: [] }]
		}));
		this.page = id;
	}
	removePage(id: string): void {
		const at = this.setting.pages.findIndex((page) => page.id === id);
		this.change('remove page', (now) => ({ ...now, pages: now.pages.filter((page) => page.id !== id) }));
		this.page = this.setting.pages[Math.max(0, at - 1)]?.id ?? null;
	}
	undo(): void {
		this.#history = undone(this.#history);
		this.#soon();
	}
	redo(): void {
		this.#history = redone(this.#history);
		this.#soon();
	}

	/** An id that nothing here has. */
	freshId(stem: string): string {
		const taken = [
			...this.setting.pages.flatMap((page) => [page.id, ...page.items.map(({ id }) => id)]),
			...this.setting.says.map(({ id }) => id),
			...this.setting.then.map(({ id }) => id)
		];
		for (let n = 1; ; n++) if (!taken.includes(`${stem}-${n}`)) return `${stem}-${n}`;
	}

	/** Questions of the document that no page asks yet. */
	readonly unasked = $derived.by(() => {
		const asked = this.setting.pages.flatMap((page) => page.items.map(keyOf));
		return questions(this.template.fields).flatMap((question) => {
			const field = question.find(({ person }) => person === this.setting.starter);
			const may = field && field.key !== '' && kindOf(field.kind).filledBy === 'person' && !kindOf(field.kind).signs;
			return may && field.kind !== 'attachment' && !asked.includes(field.key) ? [field] : [];
		});
	});

	/** Whether visitors can have answered a key by the time that a rule asks for it: asked on some page, or computed. */
	offered = (key: string): boolean =>
		this.setting.pages.some((page) => page.items.some((item) => keyOf(item) === key)) ||
		this.plan.fields.some((field) => field.key === key && field.kind === 'computed');

	faultsAt(id: string): IntakeFinding[] {
		return this.found.filter(({ at }) => at === id);
	}

	#soon(): void {
		this.keeping = 'keeping';
		clearTimeout(this.#timer);
		this.#timer = setTimeout(() => void this.keep(), PAUSE);
		clearTimeout(this.#judging);
		this.#judging = setTimeout(() => void this.look(), 250);
	}

	/** Looks for what is wrong, and at all ways through, beside the page. */
	async look(): Promise<void> {
		this.#judge ??= judgeBeside();
		const { found, ways } = await this.#judge.ask.judge(this.template, this.setting, this.today);
		this.found = found;
		this.ways = ways;
	}

	/** Keeps what was changed, one keeping after the other; whether all of it is kept now. */
	async keep(): Promise<boolean> {
		clearTimeout(this.#timer);
		while (this.#running) await this.#running;
		this.#running = this.#keepAll().finally(() => (this.#running = null));
		return this.#running;
	}
	async #keepAll(): Promise<boolean> {
		while (this.#kept !== this.setting) if (!(await this.#put(this.setting))) return false;
		this.keeping = 'kept';
		return true;
	}
	async #put(setting: Intake): Promise<boolean> {
		this.keeping = 'keeping';
		try {
			const response = await patient(`/intakes/${this.id}/save`, {
				method: 'PUT',
				headers: { 'Content-Type': 'application/json' },
				body: JSON.stringify({ revision: this.revision, setting })
			});
			const said = (await response.json()) as { revision?: number; say?: string };
			this.wrong = response.ok ? '' : (said.say ?? 'It did not work. What you changed is kept here.');
			if (response.ok) {
				this.revision = said.revision!;
				this.#kept = setting;
				return true;
			}
		} catch {
			this.wrong = 'No connection. What you changed is kept in this tab and saved when it is back.';
			this.#timer = setTimeout(() => void this.keep(), 5000);
		}
		this.keeping = 'not kept';
		return false;
	}

	stop(): void {
		clearTimeout(this.#timer);
		clearTimeout(this.#judging);
		if (this.keeping === 'keeping') void this.keep();
		this.#judge?.stop();
	}
}

/** A value without what is undefined in it, as it is kept. */
function without<T extends object>(value: T): T {
	return Object.fromEntries(Object.entries(value).filter(([, one]) => one !== undefined)) as T;
}

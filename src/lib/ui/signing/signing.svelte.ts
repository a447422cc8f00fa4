import { kindOf, openFields, type Answer, type Answers } from '../../core/field';
import type { Field, Paper, Plan } from '../../core/packet';
import { toShown } from '../../core/page';

export interface Turn {
	papers: Paper[];
	fields: Field[];
	answers: Answers;
	saved: Answers;
	savedAt: string | null;
}

export type Keeping = { is: 'kept'; at: string | null } | { is: 'keeping' } | { is: 'not kept'; say: string };

const PAUSE = 600;

/** What a person has entered on the signing page: checked as it is typed, kept on the server as it grows. */
export class Signing {
	readonly fields: Field[];
	answers = $state.raw<Answers>({});
	current = $state<string | null>(null);
	keeping = $state<Keeping>({ is: 'kept', at: null });
	private timer: ReturnType<typeof setTimeout> | undefined;

	/** what is still to be done, by core's own rules */
	readonly open = $derived.by(() => openFields(this.asPlan(), 'me', this.answers));

	constructor(
		private base: string,
		turn: Turn
	) {
		this.fields = inOrder(
			turn.papers,
			turn.fields.filter((f) => turn.answers[f.id] === undefined)
		).map((f) => ({ ...f, person: 'me' }));
		const own = this.fields.map((f) => f.id);
		this.answers = Object.fromEntries(Object.entries(turn.saved).filter(([id]) => own.includes(id)));
		this.keeping = { is: 'kept', at: turn.savedAt };
		this.current = this.open[0]?.id ?? this.fields[0]?.id ?? null;
	}

	/** Takes an answer; null takes it away. */
	give(ids: string[], answer: Answer | null): void {
		const next = { ...this.answers };
		for (const id of ids) {
			if (answer === null) delete next[id];
			else next[id] = answer;
		}
		this.answers = next;
		this.keeping = { is: 'keeping' };
		clearTimeout(this.timer);
		this.timer = setTimeout(() => void this.keep(), PAUSE);
	}

	/** The sentence that says what is wrong with what stands there; '' where nothing is, or nothing does. */
	wrong(field: Field): string {
		const answer = this.answers[field.id];
		return answer === undefined ? '' : (kindOf(field.kind).check(field, answer)?.say ?? '');
	}

	isDone(field: Field): boolean {
		return this.answers[field.id] !== undefined && this.wrong(field) === '';
	}

	/** The next place after the current one that still wants something. */
	next(): void {
		const at = this.fields.findIndex((f) => f.id === this.current);
		const open = this.open.map((f) => f.id);
		const after = [...this.fields.slice(at + 1), ...this.fields.slice(0, at + 1)].find((f) => open.includes(f.id));
		if (after) this.current = after.id;
	}

	async keep(): Promise<boolean> {
		clearTimeout(this.timer);
		const body = await this.send('answers', 'PUT', { answers: this.answers });
		this.keeping = body.ok ? { is: 'kept', at: String(body.savedAt ?? '') } : { is: 'not kept', say: body.say };
		if (!body.ok) this.timer = setTimeout(() => void this.keep(), 5000);
		return body.ok;
	}

	/** Finishes; null when done, or the sentence that says why not, with the field it is about made current. */
	async finish(): Promise<string | null> {
		clearTimeout(this.timer);
		const body = await this.send('finish', 'POST', { answers: this.answers });
		if (body.ok) return null;
		if (typeof body.at === 'string' && this.fields.some((f) => f.id === body.at)) this.current = body.at;
		return body.say;
	}

	private async send(
		what: string,
		method: string,
		data: object
	): Promise<{ ok: boolean; say: string; at?: unknown; savedAt?: unknown }> {
		try {
			const response = await fetch(`${this.base}/${what}`, {
				method,
				headers: { 'Content-Type': 'application/json' },
				body: JSON.stringify(data)
			});
			const body = (await response.json()) as { say?: string; message?: string };
			return {
				...body,
				ok: response.ok,
				say: body.say ?? body.message ?? 'It did not work. What you entered is kept here.'
			};
		} catch {
			return { ok: false, say: 'No connection. What you entered is kept in this tab and saved when it is back.' };
		}
	}

	private asPlan(): Plan {
		return {
			title: '',
			message: '',
			days: null,
			papers: [],
			attachments: [],
			people: [],
			stops: [],
			fields: this.fields
		};
	}
}

/** In the order one reads: document, page, from the top, from the left. */
function inOrder(papers: Paper[], fields: Field[]): Field[] {
	const place = (f: Field) => {
		const paper = papers.findIndex((p) => p.id === f.paper);
		const at = toShown(papers[paper]!.pages[f.page]!, f.rect);
		return [paper, f.page, Math.round(at.top / 8), at.left] as const;
	};
	return [...fields].sort((a, b) => {
		const [x, y] = [place(a), place(b)];
		return x[0] - y[0] || x[1] - y[1] || x[2] - y[2] || x[3] - y[3];
	});
}

import { fromShown, keepOnPage, toShown, type ShownRect } from '../geometry';
import type { ShownPage, TextRow } from '../shown-page';
import type { Doubt, Fitted, ToFit, Version } from './fitted';
import { Heads, sameHead, type Head } from './heads';
import { landmarksOf, onLine, type Landmark } from './landmarks';
import { Blanks, movedTo } from './like-blank';
import { phraseIn } from './pin';
import type { Pin } from './pin-schema';
import { rowText } from './stream';
import { Versions } from './versions';

/** Where a field is expected, in shown space of a new page. */
interface Guess {
	page: number;
	rect: ShownRect;
}

/** Places fields of one version of a document on another, one by one. */
export class Fitter {
	readonly versions: Versions;
	private readonly blanks = new Blanks();
	private readonly heads = new Heads();

	constructor(
		private readonly before: Version,
		private readonly after: Version
	) {
		this.versions = new Versions(before.text, after.text);
	}

	place(field: ToFit): Fitted {
		const { old, next } = this.versions;
		const rect = toShown(this.before.pages[field.page]!, field.rect);
		if (field.pin?.by === 'page') return this.byPage(field, rect, []);
		if (field.pin?.by === 'phrase') return this.byPhrase(field, field.pin, rect);
		if (old.tokens.length === 0 || next.tokens.length === 0) return this.byPage(field, rect, ['no words']);
		const row = old.furniture[field.page]!.find((r) => onLine(r.base, rect));
		if (row) return this.byFurniture(field, row, rect);
		return this.byLandmarks(field, rect);
	}

	private byLandmarks(field: ToFit, rect: ShownRect): Fitted {
		const { old } = this.versions;
		const marks = landmarksOf(old, field.page, rect);
		if (marks.length === 0) return this.byPage(field, rect, ['far']);
		const there = marks.filter((mark) => this.versions.to(mark.token) >= 0);
		const best = there[0];
		const label = marks[0]!;
		const context = Math.max(...marks.slice(0, 4).map((mark) => this.versions.context(mark.token)));
		// neither its label nor what stood around it is there: the part of the text it belonged to has gone
		if (!best || (this.versions.to(label.token) < 0 && context < 0.35)) return nowhere(field, 'gone');
		const voted = this.voted(there, rect);
		const doubts: Doubt[] = [];
		if (!voted.agreed) doubts.push('landmarks');
		const under = this.underHead(field, rect, voted.guess);
		if (under === 'gone') return nowhere(field, 'gone');
		const { guess } = under;
		if (under.doubt) doubts.push('head');
		if (best.far > 120) doubts.push('far');
		if (this.versions.to(label.token) < 0 && label.at === 'line') doubts.push('context');
		else if (this.versions.context(best.token) < 0.4) doubts.push('context');
		if (this.recounted(label)) doubts.push('count');
		const settled = this.onBlank(field, rect, guess, doubts, guess === voted.guess);
		if (doubts.includes('landmarks')) return this.put(field, settled, doubts);
		if (this.versions.disputed(best.token)) doubts.push('landmarks');
		else if ((settled === guess || best.at !== 'line') && this.disagree(there, rect, guess, under.told))
			doubts.push('landmarks');
		return this.put(field, settled, doubts);
	}

	/**
	 * Where the words on the field's own line say that it is: the line that most of them lead to, nearer ones weighing more,
	 * and on it as the nearest of these says. A label may be broken over two rows now, or a field touch two.
	 */
	private voted(marks: Landmark[], rect: ShownRect): { guess: Guess; agreed: boolean } {
		const first = this.guess(marks[0]!, rect);
		const line = marks.filter((mark) => mark.at === 'line').slice(0, VOTERS);
		if (marks[0]!.at !== 'line' || line.length < 2) return { guess: first, agreed: true };
		const votes: { guess: Guess; weight: number }[] = [];
		let all = 0;
		for (const mark of line) {
			const guess = this.guess(mark, rect);
			const weight = 1 / (mark.far + 6);
			all += weight;
			const same = votes.find((one) => isSameLine(one.guess, guess));
			if (same) same.weight += weight;
			else votes.push({ guess, weight });
		}
		const best = votes.reduce((a, b) => (b.weight > a.weight ? b : a));
		return { guess: best.guess, agreed: best.weight > 0.72 * all || this.isIntact(line) };
	}

	/** Whether words of one line follow each other as they did, with nothing put between: a label that was broken over two rows. */
	private isIntact(line: Landmark[]): boolean {
		const tokens = line.map((mark) => mark.token).sort((a, b) => a - b);
		const label = tokens.filter((token, i) => i === 0 || token - tokens[i - 1]! === 1 || token === tokens.at(-1));
		return (
			label.length === tokens.length &&
			tokens.every((token, i) => i === 0 || this.versions.to(token) - this.versions.to(tokens[i - 1]!) === 1)
		);
	}

	/**
	 * The head of a column or of a signature block votes: where another one stands over the guess than stood over the field,
	 * the field goes to the same line under its own head. `told`: a head has spoken; `doubt`: it is not there, or there twice,
	 * so a person looks. 'gone': its column is, and the guess lies in another one that was there before.
	 */
	private underHead(
		field: ToFit,
		rect: ShownRect,
		guess: Guess
	): { guess: Guess; told: boolean; doubt: boolean } | 'gone' {
		const page = this.versions.next.pages[guess.page]!;
		const before = this.versions.old.pages[field.page]!;
		const was = this.heads.over(before, rect);
		if (!was) return { guess, told: false, doubt: false };
		const is = this.heads.over(page, guess.rect);
		if (is && sameHead(was, is)) return { guess, told: was.of === 'column', doubt: false };
		const near = (head: Head) => !is || Math.abs(head.base - is.base) < 14;
		const own = this.heads.like(page, was).filter(near);
		const puzzled = { guess, told: false, doubt: true };
		if (was.of === 'block') {
			if (own.length !== 1 || !is) return puzzled;
			const left = own[0]!.left + rect.left - was.left;
			return { guess: { page: guess.page, rect: { ...guess.rect, left } }, told: true, doubt: false };
		}
		if (own.length === 0 && is && this.heads.like(before, is).length > 0) return 'gone';
		const cell = own.length === 1 ? this.heads.cellUnder(page, own[0]!, guess.rect) : null;
		if (!cell) return puzzled;
		return { guess: { page: guess.page, rect: { ...guess.rect, left: cell.left + 2 } }, told: true, doubt: false };
	}

	/** Where one landmark says that the field is. */
	private guess(mark: Landmark, rect: ShownRect): Guess {
		const from = this.versions.old.tokens[mark.token]!;
		const to = this.versions.next.tokens[this.versions.to(mark.token)]!;
		const scale = this.scale(mark.token);
		const [before, after] = [from.word, to.word];
		const left =
			mark.at === 'line' && before.left < rect.left
				? after.left + after.width + (rect.left - before.left - before.width) * scale
				: after.left + (rect.left - before.left) * scale;
		const top = to.row.base + (rect.top - from.row.base) * scale;
		return { page: to.page, rect: { ...rect, left, top } };
	}

	/** Change of the size of letters, told by all words of the line that are still there: one narrow word tells little. */
	private scale(token: number): number {
		const { old, next } = this.versions;
		const { row } = old.tokens[token]!;
		let [before, after] = [0, 0];
		const add = (i: number) => {
			const there = this.versions.to(i);
			if (there < 0) return;
			before += old.tokens[i]!.word.width;
			after += next.tokens[there]!.word.width;
		};
		for (let i = token; i >= 0 && old.tokens[i]!.row === row; i--) add(i);
		for (let i = token + 1; i < old.tokens.length && old.tokens[i]!.row === row; i++) add(i);
		return before < LEAST_TELLING ? 1 : scaleOf(before, after);
	}

	/** Whether the nearest landmark on another line leads elsewhere; to another line, where a head has told the column. */
	private disagree(marks: Landmark[], rect: ShownRect, guess: Guess, told: boolean): boolean {
		const { tokens } = this.versions.old;
		const other = marks.find((mark) => tokens[mark.token]!.row !== tokens[marks[0]!.token]!.row);
		if (!other) return false;
		const there = this.guess(other, rect);
		return (
			there.page !== guess.page ||
			Math.abs(there.rect.top - guess.rect.top) > 6 ||
			(!told && Math.abs(there.rect.left - guess.rect.left) > 24)
		);
	}

	/** The guess drawn to the line or box that is the like of the one under the field. */
	private onBlank(field: ToFit, rect: ShownRect, guess: Guess, doubts: Doubt[], byTurn = true): Guess {
		const page = this.versions.old.pages[field.page]!;
		const under = this.blanks.under(page, rect);
		if (!under) return guess;
		const expected = {
			...under,
			left: guess.rect.left + under.left - rect.left,
			top: guess.rect.top + under.top - rect.top
		};
		const found = this.blanks.same(page, under, this.versions.next.pages[guess.page]!, expected, byTurn);
		if (!found) {
			doubts.push('no blank');
			return guess;
		}
		if (found.open) doubts.push('two blanks');
		return { page: guess.page, rect: movedTo(rect, under, found.blank) };
	}

	/** Whether the label stands more or less often than it did, and nothing around it tells which is meant. */
	private recounted(label: Landmark): boolean {
		if (this.versions.certain(label.token)) return false;
		const [before, after] = this.versions.counts(label.token);
		return before !== after;
	}

	/** A field in a head or foot goes where its page went, beside the words that stand there. */
	private byFurniture(field: ToFit, row: TextRow, rect: ShownRect): Fitted {
		const { next, pageOf, old } = this.versions;
		const page = pageOf[field.page]!;
		if (page < 0) return this.byPage(field, rect, ['pages']);
		const like = next.furniture[page]!.find((r) => rowText(r) === rowText(row)) ?? null;
		const doubts: Doubt[] = [];
		if (!like) doubts.push('context');
		// the same page of more of them is sure enough; where it went elsewhere, the page before may want one as well
		else if (old.pages.length !== next.pages.length && (page !== field.page || !this.isSurePage(field.page)))
			doubts.push('pages');
		const guess = {
			page,
			rect: like ? { ...rect, left: rect.left + like.left - row.left, top: rect.top + like.base - row.base } : rect
		};
		return this.put(field, this.onBlank(field, rect, guess, doubts), doubts);
	}

	/** Whether a page surely is the one it was: nearly all of it is there, no other page is, and its neighbours went alike. */
	private isSurePage(page: number): boolean {
		const { pageOf } = this.versions;
		const there = pageOf[page]!;
		const before = page > 0 ? pageOf[page - 1]! : -1;
		const after = page + 1 < pageOf.length ? pageOf[page + 1]! : Infinity;
		const whole = there >= 0 && this.versions.pageShare[page]! > 0.8;
		return whole && pageOf.filter((one) => one === there).length === 1 && before < there && there < after;
	}

	/** A field that a person has pinned to a phrase. */
	private byPhrase(field: ToFit, pin: Extract<Pin, { by: 'phrase' }>, rect: ShownRect): Fitted {
		const before = phraseIn(this.versions.old, pin.text);
		const after = phraseIn(this.versions.next, pin.text);
		const from = before[pin.nth - 1];
		if (!from || after.length === 0) return nowhere(field, 'gone');
		const doubts: Doubt[] = [];
		const matched = this.versions.to(from.token);
		const to = after.find((one) => one.token === matched) ?? after[Math.min(pin.nth, after.length) - 1]!;
		if (after.length !== before.length) doubts.push('count');
		else if (to.token !== matched && after.length > 1) doubts.push('landmarks');
		const guess = {
			page: to.page,
			rect: { ...rect, left: rect.left + to.rect.left - from.rect.left, top: rect.top + to.base - from.base }
		};
		return this.put(field, from.page === field.page ? this.onBlank(field, rect, guess, doubts) : guess, doubts);
	}

	/** A field that belongs to the page itself: the same place on the page that took this one's part. */
	private byPage(field: ToFit, rect: ShownRect, doubts: Doubt[]): Fitted {
		const { next, pageOf } = this.versions;
		const page = pageOf[field.page]! >= 0 ? pageOf[field.page]! : field.page;
		if (page >= next.pages.length) return nowhere(field, 'gone');
		const [from, to] = [this.versions.old.pages[field.page]!, next.pages[page]!];
		const other = Math.abs(from.width - to.width) > 2 || Math.abs(from.height - to.height) > 2;
		return this.put(field, { page, rect: other ? stretched(rect, from, to) : rect }, doubts);
	}

	private put(field: ToFit, { page, rect }: Guess, doubts: Doubt[]): Fitted {
		const size = this.after.pages[page]!;
		const kept = keepOnPage(size, rect);
		if (Math.abs(kept.left - rect.left) > 1 || Math.abs(kept.top - rect.top) > 1) doubts.push('edge');
		return {
			id: field.id,
			place: { page, rect: fromShown(size, kept) },
			sure: 1,
			doubts,
			moved: page !== field.page
		};
	}
}

/** So many words of the field's line are heard. */
const VOTERS = 6;
/** Words that are narrower than this together don't tell how letters have grown: points. */
const LEAST_TELLING = 24;

function isSameLine(a: Guess, b: Guess): boolean {
	return a.page === b.page && Math.abs(a.rect.top - b.rect.top) < 4;
}

function nowhere(field: ToFit, doubt: Doubt): Fitted {
	return { id: field.id, place: null, sure: 0, doubts: [doubt], moved: false };
}

function stretched(rect: ShownRect, from: ShownPage, to: ShownPage): ShownRect {
	return { ...rect, left: (rect.left * to.width) / from.width, top: (rect.top * to.height) / from.height };
}

/** Change of the size of letters, told by one word's width; a change too small to be one is none. */
function scaleOf(before: number, after: number): number {
	const scale = before > 0 ? after / before : 1;
	return scale > 0.97 && scale < 1.03 ? 1 : Math.min(2, Math.max(0.5, scale));
}

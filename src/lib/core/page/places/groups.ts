import { plainKey } from '../../field/key';
import type { ShownPage } from '../shown-page';
import { tidyLabel } from './meaning';
import type { FoundPlace } from './places';

const YES = /^(yes|ja|oui|sí|si|sì|sim|tak|ano)\b/i;
const NO = /^(no|nein|non|não|nee|nie|ne|nej|nei)\b/i;
/** "no  alcohol": an answer, and what the question is about after it. */
const TRAILED = /^(yes|no|ja|nein|oui|non|sí|nee|tak|nie)\s+(\S.*)$/i;

interface Group {
	places: FoundPlace[];
	/** what the question is about where it stands after its answers */
	trailing: string;
}

/** Squares that belong together get one key: those of one row, or of rows right under each other at the same edge. */
export function grouped(places: FoundPlace[], page: ShownPage): FoundPlace[] {
	const squares = places.filter((p) => p.kind === 'ticks' || p.kind === 'pick-one').sort(inOrder);
	const groups: Group[] = [];
	for (const square of squares) {
		const trailed = TRAILED.exec(square.label);
		const one = trailed ? { ...square, label: trailed[1]! } : square;
		const asked = asksItself(one, squares, page);
		const group = groups.findLast((g) => belongs(g, one, asked));
		if (group) group.places.push(one);
		else groups.push({ places: [one], trailing: '' });
		if (trailed) (group ?? groups[groups.length - 1]!).trailing = trailed[2]!;
		originals.set(one, square);
	}
	const changed = new Map<FoundPlace, FoundPlace>();
	for (const { places: group, trailing } of groups) {
		const question = trailing !== '' && group.length > 1 ? tidyLabel(trailing) : questionText(group, squares, page);
		const either = group.length > 1 && (group.some((p) => p.kind === 'pick-one') || isEither(group, question));
		for (const place of group) {
			const whole = group.length === 1 && trailing !== '' ? `${place.label} ${trailing}` : place.label;
			const value = plainKey(whole) || `option_${group.indexOf(place) + 1}`;
			changed.set(originals.get(place)!, {
				...place,
				kind: either ? 'pick-one' : 'ticks',
				label: group.length > 1 ? question || whole : whole,
				key: plainKey(group.length > 1 ? question || group[0]!.label : whole),
				required: either,
				settings: { value, text: whole }
			});
		}
	}
	return places.map((place) => changed.get(place) ?? place);
}

/** Squares as they came, by what they were made into. */
const originals = new WeakMap<FoundPlace, FoundPlace>();

function inOrder(a: FoundPlace, b: FoundPlace): number {
	return Math.abs(a.rect.top - b.rect.top) < 5 ? a.rect.left - b.rect.left : a.rect.top - b.rect.top;
}

/** Whether words stand before a square on its row that are no answer to another one: its own question. */
function asksItself(one: FoundPlace, squares: FoundPlace[], page: ShownPage): boolean {
	const middle = one.rect.top + one.rect.height / 2;
	const first = !squares.some((s) => Math.abs(s.rect.top - one.rect.top) < 5 && s.rect.left < one.rect.left - 1);
	return (
		first &&
		page.words.some((w) => w.top < middle && w.top + w.height > middle && w.left + w.width <= one.rect.left + 1)
	);
}

/** Whether a square goes on with a group: near it, asking nothing itself, and no answer that the group has already. */
function belongs({ places }: Group, one: FoundPlace, asked: boolean): boolean {
	if (places.some((o) => o.label.toLowerCase() === one.label.toLowerCase() && one.label !== '')) return false;
	return places.some((o) => {
		const sameRow = Math.abs(o.rect.top - one.rect.top) < 5 && Math.abs(o.rect.left - one.rect.left) < 330;
		const under = !asked && Math.abs(o.rect.left - one.rect.left) < 4 && Math.abs(o.rect.top - one.rect.top) < 24;
		return (sameRow && !isAnswered(places)) || under;
	});
}

/** A group that has its yes and its no wants nothing more on its row. */
function isAnswered(places: FoundPlace[]): boolean {
	return places.some((p) => YES.test(p.label)) && places.some((p) => NO.test(p.label));
}

/** Answers that shut each other out: yes and no, or a question that says so. */
function isEither(group: FoundPlace[], question: string): boolean {
	return isAnswered(group) || /\b(one of|either|choose one|which)\b/i.test(question);
}

/** What a group is about: the words left of its first square up to the group before, else the row right above it. */
function questionText(group: FoundPlace[], squares: FoundPlace[], page: ShownPage): string {
	const first = group.reduce((a, b) => (b.rect.top < a.rect.top - 3 || b.rect.left < a.rect.left ? b : a));
	const row = page.rows.find((r) => r.top < first.rect.top + first.rect.height && r.top + r.height > first.rect.top);
	const before = squares
		.filter((s) => !group.includes(s) && Math.abs(s.rect.top - first.rect.top) < 5 && s.rect.left < first.rect.left)
		.map((s) => s.rect.left + s.rect.width);
	const from = before.length > 0 ? Math.max(...before) : 0;
	const left = row?.words.filter((w) => w.left + w.width <= first.rect.left + 1 && w.left > from) ?? [];
	// behind the square before stands first its own answer
	const own = before.length > 0 ? left.filter((w, i) => i > 0 && !NO.test(w.text) && !YES.test(w.text)) : left;
	if (own.length > 0) return tidyLabel(own.map((w) => w.text).join(' '));
	const top = Math.min(...group.map((p) => p.rect.top));
	const above = page.rows
		.filter((r) => r.base < top + 2 && r.base > top - 26 && r.left < first.rect.left + 40)
		.sort((a, b) => b.base - a.base)[0];
	return above ? tidyLabel(above.words.map((w) => w.text).join(' ')) : '';
}

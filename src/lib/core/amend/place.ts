import { EVERYBODY, type Field } from '../packet/plan';
import { fromShown, shownSize, type PageSize, type ShownRect } from '../page/geometry';
import type { ShownPage } from '../page/shown-page';
import type { Change } from './asked';

/**
 * Where a change of words stands on its page: a line through each row of them, what stands instead where nothing is hidden by it, and a
 * place for the initials of each party in the margin. All in points, as the page is shown.
 */

/** The size of what is written instead, and its leading. */
const SIZE = 9;
const LINE = SIZE * 1.3;
/** How wide a letter is on the average, in parts of the size. */
const LETTER = 0.55;
const INITIALS = { width: 25, height: 15 };
const EDGE = 6;

export interface ToPlace {
	page: ShownPage;
	size: PageSize;
	/** the rows of the words */
	rows: ShownRect[];
	/** what stands on the page besides its words: fields that were placed before */
	taken: ShownRect[];
	change: Pick<Change, 'id' | 'paper' | 'page' | 'words' | 'instead'>;
	/** its number on the page of changes, from 1 */
	number: number;
	/** ids of those whose initials it needs */
	parties: string[];
	/** an id for each new field */
	fresh: () => string;
}

export interface Placed {
	how: Change['how'];
	fields: Field[];
}

const meets = (a: ShownRect, b: ShownRect): boolean =>
	a.left < b.left + b.width && b.left < a.left + a.width && a.top < b.top + b.height && b.top < a.top + a.height;

export function placeChange(wish: ToPlace): Placed {
	const { page, size, rows, change, parties } = wish;
	const whole = shownSize(size);
	const words = page.rows.flatMap((row) => row.words);
	const taken = [...wish.taken];
	const fields: Field[] = [];
	const add = (kind: Field['kind'], person: string, rect: ShownRect, more: Partial<Field>) => {
		taken.push(rect);
		fields.push({
			id: wish.fresh(),
			kind,
			person,
			paper: change.paper,
			page: change.page,
			rect: fromShown(size, rect),
			label: '',
			key: '',
			required: false,
			settings: {},
			change: change.id,
			...more
		});
	};
	const free = (rect: ShownRect) =>
		rect.left >= EDGE &&
		rect.top >= EDGE &&
		rect.left + rect.width <= whole.width - EDGE &&
		rect.top + rect.height <= whole.height - EDGE &&
		![...words, ...taken].some((one) => meets(one, rect));

	for (const row of rows) add('strike', EVERYBODY, row, { label: `Struck: ${change.words}`.slice(0, 200) });
	const [how, rect] = insteadAt(wish, free);
	const text = how === 'note' ? `(${wish.number})` : change.instead;
	if (rect && text !== '')
		add('note', EVERYBODY, rect, { label: 'Instead', fontSize: how === 'note' ? 8 : SIZE, settings: { text } });
	for (const person of parties) {
		const at = marginAt(rows[0]!, words, free, whole);
		add('initials', person, at, { label: `Initials, change ${wish.number}`, required: true });
	}
	return { how, fields };
}

/** Above the line or beside it, where that hides nothing; otherwise a number by the words, and the words on the page of changes. */
function insteadAt(
	{ rows, change, page }: ToPlace,
	free: (rect: ShownRect) => boolean
): [how: Change['how'], rect: ShownRect | null] {
	const first = rows[0]!;
	const last = rows.at(-1)!;
	if (change.instead === '') return ['above', null];
	const width = change.instead.length * SIZE * LETTER + 6;
	const above = { left: first.left, top: first.top - LINE, width, height: LINE };
	if (free(above)) return ['above', above];
	const row = page.rows.find((one) => Math.abs(one.top - last.top) < 2);
	const end = Math.max(...(row?.words ?? []).map((word) => word.left + word.width), last.left + last.width);
	const top = last.top + (last.height - LINE) / 2;
	const beside = { left: end + 4, top, width, height: LINE };
	if (free(beside)) return ['beside', beside];
	const sign = { left: end + 3, top, width: 20, height: LINE };
	if (free(sign)) return ['note', sign];
	return ['note', { left: first.left, top: first.top - 8, width: 20, height: 8 }];
}

/** The next free place in the margin by that line: at the left, then at the right; further down where it is taken. */
function marginAt(
	line: ShownRect,
	words: readonly ShownRect[],
	free: (rect: ShownRect) => boolean,
	whole: { width: number; height: number }
): ShownRect {
	const begin = Math.min(whole.width * 0.3, ...words.map((word) => word.left));
	const end = Math.max(whole.width * 0.7, ...words.map((word) => word.left + word.width));
	const top = line.top + (line.height - INITIALS.height) / 2;
	for (let down = 0; down < 40; down += 1)
		for (const step of down === 0 ? [0] : [down, -down]) {
			const y = top + step * (INITIALS.height + 1);
			for (let x = begin - INITIALS.width - 2; x >= EDGE; x -= INITIALS.width + 2) {
				const rect = { left: x, top: y, ...INITIALS };
				if (free(rect)) return rect;
			}
			for (let x = end + 2; x + INITIALS.width <= whole.width - EDGE; x += INITIALS.width + 2) {
				const rect = { left: x, top: y, ...INITIALS };
				if (free(rect)) return rect;
			}
		}
	// a page without any margin: over it all the same, since a change without initials would be none
	return { left: EDGE, top: Math.min(Math.max(EDGE, top), whole.height - 20), ...INITIALS };
}

/** A signature and its day for each of these, at the foot of the page of changes, two beside one another. */
export function signaturesAt(
	size: PageSize,
	paper: string,
	page: number,
	people: readonly { id: string; name: string }[],
	fresh: () => string
): Field[] {
	const whole = shownSize(size);
	const column = (whole.width - 112) / 2;
	return people.flatMap(({ id, name }, i) => {
		const left = 56 + (i % 2) * column;
		const top = whole.height - 120 - Math.floor(i / 2) * 62;
		const field = (kind: Field['kind'], rect: ShownRect, label: string): Field => ({
			id: fresh(),
			kind,
			person: id,
			paper,
			page,
			rect: fromShown(size, rect),
			label,
			key: '',
			required: true,
			settings: {}
		});
		return [
			field('signature', { left, top, width: column - 100, height: 34 }, `Signature of ${name}`.slice(0, 200)),
			field('signing-date', { left: left + column - 94, top: top + 14, width: 78, height: 20 }, 'Signed on')
		];
	});
}

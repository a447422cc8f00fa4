import { chance, pick, prose, sentence } from './documents';
import type { Made, Part } from './set';

/** What happens to a document between two uses, each a function from document to document. */
export interface Edit {
	name: string;
	/** `random` comes out the same for the same document and edit */
	change: (made: Made, random: () => number) => Made;
	/** the words are not there to be read */
	scanned?: boolean;
}

const withParts = (made: Made, parts: Part[]): Made => ({ ...made, parts });

function insert(made: Made, at: number, ...parts: Part[]): Made {
	return withParts(made, [...made.parts.slice(0, at), ...parts, ...made.parts.slice(at)]);
}

/** Where a text begins or ends, so that nothing is put between a table's rows or a heading and its text. */
function seam(made: Made, random: () => number): number {
	const seams = made.parts.flatMap((part, i) => (i > 0 && part.is !== 'text' ? [i] : []));
	return seams.length > 0 ? pick(random, seams) : made.parts.length;
}

/** Every word for which `wanted` says yes is put in another's place. */
function reword(made: Made, random: () => number, share: number): Made {
	const words = [
		'quietly',
		'always',
		'the council',
		'winter',
		'rooms',
		'Maren Lindqvist',
		'EUR 310',
		'violas',
		'by letter',
		'lorry',
		'seven',
		'choir'
	];
	const text = (t: string) =>
		t
			.split(' ')
			.map((w) => (random() < share ? pick(random, words) : w))
			.join(' ');
	return withParts(
		made,
		made.parts.map((part) => (part.is === 'text' ? { ...part, text: text(part.text) } : part))
	);
}

function lines(made: Made, random: () => number): Made {
	return insert(made, Math.min(made.parts.length, 2), prose(random, 5));
}

function clauseGone(made: Made, random: () => number): Made {
	const at = made.parts.flatMap((part, i) =>
		part.is === 'heading' && i > 0 && made.parts[i + 1]?.is === 'text' ? [i] : []
	);
	if (at.length === 0)
		return withParts(
			made,
			made.parts.filter((_, i) => i !== made.parts.findIndex((p) => p.is === 'text'))
		);
	const i = pick(random, at);
	return withParts(made, [...made.parts.slice(0, i), ...made.parts.slice(i + 2)]);
}

function fieldGone(made: Made, random: () => number): Made {
	const at = made.parts.flatMap((part, i) => (part.is === 'line' || part.is === 'pair' ? [i] : []));
	if (at.length === 0) return clauseGone(made, random);
	const i = pick(random, at);
	return withParts(
		made,
		made.parts.filter((_, n) => n !== i)
	);
}

function tableRow(made: Made): Made {
	return withParts(
		made,
		made.parts.map((part) =>
			part.is === 'table'
				? {
						...part,
						rows: [
							part.rows[0]!,
							{ cells: part.head.map((_, c) => (c === 0 ? 'Extra' : '')), keys: part.head.map(() => null) },
							...part.rows.slice(1)
						]
					}
				: part
		)
	);
}

function narrowColumn(made: Made): Made {
	return withParts(
		made,
		made.parts.map((part) =>
			part.is === 'table' ? { ...part, shares: part.shares.map((s, i) => (i === 0 ? s * 1.5 : s)) } : part
		)
	);
}

function relabelled(made: Made, random: () => number): Made {
	const at = made.parts.flatMap((part, i) => (part.is === 'line' ? [i] : []));
	const one = at.length > 0 ? pick(random, at) : -1;
	return withParts(
		made,
		made.parts.map((part, i) => (part.is === 'line' && i === one ? { ...part, label: 'To be written in here' } : part))
	);
}

function doubledBlock(made: Made): Made {
	const at = made.parts.findIndex((part) => part.is === 'signatures');
	return at < 0 ? made : insert(made, at, { is: 'signatures', blocks: [{ label: 'Witness', key: '+witness' }] });
}

function moved(made: Made, random: () => number): Made {
	const at = made.parts.flatMap((part, i) =>
		part.is === 'heading' && i > 1 && made.parts[i + 1]?.is === 'text' ? [i] : []
	);
	if (at.length < 2) return lines(made, random);
	const i = pick(random, at.slice(1));
	const section = made.parts.slice(i, i + 2);
	const rest = [...made.parts.slice(0, i), ...made.parts.slice(i + 2)];
	return withParts(made, [...rest.slice(0, at[0]), ...section, ...rest.slice(at[0])]);
}

/** Signature blocks in another order from left to right. */
function sidesChanged(made: Made): Made {
	return withParts(
		made,
		made.parts.map((part) => (part.is === 'signatures' ? { ...part, blocks: [...part.blocks].reverse() } : part))
	);
}

type Table = Extract<Part, { is: 'table' }>;

/** A table with its columns in this order, or some of them left out. */
function withColumns(table: Table, order: number[]): Table {
	const pickOut = <T>(all: T[]): T[] => order.map((at) => all[at]!);
	return {
		...table,
		shares: pickOut(table.shares),
		head: pickOut(table.head),
		rows: table.rows.map(({ cells, keys }) => ({ cells: pickOut(cells), keys: pickOut(keys) }))
	};
}

function columns(made: Made, order: (columns: number) => number[]): Made {
	return withParts(
		made,
		made.parts.map((part) => (part.is === 'table' ? withColumns(part, order(part.head.length)) : part))
	);
}

const upTo = (n: number) => Array.from({ length: n }, (_, i) => i);

/** A numbered list that goes over the edge of a page. */
function longList(made: Made, random: () => number): Made {
	const rows = upTo(46).map((n): Part => ({ is: 'text', text: `${n + 1}. ${sentence(random)}` }));
	return insert(made, seam(made, random), { is: 'heading', text: 'What goes along' }, ...rows);
}

function contents(made: Made): Made {
	const row = (what: string, page: number): Part => ({ is: 'text', text: `${what} ${'.'.repeat(70)} ${page}` });
	return insert(
		made,
		Math.min(1, made.parts.length),
		row('Engagement', 1),
		row('Fee and travel', 2),
		row('Signatures', 3)
	);
}

export const EDITS: Edit[] = [
	{ name: 'nothing changed', change: (made) => made },
	{ name: 'lines added', change: lines },
	{
		name: 'a picture added',
		change: (made, r) => insert(made, seam(made, r), { is: 'picture', height: 110 + Math.floor(r() * 120) })
	},
	{ name: 'a clause gone', change: clauseGone },
	{ name: 'a line to fill in gone', change: fieldGone },
	{ name: 'other names and sums', change: (made, r) => reword(made, r, 0.08) },
	{ name: 'a third of the words others', change: (made, r) => reword(made, r, 0.33) },
	{ name: 'larger letters', change: (made) => ({ ...made, size: made.size * 1.15 }) },
	{ name: 'smaller letters', change: (made) => ({ ...made, size: made.size * 0.9 }) },
	{ name: 'other margins', change: (made) => ({ ...made, margin: made.margin + 18 }) },
	{ name: 'other paper', change: (made) => ({ ...made, paper: [612, 792] }) },
	{ name: 'a clause moved', change: moved },
	{ name: 'a table row added', change: tableRow },
	{ name: 'other column widths', change: narrowColumn },
	{ name: 'a label reworded', change: relabelled },
	{ name: 'a signature block more', change: doubledBlock },
	{
		name: 'a page more',
		change: (made, r) =>
			insert(made, seam(made, r), { is: 'page' }, { is: 'heading', text: 'In short' }, prose(r, 9), { is: 'page' })
	},
	{
		name: 'several at once',
		change: (made, r) =>
			reword(clauseGone(insert(lines(made, r), seam(made, r), { is: 'picture', height: 90 }), r), r, 0.1)
	},
	{ name: 'signature blocks change sides', change: sidesChanged },
	{ name: 'a column moved', change: (made) => columns(made, (n) => [...upTo(n).slice(1), 0]) },
	{ name: 'a column gone', change: (made) => columns(made, (n) => upTo(n).filter((at) => at !== 1)) },
	{
		name: 'labels broken over two rows',
		change: (made) =>
			withParts(
				made,
				made.parts.map((part) => (part.is === 'line' ? { ...part, broken: true } : part))
			)
	},
	{ name: 'a watermark', change: (made) => ({ ...made, watermark: 'DRAFT' }) },
	{ name: 'a dot leader', change: contents },
	{ name: 'a list over pages', change: longList },
	{ name: 'scanned', change: (made) => made, scanned: true },
	{
		name: 'another document',
		change: (made, r) => ({
			...made,
			parts: [
				{ is: 'heading', text: 'Minutes' },
				...Array.from({ length: 12 }, (): Part => ({
					is: 'text',
					text: sentence(r).toUpperCase().split('').reverse().join('')
				}))
			]
		})
	}
];

export function edited(made: Made, edit: Edit, seed: number): Made {
	return edit.change(made, chance(seed));
}

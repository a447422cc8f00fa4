import { fit, Recogniser, verdictOf, versionOf, type PageSize, type PrintedPages } from '../src/lib/core/page';
import { chance, DOCUMENTS, prose, wordy } from '../demo/fits/documents';
import { EDITS, edited } from '../demo/fits/edits';
import { judgeEdit } from '../demo/fits/judge';
import { textOf, type Made, type Part } from '../demo/fits/set';
import { figure, median, type Figure } from './measure';

const SEEDS = [31, 32];
const PAGES = 300;
const FIELDS = 500;
const TEMPLATES = 1000;

/** How well and how fast fields are laid on another version of a document, and documents recognised. */
export async function benchFitting(): Promise<Figure[]> {
	return [...(await accuracy()), await speed(), ...(await recognition())];
}

async function accuracy(): Promise<Figure[]> {
	const sum = { sure: 0, asked: 0, listed: 0, wrong: 0 };
	for (const edit of EDITS)
		for (const tuned of [true, false]) {
			const one = await judgeEdit(edit, tuned, SEEDS);
			for (const what of ['sure', 'asked', 'listed', 'wrong'] as const) sum[what] += one[what];
		}
	const all = { what: 'all fields', value: sum.sure + sum.asked + sum.listed + sum.wrong };
	return [
		figure('fields wrong and nothing said', sum.wrong, 'fields', all, { value: 0 }),
		figure('fields shown for a look', sum.asked + sum.listed, 'fields', all)
	];
}

/** A long document of lines, a word of which in ten is another in the new version, with a line added here and there. */
function long(): {
	old: Laid;
	next: Laid;
	fields: { id: string; page: number; rect: { x: number; y: number; width: number; height: number } }[];
} {
	const random = chance(7);
	const lines = Array.from({ length: PAGES * 38 }, (_, i) => {
		const part = wordy(random, 12) as Extract<Part, { is: 'text' }>;
		return `${i % 23 === 0 ? `Line ${i} to fill in ` : ''}${part.text}`.split(' ');
	});
	const changed = lines.flatMap((line) => {
		const now = line.map((word) => (random() < 0.1 ? 'otherwise' : word));
		return random() < 0.01 ? [now, ['a', 'line', 'more', 'than', 'before']] : [now];
	});
	const fields = Array.from({ length: FIELDS }, (_, i) => {
		const line = Math.floor(i * (lines.length / FIELDS));
		return {
			id: `f${i}`,
			page: Math.floor(line / 38),
			rect: { x: 300, y: 780 - (line % 38) * 19, width: 120, height: 14 }
		};
	});
	return { old: laid(lines), next: laid(changed), fields };
}

interface Laid {
	reading: PrintedPages;
	pages: PageSize[];
}

function laid(lines: string[][]): Laid {
	const pages = Array.from({ length: Math.ceil(lines.length / 38) }, (_, p) => lines.slice(p * 38, p * 38 + 38));
	return {
		pages: pages.map(() => ({ width: 595, height: 842, rotate: 0 })),
		reading: {
			words: pages.map((page) =>
				page.flatMap((line, i) => {
					let x = 50;
					return line.map((text) => {
						const word = { text, x, y: 780 - i * 19, width: text.length * 4.6, height: 11 };
						x += word.width + 3;
						return word;
					});
				})
			),
			drawn: pages.map(() => ({ lines: [], boxes: [] }))
		}
	};
}

async function speed(): Promise<Figure> {
	const { old, next, fields } = long();
	const ready = () => [versionOf(old.reading, old.pages), versionOf(next.reading, next.pages)] as const;
	const reading = await median(3, ready);
	const [before, after] = ready();
	const time = await median(3, () => fit(before, after, fields));
	return figure(
		`fit of ${FIELDS} fields on ${PAGES} pages`,
		time,
		'ms',
		{ what: 'putting the words of both in rows', value: reading },
		{ value: 500 }
	);
}

/** A thousand templates; each of the documents asked about is one of them edited, or one of none. */
async function recognition(): Promise<Figure[]> {
	const random = chance(99);
	const templates = Array.from({ length: TEMPLATES }, (_, i): Made => {
		const base = DOCUMENTS[i % DOCUMENTS.length]!.made;
		const own = base.parts.findIndex((part) => part.is === 'text');
		const parts = base.parts.map((part, n): Part =>
			part.is === 'text' && (n === own || random() < 0.7) ? wordy(random, 40) : part
		);
		// the shortest forms have one text only: without a second, one that loses it has nothing of its own left
		return { ...base, parts: [...parts, wordy(random, 30)] };
	});
	const known = new Recogniser();
	templates.forEach((made, i) => known.add(String(i), textOf(made)));
	const reworded = EDITS.filter((edit) =>
		['lines added', 'a clause gone', 'other names and sums', 'several at once'].includes(edit.name)
	);
	const asked = templates
		.filter((_, i) => i % 5 === 0)
		.map((made, i) => ({ id: String(i * 5), words: textOf(edited(made, reworded[i % reworded.length]!, i)) }));
	const none = Array.from({ length: 200 }, () => ({
		id: 'none',
		words: textOf({
			...templates[0]!,
			parts: [...DOCUMENTS[0]!.made.parts.filter((p) => p.is !== 'text'), prose(random, 3), wordy(random, 400)]
		})
	}));
	let wrong = 0;
	let open = 0;
	for (const { id, words } of [...asked, ...none]) {
		const answers = known.ask(words);
		const verdict = verdictOf(answers);
		if (verdict === 'ask') open++;
		const right = id === 'none' ? verdict === 'none' : answers[0]?.id === id && verdict !== 'none';
		if (!right) wrong++;
	}
	const all = { what: 'documents asked about', value: asked.length + none.length };
	const one = asked[3]!.words;
	const once = await median(20, () => one.map((word) => word.toLowerCase()).join(' '));
	return [
		figure('documents taken for another, or for none', wrong, 'documents', all, { ratio: 0.01 }),
		figure('documents asked about again', open, 'documents', all),
		figure(
			`recognition among ${TEMPLATES}`,
			await median(20, () => known.ask(one)),
			'ms',
			{ what: 'its words in small letters', value: once },
			{ value: 20 }
		)
	];
}

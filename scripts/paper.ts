import { flatSheet } from '../src/lib/press/paper/flat';
import { heldSheet } from '../src/lib/press/paper/held';
import { tellSheet } from '../src/lib/press/paper/read';
import { endReader } from '../src/lib/press/ocr';
import { isRefusal } from '../src/lib/core/refusal';
import { cases, type Case } from '../demo/paper/set';

/**
 * How well paper that comes back is told: `npx tsx scripts/paper.ts tuned 66`, `… "kept out" 40 100`. A line for each that went
 * wrong, then the sums that docs/paper.md has.
 */

interface Box {
	left: number;
	top: number;
	width: number;
	height: number;
}

const near = (a: Box, b: Box): boolean =>
	a.left < b.left + b.width + 6 &&
	a.left + a.width > b.left - 6 &&
	a.top < b.top + b.height + 14 &&
	a.top + a.height > b.top - 14;

const sums = { pages: 0, told: 0, changed: 0, found: 0, untouched: 0, quiet: 0, places: 0, inkTold: 0 };

async function measure(one: Case): Promise<string[]> {
	sums.pages += 1;
	const flat = await flatSheet({ bytes: one.picture });
	if (isRefusal(flat)) return [flat.say];
	const code = flat.codes.find(({ digest }) => digest === one.gone.digest.slice(0, 16));
	const told = await tellSheet(
		flat,
		one.gone.sheets,
		code ? { number: code.page - 1, corners: code.corners } : null,
		'eng'
	);
	if (told.number !== one.page || !told.way) return [`told for page ${told.number}`];
	sums.told += 1;
	const sheet = one.gone.sheets[one.page]!;
	const { changed, writing, places } = await heldSheet({
		picture: told.picture,
		content: one.gone.content,
		number: one.page,
		sheet,
		read: told.read,
		way: told.way
	});
	const wrong: string[] = [];
	const marks: Box[] = [...changed, ...writing];
	const { change } = one;
	if (change) {
		sums.changed += 1;
		if (marks.some((mark) => near(mark, change.word))) sums.found += 1;
		else wrong.push(`missed: “${change.word.text}” ${change.how}`);
	} else {
		sums.untouched += 1;
		if (marks.length === 0) sums.quiet += 1;
		else wrong.push(`false alarm: ${JSON.stringify(marks.slice(0, 3))}`);
	}
	for (const [i, { ink }] of places.entries()) {
		sums.places += 1;
		if (ink === one.inked[i]) sums.inkTold += 1;
		else wrong.push(`${sheet.places[i]!.label}: ${ink ? 'ink seen where there is none' : 'ink not seen'}`);
	}
	return wrong;
}

const [which, count = '40', first = '0'] = process.argv.slice(2);
for await (const one of cases(which === 'kept out' ? 'kept out' : 'tuned', Number(count), Number(first)))
	for (const say of await measure(one))
		process.stdout.write(`${one.name}, page ${one.page + 1}, ${one.scan.by} ${Math.round(one.scan.dpi)}: ${say}\n`);
process.stdout.write(`${JSON.stringify(sums)}\n`);
await endReader();

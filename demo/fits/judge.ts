import { PDFDocument } from '@cantoo/pdf-lib';
import type { Browser } from '@playwright/test';
import { fit, versionOf, type Version } from '../../src/lib/core/page/fit';
import { openPdf } from '../../src/lib/press/pdfium';
import { setByBrowser } from './browser';
import { DOCUMENTS } from './documents';
import { edited, type Edit } from './edits';
import { set, type Made, type Place } from './set';

/** How one fit came out, field by field. */
export interface Outcome {
	/** where it belongs, within 3 pt, without a doubt */
	sure: number;
	/** where it belongs, but shown for a look */
	asked: number;
	/** elsewhere or nowhere, and shown for a look */
	listed: number;
	/** elsewhere, and nothing said */
	wrong: number;
	faults: string[];
}

/** Points by which a field may be off. */
const NEAR = 3;

export async function read(
	made: Made,
	scanned = false,
	setBy: typeof set = set
): Promise<Version & { places: Map<string, Place> }> {
	const { bytes, places } = await setBy(made);
	const sizes = (await PDFDocument.load(bytes)).getPages().map((p) => ({ ...p.getSize(), rotate: 0 as const }));
	const pdf = await openPdf(bytes);
	if (typeof pdf === 'string') throw new Error(`could not read “${made.name}”`);
	try {
		const words = sizes.map((_, page) => (scanned ? [] : pdf.words(page)));
		const drawn = sizes.map((_, page) => (scanned ? { lines: [], boxes: [] } : pdf.drawing(page)));
		return { places, ...versionOf({ words, drawn }, sizes) };
	} finally {
		pdf.close();
	}
}

/** Fits a document's fields on an edited version of it and compares with where they truly are. */
export async function judge(
	made: Made,
	edit: Edit,
	seed: number,
	setBy: typeof set = set,
	near = NEAR
): Promise<Outcome> {
	const before = await read(made, false, setBy);
	const after = await read(edited(made, edit, seed), edit.scanned, setBy);
	const fields = [...before.places].map(([id, place]) => ({ id, ...place }));
	const outcome: Outcome = { sure: 0, asked: 0, listed: 0, wrong: 0, faults: [] };
	for (const one of fit(before, after, fields).fields) {
		const truth = after.places.get(one.id);
		const right = truth ? one.place !== null && close(one.place, truth, near) : one.place === null;
		const doubt = one.doubts.length > 0;
		if (right) outcome[doubt && truth ? 'asked' : 'sure']++;
		else {
			outcome[doubt ? 'listed' : 'wrong']++;
			outcome.faults.push(
				`${doubt ? 'listed' : 'WRONG'} ${one.id}: ${say(truth)} became ${say(one.place)} ${one.doubts.join(', ')}`
			);
		}
	}
	return outcome;
}

function close(a: Place, b: Place, near: number): boolean {
	return a.page === b.page && Math.abs(a.rect.x - b.rect.x) <= near && Math.abs(a.rect.y - b.rect.y) <= near;
}

function say(place: Place | null | undefined): string {
	return place ? `${place.page + 1}:${Math.round(place.rect.x)},${Math.round(place.rect.y)}` : 'nowhere';
}

/** A word in a blank moves with the line's own height, so where it tells the place it is off by as much. */
const NEAR_WORD = 7;

/** Every third document, set by a browser, with one edit. */
export async function judgeInBrowser(edit: Edit, browser: Browser): Promise<Outcome> {
	const sum: Outcome = { sure: 0, asked: 0, listed: 0, wrong: 0, faults: [] };
	for (const { made } of DOCUMENTS.filter((_, i) => i % 3 === 2)) {
		const one = await judge(made, edit, 11, (wanted) => setByBrowser(wanted, browser), NEAR_WORD);
		for (const what of ['sure', 'asked', 'listed', 'wrong'] as const) sum[what] += one[what];
		sum.faults.push(...one.faults.map((fault) => `${made.name} / ${edit.name}: ${fault}`));
	}
	return sum;
}

/** All documents with one edit: sums over them, apart for those that were tuned on and those kept out. */
export async function judgeEdit(edit: Edit, tuned: boolean, seeds: number[]): Promise<Outcome> {
	const sum: Outcome = { sure: 0, asked: 0, listed: 0, wrong: 0, faults: [] };
	for (const document of DOCUMENTS.filter((d) => d.tuned === tuned))
		for (const seed of seeds) {
			const one = await judge(document.made, edit, seed);
			for (const what of ['sure', 'asked', 'listed', 'wrong'] as const) sum[what] += one[what];
			sum.faults.push(...one.faults.map((fault) => `${document.made.name} / ${edit.name}: ${fault}`));
		}
	return sum;
}

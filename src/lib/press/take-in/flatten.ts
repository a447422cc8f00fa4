import {
	PDFArray,
	PDFDict,
	PDFName,
	PDFNumber,
	PDFRawStream,
	PDFRef,
	PDFStream,
	type PDFDocument,
	type PDFObject,
	type PDFPage
} from '@cantoo/pdf-lib';
import { isolate } from '../isolate';
import type { AnnotationPlace, LeftOut } from '../pdfium';
import { layersOf } from './layers';

/** Annotation flags (ISO 32000-2 §12.5.3, table 167). */
const FLAG = { hidden: 1 << 1, print: 1 << 2, noView: 1 << 5 } as const;

const name = (text: string) => PDFName.of(text);

/** What became of the annotations of a file. */
export interface Flattened {
	fields: number;
	/** marks that print: stamps, notes set on the page, highlights */
	marks: number;
	/** those that a switched-off layer hides */
	hidden: AnnotationPlace[];
}

/**
 * Draws form fields, and every other annotation that prints, onto its page as a reader shows it (§12.5.5), each page in
 * its own order, and takes them out as annotations. What is hidden, not to be viewed, or on a layer that is switched off
 * is not drawn. Links stay. Appearances that are missing must have been made before.
 */
export function flatten(doc: PDFDocument): Flattened {
	const isOff = layersOf(doc);
	const count: Flattened = { fields: 0, marks: 0, hidden: [] };
	for (const [number, page] of doc.getPages().entries()) {
		const annots = page.node.Annots();
		if (!annots) continue;
		const kept: PDFObject[] = [];
		for (const [index, item] of annots.asArray().entries()) {
			const dict = item instanceof PDFRef ? doc.context.lookup(item) : item;
			if (!(dict instanceof PDFDict)) continue;
			const kind = String(dict.lookup(name('Subtype')));
			if (kind === '/Link') {
				kept.push(item);
				continue;
			}
			const flags = numberOf(dict.lookup(name('F'))) ?? 0;
			const widget = kind === '/Widget';
			const prints = (flags & FLAG.print) !== 0;
			if (widget) count.fields += 1;
			else if (prints) count.marks += 1;
			if (isOff(dict.get(name('OC')))) count.hidden.push({ page: number, index });
			else if ((flags & (FLAG.hidden | FLAG.noView)) === 0 && (widget || prints)) drawAppearance(doc, page, dict);
		}
		if (kept.length > 0) page.node.set(name('Annots'), doc.context.obj(kept));
		else page.node.delete(name('Annots'));
	}
	return count;
}

/** Notes that are only for readers at a screen and don't print stay out; told to PDFium, so that it draws the original likewise. */
export const isLeftOut: LeftOut = (flags, widget) => !widget && (flags & FLAG.print) === 0;

function drawAppearance(doc: PDFDocument, page: PDFPage, dict: PDFDict): void {
	const ref = appearanceOf(doc, dict);
	const rect = numbersOf(dict.lookup(name('Rect')), 4);
	if (!ref || !rect) return;
	const [left, bottom, right, top] = [
		Math.min(rect[0]!, rect[2]!),
		Math.min(rect[1]!, rect[3]!),
		Math.max(rect[0]!, rect[2]!),
		Math.max(rect[1]!, rect[3]!)
	];
	const form = doc.context.lookup(ref, PDFStream).dict;
	const box = numbersOf(form.lookup(name('BBox')), 4) ?? [0, 0, right - left, top - bottom];
	const [a, b, c, d, e, f] = numbersOf(form.lookup(name('Matrix')), 6) ?? [1, 0, 0, 1, 0, 0];
	form.set(name('Type'), name('XObject'));
	form.set(name('Subtype'), name('Form'));
	form.set(name('BBox'), doc.context.obj(box));
	// §12.5.5, algorithm 8.1: the box under its matrix, and what brings that box onto the rectangle
	const corners = [0, 2].flatMap((i) =>
		[1, 3].map((j) => [a! * box[i]! + c! * box[j]! + e!, b! * box[i]! + d! * box[j]! + f!] as const)
	);
	const [x1, x2] = [Math.min(...corners.map((p) => p[0])), Math.max(...corners.map((p) => p[0]))];
	const [y1, y2] = [Math.min(...corners.map((p) => p[1])), Math.max(...corners.map((p) => p[1]))];
	if (!(x2 > x1) || !(y2 > y1)) return;
	const [sx, sy] = [(right - left) / (x2 - x1), (top - bottom) / (y2 - y1)];
	isolate(doc, page);
	const key = page.node.newXObject('Mark', ref).decodeText();
	const number = (n: number) => Number(n.toFixed(5));
	page.node.addContentStream(
		doc.context.register(
			doc.context.stream(
				`q ${number(sx)} 0 0 ${number(sy)} ${number(left - x1 * sx)} ${number(bottom - y1 * sy)} cm /${key} Do Q\n`
			)
		)
	);
}

/** The normal appearance that holds now: of several states the one that /AS names, not the value (§12.5.5). */
function appearanceOf(doc: PDFDocument, dict: PDFDict): PDFRef | null {
	const all = dict.lookup(name('AP'));
	let entry = all instanceof PDFDict ? all.get(name('N')) : undefined;
	const looked = entry instanceof PDFRef ? doc.context.lookup(entry) : entry;
	if (looked instanceof PDFDict) {
		const state = dict.lookup(name('AS')) ?? dict.lookup(name('V')) ?? parentOf(dict)?.lookup(name('V'));
		entry = state instanceof PDFName ? looked.get(state) : looked.get(name('Off'));
	}
	const stream = entry instanceof PDFRef ? doc.context.lookup(entry) : entry;
	if (!(stream instanceof PDFRawStream || stream instanceof PDFStream)) return null;
	return entry instanceof PDFRef ? entry : doc.context.register(stream);
}

function parentOf(dict: PDFDict): PDFDict | undefined {
	const parent = dict.lookup(name('Parent'));
	return parent instanceof PDFDict ? parent : undefined;
}

function numberOf(value: PDFObject | undefined): number | undefined {
	return value instanceof PDFNumber ? value.asNumber() : undefined;
}

function numbersOf(value: PDFObject | undefined, count: number): number[] | null {
	if (!(value instanceof PDFArray) || value.size() < count) return null;
	const all = Array.from({ length: count }, (_, i) => numberOf(value.lookup(i)));
	return all.every((n) => n !== undefined && Number.isFinite(n)) ? (all as number[]) : null;
}

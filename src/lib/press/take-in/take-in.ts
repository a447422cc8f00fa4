import { PDFArray, PDFDocument, PDFName, PDFNumber, PDFRef } from '@cantoo/pdf-lib';
import { createHash } from 'node:crypto';
import sharp from 'sharp';
import type { PageDrawing, PageSize, PdfWidget, PrintedWord, Rect } from '../../core/page';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { pageBox } from '../box';
import { openPdf, type AnnotationPlace, type OpenPdf } from '../pdfium';
import { sweepAfter } from '../memory';
import { normalised } from '../qpdf';
import { flatten, isLeftOut } from './flatten';
import { sweep } from './sweep';
import { stripActive, type Stripped } from './strip';
import { readWidgets } from './widgets';

export interface TakeInLimits {
	bytes: number;
	pages: number;
}

export const LIMITS: TakeInLimits = { bytes: 50 * 1024 * 1024, pages: 1000 };

/** The widest page of PDF (ISO 32000-1, Annex C), points. */
const LARGEST = 14_400;
const LETTER = [0, 0, 612, 792];

/** A document taken in: `bytes` is the only form in which it is ever shown, stamped or sealed. */
export interface TakenIn {
	bytes: Uint8Array;
	digest: string;
	pages: PageSize[];
	/** words by page, in page space (relative to the crop box) */
	words: PrintedWord[][];
	/** lines and boxes by page, and the form fields the PDF had, in page space */
	drawn: PageDrawing[];
	widgets: PdfWidget[];
	/** PNG of the first page, 240 px wide */
	thumbnail: Uint8Array;
	stripped: Stripped[];
	/** pages that are a picture of a page and have hardly a word of their own, from 0 */
	pictures: number[];
	/** annotations of the original that a switched-off layer hides */
	hidden: AnnotationPlace[];
}

/** A page with fewer words than this, more than so much of which is a picture, is a scan. */
const FEW_WORDS = 6;
const PICTURED = 0.5;

const DAMAGED = refuse('pdf-damaged', 'The PDF is damaged beyond repair. Ask for it again.');
const NO_PAGES = refuse('pdf-no-pages', 'The PDF has no pages.');

/** Before anything is opened: what can be told from the bytes alone. */
export function glance(bytes: Uint8Array, limits: TakeInLimits = LIMITS): Refusal | null {
	if (bytes.length === 0) return refuse('file-empty', 'The file is empty (0 bytes).');
	if (bytes.length > limits.bytes)
		return refuse('file-too-large', `The file is ${mb(bytes.length)} MB; ${mb(limits.bytes)} MB is the most.`);
	// ISO 32000-2 §7.5.2 wants the header first; readers accept it within the first 1024 bytes
	if (!Buffer.from(bytes.subarray(0, 1024)).includes('%PDF-')) return refuse('not-a-pdf', 'This is not a PDF.');
	return null;
}

/**
 * Takes a PDF in: opens it, mends it, draws its form onto the pages, strips what is active, rewrites it, reads its pages
 * and words. Refuses, with `code`: file-empty, file-too-large, not-a-pdf, pdf-locked, pdf-damaged, pdf-no-pages,
 * pdf-too-many-pages, pdf-signed, pdf-page-size.
 */
export async function takeIn(
	original: Uint8Array,
	limits: TakeInLimits = LIMITS,
	told: (page: number, of: number) => void = () => {}
): Promise<TakenIn | Refusal> {
	const no = glance(original, limits);
	if (no) return no;
	const opened = await openPdf(original);
	if (opened === 'locked')
		return refuse('pdf-locked', 'The PDF is locked with a password. Save a copy without one and add that.');
	if (opened === 'damaged') return (await isWithoutPages(original)) ? NO_PAGES : DAMAGED;
	let rewritten: Rewritten | Refusal;
	try {
		const refusal = lookInside(opened, original, limits);
		if (refusal) return refusal;
		const comments = opened.showForms(isLeftOut);
		rewritten = await rewrittenOf(opened);
		if (!isRefusal(rewritten) && comments > 0)
			rewritten.stripped.push(
				comments === 1 ? 'a comment that does not print' : `${comments} comments that do not print`
			);
	} catch {
		return DAMAGED;
	} finally {
		opened.close();
	}
	if (isRefusal(rewritten)) return rewritten;
	const { bytes, stripped, boxes, widgets, hidden } = rewritten;
	sweepAfter(bytes.length);
	const clean = await openPdf(bytes);
	if (typeof clean === 'string' || clean.pages !== boxes.length) return DAMAGED;
	try {
		const words: PrintedWord[][] = [];
		const drawn: PageDrawing[] = [];
		const pictures: number[] = [];
		for (const [page, box] of boxes.entries()) {
			words.push(inside(clean.words(page), box));
			drawn.push(shifted(clean.drawing(page), box));
			if (words[page]!.length < FEW_WORDS && clean.pictured(page) > PICTURED) pictures.push(page);
			told(page + 1, boxes.length);
		}
		return {
			bytes,
			digest: createHash('sha256').update(bytes).digest('hex'),
			pages: boxes.map(({ width, height, rotate }) => ({ width, height, rotate })),
			words,
			drawn,
			widgets,
			pictures,
			thumbnail: await thumbnail(clean),
			stripped,
			hidden
		};
	} finally {
		clean.close();
	}
}

/** PDFium calls a file without pages damaged; a person should hear which it is. */
async function isWithoutPages(bytes: Uint8Array): Promise<boolean> {
	try {
		return (
			(await PDFDocument.load(bytes.slice(), { updateMetadata: false, parseSpeed: Infinity })).getPageCount() === 0
		);
	} catch {
		return false;
	}
}

function lookInside(opened: OpenPdf, original: Uint8Array, limits: TakeInLimits): Refusal | null {
	if (seen(original).includes('/Encrypt') && /\/Encrypt\s+(\d+\s+\d+\s+R|<<)/.test(tail(original)))
		return refuse('pdf-locked', 'The PDF is protected against changes. Save a copy without protection and add that.');
	if (opened.pages === 0) return NO_PAGES;
	if (opened.pages > limits.pages)
		return refuse('pdf-too-many-pages', `The PDF has ${opened.pages} pages; ${limits.pages} is the most.`);
	if (opened.signed)
		return refuse('pdf-signed', 'The PDF carries a digital signature, which filling it in would break.');
	return null;
}

interface Rewritten {
	bytes: Uint8Array;
	stripped: Stripped[];
	boxes: ReturnType<typeof pageBox>[];
	widgets: PdfWidget[];
	hidden: AnnotationPlace[];
}

/** The file rewritten; by its pages alone where its object tree is not as the standard wants it. */
async function rewrittenOf(opened: OpenPdf): Promise<Rewritten | Refusal> {
	try {
		const whole = await rewrite({ bytes: opened.saved() });
		if (isRefusal(whole) || whole.boxes.length === opened.pages) return whole;
	} catch {
		// the second way is left
	}
	return rewrite({ bytes: opened.pagesAlone() });
}

/** @param mended let go as soon as it has been read: pdf-lib makes copies of what it keeps */
async function rewrite(mended: { bytes: Uint8Array | null }): Promise<Rewritten | Refusal> {
	const size = mended.bytes!.length;
	const reading = PDFDocument.load(mended.bytes!, { updateMetadata: false, parseSpeed: Infinity });
	mended.bytes = null;
	let doc: PDFDocument | null = await reading;
	sweepAfter(size);
	mendBoxes(doc);
	const widgets = readWidgets(doc);
	const { fields, marks, hidden } = flatten(doc);
	const stripped = stripActive(doc);
	if (fields > 0) stripped.push('form fields (their contents stay on the page)');
	if (marks > 0) stripped.push('notes and marks (they stay on the page as they print)');
	doc.catalog.delete(PDFName.of('AcroForm'));
	const boxes = doc.getPages().map(pageBox);
	const odd = boxes.findIndex(
		({ width, height }) => !(width >= 1 && height >= 1 && Math.max(width, height) <= LARGEST)
	);
	if (odd >= 0) {
		const { width, height } = boxes[odd]!;
		return refuse(
			'pdf-page-size',
			`Page ${odd + 1} measures ${width} x ${height} points, which nobody could sign on. Save the PDF anew with a usual page size.`
		);
	}
	const held = { doc: doc as PDFDocument | null };
	doc = null;
	return { bytes: await savedAnew(held), stripped, boxes, widgets, hidden };
}

const SAVING = { updateFieldAppearances: false, addDefaultPage: false, useObjectStreams: false };

/** @param held the tree is let go once it is written: it and the file beside each other are what a large document weighs */
async function savedAnew(held: { doc: PDFDocument | null }): Promise<Uint8Array> {
	let saved = await held.doc!.save(SAVING).catch(() => null);
	// what can't be written as it stands can be once it is swept
	if (!saved) return sweptAnew(held.doc!);
	held.doc = null;
	const file = { bytes: saved };
	saved = null;
	sweepAfter(file.bytes.length);
	try {
		const anew = await normalised(file);
		sweepAfter(anew.length);
		return anew;
	} catch {
		return sweptAnew(await PDFDocument.load(file.bytes, { updateMetadata: false, parseSpeed: Infinity }));
	}
}

async function sweptAnew(doc: PDFDocument): Promise<Uint8Array> {
	sweep(doc);
	return new Uint8Array(await doc.save(SAVING));
}

/** Pages without a media box get the one that readers take for granted. */
function mendBoxes(doc: PDFDocument): void {
	for (const page of doc.getPages()) {
		const box = page.node.getInheritableAttribute(PDFName.of('MediaBox'));
		const found = box instanceof PDFRef ? doc.context.lookup(box) : box;
		const whole =
			found instanceof PDFArray &&
			found.size() === 4 &&
			[0, 1, 2, 3].every((i) => found.lookup(i) instanceof PDFNumber);
		if (!whole) page.node.set(PDFName.of('MediaBox'), doc.context.obj(LETTER));
	}
}

/** Lines and boxes again, of a document that was taken in before they were kept. */
export async function readDrawn(job: { bytes: Uint8Array }): Promise<PageDrawing[]> {
	const doc = await PDFDocument.load(job.bytes, { updateMetadata: false, parseSpeed: Infinity });
	const boxes = doc.getPages().map(pageBox);
	const pdf = await openPdf(job.bytes);
	if (typeof pdf === 'string') return boxes.map(() => ({ lines: [], boxes: [] }));
	try {
		return boxes.map((box, page) => shifted(pdf.drawing(page), box));
	} finally {
		pdf.close();
	}
}

/** From user space into page space, to the hundredth of a point. */
function shifted(
	{ lines, boxes, rings = [], shaded = [] }: PageDrawing,
	origin: { x: number; y: number }
): PageDrawing {
	const r = (n: number) => Math.round(n * 100) / 100;
	const moved = ({ x, y, width, height }: Rect) => ({
		x: r(x - origin.x),
		y: r(y - origin.y),
		width: r(width),
		height: r(height)
	});
	return {
		lines: lines.map(({ x1, y1, x2, y2 }) => ({
			x1: r(x1 - origin.x),
			y1: r(y1 - origin.y),
			x2: r(x2 - origin.x),
			y2: r(y2 - origin.y)
		})),
		boxes: boxes.map(moved),
		...(rings.length > 0 && { rings: rings.map(moved) }),
		...(shaded.length > 0 && { shaded: shaded.map(moved) })
	};
}

function inside(words: PrintedWord[], box: { x: number; y: number; width: number; height: number }): PrintedWord[] {
	return words
		.map((word) => ({ ...word, x: word.x - box.x, y: word.y - box.y }))
		.filter((w) => w.x + w.width > 0 && w.y + w.height > 0 && w.x < box.width && w.y < box.height);
}

async function thumbnail(pdf: OpenPdf): Promise<Uint8Array> {
	const { width, height, rgba } = pdf.picture(0, 240);
	return new Uint8Array(
		await sharp(rgba, { raw: { width, height, channels: 4 } })
			.png()
			.toBuffer()
	);
}

/** Trailers stand at the end, linearised ones near the start as well (ISO 32000-2 §7.5.5, Annex F). */
function tail(bytes: Uint8Array): string {
	const text = seen(bytes);
	return text.subarray(-8192).toString('latin1') + text.subarray(0, 8192).toString('latin1');
}

/** The same bytes as a Buffer, not a copy of them. */
const seen = (bytes: Uint8Array): Buffer => Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);

function mb(bytes: number): string {
	return (bytes / 1024 / 1024).toFixed(bytes < 10 * 1024 * 1024 ? 1 : 0);
}

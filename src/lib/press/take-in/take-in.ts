import { PDFButton, PDFDocument, PDFName, PDFSignature } from '@cantoo/pdf-lib';
import { createHash } from 'node:crypto';
import sharp from 'sharp';
import type { PageDrawing, PageSize, PdfWidget, PrintedWord } from '../../core/page';
import { refuse, type Refusal } from '../../core/refusal';
import { pageBox } from '../box';
import { openPdf, type OpenPdf } from '../pdfium';
import { normalised } from '../qpdf';
import { stripActive, type Stripped } from './strip';
import { readWidgets } from './widgets';

export interface TakeInLimits {
	bytes: number;
	pages: number;
}

export const LIMITS: TakeInLimits = { bytes: 50 * 1024 * 1024, pages: 1000 };

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
}

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
 * Takes a PDF in: opens it, mends it, strips what is active, rewrites it, reads its pages and words.
 * Refuses, with `code`: file-empty, file-too-large, not-a-pdf, pdf-locked, pdf-damaged, pdf-no-pages,
 * pdf-too-many-pages, pdf-signed.
 */
export async function takeIn(original: Uint8Array, limits: TakeInLimits = LIMITS): Promise<TakenIn | Refusal> {
	const no = glance(original, limits);
	if (no) return no;
	const opened = await openPdf(original);
	if (opened === 'locked')
		return refuse('pdf-locked', 'The PDF is locked with a password. Save a copy without one and add that.');
	if (opened === 'damaged') return (await isWithoutPages(original)) ? NO_PAGES : DAMAGED;
	let mended: Uint8Array;
	try {
		const refusal = lookInside(opened, original, limits);
		if (refusal) return refusal;
		mended = opened.saved();
	} finally {
		opened.close();
	}
	let rewritten: Awaited<ReturnType<typeof rewrite>>;
	try {
		rewritten = await rewrite(mended);
	} catch {
		return DAMAGED;
	}
	const { bytes, stripped, boxes, widgets } = rewritten;
	const clean = await openPdf(bytes);
	if (typeof clean === 'string' || clean.pages !== boxes.length) return DAMAGED;
	try {
		return {
			bytes,
			digest: createHash('sha256').update(bytes).digest('hex'),
			pages: boxes.map(({ width, height, rotate }) => ({ width, height, rotate })),
			words: boxes.map((box, page) => inside(clean.words(page), box)),
			drawn: boxes.map((box, page) => shifted(clean.drawing(page), box)),
			widgets,
			thumbnail: await thumbnail(clean),
			stripped
		};
	} finally {
		clean.close();
	}
}

/** PDFium calls a file without pages damaged; a person should hear which it is. */
async function isWithoutPages(bytes: Uint8Array): Promise<boolean> {
	try {
		return (await PDFDocument.load(bytes, { updateMetadata: false, parseSpeed: Infinity })).getPageCount() === 0;
	} catch {
		return false;
	}
}

function lookInside(opened: OpenPdf, original: Uint8Array, limits: TakeInLimits): Refusal | null {
	if (Buffer.from(original).includes('/Encrypt') && /\/Encrypt\s+(\d+\s+\d+\s+R|<<)/.test(tail(original)))
		return refuse('pdf-locked', 'The PDF is protected against changes. Save a copy without protection and add that.');
	if (opened.pages === 0) return NO_PAGES;
	if (opened.pages > limits.pages)
		return refuse('pdf-too-many-pages', `The PDF has ${opened.pages} pages; ${limits.pages} is the most.`);
	if (opened.signatures > 0)
		return refuse('pdf-signed', 'The PDF carries a digital signature, which filling it in would break.');
	return null;
}

async function rewrite(mended: Uint8Array) {
	const doc = await PDFDocument.load(mended, { updateMetadata: false, parseSpeed: Infinity });
	const widgets = doc.catalog.has(PDFName.of('AcroForm')) ? readWidgets(doc) : [];
	const stripped = stripActive(doc);
	if (flattenForm(doc)) stripped.push('form fields (their contents stay on the page)');
	const boxes = doc.getPages().map(pageBox);
	const saved = await doc.save({ updateFieldAppearances: false, addDefaultPage: false, useObjectStreams: false });
	return { bytes: new Uint8Array(await normalised(saved)), stripped, boxes, widgets };
}

function flattenForm(doc: PDFDocument): boolean {
	const form = doc.getForm();
	if (form.getFields().length === 0) return false;
	for (const field of form.getFields()) {
		if (field instanceof PDFSignature || field instanceof PDFButton) form.removeField(field);
	}
	form.flatten({ updateFieldAppearances: false });
	doc.catalog.delete(PDFName.of('AcroForm'));
	return true;
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
function shifted({ lines, boxes }: PageDrawing, box: { x: number; y: number }): PageDrawing {
	const r = (n: number) => Math.round(n * 100) / 100;
	return {
		lines: lines.map((l) => ({ x1: r(l.x1 - box.x), y1: r(l.y1 - box.y), x2: r(l.x2 - box.x), y2: r(l.y2 - box.y) })),
		boxes: boxes.map((b) => ({ x: r(b.x - box.x), y: r(b.y - box.y), width: r(b.width), height: r(b.height) }))
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
	const text = Buffer.from(bytes);
	return text.subarray(-8192).toString('latin1') + text.subarray(0, 8192).toString('latin1');
}

function mb(bytes: number): string {
	return (bytes / 1024 / 1024).toFixed(bytes < 10 * 1024 * 1024 ? 1 : 0);
}

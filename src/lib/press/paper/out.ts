import {
	concatTransformationMatrix,
	PDFDocument,
	popGraphicsState,
	pushGraphicsState,
	rgb,
	type PDFPage
} from '@cantoo/pdf-lib';
import { create } from 'qrcode';
import { codeText, type PageCode, type SheetWord } from '../../core/paper';
import { fromShown, shownSize, toShown, uprightMatrix, type PageSize, type ShownRect } from '../../core/page';
import { pageBox } from '../box';
import { drawSet, FontSet } from '../fonts';
import { isolate } from '../isolate';
import { openPdf } from '../pdfium';
import { sha256 } from '../seal/cms';
import { stampAll, type Stamp } from '../stamp';
import { QUIET, Sheet, THREAD } from '../written';

/** What somebody takes away to sign in ink: the pages as far as they are answered, each with its code, behind a first sheet that says how. */

export interface PaperOutJob {
	papers: { bytes: Uint8Array; stamps: Stamp[] }[];
	/** of each page, where somebody writes: no code stands there. As shown */
	places: ShownRect[][];
	reference: string;
	/** SHA-256 of whose part it is */
	person: string;
	/** what the first sheet says, in the person's language */
	says: FirstSheet;
}

export interface FirstSheet {
	title: string;
	under: string;
	lines: string[];
	/** a page and what is to be done there, in the order of the pages */
	places: { page: string; what: string }[];
	placesTitle: string;
	back: { title: string; lines: string[] } | null;
}

/** A page that went out, as far as the press can say: its words, and where its code stands. Points as shown. */
export interface PageOut {
	width: number;
	height: number;
	words: SheetWord[];
	code: ShownRect;
}

export interface PaperOut {
	/** the pages as they are answered, without codes and first sheet; what comes back is held against it */
	content: Uint8Array;
	/** SHA-256 of the content */
	digest: string;
	/** what is handed out */
	file: Uint8Array;
	pages: PageOut[];
}

/** Points: a module of the code; the room it leaves round itself (ISO/IEC 18004 §6.3.8: four modules); and what no printer prints on. */
const MODULE = 1.35;
const QUIET_ZONE = 4 * MODULE;
/** Its side: codes of this length have 29 modules (version 3), those of long references 33. */
const CODE = 33 * MODULE;
const MARGIN = 13;
/** Where nothing is free, the page is drawn so much smaller. */
const SMALLER = 0.9;
/** Grey values from here on are bare paper. */
const BARE = 250;

export async function paperOut(job: PaperOutJob): Promise<PaperOut> {
	const content = await PDFDocument.create({ updateMetadata: false });
	for (const { bytes, stamps } of job.papers) {
		const doc = await PDFDocument.load(bytes, { updateMetadata: false, parseSpeed: Infinity });
		await stampAll(doc, new FontSet(doc), stamps);
		for (const page of await content.copyPages(doc, doc.getPageIndices())) content.addPage(page);
	}
	const bytes = new Uint8Array(await content.save({ useObjectStreams: false }));
	const digest = sha256(bytes).toString('hex');
	const looked = await lookAt(bytes, content.getPages().map(pageBox), job.places);
	const out = await PDFDocument.create({ updateMetadata: false });
	const fonts = new FontSet(out);
	await firstSheet(out, fonts, job);
	const instructions = out.getPageCount();
	const whole = await PDFDocument.load(bytes, { updateMetadata: false, parseSpeed: Infinity });
	for (const page of await out.copyPages(whole, whole.getPageIndices())) out.addPage(page);
	const pages: PageOut[] = [];
	for (const [i, page] of out.getPages().slice(instructions).entries()) {
		const { size, words, free } = looked[i]!;
		const code = { ...job, page: i + 1, pages: looked.length, digest };
		const shown = free ?? shrink(page, size);
		await drawCode(page, fonts, pageBox(page), shown, code);
		const m = free ? 1 : SMALLER;
		pages.push({
			...shownSize(size),
			words,
			// where the page was made smaller, its code lies outside of what it was
			code: { left: shown.left / m, top: shown.top / m, width: shown.width / m, height: shown.height / m }
		});
	}
	return { content: bytes, digest, pages, file: new Uint8Array(await out.save({ useObjectStreams: false })) };
}

/** The words of each page, and a corner of it where nothing stands. */
async function lookAt(bytes: Uint8Array, boxes: (PageSize & { x: number; y: number })[], places: ShownRect[][]) {
	const pdf = await openPdf(bytes);
	if (typeof pdf === 'string') throw new Error(`pages that were just made are ${pdf}`);
	try {
		return boxes.map((box, page) => {
			const size = shownSize(box);
			const words = pdf.words(page).map((word) => ({
				text: word.text,
				...toShown(box, { x: word.x - box.x, y: word.y - box.y, width: word.width, height: word.height })
			}));
			const side = CODE + 2 * QUIET_ZONE;
			const { rgba, width } = pdf.picture(page, Math.round(size.width));
			const isFree = ({ left, top }: { left: number; top: number }) => {
				const crossed = places[page]?.some(
					(one) =>
						one.left < left + side && one.left + one.width > left && one.top < top + side && one.top + one.height > top
				);
				if (crossed) return false;
				for (let y = Math.floor(top); y < top + side; y++)
					for (let x = Math.floor(left); x < left + side; x++) {
						const at = 4 * (y * width + x);
						if ((rgba[at] ?? 255) < BARE || (rgba[at + 1] ?? 255) < BARE || (rgba[at + 2] ?? 255) < BARE) return false;
					}
				return true;
			};
			const right = size.width - MARGIN - side;
			const bottom = size.height - MARGIN - side;
			const corner = [
				{ left: right, top: bottom },
				{ left: MARGIN, top: bottom },
				{ left: right, top: MARGIN },
				{ left: MARGIN, top: MARGIN }
			].find(isFree);
			const free = corner
				? { left: corner.left + QUIET_ZONE, top: corner.top + QUIET_ZONE, width: CODE, height: CODE }
				: null;
			return { size: box, words, free };
		});
	} finally {
		pdf.close();
	}
}

/** Makes the page's own content smaller, towards the top left as shown, and gives the place that is free then. */
function shrink(page: PDFPage, box: PageSize & { x: number; y: number }): ShownRect {
	const { width, height } = shownSize(box);
	const corner = fromShown(box, { left: 0, top: 0, width: 0, height: 0 });
	const [x, y] = [(box.x + corner.x) * (1 - SMALLER), (box.y + corner.y) * (1 - SMALLER)];
	isolate(page.doc, page, [SMALLER, 0, 0, SMALLER, x, y]);
	return { left: width - MARGIN - CODE, top: height - MARGIN - CODE, width: CODE, height: CODE };
}

async function drawCode(
	page: PDFPage,
	fonts: FontSet,
	box: PageSize & { x: number; y: number },
	at: ShownRect,
	code: PageCode
): Promise<void> {
	const { modules } = create(codeText(code), { errorCorrectionLevel: 'M' });
	const one = at.width / modules.size;
	const { height: high } = shownSize(box);
	const placed = (left: number, top: number, width: number, height: number) => ({
		x: left,
		y: high - top - height,
		width,
		height
	});
	const side = at.width + 2 * QUIET_ZONE;
	isolate(page.doc, page);
	page.pushOperators(pushGraphicsState(), concatTransformationMatrix(...uprightMatrix(box, box)));
	page.drawRectangle({ ...placed(at.left - QUIET_ZONE, at.top - QUIET_ZONE, side, side), color: rgb(1, 1, 1) });
	for (let row = 0; row < modules.size; row++)
		for (let from = 0; from < modules.size; from++) {
			if (!modules.get(row, from)) continue;
			let to = from;
			while (to < modules.size && modules.get(row, to)) to++;
			// a hair higher, so that no light shows between two rows
			const bar = placed(at.left + from * one, at.top + row * one, (to - from) * one, one * 1.02);
			page.drawRectangle({ ...bar, color: rgb(0, 0, 0) });
			from = to;
		}
	const set = await fonts.set(`${code.page}/${code.pages}`, 'mono');
	drawSet(page, set, at.left, high - at.top - at.height - QUIET_ZONE, 5, QUIET);
	page.pushOperators(popGraphicsState());
}

async function firstSheet(out: PDFDocument, fonts: FontSet, { says, reference }: PaperOutJob): Promise<void> {
	const sheet = new Sheet(out, fonts);
	await sheet.text(says.under, { face: 'serif', size: 11, colour: THREAD });
	await sheet.text(says.title, { face: 'serifBold', size: 20 });
	await sheet.text(reference, { face: 'mono', size: 9, colour: QUIET });
	sheet.gap(10);
	for (const [i, line] of says.lines.entries()) await sheet.pair(String(i + 1), line, 11);
	await sheet.heading(says.placesTitle);
	for (const { page, what } of says.places) await sheet.pair(page, what, 11);
	if (says.back) {
		await sheet.heading(says.back.title);
		for (const line of says.back.lines) await sheet.text(line, { size: 11 });
	}
}

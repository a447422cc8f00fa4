import { PageSizes, rgb, type PDFDocument, type PDFPage } from '@cantoo/pdf-lib';
import { oneLine } from '../core/clean-text';
import { drawSet, spelled, type Face, type FontSet } from './fonts';
import { stampAll, wrap, type Mark } from './stamp';

const INK = rgb(0.125, 0.149, 0.169);
export const QUIET = rgb(0.365, 0.392, 0.416);
export const THREAD = rgb(0.078, 0.322, 0.361);
const LINE = rgb(0.85, 0.83, 0.78);
/** Where the cells of a row of events begin, from the left edge of the text. */
const CELL = { when: 22, says: 140 };
const LEFT = 56;
const RIGHT = PageSizes.A4[0] - 56;
const TOP = PageSizes.A4[1] - 60;
const BOTTOM = 64;

/** A pen that moves down the page and takes a new one when it is full. */
export class Sheet {
	private page: PDFPage;
	private y = TOP;

	constructor(
		private doc: PDFDocument,
		private fonts: FontSet
	) {
		this.page = doc.addPage(PageSizes.A4);
	}

	gap(points: number): void {
		this.y -= points;
	}

	async heading(text: string): Promise<void> {
		this.room(60);
		this.gap(14);
		this.rule();
		this.gap(8);
		await this.text(text, { face: 'serifBold', size: 12 });
		this.gap(4);
	}

	/** A word and what it says, in a cell of its own behind a bar: no line of a value begins where a word would. */
	async pair(word: string, says: string, size = 10, face: Face = 'plain'): Promise<void> {
		this.room(size * 1.5);
		const [top, page] = [this.y, this.page];
		await this.text(word, { size: 9, colour: QUIET, right: LEFT + CELL.says - 8 });
		const below = this.y;
		this.y = top;
		await this.text(says, { size, face, left: LEFT + CELL.says + 8 });
		this.y = page === this.page ? Math.min(this.y, below) : this.y;
		this.bars(page, top);
		this.gap(2);
	}

	/**
	 * A numbered row between rules, what was said in a cell of its own: whatever a name or a reason holds, it can't look
	 * like a row of its own.
	 */
	async row(number: number, when: string, says: string): Promise<void> {
		const size = 9;
		this.room(size * 3.2);
		this.rule();
		const [top, page] = [this.y, this.page];
		this.gap(3);
		const y = this.y;
		await this.text(String(number), { face: 'mono', size: 8, colour: QUIET, right: LEFT + CELL.when });
		this.y = y;
		await this.text(when, { size, colour: QUIET, left: LEFT + CELL.when, right: LEFT + CELL.says - 8 });
		const below = this.y;
		this.y = y;
		await this.text(says, { size, left: LEFT + CELL.says + 8 });
		this.y = (page === this.page ? Math.min(this.y, below) : this.y) - 3;
		this.bars(page, top);
	}

	private rule(): void {
		this.page.drawLine({ start: { x: LEFT, y: this.y }, end: { x: RIGHT, y: this.y }, thickness: 0.4, color: LINE });
	}

	/** The bar beside a cell that began there, on each page that it takes. */
	private bars(first: PDFPage, top: number): void {
		const x = LEFT + CELL.says;
		const bar = (page: PDFPage, from: number, to: number) =>
			page.drawLine({ start: { x, y: from }, end: { x, y: to }, thickness: 0.4, color: LINE });
		bar(first, top, first === this.page ? this.y : BOTTOM);
		if (first !== this.page) bar(this.page, TOP, this.y);
	}

	async text(
		text: string,
		{
			face = 'plain',
			size = 10,
			colour = INK,
			left = LEFT,
			right = RIGHT
		}: { face?: Face; size?: number; colour?: ReturnType<typeof rgb>; left?: number; right?: number } = {}
	): Promise<void> {
		for (const line of await wrap(this.fonts, spelled(oneLine(text), face), (right - left) / size, face)) {
			this.room(size * 1.45);
			drawSet(this.page, await this.fonts.set(line, face), left, this.y - size, size, colour);
			this.y -= size * 1.45;
		}
	}

	/** A signature, as large as it usually stands on a page. */
	async mark(mark: Mark): Promise<void> {
		this.room(40);
		const rect = { x: LEFT + CELL.says + 8, y: this.y - 36, width: 170, height: 34 };
		await stampAll(this.doc, this.fonts, [{ page: this.doc.getPageCount() - 1, rect, mark }]);
		this.y -= 40;
	}

	async number(reference: string): Promise<void> {
		const pages = this.doc.getPages();
		for (const [i, page] of pages.entries())
			drawSet(page, await this.fonts.set(`${reference} · ${i + 1} of ${pages.length}`, 'mono'), LEFT, 36, 8, QUIET);
	}

	private room(points: number): void {
		if (this.y - points >= BOTTOM) return;
		this.page = this.doc.addPage(PageSizes.A4);
		this.y = TOP;
	}
}

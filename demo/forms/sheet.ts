import { PDFDocument, StandardFonts, rgb, type PDFFont, type PDFPage } from '@cantoo/pdf-lib';
import type { KindName } from '../../src/lib/core/packet';

/** A place that a reader of the form would call one: points from the top left of its page. */
export interface Truth {
	page: number;
	kind: KindName;
	left: number;
	top: number;
	width: number;
	height: number;
}

const BLACK = rgb(0, 0, 0);

/**
 * A form being drawn, with the places on it written down as they are drawn. Measures from the top left, since that is
 * how forms are thought of.
 */
export class FormSheet {
	readonly truth: Truth[] = [];
	private page!: PDFPage;
	private number = -1;

	private constructor(
		readonly doc: PDFDocument,
		private plain: PDFFont,
		private bold: PDFFont,
		private width: number,
		private height: number
	) {
		this.next();
	}

	static async make(width = 595, height = 842): Promise<FormSheet> {
		const doc = await PDFDocument.create();
		const plain = await doc.embedFont(StandardFonts.Helvetica);
		const bold = await doc.embedFont(StandardFonts.HelveticaBold);
		return new FormSheet(doc, plain, bold, width, height);
	}

	next(): void {
		this.page = this.doc.addPage([this.width, this.height]);
		this.number += 1;
	}

	get pdfPage(): PDFPage {
		return this.page;
	}

	/** Writes text with its baseline at `y`; gives where it ends. */
	text(x: number, y: number, text: string, { size = 10, bold = false } = {}): number {
		const font = bold ? this.bold : this.plain;
		this.page.drawText(text, { x, y: this.height - y, size, font, color: BLACK });
		return x + font.widthOfTextAtSize(text, size);
	}

	/** Lines of running text, at most `width` wide. Gives the baseline after the last. */
	prose(x: number, y: number, width: number, text: string, size = 10): number {
		let line = '';
		for (const word of text.split(' ')) {
			const longer = line === '' ? word : `${line} ${word}`;
			if (this.plain.widthOfTextAtSize(longer, size) > width) {
				this.text(x, y, line, { size });
				y += size * 1.4;
				line = word;
			} else line = longer;
		}
		this.text(x, y, line, { size });
		return y + size * 1.4;
	}

	line(x1: number, y1: number, x2: number, y2: number, thickness = 0.6): void {
		this.page.drawLine({
			start: { x: x1, y: this.height - y1 },
			end: { x: x2, y: this.height - y2 },
			thickness,
			color: BLACK
		});
	}

	/** A line to write on. */
	rule(x: number, y: number, width: number, kind: KindName | null): void {
		this.line(x, y, x + width, y);
		if (kind) this.place(kind, x, y - 17, width, 17);
	}

	/** A label and a line after it, to `right`. */
	asked(x: number, y: number, label: string, right: number, kind: KindName): void {
		const end = this.text(x, y, label);
		this.rule(end + 5, y + 2, right - end - 5, kind);
	}

	/** A label and a run of underscores or dots after it. Gives where the run ends. */
	run(x: number, y: number, label: string, letters: number, kind: KindName, mark = '_'): number {
		const from = label === '' ? x : this.text(x, y, `${label} `);
		const end = this.text(from, y, mark.repeat(letters));
		this.place(kind, from, y - 12, end - from, 14);
		return end;
	}

	box(x: number, y: number, width: number, height: number, kind: KindName | null = null): void {
		this.page.drawRectangle({
			x,
			y: this.height - y - height,
			width,
			height,
			borderWidth: 0.6,
			borderColor: BLACK
		});
		if (kind) this.place(kind, x, y, width, height);
	}

	/** A small square and its text. Gives where the text ends. */
	tick(x: number, y: number, label: string, kind: 'ticks' | 'pick-one' = 'ticks'): number {
		this.box(x, y - 8, 9, 9, kind);
		return this.text(x + 14, y, label);
	}

	/** `count` boxes side by side, a character in each. */
	letters(x: number, y: number, count: number, size = 15): void {
		for (let i = 0; i < count; i++) this.box(x + i * size, y, size, size + 2);
		this.place('text', x, y, count * size, size + 2);
	}

	/** A table drawn by its lines. Cells with '' are places of the kind of their column; null leaves one out. */
	table(
		x: number,
		y: number,
		widths: number[],
		height: number,
		rows: (string | null)[][],
		kinds: (KindName | null)[]
	): number {
		const right = x + widths.reduce((a, b) => a + b, 0);
		const bottom = y + rows.length * height;
		for (let r = 0; r <= rows.length; r++) this.line(x, y + r * height, right, y + r * height);
		let left = x;
		for (const width of [...widths, 0]) {
			this.line(left, y, left, bottom);
			left += width;
		}
		rows.forEach((row, r) => {
			let at = x;
			row.forEach((cell, c) => {
				if (cell === '' && kinds[c]) this.place(kinds[c], at, y + r * height, widths[c]!, height);
				else if (cell) this.text(at + 4, y + r * height + height / 2 + 3.5, cell, { size: 9, bold: r === 0 });
				at += widths[c]!;
			});
		});
		return bottom;
	}

	place(kind: KindName, left: number, top: number, width: number, height: number): void {
		this.truth.push({ page: this.number, kind, left, top, width, height });
	}

	async done(): Promise<{ bytes: Uint8Array; truth: Truth[] }> {
		return { bytes: await this.doc.save(), truth: this.truth };
	}
}

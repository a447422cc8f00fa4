import { PageSizes, PDFDocument, rgb, type PDFFont, type PDFPage } from '@cantoo/pdf-lib';
import fontkit from '@cantoo/fontkit';
import type { Rect } from '../src/lib/core/page';
import { faceBytes } from '../src/lib/press';

/** A place on a page that a field is to stand in; page from 0, points from the bottom left. */
export interface Place {
	page: number;
	rect: Rect;
}

export interface Letter {
	bytes: Uint8Array;
	places: Record<string, Place>;
}

const INK = rgb(0.11, 0.12, 0.14);
const QUIET = rgb(0.42, 0.42, 0.42);
const PLUM = rgb(0.36, 0.16, 0.29);
const LEFT = 70;
const RIGHT = PageSizes.A4[0] - 70;
const BOTTOM = 82;

/** Widths of words at one point, by face: laying a word out is slow, and letters say the same ones again and again. */
const WIDTHS = new Map<string, number>();

/** Sets Brindlevale's documents: a letterhead, headings, clauses, tables, blanks and signature blocks. */
export class Typesetter {
	readonly places: Record<string, Place> = {};
	private page!: PDFPage;
	private y = 0;

	private constructor(
		private doc: PDFDocument,
		private fonts: { text: PDFFont; bold: PDFFont },
		private name: string
	) {
		this.newPage(true);
	}

	static async begin(name: string): Promise<Typesetter> {
		const doc = await PDFDocument.create({ updateMetadata: false });
		doc.registerFontkit(fontkit as unknown as Parameters<PDFDocument['registerFontkit']>[0]);
		doc.setTitle(name);
		const text = await doc.embedFont(faceBytes('serif'), { subset: true });
		const bold = await doc.embedFont(faceBytes('serifBold'), { subset: true });
		return new Typesetter(doc, { text, bold }, name);
	}

	async done(): Promise<Letter> {
		const pages = this.doc.getPages();
		pages.forEach((page, i) => {
			const foot = `${this.name} · page ${i + 1} of ${pages.length}`;
			page.drawText(foot, { x: LEFT, y: 44, size: 8, font: this.fonts.text, color: QUIET });
		});
		return { bytes: await this.doc.save({ useObjectStreams: false }), places: this.places };
	}

	title(text: string): void {
		this.text(text, { size: 19, bold: true });
		this.y -= 10;
	}

	heading(text: string): void {
		this.room(64);
		this.y -= 10;
		this.text(text, { size: 12, bold: true });
		this.y -= 2;
	}

	paragraph(text: string): void {
		this.text(text, { size: 10.5 });
		this.y -= 6;
	}

	/** A numbered clause with its title. */
	clause(number: number, title: string, text: string): void {
		this.heading(`${number}   ${title}`);
		this.paragraph(text);
	}

	/** A table with a head row; `shares` are the columns' widths against each other. */
	table(shares: number[], rows: string[][]): void {
		const whole = shares.reduce((sum, share) => sum + share, 0);
		const left = (c: number) =>
			LEFT + ((RIGHT - LEFT) * shares.slice(0, c).reduce((sum, share) => sum + share, 0)) / whole;
		rows.forEach((row, i) => {
			this.room(24);
			row.forEach((cell, c) =>
				this.page.drawText(cell, {
					x: left(c) + 4,
					y: this.y - 14,
					size: 9.5,
					font: i === 0 ? this.fonts.bold : this.fonts.text,
					color: INK
				})
			);
			this.rule(LEFT, RIGHT, this.y - 20, i === 0 ? 0.9 : 0.4);
			this.y -= 20;
		});
		this.y -= 10;
	}

	/** A label with a line to write on; the place above the line is kept under `key`. */
	blank(label: string, key: string, width = 240, height = 20): void {
		this.room(height + 12);
		this.page.drawText(label, { x: LEFT, y: this.y - height + 4, size: 10.5, font: this.fonts.text, color: INK });
		const x = LEFT + 170;
		this.rule(x, x + width, this.y - height, 0.6);
		this.keep(key, x, this.y - height + 1, width, height - 2);
		this.y -= height + 10;
	}

	/** Blocks side by side: a line each for signature, name and date, kept as `key.signature` and so on. */
	signatures(blocks: { key: string; label: string }[]): void {
		this.room(170);
		this.y -= 16;
		const width = blocks.length > 1 ? 210 : 230;
		blocks.forEach(({ key, label }, i) => {
			const x = LEFT + i * (width + 36);
			let y = this.y;
			for (const [what, says, height] of [
				['signature', label, 40],
				['name', 'Name in full', 26],
				['date', 'Date', 26]
			] as const) {
				y -= height + 4;
				this.rule(x, x + width, y, 0.6);
				this.page.drawText(says, { x, y: y - 12, size: 9, font: this.fonts.text, color: QUIET });
				this.keep(`${key}.${what}`, x, y + 1, what === 'date' ? 130 : width, what === 'signature' ? 38 : 20);
				y -= 16;
			}
		});
		this.y -= 156;
	}

	/** A small box at the foot of the present page for initials. */
	initials(key: string): void {
		this.page.drawRectangle({ x: RIGHT - 64, y: 36, width: 64, height: 28, borderColor: QUIET, borderWidth: 0.6 });
		this.page.drawText('initials', { x: RIGHT - 104, y: 44, size: 8, font: this.fonts.text, color: QUIET });
		this.keep(key, RIGHT - 62, 38, 60, 24);
	}

	newPage(first = false): void {
		this.page = this.doc.addPage(PageSizes.A4);
		this.y = PageSizes.A4[1] - 70;
		if (first) this.letterhead();
	}

	private letterhead(): void {
		const top = PageSizes.A4[1] - 52;
		for (const lift of [0, 5, 10])
			this.page.drawSvgPath('M0 12 C 12 -4, 26 -4, 38 12', {
				x: LEFT,
				y: top + 14 - lift,
				borderColor: PLUM,
				borderWidth: 1.6
			});
		this.page.drawText('Brindlevale Touring Orchestra', {
			x: LEFT + 50,
			y: top,
			size: 13,
			font: this.fonts.bold,
			color: PLUM
		});
		this.page.drawText('The Old Corn Store, Mill Lane, Brindlevale · office@brindlevale.example · +44 7700 900114', {
			x: LEFT + 50,
			y: top - 13,
			size: 8,
			font: this.fonts.text,
			color: QUIET
		});
		this.rule(LEFT, RIGHT, top - 24, 0.8);
		this.y = top - 54;
	}

	private text(text: string, { size, bold = false }: { size: number; bold?: boolean }): void {
		const font = bold ? this.fonts.bold : this.fonts.text;
		const measure = (word: string) => {
			const key = `${bold ? 'bold' : 'text'} ${word}`;
			let width = WIDTHS.get(key);
			if (width === undefined) WIDTHS.set(key, (width = font.widthOfTextAtSize(word, 1000) / 1000));
			return width * size;
		};
		let line = '';
		let wide = 0;
		const flush = () => {
			this.room(size * 1.5);
			this.page.drawText(line, { x: LEFT, y: this.y - size, size, font, color: INK });
			this.y -= size * 1.45;
			line = '';
		};
		for (const word of text.split(' ')) {
			const longer = wide + measure(' ') + measure(word);
			if (line !== '' && longer > RIGHT - LEFT) {
				flush();
				wide = measure(word);
			} else wide = line === '' ? measure(word) : longer;
			line = line === '' ? word : `${line} ${word}`;
		}
		if (line !== '') flush();
	}

	private rule(from: number, to: number, y: number, thickness: number): void {
		this.page.drawLine({ start: { x: from, y }, end: { x: to, y }, thickness, color: INK });
	}

	private keep(key: string, x: number, y: number, width: number, height: number): void {
		this.places[key] = { page: this.doc.getPageCount() - 1, rect: { x, y, width, height } };
	}

	private room(points: number): void {
		if (this.y - points < BOTTOM) this.newPage();
	}
}

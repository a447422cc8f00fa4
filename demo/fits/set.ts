import { degrees, PDFDocument, StandardFonts, rgb, type PDFFont, type PDFPage } from '@cantoo/pdf-lib';
import type { Rect } from '../../src/lib/core/page';

/** One part of a document that is made to be fitted; `key` names the place of a field in it. */
export type Part =
	| { is: 'heading'; text: string }
	| { is: 'text'; text: string }
	| {
			is: 'line';
			label: string;
			key: string;
			blank?: 'rule' | 'run' | 'bare' | undefined;
			width?: number | undefined;
			broken?: boolean;
	  }
	| { is: 'pair'; items: { label: string; key: string; width: number }[] }
	| {
			is: 'table';
			shares: number[];
			head: string[];
			rows: { cells: string[]; keys: (string | null)[] }[];
			open?: boolean;
	  }
	| { is: 'ticks'; items: { label: string; key: string }[] }
	| { is: 'signatures'; blocks: { label: string; key: string }[] }
	| { is: 'picture'; height: number }
	| { is: 'page' };

export interface Made {
	name: string;
	size: number;
	margin: number;
	paper: [number, number];
	foot: { text: string; initials: boolean } | null;
	parts: Part[];
	/** a word across every page, in grey */
	watermark?: string;
}

/** Where a field's place is: page from 0, page space. */
export interface Place {
	page: number;
	rect: Rect;
}

const INK = rgb(0.1, 0.1, 0.1);

/** Sets a document as a PDF and writes down where each key came to stand. */
export async function set(made: Made): Promise<{ bytes: Uint8Array; places: Map<string, Place> }> {
	const doc = await PDFDocument.create({ updateMetadata: false });
	const setter = new Setter(
		doc,
		made,
		await doc.embedFont(StandardFonts.TimesRoman),
		await doc.embedFont(StandardFonts.TimesRomanBold)
	);
	for (const part of made.parts) setter.part(part);
	setter.feet();
	setter.watermarks();
	return { bytes: await doc.save({ useObjectStreams: false }), places: setter.places };
}

class Setter {
	readonly places = new Map<string, Place>();
	private page: PDFPage;
	private y = 0;
	private readonly left: number;
	private readonly right: number;

	constructor(
		private doc: PDFDocument,
		private made: Made,
		private font: PDFFont,
		private bold: PDFFont
	) {
		this.left = made.margin;
		this.right = made.paper[0] - made.margin;
		this.page = this.turn();
	}

	part(part: Part): void {
		const { size } = this.made;
		switch (part.is) {
			case 'page':
				this.turn();
				return;
			case 'heading':
				this.room(size * 5);
				this.y -= size * 0.8;
				this.prose(part.text, size * 1.2, this.bold);
				return;
			case 'text':
				this.prose(part.text, size, this.font);
				this.y -= size * 0.6;
				return;
			case 'picture':
				this.room(part.height + 10);
				this.page.drawRectangle({
					x: this.left,
					y: this.y - part.height,
					width: 180,
					height: part.height,
					color: rgb(0.8, 0.82, 0.85)
				});
				this.y -= part.height + 10;
				return;
			case 'line':
				this.room(size * 3.8);
				this.y -= size * 2;
				this.blank(
					part.key,
					this.write(this.left, part.broken ? this.firstHalf(part.label) : part.label),
					part.width ?? 220,
					part.blank ?? 'rule'
				);
				this.y -= size * 0.5;
				return;
			case 'pair':
				this.room(size * 2.4);
				this.y -= size * 2;
				part.items.reduce(
					(x, item) => this.blank(item.key, this.write(x, item.label), item.width, 'rule') + 18,
					this.left
				);
				this.y -= size * 0.5;
				return;
			case 'ticks':
				for (const item of part.items) {
					this.room(size * 1.6);
					this.y -= size * 1.6;
					this.page.drawRectangle({
						x: this.left,
						y: this.y - 1,
						width: 9,
						height: 9,
						borderColor: INK,
						borderWidth: 0.7
					});
					this.keep(item.key, this.left, this.y - 1, 9, 9);
					this.write(this.left + 16, item.label);
				}
				this.y -= size;
				return;
			case 'table':
				this.table(part);
				return;
			case 'signatures':
				this.signatures(part.blocks);
		}
	}

	/** Page numbers, and the box for initials where the document has one on every page. */
	feet(): void {
		const { foot } = this.made;
		if (!foot) return;
		this.doc.getPages().forEach((page, i, all) => {
			page.drawText(`${foot.text}, page ${i + 1} of ${all.length}`, {
				x: this.left,
				y: 34,
				size: 8,
				font: this.font,
				color: INK
			});
			if (!foot.initials) return;
			page.drawText('initials', { x: this.right - 96, y: 34, size: 8, font: this.font, color: INK });
			page.drawRectangle({ x: this.right - 60, y: 26, width: 60, height: 24, borderColor: INK, borderWidth: 0.6 });
			this.places.set(`initials.${i}`, { page: i, rect: { x: this.right - 58, y: 28, width: 56, height: 20 } });
		});
	}

	/** Writes the first half of a label on a row of its own; gives the other half. */
	private firstHalf(label: string): string {
		const words = label.split(' ');
		if (words.length < 2) return label;
		const half = Math.ceil(words.length / 2);
		this.write(this.left, words.slice(0, half).join(' '));
		this.y -= this.made.size * 1.3;
		return words.slice(half).join(' ');
	}

	/** A grey word across every page, as drafts have it. */
	watermarks(): void {
		const { watermark } = this.made;
		if (watermark === undefined) return;
		for (const page of this.doc.getPages())
			page.drawText(watermark, {
				x: 120,
				y: 180,
				size: 120,
				font: this.bold,
				color: rgb(0.85, 0.85, 0.85),
				rotate: degrees(52)
			});
	}

	private signatures(blocks: { label: string; key: string }[]): void {
		const { size } = this.made;
		this.room(size * 13);
		this.y -= size;
		const width = Math.min(210, (this.right - this.left - 30) / 2);
		blocks.forEach(({ label, key }, i) => {
			const x = this.left + i * (width + 30);
			let y = this.y - size;
			this.page.drawText(label, { x, y, size, font: this.bold, color: INK });
			for (const [what, says, height] of [
				['signature', 'Signature', 34],
				['name', 'Name in full', 18],
				['date', 'Date', 18]
			] as const) {
				y -= height + size * 1.2;
				this.rule(x, x + width, y);
				this.page.drawText(says, { x, y: y - size, size: size * 0.8, font: this.font, color: INK });
				this.keep(`${key}.${what}`, x, y + 1, width, height);
			}
		});
		this.y -= size * 5 + 34 + 36 + size * 2;
	}

	private table({ shares, head, rows, open }: Extract<Part, { is: 'table' }>): void {
		const { size } = this.made;
		const whole = shares.reduce((sum, share) => sum + share, 0);
		const x = (c: number) =>
			this.left + ((this.right - this.left) * shares.slice(0, c).reduce((sum, s) => sum + s, 0)) / whole;
		const high = size * 2;
		[{ cells: head, keys: head.map(() => null) }, ...rows].forEach((row, r) => {
			this.room(high);
			row.cells.forEach((cell, c) => {
				const room = x(c + 1) - x(c);
				this.page.drawText(cell, {
					x: x(c) + 4,
					y: this.y - high + size * 0.6,
					size: size * 0.95,
					font: r === 0 ? this.bold : this.font,
					color: INK
				});
				const key = row.keys[c];
				if (key) this.keep(key, x(c) + 2, this.y - high + 1, room - 4, high - 2);
			});
			for (const at of [this.y, this.y - high]) this.rule(this.left, this.right, at);
			if (!open)
				for (let c = 0; c <= shares.length; c++)
					this.page.drawLine({
						start: { x: x(c), y: this.y },
						end: { x: x(c), y: this.y - high },
						thickness: 0.5,
						color: INK
					});
			this.y -= high;
		});
		this.y -= size;
	}

	private blank(key: string, x: number, width: number, by: 'rule' | 'run' | 'bare'): number {
		const { size } = this.made;
		const from = x + 6;
		let long = width;
		if (by === 'rule') this.rule(from, from + width, this.y - 2);
		if (by === 'run') {
			const run = '_'.repeat(Math.round(width / this.font.widthOfTextAtSize('_', size)));
			this.page.drawText(run, { x: from, y: this.y, size, font: this.font, color: INK });
			long = this.font.widthOfTextAtSize(run, size);
		}
		this.keep(key, from, this.y - 1, long, 16);
		return from + long;
	}

	private write(x: number, text: string): number {
		const { size } = this.made;
		this.page.drawText(text, { x, y: this.y, size, font: this.font, color: INK });
		return x + this.font.widthOfTextAtSize(text, size);
	}

	private prose(text: string, size: number, font: PDFFont): void {
		let line = '';
		const flush = () => {
			this.room(size * 1.35);
			this.y -= size * 1.35;
			this.page.drawText(line, { x: this.left, y: this.y, size, font, color: INK });
		};
		for (const word of text.split(' ')) {
			const longer = line === '' ? word : `${line} ${word}`;
			if (font.widthOfTextAtSize(longer, size) > this.right - this.left) {
				flush();
				line = word;
			} else line = longer;
		}
		flush();
	}

	private rule(from: number, to: number, y: number): void {
		this.page.drawLine({ start: { x: from, y }, end: { x: to, y }, thickness: 0.6, color: INK });
	}

	private keep(key: string, x: number, y: number, width: number, height: number): void {
		this.places.set(key, { page: this.doc.getPageCount() - 1, rect: { x, y, width, height } });
	}

	private room(points: number): void {
		if (this.y - points < 70) this.turn();
	}

	private turn(): PDFPage {
		this.page = this.doc.addPage(this.made.paper);
		this.y = this.made.paper[1] - 62;
		return this.page;
	}
}

/** A document's words alone, in reading order. */
export function textOf(made: Made): string[] {
	return made.parts
		.flatMap((part): string[] => {
			switch (part.is) {
				case 'heading':
				case 'text':
					return [part.text];
				case 'line':
					return [part.label];
				case 'pair':
				case 'ticks':
					return part.items.map((item) => item.label);
				case 'signatures':
					return part.blocks.map((block) => `${block.label} Signature Name in full Date`);
				case 'table':
					return [...part.head, ...part.rows.flatMap((row) => row.cells)];
				default:
					return [];
			}
		})
		.join(' ')
		.split(/\s+/)
		.filter((word) => word !== '');
}

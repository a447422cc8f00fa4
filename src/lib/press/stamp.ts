import {
	concatTransformationMatrix,
	LineCapStyle,
	popGraphicsState,
	pushGraphicsState,
	rgb,
	type PDFDocument,
	type PDFPage
} from '@cantoo/pdf-lib';
import type { Hand } from '../core/field';
import { shownSize, toShown, uprightMatrix, type PageSize, type Rect } from '../core/page';
import { pageBox } from './box';
import { drawSet, isRightToLeft, type FontSet } from './fonts';
import { isolate } from './isolate';

/** How a text stands in its box. `size` is 11 where nothing is said; `fixed`: it keeps its size even where it runs over. */
export interface TextStyle {
	size?: number;
	fixed?: boolean;
	align?: 'left' | 'middle' | 'right';
}

/** What is drawn at a field's place. */
export type Mark =
	| ({ draw: 'text'; text: string; several?: boolean } & TextStyle)
	| ({ draw: 'letters'; text: string; boxes: number } & TextStyle)
	| { draw: 'hand'; text: string; hand: Hand }
	| { draw: 'strokes'; strokes: number[][]; ratio: number }
	| { draw: 'picture'; png: Uint8Array }
	| { draw: 'tick'; on: boolean; outline: boolean }
	| { draw: 'pick'; on: boolean; outline: boolean }
	| { draw: 'strike' }
	/** what stands there is painted over with white */
	| { draw: 'cover' };

export interface Stamp {
	/** from 0 */
	page: number;
	/** page space: points of the unrotated crop box */
	rect: Rect;
	mark: Mark;
}

const INK = rgb(0.07, 0.1, 0.2);
const PAPER = rgb(1, 1, 1);
const LARGEST = 11;
const SMALLEST = 4;

interface Box {
	x: number;
	y: number;
	width: number;
	height: number;
}

/** Draws the stamps on their pages, upright as the page is shown, whatever its turn and crop. */
export async function stampAll(doc: PDFDocument, fonts: FontSet, stamps: Stamp[]): Promise<void> {
	const pages = doc.getPages();
	for (const [number, page] of pages.entries()) {
		const here = stamps.filter((stamp) => stamp.page === number);
		if (here.length === 0) continue;
		const box = pageBox(page);
		isolate(doc, page);
		page.pushOperators(pushGraphicsState(), concatTransformationMatrix(...uprightMatrix(box, box)));
		for (const stamp of here) await draw(doc, page, fonts, place(box, stamp.rect), stamp.mark);
		page.pushOperators(popGraphicsState());
	}
}

function place(page: PageSize, rect: Rect): Box {
	const shown = toShown(page, rect);
	return {
		x: shown.left,
		y: shownSize(page).height - shown.top - shown.height,
		width: shown.width,
		height: shown.height
	};
}

async function draw(doc: PDFDocument, page: PDFPage, fonts: FontSet, box: Box, mark: Mark): Promise<void> {
	switch (mark.draw) {
		case 'text':
			return drawText(page, fonts, box, mark);
		case 'letters':
			return drawLetters(page, fonts, box, mark);
		case 'tick':
			return drawTick(page, box, mark);
		case 'pick':
			return drawPick(page, box, mark);
		case 'cover':
			return page.drawRectangle({ ...box, color: PAPER });
		case 'strike':
			return page.drawLine({
				start: { x: box.x, y: box.y + box.height / 2 },
				end: { x: box.x + box.width, y: box.y + box.height / 2 },
				thickness: Math.max(0.8, Math.min(1.4, box.height / 10)),
				color: INK
			});
		case 'hand': {
			const set = await fonts.set(mark.text, mark.hand);
			const size = Math.min(box.height * 0.72, (box.width * 0.96) / Math.max(set.width, 0.01));
			return drawSet(
				page,
				set,
				box.x + box.width * 0.02,
				box.y + (box.height - size * 0.7) / 2 + size * 0.06,
				size,
				INK
			);
		}
		case 'strokes': {
			// strokes come in thousandths of the drawing's width; the drawing keeps its shape
			const width = Math.min(box.width, box.height / mark.ratio);
			const left = box.x + (box.width - width) / 2;
			const top = box.y + (box.height + width * mark.ratio) / 2;
			for (const stroke of mark.strokes) {
				const path = strokePath(stroke);
				if (path !== '')
					page.drawSvgPath(path, {
						x: left,
						y: top,
						scale: width / 1000,
						borderColor: INK,
						borderWidth: Math.max(6, 1400 / width),
						borderLineCap: LineCapStyle.Round
					});
			}
			return;
		}
		case 'picture': {
			const image = await doc.embedPng(mark.png);
			const scale = Math.min(box.width / image.width, box.height / image.height);
			const width = image.width * scale;
			const height = image.height * scale;
			page.drawImage(image, {
				x: box.x + (box.width - width) / 2,
				y: box.y + (box.height - height) / 2,
				width,
				height
			});
		}
	}
}

/** One line shrinks until it fits its width; several lines wrap, and shrink until they fit the height. */
async function drawText(
	page: PDFPage,
	fonts: FontSet,
	box: Box,
	{
		text,
		several = false,
		size: wanted = LARGEST,
		fixed = false,
		align = isRightToLeft(text) ? 'right' : 'left'
	}: Extract<Mark, { draw: 'text' }>
): Promise<void> {
	const inset = 2;
	const width = box.width - 2 * inset;
	const left = (lineWidth: number) =>
		box.x + inset + (align === 'left' ? 0 : (width - lineWidth) * (align === 'middle' ? 0.5 : 1));
	if (!several) {
		const set = await fonts.set(text.replace(/\s+/g, ' '), 'sans');
		const size = fixed
			? wanted
			: Math.min(wanted, box.height * 0.75, Math.max(SMALLEST, width / Math.max(set.width, 0.01)));
		return drawSet(page, set, left(set.width * size), box.y + (box.height - size) / 2 + size * 0.22, size, INK);
	}
	let size = wanted;
	let lines = await wrap(fonts, text, width / size);
	while (!fixed && size > SMALLEST && lines.length * size * 1.25 > box.height) {
		size -= 0.5;
		lines = await wrap(fonts, text, width / size);
	}
	let y = box.y + box.height - size;
	for (const line of lines) {
		const set = await fonts.set(line, 'sans');
		drawSet(page, set, left(set.width * size), y, size, INK);
		y -= size * 1.25;
	}
}

/** Each character in the middle of its own part of the box. */
async function drawLetters(
	page: PDFPage,
	fonts: FontSet,
	box: Box,
	{ text, boxes, size = LARGEST }: Extract<Mark, { draw: 'letters' }>
): Promise<void> {
	const cell = box.width / boxes;
	for (const [i, letter] of [...text].slice(0, boxes).entries()) {
		const set = await fonts.set(letter, 'sans');
		const fits = Math.min(size, box.height * 0.8, (cell * 0.9) / Math.max(set.width, 0.01));
		const x = box.x + cell * i + (cell - set.width * fits) / 2;
		drawSet(page, set, x, box.y + (box.height - fits) / 2 + fits * 0.22, fits, INK);
	}
}

/** The largest square in the middle of a box. */
function squareIn(box: Box): { x: number; y: number; side: number } {
	const side = Math.min(box.width, box.height);
	return { x: box.x + (box.width - side) / 2, y: box.y + (box.height - side) / 2, side };
}

function drawTick(page: PDFPage, box: Box, { on, outline }: { on: boolean; outline: boolean }): void {
	const { x, y, side } = squareIn(box);
	if (outline)
		page.drawRectangle({
			x: x + 0.4,
			y: y + 0.4,
			width: side - 0.8,
			height: side - 0.8,
			borderColor: INK,
			borderWidth: 0.8
		});
	if (!on) return;
	const thickness = Math.max(1, side / 8);
	const corner = { x: x + side * 0.4, y: y + side * 0.2 };
	page.drawLine({
		start: { x: x + side * 0.16, y: y + side * 0.5 },
		end: corner,
		thickness,
		color: INK,
		lineCap: LineCapStyle.Round
	});
	page.drawLine({
		start: corner,
		end: { x: x + side * 0.86, y: y + side * 0.84 },
		thickness,
		color: INK,
		lineCap: LineCapStyle.Round
	});
}

function drawPick(page: PDFPage, box: Box, { on, outline }: { on: boolean; outline: boolean }): void {
	const { x, y, side } = squareIn(box);
	const middle = { x: x + side / 2, y: y + side / 2 };
	if (outline) page.drawCircle({ ...middle, size: side / 2 - 0.5, borderColor: INK, borderWidth: 0.8 });
	if (on) page.drawCircle({ ...middle, size: side * 0.28, color: INK });
}

/** Breaks text into lines at most `width` wide (points at size 1); a word too long for a line is cut. */
export async function wrap(
	fonts: FontSet,
	text: string,
	width: number,
	face: Parameters<FontSet['set']>[1] = 'sans'
): Promise<string[]> {
	const lines: string[] = [];
	const measure = async (t: string) => (await fonts.set(t, face)).width;
	for (const paragraph of text.split(/\r?\n/)) {
		let line = '';
		for (const word of paragraph.split(/\s+/)) {
			const longer = line === '' ? word : `${line} ${word}`;
			if ((await measure(longer)) <= width) {
				line = longer;
				continue;
			}
			if (line !== '') lines.push(line);
			line = '';
			for (const letter of word) {
				if (line !== '' && (await measure(line + letter)) > width) {
					lines.push(line);
					line = '';
				}
				line += letter;
			}
		}
		lines.push(line);
	}
	return lines;
}

function strokePath(stroke: number[]): string {
	if (stroke.length < 2) return '';
	let path = `M ${stroke[0]} ${stroke[1]}`;
	for (let i = 2; i + 1 < stroke.length; i += 2) path += ` L ${stroke[i]} ${stroke[i + 1]}`;
	// a lone point still shows as a dot under round caps
	return stroke.length < 4 ? `${path} l 0.1 0` : path;
}

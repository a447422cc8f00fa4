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
import { drawSet, type FontSet } from './fonts';

/** What is drawn at a field's place. */
export type Mark =
	| { draw: 'text'; text: string; several?: boolean }
	| { draw: 'hand'; text: string; hand: Hand }
	| { draw: 'strokes'; strokes: number[][]; ratio: number }
	| { draw: 'picture'; png: Uint8Array };

export interface Stamp {
	/** from 0 */
	page: number;
	/** page space: points of the unrotated crop box */
	rect: Rect;
	mark: Mark;
}

const INK = rgb(0.07, 0.1, 0.2);
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
			return drawText(page, fonts, box, mark.text, mark.several === true);
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
async function drawText(page: PDFPage, fonts: FontSet, box: Box, text: string, several: boolean): Promise<void> {
	const inset = 2;
	const width = box.width - 2 * inset;
	if (!several) {
		const set = await fonts.set(text.replace(/\s+/g, ' '), 'sans');
		const size = Math.min(LARGEST, box.height * 0.75, Math.max(SMALLEST, width / Math.max(set.width, 0.01)));
		return drawSet(page, set, box.x + inset, box.y + (box.height - size) / 2 + size * 0.22, size, INK);
	}
	let size = LARGEST;
	let lines = await wrap(fonts, text, width / size);
	while (size > SMALLEST && lines.length * size * 1.25 > box.height) {
		size -= 0.5;
		lines = await wrap(fonts, text, width / size);
	}
	let y = box.y + box.height - size;
	for (const line of lines) {
		const set = await fonts.set(line, 'sans');
		drawSet(page, set, box.x + inset, y, size, INK);
		y -= size * 1.25;
	}
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

import { degrees, PDFDocument } from '@cantoo/pdf-lib';
import type { Turn } from '../core/page';
import { pageBox } from './box';
import { isolate } from './isolate';

/** A page of the new order: which it was, from 0, and how it is turned now. */
export interface PagePlace {
	from: number;
	turn: Turn;
	/** by how many degrees what is on it rises to the right, which is put straight */
	lean?: number;
}

/** A document with its pages in another order, turned, or left out. All that are named must be there. */
export async function reorderPages({ bytes, pages }: { bytes: Uint8Array; pages: PagePlace[] }): Promise<Uint8Array> {
	const old = await PDFDocument.load(bytes, { updateMetadata: false, parseSpeed: Infinity });
	const doc = await PDFDocument.create({ updateMetadata: false });
	const copies = await doc.copyPages(
		old,
		pages.map((page) => page.from)
	);
	copies.forEach((copy, i) => {
		const { turn, lean = 0 } = pages[i]!;
		copy.setRotation(degrees(turn));
		const page = doc.addPage(copy);
		if (lean !== 0) isolate(doc, page, clockwise(lean, pageBox(page)));
	});
	return new Uint8Array(
		await doc.save({ updateFieldAppearances: false, addDefaultPage: false, useObjectStreams: false })
	);
}

/** The matrix that turns a page by so many degrees about its middle (ISO 32000-2 §8.3.3). */
function clockwise(angle: number, box: { x: number; y: number; width: number; height: number }): number[] {
	const radians = (angle * Math.PI) / 180;
	const [cos, sin] = [Math.cos(radians), Math.sin(radians)];
	const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
	return [cos, -sin, sin, cos, x - cos * x - sin * y, y + sin * x - cos * y];
}

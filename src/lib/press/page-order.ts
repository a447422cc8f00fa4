import { degrees, PDFDocument } from '@cantoo/pdf-lib';
import type { Turn } from '../core/page';

/** A page of the new order: which it was, from 0, and how it is turned now. */
export interface PagePlace {
	from: number;
	turn: Turn;
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
		copy.setRotation(degrees(pages[i]!.turn));
		doc.addPage(copy);
	});
	return new Uint8Array(
		await doc.save({ updateFieldAppearances: false, addDefaultPage: false, useObjectStreams: false })
	);
}

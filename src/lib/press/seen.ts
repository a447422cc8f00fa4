import { PDFDocument } from '@cantoo/pdf-lib';
import { toShown, type ShownRect } from '../core/page';
import { pageBox } from './box';
import { openPdf, type Picture } from './pdfium';
import type { Mark, Stamp } from './stamp';

/** Pixels a point when stamps are looked for. */
const SCALE = 1.5;
/** How much (of 255) a colour must have changed for a stamp to be seen. */
const NOTABLE = 12;

/**
 * The stamps of a sealed copy that can't be seen on it: each place is drawn as it was on the paper and as it is now, and
 * must have changed. A broken page, or another reader's error, could otherwise swallow a signature in silence.
 */
export async function unseenStamps(job: { paper: Uint8Array; sealed: Uint8Array; stamps: Stamp[] }): Promise<Stamp[]> {
	const wanted = job.stamps.filter((stamp) => paints(stamp.mark));
	if (wanted.length === 0) return [];
	const sizes = (await PDFDocument.load(job.paper, { updateMetadata: false, parseSpeed: Infinity }))
		.getPages()
		.map(pageBox);
	const [before, after] = [await openPdf(job.paper), await openPdf(job.sealed)];
	try {
		if (typeof before === 'string' || typeof after === 'string') return wanted;
		return [...byPage(wanted)].flatMap(([page, stamps]) => {
			const places = stamps.map((stamp): ShownRect => toShown(sizes[page]!, stamp.rect));
			const [was, is] = [before.parts(page, places, SCALE), after.parts(page, places, SCALE)];
			return stamps.filter((_, i) => !hasChanged(was[i]!, is[i]!));
		});
	} finally {
		for (const pdf of [before, after]) if (typeof pdf !== 'string') pdf.close();
	}
}

function byPage(stamps: Stamp[]): Map<number, Stamp[]> {
	const pages = new Map<number, Stamp[]>();
	for (const stamp of stamps) pages.set(stamp.page, [...(pages.get(stamp.page) ?? []), stamp]);
	return pages;
}

/** Whether a mark draws anything that can be seen on white paper. */
function paints(mark: Mark): boolean {
	switch (mark.draw) {
		case 'text':
		case 'letters':
		case 'hand':
			return mark.text.trim() !== '';
		case 'tick':
		case 'pick':
			return mark.on || mark.outline;
		case 'strokes':
			return mark.strokes.some((stroke) => stroke.length >= 2);
		case 'cover':
			return false;
		default:
			return true;
	}
}

function hasChanged(was: Picture, is: Picture): boolean {
	return was.rgba.some((value, i) => Math.abs(value - is.rgba[i]!) > NOTABLE);
}

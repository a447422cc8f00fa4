import type { PDFPage } from '@cantoo/pdf-lib';
import type { PageSize, Turn } from '../core/page';

/** The crop box clipped to the media box (ISO 32000-2 §14.11.2.1), with its lower left corner in user space. */
export function pageBox(page: PDFPage): PageSize & { x: number; y: number } {
	const media = page.getMediaBox();
	const crop = page.getCropBox();
	const x = Math.max(media.x, crop.x);
	const y = Math.max(media.y, crop.y);
	const right = Math.min(media.x + media.width, crop.x + crop.width);
	const top = Math.min(media.y + media.height, crop.y + crop.height);
	const turn = ((page.getRotation().angle % 360) + 360) % 360;
	const rotate = (Math.round(turn / 90) * 90) % 360;
	return right > x && top > y
		? { x, y, width: right - x, height: top - y, rotate: rotate as Turn }
		: { ...media, rotate: rotate as Turn };
}

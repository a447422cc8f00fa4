import { meets } from '../arrange';
import type { ShownRect } from '../geometry';
import type { ShownPage } from '../shown-page';
import type { Blank } from './blank';
import { meaningOf } from './meaning';
import type { Segment } from './segments';

/** So many labels with bare room behind them make a form of a page; before that, only those we understand count. */
const FORM_LABELS = 3;
/** The least bare room that is meant to be written in, and how much of it a field takes. */
const ROOM = { least: 90, most: 240 };

/** Bare room after a label that ends with a colon, up to the next words or the margin. */
export function roomsOf(page: ShownPage, segments: Segment[], taken: Blank[], cells: ShownRect[]): Blank[] {
	if (segments.length === 0) return [];
	const margin = Math.min(page.width - 36, Math.max(page.width * 0.72, ...segments.map((s) => s.left + s.width)));
	const labels = segments.flatMap((segment) => {
		if (!/\p{L}.*:$/u.test(segment.text) || segment.words.length > 5) return [];
		const from = segment.left + segment.width + 5;
		const next = segments
			.filter(
				(s) => s !== segment && s.left >= from - 6 && s.top < segment.base + 1 && s.top + s.height > segment.top - 1
			)
			.map((s) => s.left);
		const right = Math.min(margin, ...next.map((x) => x - 8));
		const room: Blank = {
			left: from,
			top: segment.base - 13,
			width: Math.min(ROOM.most, right - from),
			height: 16,
			by: 'room'
		};
		// a paragraph or a list that the label leads to begins right below it
		const below = segments.find((s) => s.top > segment.base && s.top < segment.base + 1.6 * segment.height + 4);
		const leads =
			below !== undefined &&
			(below.words.length >= 5 || /^(\d+[.)]|[a-z][.)]|[•–-])/i.test(below.text)) &&
			!below.text.endsWith(':') &&
			Math.abs(below.left - segment.left) < 30;
		if (room.width < ROOM.least || leads) return [];
		if (
			[...taken, ...cells].some(
				(one) =>
					meets(room, one) ||
					(one.top > room.top && one.top < segment.base + 26 && meets({ ...room, top: room.top + 14 }, one))
			)
		)
			return [];
		return [
			{
				room,
				known: meaningOf(segment.text).kind !== 'text' || meaningOf(segment.text).settings['pattern'] !== undefined
			}
		];
	});
	return labels.filter((one) => one.known || labels.length >= FORM_LABELS).map((one) => one.room);
}

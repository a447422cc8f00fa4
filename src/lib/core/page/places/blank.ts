import { meets } from '../arrange';
import type { ShownRect } from '../geometry';
import type { ShownPage, ShownWord } from '../shown-page';

/** Where there is room to write, and how that was told. */
export type Blank = ShownRect & {
	by: 'run' | 'rule' | 'cell' | 'letters' | 'square' | 'ring' | 'room';
	boxes?: number;
};

/** A rectangle a little smaller, so that neighbours that touch don't count as covering each other. */
export function shrunk(r: ShownRect): ShownRect {
	return {
		left: r.left + 1.5,
		top: r.top + 1.5,
		width: Math.max(0.1, r.width - 3),
		height: Math.max(0.1, r.height - 3)
	};
}

/** Words most of which stand in a rectangle. */
export function wordsIn(rect: ShownRect, page: ShownPage): ShownWord[] {
	return page.words.filter((w) => meets(shrunk(rect), { ...w, left: w.left + w.width * 0.1, width: w.width * 0.8 }));
}

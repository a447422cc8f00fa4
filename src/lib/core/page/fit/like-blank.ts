import type { ShownRect } from '../geometry';
import { blanksOf, type Blank } from '../places/blanks';
import type { ShownPage } from '../shown-page';

/** How far a blank may be from where a field is expected, in points. */
const REACH = 14;
/** How much further across than down: lines flow, columns stay. */
const ACROSS = 90;

/** Blanks that are drawn: bare room after a label is none to hold a field to. */
function drawnBlanks(page: ShownPage): Blank[] {
	return blanksOf(page, []).blanks;
}

/** The blanks of pages, looked up once a page. */
export class Blanks {
	private known = new Map<ShownPage, Blank[]>();

	of(page: ShownPage): Blank[] {
		let blanks = this.known.get(page);
		if (!blanks) this.known.set(page, (blanks = drawnBlanks(page)));
		return blanks;
	}

	/** The blank a field stands in or on; null where it stands on bare paper. */
	under(page: ShownPage, rect: ShownRect): Blank | null {
		const near = this.of(page).filter((blank) => shares(blank, rect) && Math.abs(down(blank, rect)) <= REACH);
		return near.sort((a, b) => offset(a, rect) - offset(b, rect))[0] ?? null;
	}

	/** Blanks of one kind on one line, from the left. */
	line(page: ShownPage, like: Blank, bottom: number, within = 3): Blank[] {
		return this.of(page)
			.filter((blank) => blank.by === like.by && Math.abs(bottomOf(blank) - bottom) <= within)
			.sort((a, b) => a.left - b.left);
	}

	/**
	 * The blank of the new page that is `like` on the old one. `expected` is where it should be. Blanks that come in the
	 * same number on the line as before are told by their turn where that is wanted, others by their distance; `open` says
	 * that two could be meant.
	 */
	same(
		old: ShownPage,
		like: Blank,
		next: ShownPage,
		expected: ShownRect,
		byTurn = true
	): { blank: Blank; open: boolean } | null {
		const near = this.line(next, like, bottomOf(expected), REACH);
		if (near.length === 0) return null;
		const row = this.line(next, like, bottomOf(closest(near, expected)));
		const before = this.line(old, like, bottomOf(like));
		const turn = before.indexOf(like);
		if (byTurn && row.length === before.length && turn >= 0) {
			const blank = row[turn]!;
			return { blank, open: Math.abs(blank.left - expected.left) > ACROSS };
		}
		const byDistance = row
			.map((blank) => ({ blank, far: Math.abs(blank.left - expected.left) }))
			.sort((a, b) => a.far - b.far);
		const [first, second] = byDistance;
		if (!first || first.far > ACROSS) return null;
		return { blank: first.blank, open: first.far > REACH || (second !== undefined && second.far < first.far + 12) };
	}
}

/** A field's rectangle moved from one blank to its like: as far from its left and foot, and as wide where it filled it. */
export function movedTo(rect: ShownRect, from: Blank, to: Blank): ShownRect {
	const fills = rect.width > from.width * 0.8 && rect.width < from.width * 1.25;
	const width = fills ? rect.width + to.width - from.width : rect.width;
	const tall = from.by === 'cell' && rect.height > from.height * 0.8;
	const height = tall ? rect.height + to.height - from.height : rect.height;
	return {
		left: to.left + rect.left - from.left,
		top: bottomOf(to) + bottomOf(rect) - bottomOf(from) - height,
		width: Math.max(4, width),
		height: Math.max(4, height)
	};
}

function closest(blanks: Blank[], to: ShownRect): Blank {
	return blanks.reduce((best, one) => (offset(one, to) < offset(best, to) ? one : best));
}

function offset(blank: ShownRect, rect: ShownRect): number {
	return Math.abs(down(blank, rect)) * 2 + Math.abs(blank.left - rect.left);
}

function down(a: ShownRect, b: ShownRect): number {
	return bottomOf(a) - bottomOf(b);
}

function shares(a: ShownRect, b: ShownRect): boolean {
	return a.left < b.left + b.width + 2 && b.left < a.left + a.width + 2;
}

export function bottomOf(rect: ShownRect): number {
	return rect.top + rect.height;
}

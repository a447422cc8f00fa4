import type { ShownRect } from '../geometry';
import { cellAbove, cellsOf, innermost } from '../places/cells';
import { segmentsOf, type Segment } from '../places/segments';
import type { ShownPage } from '../shown-page';
import { bare } from './stream';

/** What stands over a place and tells it from its neighbours: the head of a table's column, or of a signature block. */
export interface Head {
	text: string;
	left: number;
	/** the middle of it, from the left */
	middle: number;
	base: number;
	of: 'column' | 'block';
}

/** How far below its head a signature block reaches, in points. */
const BLOCK = 150;
const MOST_WORDS = 9;

/** How far the left edges of one block may be apart, and how far two blocks are at least. */
const ALIGNED = 12;
const APART = 60;

interface Read {
	segments: Segment[];
	/** segments of one row, the lowest row first */
	rows: Segment[][];
	cells: ShownRect[];
}

/** The heads of pages, looked up once a page. */
export class Heads {
	private readonly known = new Map<ShownPage, Read>();

	/** The head over a place; null where nothing stands there that another place on its line doesn't have as well. */
	over(page: ShownPage, rect: ShownRect): Head | null {
		return this.column(page, rect) ?? this.block(page, rect);
	}

	/** Heads of the same kind and wording on a page. */
	like(page: ShownPage, head: Head): Head[] {
		const wanted = plain(head.text);
		return this.of(page)
			.segments.filter((segment) => plain(segment.text) === wanted)
			.map((segment) => headOf(segment, head.of));
	}

	/** The cell of the column under a head that stands on the same row as a place. */
	cellUnder(page: ShownPage, head: Head, rect: ShownRect): ShownRect | null {
		const middle = rect.top + rect.height / 2;
		const { cells } = this.of(page);
		return (
			cells.find(
				(cell) =>
					cell.left < head.middle &&
					cell.left + cell.width > head.middle &&
					cell.top < middle &&
					cell.top + cell.height > middle
			) ?? null
		);
	}

	/** The topmost words of the cells right above one another in which a place stands. */
	private column(page: ShownPage, rect: ShownRect): Head | null {
		const { segments, cells } = this.of(page);
		const [x, y] = [rect.left + rect.width / 2, rect.top + rect.height / 2];
		let here = cells.find((c) => c.left < x && c.left + c.width > x && c.top < y && c.top + c.height > y);
		if (!here) return null;
		let head: ShownRect | null = null;
		for (let i = 0; here && i < 80; i++) {
			const above: ShownRect | undefined = cellAbove(cells, here);
			if (above) head = above;
			here = above;
		}
		if (!head) return null;
		const { left, top, width, height } = head;
		const words = segments.filter(
			(s) => s.left > left - 2 && s.left + s.width < left + width + 2 && s.top > top - 1 && s.base < top + height + 1
		);
		return words.length > 0 ? headOf(words[0]!, 'column') : null;
	}

	/**
	 * The saying over a block, or a column without lines, that stands beside another one: going up from the place, the
	 * first in its own column beside which something else is said. Labels that both have ("Signature") tell nothing.
	 */
	private block(page: ShownPage, rect: ShownRect): Head | null {
		const { rows } = this.of(page);
		const bottom = rect.top + rect.height;
		const line = rows.find((row) => Math.abs(row[0]!.base - bottom) < 8) ?? [];
		const label = line.filter((s) => s.left < rect.left && s.left + s.width > rect.left - 90).at(-1);
		const anchor = label?.left ?? rect.left;
		const stands = (segment: Segment) =>
			Math.abs(segment.left - anchor) < ALIGNED || Math.abs(segment.left - rect.left) < ALIGNED;
		for (const row of rows) {
			const { base } = row[0]!;
			if (base >= bottom - 6) continue;
			if (base < bottom - BLOCK) break;
			if (row.length === 1 && row[0]!.words.length > MOST_WORDS) return null;
			const own = row.find(stands);
			if (!own || own.words.length > MOST_WORDS) continue;
			const others = row.filter((s) => s !== own && Math.abs(s.left - own.left) > APART);
			if (others.length > 0 && !others.some((other) => plain(other.text) === plain(own.text)))
				return headOf(own, 'block');
		}
		return null;
	}

	private of(page: ShownPage): Read {
		let known = this.known.get(page);
		if (!known) {
			const segments = segmentsOf(page);
			const byRow = new Map<number, Segment[]>();
			for (const segment of segments) byRow.set(segment.base, [...(byRow.get(segment.base) ?? []), segment]);
			const rows = [...byRow.values()].sort((a, b) => b[0]!.base - a[0]!.base);
			this.known.set(page, (known = { segments, rows, cells: innermost(cellsOf(page)) }));
		}
		return known;
	}
}

function headOf({ text, left, width, base }: Segment, of: Head['of']): Head {
	return { text, left, middle: left + width / 2, base, of };
}

const plain = (text: string): string => text.split(' ').map(bare).filter(Boolean).join(' ');

/** Whether two heads say the same. */
export function sameHead(a: Head, b: Head): boolean {
	return plain(a.text) === plain(b.text);
}

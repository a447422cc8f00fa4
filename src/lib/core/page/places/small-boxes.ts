import { meets } from '../arrange';
import type { ShownRect } from '../geometry';
import type { ShownPage } from '../shown-page';
import { shrunk, wordsIn, type Blank } from './blank';

/** Squares and circles to tick, and boxes and combs for single letters. */

const SQUARE = /^[☐□❏❑▢]$/u;
const RING = /^[○◯⚪]$/u;

/** Squares up to this are to be ticked; larger ones too, where words stand right beside them. */
const SQUARE_MOST = { alone: 17, beside: 27 };

/** Squares and circles to tick, drawn or set as signs. `meshes`: cells of the page. */
export function squaresOf(page: ShownPage, meshes: ShownRect[]): Blank[] {
	const upTo = (b: ShownRect) => (isBesideWords(b, page) ? SQUARE_MOST.beside : SQUARE_MOST.alone);
	// some programs draw the four sides one by one
	const drawn = [...page.boxes, ...meshes.filter((m) => !page.boxes.some((b) => meets(shrunk(m), b)))]
		.filter((b) => b.width >= 5 && Math.abs(b.width - b.height) < Math.max(2.5, 0.12 * b.width))
		.filter((b) => b.width <= upTo(b) && wordsIn(b, page).length === 0)
		.map((b): Blank => ({ ...b, by: 'square' }));
	// a row of squares that touch are boxes for letters, not for ticks
	const alone = drawn.filter(
		(b) =>
			!drawn.some(
				(o) =>
					o !== b &&
					Math.abs(o.top - b.top) < 2 &&
					(Math.abs(o.left - b.left - b.width) < 1.5 || Math.abs(b.left - o.left - o.width) < 1.5)
			)
	);
	const rings = page.rings
		.filter((b) => b.width <= upTo(b) && wordsIn(b, page).length === 0)
		.map((b): Blank => ({ ...b, by: 'ring' }));
	const glyphs = page.words
		.filter((w) => SQUARE.test(w.text) || RING.test(w.text))
		.map((w): Blank => ({
			left: w.left,
			top: w.top,
			width: w.width,
			height: w.height,
			by: RING.test(w.text) ? 'ring' : 'square'
		}));
	return [...alone, ...rings, ...glyphs];
}

function isBesideWords(box: ShownRect, page: ShownPage): boolean {
	const middle = box.top + box.height / 2;
	return page.words.some((w) => {
		const gap = w.left - box.left - box.width;
		return gap > 0 && gap < 16 && w.top - 2 < middle && w.top + w.height + 2 > middle;
	});
}

/** A line with short teeth standing on it at even distances, open at the ends or above: a letter between each two. */
export function combsOf(page: ShownPage): Blank[] {
	return page.level.flatMap((line): Blank[] => {
		const teeth = page.upright
			.filter((u) => {
				const long = u.to - u.from;
				return (
					Math.abs(u.to - line.at) < 2.5 && long >= 2.5 && long <= 18 && u.at > line.from - 2 && u.at < line.to + 2
				);
			})
			.sort((a, b) => a.at - b.at);
		if (teeth.length < 2) return [];
		const steps = teeth.slice(1).map((u, i) => u.at - teeth[i]!.at);
		const step = steps.reduce((sum, one) => sum + one, 0) / steps.length;
		if (step < 8 || step > 28 || steps.some((one) => Math.abs(one - step) > 0.18 * step)) return [];
		const [first, last] = [teeth[0]!.at, teeth[teeth.length - 1]!.at];
		const before = Math.abs(first - line.from - step) < 0.25 * step;
		const after = Math.abs(line.to - last - step) < 0.25 * step;
		const boxes = steps.length + Number(before) + Number(after);
		const closed = page.level.some(
			(l) => l !== line && l.at < line.at - 6 && l.at > line.at - 34 && l.from < first + 3 && l.to > last - 3
		);
		if (boxes < 3 || closed) return [];
		const [left, right] = [before ? line.from : first, after ? line.to : last];
		const tall = Math.max(14, ...teeth.map((u) => u.to - u.from));
		const comb: Blank = { left, top: line.at - tall, width: right - left, height: tall, by: 'letters', boxes };
		return wordsIn(comb, page).length === 0 ? [comb] : [];
	});
}

/** Three or more small cells side by side: one text, a character in each. */
export function letterBoxes(cells: ShownRect[], page: ShownPage): Blank[] {
	const small = cells
		.filter((c) => c.width >= 8 && c.width <= 26 && c.height >= 9 && c.height <= 32 && wordsIn(c, page).length === 0)
		.sort((a, b) => a.top - b.top || a.left - b.left);
	const runs: ShownRect[][] = [];
	for (const cell of small) {
		const run = runs.find((r) => {
			const last = r[r.length - 1]!;
			return (
				Math.abs(last.top - cell.top) < 2 &&
				Math.abs(last.left + last.width - cell.left) < 3 &&
				Math.abs(last.width - cell.width) < 2.5
			);
		});
		if (run) run.push(cell);
		else runs.push([cell]);
	}
	return runs
		.filter((run) => run.length >= 3)
		.map((run): Blank => {
			const [first, last] = [run[0]!, run[run.length - 1]!];
			return {
				left: first.left,
				top: first.top,
				width: last.left + last.width - first.left,
				height: first.height,
				by: 'letters',
				boxes: run.length
			};
		});
}

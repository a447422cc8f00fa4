import { inkOf, type Grey } from '../picture';
import type { Stroke } from './shown-page';

/** Straight lines and boxes of a picture, in pixels from its top left. */
export interface PictureDrawing {
	level: Stroke[];
	upright: Stroke[];
	boxes: { left: number; top: number; width: number; height: number }[];
}

/** The longest break in a line that is still the same line, and how thick one may be: in points. */
const BREAK = 1.2;
const THICK = 3.5;
/** The shortest lines looked for: in points. */
const SHORTEST = { level: 24, upright: 9 };
/** Where on a slanting line its height is taken, as a share of its length. */
const NEAR_BEGINNING = 0.2;
/** Sides of the small squares to tick: in points. */
const SQUARE = { least: 6, most: 24 };

/**
 * Printed lines and small squares of a scanned page. `scale`: pixels a point; `slant`: by how much level lines fall to
 * the right, as a tangent, which is taken off while looking. Curves, shades and handwriting are passed over.
 */
export function readPicture(picture: Grey, scale: number, slant = 0): PictureDrawing {
	const { width, height } = picture;
	const ink = inkOf(picture);
	const dark = (x: number, y: number): boolean => {
		const row = Math.round(y + slant * (x - width / 2));
		return row >= 0 && row < height && x >= 0 && x < width && ink[row * width + x] === 1;
	};
	const column = (x: number, y: number): boolean => {
		const at = Math.round(x - slant * (y - height / 2));
		return at >= 0 && at < width && y >= 0 && y < height && ink[y * width + at] === 1;
	};
	const level = strokes(height, width, (across, along) => dark(along, across), SHORTEST.level * scale, scale);
	const upright = strokes(width, height, (across, along) => column(across, along), SHORTEST.upright * scale, scale);
	/** A slanting line as a straight one through a place near its beginning, where its label stands. */
	const settled = (one: Stroke, size: number, by: number): Stroke => ({
		...one,
		at: one.at + by * (one.from + NEAR_BEGINNING * (one.to - one.from) - size / 2)
	});
	return {
		level: level.map((one) => settled(one, width, slant)),
		upright: upright.filter((one) => stands(one, level, scale)).map((one) => settled(one, height, -slant)),
		boxes: squares(ink, picture, scale)
	};
}

/** Uprights that begin or end at a level line, or are long: the others are mostly letters. */
function stands(one: Stroke, level: Stroke[], scale: number): boolean {
	if (one.to - one.from > 40 * scale) return true;
	const near = 3 * scale;
	return level.some(
		(line) =>
			line.from - near < one.at &&
			line.to + near > one.at &&
			(Math.abs(line.at - one.from) < near || Math.abs(line.at - one.to) < near)
	);
}

/** Long thin runs of ink: along each row, or each column, joined across where they lie side by side. */
function strokes(
	rows: number,
	length: number,
	at: (across: number, along: number) => boolean,
	shortest: number,
	scale: number
): Stroke[] {
	const runs: { first: number; last: number; from: number; to: number }[] = [];
	let open: typeof runs = [];
	for (let across = 0; across < rows; across++) {
		const here: { from: number; to: number }[] = [];
		let from = -1;
		let gap = 0;
		for (let along = 0; along <= length; along++) {
			if (along < length && at(across, along)) {
				if (from < 0) from = along;
				gap = 0;
			} else if (from >= 0 && (++gap > BREAK * scale || along === length)) {
				if (along - gap + 1 - from >= shortest) here.push({ from, to: along - gap + 1 });
				from = -1;
				gap = 0;
			}
		}
		const next: typeof runs = [];
		for (const run of here) {
			const before = open.find((one) => one.last >= across - 2 && run.from < one.to && run.to > one.from);
			if (before) {
				before.last = across;
				before.from = Math.min(before.from, run.from);
				before.to = Math.max(before.to, run.to);
				next.push(before);
			} else {
				const begun = { first: across, last: across, ...run };
				runs.push(begun);
				next.push(begun);
			}
		}
		open = [...new Set([...next, ...open.filter((one) => one.last >= across - 1)])];
	}
	return runs
		.filter((run) => run.last - run.first + 1 <= THICK * scale)
		.map((run) => ({ at: (run.first + run.last) / 2, from: run.from, to: run.to }));
}

/** Hollow squares: pieces of ink as wide as high, dark all round and nearly empty inside. */
function squares(ink: Uint8Array, { width, height }: Grey, scale: number): PictureDrawing['boxes'] {
	const seen = new Uint8Array(ink.length);
	const found: PictureDrawing['boxes'] = [];
	const most = SQUARE.most * scale;
	const stack: number[] = [];
	for (let start = 0; start < ink.length; start++) {
		if (ink[start] === 0 || seen[start] === 1) continue;
		let [left, right, top, bottom, count] = [width, 0, height, 0, 0];
		stack.push(start);
		seen[start] = 1;
		while (stack.length > 0) {
			const at = stack.pop()!;
			const [x, y] = [at % width, Math.floor(at / width)];
			left = Math.min(left, x);
			right = Math.max(right, x);
			top = Math.min(top, y);
			bottom = Math.max(bottom, y);
			count += 1;
			for (let dy = -1; dy <= 1; dy++)
				for (let dx = -1; dx <= 1; dx++) {
					const [nx, ny] = [x + dx, y + dy];
					const next = ny * width + nx;
					if (nx < 0 || nx >= width || ny < 0 || ny >= height || ink[next] === 0 || seen[next] === 1) continue;
					seen[next] = 1;
					stack.push(next);
				}
		}
		const [wide, high] = [right - left + 1, bottom - top + 1];
		if (wide < SQUARE.least * scale || wide > most || high > most || Math.abs(wide - high) > 0.2 * wide) continue;
		if (count > 0.62 * wide * high || !isFramed(ink, width, { left, top, wide, high }, scale)) continue;
		found.push({ left, top, width: wide, height: high });
	}
	return found;
}

function isFramed(
	ink: Uint8Array,
	width: number,
	{ left, top, wide, high }: { left: number; top: number; wide: number; high: number },
	scale: number
): boolean {
	const deep = Math.max(2, Math.round(2 * scale));
	const darkIn = (x: number, y: number, dx: number, dy: number) => {
		for (let i = 0; i < deep; i++) if (ink[(y + i * dy) * width + x + i * dx] === 1) return 1;
		return 0;
	};
	let sides = 0;
	for (let i = 0; i < wide; i++) sides += darkIn(left + i, top, 0, 1) + darkIn(left + i, top + high - 1, 0, -1);
	for (let i = 0; i < high; i++) sides += darkIn(left, top + i, 1, 0) + darkIn(left + wide - 1, top + i, -1, 0);
	if (sides < 0.9 * 2 * (wide + high)) return false;
	let inner = 0;
	const inset = Math.round(0.3 * wide);
	for (let y = top + inset; y < top + high - inset; y++)
		for (let x = left + inset; x < left + wide - inset; x++) inner += ink[y * width + x]!;
	return inner < 0.2 * (wide - 2 * inset) * (high - 2 * inset);
}

/** By how much a page's rows fall to the right, as a tangent: by the words of its longest rows; 0 where there are too few to tell. */
export function slantOf(words: { left: number; top: number; width: number; height: number }[]): number {
	const slopes: { slope: number; weight: number }[] = [];
	for (const word of words) {
		const middle = word.top + word.height / 2;
		for (const other of words) {
			const away = other.left - word.left - word.width;
			if (away < 0 || away > 4 * word.height) continue;
			const rise = other.top + other.height / 2 - middle;
			if (Math.abs(rise) > 0.5 * word.height || Math.abs(other.height - word.height) > 0.35 * word.height) continue;
			const run = other.left + other.width / 2 - word.left - word.width / 2;
			if (run > word.height) slopes.push({ slope: rise / run, weight: run });
		}
	}
	if (slopes.length < 12) return 0;
	slopes.sort((a, b) => a.slope - b.slope);
	const half = slopes.reduce((sum, one) => sum + one.weight, 0) / 2;
	let sum = 0;
	for (const one of slopes) if ((sum += one.weight) >= half) return one.slope;
	return 0;
}

/** A box of the picture, pixels from the top left, as points of the page as shown. */
export function inPoints(box: { left: number; top: number; width: number; height: number }, scale: number) {
	return { left: box.left / scale, top: box.top / scale, width: box.width / scale, height: box.height / scale };
}

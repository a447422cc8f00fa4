/** A place in a picture: pixels from its top left. */
export interface Spot {
	x: number;
	y: number;
}

/** What a flat thing looks like from anywhere: a plane projected onto another one. */

/** `x′ = (ax + by + c) / (gx + hy + 1)`, `y′ = (dx + ey + f) / (gx + hy + 1)`. */
export type Projection = readonly [number, number, number, number, number, number, number, number];

export type Corners = readonly [Spot, Spot, Spot, Spot];

/** The projection that takes four corners to four others; null where three of them are in line. */
export function projection(from: Corners, to: Corners): Projection | null {
	const rows: number[][] = [];
	for (let i = 0; i < 4; i++) {
		const [{ x, y }, { x: u, y: v }] = [from[i]!, to[i]!];
		rows.push([x, y, 1, 0, 0, 0, -u * x, -u * y, u], [0, 0, 0, x, y, 1, -v * x, -v * y, v]);
	}
	return solved(rows) as Projection | null;
}

export function projected([a, b, c, d, e, f, g, h]: Projection, { x, y }: Spot): Spot {
	const w = g * x + h * y + 1;
	return { x: (a * x + b * y + c) / w, y: (d * x + e * y + f) / w };
}

/**
 * The projection that fits pairs of places best (least squares over all of them); null where they say too little. Both sides are
 * brought near one first, so that the sums keep their digits.
 */
export function fitted(pairs: readonly (readonly [Spot, Spot])[]): Projection | null {
	if (pairs.length < 4) return null;
	const from = evened(pairs.map(([one]) => one));
	const to = evened(pairs.map(([, other]) => other));
	const sums = Array.from({ length: 8 }, () => new Array<number>(9).fill(0));
	const add = (row: number[]) => {
		for (let i = 0; i < 8; i++) for (let k = 0; k < 9; k++) sums[i]![k]! += row[i]! * row[k]!;
	};
	for (const [one, other] of pairs) {
		const [x, y] = [(one.x - from.x) / from.by, (one.y - from.y) / from.by];
		const [u, v] = [(other.x - to.x) / to.by, (other.y - to.y) / to.by];
		add([x, y, 1, 0, 0, 0, -u * x, -u * y, u]);
		add([0, 0, 0, x, y, 1, -v * x, -v * y, v]);
	}
	const even = solved(sums) as Projection | null;
	if (!even) return null;
	// back to what the places were: four corners say it all
	const corner = (x: number, y: number): [Spot, Spot] => {
		const there = projected(even, { x, y });
		return [
			{ x: x * from.by + from.x, y: y * from.by + from.y },
			{ x: there.x * to.by + to.x, y: there.y * to.by + to.y }
		];
	};
	const [a, b, c, d] = [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)];
	return projection([a[0], b[0], c[0], d[0]], [a[1], b[1], c[1], d[1]]);
}

/** The middle of places, and how far they lie from it at most. */
function evened(spots: Spot[]): Spot & { by: number } {
	const x = spots.reduce((sum, one) => sum + one.x, 0) / spots.length;
	const y = spots.reduce((sum, one) => sum + one.y, 0) / spots.length;
	return { x, y, by: Math.max(1e-6, ...spots.map((one) => Math.max(Math.abs(one.x - x), Math.abs(one.y - y)))) };
}

/** An upright rectangle, in whatever unit. */
export interface Box {
	left: number;
	top: number;
	width: number;
	height: number;
}

/** Clockwise from its top left. */
export const cornersOf = ({ left, top, width, height }: Box): Corners => [
	{ x: left, y: top },
	{ x: left + width, y: top },
	{ x: left + width, y: top + height },
	{ x: left, y: top + height }
];

/** All of a page or picture, from its own top left. */
export const whole = ({ width, height }: Pick<Box, 'width' | 'height'>): Corners =>
	cornersOf({ left: 0, top: 0, width, height });

/** Four corners where a projection takes them. */
export const cornersThrough = (way: Projection, [a, b, c, d]: Corners): Corners => [
	projected(way, a),
	projected(way, b),
	projected(way, c),
	projected(way, d)
];

/** A box where a projection takes it, by two of its corners: for boxes so small that they stay upright. */
export function boxThrough(way: Projection, { left, top, width, height }: Box): Box {
	const a = projected(way, { x: left, y: top });
	const b = projected(way, { x: left + width, y: top + height });
	return {
		left: Math.min(a.x, b.x),
		top: Math.min(a.y, b.y),
		width: Math.abs(b.x - a.x),
		height: Math.abs(b.y - a.y)
	};
}

/** Gauss's elimination with the largest pivot; each row's last number is its right side. Null where the rows say too little. */
function solved(rows: number[][]): number[] | null {
	const n = rows.length;
	const m = rows.map((row) => [...row]);
	for (let at = 0; at < n; at++) {
		let pivot = at;
		for (let i = at + 1; i < n; i++) if (Math.abs(m[i]![at]!) > Math.abs(m[pivot]![at]!)) pivot = i;
		[m[at], m[pivot]] = [m[pivot]!, m[at]!];
		const lead = m[at]![at]!;
		if (Math.abs(lead) < 1e-9) return null;
		for (let i = 0; i < n; i++) {
			if (i === at) continue;
			const factor = m[i]![at]! / lead;
			if (factor !== 0) for (let k = at; k <= n; k++) m[i]![k]! -= factor * m[at]![k]!;
		}
	}
	return m.map((row, i) => row[n]! / row[i]!);
}

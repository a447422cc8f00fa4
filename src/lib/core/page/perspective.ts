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

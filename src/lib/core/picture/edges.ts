import { smaller, type Grey } from './grey';
import type { Corners, Spot } from './perspective';

/**
 * Where a document lies in a picture: what is not reached from the picture's edge without crossing a line is a thing that lies there;
 * the largest such thing that four straight sides enclose is the document.
 */

export interface FoundDocument {
	/** in pixels of the picture, clockwise from the one that is nearest its top left */
	corners: Corners;
	/** of the picture, from 0 to 1 */
	share: number;
	/** how much of its four sides' room the thing fills, from 0 to 1: a cat fills less */
	filled: number;
	/** how many of its corners lie at the picture's edge */
	cut: number;
}

/** Looked for at this width. */
const WIDTH = 320;
/** Sides of documents: ID-1 is 1.586, ID-2 1.42, a passport's page 1.42 (ISO/IEC 7810); seen from aside they are others. */
const SHAPE = { least: 1.15, most: 1.95 };
const LEAST = { share: 0.06, filled: 0.86 };

export function findDocument(picture: Grey): FoundDocument | null {
	const small = smaller(picture, WIDTH);
	const scale = picture.width / small.width;
	let best: FoundDocument | null = null;
	// a quiet table asks for a low bar, a grained one for a high one
	for (const bar of [10, 18, 30, 46]) {
		const found = largest(small, bar);
		if (found && (!best || worth(found) > worth(best) * 1.02)) best = found;
	}
	if (!best) return null;
	const at = ({ x, y }: Spot) => ({ x: x * scale, y: y * scale });
	const [a, b, c, d] = best.corners;
	return { ...best, corners: [at(a), at(b), at(c), at(d)] };
}

/** All of one, wholly in the picture, is more than most of the picture. */
const worth = ({ filled, share, cut }: FoundDocument): number => filled * Math.sqrt(share) * (cut === 0 ? 1 : 0.3);

function largest(grey: Grey, bar: number): FoundDocument | null {
	const { width, height } = grey;
	const lines = steep(softened(grey), bar);
	const outside = reached(lines, grey);
	const part = new Int32Array(width * height);
	let best: FoundDocument | null = null;
	let next = 0;
	for (let start = 0; start < part.length; start++) {
		if (outside[start] || part[start]) continue;
		const spots = component(outside, part, ++next, start, width, height);
		if (spots.length < LEAST.share * width * height) continue;
		const found = quadrilateral(spots, width, height);
		if (found && (!best || found.share > best.share)) best = found;
	}
	return best;
}

/** A mean of nine, so that grain is no line. */
function softened({ width, height, data }: Grey): Grey {
	const out = new Uint8Array(data);
	for (let y = 1; y < height - 1; y++)
		for (let x = 1; x < width - 1; x++) {
			let sum = 0;
			for (let v = -1; v <= 1; v++) for (let u = -1; u <= 1; u++) sum += data[(y + v) * width + x + u]!;
			out[y * width + x] = sum / 9;
		}
	return { width, height, data: out };
}

/** Where the light changes by more than the bar within two pixels, and beside it, so that a line has no holes. */
function steep({ width, height, data }: Grey, bar: number): Uint8Array {
	const out = new Uint8Array(width * height);
	for (let y = 1; y < height - 1; y++)
		for (let x = 1; x < width - 1; x++) {
			const at = y * width + x;
			const across = Math.abs(data[at + 1]! - data[at - 1]!);
			const down = Math.abs(data[at + width]! - data[at - width]!);
			if (Math.max(across, down) <= bar) continue;
			for (let v = -1; v <= 1; v++) for (let u = -1; u <= 1; u++) out[at + v * width + u] = 1;
		}
	return out;
}

/** How far the light of the picture's edge may be from what most of it has, to be taken for the table and not for a document that goes on. */
const TABLE = 40;

function reached(lines: Uint8Array, { width, height, data }: Grey): Uint8Array {
	const out = new Uint8Array(lines.length);
	const todo: number[] = [];
	const edge: number[] = [];
	for (let x = 0; x < width; x++) edge.push(x, (height - 1) * width + x);
	for (let y = 0; y < height; y++) edge.push(y * width, y * width + width - 1);
	const table = edge.map((at) => data[at]!).toSorted((a, b) => a - b)[edge.length >> 1]!;
	const take = (at: number) => {
		if (!out[at] && !lines[at]) {
			out[at] = 1;
			todo.push(at);
		}
	};
	for (const at of edge) if (Math.abs(data[at]! - table) <= TABLE) take(at);
	while (todo.length > 0) {
		const at = todo.pop()!;
		const x = at % width;
		if (x > 0) take(at - 1);
		if (x < width - 1) take(at + 1);
		if (at >= width) take(at - width);
		if (at < lines.length - width) take(at + width);
	}
	return out;
}

function component(
	outside: Uint8Array,
	part: Int32Array,
	name: number,
	start: number,
	width: number,
	height: number
): Spot[] {
	const spots: Spot[] = [];
	const todo = [start];
	part[start] = name;
	while (todo.length > 0) {
		const at = todo.pop()!;
		const [x, y] = [at % width, Math.floor(at / width)];
		spots.push({ x, y });
		for (const [u, v] of [
			[x - 1, y],
			[x + 1, y],
			[x, y - 1],
			[x, y + 1]
		] as const) {
			if (u < 0 || v < 0 || u >= width || v >= height) continue;
			const to = v * width + u;
			if (!outside[to] && !part[to]) {
				part[to] = name;
				todo.push(to);
			}
		}
	}
	return spots;
}

function quadrilateral(spots: Spot[], width: number, height: number): FoundDocument | null {
	const hull = hullOf(spots);
	if (hull.length < 4) return null;
	const corners = cornersOf(hull);
	if (!corners) return null;
	const area = areaOf(corners);
	const share = area / (width * height);
	const filled = Math.min(spots.length, area) / Math.max(spots.length, area);
	const [a, b, c, d] = corners;
	const [across, down] = [(far(a, b) + far(d, c)) / 2, (far(b, c) + far(a, d)) / 2];
	const shape = Math.max(across, down) / Math.max(1, Math.min(across, down));
	if (share < LEAST.share || filled < LEAST.filled || shape < SHAPE.least || shape > SHAPE.most) return null;
	const edge = 2;
	const cut = corners.filter(
		({ x, y }) => x < edge || y < edge || x > width - 1 - edge || y > height - 1 - edge
	).length;
	return { corners, share, filled, cut };
}

/** How far apart two places are, in pixels. */
export const far = (a: Spot, b: Spot): number => Math.hypot(a.x - b.x, a.y - b.y);
const cross = (o: Spot, a: Spot, b: Spot): number => (a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x);

function areaOf(corners: readonly Spot[]): number {
	return Math.abs(
		corners.reduce((sum, one, i) => {
			const next = corners[(i + 1) % corners.length]!;
			return sum + one.x * next.y - next.x * one.y;
		}, 0) / 2
	);
}

/** Andrew's monotone chain. */
function hullOf(spots: Spot[]): Spot[] {
	const sorted = spots.toSorted((a, b) => a.x - b.x || a.y - b.y);
	const chain = (list: Spot[]) => {
		const out: Spot[] = [];
		for (const spot of list) {
			while (out.length >= 2 && cross(out[out.length - 2]!, out[out.length - 1]!, spot) <= 0) out.pop();
			out.push(spot);
		}
		out.pop();
		return out;
	};
	return [...chain(sorted), ...chain(sorted.toReversed())];
}

/** The two that are farthest apart, and the one on each side that is farthest from the line between them. */
function cornersOf(hull: Spot[]): Corners | null {
	let [a, c, longest] = [hull[0]!, hull[0]!, 0];
	for (const one of hull)
		for (const other of hull) if (far(one, other) > longest) [a, c, longest] = [one, other, far(one, other)];
	const side = (sign: number) =>
		hull
			.map((spot) => ({ spot, off: sign * cross(a, c, spot) }))
			.reduce((best, one) => (one.off > best.off ? one : best));
	const [b, d] = [side(1), side(-1)];
	if (b.off <= 0 || d.off <= 0) return null;
	const middle = { x: (a.x + c.x) / 2, y: (a.y + c.y) / 2 };
	const round = [a, b.spot, c, d.spot].toSorted(
		(one, other) => Math.atan2(one.y - middle.y, one.x - middle.x) - Math.atan2(other.y - middle.y, other.x - middle.x)
	);
	const first = round.indexOf(round.toSorted((one, other) => one.x + one.y - other.x - other.y)[0]!);
	const [p, q, r, s] = [...round.slice(first), ...round.slice(0, first)];
	return [p!, q!, r!, s!];
}

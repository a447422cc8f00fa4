import type { ShownRect } from './geometry';
import type { ShownPage } from './shown-page';

/** Places a moving edge may snap to, in points as shown. `span`: how far the thing there reaches, for the guide. */
interface Target {
	at: number;
	from: number;
	to: number;
	/** what is there: fields and lines pull at all edges, baselines only at a text's own */
	what: 'line' | 'base' | 'field' | 'margin';
}

export interface SnapTargets {
	across: Target[];
	down: Target[];
}

/** A line shown while dragging: at `at` from the left (`x`) or the top (`y`), as long as what lines up. */
export interface Guide {
	axis: 'x' | 'y';
	at: number;
	from: number;
	to: number;
}

/** Which sides of the rectangle move: all when it is dragged, some when it is resized. */
export type Sides = { left?: boolean; right?: boolean; top?: boolean; bottom?: boolean };
export const ALL_SIDES: Sides = { left: true, right: true, top: true, bottom: true };

/** Everything on a page that fields snap to: printed lines, boxes, baselines, the text's margins, other fields. */
export function snapTargets(page: ShownPage | null, fields: ShownRect[]): SnapTargets {
	const across: Target[] = [];
	const down: Target[] = [];
	const box = (b: ShownRect, what: Target['what']) => {
		for (const at of [b.left, b.left + b.width]) across.push({ at, from: b.top, to: b.top + b.height, what });
		for (const at of [b.top, b.top + b.height]) down.push({ at, from: b.left, to: b.left + b.width, what });
	};
	for (const field of fields) box(field, 'field');
	if (!page) return { across, down };
	for (const one of page.boxes) box(one, 'line');
	for (const line of page.level) {
		down.push({ ...line, what: 'line' });
		across.push(
			{ at: line.from, from: line.at, to: line.at, what: 'line' },
			{ at: line.to, from: line.at, to: line.at, what: 'line' }
		);
	}
	for (const line of page.upright) across.push({ ...line, what: 'line' });
	for (const row of page.rows) {
		down.push({ at: row.base, from: row.left, to: row.left + row.width, what: 'base' });
		const last = row.words[row.words.length - 1]!;
		across.push({ at: last.left + last.width + 4, from: row.top, to: row.top + row.height, what: 'margin' });
	}
	for (const at of margins(page)) across.push({ at, from: 0, to: page.height, what: 'margin' });
	return { across, down };
}

/** Where most rows begin and end: the margins of the text. */
function margins(page: ShownPage): number[] {
	if (page.rows.length < 3) return [];
	const most = (edges: number[]) => {
		const counts = new Map<number, number>();
		for (const edge of edges) counts.set(Math.round(edge), (counts.get(Math.round(edge)) ?? 0) + 1);
		return [...counts].sort((a, b) => b[1] - a[1])[0]![0];
	};
	return [most(page.rows.map((r) => r.left)), Math.max(...page.rows.map((r) => r.left + r.width))];
}

/** How far the baseline of a field's one line of text stands above its bottom, by its height (see `press/stamp`). */
export function baseOf(height: number): number {
	const size = Math.min(11, height * 0.75);
	return (height - size) / 2 + size * 0.22;
}

/**
 * A dragged or resized rectangle drawn to what is near, at most `reach` points away; each way by the nearest, and
 * where two are equally near by the one found first. Gives the guides to show. Never changes a side that doesn't move.
 */
export function snap(
	rect: ShownRect,
	targets: SnapTargets,
	reach: number,
	sides: Sides = ALL_SIDES
): { rect: ShownRect; guides: Guide[] } {
	const moving = sides.left && sides.right;
	const x = nearest(
		[
			...(sides.left ? [{ at: rect.left, on: ['line', 'field', 'margin'] }] : []),
			...(sides.right ? [{ at: rect.left + rect.width, on: ['line', 'field', 'margin'] }] : [])
		],
		targets.across,
		reach
	);
	const y = nearest(
		[
			...(sides.bottom ? [{ at: rect.top + rect.height, on: ['line', 'field'] }] : []),
			...(moving ? [{ at: rect.top + rect.height - baseOf(rect.height), on: ['base'] }] : []),
			...(sides.top ? [{ at: rect.top, on: ['line', 'field'] }] : [])
		],
		targets.down,
		reach
	);
	const snapped = { ...rect };
	if (x) move(snapped, 'left', 'width', x.by, Boolean(sides.left), Boolean(sides.right));
	if (y) move(snapped, 'top', 'height', y.by, Boolean(sides.top), Boolean(sides.bottom));
	const guides = [
		...(x ? [guide('x', x.target, snapped.top, snapped.height)] : []),
		...(y ? [guide('y', y.target, snapped.left, snapped.width)] : [])
	];
	return { rect: snapped, guides };
}

/** A guide as long as what is there and what was drawn to it. */
function guide(axis: Guide['axis'], target: Target, start: number, length: number): Guide {
	return { axis, at: target.at, from: Math.min(target.from, start), to: Math.max(target.to, start + length) };
}

function nearest(
	edges: { at: number; on: string[] }[],
	targets: Target[],
	reach: number
): { by: number; target: Target } | null {
	let best: { by: number; target: Target } | null = null;
	for (const edge of edges) {
		for (const target of targets) {
			const by = target.at - edge.at;
			if (Math.abs(by) > reach || !edge.on.includes(target.what)) continue;
			if (!best || Math.abs(by) < Math.abs(best.by) - 0.001) best = { by, target };
		}
	}
	return best;
}

function move(
	rect: ShownRect,
	start: 'left' | 'top',
	size: 'width' | 'height',
	by: number,
	first: boolean,
	second: boolean
): void {
	if (first) rect[start] += by;
	if (first && !second) rect[size] -= by;
	if (!first && second) rect[size] += by;
}

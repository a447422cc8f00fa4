import type { ShownRect } from './geometry';

export const ALIGNMENTS = ['left', 'centre', 'right', 'top', 'middle', 'bottom'] as const;
export type Alignment = (typeof ALIGNMENTS)[number];

/** Rectangles lined up: by the outermost edge of them all, or by the middle of the space they take. */
export function align(rects: ShownRect[], how: Alignment): ShownRect[] {
	if (rects.length === 0) return [];
	const left = Math.min(...rects.map((r) => r.left));
	const right = Math.max(...rects.map((r) => r.left + r.width));
	const top = Math.min(...rects.map((r) => r.top));
	const bottom = Math.max(...rects.map((r) => r.top + r.height));
	return rects.map((r) => {
		switch (how) {
			case 'left':
				return { ...r, left };
			case 'right':
				return { ...r, left: right - r.width };
			case 'centre':
				return { ...r, left: (left + right - r.width) / 2 };
			case 'top':
				return { ...r, top };
			case 'bottom':
				return { ...r, top: bottom - r.height };
			case 'middle':
				return { ...r, top: (top + bottom - r.height) / 2 };
		}
	});
}

/** Rectangles with equal gaps between them; the first and the last stay. Fewer than three stay as they are. */
export function distribute(rects: ShownRect[], way: 'across' | 'down'): ShownRect[] {
	if (rects.length < 3) return rects;
	const [start, size] = way === 'across' ? (['left', 'width'] as const) : (['top', 'height'] as const);
	const order = rects.map((_, i) => i).sort((a, b) => rects[a]![start] - rects[b]![start]);
	const first = rects[order[0]!]!;
	const last = rects[order[order.length - 1]!]!;
	const taken = rects.reduce((sum, r) => sum + r[size], 0);
	const gap = (last[start] + last[size] - first[start] - taken) / (rects.length - 1);
	const placed = [...rects];
	let at = first[start];
	for (const i of order) {
		placed[i] = { ...rects[i]!, [start]: at };
		at += rects[i]![size] + gap;
	}
	return placed;
}

/** Rectangles made as wide, or as high, as the first. */
export function sameSize(rects: ShownRect[], size: 'width' | 'height'): ShownRect[] {
	return rects.map((r) => ({ ...r, [size]: rects[0]![size] }));
}

/** Pages as people write them: `all`, `odd`, `even`, `3-7, 9`. Numbers from 1. Null where it can't be understood. */
export function pagesFrom(text: string, count: number): number[] | null {
	const wanted = text.trim().toLowerCase();
	const all = Array.from({ length: count }, (_, i) => i + 1);
	if (wanted === 'all') return all;
	if (wanted === 'odd') return all.filter((n) => n % 2 === 1);
	if (wanted === 'even') return all.filter((n) => n % 2 === 0);
	const pages = new Set<number>();
	for (const part of wanted.split(',')) {
		const found = /^\s*(\d{1,4})\s*(?:[-–]\s*(\d{1,4})\s*)?$/.exec(part);
		if (!found) return null;
		const [from, to] = [Number(found[1]), Number(found[2] ?? found[1])];
		if (from < 1 || to > count || from > to) return null;
		for (let n = from; n <= to; n++) pages.add(n);
	}
	return [...pages].sort((a, b) => a - b);
}

/** Whether two rectangles touch or cover each other. */
export function meets(a: ShownRect, b: ShownRect): boolean {
	return a.left < b.left + b.width && b.left < a.left + a.width && a.top < b.top + b.height && b.top < a.top + a.height;
}

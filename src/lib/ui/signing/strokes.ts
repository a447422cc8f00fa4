/** What a pen drew, in CSS pixels. */
export interface Drawn {
	points: { x: number; y: number }[];
}

/** CSS pixels: a drawing smaller than this is not made larger. */
const LEAST_GROUND = 60;

/**
 * The drawing cut to its ink: x and y in thousandths of its width, and the height as a share of the width.
 * Null where nothing was drawn.
 */
export function toStrokes(groups: Drawn[]): { strokes: number[][]; ratio: number } | null {
	const all = groups.flatMap((g) => g.points);
	if (all.length === 0) return null;
	const left = Math.min(...all.map((p) => p.x));
	const top = Math.min(...all.map((p) => p.y));
	const width = Math.max(1, Math.max(...all.map((p) => p.x)) - left);
	const height = Math.max(1, Math.max(...all.map((p) => p.y)) - top);
	// an upright scrawl is set on a wider ground, so that it doesn't come out enormous
	// and a dot stays a dot, however the hand shook
	const ground = Math.max(width, height / 2, LEAST_GROUND);
	const indent = (ground - width) / 2;
	const scale = 1000 / ground;
	const strokes = groups
		.filter((g) => g.points.length > 0)
		.slice(0, 200)
		.map((g) =>
			thinned(g.points, 2000).flatMap((p) => [
				Math.round((p.x - left + indent) * scale),
				Math.round((p.y - top) * scale)
			])
		);
	return { strokes, ratio: Math.min(4, Math.max(0.02, Math.round((height / ground) * 1000) / 1000)) };
}

function thinned<T>(points: T[], most: number): T[] {
	const step = Math.ceil(points.length / most);
	return step <= 1 ? points : points.filter((_, i) => i % step === 0 || i === points.length - 1);
}

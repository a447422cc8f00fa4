import type { WrappedPdfiumModule } from '@embedpdf/pdfium';
import type { PageDrawing, PrintedLine, Rect } from '../core/page';

/** PDFium's numbers for what a page is made of (fpdf_edit.h). */
const OBJECT = { path: 2, image: 3, form: 5 } as const;
const SEGMENT = { line: 0, bezier: 1, move: 2 } as const;

/** A matrix as PDF writes it (ISO 32000-2 §8.3.3): a b c d e f. */
type Matrix = [number, number, number, number, number, number];

const THIN = 2;
const SHORTEST = 4;
/** Beyond this a page is a drawing, not a form; what is left out would be of no use to anybody. */
const MOST = 5000;

interface Memory {
	floats(at: number, count: number): number[];
	ints(at: number, count: number): number[];
}

/** Circles to tick are about so large. */
const RING = { least: 5, most: 30 };

/**
 * Straight lines along the page's edges, upright boxes and circles, in user space. A thin filled box or picture counts as a
 * line; a filled box counts where it isn't white, and is told apart where it has no edge. Other curves, slanted lines and
 * what is clipped away are left out.
 */
export function readDrawing(m: WrappedPdfiumModule, page: number, memory: Memory): PageDrawing {
	const { malloc, free } = m.pdfium.wasmExports;
	const at = malloc(64);
	const found: Required<PageDrawing> = { lines: [], boxes: [], rings: [], shaded: [] };
	const matrixOf = (object: number): Matrix =>
		m.FPDFPageObj_GetMatrix(object, at) ? (memory.floats(at, 6) as Matrix) : [1, 0, 0, 1, 0, 0];

	function path(object: number, outer: Matrix): void {
		m.FPDFPath_GetDrawMode(object, at, at + 4);
		const [fill, stroke] = memory.ints(at, 2);
		if (!fill && !stroke) return;
		if (!stroke && isWhite(object)) return;
		const own = times(matrixOf(object), outer);
		const points: { x: number; y: number; type: number }[] = [];
		const count = Math.min(m.FPDFPath_CountSegments(object), 2000);
		for (let i = 0; i < count; i++) {
			const segment = m.FPDFPath_GetPathSegment(object, i);
			m.FPDFPathSegment_GetPoint(segment, at, at + 4);
			const [x, y] = memory.floats(at, 2) as [number, number];
			points.push({ ...apply(own, x, y), type: m.FPDFPathSegment_GetType(segment) });
		}
		const clip = clipOf(object, outer);
		for (const run of runs(points)) keep(run, Boolean(stroke), clip);
	}

	/** What an object may be drawn in; null where nothing limits it. Clip paths stand in the space of what holds the object. */
	function clipOf(object: number, outer: Matrix): Rect | null {
		const path = m.FPDFPageObj_GetClipPath(object);
		const count = path ? m.FPDFClipPath_CountPaths(path) : 0;
		let all: Rect | null = null;
		for (let i = 0; i < Math.min(count, 8); i++) {
			const xs: number[] = [];
			const ys: number[] = [];
			const segments = Math.min(m.FPDFClipPath_CountPathSegments(path, i), 200);
			for (let j = 0; j < segments; j++) {
				m.FPDFPathSegment_GetPoint(m.FPDFClipPath_GetPathSegment(path, i, j), at, at + 4);
				const [x, y] = memory.floats(at, 2) as [number, number];
				const point = apply(outer, x, y);
				xs.push(point.x);
				ys.push(point.y);
			}
			if (xs.length < 3) continue;
			const [x, y] = [Math.min(...xs), Math.min(...ys)];
			const box = { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
			all = all ? common(all, box) : box;
		}
		return all;
	}

	/** Rules of tables are now and then thin pictures. */
	function image(object: number, outer: Matrix): void {
		const own = times(matrixOf(object), outer);
		const corners = [apply(own, 0, 0), apply(own, 1, 0), apply(own, 1, 1), apply(own, 0, 1)];
		const box = boxOf(corners);
		if (box && Math.min(box.width, box.height) <= THIN)
			keep(
				corners.map((p) => ({ ...p, type: SEGMENT.line })),
				false,
				clipOf(object, outer)
			);
	}

	function isWhite(object: number): boolean {
		if (!m.FPDFPageObj_GetFillColor(object, at, at + 4, at + 8, at + 12)) return false;
		const [r, g, b, alpha] = memory.ints(at, 4) as [number, number, number, number];
		return alpha < 10 || Math.min(r, g, b) > 250;
	}

	function keep(run: { x: number; y: number; type: number }[], stroked: boolean, clip: Rect | null): void {
		if (run.some((p) => p.type === SEGMENT.bezier)) return ring(run, stroked, clip);
		const box = boxOf(run);
		if (box) {
			if (clip && !isSeen(box, clip)) return;
			if (box.height <= THIN && box.width > SHORTEST)
				line(box.x, box.y + box.height / 2, box.x + box.width, box.y + box.height / 2);
			else if (box.width <= THIN && box.height > SHORTEST)
				line(box.x + box.width / 2, box.y, box.x + box.width / 2, box.y + box.height);
			else if (box.width > SHORTEST && box.height > SHORTEST) {
				found.boxes.push(box);
				if (!stroked) found.shaded.push(box);
			}
			return;
		}
		if (!stroked) return;
		for (let i = 1; i < run.length; i++) {
			const [a, b] = [run[i - 1]!, run[i]!];
			const whole = {
				x: Math.min(a.x, b.x),
				y: Math.min(a.y, b.y),
				width: Math.abs(a.x - b.x),
				height: Math.abs(a.y - b.y)
			};
			if (!clip || isSeen(whole, clip)) line(a.x, a.y, b.x, b.y);
		}
	}

	/** A closed curve as wide as high: a circle to tick. */
	function ring(run: { x: number; y: number; type: number }[], stroked: boolean, clip: Rect | null): void {
		if (!stroked || run.length < 10 || run.length > 17) return;
		const ends = run.filter((p, i) => p.type !== SEGMENT.bezier || i % 3 === 0);
		const [xs, ys] = [ends.map((p) => p.x), ends.map((p) => p.y)];
		const [x, y] = [Math.min(...xs), Math.min(...ys)];
		const box = { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
		const round = Math.abs(box.width - box.height) < 0.12 * box.width;
		if (round && box.width >= RING.least && box.width <= RING.most && (!clip || isSeen(box, clip)))
			found.rings.push(box);
	}

	function line(x1: number, y1: number, x2: number, y2: number): void {
		const level = Math.abs(y1 - y2) < 0.7;
		const upright = Math.abs(x1 - x2) < 0.7;
		if (level === upright || Math.hypot(x2 - x1, y2 - y1) < SHORTEST) return;
		found.lines.push(ordered(x1, y1, x2, y2));
	}

	function object(handle: number, outer: Matrix, depth: number): void {
		if (found.lines.length + found.boxes.length > MOST) return;
		const type = m.FPDFPageObj_GetType(handle);
		if (type === OBJECT.path) path(handle, outer);
		else if (type === OBJECT.image) image(handle, outer);
		else if (type === OBJECT.form && depth < 8) {
			const inner = times(matrixOf(handle), outer);
			const count = m.FPDFFormObj_CountObjects(handle);
			for (let i = 0; i < count; i++) object(m.FPDFFormObj_GetObject(handle, i), inner, depth + 1);
		}
	}

	const count = m.FPDFPage_CountObjects(page);
	for (let i = 0; i < count; i++) object(m.FPDFPage_GetObject(page, i), [1, 0, 0, 1, 0, 0], 0);
	free(at);
	return found;
}

/**
 * How much of a page its pictures cover, 0 to 1: the boxes of all images on it, those within others counted again.
 * `area`: the page's, in square points.
 */
export function pictureShare(m: WrappedPdfiumModule, page: number, area: number, memory: Memory): number {
	const { malloc, free } = m.pdfium.wasmExports;
	const at = malloc(16);
	let covered = 0;
	const count = Math.min(m.FPDFPage_CountObjects(page), MOST);
	const add = (handle: number, depth: number): void => {
		const type = m.FPDFPageObj_GetType(handle);
		if (type === OBJECT.form && depth < 4) {
			const inner = Math.min(m.FPDFFormObj_CountObjects(handle), MOST);
			for (let i = 0; i < inner; i++) add(m.FPDFFormObj_GetObject(handle, i), depth + 1);
		}
		if (type !== OBJECT.image || !m.FPDFPageObj_GetBounds(handle, at, at + 4, at + 8, at + 12)) return;
		const [left, bottom, right, top] = memory.floats(at, 4) as [number, number, number, number];
		covered += Math.abs((right - left) * (top - bottom));
	};
	for (let i = 0; i < count; i++) add(m.FPDFPage_GetObject(page, i), 0);
	free(at);
	return Math.min(1, covered / area);
}

function common(a: Rect, b: Rect): Rect {
	const [x, y] = [Math.max(a.x, b.x), Math.max(a.y, b.y)];
	return {
		x,
		y,
		width: Math.max(0, Math.min(a.x + a.width, b.x + b.width) - x),
		height: Math.max(0, Math.min(a.y + a.height, b.y + b.height) - y)
	};
}

/** Whether most of a box, or of a line, lies in what it may be drawn in. */
function isSeen(box: Rect, clip: Rect): boolean {
	const part = common(box, { x: clip.x - 1, y: clip.y - 1, width: clip.width + 2, height: clip.height + 2 });
	return part.width >= 0.5 * box.width && part.height >= 0.5 * box.height && (part.width > 0 || part.height > 0);
}

/** A path cut into its pieces: each begins with a move. */
function runs<P extends { type: number }>(points: P[]): P[][] {
	const all: P[][] = [];
	for (const point of points) {
		if (point.type === SEGMENT.move || all.length === 0) all.push([]);
		all[all.length - 1]!.push(point);
	}
	return all;
}

/** The upright box that a closed piece of four corners is; null where it is something else. */
function boxOf(run: { x: number; y: number }[]): Rect | null {
	if (run.length < 4 || run.length > 5) return null;
	const xs = run.map((p) => p.x);
	const ys = run.map((p) => p.y);
	const [x, y, right, top] = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
	const corner = (p: { x: number; y: number }) =>
		(Math.abs(p.x - x) < 0.5 || Math.abs(p.x - right) < 0.5) && (Math.abs(p.y - y) < 0.5 || Math.abs(p.y - top) < 0.5);
	return run.every(corner) ? { x, y, width: right - x, height: top - y } : null;
}

function ordered(x1: number, y1: number, x2: number, y2: number): PrintedLine {
	return { x1: Math.min(x1, x2), y1: Math.min(y1, y2), x2: Math.max(x1, x2), y2: Math.max(y1, y2) };
}

function times(a: Matrix, b: Matrix): Matrix {
	return [
		a[0] * b[0] + a[1] * b[2],
		a[0] * b[1] + a[1] * b[3],
		a[2] * b[0] + a[3] * b[2],
		a[2] * b[1] + a[3] * b[3],
		a[4] * b[0] + a[5] * b[2] + b[4],
		a[4] * b[1] + a[5] * b[3] + b[5]
	];
}

function apply(m: Matrix, x: number, y: number): { x: number; y: number } {
	return { x: m[0] * x + m[2] * y + m[4], y: m[1] * x + m[3] * y + m[5] };
}

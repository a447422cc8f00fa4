/**
 * Where things are on a page. The only place that converts between the two spaces:
 *
 * - *page space*: PDF points of the unrotated page, origin bottom left, relative to the crop box
 *   (ISO 32000-2 §8.3.2.3, §14.11.2). Fields are stored so.
 * - *shown space*: points of the page as a reader shows it, after /Rotate (§7.7.3.3), origin top left, y downwards.
 */
export type Turn = 0 | 90 | 180 | 270;

/** Size in points of the unrotated crop box, and the clockwise turn it is shown with. */
export interface PageSize {
	width: number;
	height: number;
	rotate: Turn;
}

export interface Rect {
	x: number;
	y: number;
	width: number;
	height: number;
}

export interface ShownRect {
	left: number;
	top: number;
	width: number;
	height: number;
}

/** Width and height in points of the page as shown. */
export function shownSize(page: PageSize): { width: number; height: number } {
	return page.rotate % 180 === 0
		? { width: page.width, height: page.height }
		: { width: page.height, height: page.width };
}

/** Page space to shown space. */
export function toShown(page: PageSize, r: Rect): ShownRect {
	switch (page.rotate) {
		case 0:
			return { left: r.x, top: page.height - r.y - r.height, width: r.width, height: r.height };
		case 90:
			return { left: r.y, top: r.x, width: r.height, height: r.width };
		case 180:
			return { left: page.width - r.x - r.width, top: r.y, width: r.width, height: r.height };
		case 270:
			return {
				left: page.height - r.y - r.height,
				top: page.width - r.x - r.width,
				width: r.height,
				height: r.width
			};
	}
}

/** Shown space to page space; the inverse of {@link toShown}. */
export function fromShown(page: PageSize, s: ShownRect): Rect {
	switch (page.rotate) {
		case 0:
			return { x: s.left, y: page.height - s.top - s.height, width: s.width, height: s.height };
		case 90:
			return { x: s.top, y: s.left, width: s.height, height: s.width };
		case 180:
			return { x: page.width - s.left - s.width, y: s.top, width: s.width, height: s.height };
		case 270:
			return {
				x: page.width - s.top - s.height,
				y: page.height - s.left - s.width,
				width: s.height,
				height: s.width
			};
	}
}

/**
 * The matrix (ISO 32000-2 §8.3.4: a b c d e f) under which one may draw as if the page were upright:
 * origin at the bottom left of the page as shown, y upwards, points.
 * `origin` is the lower left corner of the crop box in user space.
 */
export function uprightMatrix(
	page: PageSize,
	origin: { x: number; y: number }
): [number, number, number, number, number, number] {
	switch (page.rotate) {
		case 0:
			return [1, 0, 0, 1, origin.x, origin.y];
		case 90:
			return [0, 1, -1, 0, origin.x + page.width, origin.y];
		case 180:
			return [-1, 0, 0, -1, origin.x + page.width, origin.y + page.height];
		case 270:
			return [0, -1, 1, 0, origin.x, origin.y + page.height];
	}
}

/** Whether the whole rectangle lies on the page; half a point of slack for what was rounded on screen. */
export function onPage(page: PageSize, r: Rect): boolean {
	return (
		r.width > 0 &&
		r.height > 0 &&
		r.x >= -0.5 &&
		r.y >= -0.5 &&
		r.x + r.width <= page.width + 0.5 &&
		r.y + r.height <= page.height + 0.5
	);
}

/** The shown rectangle moved, and if need be shrunk, so that it lies on the page. */
export function keepOnPage(page: PageSize, s: ShownRect): ShownRect {
	const size = shownSize(page);
	const width = Math.min(Math.max(s.width, 4), size.width);
	const height = Math.min(Math.max(s.height, 4), size.height);
	return {
		width,
		height,
		left: Math.min(Math.max(s.left, 0), size.width - width),
		top: Math.min(Math.max(s.top, 0), size.height - height)
	};
}

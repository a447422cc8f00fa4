import type { ShownRect } from '../geometry';
import type { ShownPage, Stroke } from '../shown-page';

const NEAR = 2;

/** Closed cells of a page: boxes, and the meshes of level and upright lines. Small ones are left to others. */
export function cellsOf(page: ShownPage): ShownRect[] {
	const cells = [...page.boxes.filter((b) => b.width > 5 && b.height > 5)];
	const { level, upright } = page;
	for (const top of level) {
		// the uprights that hang from this line, from left to right
		const hanging = upright
			.filter((u) => u.at >= top.from - NEAR && u.at <= top.to + NEAR && u.from <= top.at + NEAR && u.to > top.at + 6)
			.sort((a, b) => a.at - b.at);
		for (let i = 0; i + 1 < hanging.length; i++) {
			const [left, right] = [hanging[i]!, hanging[i + 1]!];
			if (right.at - left.at < 5) continue;
			const bottom = level
				.filter((l) => l.at > top.at + 5 && reaches(l, left.at) && reaches(l, right.at))
				.sort((a, b) => a.at - b.at)[0];
			if (!bottom || left.to < bottom.at - NEAR || right.to < bottom.at - NEAR) continue;
			cells.push({ left: left.at, top: top.at, width: right.at - left.at, height: bottom.at - top.at });
		}
	}
	return distinct(cells);
}

function reaches(line: Stroke, x: number): boolean {
	return line.from <= x + NEAR && line.to >= x - NEAR;
}

function distinct(cells: ShownRect[]): ShownRect[] {
	const kept: ShownRect[] = [];
	for (const cell of cells)
		if (
			!kept.some(
				(k) =>
					Math.abs(k.left - cell.left) < 3 &&
					Math.abs(k.top - cell.top) < 3 &&
					Math.abs(k.width - cell.width) < 5 &&
					Math.abs(k.height - cell.height) < 5
			)
		)
			kept.push(cell);
	return kept;
}

/** Cells that hold no other cell: a frame round a whole part of the page is not one to write in. */
export function innermost(cells: ShownRect[]): ShownRect[] {
	return cells.filter(
		(cell) =>
			!cells.some(
				(one) =>
					one !== cell &&
					one.left > cell.left - 1 &&
					one.top > cell.top - 1 &&
					one.left + one.width < cell.left + cell.width + 1 &&
					one.top + one.height < cell.top + cell.height + 1 &&
					one.width * one.height < cell.width * cell.height * 0.95
			)
	);
}

/** The cell of the same column that stands right above another. */
export function cellAbove(cells: ShownRect[], cell: ShownRect): ShownRect | undefined {
	return cells.find(
		(one) =>
			Math.abs(one.left - cell.left) < 3 &&
			Math.abs(one.width - cell.width) < 5 &&
			Math.abs(one.top + one.height - cell.top) < 3
	);
}

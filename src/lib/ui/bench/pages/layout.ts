import type { Paper } from '../../../core/packet';
import { shownSize, type PageSize } from '../../../core/page';

export interface Sheet {
	key: string;
	paper: Paper;
	number: number;
	page: PageSize;
	/** CSS pixels */
	width: number;
	height: number;
}

export interface Layout {
	sheets: Sheet[];
	/** where each sheet begins, CSS pixels from the top; rising */
	tops: number[];
	width: number;
	height: number;
}

/** Where every page stands when all are laid one under the other. `scale`: CSS pixels a point. */
export function sheetLayout(papers: Paper[], scale: number, gap: number): Layout {
	const sheets: Sheet[] = [];
	const tops: number[] = [];
	let y = gap;
	let widest = 0;
	for (const paper of papers) {
		paper.pages.forEach((page, number) => {
			const size = shownSize(page);
			const sheet = {
				key: `${paper.id}-${number}`,
				paper,
				number,
				page,
				width: size.width * scale,
				height: size.height * scale
			};
			sheets.push(sheet);
			tops.push(y);
			y += sheet.height + gap;
			widest = Math.max(widest, sheet.width);
		});
	}
	return { sheets, tops, width: widest, height: y };
}

/** The first and the last sheet that is in the view or within half a view of it; `to` is -1 where there is none. */
export function visibleSheets({ sheets, tops }: Layout, top: number, height: number): { from: number; to: number } {
	const near = height / 2;
	// tops rise, so the first that reaches into the view is found by halving
	let low = 0;
	let high = sheets.length;
	while (low < high) {
		const middle = (low + high) >> 1;
		if (tops[middle]! + sheets[middle]!.height < top - near) low = middle + 1;
		else high = middle;
	}
	let to = low - 1;
	while (to + 1 < sheets.length && tops[to + 1]! <= top + height + near) to += 1;
	return { from: low, to };
}

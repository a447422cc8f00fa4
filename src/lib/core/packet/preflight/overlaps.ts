import { fromShown, keepOnPage, toShown, type Rect } from '../../page';
import { ASKED, type Field, type Plan } from '../plan';
import { called, cure, pageOf, type Fault } from './finding';

/** Kinds that may lie over others: a stamp under a signature, a line through words. */
const LOOSE = ['strike', 'image', 'note'];

/** Pairs of fields that cover each other by more than a tenth of the smaller. Page by page, from left to right. */
export function overlaps(plan: Plan): [Field, Field][] {
	const pages = new Map<string, Field[]>();
	for (const field of plan.fields) {
		if (LOOSE.includes(field.kind) || field.paper === ASKED) continue;
		const page = `${field.paper} ${field.page}`;
		pages.set(page, [...(pages.get(page) ?? []), field]);
	}
	const found: [Field, Field][] = [];
	for (const fields of pages.values()) {
		const sorted = [...fields].sort((a, b) => a.rect.x - b.rect.x);
		sorted.forEach((a, i) => {
			for (let j = i + 1; j < sorted.length && sorted[j]!.rect.x < a.rect.x + a.rect.width; j++) {
				const b = sorted[j]!;
				// two that appear by rules may be each other's alternative
				if (a.showWhen && b.showWhen) continue;
				if (covered(a.rect, b.rect) > 0.1) found.push([b, a]);
			}
		});
	}
	return found;
}

function covered(a: Rect, b: Rect): number {
	const width = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
	const height = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
	return width <= 0 || height <= 0 ? 0 : (width * height) / Math.min(a.width * a.height, b.width * b.height);
}

export function overlapFault(plan: Plan, field: Field, under: Field): Fault {
	const page = pageOf(plan, field);
	return {
		code: 'fields-overlap',
		mild: true,
		say: `${called(field)} lies over ${called(under)} on page ${field.page + 1}.`,
		...(page && {
			cure: cure('Move it below', [field.id], (f) => {
				const shown = toShown(page, f.rect);
				const above = toShown(page, under.rect);
				return { ...f, rect: fromShown(page, keepOnPage(page, { ...shown, top: above.top + above.height + 2 })) };
			})
		})
	};
}

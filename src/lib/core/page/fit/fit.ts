import type { Rect, ShownRect } from '../geometry';
import type { Doubt, Fitted, Fitting, ToFit, Version } from './fitted';
import { Fitter } from './fitter';
import type { Stream } from './stream';

export { versionOf, type Doubt, type Fitted, type Fitting, type ToFit, type Version } from './fitted';

/** How much each doubt takes from the certainty. */
const WEIGHT: Record<Doubt, number> = {
	gone: 1,
	count: 0.4,
	landmarks: 0.35,
	head: 0.5,
	'no blank': 0.4,
	'two blanks': 0.4,
	context: 0.3,
	far: 0.5,
	'no words': 0.5,
	edge: 0.5,
	'over another': 0.5,
	pages: 0.3
};

/** Lays fields over another version of their document. Nothing is placed without its doubts being named. */
export function fit(old: Version, next: Version, fields: readonly ToFit[]): Fitting {
	const fitter = new Fitter(old, next);
	const fitted = fields.map((field) => fitter.place(field));
	overlapping(fields, fitted);
	const { added, gone } = fitter.versions.differing();
	return {
		fields: fitted.map((one) => ({ ...one, sure: one.doubts.reduce((sure, d) => sure * (1 - WEIGHT[d]), 1) })),
		alike: fitter.versions.alike,
		added: added.map((i) => whereIs(fitter.versions.next, i)),
		gone: gone.map((i) => whereIs(fitter.versions.old, i))
	};
}

function whereIs(stream: Stream, i: number): { page: number; rect: ShownRect } {
	const { page, word } = stream.tokens[i]!;
	return { page, rect: { left: word.left, top: word.top, width: word.width, height: word.height } };
}

/** Fields that lie over each other now and did not before: one of them is wrong. */
function overlapping(fields: readonly ToFit[], fitted: Fitted[]): void {
	const byPage = new Map<number, number[]>();
	fitted.forEach((one, i) => {
		if (one.place) byPage.set(one.place.page, [...(byPage.get(one.place.page) ?? []), i]);
	});
	for (const here of byPage.values())
		for (const [n, i] of here.entries())
			for (const j of here.slice(n + 1)) {
				if (!over(fitted[i]!.place!.rect, fitted[j]!.place!.rect)) continue;
				if (fields[i]!.page === fields[j]!.page && over(fields[i]!.rect, fields[j]!.rect)) continue;
				for (const k of [i, j]) if (!fitted[k]!.doubts.includes('over another')) fitted[k]!.doubts.push('over another');
			}
}

/** More than a touch. */
function over(a: Rect, b: Rect): boolean {
	const across = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
	const down = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
	return across > 2 && down > 2;
}

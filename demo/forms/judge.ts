import { findPlaces, type FoundPlace } from '../../src/lib/core/page';
import { isRefusal } from '../../src/lib/core/refusal';
import { takeIn } from '../../src/lib/press/take-in';
import type { MadeForm, Truth } from './index';

export interface Judged {
	name: string;
	tuned: boolean;
	places: number;
	/** places found where one is, and those of them with the right kind */
	right: number;
	kinds: number;
	/** offered where there is none */
	false: FoundPlace[];
	missed: Truth[];
	wrongKind: [Truth, FoundPlace][];
}

/** Finds the places of a made form and compares them with what it was made with. */
export async function judge(form: MadeForm): Promise<Judged> {
	const { bytes, truth } = await form.make();
	const taken = await takeIn(bytes);
	if (isRefusal(taken)) throw new Error(taken.say);
	const found = findPlaces(taken, taken.pages);
	const open = new Set(found);
	const missed: Truth[] = [];
	const wrongKind: [Truth, FoundPlace][] = [];
	for (const place of truth) {
		const match = [...open]
			.map((one) => ({ one, share: one.page === place.page ? overlap(place, one.rect) : 0 }))
			.sort((a, b) => b.share - a.share)[0];
		if (!match || match.share < 0.5) missed.push(place);
		else {
			open.delete(match.one);
			if (match.one.kind !== place.kind) wrongKind.push([place, match.one]);
		}
	}
	const right = truth.length - missed.length;
	return {
		name: form.name,
		tuned: form.tuned,
		places: truth.length,
		right,
		kinds: right - wrongKind.length,
		false: [...open],
		missed,
		wrongKind
	};
}

interface Box {
	left: number;
	top: number;
	width: number;
	height: number;
}

/** How much of the smaller of two boxes lies in the other. */
function overlap(a: Box, b: Box): number {
	const width = Math.min(a.left + a.width, b.left + b.width) - Math.max(a.left, b.left);
	const height = Math.min(a.top + a.height, b.top + b.height) - Math.max(a.top, b.top);
	return width <= 0 || height <= 0 ? 0 : (width * height) / Math.min(a.width * a.height, b.width * b.height);
}

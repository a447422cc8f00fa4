import { plainKey } from '../../field/key';
import type { ShownPage } from '../shown-page';
import { tidyLabel } from './meaning';
import type { FoundPlace } from './places';

/** Squares that belong together get one key: those of one row, or of rows right under each other at the same edge. */
export function grouped(places: FoundPlace[], page: ShownPage): FoundPlace[] {
	const squares = places.filter((p) => p.kind === 'ticks' || p.kind === 'pick-one');
	const groups: FoundPlace[][] = [];
	for (const one of squares) {
		const group = groups.find((g) =>
			g.some((o) => {
				const sameRow = Math.abs(o.rect.top - one.rect.top) < 5 && Math.abs(o.rect.left - one.rect.left) < 330;
				const under = Math.abs(o.rect.left - one.rect.left) < 4 && Math.abs(o.rect.top - one.rect.top) < 24;
				return sameRow || under;
			})
		);
		if (group) group.push(one);
		else groups.push([one]);
	}
	const changed = new Map<FoundPlace, FoundPlace>();
	for (const group of groups) {
		const question = questionText(group, page);
		const either = group.length > 1 && (group.some((p) => p.kind === 'pick-one') || isEither(group, question));
		for (const place of group) {
			const value = plainKey(place.label) || `option_${group.indexOf(place) + 1}`;
			changed.set(place, {
				...place,
				kind: either ? 'pick-one' : 'ticks',
				label: group.length > 1 ? question || place.label : place.label,
				key: plainKey(group.length > 1 ? question || group[0]!.label : place.label),
				required: either,
				settings: { value, text: place.label }
			});
		}
	}
	return places.map((place) => changed.get(place) ?? place);
}

/** Answers that shut each other out: yes and no, or a question that says so. */
function isEither(group: FoundPlace[], question: string): boolean {
	const labels = group.map((p) => p.label.toLowerCase());
	if (labels.some((l) => /^(yes|ja|oui)\b/.test(l)) && labels.some((l) => /^(no|nein|non)\b/.test(l))) return true;
	return /\b(one of|either|choose one|which)\b/i.test(question);
}

/** What a group is about: the words left of its first square, else the row right above it. */
function questionText(group: FoundPlace[], page: ShownPage): string {
	const first = group.reduce((a, b) => (b.rect.top < a.rect.top - 3 || b.rect.left < a.rect.left ? b : a));
	const row = page.rows.find((r) => r.top < first.rect.top + first.rect.height && r.top + r.height > first.rect.top);
	const left = row?.words.filter((w) => w.left + w.width <= first.rect.left + 1) ?? [];
	if (left.length > 0) return tidyLabel(left.map((w) => w.text).join(' '));
	const top = Math.min(...group.map((p) => p.rect.top));
	const above = page.rows
		.filter((r) => r.base < top + 2 && r.base > top - 26 && r.left < first.rect.left + 40)
		.sort((a, b) => b.base - a.base)[0];
	return above ? tidyLabel(above.words.map((w) => w.text).join(' ')) : '';
}

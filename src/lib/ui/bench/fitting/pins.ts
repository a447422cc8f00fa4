import { cutText } from '../../../core/clean-text';
import type { Field } from '../../../core/packet';
import {
	landmarksOf,
	meets,
	phraseIn,
	type PhrasePlace,
	type Pin,
	type ShownPage,
	type ShownRect
} from '../../../core/page';
import type { Bench } from '../bench.svelte';
import { shownAt } from '../../../core/plan';

/** How many landmarks are shown of those that are used. */
const SHOWN = 4;

/** The words inside a band, in reading order, as a phrase. */
export function wordsIn(page: ShownPage, band: ShownRect): string {
	const words = page.rows.flatMap((row) => row.words.filter((word) => meets(band, word)));
	return cutText(words.map((word) => word.text).join(' '), 200);
}

/** The words that tie a field to its page by themselves, the best first; none where there is no text. */
export function landmarkWords(bench: Bench, field: Field): { text: string; rect: ShownRect }[] {
	const paper = bench.plan.papers.find((p) => p.id === field.paper);
	// a page's words are enough, and a long document takes a moment to be read as one text
	const text = paper && bench.readings.pageText(paper, field.page);
	if (!text) return [];
	return landmarksOf(text, 0, shownAt(bench.plan, field))
		.slice(0, SHOWN)
		.map(({ token }) => {
			const { word } = text.tokens[token]!;
			return { text: word.text, rect: word };
		});
}

/** Every place of a phrase in the document of a field. */
export function phrasePlaces(bench: Bench, field: Field, phrase: string): PhrasePlace[] {
	const paper = bench.plan.papers.find((p) => p.id === field.paper);
	const text = paper && bench.readings.text(paper);
	return text ? phraseIn(text, phrase) : [];
}

/** Which place of a phrase is meant for a field: the one that is nearest to it, counted from 1; 0 where there is none. */
export function nearestPlace(bench: Bench, field: Field, places: PhrasePlace[]): number {
	const at = shownAt(bench.plan, field);
	const far = (place: PhrasePlace) =>
		Math.abs(place.page - field.page) * 10_000 +
		Math.abs(place.rect.top - at.top) +
		Math.abs(place.rect.left - at.left) / 4;
	const best = places.reduce((near, one, i) => (near < 0 || far(one) < far(places[near]!) ? i : near), -1);
	return best + 1;
}

/** Fields pinned in one step: each to the place of the phrase that is nearest to it, to the page, or to the words around. */
export function pinned(bench: Bench, ids: string[], pin: 'words' | 'page' | { phrase: string }): Field[] {
	return bench.plan.fields.map((field) => {
		if (!ids.includes(field.id)) return field;
		const { pin: _was, ...rest } = field;
		if (pin === 'words') return rest;
		if (pin === 'page') return { ...rest, pin: { by: 'page' } satisfies Pin };
		const nth = nearestPlace(bench, field, phrasePlaces(bench, field, pin.phrase));
		return nth === 0 ? field : { ...rest, pin: { by: 'phrase', text: pin.phrase, nth } satisfies Pin };
	});
}

/** The words by which the chosen fields are pinned, by page. */
export function landmarksShown(bench: Bench): Record<string, ShownRect[]> {
	const shown: Record<string, ShownRect[]> = {};
	for (const field of bench.plan.fields.filter((f) => bench.fieldIds.includes(f.id))) {
		const { pin } = field;
		if (pin?.by === 'page') continue;
		const place = pin ? phrasePlaces(bench, field, pin.text)[pin.nth - 1] : undefined;
		const [page, rects] = place
			? [place.page, [place.rect]]
			: [field.page, pin ? [] : landmarkWords(bench, field).map((w) => w.rect)];
		(shown[`${field.paper}-${page}`] ??= []).push(...rects);
	}
	return shown;
}

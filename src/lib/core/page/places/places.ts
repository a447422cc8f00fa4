import { plainKey } from '../../field/key';
import type { Field, KindName } from '../../packet/plan';
import { meets } from '../arrange';
import { toShown, type PageSize, type ShownRect } from '../geometry';
import type { PaperReading } from '../printed';
import { shownPage, type ShownPage } from '../shown-page';
import { blanksOf, type Blank } from './blanks';
import { grouped } from './groups';
import { labelOf } from './labels';
import { meaningOf, tidyLabel } from './meaning';

/** A place on a page where somebody is meant to write, as it was found. Nothing is placed until it is taken. */
export interface FoundPlace {
	page: number;
	/** as shown, points */
	rect: ShownRect;
	kind: KindName;
	label: string;
	/** '' where the label gives none */
	key: string;
	required: boolean;
	settings: Field['settings'];
	/** words near it that may tell whose it is: its label, its block's heading */
	near: string;
}

/** All places of one page, from the top and from the left. `number` from 0. */
export function findPlaces(reading: PaperReading, number: number, page: PageSize): FoundPlace[] {
	const shown = shownPage(reading, number, page);
	const fromForm = reading.widgets
		.filter((w) => w.page === number && !w.filled)
		.map((w): FoundPlace => {
			const label = tidyLabel(w.label) || w.name;
			const guess = w.kind === 'text' && Object.keys(w.settings).length === 0 ? meaningOf(label) : null;
			return {
				page: number,
				rect: toShown(page, w),
				kind: guess?.kind ?? w.kind,
				label,
				key: plainKey(w.kind === 'pick-one' || w.kind === 'ticks' ? w.name : w.name || label),
				required: w.required,
				settings: guess?.settings ?? w.settings,
				near: label
			};
		});
	const blanks = blanksOf(shown).filter((blank) => !fromForm.some((place) => meets(place.rect, blank)));
	const found = grouped(
		blanks.map((blank) => placeOf(shown, number, blank, blanks)).filter((place) => place !== null),
		shown
	);
	return [...fromForm, ...dated(found)].sort((a, b) => a.rect.top - b.rect.top || a.rect.left - b.rect.left);
}

function placeOf(page: ShownPage, number: number, blank: Blank, all: Blank[]): FoundPlace | null {
	const { label: raw, near } = labelOf(page, blank, all);
	const label = tidyLabel(raw);
	const square = blank.by === 'square' || blank.by === 'ring';
	// a line without any word about it is a line, not a question
	if (label === '' && blank.by === 'rule') return null;
	const meaning = square
		? { kind: blank.by === 'ring' ? ('pick-one' as const) : ('ticks' as const), settings: {} }
		: blank.by === 'letters'
			? { kind: 'text' as const, settings: { boxes: blank.boxes! } }
			: meaningOf(label);
	const settings: Field['settings'] = { ...meaning.settings };
	if (meaning.kind === 'text' && blank.height > 34) settings['several'] = true;
	return {
		page: number,
		rect: sized(blank, meaning.kind),
		kind: meaning.kind,
		label: label || (square ? 'Tick' : 'Text'),
		key: plainKey(label),
		required: !square,
		settings,
		near
	};
}

/** A signature wants more height than a line of text, where the page leaves it. */
function sized(blank: Blank, kind: KindName): ShownRect {
	const { left, top, width, height } = blank;
	if ((kind === 'signature' || kind === 'initials') && (blank.by === 'rule' || blank.by === 'run')) {
		const tall = kind === 'signature' ? 30 : 22;
		return { left, top: top + height - tall, width, height: tall };
	}
	return { left, top, width, height };
}

/** A date beside or under a signature is the day of signing. */
function dated(places: FoundPlace[]): FoundPlace[] {
	const signatures = places.filter((p) => p.kind === 'signature');
	return places.map((place) => {
		if (place.kind !== 'date' || !/^(date|dated|datum|date signed|signed on|le)$/i.test(place.label)) return place;
		const close = signatures.some((s) => {
			const gap = place.rect.top - s.rect.top;
			const aside = Math.max(
				s.rect.left - place.rect.left - place.rect.width,
				place.rect.left - s.rect.left - s.rect.width
			);
			return gap > -70 && gap < 90 && aside < 220;
		});
		return close ? { ...place, kind: 'signing-date', settings: {} } : place;
	});
}

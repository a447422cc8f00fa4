import { plainKey } from '../../field/key';
import type { Field, KindName } from '../../packet/plan';
import { meets } from '../arrange';
import { shownSize, toShown, type PageSize, type ShownRect } from '../geometry';
import type { PaperReading } from '../printed';
import { shownPage, type ShownPage } from '../shown-page';
import { folded } from '../../folded';
import { blanksOf, type Blank, type Blanks } from './blanks';
import { grouped } from './groups';
import { labelOf } from './labels';
import { meaningOf, tidyLabel } from './meaning';
import { segmentsOf, type Segment } from './segments';
import { partyNamed, whoseOf, type Whose } from './whose';

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
	whose: Whose;
}

/** All places of a document, page by page. What stands at the same place of every page is a head or a foot, not a place. */
export function findPlaces(reading: PaperReading, pages: PageSize[]): FoundPlace[] {
	const found = pages.flatMap((page, number) => placesOn(reading, number, page));
	if (pages.length < RUNNING) return found;
	const same = (a: FoundPlace, b: FoundPlace) =>
		a.label === b.label && Math.abs(a.rect.left - b.rect.left) < 3 && Math.abs(a.rect.top - b.rect.top) < 3;
	return found.filter((place) => {
		const height = shownSize(pages[place.page]!).height;
		const edge = place.rect.top < 0.09 * height || place.rect.top + place.rect.height > 0.92 * height;
		if (!edge || WANTED_RUNNING.includes(place.kind)) return true;
		return new Set(found.filter((one) => same(one, place)).map((one) => one.page)).size < RUNNING;
	});
}

/** On so many pages alike, a head or a foot runs through. Initials are asked for there on purpose. */
const RUNNING = 3;
const WANTED_RUNNING = ['initials', 'signature'];

/** All places of one page, from the top and from the left. `number` from 0. */
export function placesOn(reading: PaperReading, number: number, page: PageSize): FoundPlace[] {
	const shown = shownPage(reading, number, page);
	const segments = segmentsOf(shown);
	const fromForm = reading.widgets
		.filter((w) => w.page === number && !w.filled)
		.map((w): FoundPlace => {
			const label = tidyLabel(w.label) || w.name;
			const guess = w.kind === 'text' && Object.keys(w.settings).length === 0 ? meaningOf(label) : null;
			const kind = guess?.kind ?? w.kind;
			const rect = toShown(page, w);
			return {
				page: number,
				rect,
				kind,
				label,
				key: plainKey(w.kind === 'pick-one' || w.kind === 'ticks' ? w.name : w.name || label),
				required: w.required,
				settings: guess?.settings ?? w.settings,
				whose: whoseOf(rect, label, kind, segments, shown.width)
			};
		});
	const read = blanksOf(shown, segments);
	const blanks = read.blanks.filter((blank) => !fromForm.some((place) => meets(place.rect, blank)));
	const found = grouped(
		blanks
			.map((blank) => placeOf(shown, number, blank, { ...read, blanks }, segments))
			.filter((place) => place !== null),
		shown
	);
	return [...fromForm, ...dated(found)].sort((a, b) => a.rect.top - b.rect.top || a.rect.left - b.rect.left);
}

function placeOf(page: ShownPage, number: number, blank: Blank, read: Blanks, segments: Segment[]): FoundPlace | null {
	const label = tidyLabel(labelOf(page, blank, read, segments));
	const square = blank.by === 'square' || blank.by === 'ring';
	const bare = label === '' && blank.by === 'rule';
	const heading = bare ? headingOf(blank, segments, page.width) : '';
	// a line without any word about it is a line, not a question; under "Signed for the …" it is where they sign
	if (bare && heading === '') return null;
	const meaning = bare
		? { kind: 'signature' as const, settings: {} }
		: square
			? { kind: blank.by === 'ring' ? ('pick-one' as const) : ('ticks' as const), settings: {} }
			: blank.by === 'letters'
				? { kind: 'text' as const, settings: { ...checkOnly(label), boxes: blank.boxes! } }
				: isFirma(label, page)
					? { kind: 'signature' as const, settings: {} }
					: meaningOf(label);
	const settings: Field['settings'] = { ...meaning.settings };
	if (meaning.kind === 'text' && blank.height > 34) settings['several'] = true;
	const said = meaning.kind === 'signature' && (bare || SIGNING_HEAD.test(folded(label))) ? 'Signature' : label;
	return {
		page: number,
		rect: sized(blank, meaning.kind),
		kind: meaning.kind,
		label: said || (square ? 'Tick' : 'Text'),
		key: plainKey(said),
		required: !square,
		settings,
		whose: whoseOf(blank, label, meaning.kind, segments, page.width)
	};
}

/** "Firma" is a company in German and Polish, but a signature in Italian and Spanish: the words of the page tell which. */
function isFirma(label: string, page: ShownPage): boolean {
	if (!/^firma$/i.test(label)) return false;
	const romance = page.words.filter((w) =>
		/^(il|lo|la|el|los|las|del|della|di|de|che|que|y|per|por)$/i.test(w.text)
	).length;
	const others = page.words.filter((w) => /^(der|die|das|und|oder|des|für|i|oraz|w|na)$/i.test(w.text)).length;
	return romance > others;
}

/** "Signed for the Landlord", "For and on behalf of …": the head of a block in which somebody signs. */
const SIGNING_HEAD =
	/^(signed|executed|agreed|accepted|acknowledged|witnessed|for and on behalf|on behalf of|for the|unterzeichnet|pour l|lu et approuve)\b.*\s/;

/** The head of a signature block right above a bare line; '' where there is none. */
function headingOf(blank: Blank, segments: Segment[], width: number): string {
	const near = segments
		.filter(
			(s) =>
				s.base < blank.top + blank.height - 4 &&
				s.base > blank.top - 40 &&
				s.left < blank.left + blank.width &&
				s.left + s.width > blank.left - 30 &&
				s.width < 0.6 * width
		)
		.sort((a, b) => b.base - a.base)[0];
	return near && (SIGNING_HEAD.test(folded(near.text)) || (near.words.length <= 4 && partyNamed(near.text) !== ''))
		? near.text
		: '';
}

/** A check for letters in boxes: of an IBAN or a postcode the pattern, never another kind. */
function checkOnly(label: string): Record<string, string | number | boolean> {
	const { kind, settings } = meaningOf(label);
	return kind === 'text' ? settings : {};
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
		if (place.kind !== 'date' || !/^(date|dated|datum|date signed|signed on|le|data|dato|fecha)$/i.test(place.label))
			return place;
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

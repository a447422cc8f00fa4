import { distance } from 'fastest-levenshtein';
import { folded } from '../../folded';
import { KEY_PATTERN } from '../../schema';
import { KIND_NAMES, SENDER, EVERYBODY, type KindName, type Plan } from '../../packet/plan';
import type { ShownRect } from '../geometry';
import type { ShownPage, TextRow } from '../shown-page';

/** A marker as it stands in a document: `::role.kind::` or `::role.kind.key::`. */
export interface Marker {
	page: number;
	/** round the marker's own letters, as shown: what is painted over */
	rect: ShownRect;
	text: string;
	role: string;
	kind: string;
	key: string;
}

/** What a marker says, where it can be understood. */
export type Meant = { person: string; kind: KindName; key: string } | { unknown: string; nearest: string | null };

const MARKER = /::\s*([^:.]{1,80}?)\s*\.\s*([^:.]{1,40}?)\s*(?:\.\s*([^:.]{1,60}?)\s*)?::/gu;

/** The markers of a page. One may run over several words of a line. */
export function markersOn(page: ShownPage, number: number): Marker[] {
	return page.rows.flatMap((row) => {
		const { text, left } = spelled(row);
		return [...text.matchAll(MARKER)].map((found): Marker => {
			const from = left(found.index);
			const to = left(found.index + found[0].length);
			return {
				page: number,
				rect: { left: from - 1, top: row.top - 1, width: to - from + 2, height: row.height + 2 },
				text: found[0],
				role: found[1]!,
				kind: found[2]!,
				key: found[3] ?? ''
			};
		});
	});
}

/** Whose and what a marker is in this plan; where it can't be told, what is not known and what comes nearest. */
export function meaningOfMarker(plan: Plan, marker: Marker): Meant {
	const kind = KIND_NAMES.find((one) => named(one) === named(marker.kind));
	if (!kind) return { unknown: `a kind “${marker.kind}”`, nearest: nearestOf(marker.kind, [...KIND_NAMES]) };
	const people = [
		...plan.people.flatMap((p) => [p.role, p.name].filter((n): n is string => !!n).map((name) => ({ id: p.id, name }))),
		{ id: SENDER, name: SENDER },
		{ id: EVERYBODY, name: EVERYBODY }
	];
	const person = people.find((p) => named(p.name) === named(marker.role));
	if (!person)
		return {
			unknown: `a role “${marker.role}”`,
			nearest: nearestOf(
				marker.role,
				people.map((p) => p.name)
			)
		};
	if (marker.key !== '' && !new RegExp(KEY_PATTERN).test(marker.key))
		return { unknown: `a key “${marker.key}”`, nearest: null };
	return { person: person.id, kind, key: marker.key };
}

/** A name as markers are compared: blanks, hyphens and underscores are one. */
function named(text: string): string {
	return folded(text)
		.replace(/[\s_-]+/g, ' ')
		.trim();
}

/** The name with the fewest letters to change, where that is at most half of them. */
function nearestOf(name: string, all: string[]): string | null {
	const ranked = all.map((one) => ({ one, far: distance(named(name), named(one)) })).sort((a, b) => a.far - b.far)[0];
	return ranked && ranked.far <= Math.max(2, name.length / 2) ? ranked.one : null;
}

/** A row's text, and where each letter of it stands, a word's letters being taken as equally wide. */
function spelled(row: TextRow): { text: string; left: (at: number) => number } {
	let text = '';
	const starts = row.words.map((word) => {
		if (text !== '') text += ' ';
		const start = text.length;
		text += word.text;
		return { start, word };
	});
	const left = (at: number) => {
		const { start, word } = starts.findLast((one) => one.start <= at) ?? starts[0]!;
		return word.left + (word.width * Math.min(at - start, word.text.length)) / Math.max(1, word.text.length);
	};
	return { text, left };
}

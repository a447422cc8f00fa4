import { readFileSync } from 'node:fs';
import path from 'node:path';
import { folded } from '../../../src/lib/core/folded';
import { findPlaces, ownerAmong, type FoundPlace } from '../../../src/lib/core/page';
import { isRefusal } from '../../../src/lib/core/refusal';
import { takeIn } from '../../../src/lib/press/take-in';
import type { OtherForm } from './forms';
import type { Truth } from './make';

export interface JudgedOther {
	name: string;
	producer: string;
	tuned: boolean;
	places: number;
	found: number;
	/** offered where there is nothing to fill in */
	false: FoundPlace[];
	/** of those found: with the right kind, the right label, and for whom the form says, where it says so */
	kind: number;
	label: number;
	whose: number;
	told: number;
	faults: string[];
}

const slug = (name: string) => name.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-');
/**
 * How far from a place its blank's middle may be, in points: a word in a blank shifts what comes after it on its line, and
 * moves a block by the height of a letter.
 */
const NEAR = 5;
const NEAR_TICK = 24;
const OFF = 16;

/** Finds the places of a form that another program has set, and compares them with where its blanks are. */
export async function judgeOther(form: OtherForm): Promise<JudgedOther> {
	const file = path.join(import.meta.dirname, slug(form.name));
	const taken = await takeIn(new Uint8Array(readFileSync(`${file}.pdf`)));
	if (isRefusal(taken)) throw new Error(taken.say);
	const truth = JSON.parse(readFileSync(`${file}.json`, 'utf8')) as Truth[];
	const open = new Set(findPlaces(taken, taken.pages));
	const parties = form.parties.map((role) => ({ id: role, role, names: [] }));
	const judged: JudgedOther = {
		name: form.name,
		producer: form.producer,
		tuned: form.tuned,
		places: truth.length,
		found: 0,
		false: [],
		kind: 0,
		label: 0,
		whose: 0,
		told: 0,
		faults: []
	};
	for (const one of truth) {
		const match = [...open]
			.filter((place) => place.page === one.page && holds(place, one) && above(place, one) < OFF)
			.sort((a, b) => above(a, one) + aside(a, one) - above(b, one) - aside(b, one))[0];
		if (!match) {
			judged.faults.push(`missed ${one.kind} “${one.label}” at ${Math.round(one.x)}, ${Math.round(one.y)}`);
			continue;
		}
		open.delete(match);
		judged.found += 1;
		if (match.kind === one.kind) judged.kind += 1;
		else judged.faults.push(`${one.kind} “${one.label}” is ${match.kind} “${match.label}”`);
		if (sameLabel(match.label, one.label)) judged.label += 1;
		else judged.faults.push(`“${one.label}” is called “${match.label}”`);
		if (one.whose === undefined) continue;
		judged.told += 1;
		const owner = ownerAmong(match.whose, parties);
		if (owner === one.whose) judged.whose += 1;
		else judged.faults.push(`“${one.label}” of ${one.whose} is ${owner}’s (${match.whose.phrases.join(' / ')})`);
	}
	judged.false = [...open];
	for (const place of open)
		judged.faults.push(
			`false ${place.kind} “${place.label}” at ${Math.round(place.rect.left)}, ${Math.round(place.rect.top)}`
		);
	return judged;
}

/** How far a blank's middle is from where somebody would write in a place: just above its foot. */
function above({ rect }: FoundPlace, { y }: Truth): number {
	return Math.abs(rect.top + rect.height - Math.min(7, rect.height / 2) - y);
}

/** How far a blank's middle lies outside a place, from left to right. */
function aside({ rect }: FoundPlace, { x }: Truth): number {
	return Math.max(0, rect.left - x, x - rect.left - rect.width);
}

function holds(place: FoundPlace, truth: Truth): boolean {
	const { rect } = place;
	const tick = ['ticks', 'pick-one'].includes(truth.kind);
	return (
		aside(place, truth) < (tick ? NEAR_TICK : NEAR) &&
		(!tick || ['ticks', 'pick-one'].includes(place.kind)) &&
		truth.y > rect.top - OFF &&
		truth.y < rect.top + rect.height + OFF
	);
}

function sameLabel(found: string, truth: string): boolean {
	const plain = (text: string) =>
		folded(text)
			.replace(/[^\p{L}\p{N}]+/gu, ' ')
			.trim();
	const [a, b] = [plain(found), plain(truth)];
	return (
		a === b ||
		(a.length > 2 && b.includes(a) && a.length >= 0.5 * b.length) ||
		(b.length > 2 && a.includes(b) && b.length >= 0.5 * a.length)
	);
}

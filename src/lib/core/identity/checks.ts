import type { DocumentKind, IdentityAsked, Side } from './asked';
import { nameAgainst } from './names';
import type { Measures, PictureFault } from './picture';
import { readZone, type Zone, type ZoneFault } from './zone';

/**
 * What the ID desk looks at, one after the other. Each check's outcome and its measure are kept: they are what a person judges by
 * when the desk can't.
 */
export const CHECKS = [
	'pictures',
	'zone',
	'digits',
	'kind',
	'country',
	'expiry',
	'name',
	'birth',
	'sides',
	'face',
	'forgery'
] as const;
export type CheckName = (typeof CHECKS)[number];

export type CheckOutcome = 'right' | 'wrong' | 'unsure' | 'again' | 'not looked at';

/** What came of a check: all that a packet's record has of it, which everybody gets. */
export interface CheckFound {
	check: CheckName;
	outcome: CheckOutcome;
}

export interface Check extends CheckFound {
	/** what was measured, in few words */
	measure: string;
}

/** again: nothing was shown surely enough to be judged, and no try is counted. */
export type Verdict = 'right' | 'wrong' | 'unsure' | 'again';

/** What was read of one picture. */
export interface SideRead {
	side: Side;
	measures: Measures;
	faults: PictureFault[];
	/** the lines of a zone, where one was found */
	zone: string[] | null;
	/** the line with the name was read alike at least twice: no check digit guards it */
	nameSure: boolean;
	/** other words on it, as they were read */
	words: string[];
}

export interface Judged {
	verdict: Verdict;
	checks: Check[];
	/** what the zone says, as far as it may be kept with the pictures */
	zone: Zone | null;
}

/** Whose document it should be, and what is asked of it. */
export interface Wanted {
	asked: NonNullable<IdentityAsked['document']>;
	kind: DocumentKind;
	name: string;
	/** ISO 8601, where the packet knows it */
	born: string | null;
	/** ISO 8601 */
	today: string;
	/** letters that may be off in one part of a name */
	lettersOff: number;
}

/** Judges what was read. Pure: pictures come in as what was measured of them. */
export function judge(sides: readonly SideRead[], wanted: Wanted): Judged {
	const checks: Check[] = [];
	const say = (check: CheckName, outcome: CheckOutcome, measure: string) => checks.push({ check, outcome, measure });

	const bad = sides.flatMap(({ side, faults }) => faults.map((fault) => `${side}: ${fault}`));
	say('pictures', bad.length > 0 ? 'again' : 'right', bad.join(', ') || sides.map(measured).join('; '));

	const zoned = sides.filter((one) => one.side !== 'holder' && one.zone !== null);
	// where two are found, the one that holds
	const zone = zoned
		.map((one) => readZone(one.zone!, wanted.today))
		.toSorted((a, b) => (a?.faults.length ?? 9) - (b?.faults.length ?? 9))[0];
	if (!zone) {
		// a driving licence has none in most countries, and can't be read here
		const none = wanted.kind === 'driving licence';
		say('zone', none ? 'unsure' : 'again', 'no machine-readable zone was found');
	} else {
		say('zone', 'right', `${zone.format}, ${zone.lines.length} lines`);
		const sure = zoned.some((one) => one.nameSure && one.zone!.join() === zone.lines.join());
		ofZone(zone, sure, wanted, say);
	}
	say('sides', ...sameOnBoth(sides, zone ?? null, wanted));
	say('face', wanted.asked.holder ? 'unsure' : 'not looked at', 'the ID desk compares no faces');
	say('forgery', 'not looked at', 'the ID desk tells no forged picture');
	return { verdict: verdictOf(checks), checks, zone: zone ?? null };
}

type Say = (check: CheckName, outcome: CheckOutcome, measure: string) => void;

function ofZone(zone: Zone, nameSure: boolean, wanted: Wanted, say: Say): void {
	const { asked, today } = wanted;
	say('digits', zone.faults.length > 0 ? 'again' : 'right', zone.faults.map(faultText).join(', ') || 'all hold');
	say('kind', asked.kinds.includes(zone.kind) ? 'right' : 'wrong', zone.kind);
	const permitted = asked.countries.length === 0 || asked.countries.includes(zone.issuer);
	say('country', permitted ? 'right' : 'wrong', zone.issuer);
	if (zone.expires === null) say('expiry', 'unsure', 'no day can be read');
	else say('expiry', zone.expires < today ? 'wrong' : 'right', zone.expires);
	const found = nameAgainst(wanted.name, zone, wanted.lettersOff);
	if (found.is === 'same') say('name', 'right', 'the same');
	else if (found.is === 'near') say('name', 'right', `${found.letters} off`);
	else if (found.is === 'other') say('name', nameSure ? 'wrong' : 'again', 'another name');
	else say('name', 'unsure', 'a script that zones have no letters for');
	if (wanted.born === null) say('birth', 'not looked at', 'no date of birth to compare with');
	else if (zone.born === null) say('birth', 'unsure', 'no day can be read');
	else say('birth', zone.born === wanted.born ? 'right' : 'wrong', zone.born);
}

/** What stands on the side without the zone is told by the zone, too: its number, or else its names. */
function sameOnBoth(sides: readonly SideRead[], zone: Zone | null, { asked, kind }: Wanted): [CheckOutcome, string] {
	const others = sides.filter((one) => one.side !== 'holder' && one.zone === null);
	if (!asked.bothSides || kind === 'passport') return ['not looked at', 'one side is asked for'];
	if (!zone || others.length === 0) return ['unsure', 'there is nothing to compare'];
	const words = new Set(
		others.flatMap((one) => one.words.map((word) => word.toUpperCase().replaceAll(/[^A-Z0-9]/g, '')))
	);
	const wanted = [zone.number, ...zone.surname.split(' '), ...zone.given.split(' ')].filter((part) => part.length > 1);
	const there = wanted.filter((part) => words.has(part));
	const measure = `${there.length} of ${wanted.length} stand on both`;
	return [there.includes(zone.number) || there.length * 2 >= wanted.length ? 'right' : 'unsure', measure];
}

/** wrong before unsure before again: what surely speaks against somebody is not put down to a bad picture. */
function verdictOf(checks: readonly Check[]): Verdict {
	const has = (outcome: CheckOutcome) => checks.some((one) => one.outcome === outcome);
	if (has('again')) return 'again';
	return has('wrong') ? 'wrong' : has('unsure') ? 'unsure' : 'right';
}

const faultText = ({ field, is }: ZoneFault): string => `${field} (${is === 'digit' ? 'check digit' : 'letters'})`;
const measured = ({ side, measures: m }: SideRead): string =>
	`${side}: ${m.width}×${m.height}, light ${m.light}, sharp ${m.sharp}`;

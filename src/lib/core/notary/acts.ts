import type { ActKind } from './asked';

/** Kinds of act, and what each needs: the one place that says so. */

/** What each person who comes before the notary has to go through, in this order. */
export const STEPS = ['confirmed', 'sworn', 'signed', 'approved'] as const;
export type Step = (typeof STEPS)[number];

export interface Act {
	/** what it is for, to whoever chooses it */
	about: string;
	/** how many people have to come before the notary at least */
	people: 0 | 1;
	/** the words of an oath are read and agreed to */
	oath: boolean;
	/** the signature is made before the notary's eyes; otherwise it may have been made earlier */
	watched: boolean;
}

export const ACTS: Readonly<Record<ActKind, Act>> = {
	acknowledgement: {
		about: 'they say that the signature is theirs, and given freely; it may have been made before',
		people: 1,
		oath: false,
		watched: false
	},
	'sworn statement': {
		about: 'they swear that what stands in it is true, and sign',
		people: 1,
		oath: true,
		watched: true
	},
	'witnessed signature': { about: 'the notary sees them sign', people: 1, oath: false, watched: true },
	'certified copy': {
		about: 'the notary holds the copy against the original; nobody needs to sign',
		people: 0,
		oath: false,
		watched: false
	}
};

/** What somebody before the notary goes through for this act. */
export function stepsOf(kind: ActKind): Step[] {
	return STEPS.filter((step) => step !== 'sworn' || ACTS[kind].oath);
}

/** The words that are read to whoever swears, and agreed to. */
export const OATH =
	'I solemnly and sincerely declare that what I sign here is true to the best of my knowledge and belief, and I make this declaration knowing that it is an offence to declare what I know to be false.';

/** Kinds of fields that a notary may still place in a session. */
export const PLACEABLE = ['signature', 'initials', 'signing-date', 'name', 'text'] as const;
export type PlacedKind = (typeof PLACEABLE)[number];

/** Somebody before the notary, and how the notary knows them. */
export interface Before {
	name: string;
	/** such as `showed an identity document` */
	how: string;
}

export interface ActFacts {
	act: ActKind;
	people: readonly Before[];
	notary: { name: string; number: string; jurisdiction: string; until: string };
	venue: string;
	/** the day in words */
	day: string;
	title: string;
	pages: number;
}

/** The act's text as the notary may put it, to be changed before it is placed: venue, day, who, how they were known, the commission. */
export function actText(facts: ActFacts): string {
	const name = facts.act[0]!.toUpperCase() + facts.act.slice(1);
	return `${name}\n\n${body(facts)}\n\n${facts.notary.name}, notary, ${facts.notary.jurisdiction}. Commission ${facts.notary.number}, ends ${facts.notary.until}.`;
}

function body({ act, people, venue, day, title, pages }: ActFacts): string {
	const who = people.map(({ name, how }) => `${name} (${how})`).join(' and ');
	const there = `At ${venue} on ${day}`;
	switch (act) {
		case 'acknowledgement':
			return `${there}, ${who} came before me and acknowledged the signature on this document to be their own, made freely.`;
		case 'sworn statement':
			return `${there}, ${who} came before me, took the oath, declared what stands in this document to be true, and signed it in my presence.`;
		case 'witnessed signature':
			return `${there}, ${who} came before me and signed this document in my presence.`;
		case 'certified copy':
			return `${there}, I held “${title}”, ${pages === 1 ? 'one page' : `${pages} pages`}, against the original, and certify that it is a true and complete copy.`;
	}
}

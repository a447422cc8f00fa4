import { amendmentFaults } from '../../amend/words';
import { fieldsOf, kindOf, type FieldContext } from '../../field';
import { refuse, type Refusal } from '../../refusal';
import { actorsOf } from '../../route';
import { strangeValues } from '../../template/values';
import { isAddress } from '../address';
import type { Plan } from '../plan';
import { isMailed } from '../reach';
import { checkFields } from './fields';
import type { Finding } from './finding';
import { checkNotary } from './notary';
import { checkRoute, isKnownBefore, whoIs } from './route';

export { isKnownBefore, type Finding };

/**
 * All that is wrong with a plan, what stands in the way of sending first; it can go when only mild ones are left.
 * @param sender what is known of whoever sends it, which fills in their own fields
 * @param unlike pages (from 0) of a document, by its digest, that look different from their file and nobody has accepted
 */
export function preflight(
	plan: Plan,
	sender: FieldContext['person'] = { name: '', email: '' },
	unlike: (digest: string) => number[] = () => []
): Finding[] {
	const found = [
		...checkWhole(plan),
		...checkLooks(plan, unlike),
		...checkPeople(plan),
		...checkSideBySide(plan),
		...checkRoute(plan),
		...checkNotary(plan),
		...amendmentFaults(plan).map((fault): Finding => ({ ...fault, place: { what: 'papers' } })),
		...checkLetters(plan),
		...checkFields(plan, sender)
	];
	return [...found.filter((f) => !f.mild), ...found.filter((f) => f.mild)];
}

/** The first thing that stands in the way of sending, as a refusal; null where nothing does. */
export function graveFault(plan: Plan, sender?: FieldContext['person']): Refusal | null {
	return asRefusal(preflight(plan, sender).find((finding) => !finding.mild));
}

/** The first value in a letter that is nothing in the packet, as a refusal. */
export const lettersFault = (plan: Plan): Refusal | null => asRefusal(checkLetters(plan)[0]);

const asRefusal = (first: Finding | undefined): Refusal | null =>
	first ? refuse(first.code, first.say, 'id' in first.place ? first.place.id : first.place.what) : null;

/** What a template leaves open on purpose, for whoever uses it. */
const LEFT_OPEN = [
	'no-name',
	'bad-address',
	'bad-phone',
	'no-code',
	'no-known-answer',
	'no-commission',
	'sender-answer-missing'
];

/** The same for a template: its roles need no people yet, but a name, and the sender's answers may wait. */
export function preflightTemplate(plan: Plan, unlike?: (digest: string) => number[]): Finding[] {
	const nameless = plan.people.flatMap((person): Finding[] =>
		(person.role ?? '').trim() === '' && (person.name.trim() === '' || (isMailed(person) && !isAddress(person.email)))
			? [
					{
						code: 'no-role',
						say: 'Somebody on the route has neither a role nor a name with an address.',
						place: { what: 'person', id: person.id }
					}
				]
			: []
	);
	const taken = new Set<string>();
	const doubled = plan.people.flatMap((person): Finding[] => {
		const role = (person.role ?? '').trim().toLowerCase();
		if (role === '') return [];
		if (!taken.has(role)) {
			taken.add(role);
			return [];
		}
		return [
			{ code: 'role-twice', say: `Two roles are called “${person.role}”.`, place: { what: 'person', id: person.id } }
		];
	});
	const left = preflight(plan, undefined, unlike).filter(
		(f) => !LEFT_OPEN.includes(f.code) || (f.code === 'bad-address' && hasWrongAddress(plan, f))
	);
	return [...nameless, ...doubled, ...left];
}

function hasWrongAddress(plan: Plan, finding: Finding): boolean {
	return (
		'id' in finding.place &&
		plan.people.some((p) => 'id' in finding.place && p.id === finding.place.id && p.email !== '')
	);
}

/** Letters that name values which this plan has not. */
function checkLetters(plan: Plan): Finding[] {
	const letters = [
		{ text: `${plan.subject ?? ''} ${plan.message}`, place: { what: 'message' } as const },
		...plan.people.map((p) => ({
			text: `${p.subject ?? ''} ${p.message ?? ''}`,
			place: { what: 'person', id: p.id } as const
		}))
	];
	return letters.flatMap(({ text, place }) =>
		strangeValues(text, plan).map((name): Finding => ({
			code: 'value-unknown',
			say: `A letter names {${name}}, which is nothing in this packet.`,
			place
		}))
	);
}

function checkWhole(plan: Plan): Finding[] {
	const found: Finding[] = [];
	if (plan.title.trim() === '')
		found.push({ code: 'no-title', say: 'Give the packet a title.', place: { what: 'title' } });
	if (plan.papers.length === 0) found.push({ code: 'no-papers', say: 'Add a document.', place: { what: 'papers' } });
	for (const { name, shaded = [] } of plan.papers)
		for (const text of shaded)
			found.push({
				code: 'still-to-write',
				say: `“${text}” is marked yellow in “${name}”: still to write?`,
				place: { what: 'papers' },
				mild: true
			});
	if (actorsOf(plan).length === 0)
		found.push({ code: 'no-signer', say: 'Add somebody who signs.', place: { what: 'people' } });
	return found;
}

function checkLooks(plan: Plan, unlike: (digest: string) => number[]): Finding[] {
	return plan.papers.flatMap(({ name, digest }) =>
		unlike(digest).map((page): Finding => ({
			code: 'looks-different',
			say: `Page ${page + 1} of “${name}” looks different from your file. Look at it.`,
			place: { what: 'papers' }
		}))
	);
}

function checkPeople(plan: Plan): Finding[] {
	return plan.people.flatMap((person): Finding[] => {
		const place = { what: 'person', id: person.id } as const;
		const who = whoIs(person);
		const found: Finding[] = [];
		const own = fieldsOf(plan, person.id);
		const later = person.namedBy !== undefined && person.name === '' && person.email === '';
		if (!later && person.name.trim() === '') found.push({ code: 'no-name', say: `${who} has no name yet.`, place });
		if (!later && (person.email !== '' || isMailed(person)) && !isAddress(person.email))
			found.push({
				code: 'bad-address',
				say:
					person.email === '' ? `${who} has no e-mail address yet.` : `“${person.email}” can't be an e-mail address.`,
				place
			});
		if (plan.stops.filter((stop) => stop.people.includes(person.id)).length !== 1)
			found.push({ code: 'not-on-route', say: `${who} must stand at exactly one stop.`, place });
		if (person.duty === 'signs' && !own.some((field) => kindOf(field.kind).signs))
			found.push({ code: 'nothing-to-sign', say: `${who} signs, but has no signature to give.`, place });
		if (person.duty === 'fills in' && own.length === 0)
			found.push({ code: 'nothing-to-fill', say: `${who} fills in, but has no field.`, place });
		if (person.duty === 'gets a copy' && own.length > 0)
			found.push({
				code: 'copy-with-fields',
				say: `${who} only gets a copy, but has fields.`,
				place,
				cure: {
					say: 'Let them fill in',
					plan: (p) => ({
						...p,
						people: p.people.map((one) => (one.id === person.id ? { ...one, duty: 'fills in' } : one))
					})
				}
			});
		return found;
	});
}

function checkSideBySide(plan: Plan): Finding[] {
	return plan.stops.flatMap((stop): Finding[] => {
		const seen = new Set<string>();
		return stop.people.flatMap((id): Finding[] => {
			const person = plan.people.find((p) => p.id === id);
			if (!person)
				return [
					{ code: 'unknown-person', say: 'The route names somebody who is not there.', place: { what: 'people' } }
				];
			const address = person.email.trim().toLowerCase();
			if (address !== '' && seen.has(address))
				return [
					{
						code: 'twice-at-stop',
						say: `${person.email} stands twice at stop ${plan.stops.indexOf(stop) + 1}.`,
						place: { what: 'person', id }
					}
				];
			seen.add(address);
			return [];
		});
	});
}

import { sameJson as same } from '../../audit';
import { EVERYBODY, personIn, SENDER, type Field, type Plan, type PlanPerson } from '../plan';

/** One difference that a correction made, as the record keeps it. Names and labels are those of that moment. */
export type PlanChange =
	| { what: 'person added' | 'person removed'; name: string }
	| { what: 'person changed'; name: string; parts: string[] }
	/** `name`: whose fields they are */
	| { what: 'fields added' | 'fields changed' | 'fields removed'; name: string; labels: string[] }
	| { what: 'documents'; names: string[] }
	| { what: 'route' | 'letters' | 'sending' | 'answers' }
	| { what: 'title'; was: string; now: string };

/** How many labels are named of one kind of change; the plans themselves keep all. */
const MOST_LABELS = 20;

/** All that differs between two plans of one packet, but for addresses and numbers, which are events of their own. */
export function changesOf(was: Plan, now: Plan): PlanChange[] {
	return [
		...(was.title === now.title ? [] : [{ what: 'title', was: was.title, now: now.title } as const]),
		...(same(documents(was), documents(now))
			? []
			: [{ what: 'documents', names: [...now.papers, ...now.attachments].map((one) => one.name) } as const]),
		...peopleChanges(was, now),
		...(same(route(was, now), route(now, was)) ? [] : [{ what: 'route' } as const]),
		...fieldChanges(was, now),
		...(same(was.answers ?? {}, now.answers ?? {}) ? [] : [{ what: 'answers' } as const]),
		...(same(letters(was), letters(now)) ? [] : [{ what: 'letters' } as const]),
		...(same(sending(was), sending(now)) ? [] : [{ what: 'sending' } as const])
	];
}

const documents = (plan: Plan) => [
	plan.papers.map(({ digest, name, pages }) => [digest, name, pages]),
	plan.attachments.map(({ digest, name }) => [digest, name])
];
const letters = (plan: Plan) => [plan.subject ?? '', plan.message];
const sending = (plan: Plan) => [plan.days, plan.locale ?? '', plan.sending ?? {}];

/** The order of those who are in both plans, with the rules and groups of their stops. */
function route(of: Plan, other: Plan) {
	return of.stops
		.map(({ people, when = '', anyOne = false }) => ({
			people: people.filter((id) => personIn(other, id)),
			when,
			anyOne
		}))
		.filter((stop) => stop.people.length > 0);
}

/** What may change of a person, in the words the record has for it. */
const PARTS: [string, (person: PlanPerson) => unknown][] = [
	['name', (p) => p.name],
	['duty', (p) => p.duty],
	['organisation and job title', (p) => [p.organisation ?? '', p.jobTitle ?? '']],
	['how they are reached', (p) => [p.deliver ?? 'mail', p.hostedBy ?? '']],
	['how they show who they are', (p) => [p.check ?? null, p.identity ?? null]],
	['the notary and the act', (p) => p.notary ?? null],
	['whether they may sign on paper', (p) => p.ink === true],
	['language', (p) => p.locale ?? ''],
	['letter', (p) => [p.subject ?? '', p.message ?? '', p.note ?? '']],
	['who names them', (p) => p.namedBy ?? '']
];

function peopleChanges(was: Plan, now: Plan): PlanChange[] {
	const called = (p: PlanPerson) => p.name || p.role || 'somebody';
	return [
		...now.people.filter((p) => !personIn(was, p.id)).map((p) => ({ what: 'person added', name: called(p) }) as const),
		...was.people
			.filter((p) => !personIn(now, p.id))
			.map((p) => ({ what: 'person removed', name: called(p) }) as const),
		...now.people.flatMap((person): PlanChange[] => {
			const before = personIn(was, person.id);
			if (!before) return [];
			const parts = PARTS.filter(([, of]) => !same(of(before), of(person))).map(([name]) => name);
			return parts.length === 0 ? [] : [{ what: 'person changed', name: called(before), parts }];
		})
	];
}

function fieldChanges(was: Plan, now: Plan): PlanChange[] {
	const [before, after] = [byId(was.fields), byId(now.fields)];
	const added = now.fields.filter((f) => !before.has(f.id));
	const removed = was.fields.filter((f) => !after.has(f.id));
	const changed = now.fields.filter((f) => before.has(f.id) && !same(before.get(f.id), f));
	return [
		...grouped('fields added', added, now),
		...grouped('fields changed', changed, now),
		...grouped('fields removed', removed, was)
	];
}

function grouped(
	what: 'fields added' | 'fields changed' | 'fields removed',
	fields: Field[],
	plan: Plan
): PlanChange[] {
	return [...new Set(fields.map((f) => f.person))].map((owner) => ({
		what,
		name: owner === SENDER ? 'the sender' : owner === EVERYBODY ? 'all' : personIn(plan, owner ?? '')?.name || 'nobody',
		labels: fields
			.filter((f) => f.person === owner)
			.slice(0, MOST_LABELS)
			.map((f) => f.label || f.kind)
	}));
}

function byId(fields: Field[]): Map<string, Field> {
	return new Map(fields.map((field) => [field.id, field]));
}

/** What somebody who had opened it finds different. */
export type SeenPart = 'documents' | 'yours' | 'others' | 'title';

/** Whether what a person saw of one plan is the same in another; which parts are not. */
export function seenChanges(was: Plan, now: Plan, person: string): SeenPart[] {
	const own = (plan: Plan) => [personIn(plan, person)?.duty, plan.fields.filter((f) => f.person === person)];
	const shared = (plan: Plan) => [
		plan.fields.filter((f) => f.person === SENDER || f.person === EVERYBODY),
		plan.answers ?? {}
	];
	const parts: [SeenPart, boolean][] = [
		['documents', same(documents(was), documents(now))],
		['yours', same(own(was), own(now))],
		['others', same(shared(was), shared(now))],
		['title', was.title === now.title]
	];
	return parts.filter(([, unchanged]) => !unchanged).map(([part]) => part);
}

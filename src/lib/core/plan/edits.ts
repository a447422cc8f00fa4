import type { Paper, Plan, PlanPerson, Sending, Stop } from '../packet';
import { offRoute } from '../route';

/** Edits of people and papers, each a function from plan to plan: the Bench's history keeps what they return. */

/** A short random id, new in this plan. */
export function freshId(prefix: string): string {
	const bytes = crypto.getRandomValues(new Uint8Array(9));
	return (
		prefix +
		btoa(String.fromCharCode(...bytes))
			.replaceAll('+', '-')
			.replaceAll('/', '_')
	);
}

/** A plan or a person with this subject; an empty one is none. */
export function withSubject<T extends { subject?: string }>(of: T, subject: string): T {
	const { subject: _was, ...rest } = of;
	return (subject === '' ? rest : { ...rest, subject }) as T;
}

export function addPerson(plan: Plan): { plan: Plan; person: string } {
	const id = freshId('p');
	const person: PlanPerson = { id, name: '', email: '', duty: 'signs' };
	return {
		plan: { ...plan, people: [...plan.people, person], stops: [...plan.stops, { id: freshId('s'), people: [id] }] },
		person: id
	};
}

/** Somebody more for each part that a document names, one after the other; who they are is still to be said. */
export function withRoles(plan: Plan, roles: string[]): Plan {
	return roles.reduce((now, role) => {
		const { plan: next, person } = addPerson(now);
		return changePerson(next, person, { role });
	}, plan);
}

/** What is to be different; what is undefined is taken away. */
export type Change<T> = { [K in keyof T]?: T[K] | undefined };

/** The same with some parts changed; those that are undefined or '' are not there any more. */
function changed<T extends object>(of: T, change: Change<T>, keep: readonly string[] = []): T {
	return Object.fromEntries(
		Object.entries({ ...of, ...change }).filter(
			([key, value]) => value !== undefined && (value !== '' || keep.includes(key))
		)
	) as T;
}

/** Changes somebody in a named step; `burst` joins it to the step before. */
export type SetPerson = (name: string, change: Change<PlanPerson>, burst?: boolean) => void;

export function changePerson(plan: Plan, id: string, change: Change<PlanPerson>): Plan {
	return {
		...plan,
		people: plan.people.map((p) => (p.id === id ? changed(p, change, ['name', 'email']) : p))
	};
}

/** The same is asked of others, of whom they are, but for the answers that are one person's. */
export function askAlike(plan: Plan, from: string, others: readonly string[]): Plan {
	const asked = plan.people.find((p) => p.id === from)?.identity;
	const questions = asked?.questions && {
		...asked.questions,
		asks: asked.questions.asks.map((ask) => ({ ...ask, hash: '' }))
	};
	const identity = asked && { ...asked, ...(questions && { questions }) };
	return others.reduce((now, id) => changePerson(now, id, { identity }), plan);
}

export function changeStop(plan: Plan, id: string, change: Change<Stop>): Plan {
	return { ...plan, stops: plan.stops.map((stop) => (stop.id === id ? changed(stop, change) : stop)) };
}

/** Settings of the sending; one that is undefined or '' is none. */
export function changeSending(plan: Plan, change: Change<Sending>): Plan {
	return { ...plan, sending: changed(plan.sending ?? {}, change) };
}

/** The one who prepares it takes part as well, at a stop of their own after the others. */
export function addMyself(
	plan: Plan,
	me: { name: string; email: string; organisation?: string }
): { plan: Plan; person: string } {
	const added = addPerson(plan);
	const { name, email, organisation } = me;
	return { ...added, plan: changePerson(added.plan, added.person, { name, email, organisation }) };
}

/** Takes a person off the route; their fields stay and belong to nobody, which preflight says. */
export function removePerson(plan: Plan, id: string): Plan {
	return {
		...offRoute(plan, id),
		fields: plan.fields.map((f) => (f.person === id ? { ...f, person: null } : f))
	};
}

export function addPapers(plan: Plan, papers: Omit<Paper, 'id'>[]): Plan {
	const added = papers.map((paper) => ({ ...paper, id: freshId('d') }));
	return { ...plan, title: plan.title || (added[0]?.name ?? ''), papers: [...plan.papers, ...added] };
}

/** A file that goes along unchanged. */
export function attach(plan: Plan, file: { name: string; digest: string }): Plan {
	const known = plan.attachments.some((a) => a.digest === file.digest);
	return known ? plan : { ...plan, attachments: [...plan.attachments, { ...file, id: freshId('a') }] };
}

export function detach(plan: Plan, id: string): Plan {
	return { ...plan, attachments: plan.attachments.filter((a) => a.id !== id) };
}

/** A document put before the one that is `to` now; a place that is none leaves it where it is. */
export function movePaperTo(plan: Plan, id: string, to: number): Plan {
	const paper = plan.papers.find((p) => p.id === id);
	if (!paper || to < 0 || to >= plan.papers.length) return plan;
	const rest = plan.papers.filter((p) => p.id !== id);
	return { ...plan, papers: [...rest.slice(0, to), paper, ...rest.slice(to)] };
}

export function removePaper(plan: Plan, id: string): Plan {
	return { ...plan, papers: plan.papers.filter((p) => p.id !== id), fields: plan.fields.filter((f) => f.paper !== id) };
}

import type { Paper, Plan, PlanPerson } from '../../core/packet';

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

export function changePerson(plan: Plan, id: string, change: Partial<PlanPerson>): Plan {
	return { ...plan, people: plan.people.map((p) => (p.id === id ? { ...p, ...change } : p)) };
}

/** Takes a person off the route; their fields stay and belong to nobody, which preflight says. */
export function removePerson(plan: Plan, id: string): Plan {
	return {
		...plan,
		people: plan.people.filter((p) => p.id !== id),
		stops: plan.stops
			.map((s) => ({ ...s, people: s.people.filter((p) => p !== id) }))
			.filter((s) => s.people.length > 0),
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

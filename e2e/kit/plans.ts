import type { Duty, Field, Plan } from '../../src/lib/core/packet';

/** Plans for tests: `engagement()` is example 1 of the worked routes. */
export function field(id: string, kind: Field['kind'], person: string | null, more: Partial<Field> = {}): Field {
	return {
		id,
		kind,
		person,
		paper: 'paper',
		page: 0,
		rect: { x: 50, y: 50 + id.length * 30, width: 150, height: 24 },
		label: id,
		key: '',
		required: true,
		settings: {},
		...more
	};
}

/** A plan whose stops are lists of `id:duty`; everybody who signs has a signature called `id-sig`. */
export function plan(stops: string[][], more: Partial<Plan> = {}): Plan {
	const people = stops.flat().map((entry) => {
		const [id, duty = 'signs'] = entry.split(':') as [string, Duty?];
		return { id, name: id[0]!.toUpperCase() + id.slice(1), email: `${id}@post.example`, duty: duty as Duty };
	});
	return {
		title: 'Test',
		message: '',
		days: 10,
		papers: [{ id: 'paper', name: 'Paper', digest: 'a'.repeat(64), pages: [{ width: 595, height: 842, rotate: 0 }] }],
		attachments: [],
		people,
		stops: stops.map((stop, i) => ({ id: `s${i}`, people: stop.map((entry) => entry.split(':')[0]!) })),
		fields: people.filter((p) => p.duty === 'signs').map((p) => field(`${p.id}-sig`, 'signature', p.id)),
		...more
	};
}

export const engagement = () => plan([['ingrid:approves'], ['maren'], ['tamsin'], ['ruben:gets a copy']]);

export const typed = (text: string) => ({ way: 'typed' as const, text, hand: 'caveat' as const });

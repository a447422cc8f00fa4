import type { Static } from '@sinclair/typebox';
import { isoDay } from '../../core/calendar';
import { folded } from '../../core/folded';
import type { Plan } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { judged, targetsOf, type Mapping, type Target } from '../../core/sheet';
import { roleName, type Given } from '../../core/template';
import type { Account } from '../accounts';
import type { House } from '../house';
import { organisation } from '../settings';
import { planForUse } from '../templates';
import type { FromTemplate, Someone } from './shapes';

/** The parts of somebody, as the API and as sheets call them. */
const PARTS = [
	['name', 'name'],
	['email', 'email'],
	['phone', 'phone'],
	['note', 'note'],
	['language', 'locale'],
	['delivery', 'deliver']
] as const satisfies [keyof Static<typeof Someone>, string][];

interface Cell {
	target: Target;
	text: string;
	/** where in the body it stood */
	at: string;
}

/**
 * What is given for a template by the names of roles and keys, judged as a row of a sheet is. Refuses `no-role`, `role-fixed`,
 * `no-field`, and with the sentence of a faulty cell `not-ready`.
 */
export function givenFor(house: House, account: Account, wanted: Static<typeof FromTemplate>): Given | Refusal {
	const found = planForUse(house, account, wanted.template);
	if (isRefusal(found)) return found;
	const cells = cellsOf(found.plan, wanted);
	if (isRefusal(cells)) return cells;
	const mapping: Mapping = Object.fromEntries(cells.map(({ target }, i) => [target.id, { columns: [i], sure: true }]));
	const sheet = {
		columns: cells.map(({ at }) => at),
		rows: [cells.map(({ text }) => text)],
		heads: 1,
		lines: [2],
		places: cells.map((_, i) => i)
	};
	const today = isoDay(organisation(house.db).zone, house.now().toISOString());
	const [verdict] = judged(
		found.plan,
		sheet,
		{ mapping, values: {}, filter: '', without: [], chosen: [] },
		{ own: account.email, today, gone: new Map() }
	);
	if (verdict?.is !== 'ready')
		return verdict?.is === 'faulty'
			? refuse('not-ready', verdict.say, verdict.column === null ? undefined : cells[verdict.column]?.at)
			: refuse('not-ready', 'This can’t be sent as it is.');
	return {
		...verdict.given,
		...(wanted.subject !== undefined && { subject: wanted.subject }),
		...(wanted.message !== undefined && { message: wanted.message })
	};
}

function cellsOf(plan: Plan, wanted: Static<typeof FromTemplate>): Cell[] | Refusal {
	const targets = targetsOf(plan);
	const cells: Cell[] = [];
	for (const [role, someone] of Object.entries(wanted.people ?? {})) {
		const person = plan.people.find((one) => folded(roleName(one)) === folded(role));
		const roles = plan.people.map((one) => `“${roleName(one)}”`).join(', ');
		if (!person)
			return refuse('no-role', `The template has no role called “${role}”; it has ${roles}.`, `people.${role}`);
		for (const [part, its] of PARTS) {
			const text = someone[part];
			if (text === undefined) continue;
			const target = targets.find((one) => one.id === `${person.id}.${its}`);
			if (!target) return refuse('role-fixed', `Who “${role}” is stands in the template.`, `people.${role}`);
			cells.push({ target, text, at: `people.${role}.${part}` });
		}
	}
	for (const [key, answer] of Object.entries(wanted.answers ?? {})) {
		const target = targets.find((one) => one.what === 'answer' && one.words.includes(key));
		if (!target)
			return refuse('no-field', `The template asks the sender for no answer called “${key}”.`, `answers.${key}`);
		cells.push({ target, text: String(answer), at: `answers.${key}` });
	}
	for (const what of ['title', 'days'] as const) {
		const target = targets.find((one) => one.what === what);
		if (wanted[what] !== undefined && target) cells.push({ target, text: String(wanted[what]), at: what });
	}
	return cells;
}

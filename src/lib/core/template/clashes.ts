import type { Field, Plan, PlanPerson } from '../packet/plan';
import { acts, stopOf } from '../route';
import { questionOfKey, keysOfPlan } from '../field';
import { canonicalJson } from '../audit';
import { groupId, stopName, type Joining, type Member, type Opening, type Part } from './joining';
import { roleName } from './use';

/** A way to settle what two plans disagree about. */
export interface Way {
	say: string;
	/** of a key: that the answers are told apart */
	apart?: boolean;
	change: (joining: Joining) => Joining;
}

/** Something two plans disagree about. `open`: nothing is joined before it is settled. */
export interface Clash {
	id: string;
	say: string;
	open: boolean;
	ways: Way[];
}

/** All that the plans disagree about, as the joining stands. */
export function clashesOf(parts: Part[], joining: Joining): Clash[] {
	return [
		...orderClashes(parts, joining),
		...personClashes(parts, joining),
		...keyClashes(parts, joining),
		...dayClash(parts, joining),
		...sendingClash(parts, joining),
		...stopClashes(parts, joining)
	];
}

export function personOf(parts: Part[], member: Member): PlanPerson {
	return parts[member.part]!.plan.people.find((p) => p.id === member.person)!;
}

export function nameOf(parts: Part[], joining: Joining, group: string): string {
	const members = joining.people.find((g) => g.id === group)?.members ?? [];
	return members.map((m) => roleName(personOf(parts, m))).find((name) => name !== 'Somebody') ?? 'Somebody';
}

/** Orders of the parts that the joined route does not keep. */
function orderClashes(parts: Part[], joining: Joining): Clash[] {
	const at = (group: string) => joining.stops.findIndex((stop) => stop.includes(group));
	const clashes: Clash[] = [];
	for (const before of joining.people)
		for (const after of joining.people) {
			const wanting = parts.filter((_, n) => comesBefore(parts, n, before.members, after.members));
			if (wanting.length === 0 || at(before.id) < at(after.id)) continue;
			const id = `order ${before.id} ${after.id}`;
			const [first, second] = [nameOf(parts, joining, before.id), nameOf(parts, joining, after.id)];
			clashes.push({
				id,
				say: `In “${wanting[0]!.title}” ${first} comes before ${second}; here not.`,
				open: !joining.accepted.includes(id),
				ways: [
					{ say: `${first} first`, change: (j) => movedBefore(j, before.id, after.id) },
					{ say: 'Leave it so', change: (j) => ({ ...j, accepted: [...j.accepted, id] }) }
				]
			});
		}
	return clashes;
}

function comesBefore(parts: Part[], part: number, before: Member[], after: Member[]): boolean {
	const stop = (members: Member[]) => {
		const member = members.find((m) => m.part === part);
		if (!member || !acts(personOf(parts, member).duty)) return -1;
		return stopOf(parts[part]!.plan, member.person);
	};
	const [a, b] = [stop(before), stop(after)];
	return a >= 0 && b >= 0 && a < b;
}

/** The group at a stop of its own right before the other's. */
function movedBefore(joining: Joining, group: string, other: string): Joining {
	const without = joining.stops.map((stop) => stop.filter((one) => one !== group));
	const at = without.findIndex((stop) => stop.includes(other));
	return {
		...joining,
		stops: [...without.slice(0, at), [group], ...without.slice(at)].filter((stop) => stop.length > 0)
	};
}

/** People taken as one whose names, addresses or duties differ. */
function personClashes(parts: Part[], joining: Joining): Clash[] {
	return joining.people.flatMap((group): Clash[] => {
		const people = group.members.map((m) => personOf(parts, m));
		const who = nameOf(parts, joining, group.id);
		const addresses = [...new Set(people.map((p) => p.email.trim().toLowerCase()).filter(Boolean))];
		const duties = [...new Set(people.map((p) => p.duty))];
		const clashes: Clash[] = [];
		if (addresses.length > 1)
			clashes.push({
				id: `address ${group.id}`,
				say: `${who} has two addresses: ${addresses.join(' and ')}.`,
				open: group.taken === undefined,
				ways: [
					...people
						.filter((p) => p.email !== '')
						.map((p): Way => ({
							say: `Take ${p.name || p.email}`,
							change: (j) => inGroup(j, group.id, { taken: people.indexOf(p) })
						})),
					{ say: 'They are two people', change: (j) => parted(j, group.id) }
				]
			});
		const fixed = people.find((p) => p.email !== '');
		if (fixed && addresses.length === 1 && people.some((p) => p.email === ''))
			clashes.push({
				id: `fixed ${group.id}`,
				say: `${who} is ${fixed.name} in one and open in the other: ${fixed.name} holds for both.`,
				open: false,
				ways: [{ say: 'They are two people', change: (j) => parted(j, group.id) }]
			});
		if (duties.length > 1)
			clashes.push({
				id: `duty ${group.id}`,
				say: `${who} ${duties.join(' in one, ')} in the other.`,
				open: group.duty === undefined,
				ways: duties.map((duty): Way => ({ say: `${who} ${duty}`, change: (j) => inGroup(j, group.id, { duty }) }))
			});
		const checks = new Map(people.map((p) => [p.check?.by ?? '', p.check ?? null]));
		if (checks.size > 1)
			clashes.push({
				id: `check ${group.id}`,
				say: `${who} proves who they are ${[...checks.keys()].map(proofSay).join(' in one, ')} in the other.`,
				open: group.check === undefined,
				ways: [...checks].map(([by, check]): Way => ({
					say: by === '' ? 'No proof' : `Proof ${proofSay(by)}`,
					change: (j) => inGroup(j, group.id, { check })
				}))
			});
		return clashes;
	});
}

function proofSay(by: string): string {
	return by === '' ? 'not at all' : by === 'code' ? 'by an access code' : `by a code by ${by}`;
}

/** How the parts want a joined stop to open: one for each part that has somebody there, alike ones once. */
export function openingsOf(parts: Part[], joining: Joining, stop: readonly string[]): (Opening & { part: number })[] {
	const found: (Opening & { part: number })[] = [];
	for (const { part, person } of joining.people.filter((g) => stop.includes(g.id)).flatMap((g) => g.members)) {
		const { plan } = parts[part]!;
		const { when = '', anyOne = false } = plan.stops[stopOf(plan, person)] ?? {};
		if (!found.some((one) => one.when === when && one.anyOne === anyOne)) found.push({ part, when, anyOne });
	}
	return found;
}

/** Stops whose people are to act by different rules. */
function stopClashes(parts: Part[], joining: Joining): Clash[] {
	return joining.stops.flatMap((stop): Clash[] => {
		const wanted = openingsOf(parts, joining, stop);
		if (wanted.length < 2) return [];
		const name = stopName(stop);
		const say = ({ when, anyOne }: Opening) =>
			`${when === '' ? 'opens always' : `opens when ${when}`}${anyOne ? ', any one is enough' : ''}`;
		return [
			{
				id: `opens ${name}`,
				say: `The stop of ${stop.map((id) => nameOf(parts, joining, id)).join(' and ')} ${wanted.map(say).join(' in one, ')} in the other.`,
				open: joining.opens?.[name] === undefined,
				ways: wanted.map(({ when, anyOne }): Way => ({
					say: `It ${say({ when, anyOne })}`,
					change: (j) => ({ ...j, opens: { ...j.opens, [name]: { when, anyOne } } })
				}))
			}
		];
	});
}

/** Reminders, hand-over and the like, where more than one part says something about them. */
function sendingClash(parts: Part[], joining: Joining): Clash[] {
	const saying = parts.flatMap(({ title, plan }, part) => (plan.sending ? [{ title, part, plan }] : []));
	if (new Set(saying.map(({ plan }) => canonicalJson(plan.sending!))).size < 2) return [];
	const holds = saying.find((one) => one.part === joining.sending) ?? saying[0]!;
	return [
		{
			id: 'sending',
			say: `Reminders, hand-over and the like differ: those of “${holds.title}” hold.`,
			open: false,
			ways: saying.map(({ title, part }): Way => ({
				say: `Those of “${title}”`,
				change: (j) => ({ ...j, sending: part })
			}))
		}
	];
}

export function inGroup(joining: Joining, id: string, change: Partial<Joining['people'][number]>): Joining {
	return { ...joining, people: joining.people.map((g) => (g.id === id ? { ...g, ...change } : g)) };
}

/** Everybody of a group but the first stands alone from now on, side by side with it. */
export function parted(joining: Joining, id: string): Joining {
	const group = joining.people.find((g) => g.id === id)!;
	const alone = group.members.slice(1).map((member) => ({ id: groupId(member), members: [member] }));
	return {
		...joining,
		people: joining.people.flatMap((g) =>
			g.id === id ? [{ id: g.id, members: g.members.slice(0, 1) }, ...alone] : [g]
		),
		stops: joining.stops.map((stop) => (stop.includes(id) ? [...stop, ...alone.map((g) => g.id)] : stop))
	};
}

/** What twins must share, so that one answer is good for all. */
function asked(field: Field): string {
	return canonicalJson([field.kind, field.settings]);
}

/** Keys that stand in several parts: alike they are one answer, unlike they must be told apart. */
function keyClashes(parts: Part[], joining: Joining): Clash[] {
	const holders = new Map<string, { part: number; field: Field }[]>();
	parts.forEach(({ plan }, part) => {
		for (const key of keysOfPlan(plan)) {
			const field = questionOfKey(plan.fields, key)![0]!;
			holders.set(key, [...(holders.get(key) ?? []), { part, field }]);
		}
	});
	return [...holders].flatMap(([key, held]): Clash[] => {
		if (held.length < 2) return [];
		const differ = held.some((h) => asked(h.field) !== asked(held[0]!.field));
		const chosen = joining.keys[key];
		const apart: Way = {
			apart: true,
			say: 'Two answers',
			change: (j) => ({ ...j, keys: { ...j.keys, [key]: 'apart' } })
		};
		const one: Way = {
			apart: false,
			say: 'One answer for both',
			change: (j) => ({ ...j, keys: { ...j.keys, [key]: 'one' } })
		};
		return [
			{
				id: `key ${key}`,
				say: differ
					? `“${key}” means different things: “${held[0]!.field.label}” and “${held[1]!.field.label}”.`
					: `“${key}” is asked in both: “${held[0]!.field.label}”.`,
				open: differ && chosen === undefined,
				ways: differ ? [apart] : [one, apart]
			}
		];
	});
}

function dayClash(parts: Part[], joining: Joining): Clash[] {
	const days = [...new Set(parts.map((p) => p.plan.days))];
	if (days.length < 2) return [];
	const say = (d: Plan['days']) => (d === null ? 'No end' : `${d} days`);
	return [
		{
			id: 'days',
			say: `The time to complete differs: ${days.map(say).join(', ')}.`,
			open: joining.days === undefined,
			ways: days.map((d): Way => ({ say: say(d), change: (j) => ({ ...j, days: d }) }))
		}
	];
}

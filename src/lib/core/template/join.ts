import { cutText } from '../clean-text';
import { followKeys, freeKey, keysOfPlan, ruleWithKeys } from '../field';
import { folded } from '../folded';
import { EVERYBODY, SENDER, type Field, type Plan, type PlanPerson } from '../packet/plan';
import { refuse, type Refusal } from '../refusal';
import { clashesOf, openingsOf, personOf } from './clashes';
import { groupId, stopName, type Joining, type Part } from './joining';
import { roleName } from './use';

/** A first proposal: who has the same role or address is one person, and every part's order is kept where that can be. */
export function proposed(parts: Part[]): Joining {
	const people: Joining['people'] = [];
	const groupOf = new Map<string, string>();
	parts.forEach(({ plan }, part) => {
		for (const person of plan.people) {
			const same = people.find(
				(group) =>
					!group.members.some((m) => m.part === part) && group.members.some((m) => isSame(personOf(parts, m), person))
			);
			const id = same?.id ?? groupId({ part, person: person.id });
			if (same) same.members.push({ part, person: person.id });
			else people.push({ id, members: [{ part, person: person.id }] });
			groupOf.set(`${part}.${person.id}`, id);
		}
	});
	let stops: string[][] = [];
	parts.forEach(({ plan }, part) => {
		const route = plan.stops.map((stop) => stop.people.map((id) => groupOf.get(`${part}.${id}`)!));
		stops = part === 0 ? route : merged(stops, route);
	});
	return { people, stops, keys: {}, accepted: [] };
}

/** The same address, or, where not both have one, the same role or name. */
function isSame(a: PlanPerson, b: PlanPerson): boolean {
	const [one, other] = [a.email.trim().toLowerCase(), b.email.trim().toLowerCase()];
	if (one !== '' && other !== '') return one === other;
	const name = folded(roleName(a));
	return name === folded(roleName(b)) && name !== 'somebody';
}

/** A second route laid into the first: its stops after those they follow, people who stand in the first left where they are. */
function merged(first: string[][], second: string[][]): string[][] {
	const all = [...first];
	let after = -1;
	for (const stop of second) {
		const known = stop.map((id) => all.findIndex((s) => s.includes(id))).filter((i) => i >= 0);
		const fresh = stop.filter((id) => !all.some((s) => s.includes(id)));
		if (known.length > 0) {
			after = Math.max(after, ...known);
			all[after] = [...all[after]!, ...fresh];
		} else {
			all.splice(after + 1, 0, fresh);
			after += 1;
		}
	}
	return all;
}

/**
 * The parts as one plan. Refuses `clashes-open` while something is still to be settled. Ids are made new where a part
 * has one that an earlier part has; rules follow the keys that had to be renamed.
 */
export function joined(parts: Part[], joining: Joining): Plan | Refusal {
	const open = clashesOf(parts, joining).find((clash) => clash.open);
	if (open) return refuse('clashes-open', `First settle this: ${open.say}`, open.id);
	const papers: Plan['papers'] = [];
	const attachments: Plan['attachments'] = [];
	const fields: Field[] = [];
	const answers: NonNullable<Plan['answers']> = {};
	const taken = new Set<string>();
	const renamed: ReadonlyMap<string, string>[] = [];
	parts.forEach(({ plan }, part) => {
		const fresh = (id: string, known: { id: string }[]) =>
			known.some((one) => one.id === id) ? `${id.slice(0, 34)}-${part + 1}` : id;
		const paperIds = new Map(plan.papers.map((p) => [p.id, fresh(p.id, papers)]));
		const fieldIds = new Map(plan.fields.map((f) => [f.id, fresh(f.id, fields)]));
		const keys = renamedKeys(plan, joining, taken);
		renamed.push(keys);
		const who = (id: string | null) =>
			id === null || id === SENDER || id === EVERYBODY ? id : groupOf(joining, part, id);
		papers.push(...plan.papers.map((p) => ({ ...p, id: paperIds.get(p.id)! })));
		attachments.push(
			...plan.attachments
				.filter((a) => !attachments.some((b) => b.digest === a.digest))
				.map((a) => ({ ...a, id: fresh(a.id, attachments) }))
		);
		fields.push(
			...plan.fields.map((f) =>
				followKeys(
					{
						...f,
						id: fieldIds.get(f.id)!,
						paper: paperIds.get(f.paper) ?? f.paper,
						person: who(f.person),
						key: keys.get(f.key) ?? f.key
					},
					keys
				)
			)
		);
		for (const [id, answer] of Object.entries(plan.answers ?? {})) answers[fieldIds.get(id) ?? id] = answer;
		for (const key of keysOfPlan(plan)) taken.add(keys.get(key) ?? key);
	});
	const plans = parts.map((p) => p.plan);
	const from = plans.flatMap((plan) => plan.from ?? []);
	const locked = [...new Set(plans.flatMap((plan) => plan.locked ?? []))];
	const subject = plans.map((plan) => plan.subject).find(Boolean);
	const sending = plans[joining.sending ?? plans.findIndex((plan) => plan.sending)]?.sending;
	return {
		title: cutText(parts.map((p) => p.plan.title || p.title).join(' and '), 200),
		message: cutText([...new Set(plans.map((plan) => plan.message.trim()).filter(Boolean))].join('\n\n'), 4000),
		days: joining.days !== undefined ? joining.days : plans[0]!.days,
		papers,
		attachments,
		people: joining.people.map((group) => onePerson(parts, joining, group)),
		stops: joining.stops.map((people, i) => ({ id: `s${i}`, people, ...openingOf(parts, joining, people, renamed) })),
		fields,
		...(Object.keys(answers).length > 0 && { answers }),
		...(plans[0]!.locale && { locale: plans[0]!.locale }),
		...(subject && { subject }),
		...(sending && { sending }),
		...(from.length > 0 && { from }),
		...(locked.length > 0 && { locked })
	};
}

/** The id in the whole of somebody of a part; null where there is none. */
function groupOf(joining: Joining, part: number, person: string | undefined): string | null {
	return joining.people.find((g) => g.members.some((m) => m.part === part && m.person === person))?.id ?? null;
}

/** When a joined stop opens: as its parts have it, or as was settled; keys that are called otherwise now, in rules too. */
function openingOf(
	parts: Part[],
	joining: Joining,
	people: string[],
	renamed: ReadonlyMap<string, string>[]
): Partial<Plan['stops'][number]> {
	const wanted = openingsOf(parts, joining, people);
	const settled = joining.opens?.[stopName(people)];
	const of = settled ? wanted.find((one) => one.when === settled.when && one.anyOne === settled.anyOne) : wanted[0];
	if (!of) return {};
	const when = ruleWithKeys(of.when, renamed[of.part]!);
	return { ...(when && { when }), ...(of.anyOne && { anyOne: true }) };
}

/** The keys of a part that must be called otherwise, since an earlier part has them for something else. */
function renamedKeys(plan: Plan, joining: Joining, taken: Set<string>): Map<string, string> {
	const keys = new Map<string, string>();
	const own = keysOfPlan(plan);
	for (const key of own)
		if (taken.has(key) && joining.keys[key] === 'apart')
			keys.set(key, freeKey(key, [...taken, ...own, ...keys.values()]));
	return keys;
}

/** The people of a group as one: the name and address that are known, the stricter of what is locked. */
function onePerson(parts: Part[], joining: Joining, group: Joining['people'][number]): PlanPerson {
	const people = group.members.map((m) => personOf(parts, m));
	const lead = people[group.taken ?? -1] ?? people.find((p) => p.email !== '') ?? people[0]!;
	const locked = [...new Set(people.flatMap((p) => p.locked ?? []))];
	const role = people.map((p) => p.role).find(Boolean);
	const { optional: _optional, namedBy, hostedBy, check, ...rest } = lead;
	const asked = group.check === undefined ? (check ?? people.map((p) => p.check).find(Boolean)) : group.check;
	const shows = lead.identity ?? people.map((p) => p.identity).find(Boolean);
	const part = group.members[people.indexOf(lead)]!.part;
	const namer = groupOf(joining, part, namedBy);
	const host = groupOf(joining, part, hostedBy);
	return {
		...rest,
		id: group.id,
		duty: group.duty ?? lead.duty,
		...(role && { role }),
		...(namer && { namedBy: namer }),
		...(host && { hostedBy: host }),
		...(asked && { check: asked }),
		...(shows && { identity: shows }),
		...(locked.length > 0 && { locked }),
		// somebody whom one part cannot do without is not optional in the whole
		...(people.every((p) => p.optional) && { optional: true })
	};
}

import { askedFault } from '../identity/asked';
import { keyFault, keysOfPlan, keyTypes, kindOf, optionsOf, questionOfKey, ruleFault } from '../field';
import { personIn, type Plan } from '../packet/plan';
import { checkRule, isFault } from '../rule';
import { comesBefore, stopOf } from '../route';
import { strangeValues } from '../template/values';
import { openAnswers, roleName } from '../template/use';
import { isAddress } from '../packet/address';
import { askedPlan, fieldsOfItem, keyOf } from './asked';
import { DOCUMENT, type FollowUp, type Intake, type Item } from './schema';
import { answerAs } from './walk';
import { waysThrough, type Ways } from './ways';

/** One thing to put right before an intake can be opened, with the id of what it is about: a page, an item, a rule, a follow-up. */
export interface IntakeFinding {
	code: string;
	say: string;
	at: string;
	/** worth a look, but it may open all the same */
	mild?: true;
}

/** All that is wrong with an intake over the plan of its template, what stands in the way first, and the ways through it. */
export function checkIntake(template: Plan, intake: Intake, today: string): { found: IntakeFinding[]; ways: Ways } {
	const plan = askedPlan(template, intake);
	const ways = waysThrough(plan, intake, today);
	const found = [
		...idFaults(intake),
		...wholeFaults(plan, intake),
		...keyFaults(template, intake),
		...intake.pages.flatMap((page) => page.items.flatMap((item) => itemFaults(plan, intake, item))),
		...ruleFaults(plan, intake),
		...peopleFaults(plan, intake),
		...intake.then.flatMap((one) => followUpFaults(plan, one)),
		...wayFaults(intake, ways)
	];
	return { found: [...found.filter((one) => !one.mild), ...found.filter((one) => one.mild)], ways };
}

/** Parts that bear the same id, which only what comes from outside can: nobody could say which is meant. */
function idFaults(intake: Intake): IntakeFinding[] {
	const ids = [
		...intake.pages.flatMap((page) => [page.id, ...page.items.map(({ id }) => id)]),
		...[...intake.says, ...intake.then].map(({ id }) => id)
	];
	const twice = ids.find((id, i) => ids.indexOf(id) < i);
	return twice === undefined
		? []
		: [{ code: 'id-twice', say: 'Two parts of this intake bear the same id.', at: twice }];
}

function wholeFaults(plan: Plan, intake: Intake): IntakeFinding[] {
	const found: IntakeFinding[] = [];
	if (intake.heading.trim() === '') found.push({ code: 'no-heading', say: 'Give the page a heading.', at: 'heading' });
	const starter = personIn(plan, intake.starter);
	if (!starter || stopOf(plan, intake.starter) < 0)
		found.push({ code: 'no-starter', say: 'Say which role the case is about.', at: 'starter' });
	else if (starter.email !== '')
		found.push({
			code: 'starter-taken',
			say: `${roleName(starter)} is somebody of the office already. Choose an open role.`,
			at: 'starter'
		});
	else if (stopOf(plan, intake.starter) !== firstStop(plan))
		found.push({
			code: 'starter-later',
			say: `${roleName(starter)} comes after others on the route, so that they don’t go on to the document at once.`,
			at: 'starter',
			mild: true
		});
	if (intake.from && intake.to && intake.from > intake.to)
		found.push({ code: 'days-reversed', say: 'Its last day lies before its first.', at: 'from' });
	if (intake.door.by === 'code' && intake.door.hash === '')
		found.push({ code: 'no-code', say: 'Choose the code that visitors are asked for.', at: 'door' });
	if (intake.door.by === 'domains' && !intake.proof)
		found.push({
			code: 'domain-unproved',
			say: 'Only addresses of some domains may start, but nobody has to prove theirs.',
			at: 'proof'
		});
	// what may stay empty may be empty here as well
	for (const field of openAnswers(plan).filter((one) => one.required))
		found.push({
			code: 'sender-answer-missing',
			say: `“${field.label}” is the sender’s to answer. Answer it in the template, or give the field to ${starter ? roleName(starter) : 'a role'}.`,
			at: 'starter'
		});
	return found;
}

const firstStop = (plan: Plan): number =>
	plan.stops.findIndex((stop) => stop.people.some((id) => personIn(plan, id)?.duty !== 'gets a copy'));

function keyFaults(template: Plan, intake: Intake): IntakeFinding[] {
	const taken = new Map<string, string>(keysOfPlan(template).map((key) => [key, 'the document']));
	const found: IntakeFinding[] = [];
	for (const item of intake.pages.flatMap((page) => page.items)) {
		if (item.is !== 'question') continue;
		const { key, label } = item.question;
		const odd = keyFault(key);
		if (odd) found.push({ code: 'key-odd', say: `“${label}”: ${odd}`, at: item.id });
		const other = taken.get(key);
		if (other)
			found.push({ code: 'key-twice', say: `The key “${key}” of “${label}” is ${other}’s already.`, at: item.id });
		taken.set(key, `“${label}”`);
	}
	const once = new Map<string, string>();
	for (const page of intake.pages)
		for (const item of page.items) {
			const key = keyOf(item);
			if (key === null) continue;
			if (once.has(key) && item.is === 'field')
				found.push({ code: 'asked-twice', say: `“${key}” is asked twice.`, at: item.id, mild: true });
			once.set(key, item.id);
		}
	return found;
}

function itemFaults(plan: Plan, intake: Intake, item: Item): IntakeFinding[] {
	const found: IntakeFinding[] = [];
	if (item.is === 'field' && fieldsOfItem(plan, intake, item).length === 0)
		found.push({
			code: 'field-lost',
			say: `The document asks nothing of this role under the key “${item.key}”.`,
			at: item.id
		});
	if (item.is === 'field') {
		const kind = fieldsOfItem(plan, intake, item)[0]?.kind;
		if (kind && (kindOf(kind).filledBy !== 'person' || kindOf(kind).signs || kind === 'attachment'))
			found.push({ code: 'not-askable', say: `“${item.key}” is given on the document, not before it.`, at: item.id });
	}
	if (item.is === 'question') {
		const { kind, label, settings } = item.question;
		const options = settings['options'];
		if (['choice', 'pick-one', 'ticks'].includes(kind) && (!Array.isArray(options) || options.length === 0))
			found.push({ code: 'no-options', say: `“${label}” has nothing to choose from.`, at: item.id });
		const computed = fieldsOfItem(plan, intake, item)[0];
		if (kind === 'computed' && computed) {
			const wrong = ruleFault(plan, computed, { at: 'rule', source: String(settings['rule'] ?? '') });
			if (wrong) found.push({ code: wrong.code, say: `“${label}”: ${wrong.say}`, at: item.id });
		}
	}
	return found;
}

/** Rules that can't be read, or ask for what the plan has not. */
function ruleFaults(plan: Plan, intake: Intake): IntakeFinding[] {
	const rules: { source: string; at: string; of: string }[] = [];
	const add = (source: string | undefined, at: string, of: string) => source && rules.push({ source, at, of });
	for (const page of intake.pages) {
		add(page.when, page.id, `The page “${page.title}”`);
		for (const next of page.next ?? []) {
			add(next.when, page.id, `What comes after “${page.title}”`);
		}
		for (const item of page.items) add(item.when, item.id, `Something on “${page.title}”`);
	}
	for (const say of intake.says) add(say.when, say.id, `“${say.say.slice(0, 40)}”`);
	for (const one of intake.then) add(one.when, one.id, 'What comes next');
	const found = rules.flatMap(({ source, at, of }): IntakeFinding[] => {
		const checked = checkRule(source, keyTypes(plan), 'truth');
		return isFault(checked) ? [{ code: checked.code, say: `${of}: ${checked.say}`, at }] : [];
	});
	const places = new Set([DOCUMENT, ...intake.pages.map((page) => page.id)]);
	for (const page of intake.pages)
		for (const next of page.next ?? [])
			if (!places.has(next.to))
				found.push({ code: 'page-lost', say: `“${page.title}” leads to a page that is gone.`, at: page.id });
	for (const { id, forces } of intake.says) {
		if (!forces) continue;
		const question = questionOfKey(plan.fields, forces.key);
		const field = question?.[0];
		if (!field) {
			found.push({ code: 'force-lost', say: `A rule forces “${forces.key}”, which nothing asks.`, at: id });
			continue;
		}
		const answer = answerAs(field, forces.answer, plan.locale ?? 'en-GB');
		const options =
			field.kind === 'choice'
				? optionsOf(field).map((one) => one.value)
				: field.kind === 'pick-one'
					? question.map((one) => String(one.settings['value'] ?? one.id))
					: null;
		if (!answer || (options && !options.includes(forces.answer)))
			found.push({
				code: 'force-wrong',
				say: `“${forces.answer}” can’t be the answer to “${field.label}”.`,
				at: id
			});
	}
	return found;
}

/** Roles that nobody takes: neither the starter, nor named on a page, nor by somebody on the route, nor the office's own. */
function peopleFaults(plan: Plan, intake: Intake): IntakeFinding[] {
	const named = intake.pages.flatMap((page) =>
		page.items.flatMap((item) => (item.is === 'people' ? item.roles.map((role) => ({ role, item: item.id })) : []))
	);
	const found: IntakeFinding[] = [];
	for (const { role, item } of named) {
		const person = personIn(plan, role);
		if (!person || role === intake.starter)
			found.push({ code: 'role-lost', say: 'This names a role that the template has not, or the starter.', at: item });
		else if (person.locked?.includes('name') && person.name !== '')
			found.push({ code: 'role-fixed', say: `${roleName(person)} is the office’s and stays who they are.`, at: item });
		if (named.filter((one) => one.role === role).length > 1)
			found.push({ code: 'role-twice', say: 'A role is named twice.', at: item });
	}
	for (const person of plan.people) {
		const open = person.namedBy === undefined && !isAddress(person.email) && person.deliver !== 'link';
		if (!open || person.id === intake.starter || person.optional || named.some(({ role }) => role === person.id))
			continue;
		const later = plan.stops[stopOf(plan, person.id)]?.when && comesBefore(plan, intake.starter, person.id);
		if (!later) found.push({ code: 'role-open', say: `Nobody says who ${roleName(person)} is.`, at: 'people' });
	}
	for (const person of plan.people) {
		const wrong = person.identity && askedFault(person.identity);
		if (wrong)
			found.push({ code: wrong.code, say: `${roleName(person)} is to show who they are. ${wrong.say}`, at: 'people' });
	}
	for (const person of plan.people)
		if (person.check?.by === 'code' && person.check.hash === '')
			found.push({
				code: 'no-code',
				say: `${roleName(person)} is asked for an access code, but has none.`,
				at: 'people'
			});
	return found;
}

function followUpFaults(plan: Plan, { id, at, does }: FollowUp): IntakeFinding[] {
	const found: IntakeFinding[] = [];
	if (typeof at === 'object' && !plan.stops.some((stop) => stop.id === at.stop))
		found.push({ code: 'stop-lost', say: 'What comes next waits for a stop that is gone.', at: id });
	if (does.is === 'letter') {
		if (!isAddress(does.to) && !personIn(plan, does.to))
			found.push({ code: 'bad-address', say: `“${does.to}” can't be an e-mail address.`, at: id });
		for (const name of strangeValues(`${does.subject} ${does.message}`, plan))
			found.push({ code: 'value-unknown', say: `A letter names {${name}}, which is nothing in this packet.`, at: id });
	}
	if (does.is === 'row')
		for (const key of does.keys)
			if (!questionOfKey(plan.fields, key))
				found.push({ code: 'key-lost', say: `The sheet is to hold “${key}”, which nothing asks.`, at: id });
	return found;
}

function wayFaults(intake: Intake, ways: Ways): IntakeFinding[] {
	const title = (id: string) => intake.pages.find((page) => page.id === id)?.title || 'A page';
	const unsure = ways.all ? {} : ({ mild: true } as const);
	return [
		...ways.circles.map((id) => ({ code: 'way-circle', say: `“${title(id)}” leads back to itself.`, at: id })),
		...ways.endless
			.filter((id) => !ways.circles.includes(id))
			.map((id) => ({
				code: 'way-endless',
				say: `From “${title(id)}” no way leads to the document.`,
				at: id,
				...unsure
			})),
		...ways.unreached.map((id) => ({
			code: 'page-unreached',
			say: `No way leads to “${title(id)}”.`,
			at: id,
			mild: true as const
		})),
		...ways.mute.map((id) => ({
			code: 'say-mute',
			say: `“${intake.says.find((say) => say.id === id)!.say.slice(0, 40)}” is never said.`,
			at: id,
			mild: true as const
		}))
	];
}

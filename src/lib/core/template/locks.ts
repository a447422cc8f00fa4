import { sameJson } from '../audit';
import type { Plan, PlanLock, PlanPerson, PersonLock } from '../packet/plan';
import { refuse, type Refusal } from '../refusal';
import { roleName } from './use';

/** Whether the sender may not change this of the whole. */
export function isLocked(plan: Plan, what: PlanLock): boolean {
	return plan.locked?.includes(what) ?? false;
}

/** Whether the sender may not change this of a person. What the template left empty must be filled in, so it may. */
export function isPersonLocked(base: PlanPerson | undefined, what: PersonLock): boolean {
	if (!base?.locked?.includes(what)) return false;
	return what === 'name' ? base.name !== '' : what === 'address' ? base.email !== '' : true;
}

const LOCKED_SAY: Record<PlanLock, string> = {
	people: 'nobody is added, and the order stays',
	message: 'the message stays',
	deadline: 'the time to complete stays',
	sending: 'reminders, hand-over and the other settings stay',
	fields: 'the fields stay',
	papers: 'the documents stay'
};

/**
 * What a plan has changed that the one it was made from has locked; null where nothing. Refuses `locked`, naming it.
 * A role that fell away takes its fields along, which is no change.
 */
export function lockedChange(base: Plan, plan: Plan): Refusal | null {
	for (const what of base.locked ?? [])
		if (!sameJson(part(base, what, plan), part(plan, what, plan)))
			return refuse('locked', `The template has this locked: ${LOCKED_SAY[what]}.`, what);
	if (!sameJson(plan.locked ?? [], base.locked ?? []))
		return refuse('locked', 'What the template has locked can’t be unlocked here.');
	for (const person of base.people) {
		const now = plan.people.find((p) => p.id === person.id);
		const no = now ? changedPerson(person, now) : goneFault(person);
		if (no) return no;
	}
	return null;
}

function changedPerson(base: PlanPerson, now: PlanPerson): Refusal | null {
	const who = roleName(base);
	if (isPersonLocked(base, 'name') && now.name !== base.name)
		return refuse('locked', `The template has ${base.name} as ${who}; that stays.`, base.id);
	if (isPersonLocked(base, 'address') && now.email !== base.email)
		return refuse('locked', `The template has the address of ${who} locked.`, base.id);
	if (isPersonLocked(base, 'duty') && now.duty !== base.duty)
		return refuse('locked', `The template has it locked that ${who} ${base.duty}.`, base.id);
	if (isPersonLocked(base, 'address') && (now.phone ?? '') !== (base.phone ?? ''))
		return refuse('locked', `The template has the telephone number of ${who} locked.`, base.id);
	if (isPersonLocked(base, 'check') && !sameCheck(base, now))
		return refuse('locked', `The template has it locked how ${who} proves who they are.`, base.id);
	if (!sameJson(now.locked ?? [], base.locked ?? []))
		return refuse('locked', 'What the template has locked can’t be unlocked here.', base.id);
	return null;
}

/** Whether the same proof is asked. An access code, and a right answer, may be new each time: only that there is one is locked. */
function sameCheck(a: PlanPerson, b: PlanPerson): boolean {
	const bare = (asked: PlanPerson['identity']) => asked?.questions?.asks.map(({ hash: _hash, ...ask }) => ask);
	const rest = ({ questions, ...more }: NonNullable<PlanPerson['identity']>) => ({ ...more, right: questions?.right });
	const { identity: now } = a;
	return (
		a.check?.by === b.check?.by &&
		sameJson(bare(now) ?? [], bare(b.identity) ?? []) &&
		sameJson(now ? rest(now) : null, b.identity ? rest(b.identity) : null)
	);
}

function goneFault(base: PlanPerson): Refusal | null {
	return isPersonLocked(base, 'removal') && !base.optional
		? refuse('locked', `${roleName(base)} can’t be taken off: the template has it locked.`, base.id)
		: null;
}

/** The part of a plan that a lock is about, as far as it concerns those who are in the plan. */
function part(of: Plan, what: PlanLock, present: Plan): unknown {
	switch (what) {
		case 'message':
			return [
				of.message,
				of.subject ?? '',
				of.people
					.map((p) => [p.id, p.message ?? '', p.subject ?? ''])
					.filter(([id]) => present.people.some((p) => p.id === id))
			];
		case 'deadline':
			return [of.days, of.sending?.workingDays ?? false, of.sending?.warning ?? null];
		case 'sending': {
			const { workingDays: _days, warning: _warning, ...rest } = of.sending ?? {};
			return rest;
		}
		case 'papers':
			return of.papers.map((paper) => [paper.digest, paper.pages.map((page) => page.rotate)]);
		case 'fields':
			// where the document may be exchanged, its fields must be able to follow
			return of.fields
				.filter((f) => f.person === null || !gone(f.person, of, present))
				.map(({ page, rect, pin, cover, ...rest }) =>
					isLocked(of, 'papers') ? { ...rest, page, rect, pin, cover } : rest
				)
				.sort((a, b) => (a.id < b.id ? -1 : 1));
		case 'people':
			return of.stops
				.map(({ people, when = '', anyOne = false }) => ({
					people: people.filter((id) => present.people.some((p) => p.id === id)),
					when,
					anyOne
				}))
				.filter((stop) => stop.people.length > 0);
	}
}

function gone(person: string, of: Plan, present: Plan): boolean {
	return of.people.some((p) => p.id === person) && !present.people.some((p) => p.id === person);
}

import { sameJson as same } from '../../audit';
import { refuse, type Refusal } from '../../refusal';
import { actorsAt, doneWord } from '../../route';
import { EVERYBODY, personIn, SENDER, type Field, type Plan, type Stop } from '../plan';
import type { Ground } from './ground';

/**
 * What a correction may not do; null where it may all be done.
 * Refuses `finished-part-locked` (somebody who has finished, what is theirs, and what they saw of the sender's),
 * `before-finished` (the route up to them), `stop-decided` (the rule of a stop that is open), and `no-exchange`
 * (documents, once somebody has finished or where the organisation has not permitted it), and `namer-finished` (somebody
 * whom a person was to name who can't any more).
 */
export function correctionFault(ground: Ground, next: Plan): Refusal | null {
	return papersFault(ground, next) ?? finishedFault(ground, next) ?? routeFault(ground, next);
}

const INSTEAD = 'To change that, withdraw it and make a new version.';

function papersFault({ plan, finished, mayExchange }: Ground, next: Plan): Refusal | null {
	const whole = (of: Plan) => [
		of.papers.map(({ id, name, digest, pages }) => ({ id, name, digest, pages })),
		of.attachments
	];
	if (same(whole(plan), whole(next))) return null;
	if (finished.length > 0)
		return refuse('no-exchange', `${nameOf(plan, finished[0]!)} has finished on these documents. ${INSTEAD}`, 'papers');
	return mayExchange
		? null
		: refuse('no-exchange', `Your organisation keeps documents as they were sent. ${INSTEAD}`, 'papers');
}

function finishedFault({ plan, finished }: Ground, next: Plan): Refusal | null {
	if (finished.length === 0) return null;
	for (const id of finished) {
		const locked = (what: string) => refuse('finished-part-locked', `${doneBy(plan, id)}; ${what}`, id);
		if (!same(personIn(plan, id), personIn(next, id))) return locked('who and how they are stays.');
		if (!same(fieldsAt(plan, id), fieldsAt(next, id))) return locked('their fields stay as they are.');
	}
	const seen = (what: string) =>
		refuse('finished-part-locked', `${doneBy(plan, finished[0]!)} and saw ${what}, so it stays. ${INSTEAD}`);
	for (const everyones of [SENDER, EVERYBODY, null])
		if (!same(fieldsAt(plan, everyones), fieldsAt(next, everyones))) return seen('what stands on the pages for all');
	const unnamed = next.people.find(
		(p) => p.namedBy && finished.includes(p.namedBy) && (p.name === '' || p.email === '')
	);
	if (unnamed)
		return refuse(
			'namer-finished',
			`${nameOf(plan, unnamed.namedBy!)} has finished, and can’t name anybody any more. Give name and address yourself.`,
			unnamed.id
		);
	if (!same(plan.answers, next.answers)) return seen('what the sender filled in');
	if (plan.title.trim() !== next.title.trim() || plan.locale !== next.locale) return seen('this title and language');
	return null;
}

function routeFault({ plan, finished, behind, open }: Ground, next: Plan): Refusal | null {
	const acting = next.stops.filter((_stop, i) => actorsAt(next, i).length > 0);
	for (const [at, id] of behind.entries()) {
		const was = plan.stops.find((stop) => stop.id === id)!;
		const now = acting[at];
		// beside somebody who has finished others may still come and go
		const keeps =
			id === open
				? now?.id === id && finished.filter((p) => was.people.includes(p)).every((p) => now.people.includes(p))
				: now?.id === id && same(actorsOf(plan, was), actorsOf(next, now));
		if (!keeps) {
			const last = finished.findLast((p) =>
				plan.stops.some((stop) => behind.includes(stop.id) && stop.people.includes(p))
			);
			const who = last === undefined ? 'It has passed that stop' : doneBy(plan, last);
			return refuse('before-finished', `${who}; the route up to there stays as it is.`, 'people');
		}
		if (!same(rule(was), rule(now!))) return decided();
	}
	const [was, now] = [plan.stops.find((stop) => stop.id === open), next.stops.find((stop) => stop.id === open)];
	return was && now && !same(was.when, now.when) ? decided() : null;
}

const decided = () => refuse('stop-decided', 'The rule of that stop has been decided; it stays.', 'people');
const rule = ({ when = '', anyOne = false }: Stop) => ({ when, anyOne });
const actorsOf = (plan: Plan, stop: Stop) => actorsAt(plan, plan.stops.indexOf(stop)).map((person) => person.id);

function fieldsAt(plan: Plan, person: string | null): Field[] {
	return plan.fields.filter((field) => field.person === person).sort((a, b) => (a.id < b.id ? -1 : 1));
}

function nameOf(plan: Plan, id: string): string {
	return personIn(plan, id)?.name || 'Somebody';
}

function doneBy(plan: Plan, id: string): string {
	return `${nameOf(plan, id)} has ${doneWord(personIn(plan, id)?.duty ?? 'signs')}`;
}

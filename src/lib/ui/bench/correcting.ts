import {
	changesOf,
	correctionFault,
	EVERYBODY,
	SENDER,
	type Correcting,
	type Field,
	type Ground,
	type Plan
} from '../../core/packet';
import { actorsAt } from '../../core/route';
import type { Refusal } from '../../core/refusal';
import { correctionInWords } from '../../words/record';

/** Why a change can't be made in this correction; null where it can, or where nothing is corrected. */
export function faultIn(correcting: Correcting | null, next: Plan): Refusal | null {
	return correcting?.ground ? correctionFault(correcting.ground, next) : null;
}

/** Whether that person has finished, so that what is theirs is locked. */
export function hasFinished(correcting: Correcting | null, person: string): boolean {
	return correcting?.ground?.finished.includes(person) ?? false;
}

/** Whether a field stays as it is: its person has finished, or somebody has who saw it. */
export function isFixed(correcting: Correcting | null, field: Field): boolean {
	if (!correcting?.ground || correcting.ground.finished.length === 0) return false;
	const shared = field.person === SENDER || field.person === EVERYBODY || field.person === null;
	return shared || hasFinished(correcting, field.person!);
}

/** Whether documents stay as they were sent. */
export function papersFixed(correcting: Correcting | null): boolean {
	const ground = correcting?.ground;
	return ground ? ground.finished.length > 0 || !ground.mayExchange : false;
}

/** What the correction changes, a sentence each, for whoever is about to send it. */
export function saidOf({ ground }: Correcting, plan: Plan): string[] {
	if (!ground) return [];
	const reached = plan.people.flatMap((person) => {
		const was = ground.plan.people.find((one) => one.id === person.id);
		if (!was) return [];
		return [
			...(was.email === person.email
				? []
				: [`${person.name} is reached at ${person.email}; the old link holds no longer.`]),
			...((was.phone ?? '') === (person.phone ?? '') ? [] : [`${person.name} has another telephone number.`])
		];
	});
	return [...correctionInWords(changesOf(ground.plan, plan)), ...reached, ...turnsOf(ground, plan)];
}

/** Who gets it at once by the corrected route, and who will wait again. */
function turnsOf({ open, behind, plan: was }: Ground, plan: Plan): string[] {
	const after = plan.stops.findIndex((stop) => stop.id === behind.filter((id) => id !== open).at(-1));
	const next = plan.stops.findIndex((stop, i) => i > after && actorsAt(plan, i).length > 0);
	const had = was.stops.find((stop) => stop.id === open)?.people ?? [];
	const names = (ids: string[]) =>
		ids.map((id) => plan.people.find((p) => p.id === id)?.name || 'somebody').join(' and ');
	const get = next < 0 ? [] : actorsAt(plan, next).flatMap(({ id }) => (had.includes(id) ? [] : [id]));
	const wait = had.filter((id) => plan.stops.some((stop, i) => i > next && stop.people.includes(id)));
	if (get.length === 0) return [];
	return [
		`${names(get)} ${get.length > 1 ? 'get' : 'gets'} it now${wait.length > 0 ? `; ${names(wait)} will wait` : ''}.`
	];
}

import { finishAnswers, type Answers, type FieldContext, type FileAnswer } from '../../../core/field';
import type { Plan } from '../../../core/packet';
import { isRefusal } from '../../../core/refusal';
import { actorsAt, following, stopOf } from '../../../core/route';
import type { Keeper } from '../../signing/keeper';

/** How far a rehearsal has come: kept in this tab, for the people who come next. */
export interface Rehearsed {
	answers: Answers;
	finished: string[];
}

const nameOf = (draft: string): string => `pellum-rehearsal-${draft}`;

export function rehearsed(draft: string): Rehearsed {
	try {
		return JSON.parse(sessionStorage.getItem(nameOf(draft)) ?? '') as Rehearsed;
	} catch {
		return { answers: {}, finished: [] };
	}
}

/** What comes after somebody has finished in a rehearsal: who is next, and who was left out on the way. */
export function afterRehearsed(
	plan: Plan,
	person: string,
	{ answers, finished }: Rehearsed,
	start: Answers,
	today: string
): { next: string | null; left: string[] } {
	const at = stopOf(plan, person);
	const beside = actorsAt(plan, at)
		.map((p) => p.id)
		.filter((id) => !finished.includes(id));
	const anyOne = plan.stops[at]?.anyOne === true;
	if (beside.length > 0 && !anyOne) return { next: beside[0]!, left: [] };
	const { skipped, opens } = following(plan, at, { ...start, ...answers }, today);
	return { next: opens?.people[0] ?? null, left: [...beside, ...skipped.flatMap((one) => one.people)] };
}

export function forgetRehearsal(draft: string): void {
	sessionStorage.removeItem(nameOf(draft));
}

/**
 * A keeper that keeps nothing outside this tab. Finishing is judged by the same rules as on the server, so that a
 * rehearsal refuses what signing would refuse.
 */
export function rehearsalKeeper(
	draft: string,
	plan: Plan,
	person: string,
	context: () => FieldContext,
	start: Answers,
	done: () => void
): Keeper {
	return {
		pictures: '/pictures',
		keep: () => Promise.resolve({ ok: true, say: '' }),
		finish: (answers) => {
			const before = rehearsed(draft);
			const earlier = { ...start, ...before.answers };
			const all = finishAnswers(plan, person, answers, context(), earlier, before.finished);
			if (isRefusal(all))
				return Promise.resolve({ ok: false, say: all.say, ...(all.at !== undefined && { at: all.at }) });
			sessionStorage.setItem(
				nameOf(draft),
				JSON.stringify({ answers: { ...before.answers, ...all }, finished: [...before.finished, person] })
			);
			done();
			return Promise.resolve({ ok: true, say: '' });
		},
		picture: () => Promise.resolve('In a rehearsal no picture is taken in. Type or draw it.'),
		file: (_field, file) =>
			Promise.resolve({
				file: '0'.repeat(64),
				name: file.name,
				media: file.type,
				bytes: Math.max(1, file.size)
			} satisfies FileAnswer)
	};
}

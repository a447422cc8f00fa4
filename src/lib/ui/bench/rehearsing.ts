import { finishAnswers, type Answers, type FieldContext, type FileAnswer } from '../../core/field';
import type { Plan } from '../../core/packet';
import { isRefusal } from '../../core/refusal';
import type { Keeper } from '../signing/keeper';

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

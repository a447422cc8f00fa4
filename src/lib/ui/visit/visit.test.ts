import { describe, expect, it } from 'vitest';
import { field, plan as planOf } from '../../../../e2e/kit/plans';
import { emptyIntake, type Intake } from '../../core/intake';
import { ENGLISH } from '../../words/words';
import { END, Visit } from './visit.svelte';

const options = ['yes', 'no'].map((value) => ({ value, text: value }));
const base = planOf([['player']]);
const plan = {
	...base,
	fields: [
		...base.fields,
		field('a', 'choice', 'player', { key: 'a', settings: { options } }),
		field('b', 'choice', 'player', { key: 'b', settings: { options } })
	]
};
const setting: Intake = {
	...emptyIntake('H', 'player'),
	pages: ['a', 'b'].map((key) => ({ id: `p-${key}`, title: key, items: [{ id: key, is: 'field', key }] })),
	says: [{ id: 's', when: 'b = "no"', say: 'Not so.', closes: true }]
};
/** Somebody who has said who they are. */
function visitor(change: Partial<Intake> = {}, words = ENGLISH): Visit {
	const visit = new Visit({ setting: { ...setting, ...change }, plan, today: '2026-11-29', known: {} }, () => words);
	Object.assign(visit.visitor, { name: 'Ottilie', email: 'o@post.example' });
	return visit;
}
const by = (id: string) => plan.fields.find((one) => one.id === id)!;

describe('a visit', () => {
	it('goes on where all is answered, says what is missing, and comes back without loss', () => {
		const visit = visitor();
		expect(visit.next()).toBe(true);
		expect(visit.at).toBe('p-a');
		expect(visit.next()).toBe(false);
		expect(visit.wrong(by('a'))).toContain('still needs an answer');
		visit.give(by('a'), { choice: 'yes' });
		visit.next();
		visit.give(by('b'), { choice: 'yes' });
		visit.next();
		expect(visit.at).toBe(END);
		visit.back();
		visit.back();
		expect([visit.at, visit.way.answers]).toEqual(['p-a', { a: { choice: 'yes' }, b: { choice: 'yes' } }]);
		const again = visitor();
		again.resume(JSON.parse(JSON.stringify(visit.kept)));
		expect([again.at, again.way.answers]).toEqual([visit.at, visit.way.answers]);
	});
	it('is closed only where the rule closes it: from a page before one may go on and answer otherwise', () => {
		const visit = visitor();
		visit.resume({ page: 'p-b', answers: { a: { choice: 'yes' }, b: { choice: 'no' } } });
		expect(visit.closedHere?.say).toBe('Not so.');
		expect(visit.next()).toBe(false);
		visit.back();
		expect([visit.at, visit.closedHere]).toEqual(['p-a', null]);
		expect(visit.next()).toBe(true);
		visit.give(by('b'), { choice: 'yes' });
		expect([visit.next(), visit.at]).toEqual([true, END]);
	});
	it('sees all pages at once where they stand together', () => {
		const visit = visitor({ together: true });
		visit.next();
		expect(visit.seen.map(({ page }) => page.id)).toEqual(['p-a', 'p-b']);
		visit.give(by('a'), { choice: 'yes' });
		expect(visit.next()).toBe(false);
		visit.give(by('b'), { choice: 'yes' });
		expect([visit.next(), visit.at]).toEqual([true, END]);
		visit.back();
		expect(visit.at).toBe('p-a');
	});
	it('takes first answers from a link, by key, and leaves out what can be none', () => {
		const visit = visitor();
		visit.start({ a: 'yes', b: 'perhaps', nothing: '1' });
		expect(visit.way.answers).toEqual({ a: { choice: 'yes' } });
	});
	it('lets somebody who prepares it for another, or the office, leave out what they do not know', () => {
		for (const who of ['prepares', 'byOffice'] as const) {
			const visit = visitor({ representative: 'may' });
			Object.assign(visit.them, { name: 'Ines', email: 'i@post.example' });
			visit[who] = true;
			expect([visit.next(), visit.next(), visit.next(), visit.at]).toEqual([true, true, true, END]);
		}
	});
	it('reads and shows numbers and dates in the language of the visitor', () => {
		const german = Object.assign((...asked: Parameters<typeof ENGLISH>) => ENGLISH(...asked), ENGLISH, {
			language: 'de'
		});
		expect([visitor().locale, visitor({}, german).locale]).toEqual(['en-GB', 'de-DE']);
	});
});

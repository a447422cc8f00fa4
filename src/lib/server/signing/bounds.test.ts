import { afterAll, describe, expect, it } from 'vitest';
import { FROM, mails, ok, out, sent, testHouse, visitor } from '../../../../e2e/kit/house';
import { closePool } from '../../press';
import { mayHaveCopies } from '../packets/copies';
import { askWording, openAndConsent, saveAnswers } from '.';

afterAll(() => closePool());

describe('by link', () => {
	it('a consent is recorded once, wishes and what was typed so many times', async () => {
		const t = await testHouse();
		const plan = await sent(t, [['maren']]);
		await t.runner.drain();
		const who = () => visitor(t.house, 'maren@post.example');
		for (const language of ['en', 'de', 'en', 'fr']) ok(openAndConsent(t.house, who(), FROM, language));
		const count = (type: string) =>
			t.house.db.prepare<[string], number>("SELECT count(*) FROM events WHERE body ->> '$.type' = ?").pluck().get(type);
		expect(count('ConsentGiven')).toBe(1);
		for (let i = 0; i < 520; i++) {
			t.clock.now += 601_000;
			if (t.clock.now < Date.parse(plan.deadline ?? '2099-01-01'))
				ok(saveAnswers(t.house, who(), { 'maren-name': { text: `M${i}` } }, FROM));
		}
		expect(count('AnswersKept')).toBeLessThanOrEqual(500);
	});
	it('thirty wishes for another wording are letters enough to the sender', async () => {
		const t = await testHouse();
		await out(t, [['maren']], {}, { sending: { wording: true } });
		const who = () => visitor(t.house, 'maren@post.example');
		ok(openAndConsent(t.house, who(), FROM));
		const wish = { paper: 'paper', page: 0, words: 'x', instead: 'y', why: '' };
		for (let i = 0; i < 30; i++) ok(askWording(t.house, who(), wish, FROM));
		expect(askWording(t.house, who(), wish, FROM)).toMatchObject({ code: 'too-often' });
		await t.runner.drain();
		expect(mails(t.house, t.odile.email)).toHaveLength(30);
	});
	it('whoever was spared by another one of the group has no copies', async () => {
		const t = await testHouse();
		const plan = await sent(t, [['maren']]);
		expect(mayHaveCopies(plan, 'maren')).toBe(true);
		const spared = { ...plan, people: { maren: { is: 'skipped', why: 'group' } } } as unknown as typeof plan;
		expect(mayHaveCopies(spared, 'maren')).toBe(false);
	});
});

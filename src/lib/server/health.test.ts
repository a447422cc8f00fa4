import { afterAll, describe, expect, it } from 'vitest';
import { sent, testHouse } from '../../../e2e/kit/house';
import { closePool } from '../press';
import { health, isWatcher } from './health';
import { withoutPeople } from './log';

afterAll(() => closePool());

describe('a watcher', () => {
	it('is told how it is, and only the watcher', async () => {
		const t = await testHouse({ watcher: 'a word of the watcher' });
		await sent(t, [['maren']]);
		t.clock.now += 60_000;
		expect(health(t.house)).toMatchObject({
			ready: true,
			lanes: { message: { waiting: 1, pausedSince: null } },
			oldestJob: 60
		});
		expect(health(t.house).diskLeft).toBeGreaterThan(1_000_000);
		expect(isWatcher(t.house, 'Bearer a word of the watcher')).toBe(true);
		for (const no of [null, '', 'Bearer ', 'Bearer a word', 'a word of the watcher'])
			expect(isWatcher(t.house, no)).toBe(false);
	});
	it('reads a log without anybody in it', () => {
		const error = new Error('SMTP to maren@post.example failed for “Maren Solis”, +44 7700 900123');
		const said = JSON.stringify(withoutPeople(error));
		for (const part of ['maren', 'Solis', '7700']) expect(said).not.toContain(part);
		expect(said).toContain('SMTP to (address) failed');
		expect(said).toContain('health.test.ts');
	});
});

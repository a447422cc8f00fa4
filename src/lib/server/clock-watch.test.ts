import { afterAll, describe, expect, it } from 'vitest';
import { testHouse } from '../../../e2e/kit/house';
import { closePool } from '../press';
import { ClockWatch, lateJump } from './clock-watch';
import { needsYou } from './desk';
import { officeEvents } from './office-record';

afterAll(() => closePool());

describe('the machine’s clock', () => {
	it('that jumps against one that only goes forward stands in the record and on the Desk', async () => {
		const t = await testHouse();
		const clocks = { at: Date.now(), steady: 0 };
		const watch = new ClockWatch(t.house, { wall: () => clocks.at, steady: () => clocks.steady });
		const passes = (wall: number, steady: number) => {
			clocks.at += wall * 1000;
			clocks.steady += steady * 1000;
			watch.look();
		};
		passes(30, 30);
		passes(149, 30);
		expect(lateJump(t.house)).toBeNull();
		passes(-3570, 30);
		expect(officeEvents(t.house.db)[0]).toMatchObject({ type: 'ClockJumped', seconds: -3600, by: { kind: 'pellum' } });
		expect(needsYou(t.house, t.odile)).toContainEqual(expect.objectContaining({ what: 'clock', seconds: -3600 }));
		passes(3630, 30);
		expect(lateJump(t.house)!.seconds).toBe(3600);
		t.clock.now += 8 * 86_400_000;
		expect(needsYou(t.house, t.odile).some(({ what }) => what === 'clock')).toBe(false);
	});
	it('that is behind what was written before is told at the start', async () => {
		const t = await testHouse();
		t.clock.now -= 3_600_000;
		clearInterval(new ClockWatch(t.house).start());
		expect(lateJump(t.house)!.seconds).toBe(-3600);
	});
});

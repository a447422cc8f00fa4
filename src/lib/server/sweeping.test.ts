import sharp from 'sharp';
import { afterAll, describe, expect, it } from 'vitest';
import { FROM, ok, sent, signs, testHouse, visitor } from '../../../e2e/kit/house';
import { closePool } from '../press';
import { checkData } from './check';
import { addMarkPicture, openAndConsent } from './signing';
import { sweepUnused } from './sweeping';

afterAll(() => closePool());

describe('what was handed in', () => {
	it('and never used goes after the end; what is used, or somebody else’s too, stays', async () => {
		const t = await testHouse();
		await sent(t, [['maren', 'kit']]);
		await t.runner.drain();
		const maren = visitor(t.house, 'maren@post.example');
		ok(openAndConsent(t.house, maren, FROM));
		const there = () => t.house.db.prepare("SELECT count(*) FROM blobs WHERE media = 'image/png'").pluck().get();
		const before = there() as number;
		ok(
			await addMarkPicture(
				t.house,
				visitor(t.house, 'maren@post.example'),
				await sharp({ create: { width: 300, height: 80, channels: 4, background: '#000' } })
					.png()
					.toBuffer()
			)
		);
		expect(there()).toBe(before + 1);
		expect(sweepUnused(t.house)).toBe(0);
		await signs(t, 'maren@post.example');
		await signs(t, 'kit@post.example');
		expect(sweepUnused(t.house)).toBe(0);
		t.clock.now += 2 * 86_400_000;
		expect([sweepUnused(t.house), there(), sweepUnused(t.house)]).toEqual([1, before, 0]);
		expect(checkData(t.house.db).faults).toEqual([]);
	});
});

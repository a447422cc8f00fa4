import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { account, idle, ok, out, signs, testHouse, type TestHouse } from '../../../../e2e/kit/house';
import type { Plan } from '../../core/packet';
import { closePool } from '../../press';
import { addPaper } from '../papers';
import { folderNamed, openFolder } from '../folders';
import { BY_ITSELF } from '../office-record';
import { moveToFolder, withdraw } from '../packets/office';
import { records } from '../records';
import { youthConsent } from '../../../../demo/documents';

let t: TestHouse;
beforeEach(async () => {
	t = await testHouse();
});
afterAll(closePool);

/** A packet whose document begins with these words, sent to Maren. */
async function about(piece: string, more: Partial<Plan> = {}): Promise<string> {
	const letter = await youthConsent(piece);
	const taken = ok(await addPaper(t.house, 'Release.pdf', letter.bytes));
	if ('attached' in taken) throw new Error(taken.why);
	return out(
		t,
		[['maren']],
		{},
		{
			papers: [{ id: 'paper', name: 'Release', digest: taken.digest, pages: taken.pages }],
			...more
		}
	);
}
const found = (search: string, by = t.odile) => records(t.house, by, search).rows;

describe('what has ended', () => {
	it('is found by the words of its documents, and by its answers, with where they stand', async () => {
		const packet = await about('Serenade in Ré mineur');
		expect(found('serenade')).toEqual([]);
		await signs(t, 'maren@post.example');
		await idle(t);
		expect(found('serenade RE')).toMatchObject([
			{
				id: packet,
				found: {
					paper: 'Release',
					page: 0,
					word: 'Serenade',
					after: expect.stringContaining('in Ré mineur has been invited') as string
				}
			}
		]);
		// the note that everybody's test plan has, answered with their name
		expect(found('maren-note')).toMatchObject([
			{ id: packet, found: { paper: null, page: null, word: 'maren-note:' } }
		]);
		expect(found('guest engagement')).toMatchObject([{ id: packet, found: null }]);
		expect(found('serenade harp')).toEqual([]);
	});
	it('is found however it ended, and by nobody who may not see it', async () => {
		const packet = await about('the Nonet');
		ok(withdraw(t.house, t.odile, packet, 'by mistake'));
		await idle(t);
		expect(found('nonet')).toMatchObject([{ id: packet, status: 'withdrawn' }]);
		const tamsin = await account(t.house, 'Tamsin', 'tamsin@x.example', 'preparer');
		expect(found('nonet', tamsin)).toHaveLength(1);
		const folder = folderNamed(t.house, BY_ITSELF, 'Board');
		openFolder(t.house, BY_ITSELF, folder, false);
		ok(moveToFolder(t.house, t.odile, packet, 'Board'));
		await idle(t);
		expect(found('nonet', tamsin)).toEqual([]);
		expect(found('nonet')).toHaveLength(1);
	});
	it('holds the words of one document once, however many packets have it, and finds them page by page', async () => {
		const plan = { title: 'Release for the quartet' };
		for (let i = 0; i < 53; i++) {
			ok(withdraw(t.house, t.odile, await about('the Quartet', plan), 'x'));
			t.clock.now += 1000;
		}
		await idle(t);
		expect(t.house.db.prepare('SELECT count(*) FROM paper_texts').pluck().get()).toBe(1);
		const first = records(t.house, t.odile, 'medicines allergi');
		expect(first.rows).toHaveLength(50);
		expect(first.rows[0]!.found).toMatchObject({ paper: 'Release', page: 1 });
		const rest = records(t.house, t.odile, 'medicines allergi', { list: 'ended', after: first.next! });
		expect(rest.rows).toHaveLength(3);
		expect(rest.next).toBeNull();
		expect(new Set([...first.rows, ...rest.rows].map((row) => row.id)).size).toBe(53);
	});
	it('is asked with whatever somebody types', () => {
		for (const odd of ['"', '*', 'a AND', '-', '('.repeat(300), 'x'.repeat(10_000), '乐', ' '])
			expect(found(odd)).toEqual([]);
	});
});

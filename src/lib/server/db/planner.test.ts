import { afterAll, describe, expect, it } from 'vitest';
import { testHouse } from '../../../../e2e/kit/house';
import { closePool } from '../../press';
import { tune } from '.';

afterAll(() => closePool());

describe('the planner', () => {
	it('is told by and by what the tables have become', async () => {
		const t = await testHouse();
		for (let i = 0; i < 300; i++)
			t.house.db.prepare("INSERT INTO jobs (kind, key, payload, due_at) VALUES ('seal', ?, '{}', 'x')").run(`k${i}`);
		const known = () => t.house.db.prepare("SELECT name FROM sqlite_master WHERE name = 'sqlite_stat1'").all().length;
		expect(known()).toBe(0);
		tune(t.house.db);
		expect(known()).toBe(1);
		expect(t.house.db.prepare("SELECT count(*) FROM sqlite_stat1 WHERE tbl = 'jobs'").pluck().get()).toBeGreaterThan(0);
	});
});

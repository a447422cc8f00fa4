import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { caseHouse, opened, begin, entered, code } from '../../../../e2e/kit/cases';
import { ok, type TestHouse } from '../../../../e2e/kit/house';
import { closePool } from '../../press';
import { checkData } from '../check';
import {
	handIn,
	invitePeople,
	listIntakes,
	newIntake,
	putIntakeInUse,
	readIntake,
	saveIntake,
	throwIntakeAway
} from '.';

afterAll(() => closePool());

let t: TestHouse;
beforeEach(async () => {
	t = await caseHouse();
});

describe('put in use', () => {
	it('an intake is judged: its own questions by their kinds, and no two parts under one id', async () => {
		const { id } = await opened();
		const put = (settings: Record<string, unknown>, other: string) => {
			const { setting, revision } = ok(readIntake(t.house, id));
			const question = { kind: 'number' as const, key: 'how_old', label: 'Age', required: true, settings };
			const items = [{ id: other, is: 'question' as const, question }];
			const pages = [...setting.pages.slice(0, 2), { id: 'more', title: 'More', items }];
			const saved = ok(saveIntake(t.house, id, revision, { ...setting, pages }));
			return putIntakeInUse(t.house, t.odile, id, saved.revision);
		};
		expect(put({ least: 'many' }, 'age')).toMatchObject({ code: 'malformed', at: 'age' });
		expect(put({ least: '18' }, 'amount')).toMatchObject({ code: 'id-twice', at: 'amount' });
		expect(code(put({ least: '18' }, 'age'))).toBe('done');
	});
	it('it can’t be thrown away any more; before that it can', async () => {
		const { id, template } = await opened();
		expect(throwIntakeAway(t.house, id)).toMatchObject({ code: 'intake-used' });
		const other = ok(newIntake(t.house, t.odile, template));
		ok(await invitePeople(t.house, other.id, Buffer.from('Name,E-mail\nAnn,ann@post.example\n')));
		expect(throwIntakeAway(t.house, other.id)).toBeNull();
		expect(listIntakes(t.house, t.odile).map((one) => one.id)).toEqual([id]);
		expect(throwIntakeAway(t.house, other.id)).toMatchObject({ code: 'no-intake' });
	});
});

describe('check-data', () => {
	it('finds a setting that can’t be read, and a case whose version or packet is gone', async () => {
		const { slug } = await opened();
		const { token } = ok(await begin(slug));
		ok(handIn(t.house, token, entered(), ''));
		const { db } = t.house;
		const faults = () => checkData(db).faults;
		expect(faults()).toEqual([]);
		db.pragma('foreign_keys = OFF');
		const broken = (sql: string) => {
			db.exec('SAVEPOINT broken');
			db.exec(sql);
			const found = faults();
			db.exec('ROLLBACK TO broken; RELEASE broken');
			return found.join(' ');
		};
		expect(broken("UPDATE intakes SET setting = '{'")).toContain('can’t be read');
		expect(broken("UPDATE intake_versions SET setting = json_set(setting, '$.pages', 3)")).toContain('can’t be read');
		expect(broken('UPDATE cases SET version = 9')).toContain('a version of its intake that is not there');
		expect(broken("UPDATE cases SET packet = 'gone'")).toContain('names a packet that is not there');
	});
});

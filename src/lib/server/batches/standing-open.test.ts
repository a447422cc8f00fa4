import {
	mkdirSync,
	mkdtempSync,
	readdirSync,
	rmSync,
	symlinkSync,
	truncateSync,
	utimesSync,
	writeFileSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { csv } from '../../../../demo/stewards';
import { account, idle, mails, ok, realPlan, testHouse, type TestHouse } from '../../../../e2e/kit/house';
import { closeAccount } from '../accounts';
import { needsYou } from '../desk';
import { BY_ITSELF } from '../office-record';
import { organisation, setOrganisation } from '../settings';
import { newTemplate, putInUse } from '../templates';
import {
	dropFolder,
	lookForSheets,
	newBatch,
	planOfRow,
	readBatch,
	seenTrouble,
	standingOpen,
	standOpen,
	takeSheet
} from './index';

let t: TestHouse;
let id: string;
let folder: string;
const HEADS = ['Name', 'E-mail'];
beforeEach(async () => {
	t = await testHouse({ folder: mkdtempSync(path.join(tmpdir(), 'pellum-in-')) });
	const plan = await realPlan(t.house, [['steward']]);
	const asRole = { ...plan, people: plan.people.map((p) => ({ ...p, role: 'Steward', name: '', email: '' })) };
	const draft = newTemplate(t.house, t.odile, asRole, 'Steward handbook');
	const { template } = ok(putInUse(t.house, t.odile, draft.id, draft.revision, 'first'));
	({ id } = ok(await newBatch(t.house, t.odile, template, 'list.csv', csv([HEADS, ['Ann', 'ann@post.example']]))));
	folder = path.join(t.house.config.folder, 'in', id);
});
afterEach(() => rmSync(t.house.config.folder, { recursive: true }));

const sheets = () => needsYou(t.house, t.odile).filter((need) => need.what === 'sheet');
const people = () => t.house.db.prepare('SELECT email FROM packet_people ORDER BY email').pluck().all();
const drop = (name: string, bytes: Uint8Array | string) => {
	mkdirSync(folder, { recursive: true });
	writeFileSync(path.join(folder, name), bytes);
	utimesSync(path.join(folder, name), 0, 0);
};

describe('a batch that stands open', () => {
	it('sends what is ready of each sheet that comes; the rest is on the Desk until somebody has seen it', async () => {
		expect(await takeSheet(t.house, t.odile, id, csv([HEADS, ['Ben', 'ben@post.example']]))).toBeNull();
		await idle(t);
		expect(people()).toEqual([]);
		expect(standOpen(t.house, t.odile, id, true)).toBeNull();
		const rows = [
			HEADS,
			['Ben', 'ben@post.example'],
			['Cy', 'cy@post'],
			['D', 'd@post.example'],
			['E', 'd@post.example']
		];
		expect(await takeSheet(t.house, t.odile, id, csv(rows))).toBeNull();
		await idle(t);
		expect(people()).toEqual(['ben@post.example']);
		expect(sheets()).toEqual([
			{
				what: 'sheet',
				batch: id,
				name: 'list.csv',
				say: 'Of its newest sheet these wait for you: 1 faulty, 2 that stand there twice.'
			}
		]);
		seenTrouble(t.house, id);
		expect(sheets()).toEqual([]);
		expect(
			await takeSheet(t.house, t.odile, id, csv([HEADS, ['Ben', 'ben@post.example'], ['F', 'f@post.example']]))
		).toBeNull();
		await idle(t);
		expect(people()).toEqual(['ben@post.example', 'f@post.example']);
		expect(mails(t.house, 'ben@post.example')).toHaveLength(1);
		standOpen(t.house, t.odile, id, false);
		expect(standingOpen(t.house, id).open).toBe(false);
	});
	it('takes what is dropped into its folder, each sheet once, where the office permits it', async () => {
		standOpen(t.house, t.odile, id, true);
		drop('monday.csv', csv([HEADS, ['Ben', 'ben@post.example']]));
		await lookForSheets(t.house);
		expect(readdirSync(folder)).toEqual(['monday.csv']);
		ok(setOrganisation(t.house.db, { ...organisation(t.house.db), sheetsIn: true }));
		expect(dropFolder(t.house, id)).toBe(folder);
		await lookForSheets(t.house);
		await idle(t);
		expect(people()).toEqual(['ben@post.example']);
		expect(readdirSync(path.join(folder, 'taken'))[0]).toMatch(/ monday\.csv$/);
		// one that may still be written waits; what is no sheet is left alone, a link outside too
		drop('new.csv', csv([HEADS, ['Cy', 'cy@post.example']]));
		utimesSync(path.join(folder, 'new.csv'), new Date(), new Date());
		drop('notes.txt', 'no sheet');
		mkdirSync(path.join(folder, 'folder.csv'));
		await lookForSheets(t.house);
		expect(readdirSync(folder)).toEqual(['folder.csv', 'new.csv', 'notes.txt', 'taken']);
		expect(sheets()).toEqual([]);
	});
	it('says what could not be taken, puts it aside, and takes the others', async () => {
		ok(setOrganisation(t.house.db, { ...organisation(t.house.db), sheetsIn: true }));
		standOpen(t.house, t.odile, id, true);
		drop('a-broken.xlsx', 'PK nothing');
		drop('b-huge.csv', 'x');
		truncateSync(path.join(folder, 'b-huge.csv'), 11 * 1024 * 1024);
		utimesSync(path.join(folder, 'b-huge.csv'), 0, 0);
		await lookForSheets(t.house);
		expect(sheets()).toMatchObject([
			{ say: expect.stringMatching(/^“b-huge.csv” was not taken: A sheet may have 10 MB/) }
		]);
		expect(readdirSync(path.join(folder, 'refused'))).toHaveLength(2);
		drop('c-good.csv', csv([HEADS, ['Ben', 'ben@post.example']]));
		await lookForSheets(t.house);
		await idle(t);
		expect(people()).toEqual(['ben@post.example']);
		expect(sheets()).toEqual([]);
		symlinkSync('/etc/hostname', path.join(folder, 'd-link.csv'));
		await lookForSheets(t.house);
		expect(readdirSync(path.join(folder, 'refused'))).toHaveLength(2);
		expect(readdirSync(folder)).toContain('d-link.csv');
	});
	it('takes nothing for somebody whose account is closed', async () => {
		ok(setOrganisation(t.house.db, { ...organisation(t.house.db), sheetsIn: true }));
		const ruben = await account(t.house, 'Ruben', 'ruben@x.example', 'preparer');
		standOpen(t.house, ruben, id, true);
		closeAccount(t.house, BY_ITSELF, ruben.id);
		drop('list.csv', csv([HEADS, ['Ben', 'ben@post.example']]));
		await lookForSheets(t.house);
		await idle(t);
		expect(people()).toEqual([]);
		expect(sheets()).toMatchObject([{ say: expect.stringContaining('no account any more') }]);
	});
});

it('a row is rehearsed as it would go, and nothing is made of it', () => {
	const batch = ok(readBatch(t.house, id));
	const plan = ok(planOfRow(t.house, t.odile, batch, 0));
	expect(plan.people[0]).toMatchObject({ name: 'Ann', email: 'ann@post.example' });
	expect(t.house.db.prepare('SELECT count(*) FROM drafts').pluck().get()).toBe(0);
	expect(planOfRow(t.house, t.odile, batch, 1)).toMatchObject({ code: 'no-cell' });
});

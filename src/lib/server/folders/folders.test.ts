import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import {
	account,
	FROM,
	mails,
	ok,
	out,
	realPlan,
	signs,
	testHouse,
	visitor,
	type TestHouse
} from '../../../../e2e/kit/house';
import { closePool } from '../../press';
import type { Account } from '../accounts';
import { permitted } from '../access';
import { checkData } from '../check';
import { countOut, needsYou } from '../desk';
import { packetPage } from '../lists';
import { officeEvents, sentenceOf } from '../office-record';
import { beginCorrection, sendCorrection } from '../packets/correcting';
import { moveToFolder, newVersion, nudge, withdraw } from '../packets/office';
import { judgeHeld } from '../identity';
import { packetView } from '../packets/packet-view';
import { sendPlan } from '../packets/sending';
import { records } from '../records';
import { enterCode } from '../signing';
import { describeTemplate, newTemplate, planForUse, putInUse } from '../templates';
import { folderNamed, foldersFor, listFolders, openFolder, removeFolder, setMember } from '.';

afterAll(() => closePool());

let t: TestHouse;
let ruben: Account;
let tamsin: Account;
let vera: Account;
const doer = () => ({ account: t.odile, address: '203.0.113.9' });

beforeEach(async () => {
	t = await testHouse();
	ruben = await account(t.house, 'Ruben', 'ruben@brindlevale.example', 'preparer');
	tamsin = await account(t.house, 'Tamsin', 'tamsin@brindlevale.example', 'preparer');
	vera = await account(t.house, 'Vera', 'vera@brindlevale.example', 'viewer');
	folderNamed(t.house, doer(), 'Claims');
	openFolder(t.house, doer(), 'Claims', false);
	setMember(t.house, doer(), 'Claims', ruben.id, 'prepares');
});

describe('a closed folder', () => {
	it('keeps its packets from the lists, numbers and deeds of others', async () => {
		const id = await out(t, [['kit']], {}, { sending: { folder: 'Claims' } });
		const open = await out(t, [['maren']]);
		expect(
			packetPage(t.house, ruben, { list: 'open' })
				.rows.map((row) => row.id)
				.sort()
		).toEqual([id, open].sort());
		for (const other of [tamsin, vera]) {
			expect(packetPage(t.house, other, { list: 'open' }).rows.map((row) => row.id)).toEqual([open]);
			expect(countOut(t.house, other)).toBe(1);
		}
		expect(countOut(t.house, ruben)).toBe(2);
		expect(withdraw(t.house, tamsin, id, 'mine now')).toMatchObject({ code: 'not-yours' });
		expect(nudge(t.house, tamsin, id, 'kit')).toMatchObject({ code: 'not-yours' });
		expect(newVersion(t.house, tamsin, id, 'mine')).toMatchObject({ code: 'not-yours' });
		expect(beginCorrection(t.house, tamsin, id)).toMatchObject({ code: 'not-yours' });
		ok(nudge(t.house, ruben, id, 'kit'));
		await signs(t, 'kit@post.example');
		expect(records(t.house, tamsin, '').rows).toEqual([]);
		expect(records(t.house, ruben, '').rows).toHaveLength(1);
	});

	it('shows no trouble of its packets to others, and not their names', async () => {
		await out(t, [['gone']], {}, { title: 'Secret claim', sending: { folder: 'Claims' } });
		expect(needsYou(t.house, ruben).map(({ what }) => what)).toContain('unreachable');
		expect(JSON.stringify(needsYou(t.house, tamsin))).not.toContain('Secret');
		expect(needsYou(t.house, tamsin).map(({ what }) => what)).not.toContain('unreachable');
	});

	it('lets who judges in it decide on what is held, and nobody else', async () => {
		const id = await out(
			t,
			[['kit']],
			{ kit: { check: { by: 'code', hash: 'salt:none' } } },
			{ sending: { folder: 'Claims' } }
		);
		for (let i = 0; i < 5; i++) {
			enterCode(t.house, visitor(t.house, 'kit@post.example'), `wrong${i}`, FROM);
			t.clock.now += 120_000;
		}
		expect(ok(packetView(t.house, id)).status).toBe('held');
		const letOn = (who: Account) => judgeHeld(t.house, who, id, 'kit', 'another try', { note: 'Known by voice.' });
		expect(letOn(ruben)).toMatchObject({ code: 'not-yours' });
		setMember(t.house, doer(), 'Claims', ruben.id, 'judges');
		ok(letOn(ruben));
	});

	it('is what a packet moves into and out of, by who prepares there, and the record says so', async () => {
		const id = await out(t, [['kit']]);
		expect(permitted(t.house.db, tamsin, 'see', 'packet', id)).toBe(true);
		expect(moveToFolder(t.house, tamsin, id, 'Claims')).toMatchObject({ code: 'no-folder' });
		ok(moveToFolder(t.house, ruben, id, 'Claims'));
		expect(permitted(t.house.db, tamsin, 'see', 'packet', id)).toBe(false);
		expect(ok(packetView(t.house, id)).record[0]!.said).toBe('It was put into the folder “Claims”. By Ruben.');
		await signs(t, 'kit@post.example');
		ok(moveToFolder(t.house, ruben, id, ''));
		expect(permitted(t.house.db, tamsin, 'see', 'packet', id)).toBe(true);
		expect(checkData(t.house.db).faults).toEqual([]);
	});

	it('stops a correction that was begun before the packet moved away', async () => {
		const id = await out(t, [['kit']]);
		const draft = ok(beginCorrection(t.house, tamsin, id));
		ok(moveToFolder(t.house, t.odile, id, 'Claims'));
		expect(sendCorrection(t.house, tamsin, draft.id, draft.revision)).toMatchObject({ code: 'not-yours' });
	});
});

describe('sending', () => {
	it('goes into the folder of its template unless another is chosen, and never where the sender doesn’t prepare', async () => {
		const plan = await realPlan(t.house, [['kit']]);
		const working = newTemplate(t.house, ruben, plan, 'Expense claim');
		const { template } = ok(putInUse(t.house, ruben, working.id, working.revision, ''));
		const about = { description: '', folder: 'claims', shared: 'office' as const, accounts: [] };
		expect(describeTemplate(t.house, ruben, template, about)).toBeNull();
		expect(planForUse(t.house, tamsin, template)).toMatchObject({ code: 'no-template' });
		const made = ok(planForUse(t.house, ruben, template)).plan;
		expect(ok(sendPlan(t.house, ruben, made)).folder).toBe('Claims');
		expect(ok(sendPlan(t.house, ruben, { ...made, sending: { folder: '' } })).folder).toBe('');
		expect(sendPlan(t.house, tamsin, { ...plan, sending: { folder: 'Claims' } })).toMatchObject({ code: 'no-folder' });
		expect(sendPlan(t.house, ruben, { ...plan, sending: { folder: 'Nowhere' } })).toMatchObject({ code: 'no-folder' });
		expect(foldersFor(t.house, tamsin)).toEqual([]);
		expect(foldersFor(t.house, ruben)).toEqual(['Claims']);
		expect(mails(t.house)).toEqual([]);
	});
});

describe('owners', () => {
	it('say who belongs to it; each change is in the office’s record, and only an empty one goes', async () => {
		expect(setMember(t.house, doer(), 'Claims', vera.id, 'prepares')).toMatchObject({ code: 'level-less' });
		expect(setMember(t.house, doer(), 'Claims', vera.id, 'sees')).toBeNull();
		expect(setMember(t.house, doer(), 'Claims', ruben.id, null)).toBeNull();
		expect(listFolders(t.house)[0]).toMatchObject({ open: false, members: [{ name: 'Vera', power: 'sees' }] });
		expect(officeEvents(t.house.db, undefined, 3).map(sentenceOf)).toEqual([
			'Folder “Claims”: Ruben is no member any more.',
			'Folder “Claims”: Vera sees in it.',
			'Folder “Claims”: Ruben prepares in it.'
		]);
		await out(t, [['kit']], {}, { sending: { folder: 'Claims' } });
		expect(removeFolder(t.house, doer(), 'Claims')).toMatchObject({ code: 'folder-full' });
		folderNamed(t.house, doer(), 'Empty');
		expect(folderNamed(t.house, doer(), ' EMPTY ')).toBe('Empty');
		expect(removeFolder(t.house, doer(), 'Empty')).toBeNull();
		expect(listFolders(t.house)).toHaveLength(1);
	});
});

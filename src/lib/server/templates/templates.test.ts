import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { account, mails, ok, realPlan, sent, testHouse, type TestHouse } from '../../../../e2e/kit/house';
import { pdf } from '../../../../e2e/kit/pdfs';
import { field } from '../../../../e2e/kit/plans';
import type { Plan } from '../../core/packet';
import { proposed } from '../../core/template';
import type { Account } from '../accounts';
import { checkData } from '../check';
import { newDraft, readDraft, saveDraft } from '../packets/drafts';
import { sendDraft } from '../packets/sending';
import { checkedGiven } from '../packets/plan-border';
import { packetView } from '../packets/packet-view';
import { addPaper } from '../papers';
import {
	binTemplate,
	bringBack,
	describeTemplate,
	draftFromTemplate,
	dropText,
	duplicateTemplate,
	joinAsDraft,
	listTemplates,
	newTemplate,
	partsOf,
	planForUse,
	putInUse,
	readTemplate,
	recognise,
	saveText,
	saveBench,
	savedTexts,
	sendTemplate,
	templateFromDraft,
	templateFromPacket,
	versionsOf,
	workingCopy
} from './index';

let t: TestHouse;
let tamsin: Account;
let ruben: Account;
let plan: Plan;

beforeAll(async () => {
	t = await testHouse();
	tamsin = await account(t.house, 'Tamsin Okoro', 'tamsin@brindlevale.example', 'preparer');
	ruben = await account(t.house, 'Ruben Vasquez-Lind', 'ruben@brindlevale.example', 'preparer');
	const real = await realPlan(t.house, [['maren'], ['tamsin']]);
	plan = {
		...real,
		message: 'Dear {musician.given name}, fee {fee}.',
		people: real.people.map((p) =>
			p.id === 'maren'
				? { ...p, name: '', email: '', role: 'Musician' }
				: {
						...p,
						name: 'Tamsin Okoro',
						email: 'tamsin@brindlevale.example',
						role: 'Manager',
						locked: ['name', 'address']
					}
		),
		fields: [...real.fields, field('fee', 'number', 'sender', { key: 'fee', page: 1 })],
		locked: ['message']
	};
});

const maren = { name: 'Maren Lindqvist', email: 'maren@post.example' };
const given = { title: 'Engagement, Maren', people: { maren }, answers: { fee: { number: '240' } } };

/** A template in use. */
function inUse(by: Account, of: Plan = plan, title = of.title): string {
	const draft = newTemplate(t.house, by, of, title);
	return ok(putInUse(t.house, by, draft.id, draft.revision, 'first')).template;
}

describe('a template', () => {
	let id: string;
	beforeEach(() => {
		id = inUse(tamsin);
	});

	it('is used in one step, and what is missing is said with nothing left behind', async () => {
		const before = t.house.db.prepare('SELECT count(*) AS n FROM drafts').get();
		expect(sendTemplate(t.house, tamsin, id, { people: {} })).toMatchObject({ code: 'no-name' });
		expect(t.house.db.prepare('SELECT count(*) AS n FROM drafts').get()).toEqual(before);
		const packet = ok(sendTemplate(t.house, tamsin, id, given));
		await t.runner.drain();
		expect(mails(t.house, maren.email).at(-1)!.text).toContain('Dear Maren, fee 240.');
		expect(ok(packetView(t.house, packet.packet)).from).toEqual([{ template: id, title: plan.title, version: 1 }]);
		expect(listTemplates(t.house, tamsin, { show: 'mine' }).find((row) => row.id === id)).toMatchObject({
			uses: 1
		});
		expect(checkData(t.house.db).faults).toEqual([]);
	});

	it('keeps what it has locked: by the server, at saving and at sending', () => {
		const draft = ok(draftFromTemplate(t.house, t.odile, id, given));
		const change = (part: Partial<Plan>) =>
			saveDraft(t.house, t.odile, draft.id, draft.revision, { ...draft.plan, ...part });
		expect(change({ message: 'Hello' })).toMatchObject({ code: 'locked', at: 'message' });
		expect(change({ from: undefined } as unknown as Partial<Plan>)).toMatchObject({ code: 'locked' });
		expect(change({ people: draft.plan.people.map((p) => ({ ...p, email: 'x@post.example' })) })).toMatchObject({
			code: 'locked'
		});
		ok(change({ title: 'Another title' }));
		expect(draftFromTemplate(t.house, tamsin, id, { people: { tamsin: maren } })).toMatchObject({ code: 'locked' });
	});

	it('changed afterwards leaves packets and drafts made from it alone; its versions come back', () => {
		const draft = ok(draftFromTemplate(t.house, tamsin, id, given));
		const copy = ok(workingCopy(t.house, tamsin, id));
		ok(
			saveDraft(t.house, tamsin, copy.id, copy.revision, { ...copy.plan, title: 'Second', message: 'New', locked: [] })
		);
		// while it is being changed, what is in use is the version before
		expect(ok(planForUse(t.house, tamsin, id)).plan.message).toBe(plan.message);
		expect(putInUse(t.house, tamsin, copy.id, copy.revision, '')).toMatchObject({ code: 'changed-elsewhere' });
		ok(putInUse(t.house, tamsin, copy.id, copy.revision + 1, 'other words'));
		expect(ok(planForUse(t.house, tamsin, id)).plan).toMatchObject({
			message: 'New',
			from: [{ template: id, version: 2 }]
		});
		expect(readDraft(t.house, draft.id)!.plan.message).toBe(plan.message);
		const packet = ok(sendDraft(t.house, tamsin, draft.id, draft.revision));
		expect(packet.plan.from).toEqual([{ template: id, version: 1 }]);
		expect(ok(bringBack(t.house, tamsin, id, 1)).version).toBe(3);
		expect(versionsOf(t.house, id).map((v) => [v.version, v.note])).toEqual([
			[3, 'Version 1 again'],
			[2, 'other words'],
			[1, 'first']
		]);
		expect(bringBack(t.house, tamsin, id, 9)).toMatchObject({ code: 'no-version' });
	});

	it('has one working copy; two people at it are told, and nothing is overwritten', () => {
		const copy = ok(workingCopy(t.house, tamsin, id));
		expect(ok(workingCopy(t.house, t.odile, id)).id).toBe(copy.id);
		ok(saveDraft(t.house, tamsin, copy.id, 1, { ...copy.plan, title: 'Mine' }));
		expect(saveDraft(t.house, t.odile, copy.id, 1, { ...copy.plan, title: 'Hers' })).toMatchObject({
			code: 'changed-elsewhere'
		});
		expect(readDraft(t.house, copy.id)!.plan.title).toBe('Mine');
		expect(sendDraft(t.house, tamsin, copy.id, 2)).toMatchObject({ code: 'is-template' });
	});

	it('is for its owner, for those it is shared with, and for owners of the office', () => {
		const sees = () => listTemplates(t.house, ruben, { show: 'all' }).some((row) => row.id === id);
		expect([sees(), readTemplate(t.house, ruben, id)]).toMatchObject([false, { code: 'no-template' }]);
		expect(sendTemplate(t.house, ruben, id, given)).toMatchObject({ code: 'no-template' });
		const about = { description: 'For guests', folder: 'Players', shared: 'chosen' as const, accounts: [ruben.id] };
		expect(describeTemplate(t.house, ruben, id, about)).toMatchObject({ code: 'no-template' });
		expect(describeTemplate(t.house, tamsin, id, about)).toBeNull();
		expect([sees(), ok(readTemplate(t.house, ruben, id)).folder]).toEqual([true, 'Players']);
		expect(workingCopy(t.house, ruben, id)).toMatchObject({ code: 'not-your-template' });
		const copied = ok(workingCopy(t.house, tamsin, id));
		expect(saveBench(t.house, ruben, copied.id, 1, copied.plan)).toMatchObject({ code: 'not-your-template' });
		ok(saveBench(t.house, tamsin, copied.id, 1, copied.plan));
		expect(binTemplate(t.house, ruben, id, true)).toMatchObject({ code: 'not-your-template' });
		expect(
			listTemplates(t.house, ruben, { show: 'shared', folder: 'Players', search: 'guests' }).map((row) => row.id)
		).toEqual([id]);
		expect(listTemplates(t.house, ruben, { show: 'all', search: '%' })).toEqual([]);
		// given to somebody else, it is theirs to change
		expect(describeTemplate(t.house, tamsin, id, { ...about, owner: 'nobody' })).toBeNull();
		expect(ok(readTemplate(t.house, tamsin, id)).owner).toBe(tamsin.id);
		expect(describeTemplate(t.house, tamsin, id, { ...about, owner: ruben.id })).toBeNull();
		ok(workingCopy(t.house, ruben, id));
		expect(readTemplate(t.house, tamsin, id)).toMatchObject({ code: 'no-template' });
		const copy = ok(duplicateTemplate(t.house, ruben, id));
		expect(copy.plan.title).toBe('Guest musician engagement, copy');
	});

	it('in the bin is not used, and comes out of it again', () => {
		expect(binTemplate(t.house, tamsin, id, true)).toBeNull();
		expect(planForUse(t.house, tamsin, id)).toMatchObject({ code: 'template-binned' });
		expect(listTemplates(t.house, tamsin, { show: 'bin' }).some((row) => row.id === id)).toBe(true);
		expect(binTemplate(t.house, tamsin, id, false)).toBeNull();
		ok(planForUse(t.house, tamsin, id));
	});

	it('whose document has gone says so, and what to do', () => {
		t.house.db.pragma('foreign_keys = OFF');
		const row = t.house.db.prepare('SELECT * FROM papers WHERE digest = ?').get(plan.papers[0]!.digest) as Record<
			string,
			unknown
		>;
		t.house.db.prepare('DELETE FROM papers WHERE digest = ?').run(plan.papers[0]!.digest);
		expect(sendTemplate(t.house, tamsin, id, given)).toMatchObject({
			code: 'paper-lost',
			say: expect.stringContaining('Exchange it')
		});
		t.house.db
			.prepare(
				`INSERT INTO papers (${Object.keys(row).join()}) VALUES (${Object.keys(row)
					.map((k) => `@${k}`)
					.join()})`
			)
			.run(row);
		t.house.db.pragma('foreign_keys = ON');
	});

	it('not in use yet can’t be used, and is not put in use with a role that has no name', () => {
		const draft = newTemplate(t.house, tamsin, { ...plan, people: plan.people.map(({ role: _role, ...p }) => p) });
		expect(planForUse(t.house, tamsin, draft.template!)).toMatchObject({ code: 'template-unfinished' });
		expect(putInUse(t.house, tamsin, draft.id, 1, '')).toMatchObject({ code: 'no-role' });
	});
});

describe('a template made of', () => {
	it('a packet that was sent: its people become roles, the office’s own stay', async () => {
		const packet = await sent(t, [['maren'], ['tamsin']]);
		const made = ok(templateFromPacket(t.house, t.odile, packet.packet));
		expect(made.plan.people.map((p) => [p.role, p.name, p.email])).toEqual([
			['Maren', '', ''],
			['Tamsin', '', '']
		]);
		const own = {
			...packet.plan,
			people: packet.plan.people.map((p) => (p.id === 'tamsin' ? { ...p, email: tamsin.email } : p))
		};
		const draft = newDraft(t.house, t.odile, own);
		expect(ok(templateFromDraft(t.house, t.odile, draft.id)).plan.people[1]).toMatchObject({
			role: 'Tamsin',
			email: tamsin.email
		});
		expect(readDraft(t.house, draft.id)!.plan).toEqual(own);
		expect(templateFromPacket(t.house, t.odile, 'nothing')).toMatchObject({ code: 'no-packet' });
	});
});

describe('a document', () => {
	it('is recognised among the templates one may use, and fitted with the template’s locks', async () => {
		const id = inUse(t.odile, { ...plan, title: 'Recognised' });
		// every template here has this document: which is meant is asked, and nobody is told of those that aren't theirs
		const seen = (by: Account) => recognise(t.house, by, plan.papers[0]!.digest);
		expect([seen(t.odile).verdict, seen(t.odile).templates.length, seen(t.odile).templates[0]!.share]).toEqual([
			'ask',
			5,
			1
		]);
		const shared = listTemplates(t.house, ruben, { show: 'all' }).map((row) => row.id);
		expect(seen(ruben).templates.every((one) => shared.includes(one.id))).toBe(true);
		const draft = newDraft(t.house, t.odile);
		const laid = { ...plan, from: [{ template: id, version: 1 }] };
		const saved = ok(saveDraft(t.house, t.odile, draft.id, 1, laid));
		expect(saved.base?.title).toBe('Recognised');
		expect(saveDraft(t.house, t.odile, draft.id, 2, { ...laid, message: 'Hello' })).toMatchObject({ code: 'locked' });
		// undone: it is no longer the template's
		const { from: _from, ...without } = laid;
		expect(ok(saveDraft(t.house, t.odile, draft.id, 2, { ...without, message: 'Hello' })).base).toBeNull();
		expect(saveDraft(t.house, ruben, draft.id, 3, laid)).toMatchObject({ code: 'no-template' });
	});
	it('that is like none is none', async () => {
		const other = ok(await addPaper(t.house, 'Minutes.pdf', await pdf(1)));
		expect(recognise(t.house, tamsin, other.digest).verdict).not.toBe('sure');
		expect(recognise(t.house, tamsin, 'f'.repeat(64)).templates).toEqual([]);
	});
});

describe('templates joined', () => {
	it('become one draft that names both and keeps both’s locks', async () => {
		const first = inUse(t.odile, plan);
		const second = inUse(t.odile, { ...plan, title: 'Release', locked: ['deadline'] });
		const wanted = { draft: null, templates: [first, second] };
		const parts = ok(partsOf(t.house, t.odile, wanted));
		const draft = ok(joinAsDraft(t.house, t.odile, wanted, proposed(parts)));
		expect(draft.plan.from!.map((one) => one.template)).toEqual([first, second]);
		expect(saveDraft(t.house, t.odile, draft.id, 1, { ...draft.plan, days: 3 })).toMatchObject({ code: 'locked' });
		expect([draft.plan.people.length, draft.plan.papers.length]).toEqual([2, 2]);
		const fewer = { ...proposed(parts), stops: [] };
		expect(joinAsDraft(t.house, t.odile, wanted, fewer)).toMatchObject({ code: 'parts-changed' });
		expect(partsOf(t.house, t.odile, { draft: null, templates: [first] })).toMatchObject({ code: 'too-few' });
		const own = newDraft(t.house, t.odile, await realPlan(t.house, [['kit']]));
		expect(ok(partsOf(t.house, t.odile, { draft: own.id, templates: [first] })).map((p) => p.title)).toEqual([
			'Guest musician engagement',
			plan.title
		]);
	});
});

describe('what comes from outside', () => {
	it('is checked: answers by their kinds, and nothing unknown', () => {
		expect(checkedGiven(plan, given)).toEqual(given);
		expect(checkedGiven(plan, { answers: { fee: { text: 'x' } } })).toMatchObject({ code: 'malformed', at: 'fee' });
		expect(checkedGiven(plan, { answers: { nothing: { text: 'x' } } })).toMatchObject({ code: 'no-field' });
		expect(checkedGiven(plan, { people: { maren: { name: 'x', email: 'y', duty: 'signs' } } })).toMatchObject({
			code: 'malformed'
		});
	});
	it('is kept as saved texts, by title', () => {
		expect(saveText(t.house, { title: ' ', subject: '', message: 'x' })).toMatchObject({ code: 'no-title' });
		ok(saveText(t.house, { title: 'Welcome', subject: 'Hello', message: 'Dear {title}' }));
		ok(saveText(t.house, { title: 'Welcome', subject: 'Hello', message: 'again' }));
		const [one, ...rest] = savedTexts(t.house);
		expect([one!.message, rest.length, dropText(t.house, one!.id)]).toEqual(['again', 0, []]);
	});
});

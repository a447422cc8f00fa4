import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import {
	FROM,
	linkTo,
	mails,
	ok,
	paper,
	realPlan,
	sent,
	signs,
	testHouse,
	visitor,
	type TestHouse
} from '../../../../e2e/kit/house';
import { typed } from '../../../../e2e/kit/plans';
import { closePool, toPem, verifySealed } from '../../press';
import { checkData } from '../check';
import { sealKeys } from '../keys';
import { packetState } from './act';
import { copyFile } from './copies';
import { draftsOf, newDraft, readDraft, saveDraft } from './drafts';
import { sendDraft, sendPlan } from './sending';
import { eventsOf } from './log';
import { answersAsCsv, answersAsJson } from './data';
import { correctAddress, ownLink, withdraw } from './office';
import { packetView } from './packet-view';
import {
	addMarkPicture,
	decline,
	finish,
	maySeePicture,
	openAndConsent,
	saveAnswers,
	signingView,
	visit
} from '../signing';
import { PDFDocument } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { pdf } from '../../../../e2e/kit/pdfs';
import { seal as sealDoc } from '../../press/seal/seal';
import { addPaper } from '../papers';

let t: TestHouse;
beforeEach(async () => {
	t = await testHouse();
});
afterAll(() => closePool());
const ROUTE = [['maren'], ['tamsin'], ['ruben:gets a copy']];

describe('a packet from end to end', () => {
	it('goes from one to the next by mail, is sealed, and everybody gets the copies', async () => {
		const { packet } = await sent(t, ROUTE);
		await t.runner.drain();
		expect(mails(t.house).map((m) => m.recipient)).toEqual(['maren@post.example']);
		await signs(t, 'maren@post.example');
		expect(mails(t.house).at(-1)).toMatchObject({
			recipient: 'tamsin@post.example',
			subject: 'To sign: Guest musician engagement'
		});
		await signs(t, 'tamsin@post.example');

		const copies = mails(t.house).slice(2);
		expect(copies.map((m) => m.recipient)).toEqual(['maren@post.example', 'tamsin@post.example', 'ruben@post.example']);
		expect(JSON.parse(copies[2]!.attachments)).toHaveLength(2);
		const state = packetState(t.house.db, packet);
		if (state.status !== 'completed') throw new Error(state.status);
		const { seal, stamp } = await sealKeys(t.house);
		for (const what of ['paper', 'evidence']) {
			const verdict = await verifySealed(copyFile(t.house, state, what)!.bytes, [
				toPem(seal.issuer),
				toPem(stamp.issuer)
			]);
			expect(verdict).toMatchObject({ verdict: 'genuine', reference: state.reference });
		}
		expect(eventsOf(t.house.db, packet).map((e) => e.type)).toEqual([
			'PacketSent',
			'StopOpened',
			'MessageSent',
			'PaperOpened',
			'ConsentGiven',
			'PersonFinished',
			'StopOpened',
			'MessageSent',
			'PaperOpened',
			'ConsentGiven',
			'PersonFinished',
			'PacketCompleted',
			'CopySealed',
			'EvidenceSealed',
			'MessageSent',
			'MessageSent',
			'MessageSent'
		]);
		expect(JSON.parse(answersAsJson(state))).toMatchObject({ 'maren-sig': 'maren', tamsin_name: 'tamsin' });
		expect(answersAsCsv(state)).toContain('tamsin_name,tamsin-name,name,Tamsin,tamsin,tamsin\r\n');
		expect(checkData(t.house.db).faults).toEqual([]);
		// done once: nothing is left to do, and doing it again does nothing
		const count = mails(t.house).length;
		await t.runner.drain();
		expect(mails(t.house)).toHaveLength(count);
	});

	it('ends by declining: those who had it are told why, those to come never hear of it', async () => {
		const { packet } = await sent(t, [['maren', 'kit'], ['tamsin']]);
		await t.runner.drain();
		const who = visitor(t.house, 'maren@post.example');
		ok(openAndConsent(t.house, who, FROM));
		ok(decline(t.house, who, 'I am abroad.', FROM));
		await t.runner.drain();
		expect(
			mails(t.house)
				.slice(2)
				.map((m) => [m.recipient, m.text.includes('I am abroad.')])
		).toEqual([['kit@post.example', true]]);
		expect(packetView(t.house, packet)).toMatchObject({
			status: 'declined',
			why: expect.stringContaining('I am abroad.')
		});
	});

	it('is withdrawn with a reason that reaches those who had it', async () => {
		const { packet } = await sent(t, ROUTE);
		await t.runner.drain();
		await signs(t, 'maren@post.example');
		expect(withdraw(t.house, t.odile, packet, ' ')).toMatchObject({ code: 'reason-missing' });
		ok(withdraw(t.house, t.odile, packet, 'wrong hall number'));
		await t.runner.drain();
		const told = mails(t.house).filter((m) => m.subject.startsWith('Withdrawn'));
		expect(told.map((m) => m.recipient)).toEqual(['maren@post.example', 'tamsin@post.example']);
		expect(told[0]!.text).toContain('wrong hall number');
	});

	it('runs out of time by the clock', async () => {
		const { packet } = await sent(t, ROUTE);
		t.clock.now += 9 * 86_400_000;
		await t.runner.drain();
		expect(packetState(t.house.db, packet).status).toBe('out');
		t.clock.now += 2 * 86_400_000;
		await t.runner.drain();
		expect(packetState(t.house.db, packet).status).toBe('expired');
		expect(mails(t.house).filter((m) => m.subject.startsWith('Last day over'))).toHaveLength(1);
	});

	it('shows whom a message did not reach; a corrected address revokes the old link and sends a new one', async () => {
		const plan = await realPlan(t.house, ROUTE);
		plan.people[1]!.email = 'gone@post.example';
		const { packet } = ok(sendPlan(t.house, t.odile, plan));
		await t.runner.drain();
		const first = linkTo(t.house, 'maren@post.example');
		ok(correctAddress(t.house, t.odile, packet, 'maren', 'maren.l@post.example'));
		await t.runner.drain();
		expect(visit(t.house, first)).toMatchObject({ code: 'link-revoked' });
		await signs(t, 'maren.l@post.example');
		expect(packetView(t.house, packet)).toMatchObject({
			people: [{ standing: 'done' }, { standing: 'unreachable' }, {}]
		});
		ok(correctAddress(t.house, t.odile, packet, 'tamsin', 'tamsin@post.example'));
		await t.runner.drain();
		expect(packetState(t.house.db, packet)).toMatchObject({ people: { tamsin: { is: 'notified' } } });
	});
});

describe('a link', () => {
	it('must be right to the last letter, and opens only its own packet', async () => {
		await sent(t, ROUTE);
		await t.runner.drain();
		const good = linkTo(t.house, 'maren@post.example');
		for (const wrong of [
			'',
			'x',
			good.slice(0, -1),
			good.slice(0, -1) + (good.endsWith('A') ? 'B' : 'A'),
			`${good}A`,
			"' OR 1=1 --"
		])
			expect(visit(t.house, wrong)).toMatchObject({ code: 'no-link' });
		expect(t.house.db.prepare('SELECT count(*) AS n FROM links WHERE token_hash = ?').get(good)).toEqual({ n: 0 });
	});
	it('used again after finishing shows, and does nothing', async () => {
		const { packet } = await sent(t, ROUTE);
		await t.runner.drain();
		const before = visitor(t.house, 'maren@post.example');
		await signs(t, 'maren@post.example');
		const events = eventsOf(t.house.db, packet).length;
		// a second tab that was open all the while
		ok(finish(t.house, before, { 'maren-sig': typed('Another') }, FROM));
		expect(eventsOf(t.house.db, packet)).toHaveLength(events);
		const now = visitor(t.house, 'maren@post.example');
		expect(signingView(t.house, now)).toMatchObject({ state: 'finished', complete: false, copies: [] });
		expect(decline(t.house, now, 'second thoughts', FROM)).toMatchObject({ code: 'already-finished' });
		expect(saveAnswers(t.house, now, {}, FROM)).toMatchObject({ code: 'not-your-turn' });
	});
	it.each([
		['withdrawal', (id: string) => void ok(withdraw(t.house, t.odile, id, 'wrong hall')), 'wrong hall'],
		['the deadline', () => void (t.clock.now += 20 * 86_400_000), 'The last day is over']
	])('after %s says so and shows no document', async (_, end, says) => {
		const { packet } = await sent(t, ROUTE);
		await t.runner.drain();
		const link = linkTo(t.house, 'maren@post.example');
		end(packet);
		const who = ok(visit(t.house, link));
		const view = signingView(t.house, who);
		expect(view).toMatchObject({ state: 'ended' });
		for (const part of ['papers', 'fields', 'answers']) expect(view).not.toHaveProperty(part);
		expect(view.state === 'ended' && view.why).toContain(says);
		expect(openAndConsent(t.house, who, FROM)).toMatchObject({ refused: true });
	});
	it('of somebody whose turn has not come shows nothing of the document', async () => {
		const { packet } = await sent(t, ROUTE);
		ok(correctAddress(t.house, t.odile, packet, 'tamsin', 'new@post.example'));
		const token = ownLink(t.house, { ...t.odile, email: 'new@post.example' }, packet);
		expect(token).toMatchObject({ code: 'not-your-turn' });
	});
});

describe('what is entered', () => {
	it('is kept for the next visit, only for one’s own fields, and never shown to others before the end', async () => {
		await sent(t, [['maren', 'kit']]);
		await t.runner.drain();
		const maren = visitor(t.house, 'maren@post.example');
		const view = signingView(t.house, maren);
		expect(view.state === 'turn' && view.saved).toEqual({ 'maren-name': { text: 'Maren' } });
		ok(saveAnswers(t.house, maren, { 'maren-note': { text: 'half' }, 'kit-note': { text: 'forged' } }, FROM));
		expect(signingView(t.house, visitor(t.house, 'maren@post.example'))).toMatchObject({
			saved: { 'maren-note': { text: 'half' } }
		});
		const kit = signingView(t.house, visitor(t.house, 'kit@post.example'));
		expect(JSON.stringify(kit)).not.toContain('half');
		expect(JSON.stringify(kit)).not.toContain('forged');
	});
	it('is refused with letters that can’t be printed, and nothing is lost', async () => {
		await sent(t, ROUTE);
		await t.runner.drain();
		const who = visitor(t.house, 'maren@post.example');
		ok(openAndConsent(t.house, who, FROM));
		const given = { 'maren-sig': typed('Maren'), 'maren-name': { text: 'Marn 𓀀' } };
		ok(saveAnswers(t.house, who, given, FROM));
		expect(finish(t.house, who, given, FROM)).toMatchObject({
			code: 'no-letters',
			at: 'maren-name',
			say: expect.stringContaining('𓀀')
		});
		expect(signingView(t.house, visitor(t.house, 'maren@post.example'))).toMatchObject({
			saved: { 'maren-name': { text: 'Marn 𓀀' } }
		});
	});
	it('may be a picture: judged by its content, its paper taken away, seen by nobody else', async () => {
		await sent(t, [['maren', 'kit']]);
		await t.runner.drain();
		const who = visitor(t.house, 'maren@post.example');
		expect(await addMarkPicture(t.house, who, Buffer.from('MZ this is a program'))).toMatchObject({
			code: 'not-a-picture'
		});
		expect(await addMarkPicture(t.house, who, new Uint8Array(11 * 1024 * 1024))).toMatchObject({
			code: 'file-too-large'
		});
		const ink = Buffer.from(
			'<svg xmlns="http://www.w3.org/2000/svg" width="300" height="100"><rect width="300" height="100" fill="#f8f8f4"/><path d="M10 60 L280 40" stroke="#112" stroke-width="8"/></svg>'
		);
		const { digest } = ok(await addMarkPicture(t.house, who, await sharp(ink).jpeg().toBuffer()));
		const { bytes } = t.house.db
			.prepare<[string], { bytes: Buffer }>('SELECT bytes FROM blobs WHERE digest = ?')
			.get(digest)!;
		const { data, info } = await sharp(bytes).raw().toBuffer({ resolveWithObject: true });
		expect(data[3]).toBe(0);
		expect(data[(50 * info.width + 150) * 4 + 3]).toBe(255);
		expect(maySeePicture(t.house, who, digest)).toBe(false);
		ok(saveAnswers(t.house, who, { 'maren-sig': { way: 'picture', digest } }, FROM));
		expect(maySeePicture(t.house, who, digest)).toBe(true);
		expect(maySeePicture(t.house, visitor(t.house, 'kit@post.example'), digest)).toBe(false);
		ok(openAndConsent(t.house, who, FROM));
		expect(
			finish(
				t.house,
				who,
				{ 'maren-sig': { way: 'picture', digest: 'b'.repeat(64) }, 'maren-name': { text: 'M' } },
				FROM
			)
		).toMatchObject({ code: 'picture-lost' });
		ok(finish(t.house, who, { 'maren-sig': { way: 'picture', digest }, 'maren-name': { text: 'M' } }, FROM));
		await signs(t, 'kit@post.example');
		expect(packetState(t.house.db, who.packet.packet)).toMatchObject({ evidence: expect.any(String) });
	});
});

describe('a PDF with a signature of its own', () => {
	it('goes along untouched, as an attachment: shown to signers, kept in the record, given with the copies', async () => {
		const { seal, stamp } = await sealKeys(t.house);
		const doc = await PDFDocument.load(await pdf(1));
		const bytes = await sealDoc(
			doc,
			{ seal, stamp },
			{ organisation: 'Elsewhere', reason: 'r', record: null, now: new Date() }
		);
		const kept = ok(await addPaper(t.house, 'Insurance.pdf', bytes));
		if (!('attached' in kept)) throw new Error('it should have been attached');
		const plan = await realPlan(t.house, [['maren']]);
		const draft = newDraft(t.house, t.odile);
		const stranger = { ...plan, attachments: [{ id: 'a', name: 'x', digest: plan.papers[0]!.digest }] };
		expect(saveDraft(t.house, t.odile, draft.id, 1, stranger)).toMatchObject({
			code: 'unknown-paper',
			at: 'attachments'
		});
		ok(
			saveDraft(t.house, t.odile, draft.id, 1, {
				...plan,
				attachments: [{ id: 'a', name: kept.name, digest: kept.digest }]
			})
		);
		const { packet } = ok(sendDraft(t.house, t.odile, draft.id, 2));
		await t.runner.drain();
		expect(signingView(t.house, visitor(t.house, 'maren@post.example'))).toMatchObject({
			attachments: [{ name: 'Insurance' }]
		});
		await signs(t, 'maren@post.example');
		const state = packetState(t.house.db, packet);
		if (state.status !== 'completed') throw new Error(state.status);
		expect(copyFile(t.house, state, 'a')!.bytes.equals(Buffer.from(bytes))).toBe(true);
		expect(JSON.parse(mails(t.house).at(-1)!.attachments)).toHaveLength(3);
		expect(checkData(t.house.db).faults).toEqual([]);
	});
});

describe('a draft', () => {
	it('changed in another tab is not overwritten, and the second tab keeps what it has', async () => {
		const draft = newDraft(t.house, t.odile);
		ok(saveDraft(t.house, t.odile, draft.id, 1, { ...draft.plan, title: 'from the first tab' }));
		expect(saveDraft(t.house, t.odile, draft.id, 1, { ...draft.plan, title: 'from the second' })).toMatchObject({
			code: 'changed-elsewhere'
		});
		expect(readDraft(t.house, draft.id)).toMatchObject({ revision: 2, plan: { title: 'from the first tab' } });
		expect(sendDraft(t.house, t.odile, draft.id, 1)).toMatchObject({ code: 'changed-elsewhere' });
	});
	it('names only documents that were taken in here, as they are', async () => {
		const draft = newDraft(t.house, t.odile);
		const { name, digest, pages } = await paper(t.house);
		const papers = [{ id: 'd', name, digest, pages }];
		expect(
			saveDraft(t.house, t.odile, draft.id, 1, { ...draft.plan, papers: [{ ...papers[0]!, digest: 'c'.repeat(64) }] })
		).toMatchObject({ code: 'unknown-paper' });
		expect(
			saveDraft(t.house, t.odile, draft.id, 1, {
				...draft.plan,
				papers: [{ ...papers[0]!, pages: [{ ...pages[0]!, width: 900 }, pages[1]!] }]
			})
		).toMatchObject({ code: 'unknown-paper' });
		ok(saveDraft(t.house, t.odile, draft.id, 1, { ...draft.plan, papers }));
	});
	it.each([
		['a plan that is no plan', 'hello'],
		['something more than a plan', { __proto__: null, extra: 1 }],
		['a field of an unknown kind', { fields: [{ kind: 'constructor' }] }]
	])('refuses %s and keeps what was there', (_, wrong) => {
		const draft = newDraft(t.house, t.odile);
		const plan = typeof wrong === 'string' ? wrong : { ...draft.plan, ...wrong };
		expect(saveDraft(t.house, t.odile, draft.id, 1, plan)).toMatchObject({ code: 'malformed' });
		expect(readDraft(t.house, draft.id)?.revision).toBe(1);
	});
	it('with something to put right is not sent and stays; sent, it is gone', async () => {
		const draft = newDraft(t.house, t.odile, await realPlan(t.house, ROUTE));
		const bad = structuredClone(draft.plan);
		bad.people[0]!.email = 'maren at home';
		ok(saveDraft(t.house, t.odile, draft.id, 1, bad));
		expect(sendDraft(t.house, t.odile, draft.id, 2)).toMatchObject({ code: 'bad-address', at: 'maren' });
		expect(draftsOf(t.house, t.odile)).toMatchObject([{ id: draft.id, open: 1 }]);
		ok(
			saveDraft(t.house, t.odile, draft.id, 2, {
				...draft.plan,
				people: draft.plan.people.map((p) => ({ ...p, email: ` ${p.email} ` }))
			})
		);
		ok(sendDraft(t.house, t.odile, draft.id, 3));
		expect(readDraft(t.house, draft.id)).toBeNull();
		expect(sendDraft(t.house, t.odile, draft.id, 3)).toMatchObject({ code: 'no-draft' });
	});
});

it('names with markup and direction marks do no harm in messages', async () => {
	const plan = await realPlan(t.house, [['maren']]);
	plan.title = '<img src=x onerror=alert(1)> & "co"';
	plan.message = '<script>alert(1)</script>';
	ok(sendPlan(t.house, t.odile, plan));
	await t.runner.drain();
	const { html, text } = mails(t.house)[0]!;
	expect(html).not.toContain('<script>');
	expect(html).not.toContain('<img');
	expect(text).toContain('<script>alert(1)</script>');
});

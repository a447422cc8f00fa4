import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import {
	account,
	answersOf,
	FROM,
	linkTo,
	mails,
	ok,
	out,
	signs,
	testHouse,
	type TestHouse
} from '../../../../e2e/kit/house';
import { field } from '../../../../e2e/kit/plans';
import { pdf } from '../../../../e2e/kit/pdfs';
import type { Plan, PlanPerson } from '../../core/packet';
import { isRefusal } from '../../core/refusal';
import { moved } from '../../core/route';
import { closePool } from '../../press';
import { faultsOf } from '../../core/audit';
import { sha256Bytes, sha256Text } from '../ids';
import { checkData } from '../check';
import { needsYou } from '../desk';
import { packetPage } from '../lists';
import { findPackets } from '../records';
import { addPaper } from '../papers';
import { organisation, setOrganisation } from '../settings';
import { changedWords, finish, noteShown, openAndConsent, saveAnswers, signingView, visit } from '../signing';
import { packetState } from './act';
import {
	beginCorrection,
	correctingOf,
	correctionOf,
	goOnCorrecting,
	keepAsDraft,
	leaveCorrection,
	sendCorrection
} from './correcting';
import { readDraft, saveDraft, type Draft } from './drafts';
import { sendDraft } from './sending';
import { auditRecord, eventsOf } from './log';
import { correctAddress, nudge, withdraw } from './office';
import { packetView } from './packet-view';
import { scheduleDraft } from './schedule';

let t: TestHouse;
beforeEach(async () => {
	t = await testHouse();
});
afterAll(() => closePool());

const mailOf = (person: string) => `${person}@post.example`;
const MINUTE = 60_000;

/** Begins, changes and sends in one go. */
async function correct(packet: string, change: (plan: Plan) => Plan) {
	const sent = sendCorrection(t.house, t.odile, ...saved(ok(beginCorrection(t.house, t.odile, packet)), change));
	await t.runner.drain();
	return sent;
}
function saved(draft: Draft, change: (plan: Plan) => Plan): [string, number] {
	const next = ok(saveDraft(t.house, t.odile, draft.id, draft.revision, change(draft.plan)));
	if (next.corrects) goOnCorrecting(t.house, t.odile, next.corrects);
	return [next.id, next.revision];
}
const person = (id: string, change: Partial<PlanPerson>) => (plan: Plan) => ({
	...plan,
	people: plan.people.map((one) => (one.id === id ? { ...one, ...change } : one))
});
const types = (packet: string) => eventsOf(t.house.db, packet).map((e) => e.type);
const view = (token: string) => signingView(t.house, ok(visit(t.house, token)));
const sound = () => expect(checkData(t.house.db).faults).toEqual([]);

describe('a corrected address', () => {
	it('kills the old link and sends a new one; the record has both addresses', async () => {
		const packet = await out(t, [['maren'], ['tamsin']]);
		const old = linkTo(t.house, mailOf('maren'));
		ok(await correct(packet, person('maren', { email: 'right@post.example' })));
		expect(visit(t.house, old)).toMatchObject({ code: 'link-revoked' });
		expect(view(linkTo(t.house, 'right@post.example')).state).toBe('turn');
		expect(ok(packetView(t.house, packet)).record.map((r) => r.said)).toContain(
			'The address of Maren was put right, from maren@post.example to right@post.example. By Odile Farrow.'
		);
		await signs(t, 'right@post.example');
		await signs(t, mailOf('tamsin'));
		expect(packetState(t.house.db, packet).status).toBe('completed');
		expect(ok(packetView(t.house, packet)).sealed).toBe(true);
		// the record has both plans, and its proof holds only with both
		const record = auditRecord(t.house.db, packet);
		expect(record.corrected).toHaveLength(1);
		expect(faultsOf(record, sha256Text, sha256Bytes)).toEqual([]);
		const { corrected: _corrected, ...without } = record;
		expect(faultsOf(without, sha256Text, sha256Bytes)).not.toEqual([]);
		sound();
	});
});

describe('while it is corrected', () => {
	it('it is shut to signers, what they type is kept, and it opens by itself 30 minutes after the last change', async () => {
		const packet = await out(t, [['maren'], ['tamsin']]);
		const link = linkTo(t.house, mailOf('maren'));
		ok(openAndConsent(t.house, ok(visit(t.house, link)), FROM));
		const draft = ok(beginCorrection(t.house, t.odile, packet));
		expect(view(link).state).toBe('correcting');
		const who = ok(visit(t.house, link));
		const given = answersOf(who.packet.plan.fields, 'maren');
		expect(finish(t.house, who, given, FROM)).toMatchObject({ code: 'being-corrected' });
		expect(ok(saveAnswers(t.house, who, given, FROM))).toMatchObject({ stale: true });
		expect(nudge(t.house, t.odile, packet, 'maren')).toMatchObject({ code: 'being-corrected' });
		expect(packetPage(t.house, t.odile, { list: 'open' }).rows[0]).toMatchObject({
			status: 'out',
			shutUntil: '2026-11-24T09:30:00.000Z'
		});
		t.clock.now += 20 * MINUTE;
		saved(draft, (plan) => ({ ...plan, message: 'Half done' }));
		t.clock.now += 29 * MINUTE;
		await t.runner.drain();
		expect(view(link).state).toBe('correcting');
		t.clock.now += MINUTE;
		await t.runner.drain();
		expect(view(link)).toMatchObject({ state: 'turn', message: '', saved: given });
		expect(types(packet).slice(-3)).toEqual(['CorrectionBegun', 'CorrectionGoesOn', 'CorrectionLeft']);
		// what was changed is kept, and on the Desk
		const [id, revision] = [draft.id, readDraft(t.house, draft.id)!.revision];
		expect(sendCorrection(t.house, t.odile, id, revision)).toMatchObject({ code: 'not-being-corrected' });
		expect(needsYou(t.house, t.odile).find((n) => n.what === 'draft')).toMatchObject({
			draft: id,
			corrects: ok(packetView(t.house, packet)).reference
		});
		expect(ok(beginCorrection(t.house, t.odile, packet)).plan.message).toBe('Half done');
		sound();
	});
	it('left as it was, it opens at once and the working copy is gone', async () => {
		const packet = await out(t, [['maren']]);
		const draft = ok(beginCorrection(t.house, t.odile, packet));
		const tamsin = await account(t.house, 'Tamsin Roe', 'tamsin@brindlevale.example', 'preparer');
		expect(ok(beginCorrection(t.house, tamsin, packet)).id).toBe(draft.id);
		expect(correctingOf(t.house, draft)).toMatchObject({ by: 'Odile Farrow', ended: false });
		expect(leaveCorrection(t.house, t.odile, draft.id)).toBeNull();
		expect([correctionOf(t.house, packet), view(linkTo(t.house, mailOf('maren'))).state]).toEqual([null, 'turn']);
	});
	it('its working copy is neither sent as a packet nor at a time', async () => {
		const draft = ok(beginCorrection(t.house, t.odile, await out(t, [['maren']])));
		expect(sendDraft(t.house, t.odile, draft.id, 1)).toMatchObject({ code: 'is-correction' });
		expect(scheduleDraft(t.house, t.odile, draft.id, 1, '2027-01-01T09:00:00Z')).toMatchObject({
			code: 'is-correction'
		});
	});
	it('two who correct it don’t overwrite each other', async () => {
		const draft = ok(beginCorrection(t.house, t.odile, await out(t, [['maren']])));
		saved(draft, (plan) => ({ ...plan, message: 'One' }));
		expect(saveDraft(t.house, t.odile, draft.id, draft.revision, draft.plan)).toMatchObject({
			code: 'changed-elsewhere'
		});
		expect(sendCorrection(t.house, t.odile, draft.id, draft.revision)).toMatchObject({ code: 'changed-elsewhere' });
	});
});

describe('somebody who had opened it', () => {
	it('is told, keeps what still has its place, and finishes on the new plan', async () => {
		const packet = await out(t, [['maren']]);
		const link = linkTo(t.house, mailOf('maren'));
		const before = ok(visit(t.house, link));
		ok(openAndConsent(t.house, before, FROM));
		const given = answersOf(before.packet.plan.fields, 'maren');
		ok(saveAnswers(t.house, before, { ...given, 'maren-note': { text: 'old' } }, FROM));
		ok(
			await correct(packet, (plan) => ({
				...plan,
				fields: [
					...plan.fields
						.filter((f) => f.id !== 'maren-name')
						.map((f) => (f.id === 'maren-note' ? { ...f, kind: 'number' as const } : f)),
					field('maren-more', 'text', 'maren')
				]
			}))
		);
		// her page is still the old one
		expect(finish(t.house, before, given, FROM)).toMatchObject({ code: 'corrected-meanwhile' });
		const now = view(link);
		expect(now).toMatchObject({ state: 'turn', corrected: ['yours'], consented: true });
		expect(now.state === 'turn' && Object.keys(now.saved)).toEqual(['maren-sig']);
		const who = ok(visit(t.house, link));
		ok(noteShown(t.house, who, FROM));
		expect(view(link)).toMatchObject({ corrected: [] });
		ok(finish(t.house, who, { 'maren-sig': given['maren-sig']!, 'maren-more': { text: 'new' } }, FROM));
		expect(types(packet)).toContain('CorrectionShown');
		await t.runner.drain();
		expect(ok(packetView(t.house, packet)).sealed).toBe(true);
		sound();
	});
	it('waits where another stop was put before; what she types meanwhile is kept, and her link works again', async () => {
		const packet = await out(t, [['maren'], ['tamsin']]);
		await signs(t, mailOf('maren'));
		const link = linkTo(t.house, mailOf('tamsin'));
		const who = ok(visit(t.house, link));
		ok(openAndConsent(t.house, who, FROM));
		ok(saveAnswers(t.house, who, { 'tamsin-note': { text: 'a' } }, FROM));
		ok(
			await correct(packet, (plan) =>
				moved(
					{
						...plan,
						people: [...plan.people, { id: 'kit', name: 'Kit', email: mailOf('kit'), duty: 'approves' }],
						stops: [...plan.stops, { id: 'new', people: ['kit'] }]
					},
					'kit',
					1,
					'before'
				)
			)
		);
		expect(view(link).state).toBe('waiting');
		ok(saveAnswers(t.house, ok(visit(t.house, link)), { 'tamsin-note': { text: 'b' } }, FROM));
		await signs(t, mailOf('kit'));
		expect(view(link)).toMatchObject({ state: 'turn', saved: { 'tamsin-note': { text: 'b' } } });
		await signs(t, mailOf('tamsin'));
		expect(packetState(t.house.db, packet).status).toBe('completed');
		sound();
	});
	it('is let go by a letter; the link says so, and a way of proving it again counts anew', async () => {
		const packet = await out(t, [['maren', 'kit'], ['tamsin']]);
		const link = linkTo(t.house, mailOf('kit'));
		ok(
			await correct(packet, (plan) => ({
				...plan,
				title: 'Shorter engagement',
				people: plan.people.filter((p) => p.id !== 'kit'),
				stops: plan.stops.map((s) => ({ ...s, people: s.people.filter((id) => id !== 'kit') })),
				fields: plan.fields.filter((f) => f.person !== 'kit')
			}))
		);
		expect(mails(t.house, mailOf('kit')).at(-1)!.subject).toBe('No longer needed: Shorter engagement');
		expect(visit(t.house, link)).toMatchObject({ code: 'not-needed' });
		expect(mails(t.house, mailOf('maren'))).toHaveLength(1);
		expect(findPackets(t.house, t.odile, 'shorter').map((p) => p.title)).toEqual(['Shorter engagement']);
		const said = ok(packetView(t.house, packet)).record.map((r) => r.said);
		expect(said.find((s) => s.includes('Kit was taken off'))).toContain(
			'The title was “Guest musician engagement” and is now “Shorter engagement”.'
		);
		expect(said).toContain('The message was sent to Kit, kit@post.example.');
		await signs(t, mailOf('maren'));
		expect(mails(t.house, mailOf('tamsin'))).toHaveLength(1);
		sound();
	});
});

describe('the document', () => {
	it('is exchanged where the organisation permits it; whoever opened it is told', async () => {
		const packet = await out(t, [['maren']]);
		const link = linkTo(t.house, mailOf('maren'));
		ok(openAndConsent(t.house, ok(visit(t.house, link)), FROM));
		const other = ok(await addPaper(t.house, 'Other.pdf', await pdf(3)));
		if ('attached' in other) throw new Error(other.why);
		const exchange = (plan: Plan): Plan => ({
			...plan,
			papers: [{ id: 'paper', name: 'Other', digest: other.digest, pages: other.pages }]
		});
		expect(await correct(packet, exchange)).toMatchObject({ code: 'no-exchange' });
		ok(setOrganisation(t.house.db, { ...organisation(t.house.db), exchange: true }));
		ok(await correct(packet, exchange));
		expect(view(link)).toMatchObject({ corrected: ['documents'], papers: [{ digest: other.digest }] });
	});
});

describe('the words that changed', () => {
	const letter = async (fee: string) => {
		const paper = ok(
			await addPaper(t.house, 'Letter.pdf', await pdf(2, { text: `The fee is ${fee} for the evening.` }))
		);
		if ('attached' in paper) throw new Error(paper.why);
		return [{ id: 'paper', name: 'Letter', digest: paper.digest, pages: paper.pages }];
	};
	const struck = (link: string) =>
		changedWords(t.house, ok(visit(t.house, link))).flatMap(({ differences }) =>
			differences.map(({ struck, fresh, pageAfter }) => [struck, fresh, pageAfter])
		);
	it('are shown to whoever had opened it, from what they had seen, until they go on', async () => {
		ok(setOrganisation(t.house.db, { ...organisation(t.house.db), exchange: true }));
		const packet = await out(t, [['maren', 'tamsin']], {}, { papers: await letter('400 pounds') });
		const link = linkTo(t.house, mailOf('maren'));
		ok(openAndConsent(t.house, ok(visit(t.house, link)), FROM));
		for (const fee of ['450 pounds', '450 euros']) {
			const papers = await letter(fee);
			ok(await correct(packet, (plan) => ({ ...plan, papers })));
		}
		// twice since she had opened it: from what she had seen to what holds
		expect(struck(link)).toEqual([
			['400 pounds', '450 euros', 0],
			['400 pounds', '450 euros', 1]
		]);
		expect(struck(linkTo(t.house, mailOf('tamsin')))).toEqual([]);
		ok(noteShown(t.house, ok(visit(t.house, link)), FROM));
		expect(struck(link)).toEqual([]);
	});
	it('are shown of a new version to whoever had opened the one before, and to nobody else', async () => {
		const packet = await out(t, [['maren', 'tamsin']], {}, { papers: await letter('400 pounds') });
		ok(openAndConsent(t.house, ok(visit(t.house, linkTo(t.house, mailOf('maren')))), FROM));
		ok(withdraw(t.house, t.odile, packet, 'Wrong fee'));
		await out(t, [['maren', 'tamsin']], {}, { papers: await letter('500 pounds'), follows: packet });
		const link = linkTo(t.house, mailOf('maren'));
		expect(view(link)).toMatchObject({ corrected: [], earlier: true });
		expect(struck(link)[0]).toEqual(['400', '500', 0]);
		expect(view(linkTo(t.house, mailOf('tamsin')))).toMatchObject({ earlier: false });
		expect(struck(linkTo(t.house, mailOf('tamsin')))).toEqual([]);
	});
});

describe('what happened while a correction lay', () => {
	it('is taken up when it is gone on with', async () => {
		const packet = await out(t, [['maren'], ['tamsin']]);
		const draft = ok(beginCorrection(t.house, t.odile, packet));
		saved(draft, person('tamsin', { jobTitle: 'Manager' }));
		t.clock.now += 31 * MINUTE;
		await t.runner.drain();
		ok(correctAddress(t.house, t.odile, packet, 'tamsin', 'tam@post.example'));
		await signs(t, mailOf('maren'));
		const again = ok(beginCorrection(t.house, t.odile, packet));
		expect(again.plan.people[1]).toMatchObject({ email: 'tam@post.example', jobTitle: 'Manager' });
		expect(correctingOf(t.house, again)!.ground).toMatchObject({ finished: ['maren'], behind: ['s0'] });
		ok(sendCorrection(t.house, t.odile, again.id, again.revision));
		expect(readDraft(t.house, again.id)).toBeNull();
	});
	it('the packet ended: the work can be kept as a draft that links to it', async () => {
		const packet = await out(t, [['maren']]);
		const draft = ok(beginCorrection(t.house, t.odile, packet));
		const [id, revision] = saved(draft, (plan) => ({ ...plan, message: 'Better' }));
		ok(withdraw(t.house, t.odile, packet, 'Wrong fee'));
		expect(sendCorrection(t.house, t.odile, id, revision)).toMatchObject({ code: 'ended' });
		expect(correctingOf(t.house, readDraft(t.house, id)!)).toMatchObject({ ended: true, until: null });
		expect(isRefusal(beginCorrection(t.house, t.odile, packet))).toBe(true);
		const kept = ok(keepAsDraft(t.house, id));
		expect(kept.plan).toMatchObject({ message: 'Better', follows: packet });
		ok(sendDraft(t.house, t.odile, id, kept.revision));
		sound();
	});
});

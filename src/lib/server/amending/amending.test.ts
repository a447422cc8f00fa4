import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { account, idle, mails, ok, out, signs, testHouse, type TestHouse } from '../../../../e2e/kit/house';
import { pdf } from '../../../../e2e/kit/pdfs';
import { amendmentFaults, findAcross, withoutChange, withStruck, withSummary } from '../../core/amend';
import { EVERYBODY, type Paper, type Plan } from '../../core/packet';
import { shownPage, shownSize, toShown } from '../../core/page';
import { freshId } from '../../core/plan';
import { closePool, verifySealed } from '../../press';
import { youthConsent } from '../../../../demo/documents';
import { readBlob } from '../blobs';
import { checkData } from '../check';
import { file, setKeeping } from '../filing';
import { folderNamed, openFolder } from '../folders';
import { rootsOf } from '../keys';
import { BY_ITSELF } from '../office-record';
import { dispose, keepRule } from '../keeping';
import { act, office, packetState } from '../packets/act';
import { copiesOf } from '../packets/copies';
import { readDraft, saveDraft } from '../packets/drafts';
import { eventsOf } from '../packets/log';
import { withdraw } from '../packets/office';
import { rowsOf } from '../packets/rows';
import { sendDraft, sendPlan } from '../packets/sending';
import { addPaper, wordsOfPaper } from '../papers';
import { records } from '../records';
import { beginAmendment, chainOfPacket, summaryPaper, whatHolds } from './index';

let t: TestHouse;
beforeEach(async () => {
	t = await testHouse();
});
afterAll(closePool);

/** One that Gwen and Tamsin have signed, about this piece, sealed. */
async function agreed(piece = 'Serenade in Ré mineur'): Promise<string> {
	const letter = await youthConsent(piece);
	const taken = ok(await addPaper(t.house, 'Hall hire.pdf', letter.bytes));
	if ('attached' in taken) throw new Error(taken.why);
	const packet = await out(
		t,
		[['gwen'], ['tamsin']],
		{},
		{
			title: 'Hall hire',
			papers: [{ id: 'paper', name: 'Hall hire', digest: taken.digest, pages: taken.pages }]
		}
	);
	await signs(t, 'gwen@post.example');
	await signs(t, 'tamsin@post.example');
	await idle(t);
	return packet;
}
const shown = (paper: Paper, page: number) =>
	shownPage({ words: wordsOfPaper(t.house, paper.digest), drawn: [] } as never, page, paper.pages[page]!);
const textOf = (digest: string) =>
	wordsOfPaper(t.house, digest)
		.flat()
		.map(({ text }) => text)
		.join(' ');

/** The draft of an amendment with these words struck, its page of changes made, and everybody with something to sign. */
async function struck(packet: string, words: string, instead: string): Promise<string> {
	const draft = ok(await beginAmendment(t.house, t.odile, packet, { does: 'changes' }));
	const where = draft.plan.papers.flatMap((paper) =>
		paper.pages.flatMap((_, page) =>
			findAcross(shown(paper, page), words).map((found) => ({ paper: paper.id, page, found }))
		)
	);
	expect(where.length).toBeGreaterThan(0);
	const plan = withStruck(draft.plan, where, instead, shown, () => freshId('c'));
	const saved = ok(saveDraft(t.house, t.odile, draft.id, 1, plan));
	const summary = ok(await summaryPaper(t.house, saved.plan));
	ok(saveDraft(t.house, t.odile, draft.id, 2, withSummary(saved.plan, summary)));
	return draft.id;
}
async function sent(packet: string, words = 'Serenade', instead = 'Nonet'): Promise<string> {
	const id = await struck(packet, words, instead);
	const gone = ok(sendDraft(t.house, t.odile, id, readDraft(t.house, id)!.revision));
	await idle(t);
	return gone.packet;
}
async function allSign(): Promise<void> {
	await signs(t, 'gwen@post.example');
	await signs(t, 'tamsin@post.example');
	await idle(t);
}
const sound = () => expect(checkData(t.house.db).faults).toEqual([]);

describe('an amendment', () => {
	it('strikes words, says what stands instead, and asks each party for their initials beside each change', async () => {
		const first = await agreed();
		const id = await struck(first, 'Serenade in Ré mineur', 'Nonet');
		const { plan } = readDraft(t.house, id)!;
		const { changes, summary } = plan.amends!;
		expect(amendmentFaults(plan)).toEqual([]);
		expect(plan.papers[0]!.id).toBe(summary);
		for (const change of changes) {
			const own = plan.fields.filter((field) => field.change === change.id);
			expect(
				own
					.filter(({ kind }) => kind === 'initials')
					.map(({ person }) => person)
					.sort()
			).toEqual(['gwen', 'tamsin']);
			const notes = own.filter(({ kind }) => kind === 'note');
			expect(notes.every(({ person }) => person === EVERYBODY)).toBe(true);
			expect(notes[0]?.settings['text']).toMatch(change.how === 'note' ? /^\(\d\)$/ : /^Nonet$/);
			// nothing that was printed is hidden but what is struck
			const paper = plan.papers.find((one) => one.id === change.paper)!;
			const size = paper.pages[change.page]!;
			const words = shown(paper, change.page).rows.flatMap((row) => row.words);
			for (const field of own.filter(({ kind }) => kind !== 'strike')) {
				const rect = toShown(size, field.rect);
				const over = words.filter(
					(word) =>
						word.left < rect.left + rect.width &&
						rect.left < word.left + word.width &&
						word.top < rect.top + rect.height &&
						rect.top < word.top + word.height
				);
				expect(over.map(({ text }) => text)).toEqual([]);
				expect(rect.left).toBeGreaterThanOrEqual(0);
				expect(rect.left + rect.width).toBeLessThanOrEqual(shownSize(size).width);
			}
		}
		const back = withoutChange(plan, changes[0]!.id);
		expect(back.fields.some((field) => field.change === changes[0]!.id)).toBe(false);
		expect(back.amends!.changes).toHaveLength(changes.length - 1);
	});
	it('that is complete holds from then on; what it changed says so, is put away, and can be got back', async () => {
		const first = await agreed();
		const second = await sent(first);
		expect(chainOfPacket(t.house.db, first).holds?.id).toBe(first);
		expect(mails(t.house, 'gwen@post.example').at(-1)?.subject).toContain('Amendment 1 to Hall hire');
		await allSign();
		expect(packetState(t.house.db, first)).toMatchObject({ amended: { by: second }, put: { where: 'archive' } });
		expect(eventsOf(t.house.db, first).map(({ type }) => type)).toEqual(
			expect.arrayContaining(['PacketAmended', 'PacketPutAway'])
		);
		expect(chainOfPacket(t.house.db, second)).toMatchObject({
			order: [{ id: first }, { id: second }],
			holds: { id: second }
		});
		ok(file(t.house, t.odile, first, { do: 'restore' }));
		expect(packetState(t.house.db, first)).toMatchObject({ amended: { by: second }, put: null });
		sound();
		const state = packetState(t.house.db, second);
		if (state.status !== 'completed') throw new Error(state.status);
		const roots = rootsOf(t.house.db).map(({ pem }) => pem);
		for (const copy of copiesOf(t.house.db, state))
			expect((await verifySealed(readBlob(t.house.db, copy.digest)!.bytes, roots)).verdict).toBe('genuine');
		// a search finds what holds first, and what was struck as struck
		expect(records(t.house, t.odile, 'nonet').rows[0]).toMatchObject({ id: second });
		expect(records(t.house, t.odile, 'serenade').rows[0]).toMatchObject({
			id: second,
			found: { before: 'Instead of', paper: null }
		});
		expect(rowsOf(t.house.db, [first])[0]).toMatchObject({ amendedBy: second });
	});
	it('of an amended one builds on what holds; one that is withdrawn changes nothing', async () => {
		const first = await agreed();
		const second = await sent(first);
		await allSign();
		// begun from the first, it changes the second all the same
		const third = await sent(first, 'Nonet', 'Octet');
		expect(packetState(t.house.db, third)).toMatchObject({ plan: { amends: { packet: second, number: 2 } } });
		ok(withdraw(t.house, t.odile, third, 'by mistake'));
		await idle(t);
		expect(chainOfPacket(t.house.db, third).holds?.id).toBe(second);
		const fourth = await sent(second, 'Nonet', 'Quintet');
		await allSign();
		expect(chainOfPacket(t.house.db, first)).toMatchObject({ holds: { id: fourth } });
		expect(packetState(t.house.db, fourth)).toMatchObject({ plan: { amends: { number: 2 } } });
		sound();
		const copy = ok(await whatHolds(t.house, t.odile, first));
		const mio = await account(t.house, 'Mio', 'mio@x.example', 'preparer');
		openFolder(t.house, BY_ITSELF, folderNamed(t.house, BY_ITSELF, 'Board'), false);
		ok(file(t.house, t.odile, fourth, { do: 'folder', folder: 'Board' }));
		expect(await whatHolds(t.house, mio, first)).toMatchObject({ code: 'not-yours' });
		const taken = ok(await addPaper(t.house, copy.name, copy.bytes));
		if ('attached' in taken) throw new Error(taken.why);
		const text = textOf(taken.digest);
		for (const piece of ['reading copy', 'Quintet', 'Nonet', 'amendment 2']) expect(text).toContain(piece);
	});
	it('is refused of what was not completed, twice at once, of what changed meanwhile, and by who may not', async () => {
		const still = await out(t, [['maren']]);
		expect(await beginAmendment(t.house, t.odile, still, { does: 'changes' })).toMatchObject({ code: 'not-complete' });
		ok(withdraw(t.house, t.odile, still, 'x'));
		expect(await beginAmendment(t.house, t.odile, still, { does: 'changes' })).toMatchObject({ code: 'not-complete' });
		const first = await agreed();
		const [one, other] = [await struck(first, 'Serenade', 'Nonet'), await struck(first, 'Serenade', 'Octet')];
		const send = (id: string) => sendDraft(t.house, t.odile, id, readDraft(t.house, id)!.revision);
		ok(send(one));
		await idle(t);
		expect(send(other)).toMatchObject({ code: 'amendment-out' });
		expect(await beginAmendment(t.house, t.odile, first, { does: 'changes' })).toMatchObject({ code: 'amendment-out' });
		expect(await dispose(t.house, { account: t.odile, address: '' }, [first], 'x')).toMatchObject({
			refused: [{ say: expect.stringContaining('still out') as string }]
		});
		await allSign();
		expect(send(other)).toMatchObject({ code: 'amended-meanwhile' });
		const mio = await account(t.house, 'Mio', 'mio@x.example', 'viewer');
		expect(await beginAmendment(t.house, mio, first, { does: 'changes' })).toMatchObject({ code: 'not-yours' });
		// a plan that claims to change something that isn't here
		const { plan } = readDraft(t.house, other)!;
		const claims: Plan = { ...plan, amends: { ...plan.amends!, packet: 'nothing' } };
		expect(sendPlan(t.house, t.odile, claims)).toMatchObject({ code: 'no-packet' });
	});
	it('is refused of what was disposed of, also where it was begun before, and that can’t be taken back', async () => {
		const first = await agreed();
		const begun = await struck(first, 'Serenade', 'Nonet');
		ok(await dispose(t.house, { account: t.odile, address: '' }, [first], 'Over.'));
		expect(packetState(t.house.db, first).status).toBe('none');
		expect(await beginAmendment(t.house, t.odile, first, { does: 'changes' })).toMatchObject({ code: 'no-packet' });
		expect(file(t.house, t.odile, first, { do: 'restore' })).toMatchObject({ code: 'no-packet' });
		const draft = readDraft(t.house, begun);
		if (draft) expect(sendDraft(t.house, t.odile, begun, draft.revision)).toMatchObject({ code: 'no-packet' });
		await idle(t);
		sound();
	});
	it('that changes nothing, has no initials, or leaves a party out without a word, can’t go', async () => {
		const first = await agreed();
		const empty = ok(await beginAmendment(t.house, t.odile, first, { does: 'changes' }));
		const codes = (plan: Plan) => amendmentFaults(plan).map(({ code }) => code);
		expect(codes(empty.plan)).toContain('nothing-amended');
		expect(await summaryPaper(t.house, empty.plan)).toMatchObject({ code: 'nothing-amended' });
		const { plan } = readDraft(t.house, await struck(first, 'Serenade', 'Nonet'))!;
		expect(codes({ ...plan, fields: plan.fields.filter(({ kind }) => kind !== 'initials') })).toContain('no-initials');
		expect(codes({ ...plan, papers: plan.papers.slice(1) })).toEqual(['no-summary']);
		const alone: Plan = { ...plan, stops: plan.stops.filter((stop) => !stop.people.includes('gwen')) };
		expect(codes(alone)).toEqual(['party-away']);
		expect(codes({ ...alone, amends: { ...alone.amends!, without: 'She has left.' } })).toEqual([]);
	});
	it('may end it or let it go on, with its day, its reason, and the notice that was due', async () => {
		const letter = await youthConsent('Serenade');
		const taken = ok(await addPaper(t.house, 'Hall hire.pdf', letter.bytes));
		if ('attached' in taken) throw new Error(taken.why);
		const first = await out(
			t,
			[['gwen']],
			{},
			{
				title: 'Hall hire',
				papers: [{ id: 'paper', name: 'Hall hire', digest: taken.digest, pages: taken.pages }],
				sending: { term: { months: 12, notice: 30 } }
			}
		);
		await signs(t, 'gwen@post.example');
		await idle(t);
		expect(await beginAmendment(t.house, t.odile, first, { does: 'ends', day: '2026-02-31' })).toMatchObject({
			code: 'day-bad'
		});
		const soon = ok(
			await beginAmendment(t.house, t.odile, first, { does: 'ends', day: '2026-12-10', why: 'The roof leaks.' })
		);
		expect(soon.plan.amends).toMatchObject({ notice: '2026-11-10', why: 'The roof leaks.' });
		const later = ok(await beginAmendment(t.house, t.odile, first, { does: 'ends', day: '2027-03-10' }));
		expect(later.plan.amends!.notice).toBeUndefined();
		const summary = ok(await summaryPaper(t.house, soon.plan));
		const text = textOf(summary.digest);
		expect(text).toContain('ends on 2026-12-10. The roof leaks.');
		expect(text).toContain('Notice would have been due by 2026-11-10');
	});
	it('keeps the whole chain for as long as its last part', async () => {
		const first = await agreed();
		ok(setKeeping(t.house.db, { fileNames: '{reference}', binDays: 30, two: false }));
		const rule = { name: 'x', by: 'folder', years: 1, from: 'end', key: '', yearEnd: true, then: 'review' };
		ok(keepRule(t.house, { account: t.odile, address: '' }, { ...rule, by: 'type', of: 'Hall hire' }));
		ok(file(t.house, t.odile, first, { do: 'type', type: 'Hall hire' }));
		const kept = (id: string) => rowsOf(t.house.db, [id])[0]!.keptUntil;
		expect(kept(first)).toBe('2027-12-31');
		t.clock.now = Date.parse('2028-05-01T09:00:00Z');
		const second = await sent(first);
		await allSign();
		expect([kept(first), kept(second)]).toEqual(['2029-12-31', '2029-12-31']);
		ok(act(t.house, second, office(t.odile), { do: 'keepUntil', until: '2040-01-01', why: 'a claim' }));
		sound();
	});
});

/** The worked case of an amendment: given a hire of Hall 2, when it is to be Hall 3, then what holds. */
describe('hall hire: “Hall 2” should be “Hall 3” in two places', () => {
	it('is struck in both, initialled by both at each, and what holds follows the chain', async () => {
		const text = 'The choir hires Hall 2 for 400 pounds, sheet';
		const taken = ok(await addPaper(t.house, 'Hire.pdf', await pdf(2, { text })));
		if ('attached' in taken) throw new Error(taken.why);
		const papers = [{ id: 'paper', name: 'Hire', digest: taken.digest, pages: taken.pages }];
		const first = await out(t, [['gwen'], ['tamsin']], {}, { title: 'Hall hire', papers });
		await allSign();
		const draft = readDraft(t.house, await struck(first, 'Hall 2', 'Hall 3'))!;
		const initials = draft.plan.fields.filter(({ kind, change }) => kind === 'initials' && change);
		expect(draft.plan.amends!.changes).toHaveLength(2);
		expect(initials.map(({ person, page }) => `${person} ${page}`).sort()).toEqual([
			'gwen 0',
			'gwen 1',
			'tamsin 0',
			'tamsin 1'
		]);
		const second = ok(sendDraft(t.house, t.odile, draft.id, draft.revision)).packet;
		await idle(t);
		await allSign();
		expect(packetState(t.house.db, first)).toMatchObject({ amended: { by: second } });
		expect(chainOfPacket(t.house.db, first)).toMatchObject({ order: [{ id: first }, { id: second }] });
		expect(records(t.house, t.odile, 'Hall 3').rows[0]).toMatchObject({ id: second });
		expect(records(t.house, t.odile, 'Hall 2').rows[0]).toMatchObject({ id: second, found: { before: 'Instead of' } });
		const third = await sent(first, '400 pounds', '450 pounds');
		expect(packetState(t.house.db, third)).toMatchObject({ plan: { amends: { packet: second, number: 2 } } });
		ok(withdraw(t.house, t.odile, third, 'Not agreed.'));
		await idle(t);
		expect(chainOfPacket(t.house.db, first).holds?.id).toBe(second);
		sound();
	});
	it('words on a picture are struck as well, and the picture stays', async () => {
		const letter = await withPicture('Hall 2 as on the plan');
		const taken = ok(await addPaper(t.house, 'Plan.pdf', letter));
		if ('attached' in taken) throw new Error(taken.why);
		const papers = [{ id: 'paper', name: 'Plan', digest: taken.digest, pages: taken.pages }];
		const first = await out(t, [['gwen'], ['tamsin']], {}, { title: 'Plan', papers });
		await allSign();
		const second = await sent(first, 'Hall 2', 'Hall 3');
		await allSign();
		const state = packetState(t.house.db, second);
		if (state.status !== 'completed') throw new Error(state.status);
		const copy = copiesOf(t.house.db, state).find(({ what }) => what === 'paper')!;
		const roots = rootsOf(t.house.db).map(({ pem }) => pem);
		expect((await verifySealed(readBlob(t.house.db, copy.digest)!.bytes, roots)).verdict).toBe('genuine');
		const words = textOf(
			ok(
				(await addPaper(
					t.house,
					'a.pdf',
					((await whatHolds(t.house, t.odile, first)) as { bytes: Uint8Array }).bytes
				)) as { digest: string }
			).digest
		);
		for (const word of ['Hall 3', 'as on the plan']) expect(words).toContain(word);
		sound();
	});
});

/** A page with a picture all over its upper half, and words on it. */
async function withPicture(text: string): Promise<Uint8Array> {
	const doc = await PDFDocument.load(await pdf(2, { text: 'Sheet' }));
	const png = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#dde7d0' } })
		.png()
		.toBuffer();
	doc.getPage(0).drawImage(await doc.embedPng(png), { x: 40, y: 450, width: 500, height: 350 });
	const font = await doc.embedFont(StandardFonts.Helvetica);
	doc.getPage(0).drawText(text, { x: 100, y: 600, font, size: 14 });
	return doc.save({ useObjectStreams: false });
}

import { PDFDocument } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { loan } from '../../../../demo/documents';
import { printedPages } from '../../../../demo/paper/pages';
import { scanned, tornOff, type Pen, type Scan } from '../../../../demo/paper/scanned';
import {
	account,
	FROM,
	idle,
	mails,
	ok,
	out,
	signs,
	testHouse,
	visitor,
	type TestHouse
} from '../../../../e2e/kit/house';
import { field, plan, typed } from '../../../../e2e/kit/plans';
import type { DoubtFound, Field, Plan, PlanPerson } from '../../core/packet';
import { closePool, toPem, verifySealed } from '../../press';
import { openPdf } from '../../press/pdfium';
import { checkData } from '../check';
import { needsYou } from '../desk';
import { sealKeys } from '../keys';
import { act, packetState } from '../packets/act';
import { copyFile } from '../packets/copies';
import { beginCorrection, leaveCorrection } from '../packets/correcting';
import { eventsOf } from '../packets/log';
import { correctAddress } from '../packets/office';
import { addPaper, wordsOfPaper } from '../papers';
import { sendPlan } from '../packets/sending';
import { finish, openAndConsent, saveAnswers, signingView } from '../signing';
import {
	acceptReturn,
	addReturned,
	askReturn,
	bringerOf,
	fetchPaper,
	fetchPaperToPost,
	handInReturn,
	officeBringer,
	refuseReturn,
	returnLook,
	returnPicture,
	setPaper,
	takeOut
} from '.';
import { keepSeen, lastOut } from './store';

let t: TestHouse;
let ingrid: Awaited<ReturnType<typeof account>>;
beforeEach(async () => {
	t = await testHouse();
	ingrid = await account(t.house, 'Ingrid Halloran', 'ingrid@brindlevale.example', 'owner');
	ok(setPaper(t.house.db, { permitted: true, goesOn: false, post: 'Brindlevale Orchestra\n3 Mill Lane' }));
});
afterAll(() => closePool());

/** The loan of an instrument, five pages: Noel signs it in ink, then Tamsin on her page. */
async function goesToNoel(noel: Partial<PlanPerson> = {}, fields: Field[] = []): Promise<string> {
	const letter = await loan('Harp', '£185');
	const taken = ok(await addPaper(t.house, 'Loan.pdf', letter.bytes));
	if ('attached' in taken) throw new Error(taken.why);
	const place = (id: string, kind: Field['kind'], who: string, key: string) =>
		field(id, kind, who, { ...letter.places[key]!, label: id });
	const initials = { page: 0, rect: { x: 463, y: 38, width: 60, height: 24 }, label: 'Initials' };
	const made = plan([['noel'], ['tamsin']], {
		title: 'Loan of a harp',
		papers: [{ id: 'paper', name: 'Loan', digest: taken.digest, pages: taken.pages }],
		fields: [
			field('initials', 'initials', 'noel', initials),
			place('Signature of the borrower', 'signature', 'noel', 'borrower.signature'),
			place('Signature of the lender', 'signature', 'tamsin', 'lender.signature'),
			...fields
		]
	});
	const people = made.people.map((one) =>
		one.id === 'noel' ? { ...one, name: 'Noel Hartigan', ink: true, ...noel } : one
	);
	const { packet } = ok(sendPlan(t.house, t.odile, { ...made, people }));
	await t.runner.drain();
	return packet;
}

const noel = () => visitor(t.house, 'noel@post.example');
const state = (packet: string) => {
	const now = packetState(t.house.db, packet);
	if (now.status === 'none') throw new Error('no packet');
	return now;
};
const types = (packet: string) => eventsOf(t.house.db, packet).map((event) => event.type);
const bringer = () => ok(bringerOf(noel(), FROM));

/** Fetches it, and gives the pages as they come out of a printer. */
async function prints(): Promise<Uint8Array[]> {
	const { bytes } = ok(await fetchPaper(t.house, noel(), 'en', FROM));
	return printedPages(new Uint8Array(bytes), 5);
}

const A4 = { width: 595.28, height: 841.89 };
const copied = (page: Uint8Array, pens: Pen[] = [], scan: Partial<Scan> = {}) =>
	scanned(page, A4, pens, { dpi: 150, ...scan });

/** Where a place or a word stands on what went out, as shown. */
function at(packet: string, page: number, what: string) {
	const sheet = lastOut(t.house.db, packet, 'noel')!.sheets[page]!;
	const found = sheet.places.find((one) => one.label === what) ?? sheet.words.find((one) => one.text.startsWith(what));
	if (!found) throw new Error(`no ${what} on page ${page}`);
	const { left, top, width, height } = found;
	return { left, top, width, height };
}

async function brings(...pictures: Uint8Array[]): Promise<void> {
	for (const [i, one] of pictures.entries()) ok(await addReturned(t.house, bringer(), `${i}.jpg`, one));
	ok(handInReturn(t.house, bringer()));
	await idle(t);
}

const signed = (packet: string, page: number, what: string, does: 'signs' | 'initials'): Pen => ({
	does,
	...at(packet, page, what)
});

describe('signed on paper', () => {
	it('goes out, comes back in any order, is asked for in part, and becomes the document for those after', async () => {
		const packet = await goesToNoel();
		const pages = await prints();
		expect(types(packet)).toContain('PaperFetched');
		const rent = at(packet, 0, '£185');
		const seven: Pen = {
			does: 'seven',
			left: rent.left + 0.25 * rent.width,
			top: rent.top,
			width: 0.25 * rent.width,
			height: rent.height
		};
		await brings(
			await copied(await tornOff(pages[4]!, lastOut(t.house.db, packet, 'noel')!.sheets[4]!.code!), [
				signed(packet, 4, 'Signature of the borrower', 'signs')
			]),
			await copied(pages[0]!, [seven]),
			await copied(pages[2]!, [], { blur: 2.2, seed: 3 }),
			await copied(pages[2]!, [], { seed: 4 }),
			await copied(pages[3]!, [], { turn: 180 }),
			await copied(pages[1]!)
		);
		const look = ok(returnLook(t.house, ingrid, packet, 'noel'));
		expect(look.is).toBe('doubts');
		expect(look.pages.map((page) => page.doubts.map((doubt) => doubt.what))).toEqual([
			['words changed', 'place empty'],
			[],
			[],
			[],
			[]
		]);
		expect(look.pages[0]!.doubts[0]).toMatchObject({ text: '£185' });
		expect(look.pages[4]).toMatchObject({ by: 'words' });
		expect(look.pages[4]!.share).toBeGreaterThan(80);
		expect(look.twice).toHaveLength(1);
		expect(look.twice[0]!.page).toBe(2);
		expect(needsYou(t.house, t.odile)).toContainEqual(
			expect.objectContaining({ what: 'paper', packet, person: 'noel', doubts: 2 })
		);
		expect(mails(t.house, t.odile.email).at(-1)!.subject).toBe('Back on paper: Loan of a harp');

		// page 1 alone is wanted again, with both reasons
		expect(askReturn(t.house, ingrid, packet, 'noel', [], '')).toMatchObject({ code: 'pages-missing' });
		ok(askReturn(t.house, ingrid, packet, 'noel', [0], 'The rent is not ours to change.'));
		await idle(t);
		const letter = mails(t.house, 'noel@post.example').at(-1)!;
		expect(letter.subject).toBe('Pages wanted again: Loan of a harp');
		for (const said of ['page 1', 'Page 1: words were changed.', 'Page 1: a place is empty.', 'not ours to change'])
			expect(letter.text).toContain(said);
		expect(signingView(t.house, noel())).toMatchObject({ state: 'turn', paper: { is: 'again', again: [1] } });

		await brings(await copied(pages[0]!, [signed(packet, 0, 'Initials', 'initials')], { seed: 9 }));
		expect(ok(returnLook(t.house, ingrid, packet, 'noel'))).toMatchObject({ is: 'sure', foreign: [] });
		const before = state(packet).plan.papers[0]!.digest;
		ok(await acceptReturn(t.house, ingrid, packet, 'noel', { read: {}, note: 'Seen.', from: FROM }));
		await idle(t);
		const after = state(packet);
		expect(after.people['noel']).toMatchObject({ is: 'done' });
		const now = after.plan.papers[0]!.digest;
		expect(now).not.toBe(before);
		expect(wordsOfPaper(t.house, now)[3]!.length).toBeGreaterThan(50);

		// Tamsin signs on the scanned pages, at the place where it is
		const who = visitor(t.house, 'tamsin@post.example');
		const view = signingView(t.house, who);
		if (view.state !== 'turn') throw new Error(view.state);
		expect(view.papers[0]!.digest).toBe(now);
		expect(view.fields.filter((one) => one.paper === 'paper').map((one) => one.id)).toEqual([
			'Signature of the lender'
		]);
		ok(openAndConsent(t.house, who, FROM));
		ok(finish(t.house, who, { 'Signature of the lender': typed('Tamsin') }, FROM));
		await idle(t);
		const done = state(packet);
		expect(done.status).toBe('completed');
		const copy = copyFile(t.house, done, 'paper')!;
		expect(copy.bytes.length).toBeLessThan(6_000_000 / 4);
		const sealed = await openPdf(new Uint8Array(copy.bytes));
		if (typeof sealed === 'string') throw new Error(sealed);
		expect(
			sealed
				.words(0)
				.map((word) => word.text)
				.join(' ')
		).toContain('Instrument loan');
		sealed.close();
		expect(copy.bytes.toString('latin1')).toContain('As it went out');
		const { seal, stamp } = await sealKeys(t.house);
		const roots = [toPem(seal.issuer), toPem(stamp.issuer)];
		expect(await verifySealed(new Uint8Array(copy.bytes), roots)).toMatchObject({ verdict: 'genuine' });
		const evidence = await openPdf(new Uint8Array(copyFile(t.house, done, 'evidence')!.bytes));
		if (typeof evidence === 'string') throw new Error(evidence);
		const says = Array.from({ length: evidence.pages }, (_, page) => evidence.words(page).map((word) => word.text))
			.flat()
			.join(' ');
		evidence.close();
		expect(says).toContain('signed on paper, in ink');
		expect(checkData(t.house.db).faults).toEqual([]);
	});
});

describe('on paper, in other ways', () => {
	/** A short letter: the first page is Noel's to sign, after him Tamsin. */
	const short = (people: Record<string, Partial<PlanPerson>> = {}, more: Partial<Plan> = {}) =>
		out(t, [['noel'], ['tamsin']], { noel: { name: 'Noel Hartigan', ink: true }, ...people }, more);
	const fetched = async () => ok(await fetchPaper(t.house, noel(), 'en', FROM));
	const print = async () => printedPages(new Uint8Array((await fetched()).bytes), 2);
	const looked = (packet: string) => ok(returnLook(t.house, ingrid, packet, 'noel'));
	const doubts = (packet: string) => state(packet).inks['noel']!.doubts.map(({ what, page }) => [what, page]);
	const judgedBy = (packet: string, read: Record<string, string> = {}) =>
		acceptReturn(t.house, ingrid, packet, 'noel', { read, note: '', from: FROM });

	/** Brought and looked at, without the machine's reading. */
	async function cameBack(packet: string, found: DoubtFound[] = []): Promise<void> {
		await fetched();
		const kept = lastOut(t.house.db, packet, 'noel')!;
		const white = sharp({ create: { width: 300, height: 420, channels: 3, background: '#fff' } });
		const page = new Uint8Array(await white.jpeg().toBuffer());
		for (let number = 0; number < 2; number++) {
			const { id } = ok(await addReturned(t.house, bringer(), `${number}.jpg`, page));
			const places = kept.sheets[number]!.places.map(({ field: of }) => ({ field: of, ink: true }));
			const about = { id, number, by: 'code' as const, share: 1, foreign: null, dots: 150, sharp: 500 };
			keepSeen(t.house.db, id, { ...about, found: { changed: [], writing: [], places }, words: [] }, page);
		}
		ok(handInReturn(t.house, bringer()));
		const of = { person: 'noel', out: kept.id };
		ok(act(t.house, packet, { kind: 'pellum' }, { do: 'checkReturn', ...of, pages: 2, doubts: found }));
	}

	it('is offered only where the office and the packet permit it, and to whom it can be done by', async () => {
		const packet = await short();
		expect(signingView(t.house, noel())).toMatchObject({ paper: { is: null, post: expect.stringContaining('Mill') } });
		ok(setPaper(t.house.db, { permitted: false, goesOn: false, post: '' }));
		expect(signingView(t.house, noel())).toMatchObject({ paper: null });
		expect(await fetchPaper(t.house, noel(), 'en', FROM)).toMatchObject({ code: 'no-paper' });
		ok(setPaper(t.house.db, { permitted: true, goesOn: false, post: '' }));
		expect(await addReturned(t.house, bringer(), 'a.jpg', new Uint8Array(9))).toMatchObject({ code: 'nothing-out' });
		await short({ noel: {} });
		expect(await fetchPaper(t.house, noel(), 'en', FROM)).toMatchObject({ code: 'no-paper' });
		await short({ tamsin: { name: '', email: '', namedBy: 'noel', role: 'Lender' } });
		expect(await fetchPaper(t.house, noel(), 'en', FROM)).toMatchObject({ code: 'paper-names' });
		expect(types(packet)).not.toContain('PaperFetched');
	});

	it('is with one of a stop at a time', async () => {
		await out(t, [['noel', 'kit']], { noel: { ink: true }, kit: { ink: true } });
		await fetched();
		const kit = visitor(t.house, 'kit@post.example');
		expect(await fetchPaper(t.house, kit, 'en', FROM)).toMatchObject({ code: 'paper-out' });
		ok(openAndConsent(t.house, kit, FROM));
	});

	it('has what was typed printed on it, which counts once it is taken; the same is not made twice', async () => {
		const packet = await short();
		ok(openAndConsent(t.house, noel(), FROM));
		ok(saveAnswers(t.house, noel(), { 'noel-note': { text: 'Ring twice' } }, FROM));
		await fetched();
		const first = lastOut(t.house.db, packet, 'noel')!;
		expect(first.sheets[1]!.words.map((word) => word.text)).toContain('twice');
		expect(first.sheets.flatMap((sheet) => sheet.places.map((one) => one.field))).toEqual(['noel-sig', 'noel-date']);
		await fetched();
		expect(lastOut(t.house.db, packet, 'noel')!.id).toBe(first.id);
		await cameBack(packet);
		ok(await judgedBy(packet));
		expect(state(packet).answers).toMatchObject({ 'noel-note': { text: 'Ring twice' } });
		expect(state(packet).answers).not.toHaveProperty('noel-date');
		expect(eventsOf(t.house.db, packet).find((event) => event.type === 'PersonFinished')).toMatchObject({
			ink: first.id
		});
	});

	it('of another packet, of an older version, blank: each is said, and nothing is lost', async () => {
		const other = await short();
		const [foreign] = await print();
		const packet = await short();
		const [older] = await print();
		ok(openAndConsent(t.house, noel(), FROM));
		ok(saveAnswers(t.house, noel(), { 'noel-note': { text: 'Changed' } }, FROM));
		const [one] = await print();
		const blank = sharp({ create: { width: 900, height: 1270, channels: 3, background: '#fdfdfd' } });
		await brings(
			await copied(foreign!),
			await copied(older!),
			new Uint8Array(await blank.jpeg().toBuffer()),
			await copied(one!, [signed(packet, 0, 'noel-sig', 'signs'), signed(packet, 0, 'noel-date', 'initials')])
		);
		expect(looked(packet).foreign.map((doubt) => doubt.text)).toEqual([
			'of another packet',
			'of an older version',
			'blank'
		]);
		expect(doubts(packet)).toContainEqual(['page missing', 1]);
		expect(await judgedBy(packet)).toMatchObject({ code: 'page-missing' });
		expect(other).not.toBe(packet);
	});

	it('comes as a PDF of a scanner, in parts, the rest by post; what is certain goes on by itself', async () => {
		ok(setPaper(t.house.db, { permitted: true, goesOn: true, post: '' }));
		const packet = await short();
		const [one, two] = await print();
		const pens = [signed(packet, 0, 'noel-sig', 'signs'), signed(packet, 0, 'noel-date', 'initials')];
		const scan = await PDFDocument.create();
		scan.addPage([595, 842]).drawImage(await scan.embedJpg(await copied(one!, pens)), { width: 595, height: 842 });
		await brings(new Uint8Array(await scan.save()));
		expect(doubts(packet)).toEqual([['page missing', 1]]);
		const office = ok(officeBringer(t.house, t.odile, packet, 'noel'));
		ok(await addReturned(t.house, office, 'two.jpg', await copied(two!)));
		ok(handInReturn(t.house, office));
		await idle(t);
		expect(state(packet).people['noel']).toMatchObject({ is: 'done' });
		const posted = eventsOf(t.house.db, packet).filter((event) => event.type === 'ReturnHandedIn');
		expect(posted.at(-1)).toMatchObject({ post: true, by: { name: 'Odile Farrow' } });
		expect(checkData(t.house.db).faults).toEqual([]);
	});

	it('is judged by nobody who takes part; refused with a word, it may be fetched anew', async () => {
		const packet = await short({ tamsin: { email: 'ingrid@brindlevale.example' } });
		await cameBack(packet, [{ what: 'writing', page: 0 }]);
		expect(looked(packet).mayNot).toContain('You take part');
		for (const no of [
			await judgedBy(packet),
			askReturn(t.house, ingrid, packet, 'noel', [0], ''),
			refuseReturn(t.house, ingrid, packet, 'noel', 'No')
		])
			expect(no).toMatchObject({ code: 'takes-part' });
		expect(refuseReturn(t.house, t.odile, packet, 'noel', ' ')).toMatchObject({ code: 'word-missing' });
		ok(refuseReturn(t.house, t.odile, packet, 'noel', 'The last page is somebody else’s.'));
		await idle(t);
		expect(mails(t.house, 'noel@post.example').at(-1)!.text).toContain('The last page is somebody else’s.');
		expect(signingView(t.house, noel())).toMatchObject({ paper: { is: 'refused' } });
		await fetched();
		expect(state(packet).inks['noel']).toMatchObject({ is: 'fetched' });
	});

	it('says nothing for a rule until somebody has read it and confirmed it', async () => {
		const packet = await short(
			{},
			{
				stops: [
					{ id: 's0', people: ['noel'] },
					{ id: 's1', people: ['tamsin'], when: 'noel_name = "Noel"' }
				]
			}
		);
		ok(openAndConsent(t.house, noel(), FROM));
		// what is known of them is put in beforehand; here they have emptied it
		ok(saveAnswers(t.house, noel(), { 'noel-name': { text: ' ' } }, FROM));
		await cameBack(packet);
		const [confirm] = looked(packet).toConfirm.filter((one) => one.needed);
		expect(confirm).toMatchObject({ field: 'noel-name' });
		expect(await judgedBy(packet)).toMatchObject({ code: 'confirm-missing', at: 'noel-name' });
		ok(await judgedBy(packet, { 'noel-name': 'Noel' }));
		const after = state(packet);
		expect(after.people['tamsin']).toMatchObject({ is: 'notified' });
		expect(after.answers['noel-name']).toEqual({ text: 'Noel' });
	});

	it('gives way to what comes after it was asked for again, also where that is the softer picture', async () => {
		const packet = await short();
		await cameBack(packet, [{ what: 'words changed', page: 0 }]);
		const before = looked(packet).pages.map((page) => page.picture);
		ok(askReturn(t.house, ingrid, packet, 'noel', [0], ''));
		await cameBack(packet);
		const after = looked(packet).pages.map((page) => page.picture);
		expect([after[0] === before[0], after[1] === before[1]]).toEqual([false, true]);
	});

	it('is not taken while the packet is being corrected, nor lost', async () => {
		const packet = await short();
		await cameBack(packet);
		const { id } = ok(beginCorrection(t.house, t.odile, packet));
		expect(await judgedBy(packet)).toMatchObject({ code: 'being-corrected' });
		expect(leaveCorrection(t.house, t.odile, id)).toBeNull();
		ok(await judgedBy(packet));
	});

	it('comes after others have signed on their page: what they signed is in the picture, and drawn nowhere else', async () => {
		const packet = await out(t, [['kit'], ['noel'], ['tamsin']], { noel: { name: 'Noel Hartigan', ink: true } });
		await signs(t, 'kit@post.example');
		await fetched();
		expect(lastOut(t.house.db, packet, 'noel')!.stamped).toContain('kit-sig');
		await cameBack(packet);
		ok(await judgedBy(packet));
		await idle(t);
		const drawn = signingView(t.house, visitor(t.house, 'tamsin@post.example'));
		if (drawn.state !== 'turn') throw new Error(drawn.state);
		expect(drawn.fields.filter((one) => one.paper === 'paper' && one.person !== 'tamsin')).toEqual([]);
		expect(drawn.answers).toHaveProperty('kit-sig');
		await signs(t, 'tamsin@post.example');
		await idle(t);
		expect(state(packet)).toMatchObject({ status: 'completed', evidence: expect.any(String) });
	});

	it('begins with nothing for whoever reads the letter at another address', async () => {
		const packet = await short();
		await cameBack(packet);
		ok(correctAddress(t.house, t.odile, packet, 'noel', 'noel.new@post.example'));
		await idle(t);
		expect(state(packet).inks).toEqual({});
		expect(await judgedBy(packet)).toMatchObject({ code: 'nothing-out' });
	});

	it('is taken out again before it is handed in; shown to whoever sees the packet; a film is no page', async () => {
		const packet = await short();
		const [first] = await print();
		const { id } = ok(await addReturned(t.house, bringer(), 'a.jpg', await copied(first!)));
		expect(await addReturned(t.house, bringer(), 'film.mp4', new Uint8Array(400))).toMatchObject({
			code: 'not-a-page'
		});
		expect(signingView(t.house, noel())).toMatchObject({ paper: { pictures: [{ page: 1 }], missing: [2] } });
		expect(await returnPicture(t.house, t.odile, packet, 'noel', id)).toMatchObject({ media: 'image/jpeg' });
		expect(await returnPicture(t.house, t.odile, packet, 'noel', 'out-1')).toMatchObject({ media: 'image/png' });
		expect(await returnPicture(t.house, t.odile, packet, 'noel', 'out-7')).toBeNull();
		ok(takeOut(t.house, bringer(), id));
		expect(handInReturn(t.house, bringer())).toMatchObject({ code: 'nothing-back' });
		ok(await fetchPaperToPost(t.house, t.odile, packet, 'noel'));
		expect(eventsOf(t.house.db, packet).at(-1)).toMatchObject({ type: 'PaperFetched', by: { name: 'Odile Farrow' } });
	});
});

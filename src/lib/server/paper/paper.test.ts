import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { loan } from '../../../../demo/documents';
import { printedPages } from '../../../../demo/paper/pages';
import { scanned, tornOff, type Pen, type Scan } from '../../../../demo/paper/scanned';
import { account, FROM, idle, linkTo, mails, ok, testHouse, visitor, type TestHouse } from '../../../../e2e/kit/house';
import { field, plan, typed } from '../../../../e2e/kit/plans';
import type { Field, PlanPerson } from '../../core/packet';
import { isRefusal } from '../../core/refusal';
import { closePool, toPem, verifySealed } from '../../press';
import { openPdf } from '../../press/pdfium';
import { readBlob } from '../blobs';
import { checkData } from '../check';
import { needsYou } from '../desk';
import { sealKeys } from '../keys';
import { act, packetState } from '../packets/act';
import { copiesOf, copyFile } from '../packets/copies';
import { eventsOf } from '../packets/log';
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
import { lastOut } from './store';

let t: TestHouse;
let tamsin: Awaited<ReturnType<typeof account>>;
beforeEach(async () => {
	t = await testHouse();
	tamsin = await account(t.house, 'Ingrid Halloran', 'ingrid@brindlevale.example', 'owner');
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
		const look = ok(returnLook(t.house, tamsin, packet, 'noel'));
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
		expect(askReturn(t.house, tamsin, packet, 'noel', [], '')).toMatchObject({ code: 'pages-missing' });
		ok(askReturn(t.house, tamsin, packet, 'noel', [0], 'The rent is not ours to change.'));
		await idle(t);
		const letter = mails(t.house, 'noel@post.example').at(-1)!;
		expect(letter.subject).toBe('Pages wanted again: Loan of a harp');
		for (const said of ['page 1', 'Page 1: words were changed.', 'Page 1: a place is empty.', 'not ours to change'])
			expect(letter.text).toContain(said);
		expect(signingView(t.house, noel())).toMatchObject({ state: 'turn', paper: { is: 'again', again: [1] } });

		await brings(await copied(pages[0]!, [signed(packet, 0, 'Initials', 'initials')], { seed: 9 }));
		expect(ok(returnLook(t.house, tamsin, packet, 'noel'))).toMatchObject({ is: 'sure', foreign: [] });
		const before = state(packet).plan.papers[0]!.digest;
		ok(await acceptReturn(t.house, tamsin, packet, 'noel', { read: {}, note: 'Seen.', from: FROM }));
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
	}, 180_000);
});

void [
	isRefusal,
	act,
	copiesOf,
	eventsOf,
	fetchPaperToPost,
	officeBringer,
	refuseReturn,
	returnPicture,
	takeOut,
	readBlob,
	saveAnswers,
	linkTo
];

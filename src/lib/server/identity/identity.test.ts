import sharp from 'sharp';
import { unzipSync, strFromU8 } from 'fflate';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { drawnDocument } from '../../../../demo/identity/drawn';
import { photographed } from '../../../../demo/identity/photographed';
import type { Specimen } from '../../../../demo/identity/specimens';
import {
	account,
	FROM,
	idle,
	linkTo,
	mails,
	ok,
	out,
	realPlan,
	signs,
	testHouse,
	visitor,
	type TestHouse
} from '../../../../e2e/kit/house';
import { pdf } from '../../../../e2e/kit/pdfs';
import { field } from '../../../../e2e/kit/plans';
import { foldedAnswer, type IdentityAsked } from '../../core/identity';
import { stillToShow } from '../../core/packet';
import { isRefusal } from '../../core/refusal';
import { closePool } from '../../press';
import { openPdf } from '../../press/pdfium';
import { howShown } from '../../words/shown';
import { newBatch, readBatch, runBatch, verdictsOf } from '../batches';
import { readBlob } from '../blobs';
import { csvForSpreadsheets } from '../csv';
import { newTemplate, putInUse } from '../templates';
import { checkData } from '../check';
import { needsYou } from '../desk';
import { act, packetState } from '../packets/act';
import { auditRecord, eventsOf } from '../packets/log';
import { hashedCode } from '../packets/codes';
import { finish, openAndConsent, signingView, visit } from '../signing';
import { newLink } from '../packets/links';
import { correctAddress, withdraw } from '../packets/office';
import {
	addIdentityPicture,
	answerQuestions,
	handInIdentity,
	identityLook,
	judgeHeld,
	picturesZip,
	setDeskMode,
	setIdentity,
	showPictures,
	shownPicture,
	spareKnown
} from '.';
import { keepFound, keepPicture, openTry } from './store';

const MAREN: Specimen = {
	kind: 'passport',
	surname: 'Lindqvist',
	given: 'Maren',
	number: 'X12345678',
	born: '1991-05-06',
	expires: '2031-02-28',
	sex: 'F'
};
const DOCUMENT = { kinds: ['passport' as const], countries: [], bothSides: false, holder: false };

let pictures: Record<'good' | 'expired' | 'cat', Uint8Array>;
let t: TestHouse;
let tamsin: Awaited<ReturnType<typeof account>>;
beforeAll(async () => {
	const shot = async (of: Partial<Specimen>) =>
		photographed((await drawnDocument({ ...MAREN, ...of })).front, { turn: 4 });
	pictures = {
		good: await shot({}),
		expired: await shot({ expires: '2020-02-28' }),
		// no document: a round thing on a table
		cat: new Uint8Array(
			await sharp({ create: { width: 900, height: 900, channels: 3, background: '#7a7264' } })
				.composite([
					{
						input: Buffer.from('<svg width="900" height="900"><circle cx="450" cy="450" r="260" fill="#d8d2c8"/></svg>')
					}
				])
				.jpeg()
				.toBuffer()
		)
	};
});
beforeEach(async () => {
	t = await testHouse();
	tamsin = await account(t.house, 'Tamsin Okoro', 'tamsin@brindlevale.example', 'preparer');
});
afterAll(() => closePool());

const asking = (identity: Partial<IdentityAsked>) =>
	out(t, [['maren']], { maren: { name: 'Maren Lindqvist', identity: { tries: 3, ...identity } } });
const maren = () => visitor(t.house, 'maren@post.example');
const types = (packet: string) => eventsOf(t.house.db, packet).map((event) => event.type);
const state = (packet: string) => {
	const now = packetState(t.house.db, packet);
	if (now.status === 'none') throw new Error('no packet');
	return now;
};
async function shows(picture: Uint8Array) {
	ok(await addIdentityPicture(t.house, maren(), 'front', picture));
	ok(handInIdentity(t.house, maren(), 'passport', FROM));
	await t.runner.drain();
}

/** A try that did not hold, without the desk's reading, which takes seconds. */
function failed() {
	const { packet, person } = maren();
	const of = openTry(t.house, packet.packet, person.id);
	const measures = { width: 1600, height: 1200, light: 150, sharp: 900, glare: 0, cut: 0, document: 55, faults: [] };
	keepPicture(t.house, of, 'front', pictures.good, measures);
	ok(handInIdentity(t.house, maren(), 'passport', FROM));
	const check = { check: 'expiry', outcome: 'wrong' } as const;
	const found = keepFound(t.house, of.id, [{ ...check, measure: '2020-02-28' }]);
	const by = { kind: 'pellum' } as const;
	ok(
		act(t.house, packet.packet, by, {
			do: 'judgeIdentity',
			person: person.id,
			try: of.id,
			verdict: 'wrong',
			checks: [check],
			found
		})
	);
}

describe('a document with pictures', () => {
	it('is asked for before anything is shown, judged by the desk, and then the page goes on', async () => {
		const packet = await asking({ document: DOCUMENT });
		const view = signingView(t.house, maren());
		expect(view).toMatchObject({ state: 'identity', ways: ['document'], left: { document: 3 }, looking: false });
		expect(JSON.stringify(view)).not.toContain('"papers"');
		expect(openAndConsent(t.house, maren(), FROM)).toMatchObject({ code: 'not-shown' });
		expect(finish(t.house, maren(), {}, FROM)).toMatchObject({ code: 'not-shown' });
		await shows(pictures.good);
		expect(stillToShow(state(packet), state(packet).plan.people[0]!)).toEqual([]);
		expect(signingView(t.house, maren()).state).toBe('turn');
		expect(types(packet)).toEqual(expect.arrayContaining(['IdentityHandedIn', 'IdentityJudged']));
		expect(checkData(t.house.db).faults).toEqual([]);
	});

	it('no picture of a cat, no film, no PDF: a sentence each, nothing counted', async () => {
		const packet = await asking({ document: DOCUMENT });
		expect(await addIdentityPicture(t.house, maren(), 'front', pictures.cat)).toMatchObject({
			faults: expect.arrayContaining(['not a document'])
		});
		// forty of them leave one: each takes the place of the one before
		for (let i = 0; i < 3; i++) ok(await addIdentityPicture(t.house, maren(), 'front', pictures.cat));
		expect(t.house.db.prepare('SELECT count(*) FROM identity_pictures').pluck().get()).toBe(1);
		const film = new TextEncoder().encode('\0\0\0\x18ftypmp42 a film');
		for (const none of [film, await pdf(1), new Uint8Array(0)])
			expect(await addIdentityPicture(t.house, maren(), 'front', none)).toMatchObject({ code: 'not-a-picture' });
		expect(types(packet).filter((type) => type.startsWith('Identity'))).toEqual([]);
		// handed in all the same it is not read, and after three of these somebody looks
		for (let i = 0; i < 3; i++) await shows(pictures.cat);
		expect(state(packet)).toMatchObject({ status: 'held', proofs: { maren: { failed: { document: 0 }, unread: 3 } } });
	});

	it('expired: as often as is permitted, then it is held; those who must know are told, in words that give nothing away', async () => {
		const packet = await asking({ document: DOCUMENT, tries: 2 });
		const link = linkTo(t.house, 'maren@post.example');
		await shows(pictures.expired);
		expect(signingView(t.house, maren())).toMatchObject({
			state: 'identity',
			left: { document: 1 },
			last: { verdict: 'wrong', checks: ['expiry'] }
		});
		await shows(pictures.expired);
		expect(state(packet).status).toBe('held');
		expect(signingView(t.house, ok(visit(t.house, link)))).toMatchObject({ state: 'held' });
		await idle(t);
		expect(needsYou(t.house, t.odile)[0]).toMatchObject({ what: 'held', packet });
		const told = [...mails(t.house, 'odile@brindlevale.example'), ...mails(t.house, 'maren@post.example').slice(1)];
		expect(told.map((mail) => mail.subject)).toEqual([
			'Held: Guest musician engagement',
			'Under review: Guest musician engagement'
		]);
		for (const mail of told) expect(mail.text + mail.attachments).not.toMatch(/expir|passport|X1234|identity/i);
	});

	it('while the desk is down it is tried again later, and nothing is lost', async () => {
		const packet = await asking({ document: DOCUMENT });
		setDeskMode(t.house.db, 'down');
		await shows(pictures.good);
		expect(signingView(t.house, maren())).toMatchObject({ state: 'identity', looking: true });
		setDeskMode(t.house.db, 'as it is');
		t.clock.now += 60_000;
		await t.runner.drain();
		expect(signingView(t.house, maren()).state).toBe('turn');
		expect(types(packet).filter((type) => type === 'IdentityJudged')).toHaveLength(1);
	});

	it('a day of birth that an earlier answer gave is compared; there is no try beyond so many', async () => {
		const plan = await realPlan(t.house, [['maren']]);
		const born = field('born', 'date', 'sender', { key: 'birthday', settings: {} });
		const identity = { document: { ...DOCUMENT, born: 'birthday' }, tries: 3 };
		const packet = await out(
			t,
			[['maren']],
			{ maren: { name: 'Maren Lindqvist', identity } },
			{ fields: [...plan.fields, born], answers: { born: { day: '1991-05-07' } } }
		);
		await shows(pictures.good);
		expect(state(packet).proofs['maren']).toMatchObject({ failed: { document: 1 }, last: { checks: ['birth'] } });
		const begin = t.house.db.prepare(
			"INSERT INTO identity_tries (id, packet, person, kind, locked_key, begun_at, handed_at) VALUES (?, ?, 'maren', '', NULL, '', '')"
		);
		for (let i = 0; i < 40; i++) begin.run(`t${i}`, packet);
		expect(await addIdentityPicture(t.house, maren(), 'front', pictures.good)).toMatchObject({ code: 'too-often' });
	});

	it('told to be unsure or to fail it says that it was told', async () => {
		for (const [mode, verdict] of [
			['unsure', 'unsure'],
			['fails', 'wrong']
		] as const) {
			setDeskMode(t.house.db, mode);
			const packet = await asking({ document: DOCUMENT, tries: 1 });
			await shows(pictures.good);
			expect(state(packet).status).toBe('held');
			const judged = eventsOf(t.house.db, packet).find((event) => event.type === 'IdentityJudged');
			expect(judged).toMatchObject({ verdict });
			const [one] = ok(identityLook(t.house, tamsin, packet, 'maren')).tries;
			expect(one!.checks.find(({ check }) => check === 'forgery')?.measure).toContain('the stand-in was told');
			ok(withdraw(t.house, t.odile, packet, 'over'));
		}
	});
});

describe('somebody else’s part', () => {
	it('begins with nothing: neither with pictures that were taken before, nor with what was shown', async () => {
		const asked = { maren: { name: 'Maren Lindqvist', identity: { document: DOCUMENT, tries: 3 } } };
		const packet = await out(t, [['maren']], asked, { sending: { handOver: true } });
		ok(await addIdentityPicture(t.house, maren(), 'front', pictures.good));
		expect(signingView(t.house, maren())).toMatchObject({ taken: [{ side: 'front' }] });
		ok(correctAddress(t.house, t.odile, packet, 'maren', 'other@post.example'));
		await t.runner.drain();
		const other = () => visitor(t.house, 'other@post.example');
		expect(signingView(t.house, other())).toMatchObject({ state: 'identity', taken: [] });
		expect(handInIdentity(t.house, other(), 'passport', FROM)).toMatchObject({ code: 'picture-missing' });
		ok(await addIdentityPicture(t.house, other(), 'front', pictures.good));
		ok(handInIdentity(t.house, other(), 'passport', FROM));
		await t.runner.drain();
		expect(signingView(t.house, other()).state).toBe('turn');
		// shown at one address it is not shown at another
		ok(correctAddress(t.house, t.odile, packet, 'maren', 'third@post.example'));
		await t.runner.drain();
		expect(signingView(t.house, visitor(t.house, 'third@post.example')).state).toBe('identity');
	});
	it('is asked of nobody before it is their turn', async () => {
		const asked = { maren: { identity: { document: DOCUMENT, tries: 3 } } };
		const packet = await out(t, [['kit'], ['maren']], asked);
		const token = newLink(t.house.db, packet, 'maren', t.house.now());
		const early = ok(visit(t.house, token));
		expect(signingView(t.house, early)).toMatchObject({ state: 'waiting' });
		expect(await addIdentityPicture(t.house, early, 'front', pictures.good)).toMatchObject({ code: 'nothing-to-show' });
	});
});

describe('looking at it', () => {
	let packet: string;
	beforeEach(async () => {
		packet = await asking({ document: DOCUMENT, tries: 1 });
		failed();
	});

	it('shows pictures only once they are asked for, to whoever may judge; each look is in the record', async () => {
		const ruben = await account(t.house, 'Ruben', 'ruben@brindlevale.example', 'viewer');
		expect(identityLook(t.house, ruben, packet, 'maren')).toMatchObject({ refused: true });
		const look = ok(identityLook(t.house, tamsin, packet, 'maren'));
		expect(look).toMatchObject({ held: true, mayNot: '', tries: [{ kind: 'passport', verdict: 'wrong' }] });
		const [one] = look.tries;
		expect(one!.checks.find(({ check }) => check === 'expiry')).toMatchObject({
			outcome: 'wrong',
			measure: '2020-02-28'
		});
		expect(shownPicture(t.house, tamsin, packet, one!.id, 'front', 'guessed')).toBeNull();
		const { pass } = ok(showPictures(t.house, tamsin, packet, one!.id));
		const picture = shownPicture(t.house, tamsin, packet, one!.id, 'front', pass)!;
		expect((await sharp(picture).metadata()).format).toBe('jpeg');
		// for nobody else, and not for ever
		expect(shownPicture(t.house, t.odile, packet, one!.id, 'front', pass)).toBeNull();
		t.clock.now += 16 * 60_000;
		expect(shownPicture(t.house, tamsin, packet, one!.id, 'front', pass)).toBeNull();
		const zip = unzipSync(ok(picturesZip(t.house, tamsin, packet, 'maren')).bytes);
		expect(Object.keys(zip).sort()).toEqual(['1-front.jpg', 'checks.csv']);
		expect(strFromU8(zip['checks.csv']!)).toMatch(/expiry,wrong,2020-02-28/);
		expect(eventsOf(t.house.db, packet).filter((event) => event.type === 'PicturesSeen')).toMatchObject([
			{ taken: false, by: { name: 'Tamsin Okoro' } },
			{ taken: true }
		]);
	});

	it('pictures are locked at rest, and in no record, mail or export', async () => {
		const row = t.house.db.prepare('SELECT bytes FROM identity_pictures').get() as { bytes: Buffer };
		expect(row.bytes.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff]))).toBe(false);
		expect(row.bytes.includes(Buffer.from('JFIF'))).toBe(false);
		expect(t.house.db.prepare('SELECT count(*) FROM blobs WHERE media = ?').pluck().get('image/jpeg')).toBe(0);
		// nor is what was measured: everybody gets the record
		expect(JSON.stringify(auditRecord(t.house.db, packet))).not.toMatch(/2020-02-28|1600×/);
		expect(JSON.stringify(auditRecord(t.house.db, packet))).toMatch(/"digest\\*":\\*"[0-9a-f]{64}/);
	});

	it('release: they go on and are not asked again; ask again: with a word to them; refuse: needs a note, and ends it', async () => {
		ok(judgeHeld(t.house, tamsin, packet, 'maren', 'another try', { note: '', word: 'The new one, please.' }));
		expect(signingView(t.house, maren())).toMatchObject({
			state: 'identity',
			word: 'The new one, please.',
			left: { document: 1 }
		});
		await t.runner.drain();
		expect(mails(t.house, 'maren@post.example').at(-1)!.text).toContain('The new one, please.');
		failed();
		expect(judgeHeld(t.house, tamsin, packet, 'maren', 'refuse', { note: ' ' })).toMatchObject({
			code: 'note-missing'
		});
		ok(judgeHeld(t.house, tamsin, packet, 'maren', 'let through', { note: 'I know her.' }));
		expect(signingView(t.house, maren()).state).toBe('turn');

		const other = await asking({ document: DOCUMENT, tries: 1 });
		failed();
		const link = linkTo(t.house, 'maren@post.example');
		ok(judgeHeld(t.house, tamsin, other, 'maren', 'refuse', { note: 'A stranger, by the picture.' }));
		expect(state(other)).toMatchObject({ status: 'declined', reason: '' });
		await t.runner.drain();
		const last = mails(t.house, 'maren@post.example').at(-1)!;
		expect(last.subject).toMatch(/^Stopped/);
		expect(last.text).not.toMatch(/stranger|declin/i);
		expect(signingView(t.house, ok(visit(t.house, link)))).toMatchObject({
			state: 'ended',
			why: expect.not.stringMatching(/declin/i)
		});
	});

	it('not by the person themselves, nor by anybody named in the packet; where two must agree, one is not enough', async () => {
		const named = await out(t, [['maren'], ['odile']], {
			maren: { name: 'Maren Lindqvist', identity: { document: DOCUMENT, tries: 1 } },
			odile: { email: 'Odile@Brindlevale.example' }
		});
		failed();
		expect(judgeHeld(t.house, t.odile, named, 'maren', 'let through', { note: 'x' })).toMatchObject({
			code: 'takes-part'
		});
		const { tries } = ok(identityLook(t.house, t.odile, named, 'maren'));
		expect(showPictures(t.house, t.odile, named, tries[0]!.id)).toMatchObject({ code: 'takes-part' });
		ok(setIdentity(t.house.db, { known: 0, judges: 2, keep: 90, lettersOff: 1 }));
		ok(judgeHeld(t.house, tamsin, named, 'maren', 'let through', { note: 'x' }));
		ok(judgeHeld(t.house, tamsin, named, 'maren', 'let through', { note: 'again' }));
		expect(state(named).status).toBe('held');
		expect(ok(identityLook(t.house, tamsin, named, 'maren')).agreed).toEqual([
			{ name: 'Tamsin Okoro', how: 'let through' }
		]);
		const vera = await account(t.house, 'Vera', 'vera@brindlevale.example', 'preparer');
		ok(judgeHeld(t.house, vera, named, 'maren', 'let through', { note: 'I agree' }));
		expect(state(named).status).toBe('out');
		expect(types(named).filter((type) => type === 'JudgedByOne')).toHaveLength(1);
	});

	it('pictures go by themselves so many days after the end; what was found stays', async () => {
		const [one] = ok(identityLook(t.house, tamsin, packet, 'maren')).tries;
		ok(withdraw(t.house, t.odile, packet, 'No longer needed'));
		await t.runner.drain();
		t.clock.now += 89 * 86_400_000;
		await t.runner.drain();
		expect(t.house.db.prepare('SELECT count(*) FROM identity_pictures').pluck().get()).toBe(1);
		t.clock.now += 2 * 86_400_000;
		await t.runner.drain();
		expect(t.house.db.prepare('SELECT count(*) FROM identity_pictures').pluck().get()).toBe(0);
		expect(t.house.db.prepare('SELECT locked_key FROM identity_tries').pluck().get()).toBeNull();
		expect(types(packet).at(-1)).toBe('PicturesDeleted');
		expect(showPictures(t.house, tamsin, packet, one!.id)).toMatchObject({ code: 'pictures-deleted' });
		expect(ok(identityLook(t.house, tamsin, packet, 'maren')).tries[0]).toMatchObject({
			deleted: true,
			verdict: 'wrong'
		});
		expect(checkData(t.house.db).faults).toEqual([]);
	});
});

describe('what the office knows', () => {
	const asks = (right = 1) => ({
		asks: [
			{
				id: 'a',
				ask: 'Which instrument was lent?',
				as: 'text' as const,
				hash: hashedCode(t.house, foldedAnswer('text', 'Viola d’amore'))
			},
			{
				id: 'b',
				ask: 'What was it insured for?',
				as: 'number' as const,
				hash: hashedCode(t.house, foldedAnswer('number', '12500'))
			}
		],
		right
	});
	it('is compared folded, counted, kept nowhere; too many wrong hold it', async () => {
		const packet = await asking({ questions: asks(2), tries: 2 });
		expect(signingView(t.house, maren())).toMatchObject({
			state: 'identity',
			ways: ['questions'],
			asks: [{ id: 'a' }, { id: 'b' }]
		});
		expect(answerQuestions(t.house, maren(), { a: 'viola damore', b: '12,000' }, FROM)).toMatchObject({
			code: 'answers-wrong',
			values: { left: 1 }
		});
		expect(answerQuestions(t.house, maren(), { a: 'VIOLA D’AMORE', b: '£12,500.00' }, FROM)).toEqual({ right: true });
		expect(signingView(t.house, maren()).state).toBe('turn');
		expect(JSON.stringify(eventsOf(t.house.db, packet))).not.toMatch(/damore|12,000/i);
		const other = await asking({ questions: asks(2), tries: 1 });
		expect(answerQuestions(t.house, maren(), {}, FROM)).toMatchObject({ code: 'held' });
		expect(state(other).status).toBe('held');
	});
	it('or a document: one is enough; both: one after the other', async () => {
		await asking({ document: DOCUMENT, questions: asks(), either: true });
		expect(answerQuestions(t.house, maren(), { a: 'viola d’amore' }, FROM)).toEqual({ right: true });
		expect(signingView(t.house, maren()).state).toBe('turn');
		await asking({ document: DOCUMENT, questions: asks() });
		ok(answerQuestions(t.house, maren(), { a: 'viola d’amore' }, FROM));
		expect(signingView(t.house, maren())).toMatchObject({ state: 'identity', ways: ['document'] });
	});
	it('whoever showed it lately is not asked again, where packet and office permit that, and only under that name', async () => {
		ok(setIdentity(t.house.db, { known: 30, judges: 1, keep: 90, lettersOff: 1 }));
		await asking({ questions: asks(), goodFor: 60 });
		ok(answerQuestions(t.house, maren(), { a: 'viola d’amore' }, FROM));
		t.clock.now += 86_400_000;
		const second = await asking({ questions: asks(), goodFor: 60 });
		expect(spareKnown(t.house, maren())).toBe(true);
		expect(types(second)).toContain('IdentityKnown');
		// the day on which they showed it is not the moment at which it was taken
		const times = eventsOf(t.house.db, second).map((event) => event.at);
		expect(times).toEqual([...times].sort());
		expect(signingView(t.house, maren()).state).toBe('turn');
		await asking({ questions: asks() });
		expect(spareKnown(t.house, maren())).toBe(false);
		t.clock.now += 31 * 86_400_000;
		await out(t, [['maren']], {
			maren: { name: 'Maren Lindqvist', identity: { questions: asks(), tries: 3, goodFor: 60 } }
		});
		expect(spareKnown(t.house, maren())).toBe(false);
	});
	it('answers of somebody else’s packet, forty pictures, and no code yet: each a sentence', async () => {
		await out(t, [['maren']], {
			maren: { name: 'Maren', check: { by: 'mail' }, identity: { document: DOCUMENT, questions: asks(), tries: 3 } }
		});
		expect(answerQuestions(t.house, maren(), { a: 'x' }, FROM)).toMatchObject({ code: 'not-proved' });
		expect(isRefusal(await addIdentityPicture(t.house, maren(), 'front', pictures.cat))).toBe(true);
	});
});

describe('what the office knows, from a sheet', () => {
	it('each row has its own answers, kept as hashes; one that can’t be compared is said before anything goes', async () => {
		const plan = await realPlan(t.house, [['borrower']]);
		const questions = { asks: [{ id: 'q', ask: 'Instrument', as: 'text' as const, hash: '' }], right: 1 };
		const draft = newTemplate(t.house, t.odile, {
			...plan,
			people: [{ ...plan.people[0]!, role: 'Borrower', name: '', email: '', identity: { questions, tries: 3 } }]
		});
		const { template } = ok(putInUse(t.house, t.odile, draft.id, draft.revision, 'first'));
		const lines = [
			['Name', 'E-mail', 'Instrument'],
			['Maren Lindqvist', 'maren@post.example', 'Viola d’amore'],
			['Kit Aldous', 'kit@post.example', '…'],
			['Zoë Okoro', 'zoe@post.example', 'Cello']
		];
		const batch = ok(
			await newBatch(
				t.house,
				t.odile,
				template,
				'loans.csv',
				new TextEncoder().encode(csvForSpreadsheets(lines[0]!, lines.slice(1)))
			)
		);
		const { verdicts } = ok(verdictsOf(t.house, t.odile, ok(readBatch(t.house, batch.id))));
		expect(verdicts.map((one) => one.is)).toEqual(['ready', 'faulty', 'ready']);
		ok(runBatch(t.house, t.odile, batch.id));
		await idle(t);
		const json = t.house.db.prepare<[], string>('SELECT json FROM plans').pluck().all().join('\n');
		expect(json).not.toMatch(/violadamore|cello/i);
		const her = visitor(t.house, 'maren@post.example');
		expect(answerQuestions(t.house, her, { q: 'cello' }, FROM)).toMatchObject({ code: 'answers-wrong' });
		expect(answerQuestions(t.house, her, { q: 'viola damore' }, FROM)).toEqual({ right: true });
		expect(answerQuestions(t.house, visitor(t.house, 'zoe@post.example'), { q: 'CELLO' }, FROM)).toEqual({
			right: true
		});
	});
});

it('the evidence sheet says how each showed who they are, in words', async () => {
	const packet = await asking({ document: DOCUMENT });
	await shows(pictures.good);
	expect(howShown(eventsOf(t.house.db, packet), 'maren')).toBe(
		'by pictures of a document (passport), which the ID desk found to hold on 2026-11-24'
	);
	await signs(t, 'maren@post.example');
	await t.runner.drain();
	const { evidence } = state(packet);
	const sheet = await openPdf(new Uint8Array(readBlob(t.house.db, evidence!)!.bytes));
	if (typeof sheet === 'string') throw new Error(sheet);
	const words = sheet
		.words(0)
		.map((word) => word.text)
		.join(' ');
	sheet.close();
	expect(words).toContain('Showed who they are by pictures of a document (passport)');
});

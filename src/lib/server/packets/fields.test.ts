import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { zipSync } from 'fflate';
import sharp from 'sharp';
import { FROM, mails, ok, realPlan, testHouse, visitor, type TestHouse } from '../../../../e2e/kit/house';
import { pdf } from '../../../../e2e/kit/pdfs';
import { field, typed } from '../../../../e2e/kit/plans';
import type { Answers } from '../../core/field';
import type { Field, Plan } from '../../core/packet';
import { closePool } from '../../press';
import { openPdf } from '../../press/pdfium';
import { checkData } from '../check';
import { packetState } from './act';
import { copiesOf, copyFile } from './copies';
import { answersAsCsv, answersAsJson } from './data';
import { newDraft, saveDraft } from './drafts';
import { sendPlan } from './sending';
import { keepFile, keepPicture } from './files';
import { stampsOf } from './marks';
import { notHandedIn } from '../signing/keeping';
import { addFile, fileFor, finish, saveAnswers, openAndConsent, signingView } from '../signing';

let t: TestHouse;
beforeEach(async () => {
	t = await testHouse();
});
afterAll(() => closePool());

let row = 0;
const apart = (one: Field): Field => ({ ...one, rect: { ...one.rect, x: 40, y: 20 + 26 * (row++ % 24) } });

/** A plan for Maren and then Tamsin with some fields besides their signatures. */
async function with_(...fields: Field[]): Promise<Plan> {
	row = 0;
	const plan = await realPlan(t.house, [['maren'], ['tamsin']]);
	return { ...plan, fields: [...plan.fields.filter((f) => f.kind === 'signature'), ...fields].map(apart) };
}

/** Opens, agrees and finishes with these answers and a signature; gives what came of it. */
async function finishes(to: string, given: Answers) {
	const who = visitor(t.house, to);
	ok(openAndConsent(t.house, who, FROM));
	const done = finish(t.house, who, { [`${who.person.id}-sig`]: typed(who.person.name), ...given }, FROM);
	await t.runner.drain();
	return done;
}

describe('answers of every kind', () => {
	it('go through two people into the sealed copy, the record and the data, each as its kind writes it', async () => {
		const box = (id: string, value: string) =>
			field(id, 'ticks', 'maren', { key: 'extras', settings: { value, text: value.toUpperCase(), outline: true } });
		const plan = await with_(
			field('fee', 'number', 'sender', { key: 'fee', settings: { decimals: 2, currency: 'EUR' } }),
			field('nights', 'number', 'maren', { key: 'nights', settings: { decimals: 0 } }),
			field('nights2', 'number', 'tamsin', { key: 'nights', settings: { decimals: 0 } }),
			field('sum', 'computed', 'everybody', { key: 'total', settings: { rule: 'fee * nights', currency: 'EUR' } }),
			field('from', 'date', 'maren', { key: 'start', settings: { format: 'short', least: 'today' } }),
			field('town', 'choice', 'maren', { key: 'town', settings: { options: [{ value: 'st', text: 'Staunton' }] } }),
			field('iban', 'text', 'maren', { key: 'code', settings: { boxes: 4 } }),
			box('tea', 'tea'),
			box('milk', 'milk'),
			field('why', 'text', 'maren', { key: 'why', showWhen: 'contains(extras, "milk")' }),
			field('hidden', 'note', 'everybody', { showWhen: 'total > 9999', settings: { text: 'neverseen' } }),
			field('seen', 'note', 'everybody', { settings: { text: 'Mindthestep' } })
		);
		const packet = ok(sendPlan(t.house, t.odile, { ...plan, locale: 'de-DE', answers: { fee: { number: '1240.5' } } }));
		await t.runner.drain();
		const given: Answers = {
			nights: { number: '3' },
			from: { day: '2026-12-02' },
			town: { choice: 'st' },
			iban: { text: 'GB29' },
			tea: { ticks: ['tea', 'milk'] }
		};
		expect(await finishes('maren@post.example', given)).toMatchObject({ code: 'answer-missing', at: 'why' });
		expect(
			await finishes('maren@post.example', { ...given, why: { text: 'Milk, please' }, from: { day: '2026-11-01' } })
		).toMatchObject({ code: 'day-early' });
		ok(await finishes('maren@post.example', { ...given, why: { text: 'Milk, please' } }));
		const view = signingView(t.house, visitor(t.house, 'tamsin@post.example'));
		// what Maren answered stands for Tamsin's twin as well, and the sum is fixed
		expect(view).toMatchObject({ answers: { nights2: { number: '3' }, sum: { number: '3721.5' } } });
		ok(await finishes('tamsin@post.example', { nights2: { number: '99' } }));

		const state = packetState(t.house.db, packet.packet);
		if (state.status !== 'completed') throw new Error(state.status);
		const opened = await openPdf(copyFile(t.house, state, 'paper')!.bytes);
		if (typeof opened === 'string') throw new Error(opened);
		const words = opened
			.words(0)
			.map((w) => w.text)
			.join(' ');
		for (const said of ['1.240,50', '3.721,50', '02.12.2026', 'Staunton', 'G B 2 9', 'Milk, please', 'Mindthestep'])
			expect(words.replaceAll('\u00a0', ' ')).toContain(said);
		expect(words).not.toContain('neverseen');
		expect(JSON.parse(answersAsJson(state))).toMatchObject({
			fee: '1240.5',
			nights: '3',
			total: '3721.5',
			start: '2026-12-02',
			town: 'st',
			extras: ['tea', 'milk'],
			why: 'Milk, please'
		});
		const csv = answersAsCsv(state);
		expect(csv).toContain('extras,tea,ticks,Maren,tea; milk,"TEA, MILK"');
		expect(csv).toContain('total,sum,computed,,3721.5,"3.721,50');
		expect(checkData(t.house.db).faults).toEqual([]);
	});
	it('are stamped as their fields say: size, side, whether they may shrink, groups by their own value, pictures and strikes', async () => {
		const { digest } = ok(
			await keepPicture(
				t.house,
				await sharp({ create: { width: 9, height: 9, channels: 3, background: 'red' } })
					.png()
					.toBuffer()
			)
		);
		const pick = (id: string) =>
			field(id, 'pick-one', 'maren', { key: 'p', settings: { value: id, outline: id === 'no' } });
		const plan = await with_(
			field('a', 'text', 'maren', { fontSize: 14, shrink: false, align: 'right' }),
			field('b', 'number', 'maren', { settings: { decimals: 1 } }),
			field('c', 'text', 'maren', { settings: { several: true } }),
			pick('yes'),
			pick('no'),
			field('g', 'image', 'everybody', { settings: { picture: digest } }),
			field('x', 'strike', 'everybody'),
			field('open', 'text', 'maren')
		);
		const answers = {
			a: { text: 'right' },
			b: { number: '3' },
			c: { text: 'one two' },
			yes: { choice: 'yes' },
			no: { choice: 'yes' }
		};
		const marks = stampsOf(t.house.db, { ...plan, locale: 'fr-FR' }, answers, 'paper', '2026-12-02').map((s) => s.mark);
		expect(marks.map((m) => (m.draw === 'picture' ? { draw: 'picture' } : m))).toEqual([
			{ draw: 'text', text: 'right', several: false, size: 14, fixed: true, align: 'right' },
			{ draw: 'text', text: '3,0', several: false },
			{ draw: 'text', text: 'one two', several: true },
			{ draw: 'pick', on: true, outline: false },
			{ draw: 'pick', on: false, outline: true },
			{ draw: 'picture' },
			{ draw: 'strike' }
		]);
		expect(stampsOf(t.house.db, plan, answers, 'another', '2026-12-02')).toEqual([]);
		// the marker a field came from is covered before anything is drawn, also where no rule shows the field
		const marked = { ...plan, fields: plan.fields.map((f) => ({ ...f, cover: f.rect, showWhen: '1 = 2' })) };
		const covers = stampsOf(t.house.db, marked, {}, 'paper', '2026-12-02').map((s) => s.mark.draw);
		expect(new Set(covers)).toEqual(new Set(['cover']));
	});
	it('in the CSV are never run as a formula', async () => {
		const packet = ok(
			sendPlan(t.house, t.odile, await with_(field('a', 'text', 'maren'), field('b', 'number', 'maren')))
		);
		await t.runner.drain();
		ok(await finishes('maren@post.example', { a: { text: '=HYPERLINK("http://x")' }, b: { number: '-5' } }));
		const state = packetState(t.house.db, packet.packet);
		const csv = state.status === 'none' ? '' : answersAsCsv(state);
		expect(csv).toContain(`"'=HYPERLINK(""http://x"")"`);
		expect(csv).toContain('number,Maren,-5,-5');
	});
});

describe('a file that is handed in', () => {
	const docx = () =>
		zipSync({
			'[Content_Types].xml': Buffer.from(
				'<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>'
			),
			'word/document.xml': Buffer.from('<x/>')
		});
	const png = () =>
		sharp({ create: { width: 9, height: 9, channels: 3, background: 'red' } })
			.png()
			.toBuffer();

	it('goes into the sealed packet unchanged, is named in the record, and is for those of the packet only', async () => {
		const plan = await with_(field('photo', 'attachment', 'maren', { key: 'photo', settings: { types: 'png,pdf' } }));
		const packet = ok(sendPlan(t.house, t.odile, plan));
		await t.runner.drain();
		const who = visitor(t.house, 'maren@post.example');
		const bytes = await png();
		const answer = ok(await addFile(t.house, who, 'photo', '../up/Viola <1>.png', bytes));
		expect(answer).toMatchObject({ name: 'Viola <1>.png', media: 'image/png', bytes: bytes.length });
		expect(fileFor(t.house, who, answer.file)).toBeNull();
		ok(await finishes('maren@post.example', { photo: answer }));
		expect(fileFor(t.house, visitor(t.house, 'tamsin@post.example'), answer.file)?.name).toBe('Viola <1>.png');
		ok(await finishes('tamsin@post.example', {}));
		const state = packetState(t.house.db, packet.packet);
		if (state.status !== 'completed') throw new Error(state.status);
		expect(copiesOf(t.house.db, state).map((c) => c.what)).toEqual(['paper', 'photo', 'evidence']);
		expect(copyFile(t.house, state, 'photo')).toMatchObject({ media: 'image/png', name: 'Viola 1 .png' });
		expect(Buffer.compare(copyFile(t.house, state, 'photo')!.bytes, bytes)).toBe(0);
		expect(copyFile(t.house, state, 'paper')!.bytes.includes('EmbeddedFile')).toBe(true);
		expect(mails(t.house, 'maren@post.example').at(-1)!.attachments).toContain('Viola 1 .png');
		t.house.db.prepare('DELETE FROM blobs WHERE digest = ?').run(answer.file);
		expect(checkData(t.house.db).faults.join()).toContain(answer.file);
	});
	it.each<[string, () => Promise<Uint8Array> | Uint8Array, Field['settings'], string | null]>([
		['a PNG', png, {}, null],
		[
			'a JPEG',
			async () =>
				sharp(await png())
					.jpeg()
					.toBuffer(),
			{},
			null
		],
		['a PDF', () => pdf(1), {}, null],
		['a DOCX', docx, {}, null],
		['a PNG where only PDF is taken', png, { types: 'pdf' }, 'file-type'],
		['a program', () => Buffer.from('MZ'.padEnd(4000, 'x')), {}, 'file-program'],
		['a text called .pdf', () => Buffer.from('hello'), {}, 'file-type'],
		['nothing', () => Buffer.alloc(0), {}, 'file-empty'],
		['more than its place takes', () => Buffer.alloc(1024 * 1024 + 1), { megabytes: 1 }, 'file-too-large']
	])('as %s', async (_, make, settings, code) => {
		const got = await keepFile(t.house, field('f', 'attachment', 'maren', { settings }), 'File.pdf', await make());
		expect('code' in got ? got.code : null).toBe(code);
	});
	it('that another packet holds, or another person handed in, is not had by writing its digest as an answer', async () => {
		const plan = await with_(field('photo', 'attachment', 'maren'), field('other', 'attachment', 'tamsin'));
		ok(sendPlan(t.house, t.odile, plan));
		await t.runner.drain();
		const maren = visitor(t.house, 'maren@post.example');
		const hers = ok(await addFile(t.house, maren, 'photo', 'x.png', await png()));
		const kept = t.house.db
			.prepare<[], { digest: string; bytes: number }>(
				"SELECT digest, length(bytes) AS bytes FROM blobs WHERE media = 'application/pdf' LIMIT 1"
			)
			.get()!;
		const stolen = { file: kept.digest, name: 'x.pdf', media: 'application/pdf', bytes: kept.bytes };
		expect(saveAnswers(t.house, maren, { photo: stolen }, FROM)).toMatchObject({ code: 'file-lost' });
		expect(await finishes('maren@post.example', { photo: stolen })).toMatchObject({ code: 'file-lost' });
		const another = { ...maren, person: { ...maren.person, id: 'tamsin' } };
		expect(notHandedIn(t.house, another, { other: hers })).toMatchObject({ code: 'file-lost' });
		expect(ok(saveAnswers(t.house, maren, { photo: hers }, FROM))).toHaveProperty('savedAt');
	});
	it('is not taken for somebody else’s place, nor by a digest that was made up', async () => {
		const plan = await with_(field('photo', 'attachment', 'maren'), field('other', 'attachment', 'tamsin'));
		ok(sendPlan(t.house, t.odile, plan));
		await t.runner.drain();
		const who = visitor(t.house, 'maren@post.example');
		expect(await addFile(t.house, who, 'other', 'x.png', await png())).toMatchObject({ code: 'no-file-here' });
		const forged = { file: 'f'.repeat(64), name: 'x.png', media: 'image/png', bytes: 5 };
		expect(await finishes('maren@post.example', { photo: forged })).toMatchObject({ code: 'file-lost', at: 'photo' });
	});
});

describe('a plan from outside', () => {
	const saved = (plan: unknown) => saveDraft(t.house, t.odile, newDraft(t.house, t.odile).id, 1, plan);
	it.each<[string, Partial<Field>, string, RegExp]>([
		['a key with odd letters', { key: 'my key' }, 'key-odd', /“my_key” would do/],
		['a key that is a word of rules', { key: 'sum' }, 'key-odd', /word of rules/],
		['a setting of another kind', { settings: { currency: 'EUR' } }, 'malformed', /“x”/],
		['a rule of a million characters', { showWhen: 'a + '.repeat(250_000) }, 'malformed', /showWhen/],
		['a kind that is none', { kind: 'stamp' as Field['kind'] }, 'malformed', /kind/]
	])('is refused with %s', async (_, more, code, say) => {
		const no = saved(await with_(field('x', 'text', 'maren', more)));
		expect(no).toMatchObject({ code });
		expect('say' in no && no.say).toMatch(say);
	});
	it('is refused with an answer of the sender’s that is of another kind', async () => {
		const plan = { ...(await with_(field('n', 'number', 'sender'))), answers: { n: { text: 'ten' } } };
		expect(saved(plan)).toMatchObject({ code: 'malformed', at: 'n' });
	});
	it('takes nobody else’s answers from the sender, and sends none that can’t be printed', async () => {
		const plan = await with_(field('n', 'text', 'sender'), field('m', 'text', 'maren', { required: false }));
		const sent = ok(sendPlan(t.house, t.odile, { ...plan, answers: { n: { text: 'mine' }, m: { text: 'forged' } } }));
		expect(sent.answers).toEqual({ n: { text: 'mine' } });
		expect(sendPlan(t.house, t.odile, { ...plan, answers: { n: { text: '𓀀' } } })).toMatchObject({
			code: 'no-letters'
		});
		const noted = await with_(field('w', 'note', 'everybody', { settings: { text: 'ask 𓀀' } }));
		expect(sendPlan(t.house, t.odile, noted)).toMatchObject({ code: 'no-letters', at: 'w' });
	});
	it('is refused with a picture that is no picture', async () => {
		expect(await keepPicture(t.house, Buffer.from('<svg onload=alert(1)>'))).toMatchObject({ code: 'not-a-picture' });
		const plan = await with_(field('g', 'image', 'everybody', { settings: { picture: 'e'.repeat(64) } }));
		expect(sendPlan(t.house, t.odile, plan)).toMatchObject({ code: 'picture-lost' });
	});
});

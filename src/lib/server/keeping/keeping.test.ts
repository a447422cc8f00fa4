import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import { strFromU8, unzipSync } from 'fflate';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { account, FROM, idle, ok, out, signs, testHouse, visitor, type TestHouse } from '../../../../e2e/kit/house';
import { place } from '../../../../e2e/kit/on-disk';
import { faultsOf } from '../../core/audit';
import type { RetentionRule } from '../../core/keeping';
import { closePool, verifySealed } from '../../press';
import type { Account } from '../accounts';
import { checkData } from '../check';
import { openDb } from '../db';
import { file, setKeeping } from '../filing';
import { folderNamed, openFolder } from '../folders';
import { sha256Bytes, sha256Text } from '../ids';
import { JobRunner } from '../jobs';
import { rootsOf } from '../keys';
import { packetPage } from '../lists';
import type { Doer } from '../office-record';
import { act, office, packetState } from '../packets/act';
import { auditRecord, linksOf } from '../packets/log';
import { rowsOf } from '../packets/rows';
import { addPaper } from '../papers';
import { records } from '../records';
import { saveAnswers } from '../signing';
import { youthConsent } from '../../../../demo/documents';
import { goingByThemselves } from './due';
import {
	dispose,
	disposalOf,
	dropRule,
	dueRows,
	forgetPerson,
	heldOn,
	holdsOn,
	keepRule,
	liftHold,
	personAsZip,
	setHold,
	tendKeeping,
	weigh
} from './index';

let t: TestHouse;
let me: Doer & { account: Account };
beforeEach(async () => {
	t = await testHouse();
	me = { account: t.odile, address: FROM.address };
});
afterAll(closePool);

/** The same database again, as it was then. */
function reopened(whole: Buffer) {
	const folder = place();
	writeFileSync(path.join(folder, 'pellum.db'), whole);
	return openDb(folder);
}

/** One that somebody has signed, sealed. */
async function ended(more: Parameters<typeof out>[3] = {}, who = 'maren'): Promise<string> {
	const packet = await out(t, [[who]], {}, more);
	await signs(t, `${who}@post.example`);
	await idle(t);
	return packet;
}
const rule = (change: Partial<RetentionRule> = {}) => ({
	name: 'Hall hire, 6 years',
	by: 'type',
	of: 'Hall hire',
	years: 6,
	from: 'end',
	key: '',
	yearEnd: true,
	then: 'dispose',
	...change
});
const kept = (packet: string) => rowsOf(t.house.db, [packet])[0]?.keptUntil;
const sound = () => expect(checkData(t.house.db).faults).toEqual([]);
const to = (day: string) => (t.clock.now = Date.parse(`${day}T09:00:00Z`));
const hire = { sending: { type: 'Hall hire' } };

describe('how long it is kept', () => {
	it('is told by the rules as they are, of what is here already and of what ends later', async () => {
		const [before, other] = [await ended(hire), await ended()];
		ok(keepRule(t.house, me, rule()));
		await idle(t);
		const after = await ended(hire);
		expect([before, other, after].map(kept)).toEqual(['2032-12-31', null, '2032-12-31']);
		expect(kept(await out(t, [['maren']], {}, hire))).toBeNull();
		sound();
		const asked = { list: 'ended' as const, sort: 'kept' as const };
		expect(packetPage(t.house, t.odile, asked).rows.map(({ id }) => id)).toEqual([before, after, other]);
		const { id } = ok(keepRule(t.house, me, { ...rule({ of: 'Other' }), name: 'Others' }));
		expect(keepRule(t.house, me, { ...rule({ of: 'other' }), name: 'Again' })).toMatchObject({ code: 'rule-there' });
		expect(keepRule(t.house, me, rule({ from: 'date', of: 'X' }))).toMatchObject({ code: 'key-missing' });
		expect(keepRule(t.house, me, rule({ years: -1 }))).toMatchObject({ code: 'malformed' });
		ok(dropRule(t.house, me, id));
		expect(dropRule(t.house, me, id)).toMatchObject({ code: 'no-rule' });
		ok(file(t.house, t.odile, before, { do: 'type', type: 'Rota' }));
		expect(kept(before)).toBeNull();
		sound();
	});
	it('is changed by somebody with a reason, in the record, and given back to the rules', async () => {
		const packet = await ended(hire);
		ok(keepRule(t.house, me, rule()));
		await idle(t);
		const keep = (until: string | null, why: string) =>
			act(t.house, packet, office(t.odile), { do: 'keepUntil', until, why });
		expect(keep('2040-13-01', 'x')).toMatchObject({ code: 'day-bad' });
		expect(keep('2040-01-31', ' ')).toMatchObject({ code: 'reason-missing' });
		ok(keep('2040-01-31', 'The roof is still leaking.'));
		expect(kept(packet)).toBe('2040-01-31');
		sound();
		ok(keep(null, 'Settled.'));
		expect(kept(packet)).toBe('2032-12-31');
		sound();
	});
	it('is over: it goes by itself on the first day after, where its rule says so, and else waits for a look', async () => {
		const [goes, looked, still] = [
			await ended(hire),
			await ended({ sending: { type: 'Rota' } }),
			await out(t, [['tamsin']], {}, { ...hire, days: null })
		];
		ok(keepRule(t.house, me, rule()));
		ok(keepRule(t.house, me, rule({ name: 'Rotas', of: 'Rota', years: 1, then: 'review' })));
		await idle(t);
		to('2032-12-31');
		await tendKeeping(t.house);
		expect(dueRows(t.house, t.odile).map(({ id, by }) => [id, by])).toEqual([[looked, 'Rotas']]);
		to('2033-01-01');
		expect(dueRows(t.house, t.odile)).toHaveLength(2);
		await tendKeeping(t.house);
		await idle(t);
		expect([goes, looked, still].map((id) => packetState(t.house.db, id).status)).toEqual(['none', 'completed', 'out']);
		expect(disposalOf(t.house.db, 1)).toMatchObject({ by: 'Pellum, by a rule', lines: [{ type: 'Hall hire' }] });
		sound();
	});
	it('from the bin it goes after its days, unless a rule keeps it longer', async () => {
		const [binned, keptLonger] = [await ended(), await ended(hire)];
		ok(keepRule(t.house, me, rule()));
		await idle(t);
		for (const id of [binned, keptLonger]) ok(file(t.house, t.odile, id, { do: 'bin' }));
		to('2026-12-20');
		await tendKeeping(t.house);
		expect(packetState(t.house.db, binned).status).toBe('completed');
		to('2026-12-26');
		expect(dueRows(t.house, t.odile).map(({ id, by }) => [id, by])).toEqual([[binned, 'bin']]);
		await tendKeeping(t.house);
		expect([binned, keptLonger].map((id) => packetState(t.house.db, id).status)).toEqual(['none', 'completed']);
		// restoring what is gone says so
		expect(file(t.house, t.odile, binned, { do: 'restore' })).toMatchObject({ code: 'no-packet' });
		await idle(t);
		sound();
	});
});

describe('a legal hold', () => {
	const hold = (of: 'packets' | 'person' | 'search', what: string, packets: string[] = []) =>
		ok(setHold(t.house, me, { name: 'Claim 12', why: 'The insurer asks.', of, what, packets }));
	it('on packets, a person or a search lets nothing of it go until it is lifted', async () => {
		const [named, persons, found, free] = [
			await ended(hire),
			await ended(hire, 'kit'),
			await ended({ ...hire, title: 'The zither case' }),
			await ended(hire)
		];
		const all = [named, persons, found, free];
		ok(keepRule(t.house, me, rule()));
		const holds = [hold('packets', '', [named]), hold('person', 'KIT@post.example'), hold('search', 'zither')];
		await idle(t);
		expect(all.map((id) => holdsOn(t.house.db, id).length)).toEqual([1, 1, 1, 0]);
		to('2033-02-01');
		await tendKeeping(t.house);
		expect(all.map((id) => packetState(t.house.db, id).status)).toEqual([
			'completed',
			'completed',
			'completed',
			'none'
		]);
		const asked = ok(await dispose(t.house, me, all, 'Over.'));
		expect(asked.refused.map(({ id }) => id)).toEqual(all);
		expect(asked.refused[0]?.say).toContain('legal hold “Claim 12”');
		expect(liftHold(t.house, me, holds[0]!.id, '')).toMatchObject({ code: 'reason-missing' });
		const mio = { account: await account(t.house, 'Mio', 'mio@x.example', 'preparer'), address: '' };
		expect(liftHold(t.house, mio, holds[0]!.id, 'Mine now.')).toMatchObject({ code: 'not-yours' });
		for (const one of holds) ok(liftHold(t.house, me, one.id, 'Settled.'));
		expect(liftHold(t.house, me, holds[0]!.id, 'Again.')).toMatchObject({ code: 'no-hold' });
		await tendKeeping(t.house);
		expect(all.map((id) => packetState(t.house.db, id).status)).toEqual(['none', 'none', 'none', 'none']);
		await idle(t);
		sound();
	});
	it('keeps none of the others from going by themselves, however many it is on', async () => {
		const held = [await ended(hire), await ended(hire, 'kit'), await ended({ ...hire, title: 'The zither case' })];
		const free = await ended(hire);
		ok(keepRule(t.house, me, rule()));
		hold('packets', '', [held[0]!]);
		hold('person', 'KIT@post.example');
		hold('search', 'zither');
		await idle(t);
		to('2033-02-01');
		expect(goingByThemselves(t.house, 1)).toEqual([free]);
	});
	it('of what somebody may not see tells nothing of it, not even its title', async () => {
		const packet = await ended({ title: 'The chairman’s leave' });
		const mio = { account: await account(t.house, 'Mio', 'mio@x.example', 'preparer'), address: '' };
		openFolder(t.house, me, folderNamed(t.house, me, 'Board'), false);
		ok(file(t.house, t.odile, packet, { do: 'folder', folder: 'Board' }));
		const asked = ok(await dispose(t.house, mio, [packet], 'Over.'));
		expect(asked.gone).toEqual([]);
		expect(JSON.stringify(asked)).not.toContain('chairman');
	});
	it('has no certificate made before its last line is written', async () => {
		const packets = [await ended(), await ended()];
		const running = dispose(t.house, me, packets, 'Over.');
		const due = () =>
			t.house.db.prepare<[], string>("SELECT due_at FROM jobs WHERE key = 'certificate:1'").pluck().get() ?? '9999';
		expect(due() > t.house.now().toISOString()).toBe(true);
		ok(await running);
		expect(due() <= t.house.now().toISOString()).toBe(true);
	});
	it('that is set while a disposal runs is heeded from the next packet on', async () => {
		const [first, second] = [await ended(), await ended()];
		const running = dispose(t.house, me, [first, second], 'Over.');
		hold('packets', '', [second]);
		expect(ok(await running)).toMatchObject({ gone: [first], refused: [{ id: second }] });
	});
	it('is refused where it would hold nothing', async () => {
		const set = (of: 'packets' | 'person' | 'search', what: string) =>
			setHold(t.house, me, { name: 'x', why: 'y', of, what, packets: ['nothing'] });
		expect(set('person', 'nobody')).toMatchObject({ code: 'bad-address' });
		expect(set('search', ' … ')).toMatchObject({ code: 'words-missing' });
		const mio = await account(t.house, 'Mio', 'mio@x.example', 'preparer');
		const packet = await ended();
		openFolder(t.house, me, folderNamed(t.house, me, 'Board'), false);
		ok(file(t.house, t.odile, packet, { do: 'folder', folder: 'Board' }));
		const his = { account: mio, address: '' };
		expect(setHold(t.house, his, { name: 'x', why: 'y', of: 'packets', what: '', packets: [packet] })).toMatchObject({
			code: 'no-packet'
		});
	});
});

describe('disposing', () => {
	/** Words that stand nowhere else, in the document, the answers, the letter, the names. */
	const WORDS = ['Zwietrachtsholm', 'Quermandel', 'Oblatentaler', 'xylarquist'];
	async function telling(): Promise<string> {
		const letter = await youthConsent(WORDS[0]!);
		const taken = ok(await addPaper(t.house, 'Consent.pdf', letter.bytes));
		if ('attached' in taken) throw new Error(taken.why);
		const packet = await out(
			t,
			[['xylarquist']],
			{ xylarquist: { name: WORDS[1]! } },
			{
				papers: [{ id: 'paper', name: 'Consent', digest: taken.digest, pages: taken.pages }],
				message: `A word from ${WORDS[2]!}.`
			}
		);
		const who = visitor(t.house, 'xylarquist@post.example');
		await signs(t, 'xylarquist@post.example');
		saveAnswers(t.house, who, { 'xylarquist-note': { text: WORDS[2]! } }, FROM);
		await idle(t);
		return packet;
	}
	/** Which of the words stand in any file of the data folder. Documents are compressed: their words are looked for in the tables. */
	const inFiles = (folder: string): string[] => {
		const bytes = readdirSync(folder, { recursive: true })
			.map((name) => path.join(folder, String(name)))
			.filter((one) => statSync(one).isFile())
			.map((one) => readFileSync(one).toString('latin1').toLowerCase());
		return WORDS.filter((word) => bytes.some((text) => text.includes(word.toLowerCase())));
	};

	it('takes every word out of the files, and leaves the chain, the tree and everybody else’s proof', async () => {
		const folder = place();
		t = await testHouse({ folder }, openDb(folder));
		me = { account: t.odile, address: '' };
		const [packet, other] = [await telling(), await ended()];
		const record = auditRecord(t.house.db, packet);
		const hashes = linksOf(t.house.db, packet).map(({ hash }) => hash);
		expect(inFiles(folder)).toEqual(WORDS);
		expect(records(t.house, t.odile, WORDS[0]!).rows).toHaveLength(1);
		const came = ok(await dispose(t.house, me, [packet], 'The term is over.'));
		expect(came).toMatchObject({ gone: [packet], number: 1 });
		await idle(t);
		expect(inFiles(folder)).toEqual([]);
		for (const word of WORDS) expect(records(t.house, t.odile, word).rows).toEqual([]);
		sound();
		expect(linksOf(t.house.db, packet)).toEqual(hashes.map((hash) => ({ body: '', hash })));
		// a record that somebody has kept proves itself as before, and is held against the tree by its last link
		expect(faultsOf(record, sha256Text, sha256Bytes)).toEqual([]);
		expect(faultsOf(auditRecord(t.house.db, other), sha256Text, sha256Bytes)).toEqual([]);
		const disposal = disposalOf(t.house.db, 1)!;
		expect(disposal.lines).toMatchObject([{ reference: record.reference, head: hashes.at(-1), events: hashes.length }]);
		const pdf = t.house.db
			.prepare<[string], Buffer>('SELECT bytes FROM blobs WHERE digest = ?')
			.pluck()
			.get(disposal.certificate!)!;
		expect(
			await verifySealed(
				pdf,
				rootsOf(t.house.db).map(({ pem }) => pem)
			)
		).toMatchObject({ verdict: 'genuine' });
		expect(pdf.toString('latin1')).not.toContain(WORDS[1]);
		t.house.db.close();
	});
	it('is told from what is missing: words that went without it, and words that are still there', async () => {
		const [gone, there] = [await ended(), await ended()];
		ok(await dispose(t.house, me, [gone], 'Over.'));
		await idle(t);
		sound();
		const { db } = t.house;
		expect(() => db.prepare("UPDATE events SET body = '' WHERE packet = ?").run(there)).toThrow('never changed');
		expect(() => db.prepare("UPDATE events SET hash = 'x' WHERE packet = ?").run(gone)).toThrow('never changed');
		expect(() => db.prepare('DELETE FROM disposed').run()).toThrow('gone');
		db.exec('DROP TRIGGER events_stay');
		db.prepare("UPDATE events SET body = '' WHERE packet = ?").run(there);
		expect(checkData(db).faults).toContain(
			`Packet ${there}: words of its events are missing, and it was not disposed of.`
		);
		db.prepare("UPDATE events SET body = '{}' WHERE packet = ?").run(gone);
		expect(checkData(db).faults.join()).toContain('words of its events are still here');
	});
	it('wants two where the office says so, neither of them somebody of the packet', async () => {
		ok(setKeeping(t.house.db, { fileNames: '{reference}', binDays: 1, two: true }));
		const packet = await ended();
		const mine = await out(t, [['own']], { own: { email: t.odile.email } });
		await signs(t, t.odile.email);
		await idle(t);
		expect(ok(await dispose(t.house, me, [mine], 'Over.')).refused[0]?.say).toContain('You took part in it');
		const tamsin = { account: await account(t.house, 'Tamsin', 'tamsin@x.example', 'owner'), address: '' };
		expect(await dispose(t.house, me, [packet], '')).toMatchObject({ code: 'reason-missing' });
		expect(ok(await dispose(t.house, me, [packet], 'Over.'))).toMatchObject({ agreed: [packet], number: null });
		expect(ok(await dispose(t.house, me, [packet], 'Over.')).refused[0]?.say).toContain('Somebody else has to agree');
		ok(file(t.house, t.odile, packet, { do: 'bin' }));
		to('2027-03-01');
		await tendKeeping(t.house);
		expect(dueRows(t.house, tamsin.account)).toMatchObject([{ id: packet, agreed: 'Odile Farrow', by: 'bin' }]);
		expect(ok(await dispose(t.house, tamsin, [packet], 'Over.'))).toMatchObject({ gone: [packet] });
		expect(disposalOf(t.house.db, 1)).toMatchObject({ by: 'Tamsin', second: 'Odile Farrow' });
	});
	it('of what is out, of nothing, or by who may not decide, is refused, each by itself', async () => {
		const [still, over] = [await out(t, [['maren']]), await ended()];
		const mio = { account: await account(t.house, 'Mio', 'mio@x.example', 'viewer'), address: '' };
		expect(ok(await dispose(t.house, mio, [over], 'x')).refused).toHaveLength(1);
		const came = ok(await dispose(t.house, me, [still, 'nothing', over], 'x'));
		expect(came.gone).toEqual([over]);
		expect(came.refused.map(({ say }) => say)).toEqual([
			expect.stringContaining('still out'),
			expect.stringContaining('no such packet')
		]);
	});
	it('leaves a document that others have, a template’s among them, and puts away what nobody has', async () => {
		const [first, second] = [await ended(), await ended()];
		const count = () => t.house.db.prepare('SELECT count(*) FROM blobs').pluck().get() as number;
		const before = count();
		ok(await dispose(t.house, me, [first], 'x'));
		await idle(t);
		sound();
		// two sealed files went, one certificate came
		expect(count()).toBe(before - 1);
		ok(await dispose(t.house, me, [second], 'x'));
		await idle(t);
		sound();
		expect(t.house.db.prepare('SELECT count(*) FROM papers').pluck().get()).toBe(0);
		expect(await weigh(t.house)).toMatchObject({ sealed: 0, documents: 0, files: count() });
	});
	it('in whatever order: every proof that is left holds, and nothing on hold goes', async () => {
		const packets = [await ended(), await ended(), await ended(), await ended()];
		const whole = t.house.db.serialize();
		await fc.assert(
			fc.asyncProperty(
				fc.shuffledSubarray([0, 1, 2, 3]),
				fc.subarray([0, 1, 2, 3], { maxLength: 2 }),
				async (order, held) => {
					const db = reopened(whole);
					const clock = { now: t.clock.now };
					t = { ...t, clock, house: { ...t.house, db } };
					t.runner = new JobRunner(t.house);
					const by = me;
					const on = held.map((i) => packets[i]!);
					if (on.length > 0) ok(setHold(t.house, by, { name: 'h', why: 'w', of: 'packets', what: '', packets: on }));
					for (const i of order) await dispose(t.house, by, [packets[i]!], 'Over.');
					await idle(t);
					expect(checkData(t.house.db).faults).toEqual([]);
					packets.forEach((id, i) => {
						const gone = order.includes(i) && !held.includes(i);
						expect(packetState(t.house.db, id).status).toBe(gone ? 'none' : 'completed');
						if (!gone) expect(faultsOf(auditRecord(t.house.db, id), sha256Text, sha256Bytes)).toEqual([]);
					});
				}
			),
			{ numRuns: 4 }
		);
	});
});

describe('a person', () => {
	it('is handed all that is held on them, and forgotten but for what must stay', async () => {
		const [free, ruled, others] = [await ended(), await ended(hire), await ended({}, 'kit')];
		const still = await out(t, [['maren'], ['kit']]);
		ok(keepRule(t.house, me, rule()));
		await idle(t);
		expect((await heldOn(t.house, 'MAREN@post.example')).map(({ id }) => id)).toEqual([free, ruled, still].sort());
		const zip = ok(await personAsZip(t.house, me, 'maren@post.example'));
		const files = unzipSync(new Uint8Array(await new Response(zip.stream).arrayBuffer()));
		expect(strFromU8(files['What is held.pdf']!.slice(0, 5))).toBe('%PDF-');
		const data = JSON.parse(strFromU8(files['data.json']!)) as {
			packets: { reference: string; answers: object[]; happened: { from: string }[]; kept: string }[];
		};
		expect(data.packets).toHaveLength(3);
		expect(data.packets.map(({ kept: until }) => until)).toContain('until 2032-12-31, by “Hall hire, 6 years”');
		expect(JSON.stringify(data)).toContain(FROM.address);
		expect(JSON.stringify(data)).not.toContain('kit@post.example');
		expect(Object.keys(files).filter((name) => name.includes('Evidence sheet'))).toHaveLength(2);
		const came = ok(await forgetPerson(t.house, me, 'maren@post.example', 'They have asked for it.'));
		expect(came.gone).toHaveLength(1);
		expect(came.stay.map(({ why }) => why)).toEqual(
			expect.arrayContaining(['It is still out.', 'It has to be kept until 2032-12-31, by “Hall hire, 6 years”.'])
		);
		expect(came.stay.find(({ from }) => from)?.from).toBe('2032-12-31');
		await idle(t);
		expect([free, ruled, others].map((id) => packetState(t.house.db, id).status)).toEqual([
			'none',
			'completed',
			'completed'
		]);
		sound();
		const mio = { account: await account(t.house, 'Mio', 'mio@x.example', 'preparer'), address: '' };
		expect(await personAsZip(t.house, mio, 'maren@post.example')).toMatchObject({ code: 'not-yours' });
		expect(await forgetPerson(t.house, me, 'maren', 'x')).toMatchObject({ code: 'bad-address' });
	});
});

/** The worked case of retention: given a rule and a term, when the days go by, then what stands and what goes. */
describe('hall hire: 6 years after the term’s end, at year’s end, then dispose', () => {
	const term = { sending: { type: 'Hall hire', term: { months: 10, notice: null } } };
	it('keeps, holds and goes on its days', async () => {
		ok(keepRule(t.house, me, rule({ from: 'term' })));
		to('2025-12-01');
		const hall = await ended({ ...term, title: 'Quartet rooms' });
		const [noTerm, held] = [await ended(hire), await ended(term)];
		expect(records(t.house, t.odile, 'quartet').rows).toHaveLength(1);
		const open = await out(t, [['maren']], {}, hire);
		const until = (id: string) => rowsOf(t.house.db, [id])[0]?.termEnd ?? null;
		expect([until(hall), until(noTerm)]).toEqual(['2026-09-30', null]);
		expect([kept(hall), kept(noTerm), kept(open)]).toEqual(['2032-12-31', '2031-12-31', null]);
		to('2032-11-01');
		const claim = ok(
			setHold(t.house, me, { name: 'Claim 12', why: 'The insurer asks.', of: 'packets', what: '', packets: [held] })
		);
		const status = () => [hall, noTerm, held].map((id) => packetState(t.house.db, id).status);
		await tendKeeping(t.house);
		expect(status()).toEqual(['completed', 'none', 'completed']);
		to('2033-01-02');
		await tendKeeping(t.house);
		expect(status()).toEqual(['none', 'none', 'completed']);
		to('2033-02-01');
		ok(liftHold(t.house, me, claim.id, 'Settled.'));
		await tendKeeping(t.house);
		await idle(t);
		expect(status()).toEqual(['none', 'none', 'none']);
		expect(disposalOf(t.house.db, 3)).toMatchObject({ at: expect.stringContaining('2033-02-01') as string });
		expect(records(t.house, t.odile, 'quartet').rows).toEqual([]);
		sound();
	});
});

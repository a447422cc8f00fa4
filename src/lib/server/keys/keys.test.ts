import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { authority, type Authority } from '../../../../e2e/kit/authority';
import { FROM, idle, ok, sent, signs, testHouse, type TestHouse } from '../../../../e2e/kit/house';
import { place } from '../../../../e2e/kit/on-disk';
import { closePool, toPem, verifySealed } from '../../press';
import { checkData } from '../check';
import { listHosts } from '../outside';
import { readBlob } from '../blobs';
import { dispose, disposalOf, tendKeeping } from '../keeping';
import { officeEvents } from '../office-record';
import type { Doer } from '../office-record';
import { packetState } from '../packets/act';
import { copyFile } from '../packets/copies';
import { auditRecord } from '../packets/log';
import { readSetting } from '../settings';
import { judge } from '../verifying';
import {
	addLists,
	endMethod,
	keyRows,
	knownNow,
	refreshLists,
	rootsOf,
	sealKeys,
	takeInKey,
	trustedRoots,
	tryKey,
	withdrawKey
} from './index';

const YEAR = 365.25 * 86_400_000;
let t: TestHouse;
let me: Doer;
let trust: Authority;
beforeAll(() => {
	trust = authority();
});
beforeEach(async () => {
	t = await testHouse();
	me = { account: t.odile, address: FROM.address };
});
afterAll(closePool);

/** Another packet, signed and sealed: its id. */
async function sealed(): Promise<string> {
	const { packet } = await sent(t, [['maren']]);
	await t.runner.drain();
	await signs(t, 'maren@post.example');
	await idle(t);
	return packet;
}
const copy = (packet: string) => {
	const state = packetState(t.house.db, packet);
	if (state.status !== 'completed') throw new Error(state.status);
	return copyFile(t.house, state, 'paper')!.bytes;
};
const judged = async (bytes: Uint8Array) => {
	const roots = (await trustedRoots(t.house)).map(({ pem }) => pem);
	const verdict = await verifySealed(bytes, roots, knownNow(t.house));
	return [verdict.verdict, verdict.checks.find((one) => !one.ok)?.name ?? 'all'];
};
/** So many years on: what is done each hour by itself is done, and all that it asks for. */
async function years(n: number): Promise<void> {
	t.clock.now += n * YEAR;
	await tendKeeping(t.house);
	await idle(t);
}

describe('copies that are to be believed in thirty years', () => {
	it('get another time-stamp before the last one ends, by themselves, each in the record; the clock has three certificates', async () => {
		const packet = await sealed();
		const first = copy(packet);
		for (const step of [7, 2, 7, 2, 7]) await years(step);
		const last = copy(packet);
		expect(await judged(last)).toEqual(['genuine', 'all']);
		expect(last.subarray(0, first.length).equals(first)).toBe(true);
		const record = auditRecord(t.house.db, packet)!;
		const stamped = record.links.map(({ body }) => JSON.parse(body) as { type: string; until?: string });
		const events = stamped.filter(({ type }) => type === 'CopiesStamped');
		expect(events).toHaveLength(2);
		expect(keyRows(t.house).filter(({ use }) => use.includes('time-stamping'))).toHaveLength(3);
		// whoever holds the first one finds it known, and is told of the one that proves more
		expect(await judged(first)).toEqual(['unjudged', 'until']);
		expect(await judge(t.house, { name: 'a', bytes: first }, null)).toMatchObject({ kept: 'later' });
		expect(await judge(t.house, { name: 'a', bytes: last }, null)).toMatchObject({ kept: 'same' });
		expect(checkData(t.house.db).faults).toEqual([]);
		// the files that nothing names any more are swept, and the copies are not
		t.clock.now += 3 * 86_400_000;
		await tendKeeping(t.house);
		expect(t.house.db.prepare('SELECT count(*) FROM sealed_files WHERE later IS NULL').pluck().get()).toBe(2);
		expect(await judged(copy(packet))).toEqual(['genuine', 'all']);
	});
	it('rest on another method, once somebody has said that theirs is not relied on any more', async () => {
		const packet = await sealed();
		expect(endMethod(t.house, me, { method: 'sha384', from: '2030-01-01', why: '' })).toMatchObject({
			code: 'malformed'
		});
		ok(endMethod(t.house, me, { method: 'sha256', from: '2028-01-01', why: 'It has been broken.' }));
		expect(endMethod(t.house, me, { method: 'sha384', from: '2030-01-01', why: 'It too.' })).toMatchObject({
			code: 'no-method-left'
		});
		await years(0);
		await years(2);
		expect(await judged(copy(packet))).toEqual(['genuine', 'all']);
		const other = await sealed();
		expect(await judged(copy(other))).toEqual(['genuine', 'all']);
		expect(readSetting(t.house.db, 'methods')).toContain('sha256');
		ok(endMethod(t.house, me, { method: 'sha256', from: '', why: 'It was a mistake.' }));
		expect(checkData(t.house.db).faults).toEqual([]);
	});
	it('the certificate of a disposal gets one as well, in the office’s record', async () => {
		const packet = await sealed();
		ok(await dispose(t.house, { account: t.odile, address: '' }, [packet], 'Over.'));
		await idle(t);
		for (const step of [9, 9]) await years(step);
		const { certificate } = disposalOf(t.house.db, 1)!;
		const bytes = readBlob(t.house.db, certificate!)!.bytes;
		expect(await judged(bytes)).toEqual(['genuine', 'all']);
		expect(await judge(t.house, { name: 'a', bytes }, null)).toMatchObject({ kept: 'same' });
		expect(officeEvents(t.house.db).filter(({ type }) => type === 'CertificateStamped')).toHaveLength(2);
		expect(checkData(t.house.db).faults).toEqual([]);
	});
	it('of a Pellum from before it kept count are found out by the keys', async () => {
		const packet = await sealed();
		const row = () => t.house.db.prepare('SELECT until, method FROM lasting WHERE of = ?').get(packet);
		const was = row();
		t.house.db.prepare("UPDATE lasting SET until = '', method = 'sha256'").run();
		await years(0);
		expect(row()).toEqual(was);
	});
});

describe('a key that is withdrawn', () => {
	it('signs nothing more; what it sealed before stays genuine, and everybody is told by a list', async () => {
		const packet = await sealed();
		t.clock.now += 86_400_000;
		const said = ok(await withdrawKey(t.house, me, 'seal', 'keyCompromise', 'A disk was stolen.'));
		expect(said).toMatchObject({ listed: true });
		expect(await judged(copy(packet))).toEqual(['genuine', 'all']);
		t.clock.now += 86_400_000;
		const after = await sealed();
		expect(await judged(copy(after))).toEqual(['genuine', 'all']);
		const [now] = keyRows(t.house).filter(({ use }) => use === 'sealing');
		expect(now).toMatchObject({ withdrawn: null, now: true });
		const old = keyRows(t.house).find(({ withdrawn }) => withdrawn)!;
		expect(await withdrawKey(t.house, me, old.name, 'keyCompromise', 'x')).toMatchObject({ code: 'key-withdrawn' });
		expect(await withdrawKey(t.house, me, 'nobody', 'keyCompromise', 'x')).toMatchObject({ code: 'no-key' });
	});
	it('of the clock, lost: copies that rest on it alone can’t be proven by themselves', async () => {
		const packet = await sealed();
		t.clock.now += 86_400_000;
		ok(await withdrawKey(t.house, me, 'stamp', 'keyCompromise', 'Its key was copied.'));
		expect(await judged(copy(packet))).toEqual(['altered', 'certificates']);
		ok(await sealKeys(t.house));
		expect(await judged(copy(await sealed()))).toEqual(['genuine', 'all']);
	});
});

describe('a certificate of one’s own', () => {
	const own = (more: Partial<Parameters<typeof tryKey>[1]> = {}) => ({
		file: trust.p12(),
		password: 'cello',
		more: trust.lists(),
		...more
	});
	it('is tried, then seals; its copies are genuine, for openssl and pdfsig as well', async () => {
		const before = await sealed();
		const came = ok(await tryKey(t.house, own()));
		expect(came.tried).toEqual({
			of: 'Brindlevale Touring Orchestra',
			chain: ['Tarrow Trust seals', 'Tarrow Trust root'],
			until: '2029-01-01T00:00:00.000Z',
			lists: '2027-01-01T00:00:00.000Z'
		});
		// trying changes nothing
		expect(keyRows(t.house).some((key) => key.own)).toBe(false);
		for (const key of ['ec', 'rsa'] as const) {
			t.clock.now += 60_000;
			ok(await takeInKey(t.house, me, own({ file: trust.p12({ key }) })));
			const bytes = copy(await sealed());
			expect(await judged(bytes)).toEqual(['genuine', 'all']);
			const folder = place();
			writeFileSync(path.join(folder, 'copy.pdf'), bytes);
			const said = execFileSync('pdfsig', ['-nocert', path.join(folder, 'copy.pdf')], { encoding: 'utf8' });
			expect(said).toContain('Signature is Valid');
			expect(said).toContain('Seal of the orchestra');
		}
		expect(await judged(copy(before))).toEqual(['genuine', 'all']);
		expect(rootsOf(t.house.db).some(({ pem }) => pem === toPem(pemOf(trust.certificates[0]!)))).toBe(true);
		expect(checkData(t.house.db).faults).toEqual([]);
		// at its end one that is made here takes its place; what it has sealed stays genuine
		t.clock.now = Date.parse('2029-02-01T09:00:00Z');
		expect(await judged(copy(await sealed()))).toEqual(['genuine', 'all']);
		expect(keyRows(t.house).find((key) => key.now && key.use === 'sealing')).toMatchObject({ own: false });
	});
	it.each([
		['no file at all', () => own({ file: new Uint8Array([1, 2, 3]) }), 'no-key-file'],
		[
			'a password stretched for hours',
			() => own({ file: stretched(trust.p12({ rounds: 1_000_000 })) }),
			'key-file-heavy'
		],
		['a wrong password', () => own({ password: 'viola' }), 'wrong-password'],
		[
			'a wrong password where the salt happens to begin like a date',
			() => own({ file: dated(trust.p12()), password: 'viola' }),
			'wrong-password'
		],
		['a certificate without its key', () => own({ file: trust.p12({ how: 'keyless' }) }), 'no-private-key'],
		['locked as twenty years ago', () => own({ file: trust.p12({ how: 'old' }) }), 'key-file-unreadable'],
		['a key too small', () => own({ file: trust.p12({ key: 'small' }) }), 'key-kind'],
		['a curve that is not permitted', () => own({ file: trust.p12({ key: 'curve' }) }), 'key-kind'],
		['a curve that nobody knows', () => own({ file: trust.p12({ key: 'odd' }) }), 'key-file-unreadable'],
		['over', () => own({ file: trust.p12({ until: '20260101000000Z' }) }), 'certificate-over'],
		['not yet good', () => own({ file: trust.p12({ from: '20270101000000Z' }) }), 'certificate-over'],
		['for something else', () => own({ file: trust.p12({ usage: '1' }) }), 'certificate-use'],
		['without what issued it', () => own({ file: trust.p12({ how: 'alone' }) }), 'chain-missing'],
		['without lists', () => own({ more: [] }), 'list-missing'],
		['with lists that are over', () => own({ more: trust.lists('20260101000000Z') }), 'list-missing'],
		['with lists of somebody else', () => own({ more: authority().lists() }), 'list-missing'],
		['with a letter beside it', () => own({ more: [Buffer.from('Dear Odile')] }), 'no-list']
	])('refuses %s with a sentence, and seals as before', async (_, wanted, code) => {
		const came = await takeInKey(t.house, me, wanted());
		expect(came).toMatchObject({ code });
		expect(keyRows(t.house).some((key) => key.own)).toBe(false);
	});
	it('has the certificates of its authorities beside it, where the file lacks them', async () => {
		const more = [...trust.certificates, ...trust.lists()];
		expect(ok(await tryKey(t.house, own({ file: trust.p12({ how: 'alone' }), more }))).tried.chain).toHaveLength(2);
	});
	it('has newer lists fetched before they end; without them nothing is sealed that nobody would believe, and it goes on with them', async () => {
		let list: Uint8Array = new Uint8Array();
		const server = createServer((_, response) => response.end(list));
		await new Promise<void>((go) => server.listen(0, '127.0.0.1', go));
		const host = `127.0.0.1:${(server.address() as AddressInfo).port}`;
		const other = authority(`http://${host}/list.crl`);
		const lists = other.lists();
		ok(await takeInKey(t.house, me, { file: other.p12(), password: 'cello', more: lists }));
		t.clock.now = Date.parse('2027-01-05T09:00:00Z');
		await refreshLists(t.house);
		await expect(sealKeys(t.house)).rejects.toThrow('revocation list');
		// its host leads into the own network, which an owner lists
		listHosts(t.house, me as Parameters<typeof listHosts>[1], [host]);
		[, list] = other.lists('20280101000000Z') as [Uint8Array, Uint8Array];
		await refreshLists(t.house);
		await expect(sealKeys(t.house)).rejects.toThrow('revocation list');
		// what is there already is judged all the same, and another certificate can be taken
		expect(await trustedRoots(t.house)).toHaveLength(3);
		expect(ok(await tryKey(t.house, own({ more: trust.lists('20280101000000Z') }))).tried.chain).toHaveLength(2);
		expect(addLists(t.house, me, [Buffer.from('no list')])).toMatchObject({ code: 'no-newer-list' });
		expect(ok(addLists(t.house, me, other.lists('20280101000000Z'))).until).toBe('2028-01-01T00:00:00.000Z');
		expect(await judged(copy(await sealed()))).toEqual(['genuine', 'all']);
		server.close();
	});
});

/** The same with the number of its rounds, a million, made eight: nobody waits for such a file to be written. */
const stretched = (file: Uint8Array): Uint8Array =>
	new Uint8Array(Buffer.from(Buffer.from(file).toString('hex').replaceAll('02030f4240', '02037fffff'), 'hex'));

/** The same with a salt, random bytes, that reads as the beginning of a date (0x18: GeneralizedTime) and is none. */
function dated(file: Uint8Array): Uint8Array {
	const bytes = Buffer.from(file);
	// the salt of its seal stands before how often the password is stretched, 2048 times, at its end
	const at = bytes.lastIndexOf(Buffer.from('02020800', 'hex')) - 8;
	if (at < 0) throw new Error('no salt');
	return new Uint8Array(Buffer.concat([bytes.subarray(0, at), Buffer.from('1806', 'hex'), bytes.subarray(at + 2)]));
}

const pemOf = (pem: Uint8Array): Uint8Array =>
	new Uint8Array(
		Buffer.from(/-----BEGIN CERTIFICATE-----([\s\S]+?)-----END/.exec(Buffer.from(pem).toString())![1]!, 'base64')
	);

import { PDFDocument } from '@cantoo/pdf-lib';
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pdf } from '../../../../e2e/kit/pdfs';
import {
	canonicalJson,
	extend,
	GENESIS,
	grown,
	inclusionProof,
	leafHash,
	rootOf,
	type AuditRecord
} from '../../core/audit';
import { makeIdentity, toPem, type SealKeys } from './keys';
import { seal } from './seal';
import { answerTimestamp, timestampRequest, tokenOf } from './timestamp';
import { verifySealed } from './verify';

const hex = (data: string | Uint8Array) => createHash('sha256').update(data).digest('hex');
const now = new Date('2026-11-23T10:00:00Z');
const folder = mkdtempSync(path.join(tmpdir(), 'pellum-seal-'));
const file = (name: string, bytes: Uint8Array | string) => {
	const at = path.join(folder, name);
	writeFileSync(at, bytes);
	return at;
};

function recordOf(events: number): AuditRecord {
	const plan = canonicalJson({ title: 'Test' });
	const bodies = Array.from({ length: events }, (_, n) =>
		canonicalJson(
			n === 0
				? { n, type: 'PacketSent', packet: 'k', reference: 'P-7K3QM', plan: hex(plan) }
				: { n, type: 'StopOpened' }
		)
	);
	const links = extend(hex, GENESIS, bodies);
	const levels: string[][] = [[]];
	const at = (level: number, index: number) => levels[level]![index]!;
	links.forEach((link, size) => {
		for (const node of grown(hex, size, leafHash(hex, link.hash), at))
			(levels[node.level] ??= [])[node.index] = node.hash;
	});
	const leaf = events - 1;
	return {
		format: 'pellum-audit-record/1',
		packet: 'k',
		reference: 'P-7K3QM',
		plan,
		links,
		tree: { leaf, size: events, root: rootOf(hex, events, at), path: inclusionProof(hex, leaf, events, at) }
	};
}

let keys: SealKeys;
let trust: string[];
let sealed: Uint8Array;
const sealWith = async (record: unknown, k = keys) => {
	const doc = await PDFDocument.load(await pdf(2), { updateMetadata: false });
	return seal(doc, k, {
		organisation: 'Brindlevale Touring Orchestra',
		reason: 'Completed',
		record: JSON.stringify(record),
		now
	});
};

beforeAll(async () => {
	keys = {
		seal: await makeIdentity('Brindlevale Touring Orchestra', 'seal', now),
		stamp: await makeIdentity('Stand-in', 'stamp', now)
	};
	trust = [toPem(keys.seal.issuer), toPem(keys.stamp.issuer)];
	sealed = await sealWith(recordOf(5));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('our own judgement', () => {
	it('is genuine, and says whose, when and which', async () => {
		const verdict = await verifySealed(sealed, trust);
		expect(verdict.checks.filter((c) => !c.ok)).toEqual([]);
		expect(verdict).toMatchObject({
			verdict: 'genuine',
			sealedBy: 'Brindlevale Touring Orchestra',
			sealedAt: now.toISOString(),
			reference: 'P-7K3QM'
		});
	});
	it('is not, with any one byte changed, wherever it lies', async () => {
		const places = [0, 9, 200, sealed.length >> 1, sealed.length - 5, sealed.length - 1];
		const text = Buffer.from(sealed).toString('latin1');
		const contents = text.indexOf('/Contents <') + 11;
		places.push(contents - 3, contents + 40, contents + 2400, contents + 23_900, text.indexOf('/ByteRange') + 14);
		for (let i = 0; i < 40; i++) places.push((i * 7919 + 13) % sealed.length);
		for (const at of places) {
			const forged = sealed.slice();
			forged[at] = forged[at]! ^ 0x01;
			expect((await verifySealed(forged, trust)).verdict, `byte ${at}`).toBe('altered');
		}
	});
	it('is not, with something added after it, or put before', async () => {
		const added = Buffer.concat([sealed, Buffer.from('\n%%EOF\n')]);
		const before = Buffer.concat([Buffer.from(' '), sealed]);
		for (const forged of [added, before]) expect((await verifySealed(forged, trust)).verdict).toBe('altered');
	});
	it('is not, for a file without a seal or no PDF at all', async () => {
		for (const bytes of [await pdf(1), Buffer.from('hello'), new Uint8Array()])
			expect((await verifySealed(bytes, trust)).verdict).toBe('altered');
	});
	it('can’t be made where nobody is trusted, and fails where only others are', async () => {
		expect((await verifySealed(sealed, [])).verdict).toBe('unjudged');
		const strange = toPem((await makeIdentity('Brindlevale Touring Orchestra', 'seal', now)).issuer);
		expect((await verifySealed(sealed, [strange, trust[1]!])).verdict).toBe('altered');
		expect((await verifySealed(sealed, [trust[0]!])).verdict).toBe('altered');
	});
	it('is not, when the record inside is not whole', async () => {
		const record = recordOf(5);
		const wrong: [string, unknown][] = [
			['an event left out', { ...record, links: record.links.filter((_, i) => i !== 2) }],
			['the end cut off', { ...record, links: record.links.slice(0, 4) }],
			['another plan', { ...record, plan: '{}' }],
			['a corrected plan that no event names', { ...record, corrected: ['{}'] }],
			['another reference', { ...record, reference: 'P-00000' }],
			['no events', { ...record, links: [] }],
			['something else', { hello: 1 }]
		];
		for (const [what, forged] of wrong) {
			const verdict = await verifySealed(await sealWith(forged), trust);
			expect(verdict.verdict, what).toBe('altered');
			expect(verdict.checks.find((c) => !c.ok)?.name, what).toBe('record');
		}
	});
	it('is not, when the time-stamp was made by a key that may only seal', async () => {
		const forged = await sealWith(recordOf(3), { seal: keys.seal, stamp: keys.seal });
		expect((await verifySealed(forged, trust)).checks.find((c) => !c.ok)?.name).toBe('time');
	});
});

describe('free tools agree', () => {
	it('pdfsig: valid, trusted, the whole document; and not with a byte changed', () => {
		const nss = path.join(folder, 'nss');
		mkdirSync(nss);
		execFileSync('certutil', ['-N', '-d', nss, '--empty-password']);
		execFileSync('certutil', ['-A', '-d', nss, '-n', 'root', '-t', ',C,', '-i', file('root.pem', trust[0]!)]);
		const ask = (name: string) => execFileSync('pdfsig', ['-nssdir', nss, name], { encoding: 'utf8' });
		const good = ask(file('sealed.pdf', sealed));
		expect(good).toContain('Signature Validation: Signature is Valid.');
		expect(good).toContain('Certificate Validation: Certificate is Trusted.');
		expect(good).toContain('Total document signed');
		expect(good).toContain('ETSI.CAdES.detached');
		const forged = sealed.slice();
		forged[300] = forged[300]! ^ 0x01;
		expect(ask(file('forged.pdf', forged))).not.toContain('Signature is Valid.');
	});
	it('openssl: the signature as CAdES, the time-stamp as RFC 3161', async () => {
		const text = Buffer.from(sealed).toString('latin1');
		const [, from, to, rest] = /\/ByteRange \[\s*0 (\d+) (\d+) (\d+)/.exec(text)!.map(Number) as [
			number,
			number,
			number,
			number
		];
		const cms = Buffer.from(text.slice(from + 1, to - 1).replace(/(00)+$/, ''), 'hex');
		const content = Buffer.concat([sealed.subarray(0, from), sealed.subarray(to, to + rest)]);
		const args = [
			'cms',
			'-verify',
			'-cades',
			'-binary',
			'-inform',
			'DER',
			'-in',
			file('seal.der', cms),
			'-content',
			file('content', content),
			'-CAfile',
			file('ca.pem', trust[0]!),
			'-purpose',
			'any',
			'-out',
			'/dev/null'
		];
		expect(spawnSync('openssl', args, { encoding: 'utf8' }).stderr).toContain('successful');
		writeFileSync(path.join(folder, 'content'), Buffer.concat([content, Buffer.from('x')]));
		expect(spawnSync('openssl', args).status).not.toBe(0);

		const data = file('data', 'to be stamped');
		execFileSync('openssl', [
			'ts',
			'-query',
			'-data',
			data,
			'-sha256',
			'-cert',
			'-out',
			path.join(folder, 'query.tsq')
		]);
		const { readFileSync } = await import('node:fs');
		const reply = file('reply.tsr', answerTimestamp(keys.stamp, readFileSync(path.join(folder, 'query.tsq')), now));
		const judged = execFileSync(
			'openssl',
			['ts', '-verify', '-data', data, '-in', reply, '-CAfile', file('tsa.pem', trust[1]!)],
			{ encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] }
		);
		expect(judged).toContain('OK');
	});
});

describe('time-stamps', () => {
	it('answer the request they were asked with, and no other', () => {
		const request = timestampRequest(Buffer.from('a'));
		const response = answerTimestamp(keys.stamp, request, now);
		expect(tokenOf(response, request).length).toBeGreaterThan(100);
		expect(() => tokenOf(response, timestampRequest(Buffer.from('a')))).toThrow('another request');
	});
	it('are refused for what can’t be read', () => {
		expect(() =>
			tokenOf(answerTimestamp(keys.stamp, Buffer.from('rubbish'), now), timestampRequest(Buffer.from('a')))
		).toThrow();
	});
});

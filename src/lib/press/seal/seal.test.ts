import { PDFDocument } from '@cantoo/pdf-lib';
import * as asn1 from 'asn1js';
import * as pkijs from 'pkijs';
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pdf } from '../../../../e2e/kit/pdfs';
import { recordOf } from '../../../../e2e/kit/records';
import { makeIdentity, toPem, type SealKeys } from './keys';
import { seal } from './seal';
import { answerTimestamp, timestampRequest, tokenOf } from './timestamp';
import { verifySealed } from './verify';

const now = new Date('2026-11-23T10:00:00Z');
const folder = mkdtempSync(path.join(tmpdir(), 'pellum-seal-'));
const file = (name: string, bytes: Uint8Array | string) => {
	const at = path.join(folder, name);
	writeFileSync(at, bytes);
	return at;
};

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
		const request = timestampRequest('sha256', Buffer.from('a'));
		const response = answerTimestamp(keys.stamp, request, now);
		expect(tokenOf(response, request).length).toBeGreaterThan(100);
		expect(() => tokenOf(response, timestampRequest('sha256', Buffer.from('a')))).toThrow('another request');
	});
	it('are refused for what can’t be read', () => {
		expect(() =>
			tokenOf(answerTimestamp(keys.stamp, Buffer.from('rubbish'), now), timestampRequest('sha256', Buffer.from('a')))
		).toThrow();
	});
});

describe('rebuilt without the key', () => {
	/** The seal's CMS, taken apart by other code than ours, changed, and put back in its place. */
	const rebuilt = (change: (content: pkijs.ContentInfo, signed: pkijs.SignedData) => Uint8Array | void): Uint8Array => {
		const text = Buffer.from(sealed).toString('latin1');
		const from = text.indexOf('/Contents <') + '/Contents <'.length;
		const to = text.indexOf('>', from);
		const cms = Buffer.from(text.slice(from, to).replace(/(00)+$/, ''), 'hex');
		const content = new pkijs.ContentInfo({ schema: asn1.fromBER(new Uint8Array(cms).buffer).result });
		const signed = new pkijs.SignedData({ schema: content.content });
		const own = change(content, signed);
		content.content = signed.toSchema(true);
		const now = own ?? new Uint8Array(content.toSchema().toBER());
		const forged = Buffer.from(sealed);
		forged.write(
			Buffer.from(now)
				.toString('hex')
				.padEnd(to - from, '0'),
			from,
			'latin1'
		);
		return forged;
	};
	const stampOver = (bytes: Uint8Array, at: Date, k = keys) => {
		const request = timestampRequest('sha256', bytes);
		return tokenOf(answerTimestamp(k.stamp, request, at), request);
	};
	const signer = (signed: pkijs.SignedData) => signed.signerInfos[0]!;
	const setToken = (signed: pkijs.SignedData, token: Uint8Array) =>
		(signer(signed).unsignedAttrs!.attributes[0]!.values = [asn1.fromBER(new Uint8Array(token).buffer).result]);
	const value = (signed: pkijs.SignedData) => new Uint8Array(signer(signed).signature.valueBlock.valueHexView);
	const flipped = (signature: Uint8Array) => {
		const order = BigInt('0xffffffff00000000ffffffffffffffffbce6faada7179e84f3b9cac2fc632551');
		const at = 4 + signature[3]!;
		const s = BigInt('0x' + Buffer.from(signature.subarray(at + 2)).toString('hex'));
		const bytes = Buffer.from((order - s).toString(16).padStart(64, '0'), 'hex');
		const number = bytes[0]! & 0x80 ? Buffer.concat([Buffer.of(0), bytes]) : bytes;
		const both = Buffer.concat([signature.subarray(2, at), Buffer.of(2, number.length), number]);
		return Buffer.concat([Buffer.of(0x30, both.length), both]);
	};
	const plain = new pkijs.Attribute({ type: '1.2.3.4', values: [new asn1.Null()] });

	it('is the same file where nothing is changed', async () => {
		expect(
			Buffer.compare(
				rebuilt(() => {}),
				sealed
			)
		).toBe(0);
	});
	it.each<[string, (content: pkijs.ContentInfo, signed: pkijs.SignedData) => Uint8Array | void]>([
		[
			'a fresh time-stamp of the same authority',
			(_, s) => void setToken(s, stampOver(value(s), new Date('2027-03-01T10:00:00Z')))
		],
		['an earlier one', (_, s) => void setToken(s, stampOver(value(s), new Date('2026-11-23T09:30:00Z')))],
		['no time-stamp', (_, s) => void (signer(s).unsignedAttrs = undefined)],
		['a second unsigned attribute', (_, s) => void signer(s).unsignedAttrs!.attributes.push(plain)],
		['another unsigned attribute alone', (_, s) => void (signer(s).unsignedAttrs!.attributes = [plain])],
		[
			'the time-stamp twice in its attribute',
			(_, s) => {
				const [attribute] = signer(s).unsignedAttrs!.attributes;
				attribute!.values.push(attribute!.values[0]!);
			}
		],
		['certificates in another order', (_, s) => void s.certificates!.reverse()],
		['a certificate left out', (_, s) => void s.certificates!.pop()],
		['a certificate twice', (_, s) => void s.certificates!.push(s.certificates![0]!)],
		[
			'the content put inside',
			(_, s) => void (s.encapContentInfo.eContent = new asn1.OctetString({ valueHex: new Uint8Array([1]).buffer }))
		],
		[
			'another version',
			(content) => {
				const der = Buffer.from(content.toSchema().toBER());
				// ContentInfo 4, its type 11, [0] 4, SignedData 4, then the INTEGER's tag and length
				expect([...der.subarray(23, 26)]).toEqual([2, 1, 1]);
				der[25] = 3;
				return der;
			}
		],
		['another version of the signer', (_, s) => void (signer(s).version = 3)],
		['a second digest algorithm', (_, s) => void s.digestAlgorithms.push(s.digestAlgorithms[0]!)],
		['parameters with the digest algorithm', (_, s) => void (s.digestAlgorithms[0]!.algorithmParams = new asn1.Null())],
		[
			'parameters with the signature algorithm',
			(_, s) => void (signer(s).signatureAlgorithm.algorithmParams = new asn1.Null())
		],
		['the signer twice', (_, s) => void s.signerInfos.push(s.signerInfos[0]!)],
		['signed attributes in another order', (_, s) => void signer(s).signedAttrs!.attributes.reverse()],
		['a signed attribute more', (_, s) => void signer(s).signedAttrs!.attributes.push(plain)],
		[
			'the other value that fits as well, stamped anew',
			(_, s) => {
				const other = flipped(value(s));
				signer(s).signature = new asn1.OctetString({ valueHex: new Uint8Array(other).buffer });
				setToken(s, stampOver(other, now));
			}
		],
		[
			'a length written longer than it must be',
			(content) => {
				const der = Buffer.from(content.toSchema().toBER());
				const count = der[1]! & 0x7f;
				return Buffer.concat([Buffer.of(der[0]!, 0x80 | (count + 1), 0), der.subarray(2)]);
			}
		]
	])('with %s is not genuine', async (_, change) => {
		const forged = rebuilt(change);
		expect(Buffer.compare(forged, sealed)).not.toBe(0);
		const verdict = await verifySealed(forged, trust);
		expect(verdict.verdict).toBe('altered');
	});
	it('its time-stamp can’t be written anew either', async () => {
		const forged = rebuilt((_, s) => {
			const attribute = signer(s).unsignedAttrs!.attributes[0]!;
			const token = new pkijs.ContentInfo({ schema: attribute.values[0]! as asn1.Sequence });
			const inner = new pkijs.SignedData({ schema: token.content });
			signer(inner).signature = new asn1.OctetString({ valueHex: new Uint8Array(flipped(value(inner))).buffer });
			token.content = inner.toSchema(true);
			attribute.values = [token.toSchema()];
		});
		expect((await verifySealed(forged, trust)).verdict).toBe('altered');
	});
});

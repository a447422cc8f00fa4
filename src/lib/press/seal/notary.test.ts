import { PDFDict, PDFDocument, PDFName } from '@cantoo/pdf-lib';
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pdf } from '../../../../e2e/kit/pdfs';
import { recordOf } from '../../../../e2e/kit/records';
import { makeIdentity, toPem, type Identity, type SealKeys } from './keys';
import { seal, sealedAfter } from './seal';
import { verifySealed } from './verify';

const now = new Date('2026-11-23T10:00:00Z');
const folder = mkdtempSync(path.join(tmpdir(), 'pellum-notary-'));
let keys: SealKeys;
let notary: Identity;
let roots: string[];
let both: Uint8Array;

const wish = { organisation: 'Brindlevale', reason: 'Completed', record: JSON.stringify(recordOf(3)), now };
const made = async (by: Identity | null, wanted = wish): Promise<Uint8Array> => {
	const doc = await PDFDocument.load(await pdf(2));
	return seal(doc, keys, {
		...wanted,
		...(by && { notary: { identity: by, name: 'Isolde Marchbank', reason: 'Sworn statement' } })
	});
};

beforeAll(async () => {
	keys = { seal: await makeIdentity('Brindlevale', 'seal', now), stamp: await makeIdentity('Clock', 'stamp', now) };
	notary = await makeIdentity('Isolde Marchbank', 'notary', now);
	roots = [keys.seal, keys.stamp, notary].map((one) => toPem(one.issuer));
	both = await made(notary);
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Where the revision that the notary signed ends. */
const notarysEnd = (bytes: Uint8Array): number => Buffer.from(bytes).indexOf('%%EOF') + 5;
const said = async (bytes: Uint8Array, trusted = roots) => {
	const { verdict, checks } = await verifySealed(bytes, trusted);
	return [verdict, checks.find((one) => !one.ok)?.say ?? ''];
};

describe('a notary’s signature before the seal', () => {
	it('is genuine with both, and says who signed and when', async () => {
		expect(await verifySealed(both, roots)).toMatchObject({
			verdict: 'genuine',
			sealedBy: 'Brindlevale',
			notary: { name: 'Isolde Marchbank', at: now.toISOString() },
			reference: 'P-7K3QM'
		});
	});
	it('pdfsig: both valid and trusted, the second over the whole file, the first over all up to its own end', () => {
		const nss = path.join(folder, 'nss');
		execFileSync('mkdir', ['-p', nss]);
		execFileSync('certutil', ['-N', '--empty-password', '-d', `sql:${nss}`]);
		roots.forEach((pem, i) => {
			const at = path.join(folder, `${i}.pem`);
			writeFileSync(at, pem);
			execFileSync('certutil', ['-A', '-d', `sql:${nss}`, '-n', `r${i}`, '-t', 'CT,CT,CT', '-a', '-i', at]);
		});
		const at = path.join(folder, 'both.pdf');
		writeFileSync(at, both);
		const says = spawnSync('pdfsig', ['-nssdir', nss, at], { encoding: 'utf8' }).stdout;
		expect(says.match(/Signature Validation: Signature is Valid\./g)).toHaveLength(2);
		expect(says.match(/Certificate Validation: Certificate is Trusted\./g)).toHaveLength(2);
		expect(says).toContain('Isolde Marchbank notary');
		const [first, second] = says.split('Signature #2');
		expect(first).toContain('Not total document signed');
		expect(second).toContain('Total document signed');
	});
	it('is not, with a byte changed before, in or after either signature', async () => {
		const step = Math.floor(both.length / 60);
		for (let at = 20; at < both.length; at += step) {
			const bytes = both.slice();
			bytes[at] = bytes[at]! ^ 1;
			expect([at, (await said(bytes))[0]]).toEqual([at, 'altered']);
		}
	});
	it('is not, with the seal cut off: an act alone is no sealed copy', async () => {
		expect(await said(both.slice(0, notarysEnd(both)))).toEqual([
			'altered',
			'It was signed by a notary, but the seal is missing: it was cut off.'
		]);
	});
	it('is not where the first signature is not a notary’s, or leads to nobody who is trusted', async () => {
		expect(await said(await made(keys.seal))).toEqual(['altered', 'The signature before the seal is not a notary’s.']);
		expect(await said(both, roots.slice(0, 2))).toEqual([
			'altered',
			'The seal does not lead to a root that is trusted here.'
		]);
	});
	it('is not where a notary seals in the organisation’s place', async () => {
		const real = keys;
		keys = { ...real, seal: notary };
		const alone = await made(null);
		keys = real;
		expect((await said(alone))[0]).toBe('altered');
	});
	it('is not with something more than the seal after the notary’s signature, though the seal covers it', async () => {
		const signed = Buffer.from(both.slice(0, notarysEnd(both)));
		const doc = await PDFDocument.load(signed, { updateMetadata: false });
		const objects = doc.context.enumerateIndirectObjects();
		const place = objects.find(
			([, one]) => one instanceof PDFDict && String(one.get(PDFName.of('T'))) === '(seal)'
		)![0];
		const [page, dict] = objects.find(
			([, one]) => one instanceof PDFDict && one.get(PDFName.of('Type')) === PDFName.of('Page')
		)!;
		// the page is turned upside down by a revision in between
		const turned = String(dict).replace(/>>$/, '/Rotate 180\n>>');
		const start = /startxref\s+(\d+)/.exec(signed.subarray(-64).toString('latin1'))![1];
		const at = signed.length + 1;
		const body = `\n${page.objectNumber} 0 obj\n${turned}\nendobj\n`;
		const table = `xref\n${page.objectNumber} 1\n${String(at).padStart(10, '0')} 00000 n \n`;
		const { Root } = doc.context.trailerInfo;
		const end = `trailer\n<<\n/Size ${doc.context.largestObjectNumber + 1}\n/Root ${String(Root)}\n/Prev ${start}\n>>\nstartxref\n${signed.length + body.length}\n%%EOF\n`;
		const between = Buffer.concat([signed, Buffer.from(body + table + end, 'latin1')]);
		const sealed = sealedAfter(doc, between, place, keys, wish);
		expect(await said(new Uint8Array(sealed))).toEqual([
			'altered',
			'Something was changed between the notary’s signature and the seal.'
		]);
	});
});

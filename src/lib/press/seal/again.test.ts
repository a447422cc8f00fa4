import { PDFDocument, PDFName } from '@cantoo/pdf-lib';
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pdf } from '../../../../e2e/kit/pdfs';
import { recordOf } from '../../../../e2e/kit/records';
import { stampedAgain, validationStreams } from './again';
import { fingerprint, makeIdentity, toPem, withdrawnBy, type MadeIdentity } from './keys';
import { revisionAfter } from './revision';
import { EMPTY, HOLE, seal, sign, stampOver } from './seal';
import { verifySealed, type Known } from './verify';

const YEAR = 365.25 * 86_400_000;
const after = (start: Date, years: number) => new Date(start.getTime() + years * YEAR);

/** A copy from `start`, and what it was after each time-stamp: after 8, 16 and 24 years, the last by another method. */
async function history(start: Date) {
	const of = await makeIdentity('Brindlevale Touring Orchestra', 'seal', start);
	const clocks: MadeIdentity[] = [];
	for (const [years, hash] of [
		[0, 'sha256'],
		[8, 'sha256'],
		[16, 'sha256'],
		[24, 'sha384']
	] as const)
		clocks.push(await makeIdentity('Stand-in', 'stamp', after(start, years), hash));
	const doc = await PDFDocument.load(await pdf(2), { updateMetadata: false });
	const files = [
		await seal(
			doc,
			{ seal: of, stamp: clocks[0]! },
			{
				organisation: 'Brindlevale Touring Orchestra',
				reason: 'Completed',
				record: JSON.stringify(recordOf(4)),
				now: start
			}
		)
	];
	for (const n of [1, 2, 3])
		files.push(await stampedAgain({ file: files[n - 1]!, stamp: clocks[n]!, lists: [], now: after(start, n * 8) }));
	return { of, clocks, files, trust: [of, ...clocks].map(({ issuer }) => toPem(issuer)) };
}

const start = new Date('2026-11-23T10:00:00Z');
let it26: Awaited<ReturnType<typeof history>>;
const judge = (file: Uint8Array, years: number, known: Known = {}) =>
	verifySealed(file, it26.trust, { at: after(start, years), ...known });
const wrong = async (file: Uint8Array, years: number, known: Known = {}) => {
	const verdict = await judge(file, years, known);
	return [verdict.verdict, verdict.checks.find(({ ok }) => !ok)?.name];
};
beforeAll(async () => {
	it26 = await history(start);
});

describe('a copy of 25 years', () => {
	it('is proven by what is in it until its last clock’s certificate ends, and says until when', async () => {
		const verdict = await judge(it26.files[3]!, 25);
		expect(verdict.checks.filter((c) => !c.ok)).toEqual([]);
		expect(verdict).toMatchObject({ verdict: 'genuine', sealedAt: start.toISOString() });
		expect(verdict.stamps).toHaveLength(3);
		expect(verdict.until?.slice(0, 4)).toBe('2060');
		expect(await wrong(it26.files[3]!, 34.1)).toEqual(['unjudged', 'until']);
	});
	it('each is the one before and more, and each is genuine at its time', async () => {
		for (const [n, file] of it26.files.entries()) {
			expect((await judge(file, n * 8 + 1)).verdict).toBe('genuine');
			if (n > 0)
				expect(
					Buffer.from(file)
						.subarray(0, it26.files[n - 1]!.length)
						.equals(it26.files[n - 1]!)
				).toBe(true);
		}
		expect(await wrong(it26.files[0]!, 11)).toEqual(['unjudged', 'until']);
	});
	it('is not, where one was left out until the certificate before had ended', async () => {
		const late = await stampedAgain({
			file: it26.files[0]!,
			stamp: it26.clocks[2]!,
			lists: [],
			now: after(start, 16)
		});
		expect(await wrong(late, 17)).toEqual(['altered', 'covered']);
	});
	it('outlives a method that is not relied on any more, where another covered it before', async () => {
		const ended = { ended: { sha256: after(start, 24.5).toISOString() } };
		expect((await judge(it26.files[3]!, 25, ended)).verdict).toBe('genuine');
		expect(await wrong(it26.files[2]!, 25, ended)).toEqual(['unjudged', 'until']);
		expect(await wrong(it26.files[3]!, 25, { ended: { sha256: after(start, 23).toISOString() } })).toEqual([
			'altered',
			'covered'
		]);
	});
	it('is not, with any one byte changed, wherever it lies', async () => {
		const file = it26.files[2]!;
		const text = Buffer.from(file).toString('latin1');
		const places = [...text.matchAll(/\/Contents <|\/ByteRange|\/Certs|\/CRLs|startxref|trailer|%%EOF/g)].map(
			({ index }) => index + 14
		);
		for (let i = 0; i < 25; i++)
			places.push(it26.files[0]!.length + ((i * 7919) % (file.length - it26.files[0]!.length)));
		for (const at of places.filter((place) => place < file.length)) {
			const forged = file.slice();
			forged[at] = forged[at]! ^ 0x01;
			expect((await judge(forged, 17)).verdict, `byte ${at}`).toBe('altered');
		}
	});
	it('is not, where the clock stamped something else along with it', async () => {
		const before = Buffer.from(it26.files[0]!);
		const doc = await PDFDocument.load(before, { updateMetadata: false });
		const next = doc.context.largestObjectNumber + 1;
		const page = doc.getPage(0).node.clone();
		page.set(PDFName.of('Rotate'), doc.context.obj(180));
		const forged = revisionAfter(doc, before, [
			{ number: doc.getPage(0).ref.objectNumber, text: page.toString() },
			{
				number: next,
				text: `<< /Type /DocTimeStamp /ByteRange [ 0 /${HOLE} /${HOLE} /${HOLE} ] /Contents <${EMPTY}> >>`
			}
		]);
		sign(forged, before.length, (parts) => stampOver(it26.clocks[0]!, after(start, 1), ...parts));
		expect(await wrong(forged, 2)).toEqual(['altered', 'stamps']);
	});
});

describe('a key that is withdrawn', () => {
	const list = async (who: MadeIdentity, years: number, why: Parameters<typeof withdrawnBy>[2]) => ({
		lists: [await withdrawnBy(who, after(start, years), why)]
	});
	it('of the seal: what was sealed before stays genuine, by its time-stamp; what was sealed after is not', async () => {
		expect((await judge(it26.files[0]!, 3, await list(it26.of, 2, 'keyCompromise'))).verdict).toBe('genuine');
		expect(await wrong(it26.files[0]!, 3, await list(it26.of, -1, 'keyCompromise'))).toEqual([
			'altered',
			'certificates'
		]);
	});
	it('of the clock: lost, it proves no more but what another one had covered; used no more, it does', async () => {
		const [first, later] = [it26.files[0]!, it26.files[1]!];
		expect(await wrong(first, 5, await list(it26.clocks[0]!, 4, 'keyCompromise'))).toEqual(['altered', 'certificates']);
		expect((await judge(first, 5, await list(it26.clocks[0]!, 4, 'cessationOfOperation'))).verdict).toBe('genuine');
		expect((await judge(later, 9.5, await list(it26.clocks[0]!, 9, 'keyCompromise'))).verdict).toBe('genuine');
	});
	it('takes today’s lists into the next time-stamp, so the file tells of it by itself', async () => {
		const withdrawn = await list(it26.of, 2, 'keyCompromise');
		const stranger = await makeIdentity('Somebody else', 'seal', start);
		const lists = [...withdrawn.lists, stranger.crl];
		const file = await stampedAgain({
			file: it26.files[0]!,
			stamp: it26.clocks[1]!,
			lists,
			now: after(start, 8)
		});
		expect((await judge(file, 9)).verdict).toBe('genuine');
		const inside = validationStreams(await PDFDocument.load(file, { updateMetadata: false })).lists.map(fingerprint);
		expect(inside).toContain(fingerprint(withdrawn.lists[0]!));
		// and of nobody whom the file doesn't know
		expect(inside).not.toContain(fingerprint(stranger.crl));
	});
});

describe('free tools agree', () => {
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-again-'));
	afterAll(() => rmSync(folder, { recursive: true, force: true }));
	const put = (name: string, bytes: Uint8Array | string) => {
		writeFileSync(path.join(folder, name), bytes);
		return path.join(folder, name);
	};
	it('pdfsig, qpdf and openssl: a copy of 25 years ago, its seal and each time-stamp', async () => {
		// the tools judge by the machine’s clock, so it was made that long ago
		const { files, trust, clocks } = await history(after(new Date(), -24.5));
		const nss = path.join(folder, 'nss');
		mkdirSync(nss);
		execFileSync('certutil', ['-N', '-d', nss, '--empty-password']);
		for (const [n, pem] of trust.entries())
			execFileSync('certutil', ['-A', '-d', nss, '-n', `root ${n}`, '-t', 'C,C,', '-i', put(`root-${n}.pem`, pem)]);
		const file = put('copy.pdf', files[3]!);
		const { stdout } = spawnSync('pdfsig', ['-nssdir', nss, file], { encoding: 'utf8' });
		// the seal is valid and trusted, of all up to its own end; pdfsig knows of later time-stamps, and doesn't judge them
		expect(stdout.match(/Signature Validation: Signature is Valid\./g)).toHaveLength(1);
		expect(stdout.match(/Signature Type: ETSI\.CAdES\.detached/g)).toHaveLength(1);
		expect(stdout).toContain('Certificate is Trusted');
		expect(stdout.match(/^Signature #\d/gm)).toHaveLength(4);
		expect(stdout.match(/Total document signed/g)).toHaveLength(1);
		expect(spawnSync('qpdf', ['--check', file]).status).toBe(0);
		const text = Buffer.from(files[3]!).toString('latin1');
		for (const [n, range] of [...text.matchAll(/\/ByteRange \[\s*0 (\d+) (\d+) (\d+)/g)].entries()) {
			if (n === 0) continue;
			const [from, to, rest] = range.slice(1).map(Number) as [number, number, number];
			const token = Buffer.from(text.slice(from + 1, to - 1).replace(/(00)+$/, ''), 'hex');
			const data = Buffer.concat([files[3]!.subarray(0, from), files[3]!.subarray(to, to + rest)]);
			const args = ['ts', '-verify', '-data', put('data', data), '-token_in', '-in', put('token.der', token)];
			const then = String(Math.floor(after(new Date(), -24.5 + n * 8).getTime() / 1000));
			const judged = spawnSync(
				'openssl',
				[...args, '-attime', then, '-CAfile', put('clock.pem', toPem(clocks[n]!.issuer))],
				{ encoding: 'utf8' }
			);
			expect(judged.stdout + judged.stderr, `time-stamp ${n}`).toContain('Verification: OK');
		}
	});
});

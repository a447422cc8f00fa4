import { PDFDocument } from '@cantoo/pdf-lib';
import { X509Certificate } from 'node:crypto';
import { checkStamped, validationStreams } from './again';
import { chainRoot } from './chain';
import { OID, sha256 } from './cms';
import { Fault, fault } from './fault';
import { checkMoment, checkRecord } from './inside';
import { isNotarys } from './keys';
import { checkRevision, sealField, signaturesIn, type Signatures, type Signed } from './revisions';
import { checkSignature, checkTime, checkToken, nameOf, signerOf, type Signer, type Stamped } from './signer';
import { hashed, type HashName } from './suites';

export interface Check {
	name: string;
	ok: boolean;
	say: string;
}

export interface Verdict {
	/** 'genuine': sealed by a trusted seal and unchanged; 'altered': not; 'unjudged': sound, but nobody said whom to trust, or what proves it has ended */
	verdict: 'genuine' | 'altered' | 'unjudged';
	checks: Check[];
	sealedBy?: string;
	/** the notary who signed before the seal, and when (ISO 8601) */
	notary?: { name: string; at: string };
	/** ISO 8601, from the time-stamp */
	sealedAt?: string;
	reference?: string;
	/** later time-stamps over all of it, ISO 8601, in their order */
	stamps?: string[];
	/** until when what is in the file proves it, ISO 8601: its last time-stamp's certificate or method ends then */
	until?: string;
	/** of the record inside: the tree that it was sealed in */
	tree?: { size: number; root: string };
	/** SHA-256 of the root certificate that the seal leads to */
	root?: string;
}

/** Whom somebody trusts, and what they know beside the file. */
export interface Known {
	/** when it is judged; without it, now */
	at?: Date;
	/** revocation lists of today, DER */
	lists?: Uint8Array[];
	/** hashes that are not relied on any more, from when on (ISO 8601) */
	ended?: Partial<Record<HashName, string>>;
}

/**
 * Judges a sealed file by itself: its seal, its time-stamps, its certificates and its audit record. Stricter than
 * the libraries it uses: one seal that covers the whole file but later time-stamps, a notary's signature before it where there is
 * one, hexadecimal only, zero padding, an encoding that is reproduced to the byte, methods of {@link SUITES} only, and a time-stamp
 * that must be there. Each time-stamp has to have been covered by the next before its certificate or its method ended
 * (ETSI EN 319 102-1 §5.6.3).
 * @param trusted root certificates (PEM) of seals and of time-stamps
 */
export async function verifySealed(file: Uint8Array, trusted: string[], known: Known = {}): Promise<Verdict> {
	const now = known.at ?? new Date();
	const checks: Check[] = [];
	const verdict: Verdict = { verdict: 'altered', checks };
	const check = async <T>(name: string, say: string, run: () => T | Promise<T>): Promise<T> => {
		try {
			const result = await run();
			checks.push({ name, ok: true, say });
			return result;
		} catch (error) {
			checks.push({ name, ok: false, say: error instanceof Fault ? error.message : 'It could not be read.' });
			throw new Fault();
		}
	};
	try {
		const signatures = await check('range', 'One seal, and it covers the whole file.', () => signaturesIn(file));
		const { before, stamps } = signatures;
		const seal = await check('content', 'The file has not been changed since it was sealed.', () =>
			signerFor(signatures.seal, 'The file has been changed after it was sealed.')
		);
		verdict.sealedBy = nameOf(seal.certificate);
		await check('signature', 'The seal was made with the key of its certificate.', () => {
			checkSignature(seal);
			if (isNotarys(seal.der)) fault('It was signed by a notary, but the seal is missing: it was cut off.');
		});
		const time = await check('time', 'An independent clock says when.', () => checkTime(seal));
		verdict.sealedAt = time.at.toISOString();
		const later =
			stamps.length === 0
				? []
				: await check('stamps', 'Later time-stamps cover all of it, and nothing else came with them.', () =>
						laterStamps(file, signatures)
					);
		if (later.length > 0) verdict.stamps = later.map(({ at }) => at.toISOString());
		const all = [time, ...later];
		/** when what was there at the nth time-stamp is proven by the next */
		const proven = (n: number) => all[n + 1]?.at ?? now;
		const last = all.at(-1)!;
		const ends = new X509Certificate(Buffer.from(last.signer.der)).validTo;
		const restsOn = [...hashesOf(last), ...(later.length === 0 ? [seal.suite.hash] : [])];
		const until = new Date(Math.min(Date.parse(ends), ...restsOn.map((hash) => endOf(hash, known))));
		verdict.until = until.toISOString();
		const doc = await check('structure', 'The file is in order.', async () => {
			const whole = await PDFDocument.load(file, { updateMetadata: false, parseSpeed: Infinity });
			sealField(whole, signatures.seal);
			return whole;
		});
		const inFile = validationStreams(doc);
		const data = { ...inFile, lists: [...inFile.lists, ...(known.lists ?? [])] };
		const roots = await check('certificates', 'Certificates and revocation lists lead to their roots.', () => [
			chainRoot(seal, data, time.at),
			...all.map((one, n) => chainRoot(one.signer, data, one.at, n < all.length - 1 ? proven(n) : min(now, until)))
		]);
		verdict.root = sha256(roots[0]!).toString('hex');
		if (later.length > 0)
			await check('covered', 'Each time-stamp was covered by the next while it still proved something.', () => {
				for (const [n, one] of all.slice(0, -1).entries()) {
					const covered = proven(n);
					if (covered > new Date(new X509Certificate(Buffer.from(one.signer.der)).validTo))
						fault('A time-stamp’s certificate had ended before the next one came.');
					const hashes = [...hashesOf(one), ...(n === 0 ? [seal.suite.hash] : [])];
					if (hashes.some((hash) => covered.getTime() >= endOf(hash, known)))
						fault('A method was not relied on any more when the next time-stamp came.');
				}
			});
		if (before)
			await check('notary', 'A notary signed it before, and nothing but the seal came after that.', async () => {
				const notary = signerFor(before, 'The file has been changed after the notary signed it.');
				checkSignature(notary);
				if (!isNotarys(notary.der)) fault('The signature before the seal is not a notary’s.');
				const when = checkTime(notary);
				roots.push(chainRoot(notary, data, when.at), chainRoot(when.signer, data, when.at, time.at));
				await checkRevision(file, before, signatures.seal);
				verdict.notary = { name: nameOf(notary.certificate), at: when.at.toISOString() };
			});
		const record = await check('record', 'The audit record inside is complete and unbroken.', () => checkRecord(doc));
		await check('moment', 'The seal, its clock and the record agree on when.', () => checkMoment(doc, record, time.at));
		verdict.reference = record.reference;
		if (record.tree) verdict.tree = { size: record.tree.size, root: record.tree.root };
		const believed = trusted.map((pem) => sha256(new X509Certificate(pem).raw).toString('hex'));
		if (believed.length === 0) {
			checks.push({
				name: 'trust',
				ok: false,
				say: 'No trusted certificate was given, so nobody can say whose seal this is.'
			});
			verdict.verdict = 'unjudged';
			return verdict;
		}
		await check('trust', 'The seal and the time-stamps lead to roots that are trusted.', () => {
			if (!roots.every((root) => believed.includes(sha256(root).toString('hex'))))
				fault('The seal does not lead to a root that is trusted here.');
		});
		if (now <= until) verdict.verdict = 'genuine';
		else {
			const say = `What proves it ended on ${verdict.until.slice(0, 10)}, and no later time-stamp is in it. Ask whoever sealed it for a copy that has one.`;
			checks.push({ name: 'until', ok: false, say });
			verdict.verdict = 'unjudged';
		}
	} catch (error) {
		if (!(error instanceof Fault)) checks.push({ name: 'file', ok: false, say: 'It could not be read.' });
	}
	return verdict;
}

const min = (a: Date, b: Date): Date => (a < b ? a : b);

/** The methods that a time-stamp rests on. */
const hashesOf = ({ hash, signer }: Stamped): HashName[] => [hash, signer.suite.hash];

/** In ms; Infinity where it still holds. */
const endOf = (hash: HashName, { ended }: Known): number => (ended?.[hash] ? Date.parse(ended[hash]) : Infinity);

/** What each later time-stamp says, in order; each over all that was there before it, and with nothing else. */
async function laterStamps(file: Uint8Array, { seal, stamps }: Signatures): Promise<Stamped[]> {
	const said: Stamped[] = [];
	for (const [n, stamp] of stamps.entries()) {
		const one = checkToken(stamp.cms, stamp.signed, 'The file has been changed after its last time-stamp.');
		if (one.at < (said.at(-1)?.at ?? new Date(0))) fault('A time-stamp is earlier than the one before it.');
		const before = file.subarray(0, (stamps[n - 1] ?? seal).end);
		await checkStamped(before, file.subarray(0, stamp.end), stamp.cms);
		said.push(one);
	}
	return said;
}

function signerFor({ cms, signed }: Signed, changed: string): Signer {
	const parsed = signerOf(cms, OID.data);
	return hashed(parsed.suite.hash, ...signed).equals(parsed.digest) ? parsed : fault(changed);
}

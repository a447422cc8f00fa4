import 'reflect-metadata';
import * as x509 from '@peculiar/x509';
import * as asn1 from 'asn1js';
import { createPrivateKey, createPublicKey, webcrypto, X509Certificate } from 'node:crypto';
import * as pkijs from 'pkijs';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { isListOf, rootOf } from './chain';
import { buffer } from './cms';
import { Fault } from './fault';
import { certificatesOf, listsOf, type Identity } from './keys';
import { suiteFor } from './suites';

pkijs.setEngine('node', new pkijs.CryptoEngine({ name: 'node', crypto: webcrypto as unknown as Crypto }));

/** A certificate that an authority gave, as it comes: PKCS #12 (RFC 7292), its password, and the authorities' lists. */
export interface OwnFile {
	file: Uint8Array;
	password: string;
	/** certificates that the file lacks, and revocation lists; DER or PEM */
	more: Uint8Array[];
	/** ISO 8601 */
	now: string;
}

/**
 * The identity in a PKCS #12 file: the one key in it, its certificate, and the chain up to the root with a list of each authority.
 * Refuses, a sentence each: no such file, a wrong password, a key or a certificate that is missing, a key of another kind, a
 * certificate for something else or out of its time, a chain that leads nowhere, lists that are missing or over.
 */
export async function readOwn({ file, password, more, now }: OwnFile): Promise<Identity | Refusal> {
	const opened = await open(file, password);
	if (isRefusal(opened)) return opened;
	const at = new Date(now);
	const extra = more.map(unpacked);
	const certificates = [...opened.certificates, ...extra.flatMap(({ certificate }) => certificate ?? [])];
	const lists = extra.flatMap(({ list }) => list ?? []);
	if (extra.some(({ certificate, list }) => !certificate && !list))
		return refuse('no-list', 'One of the files beside it is neither a certificate nor a revocation list.', 'more');
	const key = createPrivateKey({ key: Buffer.from(opened.key), format: 'der', type: 'pkcs8' });
	const own = createPublicKey(key).export({ type: 'spki', format: 'der' });
	const certificate = certificates.find((der) =>
		new X509Certificate(der).publicKey.export({ type: 'spki', format: 'der' }).equals(own)
	);
	if (!certificate)
		return refuse('key-alone', 'There is a key in this file, but no certificate that belongs to it.', 'file');
	if (!suiteFor(createPublicKey(key)))
		return refuse(
			'key-kind',
			'Its key is of a kind that seals nothing here: P-256, P-384, or RSA of 2048 bits and more do.',
			'file'
		);
	const read = new x509.X509Certificate(buffer(certificate));
	if (at < read.notBefore || at > read.notAfter)
		return refuse(
			'certificate-over',
			`It is good from ${day(read.notBefore)} until ${day(read.notAfter)} only.`,
			'file'
		);
	const uses = read.getExtension(x509.KeyUsagesExtension)?.usages;
	const signs = x509.KeyUsageFlags.digitalSignature | x509.KeyUsageFlags.nonRepudiation;
	if (uses !== undefined && (uses & signs) === 0)
		return refuse('certificate-use', 'This certificate is for something else: it may not sign.', 'file');
	return chained(certificate, opened.key, certificates, lists, at);
}

/** With what issued it, nearest first, and a list of each that holds today. */
function chained(
	certificate: Uint8Array,
	key: Uint8Array,
	certificates: Uint8Array[],
	lists: Uint8Array[],
	at: Date
): Identity | Refusal {
	const between: { certificate: Uint8Array; crl: Uint8Array }[] = [];
	let of = new X509Certificate(certificate);
	for (let i = 0; i <= 4; i++) {
		const issuer = certificates
			.map((der) => new X509Certificate(der))
			.find((c) => c.ca && of.checkIssued(c) && of.verify(c.publicKey));
		const name = called(of.issuer);
		if (!issuer)
			return refuse(
				'chain-missing',
				`The certificate of “${name}”, which issued it, is missing. Add it beside the file.`,
				'more'
			);
		const list = newest(lists, issuer);
		if (!list || (list.end && list.end < at))
			return refuse(
				'list-missing',
				list
					? `The revocation list of “${name}” ended on ${day(list.end!)}. Add a newer one.`
					: `The revocation list of “${name}” is missing. Add it beside the file.`,
				'more'
			);
		if (issuer.verify(issuer.publicKey)) {
			const identity = { certificate, key, issuer: new Uint8Array(issuer.raw), crl: list.der, between };
			return judged(identity, at);
		}
		between.push({ certificate: new Uint8Array(issuer.raw), crl: list.der });
		of = issuer;
	}
	return refuse('chain-missing', 'It leads through more authorities than are looked at here.', 'more');
}

/** By the same rules as a sealed copy is judged by. */
function judged(identity: Identity, at: Date): Identity | Refusal {
	try {
		rootOf(identity.certificate, { certificates: certificatesOf(identity), lists: listsOf(identity) }, at);
		return identity;
	} catch (error) {
		if (!(error instanceof Fault)) throw error;
		return refuse('chain-wrong', error.message, 'file');
	}
}

/** The newest list of this authority, and when it ends. */
export function newest(lists: Uint8Array[], issuer: X509Certificate): { der: Uint8Array; end: Date | null } | null {
	const own = lists.flatMap((der) => {
		const list = pkijs.CertificateRevocationList.fromBER(buffer(der));
		const end = list.nextUpdate?.value ?? null;
		return isListOf(list, issuer) ? [{ der, end, since: list.thisUpdate.value.getTime() }] : [];
	});
	return own.sort((a, b) => b.since - a.since || Number(b.end ?? 0) - Number(a.end ?? 0))[0] ?? null;
}

/** When a list says that a newer one will be there; null where it says nothing. */
export const nextUpdateOf = (list: Uint8Array): Date | null =>
	pkijs.CertificateRevocationList.fromBER(buffer(list)).nextUpdate?.value ?? null;

/** Where its authority puts its list (RFC 5280 §4.2.1.13): addresses that begin with http. */
export function listAddresses(certificate: Uint8Array): string[] {
	const points = new x509.X509Certificate(buffer(certificate)).getExtension(x509.CRLDistributionPointsExtension);
	return (points?.distributionPoints ?? [])
		.flatMap(({ distributionPoint }) => distributionPoint?.fullName ?? [])
		.flatMap(({ uniformResourceIdentifier }) => uniformResourceIdentifier ?? [])
		.filter((address) => /^https?:\/\//.test(address));
}

/** The first DER value of these bytes (X.690 §8.1), without what follows it. */
export function firstDer(bytes: Uint8Array): Uint8Array {
	const parsed = asn1.fromBER(buffer(bytes));
	return bytes.subarray(0, parsed.offset);
}

const NO_FILE = refuse('no-key-file', 'This is no file with a certificate and its key (.p12 or .pfx).', 'file');
const WRONG = refuse('wrong-password', 'The password does not open it.', 'password');
const UNREADABLE = refuse(
	'key-file-unreadable',
	'It is locked in a way that is not permitted any more, or its key is of a kind that seals nothing here. Export it anew with AES-256 and SHA-256, and a key on P-256 or P-384 or of RSA.',
	'file'
);

/** So often a password is stretched at most: some seconds. What is current asks for a tenth of it. */
const MOST_ROUNDS = 5_000_000;
const HEAVY = refuse('key-file-heavy', 'The file takes more time to open than is permitted. Export it anew.', 'file');
const PBKDF2 = '1.2.840.113549.1.5.12';

/** How often a password is stretched, at most, in all that can be read without it (RFC 8018 §5.2). */
function rounds(block: asn1.BaseBlock): number {
	if (block instanceof asn1.OctetString) {
		const inner = asn1.fromBER(buffer(block.getValue ? new Uint8Array(block.getValue()) : new Uint8Array()));
		return inner.offset > 0 ? rounds(inner.result) : 0;
	}
	const parts = block instanceof asn1.Constructed ? block.valueBlock.value : [];
	const [id, params] = parts;
	const own =
		id instanceof asn1.ObjectIdentifier && id.valueBlock.toString() === PBKDF2 && params instanceof asn1.Sequence
			? params.valueBlock.value[1]
			: undefined;
	// more than a number holds is too many as well
	const asked = own instanceof asn1.Integer ? (own.valueBlock.isHexOnly ? Infinity : own.valueBlock.valueDec) : 0;
	return Math.max(asked, ...parts.map(rounds), 0);
}

/** What is in a PKCS #12 file. */
async function open(
	file: Uint8Array,
	password: string
): Promise<{ key: Uint8Array; certificates: Uint8Array[] } | Refusal> {
	let pfx: pkijs.PFX;
	try {
		pfx = new pkijs.PFX({ schema: asn1.fromBER(buffer(file)).result });
	} catch {
		return NO_FILE;
	}
	if (pfx.macData && pfx.macData.iterations! > MOST_ROUNDS) return HEAVY;
	if (rounds(asn1.fromBER(buffer(file)).result) > MOST_ROUNDS) return HEAVY;
	const secret = buffer(Buffer.from(password, 'utf8'));
	try {
		await pfx.parseInternalValues({ password: secret, checkIntegrity: true });
	} catch (error) {
		return /integrity|password/i.test(String(error)) ? WRONG : NO_FILE;
	}
	const safe = pfx.parsedValue!.authenticatedSafe!;
	const keys: Uint8Array[] = [];
	const certificates: Uint8Array[] = [];
	try {
		await safe.parseInternalValues({ safeContents: safe.safeContents.map(() => ({ password: secret })) });
		for (const { value } of safe.parsedValue.safeContents as { value: pkijs.SafeContents }[])
			for (const { bagValue } of value.safeBags) {
				if (bagValue instanceof pkijs.PKCS8ShroudedKeyBag) {
					await (bagValue as unknown as { parseInternalValues(o: object): Promise<void> }).parseInternalValues({
						password: secret
					});
					keys.push(new Uint8Array(bagValue.parsedValue!.toSchema().toBER()));
				} else if (bagValue instanceof pkijs.PrivateKeyInfo) keys.push(new Uint8Array(bagValue.toSchema().toBER()));
				else if (bagValue instanceof pkijs.CertBag && bagValue.parsedValue instanceof pkijs.Certificate)
					certificates.push(new Uint8Array(bagValue.parsedValue.toSchema().toBER()));
			}
	} catch {
		return UNREADABLE;
	}
	if (keys.length === 0)
		return refuse(
			'no-private-key',
			'There is a certificate in this file, but no key. Export it together with its private key.',
			'file'
		);
	if (keys.length > 1)
		return refuse('many-keys', 'There is more than one key in this file. Export the one that is to seal.', 'file');
	return { key: keys[0]!, certificates };
}

/** A revocation list, DER or PEM; null where it is none. */
export const listIn = (bytes: Uint8Array): Uint8Array | null => unpacked(bytes).list ?? null;

/** A certificate or a list, out of its PEM where it has one. */
function unpacked(bytes: Uint8Array): { certificate?: Uint8Array; list?: Uint8Array } {
	const pem = /-----BEGIN [A-Z0-9 ]+-----([\s\S]+?)-----END/.exec(Buffer.from(bytes).toString('latin1'));
	const der = pem ? new Uint8Array(Buffer.from(pem[1]!, 'base64')) : bytes;
	try {
		pkijs.CertificateRevocationList.fromBER(buffer(der));
		return { list: der };
	} catch {
		try {
			return { certificate: new Uint8Array(new X509Certificate(der).raw) };
		} catch {
			return {};
		}
	}
}

const day = (at: Date): string => at.toISOString().slice(0, 10);

/** The common name of whoever it is, or all of the name. */
const called = (name: string): string => /^CN=(.*)$/m.exec(name)?.[1] ?? name.replaceAll('\n', ', ');

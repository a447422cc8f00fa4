import 'reflect-metadata';
import * as x509 from '@peculiar/x509';
import { createPrivateKey, createPublicKey, X509Certificate } from 'node:crypto';
import * as pkijs from 'pkijs';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { MOST_BETWEEN, rootOf } from './chain';
import { buffer } from './cms';
import { Fault } from './fault';
import { certificatesOf, commonName, listsOf, type Identity } from './keys';
import { newest } from './lists';
import { openPkcs12 } from './pkcs12';
import { suiteFor } from './suites';

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
	const opened = await openPkcs12(file, password);
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
	for (let i = 0; i <= MOST_BETWEEN; i++) {
		const issuer = certificates
			.map((der) => new X509Certificate(der))
			.find((c) => c.ca && of.checkIssued(c) && of.verify(c.publicKey));
		const name = commonName(of.issuer);
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

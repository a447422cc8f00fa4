import { cutText } from '../../core/clean-text';
import 'reflect-metadata';
import * as x509 from '@peculiar/x509';
import { createHash, createPrivateKey, createPublicKey, randomBytes, webcrypto, type KeyObject } from 'node:crypto';
import { SUITES, suiteFor, type HashName, type Suite } from './suites';

x509.cryptoProvider.set(webcrypto as unknown as Crypto);

const HASHES = { sha256: 'SHA-256', sha384: 'SHA-384' } as const;
const algorithm = ({ curve, hash }: Suite) => ({ name: 'ECDSA', namedCurve: curve!.web, hash: HASHES[hash] });
/** Policy of a notary's certificate (RFC 5280 §4.2.1.4): an arc under ITU-T X.667, with a number of Pellum's own. */
const NOTARY_POLICY = '2.25.1731900453.1';
const YEAR = 365.25 * 86_400_000;
/** How long a certificate is good for; a clock’s for less, since all that it says ends with it. */
const YEARS = { seal: 25, notary: 25, stamp: 10 } as const;

/** A certificate with its private key. DER throughout; `key` is PKCS #8 and never leaves the server unencrypted. */
export interface Identity {
	certificate: Uint8Array;
	key: Uint8Array;
	/** the root that it leads to, and what that has revoked */
	issuer: Uint8Array;
	crl: Uint8Array;
	/** authorities between the two, the nearest first, each with its list; none where the root issued it */
	between?: { certificate: Uint8Array; crl: Uint8Array }[];
}

/** An identity made here, with the key of its own root, by which it can be withdrawn. */
export interface MadeIdentity extends Identity {
	/** PKCS #8 */
	rootKey: Uint8Array;
}

/** Why a certificate is withdrawn (RFC 5280 §5.3.1): somebody else may have its key, or it is used no more. */
export type WithdrawnWhy = 'keyCompromise' | 'cessationOfOperation';

/** A certificate and all that issued it, up to the root. */
export const certificatesOf = ({ certificate, between = [], issuer }: Identity): Uint8Array[] => [
	certificate,
	...between.map((one) => one.certificate),
	issuer
];
export const listsOf = ({ between = [], crl }: Identity): Uint8Array[] => [...between.map((one) => one.crl), crl];

/** How this identity signs. Throws where its key is of a kind that isn't permitted. */
export function suiteOf(identity: Identity): Suite {
	const suite = suiteFor(createPublicKey(privateKeyOf(identity)));
	if (!suite) throw new Error('this key is of a kind that seals nothing here');
	return suite;
}

/** All that is needed to seal: the organisation's seal and the time-stamp authority's. */
export interface SealKeys {
	seal: Identity;
	stamp: Identity;
}

/**
 * An authority of its own and one certificate under it (RFC 5280), with an empty revocation list.
 * @param use 'seal': digital signature and non-repudiation, no extended use (pdfsig wants none);
 *   'notary': the same under the policy {@link NOTARY_POLICY}; 'stamp': critical extended use timeStamping only (RFC 3161 §2.3)
 */
export async function makeIdentity(
	organisation: string,
	use: 'seal' | 'stamp' | 'notary',
	now: Date,
	hash: HashName = 'sha256'
): Promise<MadeIdentity> {
	const suite = hash === 'sha256' ? SUITES.p256 : SUITES.p384;
	const what = { seal: 'document seal', stamp: 'time-stamp authority (stand-in)', notary: 'notary (stand-in)' }[use];
	const name = (common: string): Record<string, string[]>[] => [
		{ CN: [cutText(common, 64)] },
		{ O: [cutText(organisation, 64)] }
	];
	const notBefore = new Date(now.getTime() - YEAR * 2);
	const notAfter = new Date(now.getTime() + YEAR * YEARS[use]);
	const rootKeys = await webcrypto.subtle.generateKey(algorithm(suite), true, ['sign', 'verify']);
	const root = await x509.X509CertificateGenerator.createSelfSigned({
		serialNumber: serial(),
		name: name(`${organisation} ${{ seal: 'root', stamp: 'time root', notary: 'notary root' }[use]}`),
		notBefore,
		notAfter,
		keys: rootKeys as CryptoKeyPair,
		signingAlgorithm: algorithm(suite),
		extensions: [
			new x509.BasicConstraintsExtension(true, 0, true),
			new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
			await x509.SubjectKeyIdentifierExtension.create(rootKeys.publicKey as x509.PublicKeyType)
		]
	} as x509.X509CertificateCreateSelfSignedParams);
	const keys = await webcrypto.subtle.generateKey(algorithm(suite), true, ['sign', 'verify']);
	const certificate = await x509.X509CertificateGenerator.create({
		serialNumber: serial(),
		subject: name(`${organisation} ${what}`),
		issuer: root.subject,
		notBefore,
		notAfter,
		publicKey: keys.publicKey as x509.PublicKeyType,
		signingKey: rootKeys.privateKey as CryptoKey,
		signingAlgorithm: algorithm(suite),
		extensions: [
			new x509.BasicConstraintsExtension(false, undefined, true),
			new x509.KeyUsagesExtension(
				x509.KeyUsageFlags.digitalSignature | (use === 'stamp' ? 0 : x509.KeyUsageFlags.nonRepudiation),
				true
			),
			...(use === 'stamp' ? [new x509.ExtendedKeyUsageExtension(['1.3.6.1.5.5.7.3.8'], true)] : []),
			...(use === 'notary' ? [new x509.CertificatePolicyExtension([NOTARY_POLICY])] : []),
			await x509.SubjectKeyIdentifierExtension.create(keys.publicKey as x509.PublicKeyType),
			await x509.AuthorityKeyIdentifierExtension.create(rootKeys.publicKey as x509.PublicKeyType)
		]
	} as x509.X509CertificateCreateParams);
	const exported = async (key: CryptoKey) => new Uint8Array(await webcrypto.subtle.exportKey('pkcs8', key));
	return {
		certificate: new Uint8Array(certificate.rawData),
		key: await exported(keys.privateKey),
		issuer: new Uint8Array(root.rawData),
		crl: await listBy(root, rootKeys.privateKey as CryptoKey, suite, notBefore, []),
		rootKey: await exported(rootKeys.privateKey as CryptoKey)
	};
}

/** The list by which the root of an identity that was made here withdraws it (RFC 5280 §5), DER. */
export async function withdrawnBy(identity: MadeIdentity, at: Date, why: WithdrawnWhy): Promise<Uint8Array> {
	const suite = suiteOf(identity);
	const key = await webcrypto.subtle.importKey('pkcs8', identity.rootKey, algorithm(suite), false, ['sign']);
	const { serialNumber } = new x509.X509Certificate(new Uint8Array(identity.certificate));
	const reason = x509.X509CrlReason[why];
	const root = new x509.X509Certificate(new Uint8Array(identity.issuer));
	return listBy(root, key as CryptoKey, suite, at, [{ serialNumber, revocationDate: at, reason }]);
}

async function listBy(
	root: x509.X509Certificate,
	signingKey: CryptoKey,
	suite: Suite,
	thisUpdate: Date,
	entries: x509.X509CrlEntryParams[]
): Promise<Uint8Array> {
	const list = await x509.X509CrlGenerator.create({
		issuer: root.subject,
		thisUpdate,
		nextUpdate: root.notAfter,
		signingKey,
		signingAlgorithm: algorithm(suite),
		entries
	} as unknown as Parameters<typeof x509.X509CrlGenerator.create>[0]);
	return new Uint8Array(list.rawData);
}

/** The common name in a distinguished name as Node writes it, or all of it where there is none. */
export const commonName = (name: string): string => /^CN=(.*)$/m.exec(name)?.[1] ?? name.replaceAll('\n', ', ');

/** SHA-256 of a certificate, by which it is named here. */
export const fingerprint = (certificate: Uint8Array): string => createHash('sha256').update(certificate).digest('hex');

/** Whether a certificate is a notary's: what it signs is an act, and no seal. */
export function isNotarys(certificate: Uint8Array): boolean {
	const policies = new x509.X509Certificate(new Uint8Array(certificate)).getExtension(x509.CertificatePolicyExtension);
	return policies?.policies.includes(NOTARY_POLICY) ?? false;
}

export function privateKeyOf(identity: Identity): KeyObject {
	return createPrivateKey({ key: Buffer.from(identity.key), format: 'der', type: 'pkcs8' });
}

export function toPem(der: Uint8Array): string {
	const lines =
		Buffer.from(der)
			.toString('base64')
			.match(/.{1,64}/g) ?? [];
	return `-----BEGIN CERTIFICATE-----\n${lines.join('\n')}\n-----END CERTIFICATE-----\n`;
}

/** Positive and 16 bytes long (RFC 5280 §4.1.2.2). */
function serial(): string {
	const bytes = randomBytes(16);
	bytes[0] = (bytes[0]! & 0x7f) | 0x40;
	return bytes.toString('hex');
}

/** The organisation that a certificate names (RFC 5280 §4.1.2.6), '' where it names none. */
export function organisationIn(certificate: Uint8Array): string {
	return new x509.X509Certificate(new Uint8Array(certificate)).subjectName.getField('O')[0] ?? '';
}

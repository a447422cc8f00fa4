import * as asn1 from 'asn1js';
import { webcrypto } from 'node:crypto';
import * as pkijs from 'pkijs';
import { refuse, type Refusal } from '../../core/refusal';
import { buffer } from './cms';

pkijs.setEngine('node', new pkijs.CryptoEngine({ name: 'node', crypto: webcrypto as unknown as Crypto }));

/** Files with a private key and certificates, under a password (PKCS #12, RFC 7292). */

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
		const inner = within(block);
		return inner ? rounds(inner) : 0;
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

/** What stands in octets; null where that is no ASN.1: a salt or what is locked may be any bytes, also such as begin like a date. */
function within(octets: asn1.OctetString): asn1.BaseBlock | null {
	try {
		const { offset, result } = asn1.fromBER(octets.getValue());
		return offset > 0 ? result : null;
	} catch {
		return null;
	}
}

/** The one key in it (PKCS #8) and all certificates, DER. Refuses what is no such file, can't be opened, or has no key or several. */
export async function openPkcs12(
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

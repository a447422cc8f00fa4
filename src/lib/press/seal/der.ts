/**
 * Writes DER (X.690): enough of it for what we sign. Reading stays with the ASN.1 library, so that what is written
 * here is judged by other code than what wrote it.
 */
export type Der = Uint8Array;

/** Tag, length, content. `tag` is the whole identifier octet. */
export function tlv(tag: number, ...parts: Uint8Array[]): Der {
	const length = parts.reduce((sum, part) => sum + part.length, 0);
	const head = length < 0x80 ? [tag, length] : [tag, 0x80 | bytesFor(length).length, ...bytesFor(length)];
	return Buffer.concat([Buffer.from(head), ...parts]);
}

export const sequence = (...parts: Uint8Array[]): Der => tlv(0x30, ...parts);
export const octets = (bytes: Uint8Array): Der => tlv(0x04, bytes);
/** Context-specific and constructed: [n]. */
export const tagged = (n: number, ...parts: Uint8Array[]): Der => tlv(0xa0 | n, ...parts);
export const NULL: Der = tlv(0x05);
export const TRUE: Der = tlv(0x01, Buffer.from([0xff]));

/** A SET OF in ascending order of its members' encodings (§11.6). */
export const setOf = (...parts: Uint8Array[]): Der => tlv(0x31, ...[...parts].sort((a, b) => Buffer.compare(a, b)));

/** A whole number that is not negative, from a small number or from its bytes. */
export function integer(value: number | Uint8Array): Der {
	const bytes = typeof value === 'number' ? Uint8Array.from(bytesFor(value)) : value;
	return tlv(0x02, ...(bytes[0]! & 0x80 ? [Uint8Array.of(0)] : []), bytes);
}

/** An object identifier from its dotted form (§8.19). */
export function oid(dotted: string): Der {
	const [first, second, ...rest] = dotted.split('.').map(Number) as [number, number, ...number[]];
	const content = [first * 40 + second, ...rest].flatMap((arc) => {
		const groups = [arc & 0x7f];
		for (let left = Math.floor(arc / 128); left > 0; left = Math.floor(left / 128))
			groups.unshift(0x80 | (left & 0x7f));
		return groups;
	});
	return tlv(0x06, Uint8Array.from(content));
}

/** A moment to the second as GeneralizedTime in UTC (§11.7). */
export function generalizedTime(at: Date): Der {
	const text = at.toISOString().replace(/[-:T]/g, '').slice(0, 14) + 'Z';
	return tlv(0x18, Buffer.from(text, 'latin1'));
}

function bytesFor(n: number): number[] {
	const bytes: number[] = [];
	do {
		bytes.unshift(n & 0xff);
		n = Math.floor(n / 256);
	} while (n > 0);
	return bytes;
}

/** What no signature covers has one permitted form here, so that nobody can write a seal anew without its key. */

/**
 * An ECDSA signature (SEQUENCE of r and s, RFC 3279 §2.2.3) with the smaller of the two values that s may have: with (r, s) also
 * (r, n − s) fits, which anybody can work out.
 * @param order n, of the curve
 */
export function lowS(signature: Uint8Array, order: bigint): Uint8Array {
	const [r, s] = parts(signature);
	return s * 2n > order ? encoded(r, order - s) : signature;
}

/** Whether a signature is in that form, and encoded as DER wants it. */
export function isLowS(signature: Uint8Array, order: bigint): boolean {
	try {
		const [r, s] = parts(signature);
		return s * 2n <= order && Buffer.compare(encoded(r, s), signature) === 0;
	} catch {
		return false;
	}
}

function parts(signature: Uint8Array): [bigint, bigint] {
	const bytes = Buffer.from(signature);
	const at = 4 + bytes[3]!;
	const number = (from: number, length: number) => BigInt(`0x${bytes.toString('hex', from, from + length)}`);
	return [number(4, bytes[3]!), number(at + 2, bytes[at + 1]!)];
}

function encoded(r: bigint, s: bigint): Buffer {
	const number = (n: bigint) => {
		const hex = n.toString(16);
		const bytes = Buffer.from(hex.length % 2 ? `0${hex}` : hex, 'hex');
		const positive = bytes[0]! & 0x80 ? Buffer.concat([Buffer.of(0), bytes]) : bytes;
		return Buffer.concat([Buffer.of(2, positive.length), positive]);
	};
	const both = Buffer.concat([number(r), number(s)]);
	return Buffer.concat([Buffer.of(0x30, both.length), both]);
}

/**
 * Whether an encoding is DER (X.690 §10, §11) as far as lengths, booleans and integers go, all the way down: what BER permits
 * besides would let the same thing be written in many ways.
 */
export function isDer(bytes: Uint8Array): boolean {
	let at = 0;
	while (at < bytes.length) {
		const tag = bytes[at]!;
		// tags of more than one byte don't occur in a seal
		if ((tag & 0x1f) === 0x1f || at + 1 >= bytes.length) return false;
		let length = bytes[at + 1]!;
		let from = at + 2;
		if (length >= 0x80) {
			const count = length & 0x7f;
			if (count === 0 || count > 4 || bytes[from] === 0 || from + count > bytes.length) return false;
			length = 0;
			for (let i = 0; i < count; i++) length = length * 256 + bytes[from + i]!;
			if (length < 0x80) return false;
			from += count;
		}
		const content = bytes.subarray(from, from + length);
		if (content.length !== length) return false;
		const constructed = (tag & 0x20) !== 0;
		if (constructed ? !isDer(content) : !isPrimitive(tag, content)) return false;
		// strings are never in pieces
		if (constructed && tag < 0x30) return false;
		at = from + length;
	}
	return true;
}

function isPrimitive(tag: number, content: Uint8Array): boolean {
	if (tag === 0x01) return content.length === 1 && (content[0] === 0 || content[0] === 0xff);
	if (tag !== 0x02) return true;
	const padded =
		content.length > 1 && (content[0] === 0 ? content[1]! < 0x80 : content[0] === 0xff && content[1]! >= 0x80);
	return content.length > 0 && !padded;
}

/** Whether the members of a SET OF stand in the order of their encodings (X.690 §11.6). */
export function isSorted(members: Uint8Array[]): boolean {
	return members.every((one, i) => i === 0 || Buffer.compare(members[i - 1]!, one) < 0);
}

import canonicalize from 'canonicalize';

/** JSON in the one form that has one hash: RFC 8785. Refuses (throws on) NaN, infinities and cycles. */
export function canonicalJson(value: unknown): string {
	const text = canonicalize(value);
	if (text === undefined) throw new TypeError('nothing to write as JSON');
	return text;
}

/** Whether two values are the same as JSON; nothing at all is the same as null. */
export function sameJson(a: unknown, b: unknown): boolean {
	return canonicalJson(a ?? null) === canonicalJson(b ?? null);
}

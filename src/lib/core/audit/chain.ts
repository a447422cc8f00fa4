/** SHA-256 of a text's UTF-8 bytes, as 64 hexadecimal digits. Handed in, since core knows no platform. */
export type Sha256 = (text: string) => string;

/** What the first link of every chain points back to. */
export const GENESIS = '0'.repeat(64);

/** One link: `body` is the event as canonical JSON (RFC 8785), `hash` covers it and all that came before. */
export interface Link {
	body: string;
	hash: string;
}

/** The hash of the link that holds `body` and follows the link with hash `previous`. */
export function linkHash(sha256: Sha256, previous: string, body: string): string {
	return sha256(previous + '\n' + body);
}

/** Links the bodies on to a chain that ends in `previous`. */
export function extend(sha256: Sha256, previous: string, bodies: string[]): Link[] {
	let last = previous;
	return bodies.map((body) => {
		last = linkHash(sha256, last, body);
		return { body, hash: last };
	});
}

/** The place of the first link that does not follow from those before it; -1 when the chain is sound. */
export function firstBroken(sha256: Sha256, links: Iterable<Link>, start: string = GENESIS): number {
	let last = start;
	let place = 0;
	for (const link of links) {
		const hash = linkHash(sha256, last, link.body);
		if (hash !== link.hash) return place;
		last = hash;
		place += 1;
	}
	return -1;
}

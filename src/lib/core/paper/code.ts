/** What the small code in a page's margin says: which packet, whose part, which page of how many, and of what content. */
export interface PageCode {
	/** the packet's, as people read it */
	reference: string;
	/** whose part, by the first eight hexadecimal digits of their id's SHA-256 */
	person: string;
	/** from 1, through all documents */
	page: number;
	pages: number;
	/** the first 16 hexadecimal digits of the SHA-256 of what went out */
	digest: string;
}

/** Only such letters as a code packs two at a time (ISO/IEC 18004 §7.3.4), so that it stays coarse enough for a fax. */
export function codeText({ reference, person, page, pages, digest }: PageCode): string {
	return `PAGE1/${reference}/${person.slice(0, 8)}/${page}/${pages}/${digest.slice(0, 16)}`.toUpperCase();
}

const CODE = /^PAGE1\/([0-9A-Z-]{1,40})\/([0-9A-F]{8})\/(\d{1,4})\/(\d{1,4})\/([0-9A-F]{16})$/;

/** What a code says; null for any other code that somebody's page may bear. */
export function readCode(text: string): PageCode | null {
	const found = CODE.exec(text);
	if (!found) return null;
	const [, reference, person, page, pages, digest] = found;
	return {
		reference: reference!,
		person: person!.toLowerCase(),
		page: Number(page),
		pages: Number(pages),
		digest: digest!.toLowerCase()
	};
}

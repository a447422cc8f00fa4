import { strToU8, zipSync } from 'fflate';

const TYPES = `<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>`;
const RELS = `<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>`;

/** A run of a paragraph; `yellow`: marked as still to be written. */
export interface Run {
	text: string;
	yellow?: boolean;
}

/** A Word document of plain paragraphs, and a table where one is given (ECMA-376). */
export function docx(
	paragraphs: (string | Run[])[],
	table: string[][] = [],
	more: Record<string, string | Uint8Array> = {}
): Uint8Array {
	const run = ({ text, yellow }: Run) =>
		`<w:r>${yellow ? '<w:rPr><w:highlight w:val="yellow"/></w:rPr>' : ''}<w:t xml:space="preserve">${text.replace(/&/g, '&amp;').replace(/</g, '&lt;')}</w:t></w:r>`;
	const paragraph = (p: string | Run[]) =>
		`<w:p>${(typeof p === 'string' ? [{ text: p }] : p).map(run).join('')}</w:p>`;
	const rows = table
		.map((row) => `<w:tr>${row.map((cell) => `<w:tc>${paragraph(cell)}</w:tc>`).join('')}</w:tr>`)
		.join('');
	const body = paragraphs.map(paragraph).join('') + (rows && `<w:tbl>${rows}</w:tbl>`);
	const document = `<?xml version="1.0"?><w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${body}</w:body></w:document>`;
	const parts: Record<string, string | Uint8Array> = {
		'[Content_Types].xml': TYPES,
		'_rels/.rels': RELS,
		'word/document.xml': document,
		...more
	};
	return zipSync(
		Object.fromEntries(
			Object.entries(parts).map(([name, part]) => [name, typeof part === 'string' ? strToU8(part) : part])
		)
	);
}

/** A part that names another one, inside or elsewhere. */
export function relationship(type: string, target: string): string {
	return `<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r9" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/${type}" Target="${target}" TargetMode="External"/></Relationships>`;
}

/** The engagement letter as the office writes it in its word processor, with what is still to be agreed marked. */
export function engagementInWord(person: string, instrument: string, tour: string): Uint8Array {
	return docx(
		[
			'Guest musician engagement',
			`Dear ${person},`,
			`The Brindlevale Touring Orchestra is glad to engage you as guest ${instrument} for ${tour}. The dates, the repertoire and the terms are set out below. Please read them, and sign at the end if you agree.`,
			'1 Engagement',
			'You play in every rehearsal and concert named above, and hold yourself ready from the call time.',
			'2 Fee',
			[{ text: 'The Orchestra pays ' }, { text: 'GBP ___ to be agreed', yellow: true }, { text: ' for each concert.' }],
			'Signature of the musician: ______________________   Date: ______________'
		],
		[
			['Day', 'Place', 'Call', 'Concert'],
			['Thursday', 'Corn Exchange, Oldmere', '14:00', '19:30'],
			['Friday', 'Guildhall, Staunton', '15:00', '19:30']
		]
	);
}

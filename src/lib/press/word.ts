import { strFromU8, Unzip, UnzipInflate } from 'fflate';
import htmlToPdfmake from 'html-to-pdfmake';
import { parseHTML } from 'linkedom';
import mammoth from 'mammoth';
import pdfmake from 'pdfmake';
import { packageFile } from './assets';
import { refuse, type Refusal } from '../core/refusal';
import { byOffice } from './office';

/** What a Word document was made into. */
export interface Written {
	pdf: Uint8Array;
	/** words shaded or marked yellow: what its writer meant to come back to */
	shaded: string[];
	/** by which way; the plain one leaves out what it does not know */
	by: 'office' | 'plain';
	words: number;
}

const MOST_INSIDE = 200 * 1024 * 1024;
const MOST_PARTS = 5000;
const MOST_SHADED = 50;

/** Parts that may point outside: only links that a reader presses. */
const HARMLESS = /\/hyperlink$/;

/**
 * A DOCX (ECMA-376) as a PDF: by LibreOffice where the machine has it, else by the plain way. Refuses `not-a-docx`,
 * `docx-too-heavy` (a bomb), `docx-external` (parts that lie elsewhere), `docx-unreadable`.
 */
export async function wordToPdf({ bytes }: { bytes: Uint8Array }): Promise<Written | Refusal> {
	const parts = looked(bytes);
	if ('refused' in parts) return parts;
	const { text, shaded } = parts;
	const words = text.split(/\s+/).filter(Boolean).length;
	const made = await byOffice(bytes);
	if (made) return { pdf: made, shaded, by: 'office', words };
	try {
		return { pdf: await byPlainWay(bytes), shaded, by: 'plain', words };
	} catch {
		return refuse('docx-unreadable', 'The Word document can’t be read. Save it as PDF and add that.');
	}
}

/** Looks into the ZIP without believing what it says of its own sizes. */
function looked(bytes: Uint8Array): { text: string; shaded: string[] } | Refusal {
	let size = 0;
	let parts = 0;
	let heavy = false;
	const kept = new Map<string, Uint8Array[]>();
	const unzip = new Unzip((file) => {
		parts++;
		if (parts > MOST_PARTS) heavy = true;
		if (heavy) return;
		const wanted = file.name === 'word/document.xml' || file.name.endsWith('.rels');
		file.ondata = (error, chunk) => {
			if (error) throw error;
			size += chunk.length;
			if (size > MOST_INSIDE) {
				heavy = true;
				file.terminate();
				return;
			}
			if (wanted) kept.set(file.name, [...(kept.get(file.name) ?? []), chunk]);
		};
		file.start();
	});
	unzip.register(UnzipInflate);
	try {
		// in pieces, so that a bomb is noticed before it has gone off
		for (let at = 0; at < bytes.length && !heavy; at += 65_536)
			unzip.push(bytes.subarray(at, at + 65_536), at + 65_536 >= bytes.length);
	} catch {
		if (!heavy) return refuse('not-a-docx', 'This is not a Word document that can be read. Save it anew, or as PDF.');
	}
	if (heavy)
		return refuse('docx-too-heavy', 'The Word document unfolds to more than is permitted. Save it anew, or as PDF.');
	const read = (name: string) => strFromU8(joined(kept.get(name) ?? []));
	const outside = [...kept.keys()].filter((name) => name.endsWith('.rels')).flatMap((name) => externals(read(name)));
	if (outside.length > 0)
		return refuse(
			'docx-external',
			`The Word document takes parts from elsewhere (${outside[0]!.slice(0, 80)}), which Pellum does not fetch. Save it with its pictures inside.`
		);
	if (!kept.has('word/document.xml'))
		return refuse('not-a-docx', 'This is not a Word document that can be read. Save it anew, or as PDF.');
	return textOf(read('word/document.xml'));
}

function joined(chunks: Uint8Array[]): Uint8Array {
	return new Uint8Array(Buffer.concat(chunks));
}

function externals(rels: string): string[] {
	const { document } = parseHTML(`<html><body>${rels.replace(/<\?xml[^>]*\?>/, '')}</body></html>`);
	return [...document.querySelectorAll('relationship')]
		.filter((r) => r.getAttribute('TargetMode') === 'External' && !HARMLESS.test(r.getAttribute('Type') ?? ''))
		.map((r) => r.getAttribute('Target') ?? 'somewhere');
}

/** All words of the document, and those that are marked or shaded yellow, run by run (ECMA-376-1 §17.3.2.15, §17.3.2.32). */
function textOf(xml: string): { text: string; shaded: string[] } {
	const shaded: string[] = [];
	let text = '';
	for (const paragraph of xml.split(/<\/w:p>/)) {
		let open = '';
		for (const [run] of paragraph.matchAll(/<w:r[ >][\s\S]*?<\/w:r>/g)) {
			const words = [...run.matchAll(/<w:t(?: [^>]*)?>([^<]*)<\/w:t>/g)].map((t) => plain(t[1]!)).join('');
			text += words;
			const yellow =
				/<w:highlight [^>]*w:val="(?:yellow|darkYellow)"/.test(run) ||
				/<w:shd [^>]*w:fill="FFFF[0-9A-F]{2}"/i.test(run);
			if (yellow) open += words;
			else if (open !== '') open = keep(shaded, open);
		}
		if (open !== '') keep(shaded, open);
		text += '\n';
	}
	return { text, shaded };
}

function keep(shaded: string[], text: string): '' {
	const words = text.trim().slice(0, 200);
	if (words !== '' && shaded.length < MOST_SHADED) shaded.push(words);
	return '';
}

function plain(xml: string): string {
	return xml.replace(
		/&(lt|gt|quot|apos|amp);/g,
		(_, name: string) => ({ lt: '<', gt: '>', quot: '"', apos: "'", amp: '&' })[name]!
	);
}

/** The plain way: paragraphs, headings, tables, lists and pictures; no heads, feet, fonts or shading. */
async function byPlainWay(bytes: Uint8Array): Promise<Uint8Array> {
	const { value } = await mammoth.convertToHtml({ buffer: Buffer.from(bytes) });
	const { window } = parseHTML('<html><body></body></html>');
	const html = value.replaceAll('<table>', '<table><tbody>').replaceAll('</table>', '</tbody></table>');
	const content = htmlToPdfmake(`<html><body>${html}</body></html>`, {
		window,
		defaultStyles: {
			h1: { fontSize: 18, bold: true, marginBottom: 8 },
			h2: { fontSize: 13, bold: true, marginBottom: 4, marginTop: 8 },
			p: { margin: [0, 2, 0, 6] }
		}
	});
	const face = (name: string) => packageFile(`@expo-google-fonts/literata/${name}/Literata_${name}.ttf`);
	const fonts = {
		normal: face('400Regular'),
		bold: face('700Bold'),
		italics: face('400Regular_Italic'),
		bolditalics: face('700Bold_Italic')
	};
	pdfmake.setFonts({ Literata: fonts });
	pdfmake.setUrlAccessPolicy(() => false);
	pdfmake.setLocalAccessPolicy((path: string) => Object.values(fonts).includes(path));
	const pdf = pdfmake.createPdf({
		content,
		pageSize: 'A4',
		pageMargins: [70, 70, 70, 70],
		defaultStyle: { font: 'Literata', fontSize: 10.5, lineHeight: 1.25 }
	});
	return new Uint8Array(await pdf.getBuffer());
}

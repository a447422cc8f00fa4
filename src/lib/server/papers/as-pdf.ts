import { fileTypeFromBuffer } from 'file-type';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import type { AddWish } from './index';
import { glance, LIMITS, picturesInWorker, wordInWorker } from '../../press';

/** A document as a PDF, with what it was made from where that was none. */
interface AsPdf {
	pdf: Uint8Array;
	sources: { bytes: Uint8Array; media: string }[];
	shaded: string[];
	/** what a person should know, told how many words its pages have now */
	note: (words: number) => string[];
}

const WORD = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';
const PICTURES = ['image/png', 'image/jpeg'];

/** What came in as one PDF, judged by its content. Refuses what is neither PDF, Word nor pictures. */
export async function asPdf(files: Uint8Array[], wish: AddWish): Promise<AsPdf | Refusal> {
	const [first] = files;
	if (!first || files.some((file) => file.length === 0)) return refuse('file-empty', 'The file is empty (0 bytes).');
	const size = files.reduce((sum, file) => sum + file.length, 0);
	if (size > LIMITS.bytes)
		return refuse('file-too-large', `The file is ${mb(size)} MB; ${mb(LIMITS.bytes)} MB is the most.`);
	const kinds = await Promise.all(files.map(kindOf));
	if (kinds.every((kind) => PICTURES.includes(kind))) {
		const pdf = await picturesInWorker(
			files.map((file) => file.slice()),
			wish
		);
		if (isRefusal(pdf)) return pdf;
		return { pdf, sources: files.map((bytes, i) => ({ bytes, media: kinds[i]! })), shaded: [], note: () => [] };
	}
	if (files.length > 1)
		return refuse('not-pictures', 'Only pictures can be the pages of one document. Add the others one by one.');
	if (kinds[0] === WORD || kinds[0] === 'application/zip') return fromWord(first.slice(), wish);
	const no = glance(first);
	if (no?.code === 'not-a-pdf')
		return refuse('not-a-pdf', 'This is neither a PDF, a Word document (DOCX), nor a picture (PNG, JPEG).');
	return no ?? { pdf: first, sources: [], shaded: [], note: () => [] };
}

/** The media type by content. A PDF is told by its head alone: the rest of it may be shared with other threads. */
async function kindOf(file: Uint8Array): Promise<string> {
	if (glance(file) === null) return 'application/pdf';
	return (await fileTypeFromBuffer(file.slice()))?.mime ?? '';
}

async function fromWord(bytes: Uint8Array, wish: AddWish): Promise<AsPdf | Refusal> {
	const made = await wordInWorker(bytes, wish.changes ?? 'ask', wish);
	if (isRefusal(made)) return made;
	const { pdf, shaded, by, words, notes } = made;
	return {
		pdf,
		sources: [{ bytes, media: WORD }],
		shaded,
		note: (now) => [
			...notes.map((note) => `${note}.`),
			...(by === 'plain'
				? [
						`taken in the plain way, without its heads, feet, fonts and shading: ${now} words on the pages, ${words} in the text. Look at the pages before you go on, or save it as PDF and add that.`
					]
				: [])
		]
	};
}

function mb(bytes: number): string {
	return (bytes / 1024 / 1024).toFixed(bytes < 10 * 1024 * 1024 ? 1 : 0);
}

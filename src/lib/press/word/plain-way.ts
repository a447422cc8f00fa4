import htmlToPdfmake from 'html-to-pdfmake';
import { parseHTML } from 'linkedom';
import mammoth from 'mammoth';
import pdfmake from 'pdfmake';
import sharp from 'sharp';
import { faceFile, isRightToLeft, runsOf, type Face } from '../fonts';
import { writeNumbers } from './numbering';
import { folded, type WordPackage } from './package';

/** A document made by the plain way, and what a person should know of it. */
export interface PlainWay {
	pdf: Uint8Array;
	notes: string[];
}

/** A piece of what is to be set, as html-to-pdfmake gives it. */
interface Piece {
	text?: string | Piece[] | Piece;
	stack?: Piece[];
	ul?: Piece[];
	ol?: Piece[];
	columns?: Piece[];
	table?: { body: Piece[][] };
	font?: string;
	[key: string]: unknown;
}

const LITERATA = {
	normal: faceFile('serif'),
	bold: faceFile('serifBold'),
	italics: faceFile('literata'),
	bolditalics: faceFile('serifBold')
};

/** The plain way: paragraphs, headings, tables, lists with their numbers, pictures; no heads, feet, faces or shading. */
export async function byPlainWay(word: WordPackage): Promise<PlainWay> {
	const notes: string[] = [];
	const untold = writeNumbers(word);
	if (untold.length > 0)
		notes.push(
			`${untold.length === 1 ? 'a paragraph is' : `${untold.length} paragraphs are`} without the number it has in Word: ${untold
				.slice(0, 5)
				.map((text) => `“${text}”`)
				.join(', ')}${untold.length > 5 ? ' and others' : ''}`
		);
	let pictures = 0;
	const { value } = await mammoth.convertToHtml(
		{ buffer: Buffer.from(folded(word)) },
		{
			convertImage: mammoth.images.imgElement(async (image) => {
				try {
					const png = await sharp(Buffer.from(await image.readAsArrayBuffer()), { limitInputPixels: 40_000_000 })
						.resize(1600, 1600, { fit: 'inside', withoutEnlargement: true })
						.png()
						.toBuffer();
					return { src: `data:image/png;base64,${png.toString('base64')}` };
				} catch {
					pictures += 1;
					return { src: '' };
				}
			})
		}
	);
	if (pictures > 0) notes.push(`${pictures} ${pictures === 1 ? 'picture' : 'pictures'} could not be read and left out`);
	const { window } = parseHTML('<html><body></body></html>');
	const html = value
		.replaceAll(/<img[^>]*src=""[^>]*>/g, '')
		.replaceAll(/<\/?(thead|tbody)>/g, '')
		.replaceAll('<table>', '<table><tbody>')
		.replaceAll('</table>', '</tbody></table>');
	const content = htmlToPdfmake(`<html><body>${html}</body></html>`, {
		window,
		defaultStyles: {
			h1: { fontSize: 18, bold: true, marginBottom: 8 },
			h2: { fontSize: 13, bold: true, marginBottom: 4, marginTop: 8 },
			p: { margin: [0, 2, 0, 6] }
		}
	}) as Piece | Piece[];
	const missing = new Set<string>();
	const faces = new Set<Face>();
	const turned = { words: 0 };
	for (const piece of [content].flat()) setFaces(piece, faces, missing, turned);
	if (missing.size > 0) {
		const letters = [...missing];
		notes.push(
			`${letters.length} ${letters.length === 1 ? 'sign' : 'signs'} that can’t be shown ${letters.length === 1 ? 'is' : 'are'} written as a code: ${letters.slice(0, 8).join(' ')}`
		);
	}
	if (turned.words > 0) notes.push('text that runs from right to left comes out in the wrong order');
	const fonts = Object.fromEntries([
		['Literata', LITERATA],
		...[...faces].map((face) => {
			const file = faceFile(face);
			return [face, { normal: file, bold: file, italics: file, bolditalics: file }];
		})
	]) as Record<string, typeof LITERATA>;
	const files = Object.values(fonts).flatMap((one) => Object.values(one));
	pdfmake.setFonts(fonts);
	pdfmake.setUrlAccessPolicy(() => false);
	pdfmake.setLocalAccessPolicy((path: string) => files.includes(path));
	const made = pdfmake.createPdf({
		content,
		pageSize: 'A4',
		pageMargins: [70, 70, 70, 70],
		defaultStyle: { font: 'Literata', fontSize: 10.5, lineHeight: 1.25 }
	});
	return { pdf: new Uint8Array(await made.getBuffer()), notes };
}

/** Gives every letter a face that has it; those that none has are written as their code point, and named. In place. */
function setFaces(piece: Piece | string, faces: Set<Face>, missing: Set<string>, turned: { words: number }): void {
	if (typeof piece === 'string' || piece === null || typeof piece !== 'object') return;
	if (typeof piece.text === 'string') {
		const text = piece.text;
		if (isRightToLeft(text) && /\s/.test(text.trim())) turned.words += 1;
		const pieces = inFaces(text, faces, missing);
		if (pieces.length !== 1 || pieces[0]!.font || pieces[0]!.text !== text) piece.text = pieces;
	} else if (Array.isArray(piece.text))
		piece.text = piece.text.flatMap((one) => {
			if (typeof one === 'string') return inFaces(one, faces, missing);
			setFaces(one, faces, missing, turned);
			return [one];
		});
	else if (piece.text) setFaces(piece.text, faces, missing, turned);
	for (const list of [piece.stack, piece.ul, piece.ol, piece.columns, ...(piece.table?.body ?? [])])
		for (const one of list ?? []) setFaces(one, faces, missing, turned);
}

/** Letters in reading order, cut where the face changes: lines are broken later, so nothing is turned here. */
function inFaces(text: string, faces: Set<Face>, missing: Set<string>): Piece[] {
	const pieces: { text: string; font?: Face }[] = [];
	for (const letter of text) {
		const { runs, missing: none } = /\s/.test(letter) ? { runs: [], missing: [] } : runsOf(letter, 'serif');
		for (const one of none) missing.add(one);
		const written =
			none.length > 0 ? `[U+${letter.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}]` : letter;
		const face = runs[0]?.face;
		const font = face && face !== 'serif' ? face : undefined;
		const last = pieces[pieces.length - 1];
		if (last && (last.font === font || /^\s$/.test(letter))) last.text += written;
		else pieces.push({ text: written, ...(font && { font }) });
		if (font) faces.add(font);
	}
	return pieces;
}

import type { PDFDocument } from '@cantoo/pdf-lib';

/** An object of a revision: its number, and what it says between `obj` and `endobj`, a letter a byte. */
export interface NewObject {
	number: number;
	text: string;
}

/**
 * A file with one more revision (ISO 32000-2 §7.5.6), to the byte the same whenever it is made of the same.
 * @param doc the file as it was, read
 * @param before its bytes
 */
export function revisionAfter(doc: PDFDocument, before: Uint8Array, objects: NewObject[]): Buffer {
	let text = '\n';
	const at = objects.map((one) => {
		const offset = before.length + text.length;
		text += `${one.number} 0 obj\n${one.text}\nendobj\n`;
		return offset;
	});
	const table = before.length + text.length;
	const rows = objects.map((one, i) => `${one.number} 1\n${String(at[i]).padStart(10, '0')} 00000 n \n`).join('');
	const { Root, Info, ID } = doc.context.trailerInfo;
	const size = Math.max(doc.context.largestObjectNumber, ...objects.map((one) => one.number)) + 1;
	const end = Buffer.from(before.buffer, before.byteOffset, before.byteLength).subarray(-64).toString('latin1');
	const trailer = [
		`/Size ${size}`,
		`/Root ${String(Root)}`,
		...(Info ? [`/Info ${String(Info)}`] : []),
		...(ID ? [`/ID ${String(ID)}`] : []),
		`/Prev ${/startxref\s+(\d+)\s+%%EOF\s*$/.exec(end)![1]}`
	].join('\n');
	text += `xref\n${rows}trailer\n<<\n${trailer}\n>>\nstartxref\n${table}\n%%EOF\n`;
	return Buffer.concat([before, Buffer.from(text, 'latin1')]);
}

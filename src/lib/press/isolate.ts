import {
	decodePDFRawStream,
	PDFArray,
	PDFDict,
	PDFName,
	PDFRawStream,
	PDFStream,
	type PDFDocument,
	type PDFPage
} from '@cantoo/pdf-lib';

/** Marks a page whose own content is shut up already: a private key (ISO 32000-2, Annex E), taken off before saving. */
const shut = new WeakSet<PDFPage>();

/**
 * Puts all that a page draws into one form XObject (ISO 32000-2 §8.10), so that whatever is drawn afterwards begins in
 * the state a page begins in. Unbalanced `q` and `Q`, a text object that never ends and a stream that breaks off stay
 * inside; without it they swallow what is stamped, in one reader or in all. `matrix`: how it is then drawn.
 */
export function isolate(doc: PDFDocument, page: PDFPage, matrix?: number[]): void {
	if (shut.has(page)) return;
	shut.add(page);
	const { context } = doc;
	const contents = page.node.Contents();
	const streams = contents instanceof PDFArray ? streamsOf(contents) : contents ? [contents] : [];
	// what was drawn here just now is whole, and may be drawn on
	if (!streams.every((stream) => stream instanceof PDFRawStream)) return;
	page.node.delete(PDFName.of('Contents'));
	if (streams.length === 0) return;
	const bytes = bytesOf(streams);
	const media = page.getMediaBox();
	const crop = page.getCropBox();
	const [x, y] = [Math.min(media.x, crop.x), Math.min(media.y, crop.y)];
	const right = Math.max(media.x + media.width, crop.x + crop.width);
	const top = Math.max(media.y + media.height, crop.y + crop.height);
	const dict = PDFDict.withContext(context);
	for (const [key, value] of bytes.coding) dict.set(key, value);
	dict.set(PDFName.of('Type'), PDFName.of('XObject'));
	dict.set(PDFName.of('Subtype'), PDFName.of('Form'));
	dict.set(PDFName.of('BBox'), context.obj([x, y, right, top]));
	const resources = page.node.Resources();
	if (resources) dict.set(PDFName.of('Resources'), resources.clone());
	const tagged = page.node.get(PDFName.of('StructParents'));
	if (tagged) dict.set(PDFName.of('StructParents'), tagged);
	const own = context.register(PDFRawStream.of(dict, bytes.contents));
	page.node.set(PDFName.of('Resources'), context.obj({ Font: {}, XObject: {}, ExtGState: {} }));
	const name = page.node.newXObject('Page', own);
	page.node.set(
		PDFName.of('Contents'),
		context.obj([
			context.register(
				context.stream(
					`q ${matrix ? `${matrix.map((n) => n.toFixed(6)).join(' ')} cm ` : ''}/${name.decodeText()} Do Q\n`
				)
			)
		])
	);
}

/** The bytes of a page's content, as they are coded where it is one stream, else joined as §7.8.2 says. */
function bytesOf(streams: PDFRawStream[]): {
	contents: Uint8Array;
	coding: [PDFName, NonNullable<ReturnType<PDFDict['get']>>][];
} {
	const [first] = streams;
	if (streams.length === 1)
		return {
			contents: first!.contents,
			coding: first!.dict.entries().filter(([key]) => ['Filter', 'DecodeParms'].includes(key.decodeText()))
		};
	const parts = streams.flatMap((stream) => [decoded(stream), Buffer.from('\n')]);
	return { contents: new Uint8Array(Buffer.concat(parts)), coding: [] };
}

function streamsOf(array: PDFArray): PDFStream[] {
	return Array.from({ length: array.size() }, (_, i) => array.lookup(i)).filter((one) => one instanceof PDFStream);
}

/** A stream's bytes; of one that breaks off, none: what comes after it is drawn all the same. */
function decoded(stream: PDFRawStream): Uint8Array {
	try {
		return decodePDFRawStream(stream).decode();
	} catch {
		return new Uint8Array();
	}
}
